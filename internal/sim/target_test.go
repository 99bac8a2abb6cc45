package sim

import (
	"math"
	"testing"

	"pinhole/core/measure"
	"pinhole/core/stop"
)

// What the simulated camera shows of a target is measured as the truth it was made by.
func TestTargetsAreMeasuredAsTheyAre(t *testing.T) {
	truth := Truth{Stops: 4.27, CastStops: 0.2, CornerStops: 0.8, SharpnessLost: 20, VeilShare: 0.02}
	frame := func(target Target, filter Truth, n int) measure.File {
		t.Helper()
		png, err := TargetFrame(TargetRequest{Target: target, Aperture: 2.8, ISO: 100, Filter: filter, Frame: n, Seed: 1})
		if err != nil {
			t.Fatal(err)
		}
		return measure.File{Name: "simulated", Bytes: png}
	}
	run := func(name string, target Target, closing bool, texts map[string][]string) any {
		t.Helper()
		op, _ := measure.Named(name)
		in := measure.Input{Files: map[string][]measure.File{"without": {frame(target, Truth{}, 0)}, "with": {frame(target, truth, 5)}}, Texts: texts}
		if closing {
			in.Files["without"] = append(in.Files["without"], frame(target, Truth{}, 10))
		}
		answer, err := op.Run(in)
		if err != nil {
			t.Fatal(err)
		}
		return answer
	}
	near := func(what string, got, want, most float64) {
		t.Helper()
		if !(math.Abs(got-want) <= most) {
			t.Errorf("%s: %v, want %v", what, got, want)
		}
	}
	filter := run("filter", Wall, true, map[string][]string{"share": {"0.5"}}).(*measure.FilterAnswer)
	corners := run("corners", Wall, false, nil).(*measure.CornersAnswer)
	sharpness := run("sharpness", Edge, false, nil).(*measure.SharpnessAnswer)
	flare := run("flare", Lamp, false, nil).(*measure.FlareAnswer)
	for name, f := range map[string]measure.Findings{"filter": filter.Findings, "corners": corners.Findings, "sharpness": sharpness.Findings, "flare": flare.Findings} {
		if len(f.Refused) > 0 {
			t.Fatalf("%s is refused: %v", name, f.Refused)
		}
	}
	near("stops", float64(*filter.Stops), 4.27, 0.02)
	near("drift", float64(*filter.DriftStops), 10*float64(fallPerFrame), 0.01)
	near("cast", float64(*filter.CastStops), 0.2, 0.02)
	near("corners", float64(*corners.CornerStops), 0.8, 0.15)
	near("sharpness", *sharpness.LossPercent, 20, 4)
	near("veil", *flare.VeilShare, 0.02, 0.003)
}

// What is known of a filter is true of it, and the rest is the same each time.
func TestAFilterHasOneTruth(t *testing.T) {
	stops, heavy := stop.Stops(3.6), 3.0
	a, b := TruthOf("one", Known{Printed: 4, Stops: &stops, Flare: &heavy}), TruthOf("one", Known{Printed: 4, Stops: &stops, Flare: &heavy})
	if a != b || a.Stops != stops || a.VeilShare != 0.09 {
		t.Errorf("%+v and %+v", a, b)
	}
	if other := TruthOf("other", Known{Printed: 4}); math.Abs(float64(other.Stops-4)) > 0.8 || other.SharpnessLost == a.SharpnessLost {
		t.Errorf("%+v", other)
	}
}
