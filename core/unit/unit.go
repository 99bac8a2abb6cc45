// Package unit holds the units that people measure in and what each is of the one that is
// computed in. Sizes are exact: the international yard and pound agreement of 1959.
package unit

// Unit is a unit in which something is shown or typed.
type Unit struct {
	Name string  `json:"name"`
	Of   float64 `json:"of" doc:"how much of the unit that is computed in: metres per second, metres, grams"`
}

const metresPerFoot = 0.3048

// Speeds, in metres per second.
var (
	MetresPerSecond   = Unit{"m/s", 1}
	KilometresPerHour = Unit{"km/h", 1 / 3.6}
	MilesPerHour      = Unit{"mph", 5280 * metresPerFoot / 3600}
	FeetPerSecond     = Unit{"ft/s", metresPerFoot}
)

// DegreesPerSecond is how fast a camera turns, in itself.
var DegreesPerSecond = Unit{"°/s", 1}

// Lengths, in metres.
var (
	Metres      = Unit{"m", 1}
	Centimetres = Unit{"cm", 0.01}
	Kilometres  = Unit{"km", 1000}
	Feet        = Unit{"ft", metresPerFoot}
	Yards       = Unit{"yd", 3 * metresPerFoot}
)

// Masses, in grams.
var (
	Grams  = Unit{"g", 1}
	Ounces = Unit{"oz", 453.59237 / 16}
)

// Offered are the units that somebody may choose to see, the one that is computed in first.
type Offered struct {
	Speeds  []Unit `json:"speeds"`
	Lengths []Unit `json:"lengths"`
	Masses  []Unit `json:"masses"`
}

// Choices returns the units to choose from.
func Choices() Offered {
	return Offered{
		Speeds:  []Unit{MetresPerSecond, KilometresPerHour, MilesPerHour},
		Lengths: []Unit{Metres, Feet},
		Masses:  []Unit{Grams, Ounces},
	}
}
