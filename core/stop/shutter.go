package stop

import (
	"cmp"
	"math"
	"slices"
	"strconv"
)

// Shutter is an exposure time in seconds, in (0, ∞).
type Shutter float64

// Angle is a shutter angle in degrees: the share of a frame's time that the
// shutter is open, of 360. In video it lies in (0, 360].
type Angle float64

// Seconds returns the exposure time in seconds.
func (t Shutter) Seconds() float64 { return float64(t) }

// Times returns the exposure made longer by s stops: t·2^s.
func (t Shutter) Times(s Stops) Shutter { return Shutter(float64(t) * s.Factor()) }

// Over returns how many stops longer t is than u.
func (t Shutter) Over(u Shutter) Stops { return FromFactor(float64(t / u)) }

// Angle returns the shutter angle at a frame rate, 360·t·fps.
func (t Shutter) Angle(fps FrameRate) Angle { return Angle(360 * float64(t) * float64(fps)) }

// At returns the exposure time of the angle at a frame rate, angle/(360·fps).
func (a Angle) At(fps FrameRate) Shutter { return Shutter(float64(a) / (360 * float64(fps))) }

// String returns the angle to the whole degree: "180°".
func (a Angle) String() string { return strconv.FormatFloat(float64(a), 'f', 0, 64) + "°" }

// Possible reports whether video at fps leaves time for t: t ≤ 1/fps. The zero
// frame rate is a still, for which every time is possible.
func (t Shutter) Possible(fps FrameRate) bool {
	return fps == 0 || AtMost(float64(t)*float64(fps), 1)
}

// exactText is how near, relatively, a written form must come to the time: a part
// in 10,000, less what the inverse of an inverse adds to that.
const exactText = 0.999e-4

// String returns t as it is written on cameras: "1/60", "1/59.94", "0.5s", "2s".
// ParseShutter reads every such text back to within one part in 10,000.
func (t Shutter) String() string {
	s := t.Seconds()
	if s >= 0.3 {
		return trimmed(s, s) + "s"
	}
	return "1/" + trimmed(1/s, 1/s)
}

// trimmed prints v with the fewest decimals that keep it within exactText of want.
func trimmed(v, want float64) string {
	for places := range 6 {
		text := strconv.FormatFloat(v, 'f', places, 64)
		if got, err := strconv.ParseFloat(text, 64); err == nil && math.Abs(got/want-1) <= exactText {
			return text
		}
	}
	return strconv.FormatFloat(v, 'g', 6, 64)
}

// nominal is the series of marked shutter numbers in third stops, as printed on
// cameras and meters (ISO 516 for the whole stops); the exact times behind them
// are powers of 2^(1/3).
var nominal = []Shutter{
	60, 50, 40, 30, 25, 20, 15, 13, 10, 8, 6, 5, 4, 3.2, 2.5, 2, 1.6, 1.3, 1, 0.8, 0.6, 0.5, 0.4, 0.3,
	1. / 4, 1. / 5, 1. / 6, 1. / 8, 1. / 10, 1. / 13, 1. / 15, 1. / 20, 1. / 25, 1. / 30, 1. / 40, 1. / 50, 1. / 60,
	1. / 80, 1. / 100, 1. / 125, 1. / 160, 1. / 200, 1. / 250, 1. / 320, 1. / 400, 1. / 500, 1. / 640, 1. / 800,
	1. / 1000, 1. / 1250, 1. / 1600, 1. / 2000, 1. / 2500, 1. / 3200, 1. / 4000, 1. / 5000, 1. / 6400, 1. / 8000,
	1. / 10000, 1. / 12500, 1. / 16000, 1. / 20000, 1. / 25000, 1. / 32000,
}

// Nominal returns the marked shutter times in third stops, the longest first.
func Nominal() []Shutter { return slices.Clone(nominal) }

// nominalReach is how far from a marked number a time may lie and still be
// called by it: half of the widest step, from 0.3 to 0.4 s.
const nominalReach = Stops(0.21)

// Spoken returns t as people count it aloud: the nearest marked number (1/640
// for 1/625), or String where none is near.
func (t Shutter) Spoken() string {
	after, _ := slices.BinarySearchFunc(nominal, t, func(n, t Shutter) int { return cmp.Compare(t, n) })
	if near := nearest(t, nominal[max(after-1, 0):min(after+1, len(nominal))]); t.Over(near).Abs() <= nominalReach {
		return near.String()
	}
	return t.String()
}

// Snapped is a wished shutter time beside the one the camera offers.
type Snapped struct {
	Ideal   Shutter
	Offered Shutter
	// Off is log2(Offered/Ideal): positive lets in more light than wished.
	Off Stops
}

// Snap returns the step nearest to ideal in stops, of those video at fps leaves
// time for (all, when fps is zero). With no steps the camera offers any time.
// Of two steps equally near the shorter one is taken. Snapping a snapped time
// returns it unchanged.
//
// ok is false when there are steps and none is possible at fps.
func Snap(ideal Shutter, steps []Shutter, fps FrameRate) (s Snapped, ok bool) {
	if len(steps) == 0 {
		return Snapped{Ideal: ideal, Offered: ideal}, true
	}
	possible := slices.DeleteFunc(slices.Clone(steps), func(t Shutter) bool { return !t.Possible(fps) })
	if len(possible) == 0 {
		return Snapped{}, false
	}
	offered := nearest(ideal, possible)
	return Snapped{Ideal: ideal, Offered: offered, Off: offered.Over(ideal)}, true
}

// nearest returns the step nearest to t in stops; steps is not empty.
func nearest(t Shutter, steps []Shutter) Shutter {
	best, least := steps[0], t.Over(steps[0]).Abs()
	for _, s := range steps[1:] {
		away := t.Over(s).Abs()
		if d := away - least; d < -Tolerance || d <= Tolerance && s < best {
			best, least = s, away
		}
	}
	return best
}
