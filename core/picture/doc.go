// Package picture draws what a setting does to a shot: short loops of a made-up
// scene with the exposure, blur, strobing, wobble, flicker, ghosting and noise that
// the shot's own numbers give.
//
// Everything is drawn in linear light, in which exposure and blur are sums, and
// encoded for the screen (sRGB, IEC 61966-2-1) at the very end. Movement is
// sideways: each layer of the scene slides by what its distance makes of it, and
// its blur is the exact integral of its light over the time the shutter is open.
// Where a blurred layer covers another, coverage is integrated with it; light that
// changes behind a moving edge within one exposure is not.
//
// A loop takes a few tens of megabytes at most and no more than its size says.
// Nothing here starts a goroutine: frames are independent, and callers may draw
// them side by side.
package picture
