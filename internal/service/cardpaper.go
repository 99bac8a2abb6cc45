package service

import (
	"context"
	"fmt"
	"pinhole/core/card"
	"slices"
	"strings"
	"time"

	"pinhole/internal/paper"
)

// CardPaper returns the card of a shoot as it is printed.
func (svc *Service) CardPaper(ctx context.Context, shootID string) (*paper.Card, error) {
	kit, err := svc.Card(ctx, shootID, "")
	if err != nil {
		return nil, err
	}
	answer, err := card.Card(ctx, kit.Request)
	if err != nil {
		return nil, err
	}
	out := &paper.Card{Title: kit.Shoot.Name, Place: kit.Shoot.Place}
	var rows []timedRow
	for i := range answer.Cameras {
		c := &answer.Cameras[i]
		rows = append(rows, rowsOf(c)...)
		out.Drills = addDrill(out.Drills, c)
	}
	slices.SortStableFunc(rows, func(a, b timedRow) int { return a.at.Compare(b.at) })
	day := ""
	for _, r := range rows {
		if on := r.at.Format("Monday 2 January 2006"); on != day {
			day = on
			out.Rows = append(out.Rows, paper.CardRow{Day: on})
		}
		out.Rows = append(out.Rows, r.CardRow)
	}
	return out, nil
}

// timedRow is a row with its place in the day.
type timedRow struct {
	paper.CardRow
	at time.Time
}

// rowsOf returns the takes of a camera, and a swap before each that has other glass on
// than the one before it. Batteries with the same glass are one row.
func rowsOf(c *card.CardCamera) []timedRow {
	var rows []timedRow
	for i := range c.Turns {
		t := &c.Turns[i]
		var before *card.CardTurn
		if i > 0 {
			before = &c.Turns[i-1]
		}
		if before != nil && before.Stack != t.Stack {
			rows = append(rows, timedRow{paper.CardRow{At: clock(t.From), What: fmt.Sprintf("%s: %s for %s", c.Name, t.Glass, before.Glass), IsSwap: true}, t.From.Add(-time.Second)})
		}
		if before != nil && before.Shot == t.Shot && before.Stack == t.Stack && before.Set.Words == t.Set.Words {
			continue
		}
		rows = append(rows, timedRow{paper.CardRow{At: clock(t.From), What: inSlots(t), Set: t.Set.Shutter + "  ISO " + t.Set.ISO, Note: noteOf(c, t)}, t.From})
	}
	return rows
}

func clock(t time.Time) string { return t.Format("15:04") }

func inSlots(t *card.CardTurn) string {
	var names []string
	for _, g := range t.Filters {
		name := g.Title
		if g.Slot != "" {
			name += " (" + g.Slot + ")"
		}
		names = append(names, name)
	}
	if len(names) == 0 {
		return t.Glass
	}
	return strings.Join(names, " + ")
}

// noteOf is the small print of a take: what it is, the rest of what to set, what to
// have in the pocket.
func noteOf(c *card.CardCamera, t *card.CardTurn) string {
	camera, _, _ := strings.Cut(c.Name, " (")
	parts := []string{t.Name, camera, t.Set.FPS}
	if len(t.Set.Recipe) > 0 {
		parts = append(parts, strings.Replace(t.Set.Recipe[0], "White balance:", "WB", 1))
	}
	if t.Packs > 1 {
		parts = append(parts, fmt.Sprintf("%d batteries", t.Packs))
	}
	for i, s := range []string{t.Brighter, t.Darker} {
		if s != "" && (i == 0 || s != t.Brighter) {
			parts = append(parts, "spare "+s)
		}
	}
	if t.State == "breaks" {
		parts = append([]string{"NOT COVERED"}, parts...)
	}
	return strings.Join(parts, " · ")
}

// addDrill adds what to do when a camera's glass is lost, of its take that is the most
// over: those who share the drill are named together.
func addDrill(all []paper.CardDrill, c *card.CardCamera) []paper.CardDrill {
	var worst *card.CardTurn
	for i := range c.Turns {
		t := &c.Turns[i]
		if len(t.Filters) > 0 && (worst == nil || t.Set.Loose > worst.Set.Loose) {
			worst = t
		}
	}
	if worst == nil {
		return all
	}
	i := slices.IndexFunc(worst.Drills, func(d card.CardDrill) bool { return d.Name == "glass-lost" })
	if i < 0 {
		return all
	}
	return append(all, paper.CardDrill{Title: "Filter lost: " + c.Name, Lines: worst.Drills[i].Lines})
}
