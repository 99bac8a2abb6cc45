package measure

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// How a log of a gyro is judged.
const (
	gapSteps       = 2.5
	shortestS      = 2.0
	gapsMost       = 0.2
	quietDegS      = 1.0 // deviation of the quietest second
	quietMeanDegS  = 5.0
	intendedHz     = 1.0
	shakeQuantile  = 0.9
	saturatedLeast = 3 // rows at the end of the scale
	jitterWarns    = 0.05
)

// GyroAnswer is how a camera shook.
type GyroAnswer struct {
	Findings
	Rows             int               `json:"rows"`
	Skipped          int               `json:"skipped" doc:"rows that are not numbers"`
	SamplingHz       *float64          `json:"samplingHz"`
	SeesUpToHz       *float64          `json:"seesUpToHz"`
	JitterShare      *float64          `json:"jitterShare" doc:"deviation of the steps over their median"`
	DurationS        float64           `json:"durationS"`
	TimeUnit         string            `json:"timeUnit"`
	TimeUnitInferred bool              `json:"timeUnitInferred"`
	RateUnit         string            `json:"rateUnit"`
	ClockFaults      int               `json:"clockFaults" doc:"rows whose time did not go on; they are left out"`
	Gaps             []LogGap          `json:"gaps"`
	LostShare        float64           `json:"lostShare" doc:"of the time, in gaps"`
	BiasDegS         *Axes             `json:"biasDegS" doc:"what the gyro shows at rest; taken off"`
	BiasKnown        bool              `json:"biasKnown"`
	ShakeDegS        *angle.DegPerS    `json:"shakeDegS" doc:"90th percentile"`
	IntendedDegS     *angle.DegPerS    `json:"intendedDegS" doc:"90th percentile of what is slower than 1 Hz"`
	AxesDegS         *Axes             `json:"axesDegS" doc:"the shake about each axis, 90th percentile"`
	PeakHz           *float64          `json:"peakHz" doc:"of the strongest peak"`
	Peaks            []Peak            `json:"peaks" doc:"strongest first"`
	SaturatedShare   float64           `json:"saturatedShare" doc:"of the rows, at the end of the gyro's scale"`
	Spectrum         *Spectrum         `json:"spectrum"`
	Stabiliser       *StabiliserAnswer `json:"stabiliser,omitempty"`
}

// LogGap is where a log has a hole.
type LogGap struct {
	AtS     float64 `json:"atS"`
	LengthS float64 `json:"lengthS"`
}

// Axes are figures about each axis, degrees a second.
type Axes struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
	Z float64 `json:"z"`
}

// StabiliserAnswer is the slowest shutter that a stabiliser takes with this shake.
type StabiliserAnswer struct {
	FloorS *stop.Shutter `json:"floorS" doc:"null where there is no floor"`
}

// measureGyro answers gyro.
func measureGyro(in Input) (*GyroAnswer, error) {
	held, err := readStabiliser(in)
	if err != nil {
		return nil, err
	}
	shutter, err := stop.ParseShutter(cmp.Or(in.text("shutter"), "1/50"), 0)
	if err != nil || shutter <= 0 {
		return nil, &problem.Fault{Field: "shutter", Value: in.text("shutter"), Allowed: "a shutter such as 1/100"}
	}
	turns, err := readMotor(in)
	if err != nil {
		return nil, err
	}
	log, err := readGyro(in)
	if err != nil {
		return nil, err
	}
	a := &GyroAnswer{
		Findings: newFindings(), Rows: len(log.t) + log.skipped, Skipped: log.skipped,
		TimeUnit: log.timeUnit, TimeUnitInferred: log.isUnitInferred, RateUnit: log.rateUnit,
		Gaps: []LogGap{}, Peaks: []Peak{},
	}
	if log.isUnitInferred {
		a.warn("time-unit", fmt.Sprintf("The unit of its time is not said; its steps fit %s.", log.timeUnit))
	}
	a.ClockFaults = log.sort()
	if a.ClockFaults > 0 {
		a.warn("clock", fmt.Sprintf("%d rows went back in time and are left out.", a.ClockFaults))
	}
	step := a.clock(log)
	if a.isRefused() {
		return a, nil
	}
	even := log.even(step, a.Gaps)
	a.bias(even)
	a.shake(even)
	a.saturated(log)
	a.spectrum(even)
	for i := range a.Peaks {
		a.Peaks[i].Of = turns.named(a.Peaks[i].Hz)
	}
	if a.Spectrum != nil && in.has("shutter") {
		a.Spectrum.keep(shutter)
		for i := range a.Peaks {
			kept := motion.Vibration{Hz: a.Peaks[i].Hz}.Averaging(shutter)
			a.Peaks[i].KeptShare = &kept
		}
	}
	if held != nil {
		a.Stabiliser = held.floor(*a.ShakeDegS)
	}
	return a, nil
}

// sort drops rows whose time does not go on, and returns how many.
func (l *gyroLog) sort() (dropped int) {
	kept := 0
	for i := range l.t {
		if kept > 0 && l.t[i] <= l.t[kept-1] {
			dropped++
			continue
		}
		l.t[kept] = l.t[i]
		for k := range l.axes {
			l.axes[k][kept] = l.axes[k][i]
		}
		kept++
	}
	l.t = l.t[:kept]
	for k := range l.axes {
		l.axes[k] = l.axes[k][:kept]
	}
	return dropped
}

// clock fills in what the times say and returns the median step.
func (a *GyroAnswer) clock(l *gyroLog) (step float64) {
	steps := make([]float64, 0, len(l.t))
	ordered := newLights(len(l.t))
	for i := 1; i < len(l.t); i++ {
		steps = append(steps, l.t[i]-l.t[i-1])
		ordered.add(steps[i-1])
	}
	if len(steps) == 0 {
		a.refuse("short", "file", "It has one row only.")
		return 0
	}
	a.DurationS = l.t[len(l.t)-1] - l.t[0]
	step = middleStep(steps, ordered.percentile(0.5))
	var kept []float64
	lost := 0.0
	for i, d := range steps {
		if d > gapSteps*step {
			a.Gaps = append(a.Gaps, LogGap{l.t[i], d})
			lost += d - step
			continue
		}
		kept = append(kept, d)
	}
	hz := 1 / step
	half := hz / 2
	_, deviation := spread(kept)
	jitter := deviation / step
	a.SamplingHz, a.SeesUpToHz, a.JitterShare = &hz, &half, &jitter
	a.LostShare = lost / max(a.DurationS, least)
	switch {
	case a.DurationS < shortestS:
		a.refuse("short", "file", "It is shorter than two seconds: log ten seconds or more.")
	case hz < slowestHz:
		a.refuse("slow", "file", fmt.Sprintf("It has %.0f samples a second: shake needs 20 at least, better 200.", hz))
	case a.LostShare > gapsMost:
		a.refuse("gaps", "file", "More than a fifth of the time is missing: log to a faster card, or at a lower rate.")
	case jitter > jitterWarns:
		a.warn("jitter", "Its steps are uneven: high frequencies are less sure.")
	}
	return step
}

// middleStep returns the mean of the steps that are as long as the median, to within what a
// clock of few digits leaves.
func middleStep(steps []float64, median float64) float64 {
	sum, n := 0.0, 0
	for _, d := range steps {
		if math.Abs(d-median) <= 1e-5*median {
			sum, n = sum+d, n+1
		}
	}
	if n == 0 {
		return median
	}
	return sum / float64(n)
}

// evenLog is a log at even steps, with what of it lies in gaps.
type evenLog struct {
	step  float64
	axes  [3][]float64
	inGap []bool
}

// even brings a log to even steps, straight between its rows.
func (l *gyroLog) even(step float64, gaps []LogGap) *evenLog {
	n := int((l.t[len(l.t)-1]-l.t[0])/step) + 1
	e := &evenLog{step: step, inGap: make([]bool, n)}
	for k := range e.axes {
		e.axes[k] = make([]float64, n)
	}
	at, gap := 0, 0
	for i := range n {
		t := l.t[0] + float64(i)*step
		for at+2 < len(l.t) && l.t[at+1] < t {
			at++
		}
		part := min(max((t-l.t[at])/(l.t[at+1]-l.t[at]), 0), 1)
		for k := range e.axes {
			e.axes[k][i] = l.axes[k][at]*(1-part) + l.axes[k][at+1]*part
		}
		for gap < len(gaps) && t >= gaps[gap].AtS+gaps[gap].LengthS {
			gap++
		}
		e.inGap[i] = gap < len(gaps) && t > gaps[gap].AtS
	}
	return e
}

// bias finds what the gyro shows at rest, by the quietest second, and takes it off.
func (a *GyroAnswer) bias(e *evenLog) {
	window := max(2, int(math.Round(1/e.step)))
	n := len(e.axes[0])
	if window > n {
		return
	}
	var sums, squares [3]float64
	quietest := math.Inf(1)
	var bias [3]float64
	gaps := 0
	for i := range n {
		if e.inGap[i] {
			gaps++
		}
		for k := range e.axes {
			v := e.axes[k][i]
			sums[k], squares[k] = sums[k]+v, squares[k]+v*v
			if i >= window {
				old := e.axes[k][i-window]
				sums[k], squares[k] = sums[k]-old, squares[k]-old*old
			}
		}
		if i >= window && e.inGap[i-window] {
			gaps--
		}
		if i+1 < window || gaps > 0 {
			continue
		}
		w := float64(window)
		variance, mean := 0.0, [3]float64{}
		for k := range mean {
			mean[k] = sums[k] / w
			variance += max(0, squares[k]/w-mean[k]*mean[k])
		}
		if variance < quietest {
			quietest, bias = variance, mean
		}
	}
	size := math.Sqrt(bias[0]*bias[0] + bias[1]*bias[1] + bias[2]*bias[2])
	if a.BiasKnown = math.Sqrt(quietest) < quietDegS && size < quietMeanDegS; !a.BiasKnown {
		a.warn("bias", "It is never at rest for a second: what the gyro shows standing still is not known and not taken off.")
		return
	}
	a.BiasDegS = &Axes{bias[0], bias[1], bias[2]}
	for k := range e.axes {
		for i := range e.axes[k] {
			e.axes[k][i] -= bias[k]
		}
	}
}

// shake parts what was intended, below 1 Hz, from the rest.
func (a *GyroAnswer) shake(e *evenLog) {
	n := len(e.axes[0])
	var slow [3][]float64
	for k := range e.axes {
		slow[k] = lowPassed(e.axes[k], intendedHz*e.step)
	}
	fast, meant := newLights(n), newLights(n)
	axes := [3]*lights{newLights(n), newLights(n), newLights(n)}
	for i := range n {
		if e.inGap[i] {
			continue
		}
		var f, m float64
		for k := range e.axes {
			rest := e.axes[k][i] - slow[k][i]
			f, m = f+rest*rest, m+slow[k][i]*slow[k][i]
			axes[k].add(math.Abs(rest))
		}
		fast.add(math.Sqrt(f))
		meant.add(math.Sqrt(m))
	}
	shake, intended := angle.DegPerS(fast.percentile(shakeQuantile)), angle.DegPerS(meant.percentile(shakeQuantile))
	a.ShakeDegS, a.IntendedDegS = &shake, &intended
	a.AxesDegS = &Axes{axes[0].percentile(shakeQuantile), axes[1].percentile(shakeQuantile), axes[2].percentile(shakeQuantile)}
}

// lowPassed returns values through a Butterworth low-pass of second order, forth and back so
// that nothing is delayed; cutoff is in cycles a step. Ends are mirrored.
func lowPassed(values []float64, cutoff float64) []float64 {
	k := math.Tan(math.Pi * cutoff)
	norm := 1 / (1 + math.Sqrt2*k + k*k)
	b0 := k * k * norm
	b1, b2 := 2*b0, b0
	a1, a2 := 2*(k*k-1)*norm, (1-math.Sqrt2*k+k*k)*norm
	pad := min(len(values)-1, int(3/cutoff))
	padded := make([]float64, 0, len(values)+2*pad)
	for i := pad; i > 0; i-- {
		padded = append(padded, 2*values[0]-values[i])
	}
	padded = append(padded, values...)
	last := len(values) - 1
	for i := 1; i <= pad; i++ {
		padded = append(padded, 2*values[last]-values[last-i])
	}
	for range 2 {
		x1, x2, y1, y2 := padded[0], padded[0], padded[0], padded[0]
		for i, x := range padded {
			y := b0*x + b1*x1 + b2*x2 - a1*y1 - a2*y2
			x2, x1, y2, y1 = x1, x, y1, y
			padded[i] = y
		}
		slices.Reverse(padded)
	}
	return padded[pad : pad+len(values)]
}

// saturated counts the rows at the end of the gyro's scale: the same largest value, again and
// again.
func (a *GyroAnswer) saturated(l *gyroLog) {
	var most float64
	for k := range l.axes {
		for _, v := range l.axes[k] {
			most = max(most, math.Abs(v))
		}
	}
	n := 0
	for i := range l.t {
		for k := range l.axes {
			if most > 0 && math.Abs(l.axes[k][i]) >= most*(1-1e-9) {
				n++
				break
			}
		}
	}
	if n < saturatedLeast {
		return
	}
	a.SaturatedShare = float64(n) / float64(len(l.t))
	a.warn("saturated", "It reached the end of the gyro's scale: the shake was stronger than it says.")
}

// held is a stabiliser before a lens.
type heldBy struct {
	shake motion.Shake
	lens  motion.Lens
}

// readStabiliser reads the options of a stabiliser, nil where none is given.
func readStabiliser(in Input) (*heldBy, error) {
	kinds := make([]string, 0, 5)
	for _, k := range motion.Stabiliser("").Values() {
		kinds = append(kinds, string(k))
	}
	kind, err := in.oneOf("stabiliser", kinds...)
	if err != nil || kind == "" {
		return nil, err
	}
	width, err := in.number("width-px", 1, 100000)
	if err != nil {
		return nil, err
	}
	view, err := in.number("hfov-deg", 0.01, 360)
	if err != nil {
		return nil, err
	}
	for _, o := range []struct {
		name  string
		value float64
	}{{"width-px", width}, {"hfov-deg", view}} {
		if o.value == 0 {
			return nil, &problem.Fault{Field: o.name, Allowed: "a number: a stabiliser is judged on a picture"}
		}
	}
	projection, err := in.oneOf("projection", string(motion.Rectilinear), string(motion.Equidistant))
	if err != nil {
		return nil, err
	}
	if projection == "" {
		projection = string(motion.Rectilinear)
	}
	fields := assemble.LensFields{WidthPx: width, HFOVDeg: angle.Deg(view), Projection: motion.Projection(projection)}
	lens, err := fields.Lens("")
	if err != nil {
		return nil, problem.At("hfov-deg", err)
	}
	asked := assemble.ShakeFields{Kind: motion.Stabiliser(kind)}
	return &heldBy{asked.Shake(), lens}, nil
}

// floor returns the slowest shutter with a shake.
func (h *heldBy) floor(shake angle.DegPerS) *StabiliserAnswer {
	h.shake.Rate = shake
	out := &StabiliserAnswer{}
	if floor, ok := h.shake.Floor(h.lens); ok {
		out.FloorS = &floor
	}
	return out
}
