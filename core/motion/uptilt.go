package motion

import (
	"math"

	"pinhole/core/angle"
)

// Uptilt returns the camera tilt that keeps the horizon where it was when a craft
// in level flight goes speed instead of at, both in metres a second, at above 0:
// atan(tan(tilt)·(v/v0)²). Drag grows with the square of speed, and the craft
// leans into it. tilt is in [0°, 90°).
func Uptilt(tilt angle.Deg, at, speed float64) angle.Deg {
	ratio := speed / at
	return angle.FromRadians(math.Atan(tilt.Tan() * ratio * ratio))
}
