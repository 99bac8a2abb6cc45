package motion

import (
	"math"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Axis is what a stick turns a craft about.
type Axis string

// The axes of a camera that looks along its craft.
const (
	Pan   Axis = "pan" // yaw
	Pitch Axis = "pitch"
	Roll  Axis = "roll"
)

// Values returns the axes in the order in which they are shown.
func (Axis) Values() []Axis { return []Axis{Pan, Pitch, Roll} }

// Rates is how a pilot's stick becomes a rate of turn.
type Rates struct {
	// Centre is the slope around the middle and Max the rate at full stick:
	// 0 ≤ Centre ≤ Max.
	Centre, Max angle.DegPerS
	// Expo moves what lies between towards the end of the stick, in [0, 1].
	Expo float64
}

// At returns the rate at stick x in [-1, 1], odd in x:
// r(x) = c·x + (m − c)·x·((1−e)·x + e·x⁵) for x ≥ 0.
func (r Rates) At(x float64) angle.DegPerS {
	s := math.Abs(x)
	rate := float64(r.Centre)*s + float64(r.Max-r.Centre)*s*((1-r.Expo)*s+r.Expo*math.Pow(s, 5))
	return angle.DegPerS(math.Copysign(rate, x))
}

// StickFor returns the largest stick in [0, 1] whose rate does not exceed most,
// which is at least 0. The rate only rises with the stick, so halving finds it.
func (r Rates) StickFor(most angle.DegPerS) float64 {
	if r.Max <= most {
		return 1
	}
	low, high := 0.0, 1.0
	for range 60 {
		if middle := (low + high) / 2; r.At(middle) <= most {
			low = middle
		} else {
			high = middle
		}
	}
	return low
}

// RateForShare returns the rate about an axis whose blur at t is the given share of the
// picture's width: across the middle of the picture, and in a roll, which leaves the middle
// where it is, at the middle of its left and right edge.
func RateForShare(about Axis, l Lens, t stop.Shutter, share float64) angle.DegPerS {
	if about == Roll { // an edge is half the width away
		return angle.DegPerS(angle.FromRadians(2 * share / t.Seconds()))
	}
	return TurnForShare(l, t, share)
}

// TurnForShare returns the rate of turn whose blur at t is the given share of
// the picture's width.
func TurnForShare(l Lens, t stop.Shutter, share float64) angle.DegPerS {
	return angle.DegPerS(angle.FromRadians(share * l.WidthPx / (l.PxPerRadian() * t.Seconds())))
}
