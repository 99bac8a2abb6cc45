package practice

import (
	"fmt"
	"slices"

	"pinhole/core/card"
	"pinhole/core/fit"
	"pinhole/core/motion"
)

// carrier is what carries the camera, in words.
type carrier struct {
	words string
	take  card.Take
}

var carriers = []carrier{
	{"A camera drone, which holds its place by itself, over the pond", card.Take{Flies: true, Flown: motion.Level}},
	{"An FPV quad in full manual, diving down the terraces", card.Take{Flies: true, Flown: motion.Manual}},
	{"An action camera on a helmet, riding down the lane", card.Take{Carried: motion.Ridden}},
	{"A pocket gimbal, walking between the rows", card.Take{Carried: motion.ByHand}},
}

// lost asks what to do first when a filter falls off, for what carries the camera.
func lost(d *draw) (*made, bool) {
	of := oneOf(d, carriers...)
	first := func(c carrier) string {
		take := c.take
		take.Glass, take.Lost, take.Restores = true, 3, 1./1000
		for _, drill := range take.Drills() {
			if drill.Name == card.GlassLost {
				return drill.Lines[0]
			}
		}
		return ""
	}
	var set []string
	for _, c := range carriers {
		set = append(set, first(c))
	}
	m := &made{}
	m.Asks = "The filter falls off during the take. What do you do first?"
	m.Question.Given = []string{of.words + "."}
	m.Caution = card.Deference
	right := first(of)
	m.among(d, right, slices.DeleteFunc(set, func(s string) bool { return s == right })...)
	m.working = []string{right, "Everything else comes after: exposure, the search, the log."}
	return m, true
}

// order asks for the order of steps before a take.
func order(d *draw) (*made, bool) {
	flies := d.IntN(2) == 0
	mounting := card.Mounting{
		Flies: flies, Glass: []string{oneOf(d, "ND8", "ND16", "ND32", "ND64")}, Mount: oneOf(d, fit.PushOn, fit.Twist, fit.Thread, fit.Magnet),
		Hold: fit.Holds, Stabiliser: oneOf(d, motion.Gimbal, motion.Electronic), Setting: "1/50, ISO 100", Dark: 2. / 3, Bright: 1. / 3,
	}
	checks := mounting.Checks()
	n := graded(d, 3, 4, 5)
	if len(checks) < n {
		return nil, false
	}
	at := d.Perm(len(checks))[:n]
	slices.Sort(at)
	m := &made{}
	m.Form = PutInto
	m.Asks = "In which order are these done before a take?"
	m.Question.Given = []string{fmt.Sprintf("%s goes on %s.", mounting.Glass[0], map[bool]string{true: "a drone", false: "a camera in the hand"}[flies])}
	if flies {
		m.Caution = card.Deference
	}
	m.answer = make([]int, n)
	for place, i := range d.Perm(n) {
		m.Choices = append(m.Choices, checks[at[i]].Words)
		m.answer[i] = place
	}
	for _, i := range at {
		m.working = append(m.working, checks[i].Words)
	}
	return m, true
}
