package day

import (
	"fmt"
	"slices"
	"sync"
	"time"

	"pinhole/core/glass"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// How far a shot is moved in search of light that serves it, and in what steps.
const (
	farthestShift = 6 * time.Hour
	shiftStep     = 5 * time.Minute
)

// remedies says what would serve a shot that breaks: small changes, each made and judged
// again for all its batteries. Where none serves, the nearest says what it leaves.
func (o *Prepared) remedies(s *OutingShot) []string {
	batteries := o.batteries[s.ID]
	if unmet := batteries[0].unmet; unmet != "" {
		return []string{unmet}
	}
	if s.Placed != nil {
		var better string
		if batteries, better = o.unplaced(s); better != "" {
			return []string{"option: " + better + " in place of what was put on by hand"}
		}
	}
	var serving []*attempt // one of each kind
	var nearest *attempt
	ways, isOut := waysOf(batteries)
	for _, way := range ways {
		i := slices.IndexFunc(serving, func(a *attempt) bool { return a.way.Kind == way.Kind })
		// Who buys glass wants that with which the shot holds, if there is any.
		if i >= 0 && (way.Kind != shot.MoreGlass || serving[i].state == glass.Holds) {
			continue
		}
		if way.Kind == shot.MoreGlass && way.Change.GlassStops() > needed(batteries)+1 {
			continue // darker than any of it needs
		}
		if way.Kind == shot.AnotherLook && !helpsExposure(batteries[0], *way.Change.Time) {
			continue // the wrong way
		}
		if isOut && way.Kind == shot.AnotherLook && nearest != nil && nearest.way.Kind == shot.AnotherLook && nearest.leaves.Strains[0].Kind == shot.Exposure {
			continue // what is out of reach of the farthest shutter is farther from this one
		}
		most := shot.MaxGap + 1
		if nearest != nil {
			most = nearest.misses
		}
		switch a := attemptOn(batteries, way, most); {
		case a == nil:
		case a.state != glass.Breaks && i < 0:
			serving = append(serving, a)
		case a.state == glass.Holds:
			serving[i] = a
		case a.state != glass.Breaks: // no better than the weaker one
		default:
			nearest = a
		}
	}
	words := []string{}
	for _, a := range serving {
		words = append(words, "option: "+a.way.Does())
	}
	if at, by := o.otherHour(s); by != "" {
		words = append(words, fmt.Sprintf("option: start %s with %s", at.Format("15:04"), by))
	}
	if len(words) > 0 {
		return words
	}
	words = append(words, "no filter, shutter, frame rate or hour nearby covers it: bring light, or make it two shots")
	if nearest != nil {
		words = append(words, fmt.Sprintf("nearest: %s, which leaves: %s", nearest.way.Does(), nearest.leaves.Gives()))
	}
	return words
}

// unplaced returns the batteries of a shot as if nothing had been put on by hand, and the glass
// that serves the first of them where all are served; "" where one is not.
func (o *Prepared) unplaced(s *OutingShot) (batteries []*Battery, by string) {
	free := *s
	free.Placed = nil
	k, err := o.kitFor(&free, "")
	if err != nil || k == nil {
		return o.batteries[s.ID], ""
	}
	isServed := true
	for _, b := range o.batteries[s.ID] {
		b = newBattery(k, b.light, b.from, b.until)
		batteries = append(batteries, b)
		isServed = isServed && b.expected().State != glass.Breaks
	}
	if isServed {
		by = o.Names[k.nameOf(batteries[0].now().Taken.Stack)]
	}
	return batteries, by
}

// try is a change that could serve a shot, with what the scene then asks of its shutter: nil
// where it cannot be made. It is made once for all shots of a kit.
type try struct {
	shot.Remedy
	aim func() *shot.Aim
}

func triesOf(scene *shot.Scene) []*try {
	ways := scene.Remedies()
	all := make([]*try, len(ways))
	for i, way := range ways {
		all[i] = &try{way, sync.OnceValue(func() *shot.Aim {
			changed, err := scene.With(way.Change)
			if err != nil {
				return nil // the kit has no room for it
			}
			aim, err := changed.Aim()
			if err != nil {
				return nil // the camera has no shutter for it
			}
			return aim
		})}
	}
	return all
}

// waysOf returns what could be tried. Where the light is out of reach of any shutter, isOut,
// the farthest of them comes first: it leaves the least.
func waysOf(batteries []*Battery) (ways []*try, isOut bool) {
	ways = slices.Clone(batteries[0].tries())
	isOut = slices.ContainsFunc(batteries, func(b *Battery) bool {
		v := b.expected()
		return v.Question.Beyond(v.Option.Error) > shot.FarthestShutter
	})
	isLook := func(w *try) bool { return w.Kind == shot.AnotherLook }
	if from := slices.IndexFunc(ways, isLook); isOut && from >= 0 {
		to := from
		for to < len(ways) && isLook(ways[to]) {
			to++
		}
		slices.Reverse(ways[from:to])
	}
	return ways, isOut
}

// helpsExposure reports whether another shutter goes the way that the exposure needs, where
// that is what breaks.
func helpsExposure(b *Battery, t stop.Shutter) bool {
	v := b.expected()
	if len(v.Strains) == 0 || v.Strains[0].Kind != shot.Exposure || v.Question.Light.IsRange() && v.Option.Verdict == glass.FloatShutter {
		return true
	}
	isLonger := t > v.Question.Setting.Shutter
	return isLonger == (v.Option.Error < v.Question.Offset)
}

// needed returns the most glass that any battery needs.
func needed(batteries []*Battery) stop.Stops {
	most := batteries[0].now().Question.Need()
	for _, b := range batteries[1:] {
		most = max(most, b.now().Question.Need())
	}
	return most
}

// attempt is a change and what it makes of all batteries of a shot.
type attempt struct {
	way    *try
	state  glass.State
	misses stop.Stops
	leaves *shot.Verdict // on the battery that is worst with it
}

// attemptOn makes a change and judges every battery again; nil where it cannot be made,
// helps none of them, or leaves a demand that misses by most or more.
func attemptOn(batteries []*Battery, way *try, most stop.Stops) *attempt {
	aim := way.aim()
	if aim == nil {
		return nil
	}
	a := &attempt{way: way, state: glass.Holds}
	helps := false
	for _, b := range batteries {
		v := aim.BestWithin(b.light, most)
		if v == nil {
			return nil // its exposure is out of reach
		}
		by := v.Misses(glass.Breaks)
		if a.state = glass.Worse(a.state, v.State); v.State == glass.Breaks && (a.leaves == nil || by > a.misses) {
			a.misses, a.leaves = by, v
		}
		if by >= most {
			return nil
		}
		helps = helps || by < b.expected().Misses(glass.Breaks)
	}
	if !helps {
		return nil
	}
	return a
}

// otherHour returns the nearest other start at which the shot is served by glass that is
// there, while its camera is free, and that glass; by is "" where there is none.
func (o *Prepared) otherHour(s *OutingShot) (start time.Time, by string) {
	if !o.isDaylit(s) {
		return start, ""
	}
	there := *s
	there.Readings = nil // they say nothing of another hour
	others := o.othersOn(s)
	step := shiftStep
	for shift := step; shift <= farthestShift; shift += step {
		if shift >= time.Hour { // nobody plans by five minutes hours away
			step = 3 * shiftStep
		}
		for _, start := range []time.Time{s.From.Add(shift), s.From.Add(-shift)} {
			if !isFree(others, start, s.until().Sub(s.From)) {
				continue
			}
			if by := o.servedFrom(&there, start); by != "" {
				return start, by
			}
		}
	}
	return start, ""
}

// servedFrom returns the glass of the first battery of a shot that is served throughout if
// it begins at an instant, "" where one of them breaks.
func (o *Prepared) servedFrom(s *OutingShot, start time.Time) string {
	for _, b := range o.batteries[s.ID] {
		// One minute is quick, and most hours fail by their light.
		middle := o.daylight(o.subjectOf(s), start.Add(time.Duration((b.from+b.until)/2)*time.Minute))
		if !b.exposes(glass.Light{Low: middle.EV, High: middle.EV, Spread: middle.Spread}) {
			return ""
		}
	}
	first := ""
	for i, b := range o.batteries[s.ID] {
		v := b.aim.Best(o.lightOf(s, start, b.from, b.until).light())
		if v.State == glass.Breaks {
			return ""
		}
		if i == 0 {
			first = o.Names[b.nameOf(v.Option.Stack)]
		}
	}
	return first
}

// othersOn returns what else the camera of a shot shoots.
func (o *Prepared) othersOn(s *OutingShot) []*OutingShot {
	var others []*OutingShot
	for i := range o.Shots {
		if other := &o.Shots[i]; other.CameraID == s.CameraID && other.ID != s.ID {
			others = append(others, other)
		}
	}
	return others
}

// isFree reports whether a camera that shoots others is free for so long from an instant on.
func isFree(others []*OutingShot, start time.Time, length time.Duration) bool {
	end := start.Add(length)
	return !slices.ContainsFunc(others, func(other *OutingShot) bool { return other.From.Before(end) && start.Before(other.until()) })
}
