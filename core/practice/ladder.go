package practice

import (
	"fmt"
	"math"

	"pinhole/core/stop"
)

// ladders are rows of shutter times as cameras print them, each half of the one before.
var ladders = [][]string{
	{"1/25", "1/50", "1/100", "1/200", "1/400", "1/800", "1/1600", "1/3200", "1/6400"},
	{"1/30", "1/60", "1/120", "1/240", "1/480", "1/960", "1/1920", "1/3840", "1/7680"},
	{"1/40", "1/80", "1/160", "1/320", "1/640", "1/1280", "1/2560", "1/5120"},
}

var isos = []int{100, 200, 400, 800, 1600}

// count asks how many stops lie between two settings, or for the shutter so many stops away. The
// harder, the farther; the hardest let ISO move as well.
func count(d *draw) (*made, bool) {
	ladder := oneOf(d, ladders...)
	m := &made{unit: "stops", margin: 1}
	// What is offered begins at so many stops; the right one stands in its place there.
	stops := d.between(1, graded(d, 2, 5, 3)) + d.place()
	if d.Grade == Grades { // ISO moves the other way
		lift := d.between(1, 3)
		if stops+lift >= len(ladder) {
			return nil, false
		}
		from := d.IntN(len(ladder) - stops - lift)
		to := from + stops + lift
		m.Asks = fmt.Sprintf("From %s at ISO %d to %s at ISO %d: how many stops less exposure?", ladder[from], isos[0], ladder[to], isos[lift])
		m.onScale(d, func(k int) string { return stopWords(stops + k) }, func(k int) float64 { return float64(k) })
		m.ladder = ladder[from : to+1]
		m.working = []string{
			fmt.Sprintf("%s to %s: %s less.", ladder[from], ladder[to], stopWords(stops+lift)),
			fmt.Sprintf("ISO %d to %d: %s more.", isos[0], isos[lift], stopWords(lift)), fmt.Sprintf("Together %s less.", stopWords(stops)),
		}
		return m, true
	}
	if d.IntN(2) == 0 {
		if stops >= len(ladder) {
			return nil, false
		}
		from := d.IntN(len(ladder) - stops)
		m.Asks = fmt.Sprintf("From %s to %s: how many stops?", ladder[from], ladder[from+stops])
		m.onScale(d, func(k int) string { return stopWords(stops + k) }, func(k int) float64 { return float64(k) })
		m.ladder = ladder[from : from+stops+1]
		m.working = []string{fmt.Sprintf("Halve it until you are there: %s.", stopWords(stops))}
		return m, true
	}
	to := d.IntN(len(ladder)-offered+1) + d.place() // of a stretch of the ladder that is offered
	stops = d.between(1, graded(d, 4, 7, 7))
	from := to - stops
	if from < 0 {
		return nil, false
	}
	m.Asks = fmt.Sprintf("Which shutter lets in %s less than %s?", stopWords(stops), ladder[from])
	m.onScale(d, func(k int) string { return ladder[to+k] }, func(k int) float64 { return float64(k) })
	m.ladder = ladder[from : to+1]
	m.working = []string{fmt.Sprintf("Halve it %s: %s.", times(stops), ladder[to])}
	return m, true
}

func times(n int) string {
	if n == 1 {
		return "once"
	}
	return fmt.Sprintf("%d times", n)
}

func stopWords(n int) string {
	if n == 1 {
		return "1 stop"
	}
	return fmt.Sprintf("%d stops", n)
}

// The answers to which way it gets brighter.
const (
	brighter = "Brighter"
	darker   = "Darker"
	same     = "The same"
)

// direction asks whether a second setting is brighter or darker than a first: of shutter, ISO and
// filter one is other, or two, or all three.
func direction(d *draw) (*made, bool) {
	ladder := oneOf(d, ladders...)
	type setting struct{ shutter, iso, nd int }
	first := setting{d.between(1, len(ladder)-2), d.between(0, 3), d.between(0, 5)}
	second := first
	parts := d.Perm(3)[:graded(d, 1, 2, 3)]
	for _, part := range parts {
		by := oneOf(d, -2, -1, 1, 2)
		switch part {
		case 0:
			second.shutter += by
		case 1:
			second.iso += by
		default:
			second.nd += by
		}
	}
	if second.shutter < 0 || second.shutter >= len(ladder) || second.iso < 0 || second.iso >= len(isos) || second.nd < 0 || second.nd > 7 {
		return nil, false
	}
	ev := func(s setting) stop.Stops { // exposure, up to a constant
		t, err := stop.ParseShutter(ladder[s.shutter], 0)
		if err != nil {
			panic(err) // the ladders are our own
		}
		return t.Over(1) + stop.ISO(isos[s.iso]).Over(100) - stop.Stops(s.nd)
	}
	by := ev(second) - ev(first)
	right := map[bool]string{true: brighter, false: darker}[by > 0]
	if by.Abs() < 0.5 {
		right = same
	}
	// Each answer is as often right; with one part moved nothing is the same.
	if right != aimed(d, graded(d, []string{brighter, darker}, []string{brighter, darker, same}, []string{brighter, darker, same})...) {
		return nil, false
	}
	words := func(s setting) string {
		text := fmt.Sprintf("%s, ISO %d", ladder[s.shutter], isos[s.iso])
		if first.nd == second.nd {
			return text
		}
		if s.nd == 0 {
			return text + ", no filter"
		}
		return text + fmt.Sprintf(", ND%d", 1<<s.nd)
	}
	m := &made{}
	m.Asks = "In the same light, does the picture become brighter or darker?"
	m.Question.Given = []string{"From " + words(first), "To " + words(second)}
	m.ofSet(right, darker, same, brighter)
	part := func(name string, by int) {
		if by != 0 {
			way := "brighter"
			if by < 0 {
				way, by = "darker", -by
			}
			m.working = append(m.working, fmt.Sprintf("%s: %s %s.", name, stopWords(by), way))
		}
	}
	part("Shutter", first.shutter-second.shutter)
	part("ISO", second.iso-first.iso)
	part("Filter", first.nd-second.nd)
	if right == same {
		m.working = append(m.working, "Together nothing changes.")
	} else {
		m.working = append(m.working, fmt.Sprintf("Together %s %s.", stopWords(int(math.Round(float64(by.Abs())))), map[bool]string{true: "brighter", false: "darker"}[by > 0]))
	}
	return m, true
}
