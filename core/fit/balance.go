package fit

import (
	"fmt"
)

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

// BalanceRequest asks for the counterweight of a filter on a gimbal.
type BalanceRequest struct {
	FilterG      float64 `json:"filterG" minimum:"0" maximum:"10000" doc:"grams"`
	FilterArmMm  float64 `json:"filterArmMm" minimum:"0" maximum:"1000" doc:"from the gimbal's axis to the filter, millimetres"`
	CounterArmMm float64 `json:"counterArmMm" minimum:"0.1" maximum:"1000" doc:"from the axis to the counterweight, millimetres"`
}

// BalanceAnswer is the counterweight.
type BalanceAnswer struct {
	CounterG float64 `json:"counterG" doc:"grams"`
}

// Balance answers balance.
func Balance(r BalanceRequest) (*BalanceAnswer, error) {
	return &BalanceAnswer{Counterweight(r.FilterG, r.FilterArmMm, r.CounterArmMm)}, nil
}

// MassRequest asks whether a craft stays within a limit its pilot states.
type MassRequest struct {
	PartsG []float64 `json:"partsG" minItems:"1" maxItems:"100" minimum:"0" maximum:"1000000" doc:"craft, battery, camera, each filter, in grams"`
	LimitG float64   `json:"limitG" minimum:"0.1" maximum:"1000000" doc:"the limit of the weight class, grams"`
}

// MassAnswer is the all-up mass.
type MassAnswer struct {
	TotalG float64 `json:"totalG"`
	SpareG float64 `json:"spareG" doc:"negative where the limit is passed"`
	Within bool    `json:"within"`
	Words  string  `json:"words"`
}

// AllUpMass answers mass.
func AllUpMass(r MassRequest) (*MassAnswer, error) {
	m := Mass(r)
	a := &MassAnswer{TotalG: m.TotalG(), SpareG: m.SpareG(), Within: m.SpareG() >= 0}
	side := "under"
	if !a.Within {
		side = "over"
	}
	a.Words = fmt.Sprintf("%.1f g, %.1f g %s your limit of %.0f g; local rules decide what a class allows", a.TotalG, max(a.SpareG, -a.SpareG), side, r.LimitG)
	return a, nil
}
