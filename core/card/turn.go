package card

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"slices"
	"time"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// turn is one battery of a shot.
func (c *carding) turn(s *day.OutingShot, set *CardShot, b *CardBench, p *day.OutingPlan, n int, before *day.OutingStack) (*CardTurn, error) {
	pack := &p.Packs[n]
	stack := c.outing.Stacks[pack.Stack]
	t := &CardTurn{
		ID: fmt.Sprintf("%s/%d/%s", p.ID, n+1, pack.Stack), Shot: p.ID, Name: s.Name, Pack: n + 1, Packs: len(p.Packs), From: pack.From, To: pack.To,
		Stack: pack.Stack, Glass: c.outing.Names[pack.Stack], Filters: c.glass(stack.Filters), Stays: before != nil && before.ID == stack.ID && len(stack.Filters) > 0,
		State: p.State, Words: p.Words, Helps: p.Remedies, Latest: pack.LastMinute, Brighter: c.outing.Names[pack.Brighter], Darker: c.outing.Names[pack.Darker],
	}
	t.When, t.In = c.when(pack.From, pack.To)
	if i := slices.IndexFunc(c.Seats, func(x CardSeat) bool { return x.Stack == stack.ID }); i >= 0 && len(stack.Filters) > 0 {
		t.Standing = &c.Seats[i]
	}
	c.light(t, s, p, pack)
	q, option, err := c.set(t, s, set, b, stack, p.Spread)
	if err != nil {
		return nil, err
	}
	c.check(t, b, q, option, stack, before)
	c.drill(t, set, b, q, option)
	return t, nil
}

// glass returns the filters of those ids as they are called.
func (c *carding) glass(ids []string) []CardGlass {
	out := []CardGlass{}
	for _, id := range ids {
		named := CardGlass{ID: id, Title: "unnamed glass"}
		if i := slices.IndexFunc(c.Glass, func(g CardGlass) bool { return g.ID == id }); i >= 0 {
			named = c.Glass[i]
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
func (c *carding) light(t *CardTurn, s *day.OutingShot, p *day.OutingPlan, pack *day.OutingPack) {
	t.Light = CardLight{LowEV100: pack.LowEV100, HighEV100: pack.HighEV100, At: c.Now, Expected: Expected{Spread: p.Spread}}
	if c.Outing.Place != nil && s.Plane != "" {
		scene := c.outing.SubjectOf(s).At(c.Now)
		general := c.outing.MinutesOf(light.Vertical, nil, c.Outing.Surface).At(c.Now).EV
		t.Light.Expected = Expected{EV100: scene.EV, Spread: scene.Spread, General: &general}
		return
	}
	if t.Light.At.Before(t.From) {
		t.Light.At = t.From
	}
	if t.Light.At.After(t.To) {
		t.Light.At = t.To
	}
	points, _, err := c.outing.LightOf(s, "", s.From)
	minute := int(t.Light.At.Sub(s.From) / time.Minute)
	if err == nil && minute < len(points) { // take has found no fault in it
		t.Light.Expected.EV100 = points[minute]
	}
}

// set fills in what to set, found as a shot's glass is: the option that this stack
// makes in the light of the turn.
func (c *carding) set(t *CardTurn, s *day.OutingShot, set *CardShot, b *CardBench, stack *day.OutingStack, spread stop.Stops) (*glass.Question, *glass.Option, error) {
	wish := assemble.Wish{Camera: b.Optics, FPS: s.FPS, ShutterS: &s.ShutterS, Kit: b.Kit, Choices: set.Choices}
	bench, err := wish.Setup()
	if err != nil {
		return nil, nil, err
	}
	q := &bench.Question
	q.Light = glass.Light{Low: t.Light.LowEV100, High: t.Light.HighEV100, Spread: spread, Ranged: t.Light.HighEV100.Above(t.Light.LowEV100) > steady}
	option, err := bench.Weigh(stack.Filters, "kit")
	if err != nil {
		return nil, nil, err
	}
	t.Set = settingOf(q, &option, set, b)
	t.Light.expect(q, &option, &t.Set)
	return q, &option, nil
}

// expect says what would be read now, if the plan is right.
func (l *CardLight) expect(q *glass.Question, o *glass.Option, set *CardSetting) {
	behind := l.Expected.EV100.Plus(-o.Stops)
	l.Bias = behind.Above(stop.Setting{Aperture: q.Setting.Aperture, Shutter: set.ShutterS, ISO: set.ISOLow}.EV())
	l.Auto = stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, behind).Spoken()
	l.Meter = fmt.Sprintf("f%g %s iso%.0f", float64(q.Setting.Aperture), stop.ShutterFor(q.Setting.Aperture, q.Setting.ISO, l.Expected.EV100).Spoken(), float64(q.Setting.ISO))
}

// steady is how far light may move in a turn and still be called one light.
const steady = stop.Stops(0.1)

// settingOf words an option as what to set.
func settingOf(q *glass.Question, o *glass.Option, set *CardShot, b *CardBench) CardSetting {
	out := CardSetting{
		ShutterS: o.Shutter, Shutter: q.Spoken(o.Shutter), ISO: fmt.Sprintf("%.0f", float64(o.ISO)), ISOLow: o.ISO, FPS: set.Look.FPS + " fps", Left: o.Left,
		Recipe: append([]string{}, b.Recipe...), EVSet: q.Setting.EV(), Stops: o.Stops, Loose: o.Lost - o.Error,
	}
	if m := o.Mode; m != nil && m.Kind != glass.Lock {
		out.Floats, out.ShutterS = true, m.Slowest
		out.ISOLow = m.ISOLow
		out.Shutter = ranged(q.Spoken(m.Fastest), q.Spoken(m.Slowest))
		out.ISO = ranged(fmt.Sprintf("%.0f", float64(m.ISOLow)), fmt.Sprintf("%.0f", float64(m.ISOHigh)))
	}
	switch {
	case set.Scene.Interval > 0:
		out.FPS = fmt.Sprintf("a still each %g s", set.Scene.Interval)
	case q.Rate == 0:
		out.FPS = "still"
	default:
		out.Angle = o.Shutter.Angle(q.Rate).String()
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
