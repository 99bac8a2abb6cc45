package fit

import (
	"math"

	"pinhole/core/stop"
)

// Constants of the load.
const (
	// gravity is the standard acceleration of free fall in m/s² (CGPM 1901).
	gravity = 9.80665
	// airDensity is that of the standard atmosphere at sea level, kg/m³ (ISO 2533).
	airDensity = 1.225
	// discDrag is the drag coefficient of a flat disc across the flow (S. F.
	// Hoerner, Fluid-Dynamic Drag, 1965, chapter 3).
	discDrag = 1.17
)

// Newtons returns the force that a luggage scale shows as grams.
func Newtons(grams float64) float64 { return grams * 1e-3 * gravity }

// Pull is what tries to take a filter off.
type Pull struct {
	MassG float64 // at least 0
	// AccelG is the peak acceleration in multiples of free fall, at least 0.
	AccelG float64
	// SpeedMps is the fastest speed against the air, in metres a second.
	SpeedMps float64
	// DiameterMm is the filter's outer diameter.
	DiameterMm float64
}

// DragN returns the wind's part of the load: 0.5·1.225·v²·1.17·π(D/2)².
func (p Pull) DragN() float64 {
	r := p.DiameterMm / 1000 / 2
	return 0.5 * airDensity * p.SpeedMps * p.SpeedMps * discDrag * math.Pi * r * r
}

// LoadN returns the whole load: m·a and the drag, as if both pulled the same way.
func (p Pull) LoadN() float64 { return Newtons(p.MassG)*p.AccelG + p.DragN() }

// ShareLeft returns the share of its hold that a mount keeps under vibration; a
// default that a trial replaces.
func (m Mount) ShareLeft() float64 {
	switch m {
	case Twist, Thread, Adhesive:
		return 0.9
	}
	return 0.6
}

// Verdict says whether a filter may go up.
type Verdict string

// The verdicts on a hold. Unknown is not a good one.
const (
	Holds    Verdict = "holds"
	Tether   Verdict = "tether"
	DoNotFly Verdict = "do-not-fly"
	Unknown  Verdict = "unknown"
)

// Margins at which the verdicts begin.
const (
	holdsFrom  = 3
	tetherFrom = 1.5
)

// Hold is a mount and the force it was found to hold.
type Hold struct {
	Mount Mount
	// InFlight is true where the camera rides on a craft.
	InFlight bool
	// PullOffN is the measured force that takes the filter off; 0 is not measured.
	PullOffN float64
	// Share is what vibration leaves of it, in (0, 1].
	Share float64
}

// Margin returns share·pull-off/load. known is false where the pull-off was not
// measured or nothing pulls.
func (h Hold) Margin(p Pull) (margin float64, known bool) {
	load := p.LoadN()
	if h.PullOffN == 0 || load == 0 {
		return 0, false
	}
	return h.Share * h.PullOffN / load, true
}

// Judge returns the verdict: from 3 it holds, from 1.5 it needs a tether, below
// it must not fly. A magnet on a craft is never better than tethered: one knock
// shifts it, and a magnet that has shifted holds nothing.
func (h Hold) Judge(p Pull) Verdict {
	margin, known := h.Margin(p)
	switch {
	case h.PullOffN == 0:
		return Unknown
	case known && !stop.AtMost(tetherFrom, margin):
		return DoNotFly
	case known && !stop.AtMost(holdsFrom, margin), h.InFlight && h.Mount == Magnet:
		return Tether
	}
	return Holds
}
