package card

import (
	"cmp"
	"fmt"
	"pinhole/core/day"
	"pinhole/core/shot"
	"pinhole/core/stop"
	"slices"
	"time"

	"pinhole/core/glass"
	"pinhole/core/motion"
)

// check fills in the checklist.
func (c *carding) check(t *CardTurn, b *CardBench, q *glass.Question, o *glass.Option, stack, before *day.OutingStack) {
	m := Mounting{Stays: t.Stays, SealedPort: b.SealedPort, Setting: t.Set.Words, WhiteBalance: b.WhiteBalance, Automatic: t.Set.Automatic, Floats: t.Set.Floats, Dark: q.Band.Dark, Bright: q.Band.Bright, Mount: b.Rig.Mount}
	if b.Profile != nil {
		m.Flies, m.Stabiliser = b.Profile.Flies, b.Profile.Stabiliser
	}
	for _, g := range t.Filters {
		m.Glass = append(m.Glass, inSlot(g))
	}
	if before != nil {
		for _, g := range c.glass(before) {
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
	t.Known = slices.Contains(c.CardRequest.Known, CardKnown{b.CameraID, b.RigID, stack.ID})
	m.Known = t.Known
	var marks []Mark
	for _, mark := range c.Marks {
		if mark.Turn == t.ID {
			marks = append(marks, Mark{Step: mark.Step, Kind: mark.Kind, At: mark.At, Words: mark.Words})
		}
	}
	done, readiness, stops := Judge(m.Checks(), marks)
	t.Readiness, t.Stops, t.Checks = readiness, append([]string{}, stops...), []CardCheck{}
	for _, d := range done {
		check := CardCheck{Step: d.Step, Words: d.Words, Hard: d.Hard, Barred: d.Barred, Again: []time.Time{}}
		if d.Mark != nil {
			check.At = &d.Mark.At
			if d.Mark.Kind == Override {
				check.Reason = d.Mark.Words
			}
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

// drill fills in what to do when something goes wrong.
func (c *carding) drill(t *CardTurn, scene *shot.Scene, b *CardBench, v *shot.Verdict) {
	q, o := &v.Question, &v.Option
	least, most := o.Reach()
	_, dark := q.Dark()
	take := Take{
		Flown: b.Rig.Flown, Carried: cmp.Or(scene.Carried, motion.ByHand), Glass: len(o.Filters) > 0, Lost: o.Lost, Shutter: t.Set.ShutterS,
		Rate: q.Rate, Low: q.Setting.EV().Plus(least + q.Offset - dark), High: q.Setting.EV().Plus(most + q.Offset + q.Band.Bright),
		Brighter: t.Brighter, Darker: t.Darker, SealedPort: b.SealedPort,
	}
	if scene.Shaking != nil {
		take.Floor, _ = scene.Shaking.Slowest()
	}
	if q.Fastest > 0 {
		take.Restores, take.Left = o.Restores(q)
		if snapped, ok := stop.Snap(take.Restores, q.Steps, q.Rate); ok {
			take.Left += snapped.Off
			take.Restores = snapped.Offered
		}
	}
	if b.Profile != nil {
		take.Flies, take.Stabiliser = b.Profile.Flies, b.Profile.Stabiliser
	} else {
		take.Stabiliser = motion.NoStabiliser
	}
	if b.Rig.PayloadG != nil {
		take.PayloadG = *b.Rig.PayloadG
	}
	if scene.Lamp != nil {
		take.PulseHz = scene.Lamp.PulseHz
	}
	t.Drills = []CardDrill{}
	for _, d := range take.Drills() {
		t.Drills = append(t.Drills, CardDrill(d))
	}
}
