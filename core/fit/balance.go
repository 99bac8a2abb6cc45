package fit

// Counterweight returns the mass in grams that balances a filter on a gimbal,
// m_filter·L_filter = m_counter·L_counter, each arm the distance from the axis in
// millimetres, the counterweight's above 0.
func Counterweight(filterG, filterArmMm, counterArmMm float64) float64 {
	return filterG * filterArmMm / counterArmMm
}

// Mass is a craft with all that is on it, against the limit of a weight class
// that its pilot states. What class applies, and what it allows, local rules say.
type Mass struct {
	PartsG []float64
	LimitG float64
}

// TotalG returns the all-up mass in grams.
func (m Mass) TotalG() float64 {
	total := 0.0
	for _, g := range m.PartsG {
		total += g
	}
	return total
}

// SpareG returns what may still be added, negative where the limit is passed.
func (m Mass) SpareG() float64 { return m.LimitG - m.TotalG() }
