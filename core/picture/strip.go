package picture

import "math"

// strip is one period of something that repeats sideways, with sums that make the
// mean over any stretch a matter of two look-ups.
type strip struct {
	sums []float64 // sums[i] is the sum of the first i samples
}

// newStrip returns the strip of the samples, which are not kept.
func newStrip(samples []float64) strip {
	s := strip{sums: make([]float64, len(samples)+1)}
	for i, v := range samples {
		s.sums[i+1] = s.sums[i] + v
	}
	return s
}

func (s strip) len() float64 { return float64(len(s.sums) - 1) }

// total returns the sum of one period.
func (s strip) total() float64 { return s.sums[len(s.sums)-1] }

// integral returns the sum from 0 to u samples, u within [0, len).
func (s strip) integral(u float64) float64 {
	whole := int(u)
	at := s.sums[whole]
	return at + (u-float64(whole))*(s.sums[whole+1]-at)
}

// wrapped brings u into [0, period).
func wrapped(u, period float64) float64 {
	u -= period * math.Floor(u/period)
	if u >= period { // the sum of a tiny negative and the period
		return 0
	}
	return u
}
