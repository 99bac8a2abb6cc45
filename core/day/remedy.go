package day

import (
	"math"
	"slices"
	"time"

	"pinhole/core/stop"
)

// Remedy is what would serve a shot that its plan does not serve; what is nil does
// not help.
type Remedy struct {
	// Glass is the one filter of whole stops that would.
	Glass *stop.Stops
	// Shorter is by how many stops a shorter shutter would, negative for a longer one.
	Shorter *stop.Stops
	// Start is the nearest other start of the shot at which glass that is there serves
	// it, and Stack that glass.
	Start *time.Time
	Stack *Stack
}

// How far a shot is moved in search of light that serves it, and in what steps.
const (
	farthestShift = 6 * time.Hour
	shiftStep     = 5 * time.Minute
)

// Remedy looks for what would serve a shot. lightAt returns the light of each minute
// of the shot if it began at another instant, nil where it cannot.
func (d *Day) Remedy(p *Planned, lightAt func(start time.Time) []stop.EV) Remedy {
	var r Remedy
	shot := p.Shot
	r.Glass = d.oneFilter(shot)
	moved := *shot // what is too bright at one end may be too dark at the other
	moved.EVSet = shot.EVSet.Plus(p.Worst)
	if off := p.Worst; off != 0 && d.servesBetween(&moved, p.Stack, slices.Min(shot.Points), slices.Max(shot.Points)) {
		r.Shorter = &off
	}
	stacks := d.stacksFor(shot.Camera)
	for shift := shiftStep; shift <= farthestShift; shift += shiftStep {
		for _, start := range []time.Time{shot.From.Add(shift), shot.From.Add(-shift)} {
			there := *shot
			there.From, there.To = start, start.Add(shot.To.Sub(shot.From))
			if !d.isFree(&there) {
				continue
			}
			if there.Points = lightAt(start); there.Points == nil {
				continue
			}
			low, high := slices.Min(there.Points), slices.Max(there.Points)
			for _, s := range stacks {
				if d.servesBetween(&there, s, low, high) {
					r.Start, r.Stack = &start, s
					return r
				}
			}
		}
	}
	return r
}

// servesBetween reports whether a stack serves all light between two values in a shot.
func (d *Day) servesBetween(shot *Shot, s *Stack, low, high stop.EV) bool {
	if shot.Takes != nil && !shot.Takes(s) {
		return false
	}
	takes := s.near(((low + high) / 2).Above(shot.EVSet) - shot.Offset)
	return d.excess(shot, high.Above(shot.EVSet)-takes) == 0 && d.excess(shot, low.Above(shot.EVSet)-takes) == 0
}

// isFree reports whether the camera shoots nothing else while a shot would last.
func (d *Day) isFree(there *Shot) bool {
	for i := range d.Shots {
		s := &d.Shots[i]
		if s.ID != there.ID && s.Camera == there.Camera && s.From.Before(there.To) && there.From.Before(s.To) {
			return false
		}
	}
	return true
}

// oneFilter returns the whole stops that would serve every minute of a shot, nil
// where none do: its light is too dark, or too wide.
func (d *Day) oneFilter(shot *Shot) *stop.Stops {
	low, high := slices.Min(shot.Points), slices.Max(shot.Points)
	band := d.bandOf(shot)
	least := high.Above(shot.EVSet) - shot.Offset - band.Bright
	most := low.Above(shot.EVSet) - shot.Offset + band.Dark + shot.Headroom
	// Of those that serve the lightest, for it leaves ISO at base.
	whole := stop.Stops(math.Max(1, math.Ceil(float64(least)-stop.Tolerance)))
	if !stop.AtMost(whole, most) {
		return nil
	}
	return &whole
}
