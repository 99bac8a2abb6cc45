package shot

import (
	"cmp"
	"fmt"
	"slices"

	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Verdict is the shutter and the glass that a school takes, and what gives way.
type Verdict struct {
	// Question is the scene's at the shutter the school takes. Where the exposure
	// needs a faster one, the option's differs.
	Question glass.Question
	// Option is the glass there.
	Option glass.Option
	// State is the worst of all demands there.
	State glass.State
	// Strains are the demands that do not hold there, the worst first.
	Strains []Strain

	window    *Window
	scene     *Scene
	conflicts []Conflict
}

// Strain is a demand that does not hold at a shutter, and by how many stops the
// shutter misses it.
type Strain struct {
	Kind  Kind
	State glass.State
	Stops stop.Stops
	// Spread is how far the light has to be off for the demand to break, where it holds in
	// the light as it is; else 0.
	Spread stop.Stops
}

// BreaksWith reports whether the shot breaks with another option, weighed for q, of the same
// wish: what is demanded of the shutter does not change with the light.
func (v *Verdict) BreaksWith(q *glass.Question, o *glass.Option) bool {
	state, _ := v.scene.strains(v.window, q, o)
	return state == glass.Breaks
}

// JudgeAt judges another option, weighed for q, in a window of the scene, which shows it before
// all other glass.
func (s *Scene) JudgeAt(w *Window, q glass.Question, o glass.Option) {
	isMoved := q.Setting.Shutter != w.Verdict.Question.Setting.Shutter
	w.Verdict.Question, w.Verdict.Option = q, o
	if isMoved {
		w.Options, w.Marks = glass.Foremost(&q, s.Stacks, shownOptions), s.marks(w)
	}
	others := slices.DeleteFunc(w.Options, func(other glass.Option) bool { return slices.Equal(other.Filters, o.Filters) })
	w.Options = slices.Insert(others[:min(len(others), shownOptions-1)], 0, o)
	s.judge(w, &w.Verdict)
}

// judge fills in what the demands of the window make of the shutter and the glass of the
// verdict's option. The state is the worst of them, and tight where they hold and a light
// off by its spread would break one.
func (s *Scene) judge(w *Window, v *Verdict) {
	v.window, v.scene, v.conflicts = w, s, w.Conflicts
	v.State, v.Strains = s.strains(w, &v.Question, &v.Option)
	spread := v.Question.Light.Spread
	if v.State != glass.Holds || spread == 0 {
		return
	}
	for _, off := range []stop.Stops{spread, -spread} {
		q, o := v.Option.Shifted(&v.Question, off)
		if state, strains := s.strains(w, &q, &o); state == glass.Breaks {
			doubt := strains[0]
			doubt.State, doubt.Spread = glass.Tight, off
			v.State, v.Strains = glass.Tight, append(v.Strains, doubt)
			return
		}
	}
}

// strains returns the worst state of all demands at an option, and those that do not hold
// there, the worst first.
func (s *Scene) strains(w *Window, q *glass.Question, o *glass.Option) (glass.State, []Strain) {
	f := found{worst: glass.Holds}
	taken := o.Shutters()
	f.add(Exposure, o.State(q), o.Misses(q)) // of the glass taken, not of any there is
	for _, d := range w.Demands {
		at := taken
		switch d.Kind {
		case Exposure:
			continue
		case Look: // what the exposure takes from the look counts as its own strain
			at = stop.Span{From: q.Setting.Shutter, To: q.Setting.Shutter}
		case Stabiliser:
			d = d.noisy(o.Lift(q))
		}
		if state := d.Throughout(at); state != glass.Holds {
			f.add(d.Kind, state, d.missed(at))
		}
	}
	s.pan(&f)
	s.fit(o, &f)
	slices.SortStableFunc(f.strains, func(a, b Strain) int {
		return cmp.Or(-a.State.Compare(b.State), cmp.Compare(b.Stops, a.Stops))
	})
	return f.worst, f.strains
}

// found gathers the demands that do not hold.
type found struct {
	worst   glass.State
	strains []Strain
}

func (f *found) add(kind Kind, state glass.State, by stop.Stops) {
	if state != glass.Holds {
		f.worst = glass.Worse(f.worst, state)
		f.strains = append(f.strains, Strain{Kind: kind, State: state, Stops: by})
	}
}

// missed returns by how many stops a shutter, or the worse end of one that floats, misses
// where the demand holds.
func (d Demand) missed(at stop.Span) stop.Stops {
	by := stop.Stops(0)
	for _, end := range []stop.Shutter{at.From, at.To} {
		by = max(by, gap(d.Holds, []stop.Span{{From: end, To: end}}))
	}
	return by
}

// What raised ISO costs a stabiliser: noise hides what it tracks.
const (
	quietLift   = stop.Stops(2)       // up to here nothing
	floorPerISO = stop.Stops(1.0 / 3) // of the floor for each stop of ISO beyond
)

// noisy returns the stabiliser's demand with ISO raised.
func (d Demand) noisy(lift stop.Stops) Demand {
	if lift <= quietLift {
		return d
	}
	shorter := func(spans []stop.Span) []stop.Span {
		return []stop.Span{{To: spans[0].To.Times(-floorPerISO * (lift - quietLift))}}
	}
	return Demand{d.Kind, shorter(d.Holds), shorter(d.Bears)}
}

// pan asks a camera that pans to turn slowly enough to be read. It strains and does not
// break: the rule is one of thumb, and what cannot be read at all smears or strobes.
func (s *Scene) pan(f *found) {
	if p := s.Passing; p != nil && s.Question.Rate > 0 && s.Carried.Pans() {
		most := motion.ReadablePan(p.Lens, s.Delivery.Shown(s.Question.Rate))
		if turn := p.Turn.Abs(); !stop.AtMost(float64(turn), float64(most)) {
			f.add(Pan, glass.Tight, stop.FromFactor(float64(turn/most)))
		}
	}
}

// fit asks that the glass that is on is sound on its rig: of a stack, what sits on the
// rig. Glass of which nothing is known is said to be unknown elsewhere, and not judged.
func (s *Scene) fit(o *glass.Option, f *found) {
	if len(o.Filters) == 0 {
		return
	}
	switch s.Standings[o.Filters[0].ID] {
	case fit.DoesNotGo:
		f.add(Fit, glass.Breaks, 0)
	case fit.GoesTight, fit.GoesLoose:
		f.add(Fit, glass.Tight, 0)
	}
}

// names are the demands as sentences call them.
var names = map[Kind]string{
	Look: "shutter target", Stabiliser: "stabiliser limit", Exposure: "exposure", Lamps: "flicker", Wobble: "wobble",
	Strobing: "strobing", Smearing: "excess blur", Readable: "pan speed", Pan: "pan speed",
	Fit: "fit", Frame: "frame rate",
}

// Name returns the demand as sentences call it: "stabiliser limit".
func (k Kind) Name() string { return names[k] }

// Gives says what gives way at the verdict and by how much; "" where nothing does.
func (v *Verdict) Gives() string {
	if len(v.Strains) == 0 {
		return ""
	}
	first := v.Strains[0]
	switch {
	case first.Spread != 0:
		return fmt.Sprintf("%s breaks if the light is off by %s stops", first.Kind.Name(), first.Spread.Signed())
	case first.Kind == Exposure:
		return v.exposes(first)
	case first.Kind == Fit:
		// The glass is named beside it: its id here would be one that nobody gave it.
		return fmt.Sprintf("fit on this rig: %s", v.scene.Standings[v.Option.Filters[0].ID])
	}
	how := "tight"
	if first.State == glass.Breaks {
		how = "breaks"
	}
	if first.Stops == 0 { // both ends of a floating shutter hold
		return fmt.Sprintf("%s %s between the ends of auto shutter", first.Kind.Name(), how)
	}
	return fmt.Sprintf("%s %s by %s", first.Kind.Name(), how, first.Stops.Amount())
}

// exposes says what the exposure takes; where that breaks, by how much.
func (v *Verdict) exposes(s Strain) string {
	takes := v.Option.Consequence(&v.Question)
	switch {
	case s.State != glass.Breaks:
		return takes
	case s.Stops > 0:
		return fmt.Sprintf("exposure breaks by %s: %s", s.Stops.Amount(), takes)
	}
	return "exposure breaks: " + takes
}

// Words says what comes of the shot in a line: what gives way, or how it is exposed.
func (v *Verdict) Words() string {
	if gives := v.Gives(); gives != "" {
		return gives
	}
	return v.Option.Outcome(&v.Question)
}

// Because says each demand's figures in a sentence, what gives way first. It is written
// when it is read.
func (v *Verdict) Because() []string { return v.scene.because(v) }

// Words says the conflict in a sentence.
func (c Conflict) Words() string {
	if c.Stops() >= MaxGap {
		return fmt.Sprintf("no shutter meets both %s and %s", c.A.Name(), c.B.Name())
	}
	if c.State == glass.Breaks {
		return fmt.Sprintf("no shutter meets both %s and %s; %s apart", c.A.Name(), c.B.Name(), c.Breaks.Amount())
	}
	return fmt.Sprintf("%s and %s are %s apart: one of them is tight", c.A.Name(), c.B.Name(), c.Holds.Amount())
}

// because explains the verdict.
func (s *Scene) because(v *Verdict) []string {
	var lines []string
	if len(v.conflicts) > 0 {
		lines = append(lines, v.conflicts[0].Words())
	}
	q := &v.Question
	taken := v.Option.Shutters()
	t := taken.To // the longest blurs most
	lines = append(lines, s.lookWords(v.window.Target.Ideal, q))
	if s.Shaking != nil {
		lines = append(lines, s.Shaking.words(q, t))
	}
	lines = append(lines, v.Option.Reasons(q)...)
	if l := s.Lamp; l != nil {
		lines = append(lines, lampWords(*l, q, taken.From)) // the shortest ripples most
	}
	if m := s.Vibration; m != nil {
		lines = append(lines, fmt.Sprintf("%.0f Hz vibration at %v: %.1f px of wobble, %.1f px of softening; %.1f px shows",
			m.Hz, q.Spoken(t), m.WobblePx(m.Lens, t), m.SoftnessPx(m.Lens, t), 0.001*m.Lens.WidthPx))
	}
	if p := s.Passing; p != nil {
		lines = append(lines, s.MotionWords(q, t)...)
	}
	return lines
}

func (s *Scene) lookWords(wished stop.Shutter, q *glass.Question) string {
	t := q.Setting.Shutter
	said := t.String()
	if q.Rate > 0 {
		said = fmt.Sprintf("%v, %v at %v fps", t, t.Angle(q.Rate), q.Rate)
	}
	off := t.Over(wished)
	switch {
	case s.School == Free:
		return "any shutter: " + said
	case off.Abs() < 0.05:
		return said + ", on target"
	case off < 0:
		return fmt.Sprintf("%s: %v stops less blur than the target, %v", said, off.Abs(), wished)
	}
	return fmt.Sprintf("%s: %v stops more blur than the target, %v", said, off, wished)
}

func (s *Shaking) words(q *glass.Question, t stop.Shutter) string {
	floor, ok := s.Slowest()
	switch {
	case !s.Stabiliser.ShiftsFrames():
		return fmt.Sprintf("no shutter limit from this stabiliser; %.1f px of shake blur at %s", s.BlurPx(s.Lens, t), q.Spoken(t))
	case !ok:
		return "no shake, no stabiliser limit"
	case s.Trial > 0:
		return fmt.Sprintf("stabiliser limit %s, from your shutter test scaled to this shake", floor.Spoken())
	}
	return fmt.Sprintf("%.1f px of shake blur at %s (shake %.3g°/s); limit %.1f px (%v)",
		s.BlurPx(s.Lens, t), q.Spoken(t), float64(s.Rate), s.Tolerance*s.Lens.WidthPx, floor.Spoken())
}

// steadyBeat is the beat in Hz below which brightness does not change from frame to frame.
const steadyBeat = 0.05

func lampWords(l motion.Lamp, q *glass.Question, t stop.Shutter) string {
	text := fmt.Sprintf("%.0f %% flicker at %s (lights pulse at %.0f Hz)", 100*l.Ripple(t), q.Spoken(t), l.PulseHz)
	if q.Rate > 0 && !l.Safe(t) && l.BeatHz(q.Rate) < steadyBeat {
		text += ": same in every frame, or standing bands"
	}
	if l.Safe(t) || q.Rate == 0 {
		return text
	}
	safe := l.SafeShutters(q.Rate)
	if len(safe) == 0 {
		return text + fmt.Sprintf("; no shutter is flicker-free at %v fps: a frame is shorter than a pulse", q.Rate)
	}
	return text + fmt.Sprintf("; use %v", slices.MinFunc(safe, func(a, b stop.Shutter) int {
		return cmp.Compare(a.Over(t).Abs(), b.Over(t).Abs())
	}))
}

// MotionWords says what the movement does to the picture at a shutter, and whether glass
// matters; the scene has something that passes.
func (s *Scene) MotionWords(q *glass.Question, t stop.Shutter) []string {
	p := s.Passing
	blur := motion.BlurPx(p.Lens, p.Movement, t)
	class := motion.Classify(p.Lens.Share(blur))
	lines := []string{fmt.Sprintf("%.1f px of motion blur at %s: %s", blur, q.Spoken(t), class)}
	if !motion.Shows(class) {
		lines = append(lines, "motion blur will not show, so ND is optional")
	}
	if q.Rate == 0 {
		return lines
	}
	shown := s.Delivery.Shown(q.Rate)
	if motion.Strobes(p.Lens, p.Movement, t, shown) {
		lines = append(lines, fmt.Sprintf("strobing: %.0f px gaps between frames (%.0f %% of each %.0f px step)",
			motion.StepPx(p.Lens, p.Movement, shown)*motion.Uncovered(t, shown), 100*motion.Uncovered(t, shown), motion.StepPx(p.Lens, p.Movement, shown)))
	}
	if most := motion.ReadablePan(p.Lens, shown); s.Carried.Pans() && p.Turn.Abs() > most {
		lines = append(lines, fmt.Sprintf("pan %.0f°/s; readable to %.0f°/s at %v fps", float64(p.Turn.Abs()), float64(most), shown))
	}
	return lines
}
