// Package take measures a clip: how it was exposed and how the camera moved, the share of the
// frame time that its shutter was open, blur that a stabiliser left, strobing, flicker, wobble,
// repeated and dropped frames. It sees luma and times; decoding is the caller's.
//
// Each figure has its error, or is nil and says why it cannot be told. Definitions, limits and
// accuracy stand in docs/model.md, section Measuring a take.
package take
