package card

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"pinhole/core/fit"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Mounting is a camera held as a rig that is made ready for a take. The zero value
// of a field is what is not known, or does not apply.
type Mounting struct {
	Flies bool
	// Glass names the loose filters to be on; none is a bare lens. Off names what
	// has to come off first. Stays is true where the glass is on already.
	Glass, Off []string
	Stays      bool
	Mount      fit.Mount
	// Hold is the verdict on the pull-off and Margin the times it holds what pulls,
	// 0 where that is not known.
	Hold   fit.Verdict
	Margin float64
	// SealedPort is true where the port that keeps water out is swapped for glass.
	SealedPort bool
	Stabiliser motion.Stabiliser
	// CannotFold is true where the camera does not fold with the glass on.
	CannotFold bool
	// Ring says where a ring that turns is turned to.
	Ring string
	// Setting is what to set and lock; Automatic is true where shutter and ISO are
	// left to the camera.
	// Floats is true where ISO or shutter may move within limits.
	Setting, WhiteBalance string
	Automatic, Floats     bool
	// Known is true of glass on a rig whose whole list was done before, and nothing changed.
	Known bool
	// Dark and Bright bound the bias that is accepted.
	Dark, Bright stop.Stops
}

// Check is one step before a take.
type Check struct {
	// Step names the step for good: a tick refers to it.
	Step  string
	Words string
	// Hard is true of a step without which nothing flies or goes under water.
	Hard bool
	// Barred is true of a stop that nothing done on the spot removes: it can only be
	// overridden.
	Barred bool
}

// Checks returns the steps that apply, in the order in which they are done. Of what is known
// they are those that keep things safe, and three that change from take to take: the glass
// holds, the camera is locked, the exposure is right. A thirty-second ride has time for no more.
func (m *Mounting) Checks() []Check {
	l := &list{m: m}
	l.mount()
	l.secure()
	l.set()
	l.try()
	if m.Known {
		l.all = slices.DeleteFunc(l.all, func(c Check) bool { return !c.Hard && !isOfEachTake(c.Step) })
	}
	return l.all
}

// isOfEachTake reports whether a step is done before each take, however familiar: what holds
// too little is tethered each time.
func isOfEachTake(step string) bool {
	return step == "pull" || step == "tether" || step == "bias" || strings.HasPrefix(step, lockedStep)
}

// lockedStep begins the step of the setting, which names that.
const lockedStep = "locked "

// The steps by which what is on the camera becomes another stack.
const (
	takenOff = "off"
	seated   = "seated"
)

// IsSwap reports whether a step that is done completes a change of filters: they are seated, or
// none is to be on and what was there is off.
func IsSwap(step string, filters []string) bool {
	return step == seated || step == takenOff && len(filters) == 0
}

// OfWholeList are steps that only the whole list has, and those that end it: whoever ticked
// them all did it.
var OfWholeList = []string{"clip", "extremes", "bias"}

// list collects the steps of a mounting.
type list struct {
	m   *Mounting
	all []Check
}

func (l *list) add(step string, hard bool, format string, args ...any) {
	l.all = append(l.all, Check{Step: step, Words: fmt.Sprintf(format, args...), Hard: hard})
}

// mount puts the glass on.
func (l *list) mount() {
	m := l.m
	touches := len(m.Off) > 0 || len(m.Glass) > 0 && !m.Stays
	switch {
	case touches && m.Flies:
		l.add("power", true, "Disarm, power off, props stopped")
	case touches && m.Stabiliser.HasGimbal():
		l.add("power", false, "Power off; hold the gimbal gently, never against its motors")
	case touches:
		l.add("power", false, "Stop moving, camera off")
	}
	if len(m.Off) > 0 {
		l.add(takenOff, false, "Take off %s and put it in its slot", strings.Join(m.Off, " and "))
	}
	if len(m.Glass) == 0 {
		l.add("wiped", false, "Lens wiped: no finger marks, no drops")
		return
	}
	if m.Stays {
		return
	}
	l.add("wiped", false, "Lens and filter wiped on both sides: no finger marks, no drops")
	l.add(seated, m.Flies, "%s on: %s", strings.Join(m.Glass, ", then "), seating(m.Mount))
	l.add("straight", false, "Seated straight, no gap")
}

// seating says how glass of a mount is seated.
func seating(m fit.Mount) string {
	switch m {
	case fit.PushOn:
		return "push until it stops, all the way round"
	case fit.Snap:
		return "press until it snaps on every side"
	case fit.Twist:
		return "turn until it locks"
	case fit.Magnet:
		return "let it pull itself on, then feel that it sits in the middle"
	case fit.Adhesive:
		return "press 30 s on a clean, dry barrel at room temperature"
	case fit.Clip:
		return "clip it on, then check it covers the lens in use"
	case fit.Thread:
		return "by the fingertips until it stops, not crossed, not forced"
	}
	return "all the way, as its maker says"
}

// secure makes sure that it stays on.
func (l *list) secure() {
	m := l.m
	if m.Ring != "" {
		l.add("ring", false, "Ring turned %s", m.Ring)
	}
	if len(m.Glass) > 0 {
		l.add("pull", m.Flies, "Pull test: tug it forward and sideways; it does not move")
		l.hold()
	}
	if m.SealedPort {
		l.add("seal", true, "Seal: clean, dry, no hair or sand, closed all round; under water only after a look for drops")
	}
	if m.Stabiliser.HasGimbal() {
		l.add("gimbal", m.Flies, "Gimbal moves freely by hand; then power on, and it passes its self-test with the filter on")
	}
	if m.CannotFold && len(m.Glass) > 0 {
		l.add("fold", false, "It does not fold with this on: take it off before folding")
	}
}

// hold asks for a tether where the hold alone is not enough, and stops what is too
// weak.
func (l *list) hold() {
	m := l.m
	weak := m.Hold == fit.DoNotFly
	switch {
	case m.Flies && m.Mount == fit.Magnet:
		l.add("tether", true, "Tether it: a magnet never flies without one")
	case m.Flies && m.Hold == fit.Tether:
		l.add("tether", true, "Tether it: holds %s the load, 3× needed", times(m.Margin))
	case m.Flies && m.Hold != fit.Holds && !weak:
		l.add("tether", true, "Tether it: pull-off not measured")
	case !m.Flies && m.Hold == fit.Tether:
		l.add("tether", false, "Tether it: holds %s the load, 3× needed", times(m.Margin))
	}
	if weak && m.Flies {
		l.all = append(l.all, Check{Step: "hold", Hard: true, Barred: true,
			Words: fmt.Sprintf("Do not fly with this: holds %s the load, 1.5× needed", times(m.Margin))})
	} else if weak {
		l.add("tether", false, "Holds only %s the load: tether it, or leave it off", times(m.Margin))
	}
}

func times(margin float64) string {
	if margin == 0 {
		return "too little of"
	}
	return fmt.Sprintf("%.1f×", math.Floor(margin*10)/10) // never rounded up to a bound that it misses
}

// set sets the camera.
func (l *list) set() {
	m := l.m
	balance := "Lock white balance"
	if len(m.Glass) > 0 {
		balance = "Lock white balance, filter on"
	}
	if m.WhiteBalance != "" {
		balance += ": " + m.WhiteBalance
	}
	l.add("balance", false, "%s", balance)
	how := "Lock"
	switch {
	case m.Automatic:
		how = "Auto exposure, within limits"
	case m.Floats:
		how = "Lock, auto within limits"
	}
	// A tick is for this setting: another one is to be looked at anew.
	l.add(lockedStep+m.Setting, false, "%s: %s", how, m.Setting)
}

// try looks before it counts.
func (l *list) try() {
	m := l.m
	l.add("clip", false, "5 s test clip, viewed large: sharp, no ghosting, no vignetting")
	l.add("extremes", false, "Point at the brightest and the darkest part of the shot")
	l.add("bias", false, "Bias %s to %s, highlights not clipped", (-m.Dark).Signed(), m.Bright.Signed())
}

// Mark is something noted in the field about a step: that it was done, or why it is
// passed over.
type Mark struct {
	Step string
	Kind MarkKind
	At   time.Time
	// Words are the reason of an override.
	Words string
}

// MarkKind says what a mark does.
type MarkKind string

// The kinds of mark.
const (
	Tick     MarkKind = "tick"
	Untick   MarkKind = "untick"
	Override MarkKind = "override"
)

// Values returns every MarkKind there is.
func (MarkKind) Values() []MarkKind {
	return []MarkKind{Tick, Untick, Override}
}

// Done is a step with what became of it.
type Done struct {
	Check
	// Mark is the tick or override that counts, nil for none.
	Mark *Mark
	// Again are ticks of the same step that came on top of it, as from a second
	// window.
	Again []Mark
}

// Readiness says whether a take may begin.
type Readiness string

// The readinesses. Stopped: a hard stop is open.
const (
	Ready   Readiness = "ready"
	Open    Readiness = "open"
	Stopped Readiness = "stopped"
)

// Values returns every Readiness there is.
func (Readiness) Values() []Readiness {
	return []Readiness{Ready, Open, Stopped}
}

// Judge joins steps with the marks made on them, and returns with it what still
// stops the take. Of several ticks the first counts until it is taken back; what
// is barred is never ticked away, only overridden with a reason.
func Judge(checks []Check, marks []Mark) (done []Done, r Readiness, stops []string) {
	marks = slices.Clone(marks)
	slices.SortStableFunc(marks, func(a, b Mark) int { return a.At.Compare(b.At) })
	r = Ready
	for _, c := range checks {
		d := Done{Check: c}
		for _, m := range marks {
			if m.Step == c.Step {
				d.take(m)
			}
		}
		done = append(done, d)
		switch {
		case d.Mark != nil:
		case c.Hard:
			r, stops = Stopped, append(stops, c.Words)
		case r == Ready:
			r = Open
		}
	}
	return done, r, stops
}

func (d *Done) take(m Mark) {
	switch {
	case m.Kind == Untick:
		d.Mark, d.Again = nil, nil
	case m.Kind == Override && strings.TrimSpace(m.Words) == "":
	case m.Kind == Tick && d.Barred:
	case d.Mark != nil && m.Kind == Tick:
		d.Again = append(d.Again, m)
	default:
		d.Mark = &m
	}
}

// Counting returns the place of the mark that counts among all marks of one step, in the
// order of arrival; −1 where none does.
func Counting(marks []Mark) int {
	d, at := Done{}, -1
	for i, m := range marks {
		before := d.Mark
		if d.take(m); d.Mark == nil {
			at = -1
		} else if d.Mark != before {
			at = i
		}
	}
	return at
}
