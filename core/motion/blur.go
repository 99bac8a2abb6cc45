package motion

import (
	"math"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Movement is how the scene moves past the camera. The zero value stands still.
type Movement struct {
	// SpeedMps is the speed of the subject against the camera, in metres a
	// second, at least 0, DistanceM away, above 0 where the speed is.
	SpeedMps  float64
	DistanceM float64
	// OffAxis is how far off the lens's axis the subject lies when the camera
	// flies towards it; 90° is a subject that passes sideways.
	OffAxis angle.Deg
	// Turn is how fast the camera turns.
	Turn angle.DegPerS
}

// sidewaysMps is the part of the speed that moves the picture: v·sin θ.
func (m Movement) sidewaysMps() float64 { return m.SpeedMps * math.Abs(m.OffAxis.Sin()) }

// radiansPerS returns how fast directions move, the two movements in the worst
// way round: v·sin θ/d + |ω|.
func (m Movement) radiansPerS() float64 {
	past := 0.0
	if v := m.sidewaysMps(); v > 0 {
		past = v / m.DistanceM
	}
	return past + math.Abs(m.Turn.RadiansPerS())
}

// BlurPx returns how far the picture moves while the shutter is open:
// f_px·(v·sin θ/d + ω)·t, small angles taken as straight.
func BlurPx(l Lens, m Movement, t stop.Shutter) float64 {
	return l.PxPerRadian() * m.radiansPerS() * t.Seconds()
}

// StepPx returns how far the picture moves from frame to frame: the blur of an
// exposure of 1/fps.
func StepPx(l Lens, m Movement, fps stop.FrameRate) float64 { return BlurPx(l, m, fps.Frame()) }

// Uncovered returns the part of the step from frame to frame that no exposure
// covers: 1 − t·fps, 0 for an exposure of a whole frame.
func Uncovered(t stop.Shutter, fps stop.FrameRate) float64 {
	return max(0, 1-t.Seconds()*float64(fps))
}

// Class says what a blur looks like.
type Class string

// The classes, from the sharpest.
const (
	Frozen  Class = "frozen"
	Crisp   Class = "crisp"
	Natural Class = "natural"
	Heavy   Class = "heavy"
	Smeared Class = "smeared"
)

// Values returns every Class there is.
func (Class) Values() []Class {
	return []Class{Frozen, Crisp, Natural, Heavy, Smeared}
}

// Shares of the picture's width at which the classes begin. They are defaults of
// practice, not optics.
const (
	CrispFrom   = 0.001
	NaturalFrom = 0.004 // where blur starts to show
	HeavyFrom   = 0.02
	SmearedFrom = 0.05
)

// Classify returns the class of a blur of the given share of the picture's
// width. The lower end of each class belongs to it.
func Classify(share float64) Class {
	for _, c := range []struct {
		below float64
		class Class
	}{{CrispFrom, Frozen}, {NaturalFrom, Crisp}, {HeavyFrom, Natural}, {SmearedFrom, Heavy}} {
		if share < c.below-stop.Tolerance {
			return c.class
		}
	}
	return Smeared
}

// Thresholds of strobing: a step longer than a share of the picture's width, of
// which more than a share is uncovered.
const (
	strobeStep      = 0.01
	strobeUncovered = 0.6
)

// Strobes reports whether movement at this shutter falls apart into single
// pictures: the step exceeds 1 % of the width and more than 60 % of it is
// uncovered.
func Strobes(l Lens, m Movement, t stop.Shutter, fps stop.FrameRate) bool {
	return StepStrobes(l.Share(StepPx(l, m, fps)), Uncovered(t, fps))
}

// StepStrobes reports the same of a step, as a share of the width, of which a part is uncovered.
func StepStrobes(step, uncovered float64) bool {
	return !stop.AtMost(step, strobeStep) && !stop.AtMost(uncovered, strobeUncovered)
}

// IsLongStep reports whether the step from frame to frame exceeds 1 % of the width.
func IsLongStep(l Lens, m Movement, fps stop.FrameRate) bool {
	return !stop.AtMost(l.Share(StepPx(l, m, fps)), strobeStep)
}

// InViewS returns how long a passing subject takes across the width of the picture, in
// seconds; +Inf where nothing passes.
func (m Movement) InViewS(l Lens) float64 {
	m.Turn = 0
	return 1 / l.Share(BlurPx(l, m, 1))
}

// ShutterForShare returns the shutter time at which the blur is the given share
// of the picture's width; ok is false where nothing moves.
func ShutterForShare(l Lens, m Movement, share float64) (t stop.Shutter, ok bool) {
	perS := l.Share(BlurPx(l, m, 1))
	if perS == 0 {
		return 0, false
	}
	return stop.Shutter(share / perS), true
}

// VisibleWithinM returns the distance in metres beyond which the passing of the
// subject shows no blur, 0.4 % of the width: f_px·v·sin θ·t/(0.004·W). It is 0
// for a subject that stands still. A turn of the camera is not counted: it blurs
// what is near and far alike.
func VisibleWithinM(l Lens, m Movement, t stop.Shutter) float64 {
	return l.PxPerRadian() * m.sidewaysMps() * t.Seconds() / (NaturalFrom * l.WidthPx)
}

// readableS is the least time in seconds that a point should take across the
// frame at 24 fps and 180°, the cinematographer's seven-second rule.
const readableS = 7

// ReadablePan returns the fastest turn that stays readable at a frame rate:
// HFOV/(7 s·24/fps).
func ReadablePan(l Lens, fps stop.FrameRate) angle.DegPerS {
	return angle.DegPerS(float64(l.HFOV) / (readableS * 24 / float64(fps)))
}

// Shows reports whether a blur of a class is seen: below it, glass for the look is a matter
// of taste.
func Shows(c Class) bool { return c != Frozen && c != Crisp }
