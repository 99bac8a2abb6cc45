package motion

// Flown says how a craft is flown.
type Flown string

// The ways. Not known counts as manual: the more careful drill.
const (
	Level  Flown = "level"  // holds itself level and in place when the sticks are let go
	Manual Flown = "manual" // turns as long as it is told to, and cannot hover by itself
)

// Values returns every Flown there is.
func (Flown) Values() []Flown {
	return []Flown{Level, Manual}
}

// Carried says what carries a camera. The zero value is not known.
type Carried string

// What carries it.
const (
	ByHand  Carried = "hand"
	Ridden  Carried = "ridden" // on a rider or a vehicle
	OnStand Carried = "stand"
	Flying  Carried = "flying" // on a craft on its way
	Hovers  Carried = "hovers" // on a craft that keeps its place
)

// Values returns every Carried there is.
func (Carried) Values() []Carried {
	return []Carried{ByHand, Ridden, OnStand, Flying, Hovers}
}

// TravelsAlong reports whether the camera moves with what carries it, so that the scene
// passes by.
func (c Carried) TravelsAlong() bool { return c == Ridden || c == Flying }

// Pans reports whether a turn of the camera is a pan: on a stand, in the hand, hovering.
func (c Carried) Pans() bool { return c == ByHand || c == OnStand || c == Hovers }

// CanStand reports whether the camera could be put on a stand: not what flies, rides or
// is worn.
func (c Carried) CanStand() bool { return c == ByHand || c == "" }
