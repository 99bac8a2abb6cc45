package glass

import (
	"fmt"
	"math"
	"slices"

	"pinhole/core/stop"
)

// Member is what is known of one filter of a set; nil is not known.
type Member struct {
	Fit *float64 // how well it goes on the rig, 0 to 1
	// Off is what it takes against what its label promises.
	Off           *stop.Stops
	Cast, Corner  *stop.Stops
	Flare         *float64 // 0 none to 3 heavy
	SharpnessLost *float64 // per cent
	WeightG       *float64
	Price         *float64
	HasSlot       bool // in the case
}

// OffPrinted returns how far a filter is off what its label promises: as measured, or where
// its ring was measured at the darkest end of it. nil is not known; glass that promises no
// strength keeps its word.
func OffPrinted(printed Reading, measured *stop.Stops, ring Ring) *stop.Stops {
	off := stop.Stops(0)
	switch {
	case measured != nil:
		off = *measured - printed.Total()
	case printed.Kind == Clear || printed.Kind == Graduated:
	case len(ring) > 1 && printed.Most > 0:
		off = ring[len(ring)-1].Stops - printed.Most
	default:
		return nil
	}
	return &off
}

// SumUp returns the figures of a set, and by criterion why one is not known: one that a
// member leaves open. There is at least one member.
func SumUp(members []Member) (Figures, map[Criterion]string) {
	figures, missing := Figures{}, map[Criterion]string{}
	sum := func(k Criterion, of func(*Member) *float64, into func([]float64) float64, lacks string) {
		var all []float64
		for i := range members {
			if v := of(&members[i]); v != nil {
				all = append(all, math.Abs(*v))
			}
		}
		if len(all) < len(members) {
			missing[k] = fmt.Sprintf("%d of %d %s", len(members)-len(all), len(members), lacks)
			return
		}
		figures[k] = into(all)
	}
	worst := slices.Max[[]float64]
	sum(ByFit, func(m *Member) *float64 { return m.Fit }, mean, "neither tested nor measured on this rig")
	sum(ByTruth, func(m *Member) *float64 { return (*float64)(m.Off) }, mean, "not measured")
	sum(ByTint, func(m *Member) *float64 { return (*float64)(m.Cast) }, worst, "not measured")
	sum(ByCorners, func(m *Member) *float64 { return (*float64)(m.Corner) }, worst, "not measured")
	sum(ByFlare, func(m *Member) *float64 { return m.Flare }, worst, "not judged")
	sum(BySharpness, func(m *Member) *float64 { return m.SharpnessLost }, worst, "not measured")
	sum(ByMass, func(m *Member) *float64 { return m.WeightG }, total, "not weighed")
	sum(ByPrice, func(m *Member) *float64 { return m.Price }, total, "without a price")
	slots := 0
	for i := range members {
		if members[i].HasSlot {
			slots++
		}
	}
	figures[ByCase] = float64(slots) / float64(len(members))
	return figures, missing
}

func total(values []float64) (sum float64) {
	for _, v := range values {
		sum += v
	}
	return sum
}

func mean(values []float64) float64 { return total(values) / float64(len(values)) }
