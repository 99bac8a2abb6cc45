package measure

import (
	"math"
	"slices"

	"pinhole/core/angle"
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

// Mode is what moved something.
type Mode string

// The modes.
const (
	ModeLocked    Mode = "locked"
	ModeStepped   Mode = "stepped"
	ModeAutomatic Mode = "automatic"
)

// Values returns every Mode there is.
func (Mode) Values() []Mode { return []Mode{ModeLocked, ModeStepped, ModeAutomatic} }

// TelemetryAnswer is how a clip was exposed, as its log says.
type TelemetryAnswer struct {
	Findings
	Format      string         `json:"format"`
	Rows        int            `json:"rows"`
	Used        int            `json:"used"`
	Skipped     int            `json:"skipped" doc:"rows without a time or a shutter"`
	FromS       float64        `json:"fromS"`
	ToS         float64        `json:"toS"`
	RateHz      float64        `json:"rateHz"`
	Gaps        int            `json:"gaps"`
	FPS         *float64       `json:"fps,omitempty"`
	TargetS     *stop.Shutter  `json:"targetS,omitempty"`
	WithinShare *float64       `json:"withinShare" doc:"of the time within half a stop of the target; null without a target"`
	Shutter     *ShutterLog    `json:"shutter"`
	ISO         *ISOLog        `json:"iso"`
	Excursions  []Excursion    `json:"excursions"`
	Limit       *LimitHit      `json:"limit"`
	Means       []string       `json:"means" doc:"locked, shutter-automatic, iso-automatic, changed-by-hand, shutter-limit"`
	Samples     []LogSample    `json:"samples"`
	SpanStops   *stop.Stops    `json:"spanStops" doc:"from the 5th to the 95th percentile of the light"`
	EV100       *Percentiles   `json:"ev100,omitempty" doc:"of the scene; left out where no aperture is known"`
	Bounds      *LogBounds     `json:"bounds,omitempty"`
	AltitudeM   *AltitudeRange `json:"altitudeM,omitempty"`
}

// ShutterLog is what the shutter did.
type ShutterLog struct {
	Mode     Mode         `json:"mode"`
	Changes  int          `json:"changes"`
	FastestS stop.Shutter `json:"fastestS"`
	SlowestS stop.Shutter `json:"slowestS"`
	MedianS  stop.Shutter `json:"medianS"`
}

// ISOLog is what ISO did.
type ISOLog struct {
	Mode    Mode     `json:"mode"`
	Changes int      `json:"changes"`
	Low     stop.ISO `json:"low"`
	High    stop.ISO `json:"high"`
	Median  stop.ISO `json:"median"`
}

// Excursion is a stretch away from the target, or over base ISO.
type Excursion struct {
	Kind     string        `json:"kind" doc:"shutter or iso"`
	FromS    float64       `json:"fromS"`
	ToS      float64       `json:"toS"`
	Stops    stop.Stops    `json:"stops" doc:"the furthest: of the shutter's time against the target, of ISO over base"`
	ShutterS *stop.Shutter `json:"shutterS,omitempty"`
	ISO      *stop.ISO     `json:"iso,omitempty"`
}

// LimitHit is an end of the shutter's range that the automatic ran into.
type LimitHit struct {
	Kind     string       `json:"kind" doc:"slowest or fastest"`
	ShutterS stop.Shutter `json:"shutterS"`
	Share    float64      `json:"share" doc:"of the time"`
}

// LogSample is one sample, to draw.
type LogSample struct {
	T        float64      `json:"t"`
	ShutterS stop.Shutter `json:"shutterS"`
	ISO      *stop.ISO    `json:"iso,omitempty"`
	EV       *stop.EV     `json:"ev,omitempty"`
}

// Percentiles are of the light.
type Percentiles struct {
	P5  stop.EV `json:"p5"`
	P50 stop.EV `json:"p50"`
	P95 stop.EV `json:"p95"`
}

// LogBounds is the box around where a log was.
type LogBounds struct {
	South angle.Deg `json:"south"`
	North angle.Deg `json:"north"`
	West  angle.Deg `json:"west"`
	East  angle.Deg `json:"east"`
}

// AltitudeRange is how high a log was, in metres.
type AltitudeRange struct {
	Low  float64 `json:"low"`
	High float64 `json:"high"`
}

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

// light fills in the light of the scene and the samples to draw.
func (a *TelemetryAnswer) light(all []sample, o telemetryOptions) {
	aperture := func(s sample) float64 {
		if o.aperture > 0 {
			return o.aperture
		}
		return s.row.aperture
	}
	// Light as far as it is known: without an aperture, against an aperture of 1.
	ev := func(s sample) (light stop.EV, isWhole bool) {
		set := stop.Setting{Aperture: 1, Shutter: stop.Shutter(s.shutter), ISO: 100}
		if isWhole = !math.IsNaN(aperture(s)) && !math.IsNaN(s.row.iso); !math.IsNaN(aperture(s)) {
			set.Aperture = stop.FNumber(aperture(s))
		}
		if !math.IsNaN(s.row.iso) {
			set.ISO = stop.ISO(s.row.iso)
		}
		light = set.EV().Plus(stop.Stops(o.on))
		if !math.IsNaN(s.bias) {
			light = light.Plus(stop.Stops(s.bias))
		}
		return light, isWhole
	}
	var lights []float64
	isWhole := true
	for _, s := range all {
		v, whole := ev(s)
		isWhole = isWhole && whole
		lights = append(lights, float64(v))
	}
	for i := 0; i < len(all); i += (len(all) + mostSamples - 1) / mostSamples {
		s := LogSample{T: all[i].t, ShutterS: stop.Shutter(all[i].shutter)}
		if !math.IsNaN(all[i].row.iso) {
			iso := stop.ISO(all[i].row.iso)
			s.ISO = &iso
		}
		if light, whole := ev(all[i]); whole {
			s.EV = &light
		}
		a.Samples = append(a.Samples, s)
	}
	slices.Sort(lights)
	p := Percentiles{stop.EV(quantile(lights, 0.05)), stop.EV(quantile(lights, 0.5)), stop.EV(quantile(lights, 0.95))}
	span := p.P95.Above(p.P5)
	a.SpanStops = &span
	if isWhole {
		a.EV100 = &p
	}
}

// quantile returns the ⌈q·n⌉-th smallest of sorted numbers.
func quantile(sorted []float64, q float64) float64 {
	return sorted[max(0, int(math.Ceil(q*float64(len(sorted))))-1)]
}

// place fills in where it was.
func (a *TelemetryAnswer) place(all []sample) {
	var lats, lons []float64
	for _, s := range all {
		if math.Abs(s.latDeg) <= 90 && math.Abs(s.lonDeg) <= 180 && (s.latDeg != 0 || s.lonDeg != 0) {
			lats, lons = append(lats, s.latDeg), append(lons, s.lonDeg)
		}
	}
	if len(lats) > 0 {
		a.Bounds = &LogBounds{angle.Deg(slices.Min(lats)), angle.Deg(slices.Max(lats)), angle.Deg(slices.Min(lons)), angle.Deg(slices.Max(lons))}
	}
	if heights := kept(all, func(s sample) float64 { return s.row.altitudeM }); len(heights) > 0 {
		a.AltitudeM = &AltitudeRange{slices.Min(heights), slices.Max(heights)}
	}
}
