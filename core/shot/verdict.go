package shot

import (
	"cmp"
	"fmt"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Verdict is the shutter and the glass that a school takes, and what gives way.
type Verdict struct {
	// Question is the scene's at the shutter the school takes. Where the exposure
	// needs a faster one, the option's differs.
	Question glass.Question
	// Option is the best glass there; Options are all, best first.
	Option  glass.Option
	Options []glass.Option
	// State is the worst of all demands there.
	State glass.State
	// Strains are the demands that do not hold there, the worst first.
	Strains []Strain
	// Because says each demand's figures in a sentence, what gives way first.
	Because []string
}

// Strain is a demand that does not hold at a shutter, and by how many stops the
// shutter misses it.
type Strain struct {
	Kind  Kind
	State glass.State
	Stops stop.Stops
}

// Verdict returns what the school takes, without the rest of the window. The
// error is ErrNoStep.
func (s *Scene) Verdict() (*Verdict, error) {
	w, err := s.weigh()
	if err != nil {
		return nil, err
	}
	v := s.verdict(w)
	return &v, nil
}

// verdict takes the school's shutter and the best glass for it.
func (s *Scene) verdict(w *Window) Verdict {
	v := Verdict{Question: s.Question, State: glass.Holds}
	if s.School == ByAutomatic && s.Automatic != nil {
		stack, set := s.Automatic.Nearest(s.Question.Light.High, w.Target.Offered, s.Stacks)
		v.Question.Setting.Shutter = set.Shutter
		v.Options = glass.Choose(&v.Question, s.Stacks)
		v.Option = glass.Weigh(&v.Question, stack)
	} else {
		v.Question.Setting.Shutter = s.chosen(w)
		v.Options = glass.Choose(&v.Question, s.Stacks)
		v.Option = v.Options[0]
	}
	s.Judge(w, &v)
	return v
}

// Judge fills in what the demands of the window make of the shutter and the glass
// of the verdict's option.
func (s *Scene) Judge(w *Window, v *Verdict) {
	v.State, v.Strains = glass.Holds, nil
	taken := v.Option.Shutters()
	for _, d := range w.Demands {
		at := taken
		if d.Kind == Look { // what the exposure takes from the look counts as its own strain
			at = stop.Span{From: v.Question.Setting.Shutter, To: v.Question.Setting.Shutter}
		}
		strain := Strain{Kind: d.Kind, State: d.Throughout(at)}
		if d.Kind == Exposure { // of the glass taken, not of any there is
			strain.State = v.Option.State(&v.Question)
		}
		v.State = glass.Worse(v.State, strain.State)
		if strain.State != glass.Holds {
			for _, end := range []stop.Shutter{at.From, at.To} {
				strain.Stops = max(strain.Stops, gap(d.Holds, []stop.Span{{From: end, To: end}}))
			}
			v.Strains = append(v.Strains, strain)
		}
	}
	slices.SortStableFunc(v.Strains, func(a, b Strain) int {
		return cmp.Or(-a.State.Compare(b.State), cmp.Compare(b.Stops, a.Stops))
	})
	v.Because = s.because(w, v)
}

// names are the demands as sentences call them.
var names = map[Kind]string{
	Look: "the look", Stabiliser: "the stabiliser", Exposure: "the exposure", Lamps: "the lamps", Wobble: "wobble",
	Strobing: "strobing", Smearing: "smearing", Readable: "readability", Frame: "the frame rate",
}

// Name returns the demand as sentences call it: "the stabiliser".
func (k Kind) Name() string { return names[k] }

// Gives says what gives way at the verdict and by how much; "" where nothing does.
func (v *Verdict) Gives() string {
	if len(v.Strains) == 0 {
		return ""
	}
	first := v.Strains[0]
	if first.Kind == Exposure {
		return "the exposure gives way: " + v.Option.Reasons(&v.Question)[1]
	}
	how := "is strained"
	if first.State == glass.Breaks {
		how = "gives way"
	}
	if first.Stops == 0 { // both ends of a floating shutter hold
		return fmt.Sprintf("%s %s on the way as the shutter floats", first.Kind.Name(), how)
	}
	return fmt.Sprintf("%s %s by %v stops", first.Kind.Name(), how, first.Stops)
}

// Words says the conflict in a sentence.
func (c Conflict) Words() string {
	if c.Stops() >= MaxGap {
		return fmt.Sprintf("%s and %s exclude each other: nothing in reach meets both", c.A.Name(), c.B.Name())
	}
	if c.State == glass.Breaks {
		return fmt.Sprintf("%s and %s exclude each other by %v stops", c.A.Name(), c.B.Name(), c.Breaks)
	}
	return fmt.Sprintf("%s and %s are %v stops apart: one of them is strained", c.A.Name(), c.B.Name(), c.Holds)
}

// because explains the verdict.
func (s *Scene) because(w *Window, v *Verdict) []string {
	var lines []string
	if len(w.Conflicts) > 0 {
		lines = append(lines, w.Conflicts[0].Words())
	}
	q := &v.Question
	taken := v.Option.Shutters()
	t := taken.To // the longest blurs most
	lines = append(lines, s.lookWords(w, q))
	if s.Shaking != nil {
		lines = append(lines, s.Shaking.words(q, t))
	}
	lines = append(lines, v.Option.Reasons(q)...)
	if l := s.Lamp; l != nil {
		lines = append(lines, lampWords(*l, q, taken.From)) // the shortest ripples most
	}
	if m := s.Vibration; m != nil {
		lines = append(lines, fmt.Sprintf("at %v the vibration of %.0f Hz wobbles %.1f px from peak to peak and softens by %.1f px; %.1f px shows",
			q.Spoken(t), m.Hz, m.WobblePx(m.Lens, t), m.SoftnessPx(m.Lens, t), 0.001*m.Lens.WidthPx))
	}
	if p := s.Passing; p != nil {
		lines = append(lines, p.Words(q, t)...)
	}
	return lines
}

func (s *Scene) lookWords(w *Window, q *glass.Question) string {
	t := q.Setting.Shutter
	said := t.String()
	if q.Rate > 0 {
		said = fmt.Sprintf("%v, %v at %v fps", t, t.Angle(q.Rate), q.Rate)
	}
	off := t.Over(w.Target.Ideal)
	switch {
	case s.School == Free:
		return "any shutter will do: " + said
	case off.Abs() < 0.05:
		return said + ", as you asked"
	case off < 0:
		return fmt.Sprintf("%s: %v stops less blur than the %v you asked for", said, off.Abs(), w.Target.Ideal)
	}
	return fmt.Sprintf("%s: %v stops more blur than the %v you asked for", said, off, w.Target.Ideal)
}

func (s *Shaking) words(q *glass.Question, t stop.Shutter) string {
	floor, ok := s.Slowest()
	switch {
	case !s.Stabiliser.ShiftsFrames():
		return fmt.Sprintf("the stabiliser sets no floor; the shake blurs %.1f px at %s", s.BlurPx(s.Lens, t), q.Spoken(t))
	case !ok:
		return "nothing shakes, so the stabiliser sets no floor"
	case s.Trial > 0:
		return fmt.Sprintf("your own trial found the stabiliser good down to %s", floor.Spoken())
	}
	return fmt.Sprintf("a shake of %.3g°/s blurs %.1f px inside one frame at %s; the stabiliser hides %.1f px, down to %v",
		float64(s.Rate), s.BlurPx(s.Lens, t), q.Spoken(t), s.Tolerance*s.Lens.WidthPx, floor.Spoken())
}

func lampWords(l motion.Lamp, q *glass.Question, t stop.Shutter) string {
	text := fmt.Sprintf("lamps that pulse at %.0f Hz ripple by %.0f %% at %s", l.PulseHz, 100*l.Ripple(t), q.Spoken(t))
	if l.Safe(t) || q.Rate == 0 {
		return text
	}
	safe := l.SafeShutters(q.Rate)
	if len(safe) == 0 {
		return text + fmt.Sprintf("; no shutter is safe at %v fps: a frame is shorter than a pulse", q.Rate)
	}
	return text + fmt.Sprintf("; %v is safe", slices.MinFunc(safe, func(a, b stop.Shutter) int {
		return cmp.Compare(a.Over(t).Abs(), b.Over(t).Abs())
	}))
}

// Words says what the movement does to the picture at a shutter, and whether glass
// matters.
func (p *Passing) Words(q *glass.Question, t stop.Shutter) []string {
	fps := q.Rate
	blur := motion.BlurPx(p.Lens, p.Movement, t)
	class := motion.Classify(p.Lens.Share(blur))
	lines := []string{fmt.Sprintf("what moves is blurred by %.1f px at %s: %s", blur, q.Spoken(t), class)}
	if class == motion.Frozen || class == motion.Crisp {
		lines = append(lines, "blur does not show in this shot, so glass for the look is optional")
	}
	if fps == 0 {
		return lines
	}
	if motion.Strobes(p.Lens, p.Movement, t, fps) {
		lines = append(lines, fmt.Sprintf("the picture jumps %.0f px from frame to frame and %.0f %% of that is uncovered: it strobes",
			motion.StepPx(p.Lens, p.Movement, fps), 100*motion.Uncovered(t, fps)))
	}
	if most := motion.ReadablePan(p.Lens, fps); p.Turn.Abs() > most {
		lines = append(lines, fmt.Sprintf("a turn of %.0f°/s is faster than the %.0f°/s that stay readable at %v fps", float64(p.Turn.Abs()), float64(most), fps))
	}
	return lines
}
