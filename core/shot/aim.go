package shot

import (
	"math"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// Aim is what a scene asks of its shutter, worked out once and then held against any light:
// the wish and the demands do not change with it, but for the schools that look for a
// shutter that exposes.
type Aim struct {
	scene  *Scene // in no light of its own
	window *Window
}

// Aim works out what the scene asks of its shutter. The error is ErrNoStep.
func (s *Scene) Aim() (*Aim, error) {
	target, err := s.target()
	if err != nil {
		return nil, err
	}
	a := &Aim{s, &Window{Target: target, Span: s.span(target.Offered)}}
	if !s.seeksExposure() {
		a.window.Demands = s.demandsOf(withoutExposure, target)
	}
	return a, nil
}

// seeksExposure reports whether the school takes its shutter by what exposes.
func (s *Scene) seeksExposure() bool { return s.School == Free || s.School == StabiliserFirst }

// under returns the scene in a light, with the demands on its shutter there.
func (a *Aim) under(light glass.Light) (*Scene, *Window) {
	if !a.scene.seeksExposure() {
		return a.scene, a.window
	}
	there, window := *a.scene, *a.window
	there.Question.Light = light
	window.Demands = there.demands(window.Target)
	return &there, &window
}

// Weighing is all glass of a scene at the shutter that its school takes in one light, with
// nothing judged.
type Weighing struct {
	Question glass.Question
	Order    []glass.Ranked // what is offered, best first
	// Taken is what the school takes: the best, or what brings the camera's own
	// automatic nearest.
	Taken glass.Option
}

// Weigh weighs all glass in a light.
func (a *Aim) Weigh(light glass.Light) *Weighing {
	w := &Weighing{}
	s, window := a.under(light)
	w.Question, w.Taken = s.question(window, light)
	w.Order = glass.Rank(&w.Question, s.Stacks)
	if w.Taken.Stack == nil {
		w.Taken = glass.Weigh(&w.Question, &s.Stacks[w.Order[0].Index])
	}
	return w
}

// Judge is the one judge: it says what every demand of the shot makes of an option, which
// was weighed for a question of this scene, in the light of that question.
func (a *Aim) Judge(q glass.Question, o glass.Option) *Verdict {
	s, window := a.under(q.Light)
	q.Wished = window.Target.Ideal
	v := &Verdict{Question: q, Option: o}
	s.judge(window, v)
	return v
}

// Best judges what the school takes in a light.
func (a *Aim) Best(light glass.Light) *Verdict {
	return a.BestWithin(light, stop.Stops(math.Inf(1)))
}

// BestWithin returns the same as Best, nil where the exposure by itself misses by most or
// more, which is soon found.
func (a *Aim) BestWithin(light glass.Light, most stop.Stops) *Verdict {
	s, window := a.under(light)
	v := &Verdict{}
	v.Question, v.Option = s.question(window, light)
	if v.Option.Stack == nil {
		v.Option = glass.Best(&v.Question, s.Stacks)
	}
	if o, q := &v.Option, &v.Question; o.State(q) == glass.Breaks && o.Misses(q) >= most {
		return nil
	}
	s.judge(window, v)
	return v
}

// question returns the scene's at the shutter that the school takes in a light, with the
// glass where the school takes that too.
func (s *Scene) question(w *Window, light glass.Light) (q glass.Question, taken glass.Option) {
	q = s.Question
	q.Light, q.Wished = light, w.Target.Ideal
	if s.School == ByAutomatic && s.Automatic != nil {
		stack, set := s.Automatic.Nearest(light.High, w.Target.Offered, s.Stacks)
		q.Setting.Shutter = set.Shutter
		return q, glass.Weigh(&q, stack)
	}
	q.Setting.Shutter = s.chosen(w)
	return q, taken
}

// Best judges what the school takes in the light of the scene. The error is ErrNoStep.
func (s *Scene) Best() (*Verdict, error) {
	a, err := s.Aim()
	if err != nil {
		return nil, err
	}
	return a.Best(s.Question.Light), nil
}

// Judge judges an option, which was weighed for q, in the light of q. The error is
// ErrNoStep.
func (s *Scene) Judge(q glass.Question, o glass.Option) (*Verdict, error) {
	a, err := s.Aim()
	if err != nil {
		return nil, err
	}
	return a.Judge(q, o), nil
}
