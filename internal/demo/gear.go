package demo

import (
	"pinhole/core/angle"
	"pinhole/core/calc"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// Names by which the demo's gear refers to each other.
const (
	pocket = "Row walker (pocket gimbal)"
	crate  = "Crate trailer (action camera)"
	quad   = "Terrace quad (air unit)"
	drone  = "Pond drone (camera drone)"
	phone  = "Cellar phone (motor gimbal)"
)

var filmSteps = []string{"1/25", "1/30", "1/40", "1/50", "1/60", "1/80", "1/100", "1/120", "1/160", "1/200", "1/240",
	"1/320", "1/400", "1/500", "1/640", "1/800", "1/1000", "1/1250", "1/1600", "1/2000", "1/2500", "1/3200", "1/4000", "1/5000", "1/6400", "1/8000"}

// coarseSteps are those of a menu with whole stops only and without 1/50.
var coarseSteps = []string{"1/30", "1/60", "1/120", "1/240", "1/480", "1/960", "1/1920", "1/3840", "1/7680"}

// slowSteps are those of a phone, which holds still for long exposures too.
var slowSteps = append([]string{"4s", "2s", "1s", "0.5s", "1/4", "1/8", "1/15"}, filmSteps...)

func cameras() []store.CameraFields {
	camera := func(name string, n stop.FNumber, base, ceiling stop.ISO, steps []string, profile calc.CameraProfile, rates ...string) store.CameraFields {
		return store.CameraFields{Name: name, Aperture: n, ISOBase: base, ISOCeiling: ceiling, Steps: steps, Rates: rates, Mounted: []string{}, Profile: &profile}
	}
	return []store.CameraFields{
		camera(pocket, 2, 100, 1600, filmSteps, calc.CameraProfile{
			Lens: lens(72, motion.Rectilinear), Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.016, Automatic: moves(glass.ShutterFirst),
		}, "24", "25", "30", "50", "60"),
		camera(crate, 2.8, 100, 1600, filmSteps, calc.CameraProfile{
			Lens: lens(118, motion.Equidistant), Stabiliser: motion.Electronic, ReadoutS: 0.014, Automatic: moves(glass.ShutterFirst),
		}, "25", "30", "50", "60", "100", "120"),
		camera(quad, 2.1, 100, 800, coarseSteps, calc.CameraProfile{
			Lens: lens(130, motion.Equidistant), Stabiliser: motion.Post, ReadoutS: 0.012, Automatic: moves(glass.ISOFirst), MaxTiltDeg: degrees(40), Flies: true,
		}, "30", "60", "120"),
		camera(drone, 2.8, 100, 800, filmSteps, calc.CameraProfile{
			Lens: lens(70, motion.Rectilinear), Stabiliser: motion.Gimbal, ReadoutS: 0.02, Automatic: moves(glass.ShutterFirst), MaxTiltDeg: degrees(20), Flies: true,
		}, "24", "25", "30", "48", "50", "60"),
		camera(phone, 1.8, 50, 800, slowSteps, calc.CameraProfile{
			Lens: lens(68, motion.Rectilinear), Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.02, Automatic: moves(glass.ISOFirst),
		}, "24", "25", "30", "60"),
	}
}

func lens(hfov angle.Deg, p motion.Projection) *calc.LensFields {
	return &calc.LensFields{WidthPx: 3840, HFOVDeg: hfov, Projection: p}
}

func moves(first glass.Moves) *calc.AutomaticProfile { return &calc.AutomaticProfile{Priority: first} }

func degrees(d angle.Deg) *angle.Deg { return &d }

// gear is a filter and the cameras it goes on, by name.
type gear struct {
	store.FilterFields
	on      []string
	mounted bool // lives on the lens of its first camera
	untried bool
	found   store.Found // what its trial found, where it was tried
}

func measured(s, stdErr stop.Stops) func(*gear) {
	return func(g *gear) { g.MeasuredStops, g.StdErrStops = &s, stdErr }
}

func flaws(corner, cast stop.Stops) func(*gear) {
	return func(g *gear) { g.CornerStops, g.CastStops = corner, cast }
}

func weighing(grams float64) func(*gear) { return func(g *gear) { g.WeightG = grams } }

func called(name string) func(*gear) { return func(g *gear) { g.Name = name } }

func slot(s string) func(*gear) { return func(g *gear) { g.Slot = s } }

func closed(g *gear) { g.Closed = true }

func lives(g *gear) { g.mounted = true }

func untried(g *gear) { g.untried = true }

func wobbles(g *gear) { yes := true; g.found.Wobbles = &yes }

func filter(label, on string, traits ...func(*gear)) gear {
	g := gear{FilterFields: store.FilterFields{Label: label}, on: []string{on}, found: store.Found{Seated: true}}
	for _, t := range traits {
		t(&g)
	}
	return g
}

// filters is a kit with gaps (the pocket gimbal has nothing between ND8 and
// ND32, the quad nothing darker than ND32) and one label that cannot be trusted.
func filters() []gear {
	return []gear{
		filter("UV", pocket, lives, weighing(1.1)),
		filter("ND8", pocket, measured(3.05, 0.03), weighing(1.4), slot("A1")),
		filter("ND32", pocket, measured(4.87, 0.05), weighing(1.4), slot("A3")),
		filter("ND 2.0", pocket, weighing(1.5), slot("A4")),
		filter("mist 1/4", pocket, weighing(1.3), slot("A5")),
		filter("ND8", crate, measured(2.94, 0.04), weighing(3.2), slot("B1")),
		filter("ND16", crate, measured(4.2, 0.04), flaws(0.1, 0.12), weighing(3.2), slot("B2")),
		filter("ND32", crate, weighing(3.3), slot("B3")),
		filter("CPL", crate, closed, weighing(4.1), slot("B4")),
		filter("ND8", quad, measured(3.1, 0.05), weighing(0.7), slot("C1")),
		filter("ND16", quad, measured(3.9, 0.05), weighing(0.7), slot("C2")),
		filter("1.5", quad, called("Density 1.5"), untried, weighing(0.7), slot("C3")),
		filter("ND4", drone, measured(2.02, 0.02), weighing(1.2), slot("D1")),
		filter("ND16", drone, measured(4.1, 0.03), weighing(1.2), slot("D2")),
		filter("ND64", drone, measured(5.83, 0.06), flaws(0, 0.2), weighing(1.2), slot("D3")),
		filter("CPL", drone, weighing(1.6), slot("D4")),
		filter("VND 2-5 stop", drone, closed, wobbles, flaws(0.4, 0.15), weighing(2.9), slot("D5")),
		filter("ND8 (0.9)", phone, weighing(6), slot("E1")),
		filter("VND 1-6", phone, closed, flaws(0.3, 0.1), weighing(9), slot("E2")),
	}
}
