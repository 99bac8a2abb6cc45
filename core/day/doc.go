// Package day plans shots in time: which glass is on which camera when, with as few
// swaps as the light allows.
//
// Nothing here knows what a swap costs outside the picture, as in the rain: that is a
// setting of the caller.
package day
