// Package request reads JSON from outside into typed values and says exactly
// what is wrong with what it refuses.
//
// What a field allows stands in its struct tags: minimum, maximum,
// exclusiveMinimum, enum, minItems, maxItems, minLength, maxLength and doc. A
// field is optional when its json tag says omitempty or omitzero. The same tags
// describe the field in the OpenAPI document, so the two cannot disagree.
package request
