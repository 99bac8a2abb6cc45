package calc

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"pinhole/core/card"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// CardRequest asks what to set, check and do on the spot.
type CardRequest struct {
	Now     time.Time     `json:"now"`
	Name    string        `json:"name,omitempty" maxLength:"80" doc:"of the shoot"`
	Outing  OutingRequest `json:"outing" doc:"the day as it is planned"`
	Shots   []CardShot    `json:"shots" maxItems:"60"`
	Benches []CardBench   `json:"benches" maxItems:"120" doc:"each camera as it is held"`
	Glass   []CardGlass   `json:"glass" maxItems:"200"`
	Seats   []CardSeat    `json:"seats" maxItems:"400" doc:"what is known of stacks on their rigs"`
	Marks   []CardMark    `json:"marks" maxItems:"5000" doc:"what was ticked, taken back and overridden"`
}

// CardShot is what a shot of the plan is set to.
type CardShot struct {
	ID      string       `json:"id" minLength:"1" maxLength:"100"`
	Look    ShotLook     `json:"look"`
	Scene   ShotScene    `json:"scene,omitzero"`
	Choices Choices      `json:"choices"`
	FloorS  stop.Shutter `json:"floorS,omitempty" minimum:"0" maximum:"86400" doc:"slowest shutter at which its stabiliser works, seconds; 0 is not known"`
}

// CardBench is a camera held as a rig, with its glass.
type CardBench struct {
	CameraID     string         `json:"cameraId" minLength:"1" maxLength:"100"`
	RigID        string         `json:"rigId,omitempty" maxLength:"100"`
	Camera       string         `json:"camera" maxLength:"80" doc:"what it is called"`
	Optics       Camera         `json:"optics"`
	Profile      *CameraProfile `json:"profile,omitempty"`
	Kit          []KitFilter    `json:"kit" maxItems:"200"`
	Rig          RigFields      `json:"rig"`
	SealedPort   bool           `json:"sealedPort,omitempty"`
	WhiteBalance string         `json:"whiteBalance,omitempty" maxLength:"120"`
	Recipe       []string       `json:"recipe,omitempty" maxItems:"20" maxLength:"500" doc:"the rest of what to set, a line each"`
}

// CardGlass is what a filter is called and where it lies.
type CardGlass struct {
	ID    string `json:"id" minLength:"1" maxLength:"100"`
	Title string `json:"title" maxLength:"200"`
	Slot  string `json:"slot,omitempty" maxLength:"40"`
}

// CardSeat is what is known of a stack on its rig.
type CardSeat struct {
	Stack    string       `json:"stack" maxLength:"200" doc:"its id"`
	Standing fit.Standing `json:"standing" enum:"tried,computed,tight,loose,does not go,unknown"`
	Because  string       `json:"because,omitempty" maxLength:"500"`
	Mount    fit.Mount    `json:"mount,omitempty" enum:"push-on,snap,twist,magnet,adhesive,clip,thread"`
	Hold     fit.Verdict  `json:"hold,omitempty" enum:"holds,tether,do-not-fly,unknown"`
	Margin   float64      `json:"margin,omitempty" minimum:"0" maximum:"1000000" doc:"times it holds what pulls at it; 0 is not known"`
	NoFold   bool         `json:"noFold,omitempty" doc:"the camera does not fold with it on"`
}

// CardMark is something noted about a step of a turn.
type CardMark struct {
	Turn  string        `json:"turn" maxLength:"400"`
	Step  string        `json:"step" maxLength:"120"`
	Kind  card.MarkKind `json:"kind" enum:"tick,untick,override"`
	At    time.Time     `json:"at"`
	Words string        `json:"words,omitempty" maxLength:"500" doc:"an override's reason"`
}

// CardAnswer is the card, camera by camera.
type CardAnswer struct {
	Cameras []CardCamera `json:"cameras" doc:"in order of their first turn"`
	Text    string       `json:"text" doc:"the plan in plain words, for a message"`
}

// CardCamera is one camera through the day.
type CardCamera struct {
	CameraID string     `json:"cameraId"`
	Name     string     `json:"name"`
	Turns    []CardTurn `json:"turns" doc:"in order of time"`
	Current  int        `json:"current" doc:"the turn that is on, else the next, else the last"`
	Swap     *CardSwap  `json:"swap,omitempty" doc:"the next change of glass"`
}

// CardTurn is a shot, or one battery of it: what is on, what is set.
type CardTurn struct {
	ID      string      `json:"id" doc:"marks name it"`
	Shot    string      `json:"shot"`
	Name    string      `json:"name"`
	Pack    int         `json:"pack" doc:"which battery, from 1"`
	Packs   int         `json:"packs"`
	From    time.Time   `json:"from"`
	To      time.Time   `json:"to"`
	When    string      `json:"when" enum:"over,on,next,later"`
	In      string      `json:"in" doc:"how long until it begins, or ends where it is on"`
	Stack   string      `json:"stack"`
	Glass   string      `json:"glass" doc:"what is on the lens"`
	Filters []CardGlass `json:"filters"`
	Stays   bool        `json:"stays" doc:"it is on already, from the turn before"`
	Set     CardSetting `json:"set"`
	Light   CardLight   `json:"light"`
	State   glass.State `json:"state" enum:"holds,tight,breaks"`
	Words   string      `json:"words"`
	Helps   []string    `json:"helps" doc:"what would serve it, where this glass does not"`
	Latest  *time.Time  `json:"latest" doc:"the last minute this glass serves; null where it never does"`
	// The glass for the pocket.
	Brighter  string         `json:"brighter,omitempty"`
	Darker    string         `json:"darker,omitempty"`
	Standing  *CardSeat      `json:"standing,omitempty" doc:"left out where nothing is known, or nothing is on"`
	Checks    []CardCheck    `json:"checks"`
	Readiness card.Readiness `json:"readiness" enum:"ready,open,stopped"`
	Stops     []string       `json:"stops" doc:"what stops the take"`
	Drills    []CardDrill    `json:"drills"`
}

// CardSetting is what to set.
type CardSetting struct {
	ShutterS  stop.Shutter `json:"shutterS" doc:"the slowest, where it floats"`
	Shutter   string       `json:"shutter"`
	ISO       string       `json:"iso" doc:"one, or a band"`
	ISOLow    stop.ISO     `json:"isoLow" doc:"the one, or the lowest"`
	FPS       string       `json:"fps"`
	Angle     string       `json:"angle,omitempty"`
	Automatic bool         `json:"automatic" doc:"shutter and ISO are left to the camera"`
	Floats    bool         `json:"floats" doc:"ISO or shutter may move within limits"`
	Left      stop.Stops   `json:"leftStops" doc:"what is left over at the highest light"`
	Recipe    []string     `json:"recipe" doc:"the rest, a line each"`
	Words     string       `json:"words"`
	EVSet     stop.EV      `json:"evSet" doc:"the light it needs"`
	Stops     stop.Stops   `json:"stops" doc:"all the glass before it"`
	Loose     stop.Stops   `json:"looseStops"`
}

// CardLight is the light that is expected.
type CardLight struct {
	LowEV100  stop.EV   `json:"lowEv100"`
	HighEV100 stop.EV   `json:"highEv100"`
	At        time.Time `json:"at" doc:"now, or the near end of the turn"`
	Expected  Expected  `json:"expected" doc:"at that instant"`
	// What would be read now, if the plan is right.
	Bias  stop.Stops `json:"biasStops" doc:"that the camera would show, locked at what is set, ISO at its lowest"`
	Auto  string     `json:"auto" doc:"the shutter that the automatic would choose at base ISO, behind this glass"`
	Meter string     `json:"meter" doc:"what a hand meter would show, set to this aperture and base ISO"`
}

// CardCheck is one step before the take.
type CardCheck struct {
	Step   string      `json:"step"`
	Words  string      `json:"words"`
	Hard   bool        `json:"hard" doc:"nothing begins without it"`
	Barred bool        `json:"barred" doc:"only a reason gets past it"`
	At     *time.Time  `json:"at" doc:"when it was ticked or overridden"`
	Reason string      `json:"reason,omitempty" doc:"of an override"`
	Again  []time.Time `json:"again" doc:"when it was ticked once more, as in another window"`
}

// CardDrill is what to do when something goes wrong.
type CardDrill struct {
	Name  string   `json:"name"`
	Title string   `json:"title"`
	Lines []string `json:"lines" doc:"five at most"`
}

// CardSwap is the next change of glass.
type CardSwap struct {
	At      time.Time  `json:"at"`
	Latest  *time.Time `json:"latest" doc:"the last minute the old glass serves"`
	Due     time.Time  `json:"due" doc:"the last minute, where the old glass fails within a take; else the start of the new one"`
	In      string     `json:"in" doc:"how long until it is due"`
	From    string     `json:"from"`
	To      string     `json:"to"`
	Turn    string     `json:"turn" doc:"the id of the turn it is for"`
	Because string     `json:"because"`
}

// carding is a card request being answered.
type carding struct {
	*CardRequest
	outing *outing
	plan   *OutingAnswer
}

// Card answers card.
func Card(r CardRequest) (*CardAnswer, error) {
	if err := checkYear("now", r.Now); err != nil {
		return nil, err
	}
	o, err := r.Outing.ready()
	if err != nil {
		return nil, within("outing.", err)
	}
	c := &carding{&r, o, &OutingAnswer{Unknown: []string{}}}
	if err := o.take(c.plan); err != nil {
		return nil, within("outing.", err)
	}
	if len(o.day.Shots) > 0 {
		c.plan.plan(o)
	}
	a := &CardAnswer{Cameras: []CardCamera{}}
	for i := range c.plan.Shots {
		if err := c.add(a, &c.plan.Shots[i]); err != nil {
			return nil, err
		}
	}
	for i := range a.Cameras {
		c.follow(&a.Cameras[i])
	}
	a.Text = c.text(a)
	return a, nil
}

// add adds the turns of a planned shot to its camera.
func (c *carding) add(a *CardAnswer, p *OutingPlan) error {
	s := c.shot(p.ID)
	i := slices.IndexFunc(c.Shots, func(x CardShot) bool { return x.ID == p.ID })
	if i < 0 {
		return &problem.Fault{Field: "shots", Allowed: fmt.Sprintf("what the planned shot %s is set to", p.ID)}
	}
	k := slices.IndexFunc(c.Benches, func(b CardBench) bool { return b.CameraID == s.CameraID && b.RigID == s.RigID })
	if k < 0 {
		return &problem.Fault{Field: "benches", Allowed: fmt.Sprintf("the camera of the planned shot %s, held as it is", p.ID)}
	}
	at := slices.IndexFunc(a.Cameras, func(x CardCamera) bool { return x.CameraID == s.CameraID })
	if at < 0 {
		at = len(a.Cameras)
		a.Cameras = append(a.Cameras, CardCamera{CameraID: s.CameraID, Name: c.Benches[k].Camera, Turns: []CardTurn{}})
	}
	of := &a.Cameras[at]
	for n := range p.Packs {
		t, err := c.turn(s, &c.Shots[i], &c.Benches[k], p, n, c.before(of))
		if err != nil {
			return within(fmt.Sprintf("shots[%d].", i), err)
		}
		of.Turns = append(of.Turns, *t)
	}
	return nil
}

func (c *carding) shot(id string) *OutingShot {
	return &c.Outing.Shots[slices.IndexFunc(c.Outing.Shots, func(s OutingShot) bool { return s.ID == id })]
}

// before returns the stack that is on a camera before its next turn, nil for none.
func (c *carding) before(of *CardCamera) *OutingStack {
	if n := len(of.Turns); n > 0 {
		return c.outing.stacks[of.Turns[n-1].Stack]
	}
	return c.outing.stacks[c.Outing.Start[of.CameraID]]
}

// turn is one battery of a shot.
func (c *carding) turn(s *OutingShot, set *CardShot, b *CardBench, p *OutingPlan, n int, before *OutingStack) (*CardTurn, error) {
	pack := &p.Packs[n]
	stack := c.outing.stacks[pack.Stack]
	t := &CardTurn{
		ID: fmt.Sprintf("%s/%d/%s", p.ID, n+1, pack.Stack), Shot: p.ID, Name: s.Name, Pack: n + 1, Packs: len(p.Packs), From: pack.From, To: pack.To,
		Stack: pack.Stack, Glass: c.outing.names[pack.Stack], Filters: c.glass(stack.Filters), Stays: before != nil && before.ID == stack.ID && len(stack.Filters) > 0,
		State: p.State, Words: p.Words, Helps: p.Remedies, Latest: pack.LastMinute, Brighter: c.outing.names[pack.Brighter], Darker: c.outing.names[pack.Darker],
	}
	t.When, t.In = c.when(pack.From, pack.To)
	if i := slices.IndexFunc(c.Seats, func(x CardSeat) bool { return x.Stack == stack.ID }); i >= 0 && len(stack.Filters) > 0 {
		t.Standing = &c.Seats[i]
	}
	c.light(t, s, p, pack)
	q, option, err := c.set(t, s, set, b, stack)
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

// light fills in what light is expected.
func (c *carding) light(t *CardTurn, s *OutingShot, p *OutingPlan, pack *OutingPack) {
	at := c.Now
	if at.Before(t.From) {
		at = t.From
	}
	if at.After(t.To) {
		at = t.To
	}
	t.Light = CardLight{LowEV100: pack.LowEV100, HighEV100: pack.HighEV100, At: at, Expected: Expected{Spread: p.Spread}}
	points, _, err := c.outing.lightOf(s, "", s.From)
	minute := int(at.Sub(s.From) / time.Minute)
	if err == nil && minute < len(points) { // take has found no fault in it
		t.Light.Expected.EV100 = points[minute]
	}
	if c.Outing.Place != nil && s.Plane != "" {
		general := c.outing.minutesOf(light.Vertical, nil, c.Outing.Surface).at(at).EV
		t.Light.Expected.General = &general
	}
}

// set fills in what to set, found as a shot's glass is: the option that this stack
// makes in the light of the turn.
func (c *carding) set(t *CardTurn, s *OutingShot, set *CardShot, b *CardBench, stack *OutingStack) (*glass.Question, *glass.Option, error) {
	wish := Wish{Camera: b.Optics, FPS: s.FPS, ShutterS: &s.ShutterS, Kit: b.Kit, Choices: set.Choices}
	bench, err := wish.bench()
	if err != nil {
		return nil, nil, err
	}
	q := &bench.question
	q.Light = glass.Light{Low: t.Light.LowEV100, High: t.Light.HighEV100, Spread: t.Light.Expected.Spread, Ranged: t.Light.HighEV100.Above(t.Light.LowEV100) > steady}
	option, err := bench.weigh(stack.Filters, "kit")
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

// check fills in the checklist.
func (c *carding) check(t *CardTurn, b *CardBench, q *glass.Question, o *glass.Option, stack, before *OutingStack) {
	m := card.Mounting{Stays: t.Stays, SealedPort: b.SealedPort, Setting: t.Set.Words, WhiteBalance: b.WhiteBalance, Automatic: t.Set.Automatic, Floats: t.Set.Floats, Dark: q.Band.Dark, Bright: q.Band.Bright, Mount: b.Rig.Mount}
	if b.Profile != nil {
		m.Flies, m.Stabiliser = b.Profile.Flies, b.Profile.Stabiliser
	}
	for _, g := range t.Filters {
		m.Glass = append(m.Glass, inSlot(g))
	}
	if before != nil {
		for _, g := range c.glass(before.Filters) {
			if !slices.Contains(stack.Filters, g.ID) {
				m.Off = append(m.Off, inSlot(g))
			}
		}
	}
	if seat := t.Standing; seat != nil {
		m.Hold, m.Margin, m.CannotFold, m.Mount = seat.Hold, seat.Margin, seat.NoFold, cmp.Or(seat.Mount, m.Mount)
	}
	if o.Turned != nil {
		if m.Ring = o.Turned.Ring.Words(o.Setting); m.Ring == "" {
			m.Ring = fmt.Sprintf("to %v stops", o.Setting)
		}
	}
	var marks []card.Mark
	for _, mark := range c.Marks {
		if mark.Turn == t.ID {
			marks = append(marks, card.Mark{Step: mark.Step, Kind: mark.Kind, At: mark.At, Words: mark.Words})
		}
	}
	done, readiness, stops := card.Judge(m.Checks(), marks)
	t.Readiness, t.Stops, t.Checks = readiness, append([]string{}, stops...), []CardCheck{}
	for _, d := range done {
		check := CardCheck{Step: d.Step, Words: d.Words, Hard: d.Hard, Barred: d.Barred, Again: []time.Time{}}
		if d.Mark != nil {
			check.At, check.Reason = &d.Mark.At, d.Mark.Words
		}
		for _, again := range d.Again {
			check.Again = append(check.Again, again.At)
		}
		t.Checks = append(t.Checks, check)
	}
}

func inSlot(g CardGlass) string {
	if g.Slot == "" {
		return g.Title
	}
	return fmt.Sprintf("%s (%s)", g.Title, g.Slot)
}

// carried says what carries a shot's camera, by its activity.
func carried(activity string) card.Carried {
	switch activity {
	case "helmet", "bar":
		return card.Ridden
	case "stand":
		return card.OnStand
	}
	return card.ByHand
}

// drill fills in what to do when something goes wrong.
func (c *carding) drill(t *CardTurn, set *CardShot, b *CardBench, q *glass.Question, o *glass.Option) {
	least, most := o.Reach()
	take := card.Take{
		Flown: b.Rig.Flown, Carried: carried(set.Scene.Activity), Glass: len(o.Filters) > 0, Lost: o.Lost, Fastest: q.Fastest, Shutter: t.Set.ShutterS, Floor: set.FloorS,
		Rate: q.Rate, Low: q.Setting.EV().Plus(least + q.Offset - q.Band.Dark - q.Headroom()), High: q.Setting.EV().Plus(most + q.Offset + q.Band.Bright),
		Brighter: t.Brighter, Darker: t.Darker, SealedPort: b.SealedPort,
	}
	if q.Fastest > 0 {
		take.Left = o.Lost - q.Setting.Shutter.Over(q.Fastest) - q.Offset
	}
	if b.Profile != nil {
		take.Flies, take.Stabiliser = b.Profile.Flies, b.Profile.Stabiliser
	} else {
		take.Stabiliser = motion.NoStabiliser
	}
	if b.Rig.PayloadG != nil {
		take.PayloadG = *b.Rig.PayloadG
	}
	if l := set.Scene.Lamps; l != nil {
		if lamp, err := l.lamp("scene.lamps."); err == nil { // a lamp that cannot be is said where it is written
			take.PulseHz = lamp.PulseHz
		}
	}
	t.Drills = []CardDrill{}
	for _, d := range take.Drills() {
		t.Drills = append(t.Drills, CardDrill(d))
	}
}

// follow finds where a camera stands in its day, and its next change of glass.
func (c *carding) follow(of *CardCamera) {
	of.Current = len(of.Turns) - 1
	isFound := false
	for i := range of.Turns {
		t := &of.Turns[i]
		if t.When == "on" && !isFound {
			of.Current, isFound = i, true
		}
		if t.When == "later" {
			t.When = "next"
			if !isFound {
				of.Current = i
			}
			break
		}
	}
	for _, s := range c.plan.Swaps {
		if s.CameraID != of.CameraID || s.At.Before(c.Now) {
			continue
		}
		i := slices.IndexFunc(of.Turns, func(t CardTurn) bool { return t.Shot == s.Shot && t.From.Equal(s.At) })
		swap := CardSwap{At: s.At, Latest: s.Latest, Due: s.At, From: c.outing.names[s.From], To: c.outing.names[s.To], Because: s.Because}
		if i >= 0 {
			swap.Turn = of.Turns[i].ID
		}
		// Between takes there is time to change; within one there is none.
		if i > 0 && s.Latest != nil && s.Latest.Before(of.Turns[i-1].To) {
			swap.Due = *s.Latest
		}
		swap.In = Until(c.Now, swap.Due)
		of.Swap = &swap
		return
	}
}
