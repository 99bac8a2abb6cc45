package measure

import (
	"fmt"
	"math"
	"slices"

	"pinhole/core/problem"
	"pinhole/core/stop"
)

// When a pair of frames measures a filter.
const (
	clippedMost   = 0.01 // share of the middle
	darkestMean   = 0.005
	unevenMost    = 0.15
	movedMost     = stop.Stops(0.1) // deviation of the ratios of the blocks
	driftMost     = stop.Stops(0.5)
	swappedBelow  = stop.Stops(-0.15)
	unknownMost   = 0.05 // share of the middle that a curve does not know
	transferWarns = stop.Stops(0.25)
)

// What is uncertain of a pair, in stops (measure.md).
const (
	shutterSetting = 0.05 // the marks of a shutter are nominal
	isoSetting     = 0.1
	transferPart   = 0.25 // of the difference in level
	stepCodes      = 0.29 // of a code: what rounding leaves (1/√12)
	driftPart      = 1.0 / 6
	quietDeviation = 0.5 // in codes, over a tile of 16 px: rounding may not be averaged out
	tilePx         = 16
)

// When a cast has a name, in stops, and what a stop of it is in mired near 5600 K.
const (
	castRedBlue   = 0.1
	castGreen     = 0.07
	stopsPerMired = 0.0142
)

// Cast is what a filter does to colour.
type Cast string

// The casts.
const (
	Redder  Cast = "redder"
	Bluer   Cast = "bluer"
	Greener Cast = "greener"
	Magenta Cast = "magenta"
)

// Values returns every Cast there is.
func (Cast) Values() []Cast { return []Cast{Redder, Bluer, Greener, Magenta} }

// FilterAnswer is what a filter cuts, measured by frames with and without it or by readings.
type FilterAnswer struct {
	Findings
	Stops         *stop.Stops   `json:"stops"`
	RedStops      *stop.Stops   `json:"redStops"`
	GreenStops    *stop.Stops   `json:"greenStops"`
	BlueStops     *stop.Stops   `json:"blueStops"`
	CastRedStops  *stop.Stops   `json:"castRedStops" doc:"red − green; positive: more red is cut"`
	CastBlueStops *stop.Stops   `json:"castBlueStops" doc:"blue − green"`
	CastStops     *stop.Stops   `json:"castStops" doc:"blue − red: positive towards red, as a filter keeps it"`
	MiredShift    *float64      `json:"miredShift" doc:"near 5600 K, ±20 %; positive: warmer"`
	Cast          []Cast        `json:"cast"`
	StdErrorStops *stop.Stops   `json:"stdErrorStops"`
	Errors        *FilterErrors `json:"errors"`
	LowStops      *stop.Stops   `json:"lowStops,omitempty" doc:"of readings: what their ranges leave open"`
	HighStops     *stop.Stops   `json:"highStops,omitempty"`
	LevelStops    *stop.Stops   `json:"levelStops" doc:"how much brighter the frame without it is"`
	DriftStops    *stop.Stops   `json:"driftStops,omitempty" doc:"of the light, between the frames of a bracket"`
	Pairs         []PairAnswer  `json:"pairs"`
}

// FilterErrors are the parts of the standard error, in stops.
type FilterErrors struct {
	NoiseStops    stop.Stops `json:"noiseStops"`
	SettingStops  stop.Stops `json:"settingStops"`
	TransferStops stop.Stops `json:"transferStops"`
	DriftStops    stop.Stops `json:"driftStops"`
}

// PairAnswer is one of several measurements.
type PairAnswer struct {
	Stops       stop.Stops `json:"stops"`
	SpreadStops stop.Stops `json:"spreadStops" doc:"deviation over the blocks of the frame"`
}

// measureFilter answers filter: frames, or readings of a camera's automatic.
func measureFilter(in Input) (*FilterAnswer, error) {
	if in.has("without-reading") || in.has("with-reading") {
		if in.has("without") || in.has("with") {
			return nil, &problem.Fault{Field: "with-reading", Value: len(in.texts("with-reading")), Allowed: "readings or frames, not both"}
		}
		return measureReadings(in)
	}
	without, err := readTaken(in, "without", "without-exposure")
	if err != nil {
		return nil, err
	}
	with, err := readTaken(in, "with", "with-exposure")
	if err != nil {
		return nil, err
	}
	if n, m := len(without), len(with); m == 0 || n != m && n != m+1 {
		return nil, &problem.Fault{Field: "with", Value: m, Allowed: fmt.Sprintf("as many frames as without, or one fewer for a bracket; there are %d without", n)}
	}
	share, err := readShare(in, len(with))
	if err != nil {
		return nil, err
	}
	if err := takeCurve(in, append(slices.Clone(without), with...)); err != nil {
		return nil, err
	}
	return filterOf(without, with, share), nil
}

// takenFrame is a frame of a pair with its exposure.
type takenFrame struct {
	*picture
	part     string
	exposure Exposure
	means    means
}

// readTaken reads the frames of one side with their exposures: one text serves all of them,
// and EXIF those that have none.
func readTaken(in Input, part, texts string) ([]*takenFrame, error) {
	files, said := in.files(part), in.texts(texts)
	if len(said) > 1 && len(said) != len(files) {
		return nil, &problem.Fault{Field: texts, Value: len(said), Allowed: fmt.Sprintf("one for all, or one for each of %d frames", len(files))}
	}
	var all []*takenFrame
	for i, file := range files {
		p, err := readPicture(part, file)
		if err != nil {
			return nil, err
		}
		s := &takenFrame{picture: p, part: part}
		switch {
		case len(said) > 0:
			e, err := parseExposure(texts, said[min(i, len(said)-1)], false)
			if err != nil {
				return nil, err
			}
			s.exposure = e.low
		case p.exposure != nil && p.exposure.ShutterS > 0 && p.exposure.ISO > 0:
			s.exposure = *p.exposure
		default:
			return nil, &problem.Fault{Field: texts, Allowed: fmt.Sprintf("the exposure of %s, which has none in its EXIF: %s", file.Name, exposureAllowed)}
		}
		if p.width < 4*evenColumns || p.height < 4*evenRows {
			return nil, &problem.Fault{Field: part, Value: fmt.Sprintf("%d × %d pixels", p.width, p.height), Allowed: "48 × 32 pixels at least"}
		}
		all = append(all, s)
	}
	return all, nil
}

// takeCurve gives every frame the curve that was handed over, if any.
func takeCurve(in Input, all []*takenFrame) error {
	if !in.has("curve") {
		return nil
	}
	curve, err := readCurve(in.file("curve"))
	for _, s := range all {
		s.light = curve
	}
	return err
}

// halfway is where a frame with a filter is taken to stand between its neighbours.
const halfway = 0.5

// readShare reads where between its neighbours the frame with the filter was taken.
func readShare(in Input, frames int) (float64, error) {
	if !in.has("share") {
		return halfway, nil
	}
	share, err := in.number("share", 0, 1)
	if err == nil && frames != 1 {
		err = &problem.Fault{Field: "share", Value: in.text("share"), Allowed: "nothing but for one frame with the filter, between two without"}
	}
	return share, err
}

// filterOf measures pairs, or a bracket where there is one frame more without the filter.
func filterOf(without, with []*takenFrame, share float64) *FilterAnswer {
	a := &FilterAnswer{Findings: newFindings(), Cast: []Cast{}, Pairs: []PairAnswer{}}
	withAperture := true
	for _, s := range append(slices.Clone(without), with...) {
		withAperture = withAperture && s.exposure.Aperture > 0
		s.means = s.mean(s.middle())
		a.judge(s)
	}
	if a.isRefused() {
		return a
	}
	isBracket := len(without) == len(with)+1
	var all []ratio
	for i, s := range with {
		if !isBracket {
			all = append(all, ratioOf(without[i], s, withAperture))
			continue
		}
		before, after := ratioOf(without[i], s, withAperture), ratioOf(without[i+1], s, withAperture)
		all = append(all, before.between(after, share))
		drift := max((before.stops - after.stops).Abs(), deref(a.DriftStops))
		a.DriftStops = &drift
	}
	mean, errors := combined(all)
	a.refuseBy(all, mean.stops)
	if a.isRefused() {
		return a
	}
	a.say(mean)
	for _, r := range all {
		a.Pairs = append(a.Pairs, PairAnswer{r.stops, r.spread})
	}
	a.errors(errors, without, with, mean)
	return a
}

// judge refuses a frame that cannot be measured by.
func (a *FilterAnswer) judge(s *takenFrame) {
	m := s.means
	switch {
	case m.blown > clippedMost:
		a.refuse("blown", s.part, "Highlights are clipped in the middle: shoot it again a stop darker.")
	case m.crushed > clippedMost || m.luminance < darkestMean && !s.light.isCurve:
		a.refuse("crushed", s.part, "It is too dark in the middle: shoot it again two stops brighter.")
	case m.unknown > unknownMost:
		a.refuse("outside-curve", s.part, "Its levels lie outside of the curve: expose it nearer to the frames of the bracket.")
	case s.cv(s.middle()) > unevenMost:
		a.refuse("uneven", s.part, "The target is not lit evenly: turn it, or take the open sky or a lit wall.")
	}
}

// ratio is how much more light comes through without the filter, in stops, by channel.
type ratio struct {
	stops, red, green, blue stop.Stops
	level                   stop.Stops // of the frames as they stand
	spread                  stop.Stops // deviation over the blocks
	noise                   float64
	part                    string // of a frame that does not agree
}

func ratioOf(without, with *takenFrame, withAperture bool) ratio {
	exposed := stop.FromFactor(without.exposure.factor(withAperture) / with.exposure.factor(withAperture))
	of := func(a, b float64) stop.Stops { return stop.FromFactor(max(a, least)/max(b, least)) - exposed }
	r := ratio{
		stops: of(without.means.luminance, with.means.luminance),
		red:   of(without.means.red, with.means.red),
		green: of(without.means.green, with.means.green),
		blue:  of(without.means.blue, with.means.blue),
		level: stop.FromFactor(max(without.means.luminance, least) / max(with.means.luminance, least)),
		part:  with.part,
	}
	a, b := without.blockMeans(), with.blockMeans()
	for i := range a {
		a[i] = math.Log2(max(a[i], least) / max(b[i], least))
	}
	_, deviation := spread(a)
	r.spread = stop.Stops(deviation)
	r.noise = deviation / math.Sqrt(float64(len(a)))
	for _, s := range []*takenFrame{without, with} {
		if s.quiet() {
			r.noise = math.Hypot(r.noise, s.stepStops())
		}
	}
	return r
}

// blockMeans returns the light of 12 by 8 blocks of the middle.
func (s *takenFrame) blockMeans() []float64 {
	var all []float64
	s.middle().blocks(evenColumns, evenRows, func(_, _ int, block area) { all = append(all, s.meanLuminance(block)) })
	return all
}

// quiet reports whether there is so little noise that rounding to codes is not averaged out.
func (s *takenFrame) quiet() bool {
	if s.bits > 8 {
		return false
	}
	m := s.middle()
	total, n := 0.0, 0
	for y := m.y0; y+tilePx <= m.y1; y += tilePx {
		for x := m.x0; x+tilePx <= m.x1; x += tilePx {
			var sum, squares float64
			for ty := y; ty < y+tilePx; ty++ {
				for tx := x; tx < x+tilePx; tx++ {
					v := float64(s.at(tx, ty)[1]) / perCode
					sum, squares = sum+v, squares+v*v
				}
			}
			const all = tilePx * tilePx
			total += math.Sqrt(max(0, squares/all-(sum/all)*(sum/all)))
			n++
		}
	}
	return n > 0 && total/float64(n) < quietDeviation
}

// stepStops returns what rounding to codes may be off, in stops, at the level of the frame.
func (s *takenFrame) stepStops() float64 {
	_, v := s.middleCode()
	low, high := max(0, v-perCode/2), min(codes-1, v+perCode/2)
	light := func(v int) float64 { return max(float64(s.light.linear[v]), least) }
	step := math.Log2(light(high) / light(low))
	if math.IsNaN(step) {
		return 0
	}
	return stepCodes * step
}

// middleCode returns the mean of green over the middle, as a code and as a value.
func (s *takenFrame) middleCode() (code float64, value int) {
	m := s.middle()
	sum := 0.0
	for y := m.y0; y < m.y1; y++ {
		for x := m.x0; x < m.x1; x++ {
			sum += float64(s.at(x, y)[1])
		}
	}
	sum /= float64(max(1, m.pixels()))
	return sum / perCode, int(sum)
}

// between returns the ratio of a frame against its neighbours in a bracket, which was taken at a
// share of the way from the one before, r, to the one after.
func (r ratio) between(after ratio, share float64) ratio {
	at := func(a, b stop.Stops) stop.Stops { return a + stop.Stops(share)*(b-a) }
	return ratio{
		stops: at(r.stops, after.stops), red: at(r.red, after.red), green: at(r.green, after.green), blue: at(r.blue, after.blue),
		level: at(r.level, after.level), spread: max(r.spread, after.spread), noise: math.Hypot((1-share)*r.noise, share*after.noise), part: r.part,
	}
}

// combined returns the mean of the pairs and the noise of that mean.
func combined(all []ratio) (mean ratio, noise float64) {
	n := float64(len(all))
	stops := make([]float64, len(all))
	variance := 0.0
	for i, r := range all {
		mean.stops, mean.red, mean.green, mean.blue, mean.level = mean.stops+r.stops, mean.red+r.red, mean.green+r.green, mean.blue+r.blue, mean.level+r.level
		stops[i] = float64(r.stops)
		variance += r.noise * r.noise
	}
	k := stop.Stops(1 / n)
	mean.stops, mean.red, mean.green, mean.blue, mean.level = mean.stops*k, mean.red*k, mean.green*k, mean.blue*k, mean.level*k
	noise = math.Sqrt(variance) / n
	if len(all) > 1 {
		_, deviation := spread(stops)
		sample := deviation * math.Sqrt(n/(n-1))
		noise = max(noise, sample/math.Sqrt(n))
	}
	return mean, noise
}

// refuseBy refuses what pairs say together.
func (a *FilterAnswer) refuseBy(all []ratio, stops stop.Stops) {
	if deref(a.DriftStops) > driftMost {
		a.refuse("light", "without", "The light changed by more than half a stop meanwhile: wait for even light and shoot the bracket again.")
		return
	}
	for _, r := range all {
		if r.spread > movedMost {
			a.refuse("moved", r.part, "The frames do not show the same: something moved or a shadow fell on it. Fix the camera and shoot again.")
		}
	}
	if !a.isRefused() && stops < swappedBelow {
		a.refuse("swapped", "with", "More light came through with the filter: the frames are swapped, or their exposures.")
	}
}

// say fills in what was measured.
func (a *FilterAnswer) say(r ratio) {
	red, blue := r.red-r.green, r.blue-r.green
	cast := blue - red
	mired := float64(cast) / stopsPerMired
	a.CastStops = &cast
	a.Stops, a.RedStops, a.GreenStops, a.BlueStops = &r.stops, &r.red, &r.green, &r.blue
	a.CastRedStops, a.CastBlueStops, a.MiredShift, a.LevelStops = &red, &blue, &mired, &r.level
	switch warm := float64(cast); {
	case warm >= castRedBlue:
		a.Cast = append(a.Cast, Redder)
	case warm <= -castRedBlue:
		a.Cast = append(a.Cast, Bluer)
	}
	switch green := float64(red+blue) / 2; {
	case green >= castGreen:
		a.Cast = append(a.Cast, Greener)
	case green <= -castGreen:
		a.Cast = append(a.Cast, Magenta)
	}
}

// errors fills in how far it may be off.
func (a *FilterAnswer) errors(noise float64, without, with []*takenFrame, mean ratio) {
	e := FilterErrors{NoiseStops: stop.Stops(noise)}
	first := without[0].exposure
	var shutters, isos bool
	for _, s := range with {
		shutters = shutters || s.exposure.ShutterS != first.ShutterS
		isos = isos || s.exposure.ISO != first.ISO
	}
	if shutters {
		e.SettingStops = shutterSetting
	}
	if isos {
		e.SettingStops = stop.Stops(math.Hypot(float64(e.SettingStops), isoSetting))
	}
	if !without[0].light.isCurve {
		e.TransferStops = transferPart * mean.level.Abs()
	}
	if e.TransferStops > transferWarns {
		a.warn("transfer", "The frames differ much in brightness, and the camera's profile is not known: shoot again with the shutter that makes both alike, or find its curve from a bracket.")
	}
	if a.DriftStops != nil {
		e.DriftStops = driftPart * *a.DriftStops
	} else {
		a.warn("light-unchecked", "Whether the light changed meanwhile is not known: close with another frame without the filter.")
	}
	total := stop.Stops(math.Sqrt(square(e.NoiseStops) + square(e.SettingStops) + square(e.TransferStops) + square(e.DriftStops)))
	a.Errors, a.StdErrorStops = &e, &total
}

func square(s stop.Stops) float64 { return float64(s * s) }

func deref(s *stop.Stops) stop.Stops {
	if s == nil {
		return 0
	}
	return *s
}
