package fit

import (
	"fmt"

	"pinhole/core/problem"
)

// FitRequest asks whether a ring seats on a barrel.
type FitRequest struct {
	Mount       Mount     `json:"mount"`
	BarrelMm    []float64 `json:"barrelMm" minItems:"2" maxItems:"2" minimum:"1" maximum:"500" doc:"barrel diameter, least and most measured, millimetres"`
	FilterMm    []float64 `json:"filterMm" minItems:"2" maxItems:"2" minimum:"1" maximum:"500" doc:"the filter's seat, least and most measured, millimetres"`
	GaugeMm     *float64  `json:"gaugeMm,omitempty" minimum:"0" maximum:"5" doc:"how far each measurement may be off either way; 0.02 by default"`
	ReferenceMm float64   `json:"referenceMm,omitempty" minimum:"-5" maximum:"5" doc:"clearance of a filter known to hold well; classes count from there"`
}

// FitAnswer is the clearance and its class.
type FitAnswer struct {
	ClearanceMm []float64 `json:"clearanceMm" doc:"least and most"`
	Class       *Class    `json:"class" doc:"of the middle; null for a mount that clearance does not judge"`
	Worst       *Class    `json:"worst" doc:"the worst in the range"`
	Settle      string    `json:"settle,omitempty" doc:"the measurement that would settle it"`
	GaugeMm     float64   `json:"gaugeMm" doc:"how far each measurement may be off either way"`
	Bands       []FitBand `json:"bands" doc:"clearances of each class, the reference counted in; none for a mount that clearance does not judge"`
}

// FitBand is the clearances of a class.
type FitBand struct {
	Class  Class    `json:"class"`
	FromMm *float64 `json:"fromMm" doc:"null: without end"`
	ToMm   *float64 `json:"toMm" doc:"null: without end"`
}

// Fit answers fit.
func Fit(r FitRequest) (*FitAnswer, error) {
	rings := Rings{GaugeMm: DefaultGaugeMm, ReferenceMm: r.ReferenceMm}
	if r.GaugeMm != nil {
		rings.GaugeMm = *r.GaugeMm
	}
	var err error
	if rings.Barrel, err = millimetres("barrelMm", r.BarrelMm); err != nil {
		return nil, err
	}
	if rings.Filter, err = millimetres("filterMm", r.FilterMm); err != nil {
		return nil, err
	}
	c := rings.Clearance()
	a := &FitAnswer{ClearanceMm: []float64{c.Min, c.Max}, GaugeMm: rings.GaugeMm, Bands: []FitBand{}}
	if !r.Mount.SeatsByClearance() {
		a.Settle = fmt.Sprintf("a %s mount is judged by its pull-off alone: measure that with a luggage scale", r.Mount)
		return a, nil
	}
	likely, worst := rings.Likely(), rings.Worst()
	a.Class, a.Worst, a.Settle = &likely, &worst, rings.Settle()
	var from *float64
	for _, b := range Bands(r.ReferenceMm) {
		a.Bands = append(a.Bands, FitBand{b.Class, from, b.EndsMm})
		from = b.EndsMm
	}
	return a, nil
}

func millimetres(field string, pair []float64) (Range, error) {
	if pair[0] > pair[1] {
		return Range{}, &problem.Fault{Field: field, Value: pair, Allowed: "the least first, then the most"}
	}
	return Range{Min: pair[0], Max: pair[1]}, nil
}
