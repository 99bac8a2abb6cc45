package motion

// Flown says how a craft is flown.
type Flown string

// The ways. Not known counts as manual: the more careful drill.
const (
	Level  Flown = "level"  // holds itself level and in place when the sticks are let go
	Manual Flown = "manual" // turns as long as it is told to, and cannot hover by itself
)

// Carried says what carries a camera that does not fly.
type Carried string

// What carries it.
const (
	ByHand  Carried = "hand"
	Ridden  Carried = "ridden" // on a rider or a vehicle
	OnStand Carried = "stand"
)
