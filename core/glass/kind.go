package glass

import "pinhole/core/stop"

// Kind says what a filter does to light.
type Kind string

// The kinds of filter.
const (
	ND          Kind = "nd"           // grey: takes the same from every colour
	NDPolariser Kind = "nd-polariser" // grey and polariser in one ring
	Polariser   Kind = "polariser"
	Variable    Kind = "variable"  // two polarisers that turn against each other
	Graduated   Kind = "graduated" // grey over one half, clear over the other
	Clear       Kind = "clear"     // protection only
	Mist        Kind = "mist"      // softens highlights
	Night       Kind = "night"     // against the glow of lamps
)

// Values returns every Kind there is.
func (Kind) Values() []Kind {
	return []Kind{ND, NDPolariser, Polariser, Variable, Graduated, Clear, Mist, Night}
}

// Light lost to effect glass whose label names no strength, and how far it
// strays. They are defaults: a measured value replaces them.
const (
	polariserStops  = stop.Stops(1.5)
	polariserSpread = stop.Stops(0.4) // turning it changes it
	mistStops       = stop.Stops(0.2)
	nightStops      = stop.Stops(0.6)
	nightSpread     = stop.Stops(0.3)
)

// Polarises reports whether glass of this kind holds a polariser. Two of them
// in one stack cross and darken without measure, so a stack has at most one.
func (k Kind) Polarises() bool { return k == Polariser || k == NDPolariser || k == Variable }

// Spread returns how far the stops of unmeasured glass of this kind stray.
func (k Kind) Spread() stop.Stops {
	switch k {
	case Polariser, NDPolariser, Variable:
		return polariserSpread
	case Night:
		return nightSpread
	}
	return 0
}
