package shot

import (
	"fmt"

	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Effect is what is seen most of a picture.
type Effect string

// What can be seen most.
const (
	SeeGhosting Effect = "ghosting"
	SeeSmear    Effect = "smear"
	SeeClipping Effect = "clipping"
	SeeDark     Effect = "dark"
	SeeWobble   Effect = "wobble"
	SeeRipple   Effect = "ripple"
	SeeStrobing Effect = "strobing"
	SeeNoise    Effect = "noise"
	SeeBlur     Effect = "blur"
	SeeCrisp    Effect = "crisp"
)

// Values returns every Effect there is.
func (Effect) Values() []Effect {
	return []Effect{SeeGhosting, SeeSmear, SeeClipping, SeeDark, SeeWobble, SeeRipple, SeeStrobing, SeeNoise, SeeBlur, SeeCrisp}
}

// Noticed is what is seen most, where it has a size in pixels of the output frame that, and where
// to look for it.
type Noticed struct {
	Effect Effect
	Px     float64 // 0 for none
	Words  string
}

// Noise that is seen, in stops of ISO above base.
const seenGain = stop.Stops(3)

// rippleWords says what pulsing lamps do to the picture: bands only where the sensor is
// known to read its rows one after the other.
func (s *Scene) rippleWords(t stop.Shutter) string {
	size := 100 * s.Lamp.Ripple(t)
	beats := s.Question.Rate > 0 && s.Lamp.BeatHz(s.Question.Rate) >= 0.05
	isRead := s.Vibration != nil && s.Vibration.ReadoutS > 0 || s.ReadoutS > 0
	switch {
	case beats && isRead:
		return fmt.Sprintf("the brightness: it ripples by %.0f %%, and bands cross the frame", size)
	case beats:
		return fmt.Sprintf("the brightness: it ripples by %.0f %% from frame to frame", size)
	case isRead:
		return fmt.Sprintf("the brightness: bands of up to %.0f %% stand still in the frame", size)
	}
	return fmt.Sprintf("the brightness: off by up to %.0f %% and steady; whether bands stand in the frame depends on the sensor's readout, which is not known", size)
}

// Notice says what is seen most of a picture at a shutter that comes out left stops brighter than
// the meter's aim, with ISO gain stops over base.
func (s *Scene) Notice(t stop.Shutter, left, gain stop.Stops) (n Noticed) {
	set := func(effect Effect, px float64, format string, args ...any) {
		n = Noticed{effect, px, fmt.Sprintf(format, args...)}
	}
	band := s.Question.Band
	blur, step, strobes, class := 0.0, 0.0, false, motion.Frozen
	if p := s.Passing; p != nil {
		blur = motion.BlurPx(p.Lens, p.Movement, t)
		class = motion.Classify(p.Lens.Share(blur))
		if s.Question.Rate > 0 {
			step, strobes = motion.StepPx(p.Lens, p.Movement, s.Question.Rate), motion.Strobes(p.Lens, p.Movement, t, s.Question.Rate)
		}
	}
	if sh := s.Shaking; sh != nil && sh.Stabiliser.ShiftsFrames() {
		if ghost := sh.BlurPx(sh.Lens, t); ghost > sh.Tolerance*sh.Lens.WidthPx {
			set(SeeGhosting, ghost, "the whole picture: %.0f px of shake stay inside each frame, in another direction every time", ghost)
			return n
		}
	}
	switch {
	case class == motion.Smeared && s.Question.Rate > 0:
		set(SeeSmear, blur, "the stems: blurred by %.0f px, they can hardly be told apart", blur)
	case left > band.Bright+1:
		set(SeeClipping, 0, "the sky and the pale ground: %v stops over, they clip", left)
	case left < -band.Dark-1:
		set(SeeDark, 0, "the leaves: %v stops under, they block up", left.Abs())
	case s.Vibration != nil && s.Vibration.Shows(s.Vibration.Lens, t):
		wobble := s.Vibration.WobblePx(s.Vibration.Lens, t)
		set(SeeWobble, wobble, "the stems: they wave by %.1f px from top to bottom", wobble)
	case s.Lamp != nil && !s.Lamp.Safe(t):
		set(SeeRipple, 0, "%s", s.rippleWords(t))
	case strobes:
		set(SeeStrobing, step, "the stems: they jump %.0f px from frame to frame and %.0f %% of that is uncovered", step, 100*motion.Uncovered(t, s.Question.Rate))
	case gain >= seenGain:
		set(SeeNoise, 0, "the shaded leaves: %v stops of ISO bring noise", gain)
	case class == motion.Natural || class == motion.Heavy || class == motion.Smeared:
		set(SeeBlur, blur, "the stems: blurred by %.0f px, so that they flow", blur)
	default:
		set(SeeCrisp, blur, "the stems: sharp, %.1f px of blur do not show", blur)
	}
	return n
}
