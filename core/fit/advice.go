package fit

// Advice is something that can be done about a filter that may come off, and what to mind.
type Advice struct {
	Do      string `json:"do"`
	Caution string `json:"caution"`
	// IsNamed is true of what people do and we advise against.
	IsNamed bool `json:"isNamed" doc:"people do it; it is named for its danger and not advised"`
}

// Loosened returns what is done on the spot about a ring that is loose, what is safe first.
// Adhesives and heat near a lens can ruin it, so that the advice stays with a leash, tape
// and the right size; the others are named because people do them.
func Loosened(inFlight bool) []Advice {
	leash := "a leash does not hold the filter before the lens, it keeps it from falling on somebody: look at it before each take"
	if inFlight {
		leash = "short enough to stay out of the props; a filter on its leash still takes the picture away: fly by sight, or by your observer's word, and land"
	}
	return []Advice{
		{Do: "Tether it: a thin leash from the ring to the rig", Caution: leash},
		{Do: "Tape across ring and barrel, on the outside", Caution: "never on the filter, vents or what the gimbal turns; pull it off slowly, it leaves glue"},
		{Do: "A ring of the right size", Caution: "measure both with a caliper first: tenths of a millimetre decide"},
		{Do: "A friction spot of glue or varnish inside the ring", Caution: "it can creep onto the lens, and it can lock the filter on for good", IsNamed: true},
		{Do: "Shaping the ring with heat", Caution: "heat ruins coatings, seals and the barrel's own glue, and the ring cools to another size than it had hot", IsNamed: true},
	}
}
