package stop

import (
	"math"
	"strconv"
)

// FrameRate is in frames per second, in (0, ∞). The zero rate stands for a
// still or a long exposure, which has no frames.
type FrameRate float64

// filmRates are the rates that names round: a 1000/1001 of the whole number
// (SMPTE ST 12-1).
var filmRates = []float64{24, 30, 48, 60, 120, 240}

// ExactRate returns the rate meant by a number of frames per second: 23.976 and
// 23.98 are 24000/1001, 29.97 is 30000/1001, 59.94 is 60000/1001 and so on.
// Other rates are returned as they are.
func ExactRate(fps float64) FrameRate {
	for _, whole := range filmRates {
		exact := whole * 1000 / 1001
		if math.Abs(fps-exact) < 0.006*whole/24 {
			return FrameRate(exact)
		}
	}
	return FrameRate(fps)
}

// Frame returns the time of one frame, the longest exposure video leaves room for.
func (f FrameRate) Frame() Shutter { return Shutter(1 / float64(f)) }

// String returns the rate by its name: "50", "23.976", "59.94".
func (f FrameRate) String() string {
	for _, whole := range filmRates {
		if math.Abs(float64(f)-whole*1000/1001) < Tolerance {
			if whole == 24 {
				return "23.976"
			}
			return strconv.FormatFloat(float64(f), 'f', 2, 64)
		}
	}
	return strconv.FormatFloat(math.Round(float64(f)*1000)/1000, 'f', -1, 64)
}
