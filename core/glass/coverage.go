package glass

import (
	"pinhole/core/stop"
)

// Cell is one light met with one look.
type Cell struct {
	// Best is the option that leads, and State what it makes of the light.
	Best  Option
	State State
	// Holds is true where some option holds, which need not be the one that leads.
	Holds bool
}

// Cover weighs every stack for every question and keeps the best of each: rows of
// questions, whose lights are not used, by columns of lights. stacks is not empty.
//
// A cell holds where some glass does: accepted as it is, or with no more ISO than is free.
func Cover(questions []Question, lights []stop.EV, stacks []Stack) [][]Cell {
	rows := make([][]Cell, len(questions))
	for i := range questions {
		rows[i] = make([]Cell, len(lights))
		for j, ev := range lights {
			q := questions[i]
			q.Light = Light{Low: ev, High: ev}
			rows[i][j] = Cell{Best: Best(&q, stacks)}
			rows[i][j].State = rows[i][j].Best.State(&q)
			rows[i][j].Holds = rows[i][j].State == Holds || anyOf(&q, stacks, Holds, nil)
		}
	}
	return rows
}

// anyOf reports whether some stack makes of the question a state no worse than least, by its
// exposure and, where there is a judge, by that.
func anyOf(q *Question, stacks []Stack, least State, judge func(Question, Option) State) bool {
	c := newChooser(q)
	var o Option
	var mode *Mode
	if q.Light.IsRange() {
		mode = new(Mode)
	}
	for i := range stacks {
		o = Option{}
		c.weigh(&o, &stacks[i], mode)
		if o.State(q).Compare(least) <= 0 && (judge == nil || judge(*q, o).Compare(least) <= 0) {
			return true
		}
	}
	return false
}

// Gap is a stretch of one row's columns in which no glass holds, ends included.
type Gap struct {
	From, To int
	// Dark is true where light is missing, so that no glass would help. Otherwise
	// Closes is the single filter that closes most of the stretch, 0 for none that is made,
	// and Left how many of its columns stay open with it.
	Dark   bool
	Closes stop.Stops
	Left   int
}

// Gaps returns the stretches of a row of cells in which nothing holds, from left to right.
// What a filter is said to close was asked again with it in the kit.
func (v *Inventory) Gaps(q *Question, row []Cell, lights []stop.EV) ([]Gap, error) {
	at := *q
	stacks, err := v.stacks(0)
	if err != nil {
		return nil, err
	}
	// The first stack has the least on: what is too dark with that misses light.
	isDark := func(j int) bool {
		at.Light = Light{Low: lights[j], High: lights[j]}
		bare := Weigh(&at, &stacks[0])
		return bare.Error < at.Offset
	}
	var gaps []Gap
	for j := 0; j < len(row); j++ {
		if row[j].Holds {
			continue
		}
		g := Gap{From: j, To: j, Dark: isDark(j)}
		for g.To+1 < len(row) && !row[g.To+1].Holds && isDark(g.To+1) == g.Dark {
			g.To++
		}
		if !g.Dark {
			if g.Closes, g.Left, err = v.closing(q, lights[g.From:g.To+1]); err != nil {
				return nil, err
			}
		}
		gaps = append(gaps, g)
		j = g.To
	}
	return gaps, nil
}

// closing returns the filter that holds in most of the lights, of equal ones the lightest,
// and how many it leaves; 0 where none holds in any.
func (v *Inventory) closing(q *Question, lights []stop.EV) (closes stop.Stops, left int, err error) {
	open := make([]Question, len(lights))
	for i, ev := range lights {
		open[i] = *q
		open[i].Light = Light{Low: ev, High: ev}
	}
	closes, closed, err := v.Closer(open)
	return closes, len(lights) - closed, err
}

// Closer returns the single new filter with which most of the questions hold, of equal ones
// the lightest, and how many those are; 0 where none helps.
func (v *Inventory) Closer(open []Question) (closes stop.Stops, closed int, err error) {
	for _, s := range purchasable {
		with, err := v.with(0, s)
		if err != nil {
			return 0, 0, err
		}
		n := 0
		for i := range open {
			if anyOf(&open[i], with, Holds, nil) {
				n++
			}
		}
		if n > closed {
			closes, closed = s, n
		}
	}
	return closes, closed, nil
}

// A coverage table shows the light from that of a lantern to sun on snow, in half stops.
const (
	TableLow     = stop.EV(2)
	TableHigh    = stop.EV(17)
	TableColumns = 31
)
