package demo

import (
	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/fit"
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

// kit is a camera with the ways in which it is held.
type kit struct {
	store.CameraFields
	rigs []store.RigSheet
}

func cameras() []kit {
	camera := func(name, archetype string, n stop.FNumber, base, ceiling stop.ISO, steps []string, profile assemble.CameraProfile, recipe store.Recipe, rates []string, rigs ...store.RigSheet) kit {
		return kit{store.CameraFields{Name: name, Aperture: n, ISOBase: base, ISOCeiling: ceiling, Steps: steps, Rates: rates, FrameSizes: []string{"3840x2160", "1920x1080"},
			Mounted: []string{}, Profile: &profile, Archetype: archetype, Recipe: recipe,
			Sources: map[string]store.Source{"aperture": store.Printed, "isoBase": store.Printed, "isoCeiling": store.Measured, "steps": store.Printed, "rates": store.Printed,
				"profile.lens.hfovDeg": store.Printed, "profile.focalMm": store.Printed, "profile.readoutS": store.Measured, "profile.stabiliser": store.Printed}}, rigs}
	}
	daylight := store.Recipe{WhiteBalance: "5600 K, set with the filter on", Profile: "flat, 10 bit", Sharpness: "low", NoiseReduction: "off", Corrections: "distortion on", ISOLimits: "locked"}
	flying := daylight
	flying.Transmission, flying.ISOLimits = "power and channel as local law allows", "100 to 400"
	all := []kit{
		camera(pocket, "pocket-gimbal", 2, 100, 1600, filmSteps, assemble.CameraProfile{
			Lens: lens(72, motion.Rectilinear), FocalMm: 5, Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.016, Automatic: moves(glass.ShutterFirst),
		}, daylight, []string{"24", "25", "30", "50", "60"}, rig("in the hand", "bare", "upright", fit.RigFields{
			Mount: fit.Magnet, PupilDepthMm: value(2.5), PayloadG: value(5.0), TiltUpDeg: degrees(45), TiltDownDeg: degrees(60), AccelG: value(2.0), SpeedMps: value(3.0)})),
		camera(crate, "action", 2.8, 100, 1600, filmSteps, assemble.CameraProfile{
			Lens: lens(118, motion.Equidistant), FocalMm: 2.7, Stabiliser: motion.Electronic, ReadoutS: 0.014, Automatic: moves(glass.ShutterFirst),
		}, daylight, []string{"25", "30", "50", "60", "100", "120"}, rig("in its frame", "frame", "upright", fit.RigFields{
			Mount: fit.Twist, PupilDepthMm: value(1.0), AccelG: value(6.0), SpeedMps: value(12.0)}),
			rig("in the rain case", "case", "upside-down", fit.RigFields{Mount: fit.PushOn, BarrelMm: []float64{42.10, 42.30}, AccelG: value(6.0), SpeedMps: value(12.0)})),
		camera(quad, "air-unit", 2.1, 100, 800, coarseSteps, assemble.CameraProfile{
			Lens: lens(130, motion.Equidistant), FocalMm: 2.4, Stabiliser: motion.Post, ReadoutS: 0.012, Automatic: moves(glass.ISOFirst), MaxTiltDeg: degrees(40), Flies: true,
		}, flying, []string{"30", "60", "120"}, rig("behind the nose plate", "frame", "upright", fit.RigFields{
			Mount: fit.PushOn, BarrelMm: []float64{21.02, 21.04}, PupilDepthMm: value(0.6), AccelG: value(12.0), SpeedMps: value(30.0), Flown: motion.Manual, BareG: value(231.5), LimitG: value(249.0)}, flown)),
		camera(drone, "camera-drone", 2.8, 100, 800, filmSteps, assemble.CameraProfile{
			Lens: lens(70, motion.Rectilinear), FocalMm: 8, Stabiliser: motion.Gimbal, ReadoutS: 0.02, Automatic: moves(glass.ShutterFirst), MaxTiltDeg: degrees(20), Flies: true,
		}, flying, []string{"24", "25", "30", "48", "50", "60"}, rig("on its gimbal", "bare", "upright", fit.RigFields{
			Mount: fit.Snap, BarrelMm: []float64{38.00, 38.02}, PupilDepthMm: value(3.0), FoldMm: value(3.4), PayloadG: value(2.5), TiltUpDeg: degrees(24), TiltDownDeg: degrees(90),
			AccelG: value(3.0), SpeedMps: value(16.0), Flown: motion.Level, BareG: value(246.2), LimitG: value(249.0)})),
		camera(phone, "phone-gimbal", 1.8, 50, 800, slowSteps, assemble.CameraProfile{
			Lens: lens(68, motion.Rectilinear), FocalMm: 6, Stabiliser: motion.GimbalAndElectronic, ReadoutS: 0.02, Automatic: moves(glass.ISOFirst),
		}, daylight, []string{"24", "25", "30", "60"}, rig("in the motor gimbal", "frame", "upright", fit.RigFields{
			Mount: fit.Clip, PupilDepthMm: value(2.0), PayloadG: value(40.0), FilterArmMm: value(70.0), CounterArmMm: value(55.0), AccelG: value(2.0), SpeedMps: value(3.0)})),
	}
	for i, minutes := range []float64{90, 70, 6, 24, 0} { // what a battery lasts; the phone is on the mains
		all[i].PackMin = minutes
	}
	return all
}

// flown is how the quad is flown: brisk rates, with calmer ones laid over them.
func flown(r *store.RigSheet) {
	r.Craft = &assemble.Craft{
		Activity: "cruise",
		Rates: assemble.AxisRates{
			Pan:   &assemble.StickFields{CentreDegS: 120, MaxDegS: 560, Expo: 0.4},
			Pitch: &assemble.StickFields{CentreDegS: 180, MaxDegS: 670, Expo: 0.3},
			Roll:  &assemble.StickFields{CentreDegS: 180, MaxDegS: 670, Expo: 0.3},
		},
		Compared: assemble.AxisRates{Pan: &assemble.StickFields{CentreDegS: 70, MaxDegS: 360, Expo: 0.5}},
	}
	r.Recipe = store.Recipe{Transmission: "as local law allows, 25 mW on the ground"}
}

func rig(name, housing, way string, measures fit.RigFields, traits ...func(*store.RigSheet)) store.RigSheet {
	sheet := store.RigSheet{Name: name, Housing: housing, Way: way, Measures: measures,
		Sources: map[string]store.Source{"barrelMm": store.Measured, "pupilDepthMm": store.Assumed, "payloadG": store.Printed, "accelG": store.Assumed, "speedMps": store.Assumed}}
	for _, t := range traits {
		t(&sheet)
	}
	return sheet
}

func lens(hfov angle.Deg, p motion.Projection) *assemble.LensFields {
	return &assemble.LensFields{WidthPx: 3840, HFOVDeg: hfov, Projection: p}
}

func moves(first glass.Moves) *assemble.AutomaticProfile {
	return &assemble.AutomaticProfile{Priority: first}
}

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
	return func(g *gear) { g.CornerStops, g.CastStops = &corner, &cast }
}
func judged(flare, sharpnessLost float64) func(*gear) {
	return func(g *gear) { g.Flare, g.SharpnessLost = &flare, &sharpnessLost }
}
func weighing(grams float64) func(*gear) { return func(g *gear) { g.WeightG = grams } }
func called(name string) func(*gear)     { return func(g *gear) { g.Name = name } }
func slot(s string) func(*gear)          { return func(g *gear) { g.Slot = s } }
func from(set string, price float64) func(*gear) {
	return func(g *gear) { g.Set, g.Price = set, &price }
}
func pulls(grams float64) func(*gear) { return func(g *gear) { g.found.PullOffG = &grams } }
func tilts(up angle.Deg) func(*gear)  { return func(g *gear) { g.found.TiltUpDeg = &up } }
func closed(g *gear)                  { g.Closed = true }
func lives(g *gear)                   { g.mounted = true }
func untried(g *gear)                 { g.untried = true }
func wobbles(g *gear)                 { g.found.Wobbles = value(true) }
func dropped(g *gear) {
	g.History = []store.Happening{{At: bought.AddDate(0, 0, 9), What: "dropped", Note: "on the press floor"}}
}
func turns(marks ...assemble.RingMark) func(*gear) { return func(g *gear) { g.Ring = marks } }

// bodies are what the glass for each camera is like to hold.
var bodies = map[string]fit.Body{
	pocket: {Mount: fit.Magnet, OuterMm: value(24.0), ClearMm: value(20.0), ThicknessMm: value(2.6)},
	crate:  {Mount: fit.Twist, OuterMm: value(44.0), ClearMm: value(40.0), ThicknessMm: value(4.0)},
	quad:   {Mount: fit.PushOn, SeatMm: []float64{21.06, 21.07}, OuterMm: value(23.0), ClearMm: value(19.5), ThicknessMm: value(1.8)},
	drone:  {Mount: fit.Snap, SeatMm: []float64{38.03, 38.05}, OuterMm: value(41.0), ClearMm: value(33.0), ThicknessMm: value(3.0)},
	phone:  {Mount: fit.Clip, OuterMm: value(46.0), ClearMm: value(42.0), ThicknessMm: value(7.0)},
}

func filter(label, on string, traits ...func(*gear)) gear {
	g := gear{FilterFields: store.FilterFields{Label: label, Body: bodies[on], Condition: "good"}, on: []string{on}}
	g.found.Seated, g.found.Wobbles = true, value(false)
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
		filter("ND8", crate, measured(2.94, 0.04), flaws(0, 0.03), judged(0, 4), weighing(3.2), slot("B1"), from("frame set", 18)),
		filter("ND16", crate, measured(4.2, 0.04), flaws(0.1, 0.12), judged(1, 6), weighing(3.2), slot("B2"), from("frame set", 18)),
		filter("ND32", crate, measured(5.1, 0.05), flaws(0.1, 0.15), judged(1, 6), weighing(3.3), slot("B3"), from("frame set", 18), dropped),
		filter("CPL", crate, closed, weighing(4.1), slot("B4")),
		filter("ND4", crate, measured(1.98, 0.02), flaws(0, 0.02), untried, weighing(2.1), slot("B5"), from("thin set", 34)),
		filter("ND64", crate, untried, weighing(2.2), slot("B6"), from("thin set", 34)),
		filter("ND8", quad, measured(3.1, 0.05), weighing(0.7), slot("C1"), pulls(210)),
		filter("ND16", quad, measured(3.9, 0.05), weighing(0.7), slot("C2"), pulls(120)),
		filter("1.5", quad, called("Density 1.5"), untried, weighing(0.7), slot("C3")),
		filter("ND4", drone, measured(2.02, 0.02), weighing(1.2), slot("D1"), pulls(170), tilts(21)),
		filter("ND16", drone, measured(4.1, 0.03), weighing(1.2), slot("D2"), pulls(165), tilts(21)),
		filter("ND64", drone, measured(5.83, 0.06), flaws(0, 0.2), weighing(1.2), slot("D3"), pulls(160), tilts(20)),
		filter("CPL", drone, weighing(1.6), slot("D4"), pulls(165), tilts(14)),
		filter("ND32/PL", drone, weighing(1.9), slot("D6"), pulls(160), tilts(16)),
		filter("VND 2-5 stop", drone, closed, wobbles, flaws(0.4, 0.15), weighing(2.4), slot("D5"), pulls(90), tilts(8)),
		filter("ND8 (0.9)", phone, weighing(6), slot("E1")),
		filter("VND 1-6", phone, closed, flaws(0.3, 0.1), weighing(9), slot("E2"),
			turns(assemble.RingMark{Mark: "min", Stops: 1.2}, assemble.RingMark{Mark: "3", Stops: 3.1}, assemble.RingMark{Mark: "5", Stops: 5.2}, assemble.RingMark{Mark: "max", Stops: 6.1})),
	}
}

// packs are what is thought of buying for the pocket gimbal: one fills its gaps, the other
// is cheaper and repeats what is there.
func packs() []store.PackFields {
	return []store.PackFields{
		{Name: "Terrace four", Labels: []string{"ND4", "ND16", "ND64", "ND128"}, Price: value(52.0), Cameras: []string{pocket}},
		{Name: "Starter pair", Labels: []string{"ND8", "ND16"}, Price: value(19.0), Cameras: []string{pocket}},
	}
}
