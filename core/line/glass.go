package line

import (
	"fmt"
	"slices"
	"strconv"

	"pinhole/core/assemble"
	"pinhole/core/glass"
)

// ownGlass is the glass of a camera as it is held, by what is printed on it.
type ownGlass struct {
	held    *assemble.Held
	labelOf func(id string) string
	// isKnown says that the camera is a known one, whose glass has ids and names of its own.
	isKnown bool
	// choices name the glass that is meant where several are labelled alike.
	choices assemble.Choices

	called []string // what each filter is called, as a line writes it
}

// named finds the glass of some labels, adds what is not there, and returns the ids. Of a known
// camera two labels that can only be one filter are one.
func (g *ownGlass) named(labels []string) []string {
	ids := []string{}
	for i, asked := range kitOf(labels) {
		id := g.find(&asked, labels[i], ids)
		if id == "" && g.isKnown && g.find(&asked, labels[i], nil) != "" {
			continue
		}
		if id == "" {
			id = asked.ID
			g.held.Kit, g.called = append(g.held.Kit[:len(g.held.Kit):len(g.held.Kit)], asked), append(g.called, labels[i])
		}
		ids = append(ids, id)
	}
	return ids
}

// read lets a light be as it was read through the glass that is there.
func (g *ownGlass) read(light *assemble.ShotLight) {
	light.At, light.Low = g.through(light.At), g.through(light.Low)
}

// through returns a reading as it was taken through glass that is there, by what that measures; else
// by what is printed.
func (g *ownGlass) through(e *assemble.Entry) *assemble.Entry {
	if e == nil || len(e.Glass) == 0 {
		return e
	}
	read := *e
	read.Glass = nil
	for i, asked := range kitOf(e.Glass) {
		id := g.find(&asked, e.Glass[i], read.Glass)
		if id == "" {
			read.Glass = nil
			return &read
		}
		read.Glass = append(read.Glass, id)
	}
	read.Stops = nil
	return &read
}

// find returns the id of the filter that is meant by a label, beside those that are taken, ""
// where there is none: before all one that the shot chose from, then one that is called so.
func (g *ownGlass) find(asked *assemble.KitFilter, label string, taken []string) (id string) {
	for _, k := range g.held.Kit[len(g.called):] {
		g.called = append(g.called, ringText(g.labelOf(k.ID)))
	}
	best := 0
	for i := range g.held.Kit {
		k := &g.held.Kit[i]
		isCalledSo := k.Kind == asked.Kind && g.called[i] == label
		if slices.Contains(taken, k.ID) || !isCalledSo && (!k.IsLike(asked) || asked.Kind == glass.Mist && label != anyMist && g.called[i] != anyMist) {
			continue // or it is a mist of another strength, which has no stops
		}
		rank := 1
		if isCalledSo {
			rank++
		}
		if g.choices.AtHand != nil && slices.Contains(*g.choices.AtHand, k.ID) || slices.Contains(g.choices.Required, k.ID) {
			rank += 2
		}
		if rank > best {
			best, id = rank, k.ID
		}
	}
	return id
}

// idOf is the id of the i-th of some labels: the label, and where it is there twice its number.
func idOf(labels []string, i int) string {
	n := 1
	for _, l := range labels[:i] {
		if l == labels[i] {
			n++
		}
	}
	if n == 1 {
		return labels[i]
	}
	return labels[i] + " (" + strconv.Itoa(n) + ")"
}

// kitOf is the glass of some labels that were read.
func kitOf(labels []string) []assemble.KitFilter {
	kit := make([]assemble.KitFilter, 0, len(labels))
	for i, label := range labels {
		l, err := glass.ParseLabel(label)
		if err != nil {
			panic(fmt.Sprintf("line: the label %q was read and cannot be: %v", label, err)) // a part's own text
		}
		k := assemble.KitFilter{ID: idOf(labels, i), Kind: l.Kind, Stops: l.Total()}
		switch l.Kind {
		case glass.Variable:
			k.MinStops, k.MaxStops = &l.Reading.Stops, &l.Most
		case glass.Graduated:
			k.GraduatedStops = l.Reading.Stops
		}
		kit = append(kit, k)
	}
	return kit
}
