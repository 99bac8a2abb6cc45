package light

import (
	"math"

	"pinhole/core/stop"
)

// ExposeFor says which part of a frame is to come out right.
type ExposeFor string

// The schools of a subject that is darker than what is behind it.
const (
	ForSubject ExposeFor = "subject"
	ForBright  ExposeFor = "bright"
	Between    ExposeFor = "between" // the mean of both: each loses half
)

// Values returns every ExposeFor there is.
func (ExposeFor) Values() []ExposeFor {
	return []ExposeFor{ForSubject, ForBright, Between}
}

// Defaults of what a camera's picture holds around the meter's aim.
const (
	DefaultHeadroom = stop.Stops(2.5)
	DefaultDepth    = stop.Stops(5)
)

// Contrast is the light of the parts of one frame, each at least as bright as
// the next: Bright, Subject, Dark.
type Contrast struct {
	Subject, Bright, Dark stop.EV
	// Headroom is what the picture holds above the aim, Depth what it holds below.
	Headroom, Depth stop.Stops
}

// Aim returns the light that the exposure is made for.
func (c Contrast) Aim(e ExposeFor) stop.EV {
	switch e {
	case ForBright:
		return c.Bright
	case Between:
		return (c.Subject + c.Bright) / 2
	}
	return c.Subject
}

// LostHighlights returns by how much the brightest part clips:
// max(0, bright − aim − headroom). ND does not change it: it darkens aim and
// bright alike.
func (c Contrast) LostHighlights(e ExposeFor) stop.Stops {
	return positive(c.Bright.Above(c.Aim(e)) - c.Headroom)
}

// LostShadows returns by how much the darkest part blocks up:
// max(0, aim − dark − depth).
func (c Contrast) LostShadows(e ExposeFor) stop.Stops {
	return positive(c.Aim(e).Above(c.Dark) - c.Depth)
}

// Graduated returns the graduated glass over the bright part that would let the
// subject be exposed for and nothing clip: max(0, bright − subject − headroom).
// It suits a level horizon and a camera that holds still.
func (c Contrast) Graduated() stop.Stops {
	return positive(c.Bright.Above(c.Subject) - c.Headroom)
}

// positive returns s where it is above 0 and 0 elsewhere.
func positive(s stop.Stops) stop.Stops { return stop.Stops(math.Max(0, float64(s))) }
