package measure

import (
	"math"
	"slices"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// How a log is judged.
const (
	longestSample = 5.0 // medians of the step: then there is a gap
	withinStops   = 0.5
	changeStops   = 0.02 // what counts as a change
	byHandMost    = 3    // changes: more is an automatic
	pauseS        = 1.0  // shorter pauses do not part an excursion
	limitShare    = 0.05
	limitRaised   = 0.9
	limitBias     = 0.3
	mostSamples   = 1000
	halfTurn      = stop.Angle(180)
)

// sample is a row that says an exposure, with how long it lasted.
type sample struct {
	row
	lasts float64
}

// measureTelemetry answers telemetry.
func measureTelemetry(in Input) (*TelemetryAnswer, error) {
	options, err := readTelemetryOptions(in)
	if err != nil {
		return nil, err
	}
	read, err := readLog(in.file("file"))
	if err != nil {
		return nil, err
	}
	a := &TelemetryAnswer{Findings: newFindings(), Format: read.format, Rows: len(read.rows), Excursions: []Excursion{}, Means: []string{}, Samples: []LogSample{}}
	all := a.samples(read)
	if len(all) == 0 {
		a.refuse("no-exposure", "file", "It says no shutter: switch on exposure in the camera's subtitles, or give the log of another clip.")
		return a, nil
	}
	if err := a.aim(options, all); err != nil {
		return nil, err
	}
	a.shutter(all)
	a.iso(all)
	a.excursions(all, options.isoBase)
	a.limit(all, options.isoBase)
	a.meaning()
	a.light(all, options)
	a.place(all)
	return a, nil
}

type telemetryOptions struct {
	target                     string
	fps, aperture, on, isoBase float64
}

func readTelemetryOptions(in Input) (o telemetryOptions, err error) {
	o.target = in.text("target")
	for _, n := range []struct {
		name        string
		into        *float64
		least, most float64
	}{
		{"fps", &o.fps, 0.01, 10000}, {"aperture", &o.aperture, 0.5, 64}, {"on", &o.on, -5, 40}, {"iso-base", &o.isoBase, 1, 1e7},
	} {
		if *n.into, err = in.number(n.name, n.least, n.most); err != nil {
			return o, err
		}
	}
	return o, nil
}

// samples returns the rows that say a time and a shutter, in order, with how long each lasts.
func (a *TelemetryAnswer) samples(read *logTable) []sample {
	var all []sample
	for _, r := range read.rows {
		if math.IsNaN(r.t) || math.IsNaN(r.shutter) {
			a.Skipped++
			continue
		}
		all = append(all, sample{row: r})
	}
	slices.SortStableFunc(all, func(x, y sample) int {
		switch {
		case x.t < y.t:
			return -1
		case x.t > y.t:
			return 1
		}
		return 0
	})
	a.Used = len(all)
	if len(all) == 0 {
		return nil
	}
	var steps []float64
	for i := 1; i < len(all); i++ {
		if step := all[i].t - all[i-1].t; step > 0 {
			steps = append(steps, step)
		}
	}
	median := 1.0
	if len(steps) > 0 {
		slices.Sort(steps)
		median = steps[len(steps)/2]
	} else if !math.IsNaN(read.last) && read.last > all[0].t {
		median = read.last - all[0].t
	}
	for i := range all {
		all[i].lasts = median
		if i+1 < len(all) {
			all[i].lasts = all[i+1].t - all[i].t
			if all[i].lasts > longestSample*median {
				all[i].lasts = longestSample * median
				a.Gaps++
			}
		}
	}
	a.FromS, a.RateHz = all[0].t, 1/median
	a.ToS = all[len(all)-1].t + all[len(all)-1].lasts
	return all
}

// aim fills in the frame rate and the target.
func (a *TelemetryAnswer) aim(o telemetryOptions, all []sample) error {
	fps := o.fps
	if fps == 0 {
		if known := kept(all, func(s sample) float64 { return s.fps }); len(known) > 0 {
			fps = middleOf(known)
		}
	}
	if fps > 0 {
		a.FPS = &fps
	}
	switch {
	case o.target != "":
		target, err := stop.ParseShutter(o.target, stop.ExactRate(fps))
		if err != nil || target <= 0 {
			return &problem.Fault{Field: "target", Value: o.target, Allowed: "a shutter such as 1/100, or an angle such as 180° where the frame rate is known"}
		}
		a.TargetS = &target
	case fps > 0:
		target := halfTurn.At(stop.ExactRate(fps))
		a.TargetS = &target
	default:
		return nil
	}
	a.WithinS = []stop.Shutter{a.TargetS.Times(-withinStops), a.TargetS.Times(withinStops)}
	within, total := 0.0, 0.0
	for _, s := range all {
		total += s.lasts
		if math.Abs(float64(a.off(s))) <= withinStops+stop.Tolerance {
			within += s.lasts
		}
	}
	share := within / max(total, least)
	a.WithinShare = &share
	return nil
}

// off returns how much longer a shutter was open than the target.
func (a *TelemetryAnswer) off(s sample) stop.Stops {
	return stop.Shutter(s.shutter).Over(*a.TargetS)
}

// kept returns what samples say of something.
func kept(all []sample, of func(sample) float64) []float64 {
	var known []float64
	for _, s := range all {
		if v := of(s); !math.IsNaN(v) {
			known = append(known, v)
		}
	}
	return known
}

func middleOf(all []float64) float64 {
	sorted := slices.Clone(all)
	slices.Sort(sorted)
	return sorted[len(sorted)/2]
}

// modeOf counts the changes of something that doubles by stops, and says what made them.
func modeOf(all []float64) (mode Mode, changes int) {
	for i := 1; i < len(all); i++ {
		if math.Abs(math.Log2(all[i]/all[i-1])) > changeStops {
			changes++
		}
	}
	switch {
	case changes == 0:
		return ModeLocked, 0
	case changes <= byHandMost:
		return ModeStepped, changes
	}
	return ModeAutomatic, changes
}

func (a *TelemetryAnswer) shutter(all []sample) {
	known := kept(all, func(s sample) float64 { return s.shutter })
	mode, changes := modeOf(known)
	a.Shutter = &ShutterLog{mode, changes, stop.Shutter(slices.Min(known)), stop.Shutter(slices.Max(known)), stop.Shutter(middleOf(known))}
}

func (a *TelemetryAnswer) iso(all []sample) {
	known := kept(all, func(s sample) float64 { return s.row.iso })
	if len(known) == 0 {
		return
	}
	mode, changes := modeOf(known)
	a.ISO = &ISOLog{mode, changes, stop.ISO(slices.Min(known)), stop.ISO(slices.Max(known)), stop.ISO(middleOf(known))}
}

// base returns the ISO that others are raised over.
func (a *TelemetryAnswer) base(given float64) stop.ISO {
	if given > 0 || a.ISO == nil {
		return stop.ISO(given)
	}
	return a.ISO.Low
}

// excursions fills in the stretches away from the target, and those over base ISO.
func (a *TelemetryAnswer) excursions(all []sample, isoBase float64) {
	if a.TargetS != nil {
		a.stretches("shutter", all, a.off, func(s sample) bool { return true })
	}
	if a.ISO != nil {
		base := a.base(isoBase)
		over := func(s sample) stop.Stops { return max(0, stop.ISO(s.row.iso).Over(base)) }
		a.stretches("iso", all, over, func(s sample) bool { return !math.IsNaN(s.row.iso) })
	}
}

func (a *TelemetryAnswer) stretches(kind string, all []sample, off func(sample) stop.Stops, isKnown func(sample) bool) {
	var open *Excursion
	for _, s := range all {
		if !isKnown(s) {
			continue
		}
		by := off(s)
		if math.Abs(float64(by)) <= withinStops+stop.Tolerance {
			continue
		}
		if open == nil || s.t-open.ToS >= pauseS-stop.Tolerance {
			a.Excursions = append(a.Excursions, Excursion{Kind: kind, FromS: s.t})
			open = &a.Excursions[len(a.Excursions)-1]
		}
		open.ToS = s.t + s.lasts
		if math.Abs(float64(by)) > math.Abs(float64(open.Stops)) {
			open.Stops = by
			if kind == "iso" {
				iso := stop.ISO(s.row.iso)
				open.ISO = &iso
			} else {
				shutter := stop.Shutter(s.shutter)
				open.ShutterS = &shutter
			}
		}
	}
}

// limit finds the end of the shutter's range at which the automatic stood.
func (a *TelemetryAnswer) limit(all []sample, isoBase float64) {
	if a.Shutter.Mode == ModeLocked {
		return
	}
	base := a.base(isoBase)
	near := func(s sample, t stop.Shutter) bool {
		return math.Abs(float64(stop.Shutter(s.shutter).Over(t))) <= changeStops
	}
	var total, slowest, fastest, raised, raisedSlowest, biasSum float64
	biased := 0
	for _, s := range all {
		total += s.lasts
		if base > 0 && stop.ISO(s.row.iso).Over(base) > changeStops {
			raised += s.lasts
			if near(s, a.Shutter.SlowestS) {
				raisedSlowest += s.lasts
			}
		}
		if near(s, a.Shutter.SlowestS) {
			slowest += s.lasts
		}
		if near(s, a.Shutter.FastestS) {
			fastest += s.lasts
			if !math.IsNaN(s.bias) {
				biasSum += s.bias
				biased++
			}
		}
	}
	switch {
	case slowest >= limitShare*total && raised > 0 && raisedSlowest >= limitRaised*raised:
		a.Limit = &LimitHit{"slowest", a.Shutter.SlowestS, slowest / total}
	case fastest >= limitShare*total && biased > 0 && biasSum/float64(biased) > limitBias:
		a.Limit = &LimitHit{"fastest", a.Shutter.FastestS, fastest / total}
	}
}

// meaning says in codes what the log shows.
func (a *TelemetryAnswer) meaning() {
	iso := ModeLocked
	if a.ISO != nil {
		iso = a.ISO.Mode
	}
	for _, m := range []struct {
		is   bool
		code string
	}{
		{a.Shutter.Mode == ModeLocked && iso == ModeLocked, "locked"},
		{a.Shutter.Mode == ModeAutomatic, "shutter-automatic"},
		{iso == ModeAutomatic, "iso-automatic"},
		{a.Shutter.Mode == ModeStepped || iso == ModeStepped, "changed-by-hand"},
		{a.Limit != nil, "shutter-limit"},
	} {
		if m.is {
			a.Means = append(a.Means, m.code)
		}
	}
}
