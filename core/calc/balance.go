package calc

import (
	"fmt"

	"pinhole/core/fit"
)

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
	return &BalanceAnswer{fit.Counterweight(r.FilterG, r.FilterArmMm, r.CounterArmMm)}, nil
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
	m := fit.Mass{PartsG: r.PartsG, LimitG: r.LimitG}
	a := &MassAnswer{TotalG: m.TotalG(), SpareG: m.SpareG(), Within: m.SpareG() >= 0}
	side := "below"
	if !a.Within {
		side = "above"
	}
	a.Words = fmt.Sprintf("%.1f g all up, %.1f g %s the %.0f g you state; what a class allows, local rules decide", a.TotalG, max(a.SpareG, -a.SpareG), side, r.LimitG)
	return a, nil
}
