package light

import (
	"math"
	"slices"
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
	// Known is what a log knows of the place under a sky; it moves the model.
	Known map[Sky]Known
}

// Known is how much brighter than the model a place is under a sky, and how far a day there may
// still be off. Where the day itself was read, Moments say so in order of time; between them it
// goes straight, and beyond them what holds in general is taken.
type Known struct {
	Offset, Spread stop.Stops
	Moments        []KnownMoment
}

// KnownMoment is what is known at one instant.
type KnownMoment struct {
	At             time.Time
	Offset, Spread stop.Stops
}

// at returns what is known at an instant.
func (k *Known) at(t time.Time) (offset, spread stop.Stops) {
	after := slices.IndexFunc(k.Moments, func(m KnownMoment) bool { return !m.At.Before(t) })
	switch {
	case after < 0 || after == 0 && k.Moments[0].At.After(t):
		return k.Offset, k.Spread
	case after == 0:
		return k.Moments[0].Offset, k.Moments[0].Spread
	}
	a, b := k.Moments[after-1], k.Moments[after]
	part := stop.Stops(t.Sub(a.At).Seconds() / b.At.Sub(a.At).Seconds())
	return a.Offset + part*(b.Offset-a.Offset), a.Spread + part*(b.Spread-a.Spread)
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

// At returns the light of the model at an instant, as what is known moves it, and where the sun
// stands.
func (o *Outdoors) At(t time.Time) (Scene, Position) {
	sun := Sun(t, o.Place)
	beta := angle.Deg(0)
	if o.HasHeading {
		beta = (o.Faces - sun.Azimuth).Turn()
	}
	sky := o.SkyAt(t)
	scene := FromSky(sky, sun.Geometric, t.YearDay(), o.Plane, beta, o.Albedo, o.Surface)
	if k, ok := o.Known[sky]; ok {
		offset, spread := k.at(t)
		scene = Scene{EV: scene.EV.Plus(offset), Spread: spread}
	}
	return scene, sun
}

// Anchor is a reading taken on the spot, which the light around it follows.
type Anchor struct {
	At time.Time
	EV stop.EV
}

// fading is how long the light around a reading takes to forget a third and more of it, as
// clouds and haze do: rho = exp(−|dt|/6 h). A rule of practice that the log may replace.
const fading = 6 * time.Hour

// Offset returns by how much the anchor is brighter than the model at its minute.
func (o *Outdoors) Offset(a Anchor) stop.Stops {
	model, _ := o.At(a.At)
	return a.EV.Above(model.EV)
}

// holdsSky reports whether the kind of sky is the same from one instant to another.
func (o *Outdoors) holdsSky(from, to time.Time) bool {
	if to.Before(from) {
		from, to = to, from
	}
	sky := o.SkyAt(from)
	for _, turn := range o.Turns {
		if turn.From.After(from) && !turn.From.After(to) && turn.Sky != sky {
			return false
		}
	}
	return true
}

// Moved returns the light of the model at a point as the anchor moves it: by rho times its
// offset, with the spread √(0.2²·rho² + σ²·(1 − rho²)), σ the sky's own, 0.2 that of a
// reading. Across a change of the kind of sky it says nothing.
func (o *Outdoors) Moved(a Anchor, p Point, offset stop.Stops) Scene {
	if !o.holdsSky(a.At, p.At) {
		return p.Scene
	}
	rho := math.Exp(-p.At.Sub(a.At).Abs().Hours() / fading.Hours())
	read, sky := float64(OnTheSpot)*rho, float64(p.Spread)
	return Scene{EV: p.EV.Plus(stop.Stops(rho) * offset), Spread: stop.Stops(math.Sqrt(read*read + sky*sky*(1-rho*rho)))}
}

// Point is the light at one instant.
type Point struct {
	At  time.Time
	Sun Position
	Scene
}

// Curve returns the light from one instant to another, both included, every step;
// a last step that would overshoot is left out. With an anchor the model is moved as
// Moved says; without one the spread is the sky's. step is above 0.
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
			p.Scene = o.Moved(*anchor, p, offset)
		}
		points = append(points, p)
	}
	return points
}
