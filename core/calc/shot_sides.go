package calc

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/shot"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// ShotSides is what surrounds a shot's answer: each part is there when the shot
// gives what it is computed from.
type ShotSides struct {
	Motion   *ShotMotion     `json:"motion,omitempty"`
	Auto     *ShotAuto       `json:"auto,omitempty"`
	Short    *ShotShort      `json:"short,omitempty" doc:"light that is missing, and what would help"`
	Contrast *ContrastAnswer `json:"contrast,omitempty"`
	Sticks   []AxisStick     `json:"sticks,omitempty" doc:"how the pilot's sticks turn the craft, by axis"`
	Tilt     *ShotTilt       `json:"tilt,omitempty"`
	Lapse    *ShutterAnswer  `json:"lapse,omitempty" doc:"time-lapse: what fits into its interval"`
	Schools  []SchoolLine    `json:"schools,omitempty" doc:"what each school would do with this shot"`
	Effects  []EffectLine    `json:"effects,omitempty" doc:"glass for its effect: when it pays and when it hurts"`
	Other    *OtherPriority  `json:"otherPriority,omitempty" doc:"what would lead if the other of blur and image came first; left out where that is the same"`
	Explain  []ExplainLine   `json:"explain,omitempty" doc:"the chain of numbers from reading to verdict"`
	Assumed  []string        `json:"assumed,omitempty" doc:"defaults the answer rests on, until something is measured"`
	Missing  []Unjudged      `json:"missing,omitempty" doc:"what is not known and so not judged"`
}

// ShotMotion is what movement and shake do at the shutter taken.
type ShotMotion struct {
	BlurAnswer
	GlassOptional bool     `json:"glassOptional" doc:"blur does not show, so glass for the look is optional"`
	GhostPx       *float64 `json:"ghostPx,omitempty" doc:"blur of the shake inside one frame, which the stabiliser cannot undo"`
	Words         []string `json:"words"`
}

// ShotAuto is what the camera's automatic would do with the glass on and without.
type ShotAuto struct {
	With    AutoAnswer `json:"with"`
	Without AutoAnswer `json:"without"`
	Words   string     `json:"words"`
}

// ShotTilt is the tilt the shot needs against what the rig leaves.
type ShotTilt struct {
	NeedsDeg  angle.Deg  `json:"needsDeg"`
	LeavesDeg *angle.Deg `json:"leavesDeg,omitempty" doc:"what the rig tilts up with glass on; left out where that is not known"`
	State     string     `json:"state" enum:"holds,breaks,unknown"`
	Words     string     `json:"words"`
}

// SchoolLine is one school's consequence in this shot.
type SchoolLine struct {
	School    string       `json:"school" enum:"180,360,90,own,stabiliser-first,free,automatic"`
	Name      string       `json:"name"`
	Target    string       `json:"target,omitempty" doc:"as it is typed; left out where the school is not a target"`
	ShutterS  stop.Shutter `json:"shutterS"`
	Text      string       `json:"text"`
	AngleDeg  *stop.Angle  `json:"angleDeg"`
	Filters   []string     `json:"filters"`
	ISO       stop.ISO     `json:"iso"`
	ISOText   string       `json:"isoText" doc:"as it is set, or the band in which it floats"`
	LeftStops stop.Stops   `json:"leftStops" doc:"how the picture comes out against the meter"`
	State     glass.State  `json:"state"`
	Gives     *string      `json:"gives"`
	BlurPx    *float64     `json:"blurPx,omitempty"`
	IsTaken   bool         `json:"isTaken"`
}

// OtherPriority is the stack that would lead under the other priority.
type OtherPriority struct {
	First   glass.Priority `json:"first"`
	Filters []string       `json:"filters"`
	Because string         `json:"because"`
}

// sides computes what surrounds the answer, at the option taken.
func (a *ShotAnswer) sides(r *assemble.ShotRequest, s *shot.Scene, b *assemble.Setup, taken *glass.Option, wish shot.Wish) error {
	t := taken.Shutters().To // the longest blurs most
	a.Missing, a.Assumed = unjudgedOf(r, s, a.Chosen.Filters), assumedOf(r, s, a.Chosen.Filters)
	a.Motion = motionAt(s, &b.Question, t)
	a.Auto = autoAt(s, a.Chosen.Stops, a.Chosen.Stops-looseStops(a))
	if a.Settled {
		a.Short = shortOf(r, s, &b.Question, taken)
	}
	a.Schools = schoolsOf(r, s, b, wish)
	a.Effects = effectsOf(r, s)
	a.Other = otherPriority(b)
	var err error
	if p := r.Scene.Parts; p != nil {
		if a.Contrast, err = InOneFrame(ContrastRequest{SubjectEV100: p.SubjectEV100, BrightEV100: p.BrightEV100, DarkEV100: p.DarkEV100, ExposeFor: p.ExposeFor}); err != nil {
			return problem.At("scene.parts", err)
		}
		aim := fmt.Sprintf("EV %.1f", float64(a.Contrast.AimEV100))
		a.Contrast.Use = map[string]any{"light": map[string]any{"kind": "meter", "at": map[string]any{"text": aim}, "low": nil, "looks": nil}}
		if name := graduatedFor(r, a.Contrast.GraduatedStops); name != "" {
			a.Contrast.Graduated = name
			a.Contrast.Words = append(a.Contrast.Words, "there is such a filter in the kit")
		}
		if r.Profile != nil && r.Profile.Flies && a.Contrast.GraduatedStops > 0 {
			a.Contrast.Words = append(a.Contrast.Words, "this camera tilts and rolls with its drone, so a graduated filter would cut across the picture")
		}
	}
	if a.Sticks, err = sticksOf(r, &b.Question, t); err != nil {
		return err
	}
	if r.Scene.Tilt != nil {
		a.Tilt = tiltOf(r, a.Chosen.Filters)
	}
	if r.Scene.Interval > 0 {
		a.Lapse, err = Shutter(ShutterRequest{ShutterS: number(b.Question.Setting.Shutter.Seconds()), IntervalS: r.Scene.Interval})
	}
	return err
}

// graduatedFor returns the id of the graduated filter in the kit that comes nearest to what
// is called for, within a stop; "" for none.
func graduatedFor(r *assemble.ShotRequest, stops stop.Stops) string {
	best, id := stop.Stops(1), ""
	for i := range r.Kit {
		k := &r.Kit[i]
		if k.Kind != glass.Graduated || assemble.IsFalse(k.Fits) || !r.IsAtHand(k.ID) || stops <= 0 {
			continue
		}
		if off := (k.HalfStops() - stops).Abs(); stop.AtMost(off, best) {
			best, id = off, k.ID
		}
	}
	return id
}

// otherPriority returns what would lead if the other of blur and image came first,
// nil where that is the same.
func otherPriority(b *assemble.Setup) *OtherPriority {
	q := b.Question
	best := glass.Best(&q, b.Stacks)
	q.Priority = glass.ImageFirst
	if b.Question.Priority == glass.ImageFirst {
		q.Priority = glass.BlurFirst
	}
	other := glass.Best(&q, b.Stacks)
	if slices.Equal(glass.IDs(best.Filters), glass.IDs(other.Filters)) {
		return nil
	}
	return &OtherPriority{First: q.Priority, Filters: glass.IDs(other.Filters), Because: other.Reasons(&q)[0]}
}

func motionAt(s *shot.Scene, q *glass.Question, t stop.Shutter) *ShotMotion {
	if s.Shaking == nil && s.Passing == nil {
		return nil
	}
	m := ShotMotion{BlurAnswer: BlurAnswer{Class: motion.Frozen}, Words: []string{}}
	if s.Shaking != nil {
		m.GhostPx = number(s.Shaking.BlurPx(s.Shaking.Lens, t))
	}
	if p := s.Passing; p != nil {
		m.BlurAnswer = blurAt(p.Lens, p.Movement, t, s.Delivery.Shown(q.Rate))
		if p.SpeedMps == 0 { // nothing passes: a turn blurs near and far alike
			m.VisibleWithinM = nil
		}
		m.GlassOptional = !motion.Shows(m.Class)
		m.Words = s.MotionWords(q, t)
	}
	return &m
}

// autoAt says what the camera's automatic does behind all the glass, and behind what lives
// on the lens alone.
func autoAt(s *shot.Scene, on, mounted stop.Stops) *ShotAuto {
	if s.Automatic == nil {
		return nil
	}
	expose := func(glass stop.Stops) AutoAnswer {
		set, left := s.Automatic.Expose(s.Question.Light.High, glass)
		return AutoAnswer{ShutterS: set.Shutter, ISO: set.ISO, ErrorStops: left, Text: autoText(set, left)}
	}
	a := &ShotAuto{With: expose(on), Without: expose(mounted)}
	blur, noise := a.With.ShutterS.Over(a.Without.ShutterS), a.With.ISO.Over(a.Without.ISO)
	switch {
	case on-mounted < 0.05:
		a.Words = fmt.Sprintf("auto exposure, no filter: %s", a.With.Text)
	case blur < 0.05 && noise >= 0.05 && s.Automatic.Moves == glass.ISOFirst:
		a.Words = fmt.Sprintf("auto exposure raises ISO first: behind the filter %s, %v stops more noise, no more blur", a.With.Text, noise)
	case blur < 0.05 && noise >= 0.05:
		a.Words = fmt.Sprintf("auto exposure is at its slowest shutter: behind the filter %s, %v stops more noise, no more blur", a.With.Text, noise)
	case noise >= 0.05:
		a.Words = fmt.Sprintf("auto exposure: %s behind the filter, %v stops more blur, %v stops more noise", a.With.Text, blur, noise)
	default:
		a.Words = fmt.Sprintf("auto exposure: %s behind the filter, %s without, %v stops more blur", a.With.Text, a.Without.Text, blur)
	}
	if s.Question.Light.IsRange() {
		set, left := s.Automatic.Expose(s.Question.Light.Low, on)
		a.Words += fmt.Sprintf("; in the lowest light %s", autoText(set, left))
	}
	return a
}

func tiltOf(r *assemble.ShotRequest, on []string) *ShotTilt {
	f := r.Scene.Tilt
	t := &ShotTilt{NeedsDeg: motion.Uptilt(f.TiltDeg, f.AtMps, f.SpeedMps), State: "unknown"}
	t.Words = fmt.Sprintf("level flight at %.0f m/s needs %.0f° of tilt", f.SpeedMps, float64(t.NeedsDeg))
	if t.LeavesDeg = tiltLeftOf(r, on); t.LeavesDeg == nil {
		t.Words += "; how far this rig tilts with a filter on is not known"
		return t
	}
	if t.State = "holds"; t.NeedsDeg > *t.LeavesDeg {
		t.State = "breaks"
	}
	t.Words += fmt.Sprintf("; this rig leaves %.0f° with a filter on", float64(*t.LeavesDeg))
	return t
}

// tiltLeft returns how far up the camera tilts with these filters on: the least
// that was tried with one of them. What is known of the rig in general stands in for
// filters that were not.
func tiltLeftOf(r *assemble.ShotRequest, on []string) (left *angle.Deg) {
	least := func(d *angle.Deg) {
		if d != nil && (left == nil || *d < *left) {
			left = d
		}
	}
	allTried := len(on) > 0
	for i := range r.Kit {
		if slices.Contains(on, r.Kit[i].ID) {
			least(r.Kit[i].TiltUpDeg)
			allTried = allTried && r.Kit[i].TiltUpDeg != nil
		}
	}
	if !allTried && r.Profile != nil {
		least(r.Profile.MaxTiltDeg)
	}
	return left
}

// schools says what each school would do with this shot.
func schoolsOf(r *assemble.ShotRequest, s *shot.Scene, b *assemble.Setup, wish shot.Wish) []SchoolLine {
	type way struct {
		school, name, target string
		by                   shot.School
		wish                 shot.Wish
	}
	var ways []way
	isAngle := false
	if s.Question.Rate > 0 {
		for _, deg := range []stop.Angle{180, 360, 90} {
			text := deg.String()
			ways = append(ways, way{fmt.Sprintf("%.0f", float64(deg)), text, text, "", shot.Wish{Angle: deg}})
			isAngle = isAngle || wish.Angle == deg
		}
	}
	if !isAngle {
		ways = append(ways, way{"own", "your own, " + r.Look.Target, r.Look.Target, "", wish})
	}
	ways = append(ways, way{"stabiliser-first", "stabiliser first", "", shot.StabiliserFirst, wish}, way{"free", "any shutter", "", shot.Free, wish})
	if s.Automatic != nil {
		ways = append(ways, way{"automatic", "automatic", "", shot.ByAutomatic, wish})
	}
	var lines []SchoolLine
	for _, w := range ways {
		there := *s
		there.School, there.Wish = w.by, w.wish
		v, err := there.Best()
		if err != nil {
			continue // the camera has no shutter for it
		}
		t, off := v.Question.Offered(v.Option.Shutter) // a shutter that the camera has, what that leaves said beside it
		line := SchoolLine{
			School: w.school, Name: w.name, Target: w.target, ShutterS: t, Text: v.Question.Spoken(t), AngleDeg: b.Angle(t), Filters: glass.IDs(v.Option.Filters),
			ISO: v.Option.ISO, ISOText: v.Option.SpokenISO(&v.Question), LeftStops: v.Option.Left + off, State: v.State, IsTaken: w.by == s.School && (w.by != "" || w.wish == wish),
		}
		if gives := v.Gives(); gives != "" {
			line.Gives = &gives
		}
		if p := s.Passing; p != nil {
			line.BlurPx = number(motion.BlurPx(p.Lens, p.Movement, v.Option.Shutters().To))
		}
		lines = append(lines, line)
	}
	return lines
}
