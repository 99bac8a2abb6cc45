package practice

import (
	"fmt"
	"math"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

// A strength is printed in one of these languages.
var languages = []func(stops int) string{
	func(n int) string { return fmt.Sprintf("ND%d", 1<<n) },
	func(n int) string { return fmt.Sprintf("ND %.1f", math.Round(10*stop.Stops(n).Density())/10) },
	func(n int) string { return fmt.Sprintf("%d stop", n) },
}

// labelMargin is by how much every other answer about a label is wrong.
const labelMargin = 0.9

// labels asks what a ring says in another language; of the hardest, what two rings take together.
func labels(d *draw) (*made, bool) {
	m := &made{unit: "stops", margin: labelMargin}
	from := d.IntN(len(languages))
	n := d.between(1, graded(d, 3, 6, 3)) + d.place()
	second := 0
	if d.Grade == Grades {
		if second = d.between(1, 5); n-second < 1 {
			return nil, false
		}
		n -= second
	}
	label := languages[from](n)
	read, err := glass.ParseLabel(label)
	if err != nil || read.Ambiguous() {
		return nil, false // such as ND 3.0, which may be a factor
	}
	stops := read.Total()
	if d.Grade == Grades {
		other := languages[(from+1+d.IntN(2))%len(languages)](second)
		more, err := glass.ParseLabel(other)
		if err != nil || more.Ambiguous() {
			return nil, false
		}
		both := stops + more.Total()
		whole := int(math.Round(float64(both)))
		m.Asks = fmt.Sprintf("“%s” on “%s”: how many stops together?", label, other)
		m.onScale(d, func(k int) string { return stopWords(whole + k) }, func(k int) float64 { return float64(k) })
		m.working = []string{fmt.Sprintf("%s is %s: %v stops.", label, read.As, stops), fmt.Sprintf("%s is %s: %v stops.", other, more.As, more.Total()), fmt.Sprintf("Strengths add in stops: %v.", both)}
		return m, true
	}
	to := languages[(from+1+d.IntN(2))%len(languages)]
	for k := range offered { // every answer has to be one that is read one way only
		k -= d.place()
		if other, err := glass.ParseLabel(to(n + k)); err != nil || other.Ambiguous() {
			return nil, false
		}
	}
	m.Asks = fmt.Sprintf("Which is as strong as “%s”?", label)
	m.onScale(d, func(k int) string { return to(n + k) }, func(k int) float64 { return float64(k) })
	m.working = []string{
		fmt.Sprintf("%s is %s: %v stops.", label, read.As, stops),
		fmt.Sprintf("Factor 2 is 1 stop and density 0.3; each further stop doubles the factor and adds 0.3. So %s.", to(n)),
	}
	return m, true
}
