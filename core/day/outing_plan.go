package day

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// Plan fills in the shots, the swaps and what changed.
func (a *OutingAnswer) Plan(o *Prepared) {
	p := o.Day.Plan()
	a.Cost = p.Cost
	packs := map[string]*Planned{}
	for i := range p.Shots {
		packs[p.Shots[i].Shot.ID] = &p.Shots[i]
	}
	for i := range o.Shots {
		s := &o.Shots[i]
		if of := o.segments[s.ID]; of != nil {
			a.Shots = append(a.Shots, o.planned(s, of, packs))
		}
	}
	slices.SortStableFunc(a.Shots, func(x, y OutingPlan) int { return x.Packs[0].From.Compare(y.Packs[0].From) })
	for _, s := range p.Swaps {
		shotID := s.Shot.ID[:strings.LastIndex(s.Shot.ID, ", pack ")]
		a.Swaps = append(a.Swaps, OutingSwap{CameraID: s.Camera, At: s.At, From: s.From.ID, To: s.To.ID, Shot: shotID, Latest: Known(s.Latest), Because: s.Because()})
	}
	a.Changes = append(a.Changes, o.changes(a.Shots)...)
}

// planned sums up the packs of one shot.
func (o *Prepared) planned(s *OutingShot, segments []int, packs map[string]*Planned) OutingPlan {
	out := OutingPlan{ID: s.ID, State: glass.Holds, Remedies: []string{}}
	for i, k := range segments {
		shot := &o.Day.Shots[k]
		p := packs[shot.ID]
		low, high := slices.Min(shot.Points), slices.Max(shot.Points)
		out.Packs = append(out.Packs, OutingPack{
			From: shot.From, To: shot.To, Stack: p.Stack.ID, SettingStops: p.Setting, LowEV100: low, HighEV100: high,
			LastMinute: Known(p.LastMinute), Brighter: IDOf(p.Brighter), Darker: IDOf(p.Darker),
		})
		if i == 0 {
			out.LowEV100, out.HighEV100 = low, high
		}
		out.LowEV100, out.HighEV100, out.Spread = min(out.LowEV100, low), max(out.HighEV100, high), shot.Spread
		if p.Worst.Abs() > out.WorstStops.Abs() || out.Words == "" {
			out.WorstStops, out.Words = p.Worst, p.Words()
		}
		switch {
		case p.Worst != 0:
			out.State = glass.Breaks
			if len(out.Remedies) == 0 {
				out.Remedies = o.remedies(s, p)
			}
		case (p.Brighter != nil || p.Darker != nil) && out.State == glass.Holds:
			out.State = glass.Tight
		}
	}
	if s.Heading != nil && o.Place != nil {
		out.SunInFrame = o.sunFor(s)
	}
	return out
}

// remedies says what would serve a pack that is not.
func (o *Prepared) remedies(s *OutingShot, p *Planned) []string {
	r := o.Day.Remedy(p, func(start time.Time) []stop.EV {
		points, _, err := o.LightOf(s, "shots", start.Add(s.From.Sub(p.Shot.From)))
		if err != nil || s.Plane == "" {
			return nil
		}
		at := int(p.Shot.From.Sub(s.From) / time.Minute)
		return points[at : at+len(p.Shot.Points)]
	})
	words := []string{}
	if r.Glass != nil {
		words = append(words, fmt.Sprintf("a filter of %v stops (%s) would serve it", *r.Glass, glass.LabelOf(*r.Glass)))
	}
	if r.Shorter != nil && s.ShutterS > 0 {
		t := s.ShutterS.Times(-*r.Shorter)
		if t.Possible(stop.FrameRate(s.FPS)) {
			words = append(words, fmt.Sprintf("so would a shutter of %s in place of %s", t.Spoken(), s.ShutterS.Spoken()))
		}
	}
	if r.Start != nil {
		words = append(words, fmt.Sprintf("begun at %s, %s would serve it", r.Start.Add(s.From.Sub(p.Shot.From)).Format("15:04"), o.Names[r.Stack.ID]))
	}
	if len(words) == 0 {
		words = append(words, "no filter, shutter or hour nearby serves it: its light is too wide or too dark: bring light, or make it two shots")
	}
	return words
}

// Where the sun counts as before the camera, within sight of a wide view, and from
// where on it counts as behind.
const sunBefore, sunBehind = angle.Deg(45), angle.Deg(110)

// sunFor says where the sun stands for the camera, midway through the shot.
func (o *Prepared) sunFor(s *OutingShot) *SunView {
	sun := light.Sun(s.From.Add(time.Duration(s.Minutes)*time.Minute/2), o.Place.Place())
	v := &SunView{AltitudeDeg: sun.Apparent(), OffAxisDeg: (sun.Azimuth - *s.Heading).Turn()}
	switch off := v.OffAxisDeg.Abs(); {
	case v.AltitudeDeg < 0:
		v.Words = "the sun is down"
	case off <= sunBefore && v.AltitudeDeg <= sunBefore:
		v.Words = "the sun is before the camera: it may be in the frame; never look at it through a filter"
	case off <= sunBehind:
		v.Words = "the sun is at the side"
	default:
		v.Words = "the sun is behind the camera"
	}
	return v
}

// changes compares the plan with the one that was made before.
func (o *Prepared) changes(now []OutingPlan) []string {
	var words []string
	for i := range now {
		s := &now[i]
		before, wasPlanned := o.Before[s.ID]
		if !wasPlanned || before == s.Packs[0].Stack {
			continue
		}
		was, isThere := o.Names[before]
		if !isThere {
			was = "glass that is gone"
		}
		k := slices.IndexFunc(o.Shots, func(x OutingShot) bool { return x.ID == s.ID })
		words = append(words, fmt.Sprintf("%s: %s in place of %s", o.Shots[k].Name, o.Names[s.Packs[0].Stack], was))
	}
	return words
}
