package shot

import (
	"cmp"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Window is every demand on one shutter, on one scale.
type Window struct {
	Target stop.Snapped
	// Span is what the window shows.
	Span    stop.Span
	Demands []Demand
	// Overlap is where all demands hold or are borne together.
	Overlap []Band
	// Conflicts are the pairs that exclude each other, the worst first.
	Conflicts []Conflict
	Trades    []Trade
	Marks     []Mark
	Verdict   Verdict
	// Options are the glass whose exposure is drawn, at the shutter of the verdict, best first.
	Options []glass.Option
}

// shownOptions is how many stacks have their exposure drawn.
const shownOptions = 8

// Mark is a single time on the scale.
type Mark struct {
	Kind MarkKind
	At   stop.Shutter
}

// MarkKind says what a mark marks.
type MarkKind string

// The marks.
const (
	MarkTarget   MarkKind = "target" // what the camera offers for the wish
	MarkWish     MarkKind = "wish"   // where that is another time
	MarkVerdict  MarkKind = "verdict"
	MarkStep     MarkKind = "step" // the camera's own, or where it takes any time the marked numbers
	MarkFloor    MarkKind = "floor"
	MarkFrame    MarkKind = "frame"
	MarkBlur     MarkKind = "blur-shows"
	MarkLampSafe MarkKind = "lamp-safe"
)

// Values returns every MarkKind there is.
func (MarkKind) Values() []MarkKind {
	return []MarkKind{MarkTarget, MarkWish, MarkVerdict, MarkStep, MarkFloor, MarkFrame, MarkBlur, MarkLampSafe}
}

// weigh gathers the demands of the scene and the pairs that exclude each other.
func (s *Scene) weigh() (*Window, error) {
	target, err := s.target()
	if err != nil {
		return nil, err
	}
	w := &Window{Target: target, Span: s.span(target.Offered), Demands: s.demands(target)}
	w.Conflicts = conflicts(w.Demands)
	return w, nil
}

// Window weighs the scene. The error is ErrNoStep.
func (s *Scene) Window() (*Window, error) {
	w, err := s.weigh()
	if err != nil {
		return nil, err
	}
	together := w.Demands[0]
	for _, d := range w.Demands[1:] {
		together = both("", together, d)
	}
	w.Overlap = together.Bands(w.Span)
	w.Verdict.Question, w.Verdict.Option = s.question(w, s.Question.Light)
	w.Options = glass.Foremost(&w.Verdict.Question, s.Stacks, shownOptions)
	if w.Verdict.Option.Stack == nil {
		w.Verdict.Option = w.Options[0]
	}
	s.judge(w, &w.Verdict)
	w.Marks = s.marks(w)
	return w, nil
}

// Demand returns the demand of a kind; ok is false where it is not made.
func (w *Window) Demand(kind Kind) (d Demand, ok bool) {
	i := slices.IndexFunc(w.Demands, func(d Demand) bool { return d.Kind == kind })
	if i < 0 {
		return Demand{}, false
	}
	return w.Demands[i], true
}

// Shown returns the demands as they are drawn: strobing and smearing as one, and
// neither the exposure, which each stack has its own of, nor the frame, at which
// the window ends.
func (w *Window) Shown() []Demand {
	var shown []Demand
	for _, d := range w.Demands {
		switch d.Kind {
		case Exposure, Frame:
		case Strobing, Smearing:
			if n := len(shown); n > 0 && shown[n-1].Kind == Readable {
				shown[n-1] = both(Readable, shown[n-1], d)
			} else {
				d.Kind = Readable
				shown = append(shown, d)
			}
		default:
			shown = append(shown, d)
		}
	}
	return shown
}

func (s *Scene) marks(w *Window) []Mark {
	marks := []Mark{{MarkTarget, w.Target.Offered}, {MarkVerdict, w.Verdict.Question.Setting.Shutter}}
	add := func(kind MarkKind, t stop.Shutter) {
		if w.Span.From <= t && t <= w.Span.To {
			marks = append(marks, Mark{kind, t})
		}
	}
	if w.Target.Off.Abs() > stop.Tolerance {
		add(MarkWish, w.Target.Ideal)
	}
	if s.Shaking != nil {
		if floor, ok := s.Shaking.Slowest(); ok {
			add(MarkFloor, floor)
		}
	}
	if s.Question.Rate > 0 {
		add(MarkFrame, s.Question.Rate.Frame())
		if s.Lamp != nil {
			for _, t := range s.Lamp.SafeShutters(s.Question.Rate) {
				add(MarkLampSafe, t)
			}
		}
	}
	if p := s.Passing; p != nil {
		if shows, moves := motion.ShutterForShare(p.Lens, p.Movement, motion.NaturalFrom); moves {
			add(MarkBlur, shows)
		}
	}
	steps := s.Question.Steps
	if len(steps) == 0 {
		steps = stop.Nominal()
	}
	for _, t := range steps {
		add(MarkStep, t)
	}
	return marks
}

// candidates are the times the camera can be set to: its steps, or without any
// the target and the ends of what holds.
func (s *Scene) candidates(w *Window) []stop.Shutter {
	var times []stop.Shutter
	keep := func(t stop.Shutter) {
		if t >= w.Span.From && s.offers(t) {
			times = append(times, t)
		}
	}
	if len(s.Question.Steps) > 0 {
		for _, t := range s.Question.Steps {
			keep(t)
		}
		return times
	}
	keep(w.Target.Offered)
	for _, d := range w.Demands {
		for _, span := range d.Holds {
			keep(span.From)
			keep(span.To)
		}
	}
	slices.SortFunc(times, cmp.Compare)
	return slices.Compact(times)
}

// chosen returns the shutter that the school takes.
func (s *Scene) chosen(w *Window) stop.Shutter {
	target := w.Target.Offered
	switch s.School {
	case ByAngle, ByTime, ByAutomatic:
		return target
	case StabiliserFirst:
		floor, ok := w.Demand(Stabiliser)
		if !ok || floor.At(target) == glass.Holds {
			return target
		}
		held := slices.DeleteFunc(s.candidates(w), func(t stop.Shutter) bool { return floor.At(t) != glass.Holds })
		if len(held) == 0 {
			return target
		}
		return slices.Max(held)
	case Free:
		return slices.MinFunc(append(s.candidates(w), target), func(a, b stop.Shutter) int {
			x, y := s.merit(w, a), s.merit(w, b)
			return slices.Compare(x[:], y[:])
		})
	}
	return target
}

// merit orders times for the free school, lower better: what breaks, what is
// tight, whether glass is needed, and how far it is from the target.
func (s *Scene) merit(w *Window, t stop.Shutter) [4]float64 {
	var m [4]float64
	for _, d := range w.Demands {
		switch d.At(t) {
		case glass.Breaks:
			m[0]++
		case glass.Tight:
			m[1]++
		}
	}
	if s.Exposes(&s.Stacks[0]).At(t) != glass.Holds { // the first stack has the least on
		m[2] = 1
	}
	m[3] = float64(t.Over(w.Target.Offered).Abs())
	return m
}
