// Package calc is the computation's contract: for every computation a request
// and an answer as JSON, the ranges of their fields, and one table of names.
// The command line and the HTTP service are both doors to this table.
//
// Fields are in SI units; a unit that is not the obvious one is in the field's
// name. The struct tags minimum, maximum, exclusiveMinimum, enum, minItems,
// maxItems, maxLength and doc state what a field allows; package request
// enforces them and the OpenAPI document repeats them.
package calc

// ModelVersion names the rules the answers follow. It changes whenever the same
// request may get another answer, so that a stored answer can be explained.
const ModelVersion = "2"
