package learn

import "math"

// drift is the covariance V of the readings of one block, taken apart: a level that is common to
// all (of variance level), what comes and goes (variance sway, exp(−|Δt|/τ)) and the noise of
// each. Since what comes and goes forgets its past but for its last value, V = L·D·Lᵀ is found by
// a Kalman filter of two states in time that grows with the readings alone (Rauch, Tung and
// Striebel 1965; as O(n) Gaussian process, Hartikainen and Särkkä 2010).
type drift struct {
	keeps  []float64    // exp(−Δt/τ) since the reading before
	spread []float64    // D
	gain   [][2]float64 // of level and sway
}

// newDrift takes V apart; hours are in order.
func newDrift(hours, noise2 []float64, level, sway, tauH float64) *drift {
	n := len(hours)
	d := &drift{make([]float64, n), make([]float64, n), make([][2]float64, n)}
	p11, p12, p22 := level, 0.0, sway
	for i := range hours {
		keep := 1.0
		if i > 0 {
			keep = math.Exp(-(hours[i] - hours[i-1]) / tauH)
			p12, p22 = keep*p12, keep*keep*p22+sway*(1-keep*keep)
		}
		c1, c2 := p11+p12, p12+p22
		s := c1 + c2 + noise2[i]
		k1, k2 := c1/s, c2/s
		p11, p12, p22 = p11-k1*c1, p12-k1*c2, p22-k2*c2
		d.keeps[i], d.spread[i], d.gain[i] = keep, s, [2]float64{k1, k2}
	}
	return d
}

// whitened writes D^(−½)·L⁻¹·y to dst: products of two of them are products by V⁻¹.
func (d *drift) whitened(dst, y []float64) []float64 {
	m1, m2 := 0.0, 0.0
	for i := range y {
		m2 *= d.keeps[i]
		v := y[i] - m1 - m2
		dst[i] = v / math.Sqrt(d.spread[i])
		m1, m2 = m1+d.gain[i][0]*v, m2+d.gain[i][1]*v
	}
	return dst
}

// solved returns V⁻¹·y.
func (d *drift) solved(y []float64) []float64 {
	z := d.whitened(make([]float64, len(y)), y)
	l1, l2 := 0.0, 0.0
	for i := len(z) - 1; i >= 0; i-- {
		z[i] = z[i]/math.Sqrt(d.spread[i]) + d.gain[i][0]*l1 + d.gain[i][1]*l2
		l1, l2 = l1-z[i], d.keeps[i]*(l2-z[i])
	}
	return z
}

// logDet returns the natural logarithm of V's determinant.
func (d *drift) logDet() float64 {
	sum := 0.0
	for _, s := range d.spread {
		sum += math.Log(s)
	}
	return sum
}

func dot(a, b []float64) float64 {
	sum := 0.0
	for i, v := range a {
		sum += v * b[i]
	}
	return sum
}
