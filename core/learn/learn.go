package learn

import (
	"fmt"

	"pinhole/core/problem"
)

// Learn answers what a log teaches. Its fault names a record of what nothing is known, one that is
// there twice or is later than asOf, or a light that is neither a place's nor a scene's.
func Learn(r Request) (*Answer, error) {
	k, err := solved(&r)
	if err != nil {
		return nil, err
	}
	calibrated := r.calibrated()
	k.scale = map[string]float64{}
	for _, c := range calibrated {
		k.scale[c.Kind] = c.Scale
	}
	a := &Answer{
		Filters: k.glass(), Instruments: k.readers(), Places: k.learnedPlaces(), Skies: k.skies(),
		Strays:     Strays{k.further[strayFilter], k.further[strayInstrument], k.further[strayPlace]},
		Unresolved: k.unresolved(), Doubtful: k.doubts(k.swayed, k.x), Asks: []Told{}, Calibration: calibrated,
		Right: r.right(), Trend: r.trends(),
	}
	seen := map[string]bool{}
	for i := range r.Asks {
		ask := &r.Asks[i]
		at := fmt.Sprintf("asks[%d]", i)
		if seen[ask.ID] {
			return nil, &problem.Fault{Field: at + ".id", Value: ask.ID, Allowed: "each question once"}
		}
		seen[ask.ID] = true
		if err := k.check(&ask.Seeing, at); err != nil {
			return nil, err
		}
		a.Asks = append(a.Asks, k.tell(ask))
	}
	for i := range r.Takes {
		if r.Takes[i].Time.After(r.AsOf) {
			return nil, late(fmt.Sprintf("takes[%d].time", i), r.Takes[i].Time)
		}
	}
	a.Taste = k.taste()
	var doubts []Doubtful
	if a.Floors, doubts, err = k.learnedFloors(); err != nil {
		return nil, err
	}
	a.Doubtful = append(a.Doubtful, doubts...)
	return a, nil
}
