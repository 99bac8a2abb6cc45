package measure

import (
	"fmt"
	"math"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// singleReading is half of the width of what one reading of an automatic may mean: it moves by
// thirds of a stop.
const singleReading = stop.Stops(1.0 / 6)

// measureReadings answers filter for readings.
func measureReadings(in Input) (*FilterAnswer, error) {
	without, with := in.texts("without-reading"), in.texts("with-reading")
	if len(without) == 0 || len(without) != len(with) {
		return nil, &problem.Fault{Field: "with-reading", Value: len(with), Allowed: fmt.Sprintf("as many as without-reading, %d, and one at least", len(without))}
	}
	var spans [][2]span
	withAperture := true
	for i := range with {
		a, err := parseExposure("without-reading", without[i], true)
		if err != nil {
			return nil, err
		}
		b, err := parseExposure("with-reading", with[i], true)
		if err != nil {
			return nil, err
		}
		withAperture = withAperture && a.low.Aperture > 0 && b.low.Aperture > 0
		spans = append(spans, [2]span{a, b})
	}
	a := &FilterAnswer{Findings: newFindings(), Cast: []Cast{}, Pairs: []PairAnswer{}}
	var mean, half stop.Stops
	variance := 0.0
	n := stop.Stops(len(spans))
	for _, s := range spans {
		x0, h0 := s[0].middle(withAperture)
		x1, h1 := s[1].middle(withAperture)
		for i, h := range []*stop.Stops{&h0, &h1} {
			if !s[i].isRange() {
				*h = singleReading
			}
		}
		stops := stop.FromFactor(x1 / x0)
		a.Pairs = append(a.Pairs, PairAnswer{stops, h0 + h1})
		mean += stops / n
		half += (h0 + h1) / n
		variance += (square(h0) + square(h1)) / 3
	}
	low, high := mean-half, mean+half
	stdError := stop.Stops(math.Sqrt(variance)) / n
	a.Stops, a.LowStops, a.HighStops, a.StdErrorStops = &mean, &low, &high, &stdError
	if mean < swappedBelow {
		a.refuse("swapped", "with-reading", "More light came through with the filter: the readings are swapped.")
		a.Stops, a.LowStops, a.HighStops, a.StdErrorStops = nil, nil, nil, nil
	}
	return a, nil
}
