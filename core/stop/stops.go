package stop

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Stops is a ratio of light as a power of two: +1 is twice the light. For glass
// it counts what the glass takes away, so that a darker filter has more stops.
type Stops float64

// densityPerStop is log10(2): the optical density of one stop.
const densityPerStop = 0.30102999566398119521

// FromFactor returns the stops of a filter that passes one part in factor
// (ND16 passes 1/16, 4 stops). factor is in (0, ∞).
func FromFactor(factor float64) Stops { return Stops(math.Log2(factor)) }

// FromDensity returns the stops of optical density d = log10(factor): d/log10(2).
func FromDensity(d float64) Stops { return Stops(d / densityPerStop) }

// Factor returns the ratio 2^s.
func (s Stops) Factor() float64 { return math.Exp2(float64(s)) }

// Density returns the optical density s·log10(2).
func (s Stops) Density() float64 { return float64(s) * densityPerStop }

// Abs returns the size of s without its direction.
func (s Stops) Abs() Stops { return Stops(math.Abs(float64(s))) }

// String returns s to a tenth of a stop, as people say it: "4.9", "-0.3". What
// rounds to nothing has no sign.
func (s Stops) String() string {
	if s.Abs() < 0.05 {
		return "0.0"
	}
	return strconv.FormatFloat(float64(s), 'f', 1, 64)
}

// Signed returns s to a tenth of a stop with its direction: "+0.3", "−1.2", "0.0".
func (s Stops) Signed() string {
	if s.Abs() < 0.05 {
		return "0.0"
	}
	return strings.Replace(fmt.Sprintf("%+.1f", float64(s)), "-", "−", 1) // a true minus
}

// Amount returns a positive s with its unit: "0.7 stops"; what is there and would round to
// nothing is "less than 0.1 stops".
func (s Stops) Amount() string {
	if s > 0 && s < 0.05 {
		return "less than 0.1 stops"
	}
	return s.String() + " stops"
}

// Fraction returns a positive s the way tolerances are spoken of: "a third of a
// stop", "two thirds of a stop", "1.5 stops".
func (s Stops) Fraction() string {
	near := func(f float64) bool { return math.Abs(float64(s)-f) < 0.01 }
	switch {
	case near(1.0 / 3):
		return "third of a stop"
	case near(0.5):
		return "half stop"
	case near(2.0 / 3):
		return "two thirds of a stop"
	case near(1):
		return "stop"
	}
	return s.String() + " stops"
}
