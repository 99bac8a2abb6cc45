package light

import "pinhole/core/stop"

// OnTheSpot is how far a reading taken at the place and time of the shot may be
// off: a meter's own tolerance and where it was pointed.
const OnTheSpot = stop.Stops(0.2)

// Scene is the light of a scene as read.
type Scene struct {
	EV stop.EV
	// Spread is how far EV may be off, either way.
	Spread stop.Stops
}

// FromSetting reduces an exposure that a meter or a camera's automatic found
// right to the scene's light: what the setting needs, and the glass that was on
// when it was read (APEX; ISO 2720).
func FromSetting(s stop.Setting, glass stop.Stops) Scene {
	return Scene{EV: s.EV().Plus(glass), Spread: OnTheSpot}
}

// FromBias reduces the exposure bias that a locked camera shows: EVset + S + bias.
// A positive bias says the picture is brighter than the camera wants.
func FromBias(locked stop.Setting, glass, bias stop.Stops) Scene {
	return Scene{EV: locked.EV().Plus(glass + bias), Spread: OnTheSpot}
}

// FromLux reduces incident light in lux, in (0, ∞): log2(E/2.5).
func FromLux(lux float64) Scene { return Scene{EV: stop.FromLux(lux), Spread: OnTheSpot} }
