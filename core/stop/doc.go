// Package stop holds the units of exposure and their written forms: stops,
// exposure values, shutter times and angles, frame rates, sensitivities and
// f-numbers.
//
// One stop is a factor of two in light. Every quantity is its own type, so that
// a sensitivity cannot be passed where a shutter time is meant; what the types
// cannot catch is a frame rate of delivery given for one of capture, which is
// why parameters are named for what they are.
//
// Out of scope: apertures that change (the cameras here have one), and film
// reciprocity.
package stop

// Tolerance is how far outside a bound a value may lie and still meet it, so
// that a bound reached by arithmetic counts as reached.
const Tolerance = 1e-9

// AtMost reports whether a does not exceed the bound b, within Tolerance.
func AtMost[T ~float64](a, b T) bool { return float64(a-b) <= Tolerance }
