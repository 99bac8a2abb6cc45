package light

import (
	"math"
	"time"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Outdoors is one subject in daylight at one place.
type Outdoors struct {
	Place Place
	Sky   Sky
	// Turns are later changes of the sky, in order of time.
	Turns []SkyTurn
	Plane Plane
	// Faces is the heading that an upright subject faces; it counts only where
	// HasHeading is set. Without it the subject faces the sun.
	Faces      angle.Deg
	HasHeading bool
	// Albedo is the ground's, in [0, 1].
	Albedo float64
	// Surface is how much brighter than mid-grey the scene's surfaces are.
	Surface stop.Stops
}

// SkyTurn is a sky from an instant on.
type SkyTurn struct {
	From time.Time
	Sky  Sky
}

// SkyAt returns the sky at an instant: that of the last turn before it.
func (o *Outdoors) SkyAt(t time.Time) Sky {
	sky := o.Sky
	for _, turn := range o.Turns {
		if turn.From.After(t) {
			break
		}
		sky = turn.Sky
	}
	return sky
}

// FacingCamera returns the heading of a subject that looks into a camera of the
// given heading.
func FacingCamera(camera angle.Deg) angle.Deg { return (camera + 180).Heading() }

// At returns the light of the model at an instant, and where the sun stands.
func (o *Outdoors) At(t time.Time) (Scene, Position) {
	sun := Sun(t, o.Place)
	beta := angle.Deg(0)
	if o.HasHeading {
		beta = (o.Faces - sun.Azimuth).Turn()
	}
	return FromSky(o.SkyAt(t), sun.Geometric, t.YearDay(), o.Plane, beta, o.Albedo, o.Surface), sun
}

// Anchor is a reading taken on the spot, which the rest of the day follows.
type Anchor struct {
	At time.Time
	EV stop.EV
}

// driftPerHour is how much surer a fresh anchor is than one an hour old.
const driftPerHour = stop.Stops(0.1)

// Offset returns by how much the anchor is brighter than the model at its minute.
func (o *Outdoors) Offset(a Anchor) stop.Stops {
	model, _ := o.At(a.At)
	return a.EV.Above(model.EV)
}

// Moved returns the light of the model at a point as the anchor moves it: by its
// offset, with the spread of a reading that has aged since. A reading is carried
// through its own day, by the clock of the point, and says nothing of another's.
func (a Anchor) Moved(p Point, offset stop.Stops) Scene {
	year, month, day := p.At.Date()
	if y, m, d := a.At.In(p.At.Location()).Date(); y != year || m != month || d != day {
		return p.Scene
	}
	hours := math.Abs(p.At.Sub(a.At).Hours())
	return Scene{EV: p.EV.Plus(offset), Spread: OnTheSpot + driftPerHour*stop.Stops(hours)}
}

// Point is the light at one instant.
type Point struct {
	At  time.Time
	Sun Position
	Scene
}

// Curve returns the light from one instant to another, both included, every step;
// a last step that would overshoot is left out. With an anchor the model is moved
// by its offset, and the spread is that of a reading and a tenth of a stop for
// each hour from it; without one it is the sky's. step is above 0.
func (o *Outdoors) Curve(from, to time.Time, step time.Duration, anchor *Anchor) []Point {
	var offset stop.Stops
	if anchor != nil {
		offset = o.Offset(*anchor)
	}
	points := make([]Point, 0, max(0, to.Sub(from)/step+1))
	for t := from; !t.After(to); t = t.Add(step) {
		p := Point{At: t}
		p.Scene, p.Sun = o.At(t)
		if anchor != nil {
			p.Scene = anchor.Moved(p, offset)
		}
		points = append(points, p)
	}
	return points
}
