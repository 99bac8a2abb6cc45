package card

import (
	"fmt"
	"math"
	"pinhole/core/day"
	"slices"
	"strings"
	"time"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// turn is one battery of a shot.
func (c *carding) turn(s *day.OutingShot, set *CardShot, b *CardBench, p *day.OutingPlan, n int, before *day.OutingStack) *CardTurn {
	pack := &p.Packs[n]
	stack := c.outing.Stacks[pack.Stack]
	t := &CardTurn{
		ID: turnID(p.ID, n+1, pack.Stack), Shot: p.ID, Name: s.Name, Pack: n + 1, Packs: len(p.Packs), From: pack.From, To: pack.To,
		Stack: pack.Stack, Glass: c.outing.Names[pack.Stack], Filters: c.glass(stack), Stays: before != nil && before.ID == stack.ID && len(stack.Filters) > 0,
		State: pack.State, Words: pack.Words, Helps: []string{}, Latest: pack.LastMinute, Brighter: c.outing.Names[pack.Brighter], Darker: c.outing.Names[pack.Darker],
	}
	if t.State == glass.Breaks {
		t.Helps = p.Remedies
	}
	t.When, t.In = c.when(pack.From, pack.To)
	if i := slices.IndexFunc(c.Seats, func(x CardSeat) bool { return x.Stack == stack.ID }); i >= 0 && len(stack.Filters) > 0 {
		t.Standing = &c.Seats[i]
	}
	c.light(t, s, pack)
	t.Lights = p.Lights
	battery := c.outing.Battery(p.ID, n)
	v := battery.Closest(stack.ID)
	t.Set = settingOf(&v.Question, &v.Option, set, b)
	t.Light.expect(&v.Question, &v.Option, &t.Set)
	c.check(t, b, &v.Question, &v.Option, stack, before)
	c.drill(t, battery.Scene(), b, v)
	return t
}

// glass returns the filters of a stack as they are called: one that is tried, and not in the kit,
// by its part of the stack's name.
func (c *carding) glass(of *day.OutingStack) []CardGlass {
	out := []CardGlass{}
	names := strings.Split(of.Name, " + ")
	for k, id := range of.Filters {
		named := CardGlass{ID: id, Title: "unnamed filter"}
		if i := slices.IndexFunc(c.Glass, func(g CardGlass) bool { return g.ID == id }); i >= 0 {
			named = c.Glass[i]
		} else if len(names) == len(of.Filters) {
			named.Title = names[k]
		}
		out = append(out, named)
	}
	return out
}

// when says where now lies against a span, and how long until what comes next.
func (c *carding) when(from, to time.Time) (when, in string) {
	switch {
	case !to.After(c.Now):
		return "over", Until(c.Now, to)
	case from.After(c.Now):
		return "later", Until(c.Now, from) // the first of them is made the next by follow
	}
	return "on", Until(c.Now, to)
}

// Until says how long it is from now to an instant.
func Until(now, at time.Time) string {
	d := at.Sub(now).Round(time.Minute)
	ago := d < 0
	d = d.Abs()
	minutes := int(d / time.Minute)
	var text string
	switch {
	case minutes == 0:
		return "now"
	case minutes < 60:
		text = fmt.Sprintf("%d min", minutes)
	case minutes < 24*60:
		text = fmt.Sprintf("%d h %02d min", minutes/60, minutes%60)
	case minutes < 2*24*60:
		text = "a day"
	default:
		text = fmt.Sprintf("%d days", minutes/60/24)
	}
	if ago {
		return text + " ago"
	}
	return "in " + text
}

// light fills in what light is expected: of daylight that of now, whenever the turn is,
// since that is what is read now; else that of the turn at the end that is nearer.
func (c *carding) light(t *CardTurn, s *day.OutingShot, pack *day.OutingPack) {
	t.Light = CardLight{LowEV100: pack.LowEV100, HighEV100: pack.HighEV100, At: c.Now}
	if scene, general, ok := c.outing.DaylightOf(s, c.Now); ok {
		t.Light.Expected = Expected{EV100: scene.EV, Spread: scene.Spread, General: &general}
		return
	}
	if t.Light.At.Before(t.From) {
		t.Light.At = t.From
	}
	if t.Light.At.After(t.To) {
		t.Light.At = t.To
	}
	scene := c.outing.ExpectedAt(s, t.Light.At)
	t.Light.Expected = Expected{EV100: scene.EV, Spread: scene.Spread}
}

// expect says what would be read now, if the plan is right.
func (l *CardLight) expect(q *glass.Question, o *glass.Option, set *CardSetting) {
	behind := l.Expected.EV100.Plus(-o.Stops)
	l.Bias = behind.Above(stop.Setting{Aperture: q.Setting.Aperture, Shutter: set.ShutterS, ISO: set.ISOLow}.EV())
	l.Auto = q.Spoken(stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, behind))
	l.Biases, l.Autos = biasesNear(l.Bias), autosNear(q, stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, behind))
	l.Meter = fmt.Sprintf("f%g %s iso%.0f", float64(q.Setting.Aperture), stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, l.Expected.EV100).Spoken(), float64(q.Setting.ISO))
}

// beside is how many steps are offered to either side of what is expected.
const beside = 5

// biasesNear returns what the bias of a camera may show: the whole stops of its scale, and
// the thirds that it counts in within a stop of what is expected.
func biasesNear(expected stop.Stops) []string {
	const most = 3 // stops, to either side
	middle := int(math.Round(3 * float64(expected)))
	out := []string{}
	for n := -3 * most; n <= 3*most; n++ {
		switch isNear := n > middle-3 && n < middle+3; {
		case n == 0:
			out = append(out, "0")
		case n%3 == 0:
			out = append(out, fmt.Sprintf("%+d", n/3))
		case isNear:
			out = append(out, (stop.Stops(n) / 3).Signed())
		}
	}
	return out
}

// autosNear returns the shutters of the camera's menu, or the marked ones, beside the
// expected one, the fastest first.
func autosNear(q *glass.Question, expected stop.Shutter) []string {
	steps := stop.Nominal()
	if len(q.Steps) > 0 {
		steps = slices.Clone(q.Steps)
	}
	slices.Sort(steps)
	near := 0
	for i, s := range steps {
		if s.Over(expected).Abs() < steps[near].Over(expected).Abs() {
			near = i
		}
	}
	out := []string{}
	for _, s := range steps[max(near-beside, 0):min(near+beside+1, len(steps))] {
		out = append(out, s.Spoken())
	}
	return out
}

// settingOf words an option as what to set.
func settingOf(q *glass.Question, o *glass.Option, set *CardShot, b *CardBench) CardSetting {
	// What is set is what the camera has: a step of its menu, ISO in thirds, and what that
	// leaves said with the rest.
	shutter, off := q.Offered(o.Shutter)
	iso := q.OfferedISO(o.ISO)
	out := CardSetting{
		ShutterS: shutter, Shutter: q.Spoken(o.Shutter), ISO: strings.TrimPrefix(o.SpokenISO(q), "ISO "), ISOLow: iso, FPS: set.Look.FPS + " fps", Left: o.Left + off + iso.Over(o.ISO),
		Recipe: append([]string{}, b.Recipe...), EVSet: q.Setting.EV(), Stops: o.Stops, Loose: o.Lost - o.Error,
	}
	if m := o.Mode; m != nil && m.Kind != glass.Lock {
		out.Floats = true
		out.ShutterS, _ = q.Offered(m.Slowest)
		out.ISOLow = q.OfferedISO(m.ISOLow)
		out.Shutter = ranged(q.Spoken(m.Fastest), q.Spoken(m.Slowest))
	}
	switch {
	case set.Scene.Interval > 0:
		out.FPS = fmt.Sprintf("a still each %g s", set.Scene.Interval)
	case q.Rate == 0:
		out.FPS = "still"
	default:
		out.Angle = shutter.Angle(q.Rate).String()
	}
	if auto := b.Profile.AutomaticExposure(&b.Optics, q.Rate); set.Scene.School == "automatic" && auto != nil {
		high, _ := auto.Expose(q.Light.High, o.Stops)
		low, _ := auto.Expose(q.Light.Low, o.Stops)
		out.Automatic, out.ShutterS, out.Angle = true, low.Shutter, ""
		out.Shutter = "auto, " + ranged(high.Shutter.Spoken(), low.Shutter.Spoken())
		out.ISO = fmt.Sprintf("auto, at most %.0f", float64(auto.Ceiling))
	}
	out.Words = fmt.Sprintf("%s, ISO %s, %s", out.Shutter, out.ISO, out.FPS)
	return out
}

func ranged(a, b string) string {
	if a == b {
		return a
	}
	return a + " to " + b
}

// turnID names a turn for good: the shot, which battery of it, and its glass.
func turnID(shot string, pack int, stack string) string {
	return fmt.Sprintf("%s/%d/%s", shot, pack, stack)
}

// ShotOf returns the shot that a turn's id names.
func ShotOf(turn string) string {
	shot, _, _ := strings.Cut(turn, "/")
	return shot
}

// StackOf returns the glass that a turn's id names; ok is false for what is none.
func StackOf(turn string) (stack string, ok bool) {
	_, rest, ok := strings.Cut(turn, "/")
	if !ok {
		return "", false
	}
	_, stack, ok = strings.Cut(rest, "/")
	return stack, ok
}
