package learn

import (
	"math"
	"slices"
)

// How the ± that were stated are held against what came.
const (
	calibrationWeight = 30.0
	calibrationMost   = 3.0
	calibrationPart   = 0.9
)

// calibrated says of each kind whether its ± were true.
func (r *Request) calibrated() []Calibration {
	all := []Calibration{}
	for _, kind := range []string{"light", "seen", "floor"} {
		c := Calibration{Kind: kind}
		var offs []float64
		for _, o := range r.Outcomes {
			if o.Kind != kind {
				continue
			}
			off, scale := math.Abs(o.Was-o.Predicted)/float64(o.Spread), 1.0
			if o.Scale != nil {
				scale = *o.Scale
			}
			if off <= BandErrors {
				c.Inside++
			}
			offs = append(offs, off*scale)
		}
		if c.Of = len(offs); c.Of == 0 {
			continue
		}
		slices.Sort(offs)
		n := float64(c.Of)
		worst := offs[min(int(math.Ceil(calibrationPart*(n+1))), c.Of)-1]
		c.Share, c.Band = float64(c.Inside)/n, shareBand(c.Inside, c.Of)
		c.IsTrue = c.Band[0] <= calibrationPart && calibrationPart <= c.Band[1]
		c.Scale = (calibrationWeight + n*min(worst/BandErrors, calibrationMost)) / (calibrationWeight + n)
		all = append(all, c)
	}
	return all
}
