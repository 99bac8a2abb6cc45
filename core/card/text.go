package card

import (
	"fmt"
	"slices"
	"strings"
	"time"
)

// text writes the day as a message: what is on, what is set, what is swapped when.
func (c *carding) text(a *CardAnswer) string {
	type entry struct {
		at   time.Time
		text string
	}
	var all []entry
	for i := range a.Cameras {
		of := &a.Cameras[i]
		for _, t := range of.Turns {
			all = append(all, entry{t.From, turnText(of.Name, &t)})
		}
	}
	for _, s := range c.plan.Swaps {
		camera := slices.IndexFunc(a.Cameras, func(x CardCamera) bool { return x.CameraID == s.CameraID })
		text := fmt.Sprintf("%s SWAP on %s: %s for %s", s.At.Format("15:04"), a.Cameras[camera].Name, c.outing.Names[s.To], c.outing.Names[s.From])
		all = append(all, entry{s.At.Add(-time.Second), text})
	}
	slices.SortStableFunc(all, func(x, y entry) int { return x.at.Compare(y.at) })
	var b strings.Builder
	b.WriteString(c.Name)
	day := ""
	for _, e := range all {
		if d := e.at.Format("Mon 2 Jan 2006"); d != day {
			day = d
			fmt.Fprintf(&b, "\n\n%s", day)
		}
		b.WriteString("\n" + e.text)
	}
	if n := len(c.plan.Unknown); n > 0 {
		fmt.Fprintf(&b, "\n\n%d without light or filter: not planned", n)
	}
	return strings.TrimSpace(b.String()) + "\n"
}

func turnText(camera string, t *CardTurn) string {
	var glass []string
	for _, g := range t.Filters {
		glass = append(glass, inSlot(g))
	}
	if len(glass) == 0 {
		glass = append(glass, t.Glass)
	}
	name := t.Name
	if t.Packs > 1 {
		name += fmt.Sprintf(", battery %d of %d", t.Pack, t.Packs)
	}
	text := fmt.Sprintf("%s-%s %s, %s: %s; %s", t.From.Format("15:04"), t.To.Format("15:04"), name, camera, strings.Join(glass, " + "), t.Set.Words)
	var spare []string
	for _, s := range []string{t.Brighter, t.Darker} {
		if s != "" && !slices.Contains(spare, s) {
			spare = append(spare, s)
		}
	}
	if len(spare) > 0 {
		text += "; spare " + strings.Join(spare, ", ")
	}
	if t.State == "breaks" {
		text += "; NOT COVERED: " + t.Words
	}
	return text
}
