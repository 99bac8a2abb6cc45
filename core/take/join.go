package take

import (
	"cmp"
	"math"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Part is one window of a clip that was measured by itself.
type Part struct {
	Answer Answer `json:"answer"`
	// IsContinued says that it begins with the frame that the part before it ends with.
	IsContinued bool `json:"continued,omitempty" doc:"its first frame is the last one of the part before"`
}

// Join returns what windows of one clip say together: figures with an error are averaged by it,
// and where they lie further apart than it allows (the shutter moved) the error grows; of faults
// the worst is told. Frames are counted through. parts is not empty.
func Join(parts []Part) *Answer {
	first := parts[0].Answer
	a := &Answer{
		WidthPx: first.WidthPx, WorkPx: first.WorkPx, Gaps: []int{}, Duplicates: []int{}, Drops: []int{}, Cuts: []int{},
		Exposure: Exposure{MeanStops: []float64{}, GainStops: []float64{}, Steps: []Step{}}, Motion: Motion{Pairs: []Move{}},
	}
	var rates []float64
	for i := range parts {
		p := &parts[i].Answer
		rates = append(rates, p.FPS)
		shared := 0
		if parts[i].IsContinued && i > 0 {
			shared = 1
		} else if i > 0 {
			a.Gaps = append(a.Gaps, a.Frames)
		}
		a.append(p, shared)
	}
	a.FPS = median(rates)
	a.joinExposure(parts)
	a.joinMotion(parts)
	a.joinShake(parts)
	a.joinShutter(parts)
	a.joinGhost(parts)
	a.joinStrobe(parts)
	a.joinFlicker(parts)
	a.joinWobble(parts)
	return a
}

// append adds the frames of a part, of which the first so many are there already.
func (a *Answer) append(p *Answer, shared int) {
	from := a.Frames - shared
	for _, list := range []struct{ to, of *[]int }{{&a.Gaps, &p.Gaps}, {&a.Duplicates, &p.Duplicates}, {&a.Drops, &p.Drops}, {&a.Cuts, &p.Cuts}} {
		for _, frame := range *list.of {
			*list.to = append(*list.to, from+frame)
		}
	}
	for _, s := range p.Exposure.Steps {
		a.Exposure.Steps = append(a.Exposure.Steps, Step{from + s.Frame, s.Stops})
	}
	level := 0.0
	if n := len(a.Exposure.GainStops); shared > 0 && n > 0 {
		level = a.Exposure.GainStops[n-1]
	}
	for i := shared; i < p.Frames; i++ {
		a.Exposure.MeanStops = append(a.Exposure.MeanStops, p.Exposure.MeanStops[i])
		a.Exposure.GainStops = append(a.Exposure.GainStops, level+p.Exposure.GainStops[i])
	}
	a.Motion.Pairs = append(a.Motion.Pairs, p.Motion.Pairs...)
	a.Frames = from + p.Frames
}

// mean is the mean of a figure of the parts, by their frames.
func mean(parts []Part, of func(p *Answer) float64) float64 {
	sum, n := 0.0, 0.0
	for i := range parts {
		p := &parts[i].Answer
		sum, n = sum+float64(p.Frames)*of(p), n+float64(p.Frames)
	}
	return sum / n
}

func (a *Answer) joinExposure(parts []Part) {
	a.Exposure.BlownShare = mean(parts, func(p *Answer) float64 { return p.Exposure.BlownShare })
	a.Exposure.CrushedShare = mean(parts, func(p *Answer) float64 { return p.Exposure.CrushedShare })
	// Between windows that lie apart nothing is known of the camera's own changes.
	from := 0
	for _, frame := range append(startsOf(parts), a.Frames) {
		low, high := extremes(a.Exposure.GainStops[from:frame])
		a.Exposure.DriftStops = max(a.Exposure.DriftStops, high-low)
		from = frame
	}
}

// startsOf returns the frames with which windows begin that lie apart from the one before.
func startsOf(parts []Part) []int {
	var all []int
	at := 0
	for i := range parts {
		switch {
		case i == 0:
		case parts[i].IsContinued:
			at--
		default:
			all = append(all, at)
		}
		at += parts[i].Answer.Frames
	}
	return all
}

func (a *Answer) joinMotion(parts []Part) {
	a.Motion.TrackedShare = mean(parts, func(p *Answer) float64 { return p.Motion.TrackedShare })
	a.Motion.SpeedPx = mean(parts, func(p *Answer) float64 { return p.Motion.SpeedPx })
	if parts[0].Answer.Motion.TurnDegS != nil {
		turn := angle.DegPerS(mean(parts, func(p *Answer) float64 {
			if p.Motion.TurnDegS == nil {
				return 0
			}
			return float64(*p.Motion.TurnDegS)
		}))
		a.Motion.TurnDegS = &turn
	}
}

// figure is a value with its error and what it weighs.
type figure struct{ v, se, weight float64 }

// together averages figures by their weights; the error grows where they are further apart than
// their errors allow.
func together(all []figure) (v, se float64) {
	sum := 0.0
	for _, f := range all {
		v, sum = v+f.weight*f.v, sum+f.weight
	}
	v /= sum
	misfit := 0.0
	for _, f := range all {
		se += f.weight * f.weight * f.se * f.se
		misfit += (f.v - v) * (f.v - v) / (f.se * f.se)
	}
	se = math.Sqrt(se) / sum
	if n := float64(len(all) - 1); n > 0 && misfit > n {
		se *= math.Sqrt(misfit / n)
	}
	return v, se
}

// least keeps an error from being none.
const least = 1e-6

// reason returns what most parts that tell nothing say of why.
func reason(parts []Part, of func(p *Answer) Why) Why {
	count := map[Why]int{}
	var best Why
	for i := range parts {
		if why := of(&parts[i].Answer); why != "" {
			if count[why]++; count[why] > count[best] || best == "" {
				best = why
			}
		}
	}
	return best
}

func (a *Answer) joinShake(parts []Part) {
	var all []figure
	strongest := 0.0
	for i := range parts {
		p := &parts[i].Answer
		s := p.Shake
		if s.DegS == nil {
			continue
		}
		all = append(all, figure{float64(*s.DegS), max(s.SE, least), float64(p.Frames)})
		if float64(*s.DegS) > strongest && s.PeakHz != nil {
			strongest, a.Shake.PeakHz = float64(*s.DegS), s.PeakHz
		}
	}
	if len(all) == 0 {
		a.Shake.Why = reason(parts, func(p *Answer) Why { return p.Shake.Why })
		return
	}
	v, se := together(all)
	shake := angle.DegPerS(v)
	a.Shake.DegS, a.Shake.SE = &shake, se
}

// joinShutter averages the shares that are told; lower bounds count where there is nothing else.
func (a *Answer) joinShutter(parts []Part) {
	s := &a.Shutter
	var all, bounds []figure
	ways := map[By]bool{}
	for i := range parts {
		p := parts[i].Answer.Shutter
		s.Expected = cmp.Or(s.Expected, p.Expected)
		if p.Share == nil {
			continue
		}
		se := max(p.SE, least)
		f := figure{*p.Share, se, 1 / (se * se)}
		if p.AtLeast {
			bounds = append(bounds, f)
			continue
		}
		ways[p.By] = true
		all = append(all, f)
	}
	switch {
	case len(all) > 0:
		share, se := together(all)
		s.Share, s.SE = &share, se
		if s.By = ByBoth; len(ways) == 1 {
			for way := range ways {
				s.By = way
			}
		}
	case len(bounds) > 0:
		best := slices.MaxFunc(bounds, func(x, y figure) int { return cmp.Compare(x.v, y.v) })
		s.Share, s.SE, s.AtLeast, s.By = &best.v, best.se, true, ByPairs
	default:
		s.Why = reason(parts, func(p *Answer) Why { return p.Shutter.Why })
		return
	}
	shutter, turned := stop.Shutter(*s.Share/a.FPS), angle.Deg(360**s.Share)
	s.ShutterS, s.AngleDeg = &shutter, &turned
}

func (a *Answer) joinGhost(parts []Part) {
	for i := range parts {
		g := parts[i].Answer.Ghost
		if g.BlurPx != nil && (a.Ghost.BlurPx == nil || *g.BlurPx > *a.Ghost.BlurPx) {
			a.Ghost.BlurPx = g.BlurPx
		}
		a.Ghost.Stabilised = a.Ghost.Stabilised || g.Stabilised
	}
	if a.Ghost.BlurPx == nil {
		a.Ghost.Why = reason(parts, func(p *Answer) Why { return p.Ghost.Why })
	}
}

func (a *Answer) joinStrobe(parts []Part) {
	var steps []float64
	for i := range parts {
		if s := parts[i].Answer.Strobe; s.StepPx != nil {
			steps = append(steps, *s.StepPx)
		}
	}
	if len(steps) == 0 {
		a.Strobe.Why = reason(parts, func(p *Answer) Why { return p.Strobe.Why })
		return
	}
	step := slices.Max(steps)
	a.Strobe = strobeOf(step, a.WidthPx, a.Shutter.Share)
}

// strobeOf says whether a step from frame to frame strobes.
func strobeOf(step, width float64, share *float64) Strobe {
	s := Strobe{StepPx: &step}
	if share == nil {
		if none := false; !motion.StepStrobes(step/width, 1) {
			s.Strobes = &none
			return s
		}
		s.Why = WhyShare
		return s
	}
	uncovered := max(0, 1-*share)
	strobes := motion.StepStrobes(step/width, uncovered)
	s.UncoveredShare, s.Strobes = &uncovered, &strobes
	return s
}

func (a *Answer) joinFlicker(parts []Part) {
	var worst *Flicker
	for i := range parts {
		f := &parts[i].Answer.Flicker
		if f.Depth != nil && (worst == nil || *f.Depth > *worst.Depth) {
			worst = f
		}
	}
	if worst != nil {
		a.Flicker = *worst
		return
	}
	a.Flicker = parts[0].Answer.Flicker
	a.Flicker.Why = reason(parts, func(p *Answer) Why { return p.Flicker.Why })
}

func (a *Answer) joinWobble(parts []Part) {
	var worst *Wobble
	for i := range parts {
		w := &parts[i].Answer.Wobble
		if w.Px != nil && (worst == nil || *w.Px > *worst.Px) {
			worst = w
		}
	}
	if worst != nil {
		a.Wobble = *worst
		return
	}
	a.Wobble = parts[0].Answer.Wobble
	a.Wobble.Why = reason(parts, func(p *Answer) Why { return p.Wobble.Why })
}
