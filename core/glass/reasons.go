package glass

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"pinhole/core/stop"
)

// State is the verdict in the three words used everywhere.
type State string

// The states. What is not known has none of them.
const (
	Holds  State = "holds"
	Tight  State = "tight"
	Breaks State = "breaks"
)

// Values returns every State there is.
func (State) Values() []State {
	return []State{Holds, Tight, Breaks}
}

// badness orders the states from the best.
func (s State) badness() int { return slices.Index([]State{Holds, Tight, Breaks}, s) }

// Compare orders states from the best to the worst.
func (s State) Compare(other State) int { return cmp.Compare(s.badness(), other.badness()) }

// Worse returns the worse of two states.
func Worse(a, b State) State {
	if a.Compare(b) < 0 {
		return b
	}
	return a
}

// MostGiven is how far from the wished shutter the camera may go before the look
// is lost rather than strained: one stop turns 180° into 90°. It is a default.
const MostGiven = stop.Stops(1)

// given returns by how much the shutter moves off the wished one to keep the exposure,
// the way that is farther where it floats.
func (o *Option) given(q *Question) stop.Stops {
	if o.Verdict != FasterShutter && o.Verdict != FloatShutter {
		return 0
	}
	s := o.Shutters()
	return max(q.wished().Over(s.From), s.To.Over(q.wished()))
}

// Lift returns the stops by which ISO rises, at the lowest light.
func (o *Option) Lift(q *Question) stop.Stops {
	if o.Mode != nil {
		return o.Mode.ISOHigh.Over(q.Setting.ISO)
	}
	return o.ISO.Over(q.Setting.ISO)
}

// State returns what the option makes of the exposure. It holds where the light is
// accepted as it is, or with no more ISO than the free lift; it is tight with more, or
// with a shutter at most one stop from the wished one; it breaks where it stays dark or
// bright beyond what is accepted, or the shutter would give more.
func (o *Option) State(q *Question) State {
	switch {
	case o.Verdict.isOn():
		return Holds
	case o.Verdict == Dark,
		!stop.AtMost(o.given(q), MostGiven),
		!stop.AtMost(o.beyondShutter(q), q.Band.Bright),
		o.Mode != nil && !stop.AtMost(o.Mode.Short, q.Band.Dark):
		return Breaks
	case (o.Verdict == RaiseISO || o.Verdict == FloatISO) && stop.AtMost(o.Lift(q), q.freeLift()):
		return Holds
	}
	return Tight
}

// beyondShutter returns how much too bright the picture stays because the camera's
// shutter ends before it is right.
func (o *Option) beyondShutter(q *Question) stop.Stops {
	if o.Verdict != FasterShutter && o.Verdict != FloatShutter {
		return 0
	}
	return max(0, o.Left-q.Offset)
}

// Spread returns how far the error may be off: the light's spread and the
// glass's together, as the root of their summed squares.
func (o *Option) Spread(q *Question) stop.Stops {
	s, l := o.Stack.Spread(), q.Light.Spread
	return stop.Stops(math.Hypot(float64(s), float64(l)))
}

// CouldBe returns the states, from the best to the worst, that the option could
// turn out to have when light and glass are off by as much as their spread,
// other than the one it has. A variable filter stays where it is turned to.
func (o *Option) CouldBe(q *Question) []State {
	spread := o.Spread(q)
	own := o.State(q)
	var others []State
	for _, off := range []stop.Stops{spread, -spread} {
		there, shifted := o.Shifted(q, off)
		if s := shifted.State(&there); s != own && !slices.Contains(others, s) {
			others = append(others, s)
		}
	}
	slices.SortFunc(others, State.Compare)
	return others
}

// Reasons returns why the option stands where it does: one sentence a line, the
// main one first.
func (o *Option) Reasons(q *Question) []string {
	lines := append(make([]string, 0, 6), o.match(q))
	add := func(line string) {
		if line != "" {
			lines = append(lines, line)
		}
	}
	add(o.Consequence(q))
	add(o.doubt(q))
	if o.standsIn {
		add("it polarises too: skies can come out uneven, reflections change, and on a drone the effect comes and goes")
	}
	if n := len(o.Filters); n > 1 {
		add(strconv.Itoa(n) + " filters: " + strconv.Itoa(2*n) + " surfaces to clean, and more ring before the lens")
	}
	if o.corner > 0.05 {
		add("vignetting " + o.corner.String() + " stops")
	}
	if o.cast.Abs() > 0.05 {
		add(fmt.Sprintf("colour shifts %v stops towards %s; set white balance with the filter on", o.cast.Abs(), castTowards(o.cast)))
	}
	add(o.fallsOff(q))
	return lines
}

func castTowards(cast stop.Stops) string {
	if cast > 0 {
		return "red"
	}
	return "blue"
}

// match says what glass there is against what is needed.
func (o *Option) match(q *Question) string {
	glass := o.glassWords()
	if !q.Light.IsRange() {
		needed := "none"
		if q.Need() > -0.05 {
			needed = q.Need().String()
		}
		return glass + ", " + needed + " needed: " + comparedWithMeter(o.Error) + q.acceptance(o.Error)
	}
	high, low := o.Error, o.Error-q.Light.High.Above(q.Light.Low)
	return fmt.Sprintf("%s, %v to %v needed: %s in the brightest light, %s in the darkest; tolerance %v over, %v under", glass, q.lowestNeed(), q.Need(),
		comparedWithMeter(high), comparedWithMeter(low), q.Band.Bright, q.Band.Dark)
}

func (o *Option) glassWords() string {
	mounted := ""
	if o.mounted != 0 || o.turnedMounted {
		mounted = ", always-on filters included"
	}
	switch {
	case len(o.Filters) == 0 && mounted == "":
		return "no filter"
	case o.Turned != nil:
		return fmt.Sprintf("cuts %v stops with the ring at %v%s", o.Stops, o.Setting, mounted)
	}
	how := "marked"
	measured, learned := 0, 0
	for _, f := range o.Filters {
		if f.Measured {
			measured++
		}
		if f.Learned {
			learned++
		}
	}
	switch {
	case learned > 0 && learned == len(o.Filters):
		how = "learned from the log"
	case learned > 0:
		how = "part learned from the log"
	case len(o.Filters) > 0 && measured == len(o.Filters):
		how = "measured"
	case measured > 0:
		how = "part measured, part marked"
	}
	return "cuts " + o.Stops.String() + " stops (" + how + ")" + mounted
}

// comparedWithMeter says an error in words, against the meter's own aim.
func comparedWithMeter(e stop.Stops) string {
	switch {
	case e.Abs() < 0.05:
		return "exact"
	case e > 0:
		return e.String() + " over"
	}
	return e.Abs().String() + " under"
}

// acceptance says where an error lies against the accepted band.
func (q *Question) acceptance(e stop.Stops) string {
	off := e - q.Offset
	limit, side := q.Band.Bright, "over"
	if off < 0 {
		limit, side = q.Band.Dark, "under"
	}
	around := ""
	if q.Offset != 0 {
		around = " around your " + q.Offset.Signed()
	}
	switch {
	case off.Abs() < 0.05:
		return ""
	case stop.AtMost(off.Abs(), limit):
		return ", within tolerance (" + limit.Fraction() + " " + side + ")" + around
	}
	return ", " + (off.Abs() - limit).String() + " beyond tolerance (" + limit.Fraction() + " " + side + ")" + around
}

// Consequence says what the camera must do; "" where nothing.
func (o *Option) Consequence(q *Question) string {
	switch o.Verdict {
	case RaiseISO:
		return o.SpokenISO(q) + " makes up " + o.ISO.Over(q.Setting.ISO).String() + " stops; more noise, shutter stays " + o.Shutter.String()
	case Dark:
		return (o.Left - q.Offset).Abs().String() + " stops under at highest " + o.ISO.String()
	case FasterShutter:
		return q.faster(o) + o.tooFast(q)
	case Lock:
		return fmt.Sprintf("lock %v, %v: within tolerance", o.Shutter, o.ISO)
	case FloatISO:
		return fmt.Sprintf("lock %v, auto ISO %.0f–%.0f, up to %v stops more noise%s", o.Shutter, float64(q.OfferedISO(o.Mode.ISOLow)), float64(q.OfferedISO(o.Mode.ISOHigh)),
			o.Mode.ISOHigh.Over(q.Setting.ISO), o.Mode.shortWords())
	case FloatShutter:
		m := o.Mode
		return fmt.Sprintf("auto shutter %v to %v, ISO up to %.0f%s%s", q.Spoken(m.Fastest), q.Spoken(m.Slowest), float64(q.OfferedISO(m.ISOHigh)), m.shortWords(), o.tooFast(q))
	}
	return ""
}

func (q *Question) faster(o *Option) string {
	text := "needs " + q.Spoken(o.Shutter)
	if q.Rate > 0 {
		text += " (" + o.Shutter.Angle(q.Rate).String() + ")"
	}
	return text + ": " + o.given(q).String() + " stops less blur than the target"
}

func (o *Option) tooFast(q *Question) string {
	if beyond := o.beyondShutter(q); beyond >= 0.05 {
		return fmt.Sprintf("; the camera goes no faster: %v stops over", beyond)
	}
	return ""
}

func (m *Mode) shortWords() string {
	if m.Short < 0.05 {
		return ""
	}
	return fmt.Sprintf("; %v stops under in the darkest light", m.Short)
}

// turnsOut says the states as they follow "may".
var turnsOut = map[State]string{Holds: "hold", Tight: "be tight", Breaks: "break"}

// doubt says how sure the error is, and whether that could turn the verdict.
func (o *Option) doubt(q *Question) string {
	spread := o.Spread(q)
	if spread < 0.05 {
		return ""
	}
	why := []string{}
	if q.Light.Spread > 0 {
		why = append(why, "the reading")
	}
	if o.Stack.Spread() > 0 {
		why = append(why, "the filter")
	}
	text := "±" + spread.String() + " stops from " + strings.Join(why, " and ")
	if others := o.CouldBe(q); len(others) > 0 {
		text += ": may " + turnsOut[others[len(others)-1]] + ". Shoot a test clip"
	}
	return text
}

// fallsOff says what is left without the loose glass.
func (o *Option) fallsOff(q *Question) string {
	if len(o.Filters) == 0 || o.Lost < 0.5 {
		return ""
	}
	text := "filter lost: " + o.Lost.String() + " stops over"
	saved, known := o.Saved(q)
	switch {
	case !known:
		return text + "; this camera's fastest shutter is not known"
	case saved:
		return text + "; " + q.Fastest.String() + " at base ISO still covers it"
	}
	return text + "; even " + q.Fastest.String() + " at base ISO is too slow"
}

// Outcome says in a line what the option makes of the light.
func (o *Option) Outcome(q *Question) string {
	left := o.Left - q.Offset
	switch {
	case left > q.Band.Bright+stop.Tolerance:
		return fmt.Sprintf("%v stops over", left)
	case left < -q.Band.Dark-stop.Tolerance:
		return fmt.Sprintf("%v stops under at highest ISO", left.Abs())
	case o.Verdict == RaiseISO:
		return "covered at " + o.SpokenISO(q)
	case o.Verdict == FasterShutter:
		return fmt.Sprintf("covered only at %s: less blur than the target", q.Spoken(o.Shutter))
	case left.Abs() < 0.05:
		return "covered, no error"
	case left < 0:
		return fmt.Sprintf("covered, %v stops under", left.Abs())
	}
	return fmt.Sprintf("covered, %v stops over", left)
}
