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

// integral returns the sum from 0 to u samples, u at least 0, across as many
// periods as that takes.
func (s strip) integral(u float64) float64 {
	n := len(s.sums) - 1
	whole := int(u)
	part := u - float64(whole)
	before := 0.0
	if whole >= n {
		before = float64(whole/n) * s.sums[n]
		whole %= n
	}
	at := s.sums[whole]
	return before + at + part*(s.sums[whole+1]-at)
}

// wrapped brings u into [0, period).
func wrapped(u, period float64) float64 {
	u -= period * math.Floor(u/period)
	if u >= period { // the sum of a tiny negative and the period
		return 0
	}
	return u
}
