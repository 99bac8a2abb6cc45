package shot

import (
	"errors"
	"fmt"

	"pinhole/core/angle"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// School says what the shutter is chosen by.
type School string

// The schools of the shutter target.
const (
	ByAngle         School = "angle"
	ByTime          School = "fixed"
	StabiliserFirst School = "stabiliser-first" // never slower than the floor, whatever the look
	Free            School = "free"             // far, slow scenery: any shutter
	ByAutomatic     School = "automatic"        // the camera's own, behind the glass that brings it nearest the target
)

// Values returns every School there is.
func (School) Values() []School {
	return []School{ByAngle, ByTime, StabiliserFirst, Free, ByAutomatic}
}

// Wish is the shutter wanted: an angle, or a time that stays when the frame rate
// changes. Exactly one is above 0.
type Wish struct {
	Angle stop.Angle
	Time  stop.Shutter
}

// at returns the wished time at a frame rate.
func (w Wish) at(fps stop.FrameRate) stop.Shutter {
	if w.Angle > 0 {
		return w.Angle.At(fps)
	}
	return w.Time
}

// Scene is one shot with everything that makes a demand on its shutter. Parts
// that are nil make none.
type Scene struct {
	// Question holds camera, light and choices; its Setting.Shutter is not used.
	Question glass.Question
	// Stacks are what the kit makes, the one with the least on first. Rebuild
	// returns what it would make with one more filter.
	Stacks  []glass.Stack
	Rebuild func(glass.Filter) ([]glass.Stack, error)
	// Away is glass of the kit that is not at hand.
	Away   []*glass.Filter
	Wish   Wish
	School School
	// Rates are the camera's frame rates, Views
	// the fields of view it can be switched to, beside the one in use.
	Rates []stop.FrameRate
	Views []angle.Deg
	// Uncropped is the field of view with an electronic stabiliser off, 0 for the same.
	Uncropped angle.Deg
	// Delivery is how the frames are shown, Carried what carries the camera.
	Delivery motion.Delivery
	Carried  motion.Carried
	// Standings say of filters, by their ids, how they stand on the rig in use; one that
	// is not named is not judged.
	Standings map[string]fit.Standing

	// Automatic is the camera's automatic exposure, nil where it is not known.
	Automatic *glass.Automatic
	// ReadoutS is how long the sensor reads a frame, in seconds, 0 where that is not known.
	ReadoutS  float64
	Shaking   *Shaking
	Passing   *Passing
	Vibration *Vibrating
	Lamp      *motion.Lamp

	swings *swings // worked out when it is first asked for
}

// Shaking is the shake that a stabiliser has to hide.
type Shaking struct {
	Lens motion.Lens
	motion.Shake
	// Trial is the slowest shutter judged good when the same path was taken at each, and
	// TrialRate the shake of that path, 0 for walking. 0 is no trial.
	Trial     stop.Shutter
	TrialRate angle.DegPerS
}

// Slowest returns the slowest shutter at which the stabiliser works. ok is false where
// there is none, as where nothing shakes.
//
// A trial is evidence about the tolerance and about its own shake, not about another's:
// every floor is the computed one times the ratio found, trial / floor(shake of the trial).
func (s *Shaking) Slowest() (floor stop.Shutter, ok bool) {
	if stop.AtMost(float64(s.Rate), float64(motion.StandShake)) {
		return 0, false
	}
	floor, ok = s.Floor(s.Lens)
	if !ok || s.Trial == 0 {
		return floor, ok
	}
	tried := s.Shake
	tried.Rate = s.TrialRate
	if tried.Rate == 0 {
		walk, _ := motion.ActivityNamed("walk")
		tried.Rate = walk.Shake
	}
	computed, ok := tried.Floor(s.Lens)
	return floor * (s.Trial / computed), ok
}

// Passing is what moves through the picture.
type Passing struct {
	Lens motion.Lens
	motion.Movement
}

// Vibrating is what a motor does to the camera.
type Vibrating struct {
	Lens motion.Lens
	motion.Vibration
}

// ErrNoStep is returned where no shutter the camera offers is possible at the
// frame rate, or the wished time is longer than a frame or shorter than the camera
// goes.
var ErrNoStep = errors.New("shot: no shutter of the camera fits into a frame at this rate")

// offers reports whether the camera takes t at the scene's frame rate.
func (s *Scene) offers(t stop.Shutter) bool {
	return t.Possible(s.Question.Rate) && stop.AtMost(float64(s.Question.Fastest), float64(t))
}

// target returns the shutter the camera offers for the wish.
func (s *Scene) target() (stop.Snapped, error) {
	snapped, ok := stop.Snap(s.Wish.at(s.Question.Rate), s.Question.Steps, s.Question.Rate)
	if !ok || !s.offers(snapped.Offered) {
		return snapped, ErrNoStep
	}
	return snapped, nil
}

// Bounds of a window where the camera or the frame rate does not set them.
const (
	fastestUsual   = stop.Shutter(1.0 / 8000)
	aroundTarget   = stop.Stops(3)
	longestOfStill = stop.Shutter(1)
)

// span returns the times the window shows: from the camera's fastest to the
// length of a frame.
func (s *Scene) span(target stop.Shutter) stop.Span {
	fastest := s.Question.Fastest
	if fastest == 0 {
		fastest = min(fastestUsual, target.Times(-aroundTarget))
	}
	longest := max(longestOfStill, target.Times(aroundTarget))
	if s.Question.Rate > 0 {
		longest = s.Question.Rate.Frame()
	}
	return stop.Span{From: min(fastest, target), To: longest}
}

// Change is a small change to a scene; what is nil stays as it is.
type Change struct {
	Rate *stop.FrameRate
	Time *stop.Shutter // wished from now on, whatever the frame rate
	// Stand puts the camera on a stand, its stabiliser off.
	Stand   bool
	HFOV    *angle.Deg // of every part that has a lens
	Ceiling *stop.ISO
	// Glass is the stops of a new grey filter that goes on by itself.
	Glass *stop.Stops
	// Bring is one of Away.
	Bring *glass.Filter
}

// GlassStops returns the stops of the filter that comes to the kit, or to hand; 0 for none.
func (c *Change) GlassStops() stop.Stops {
	switch {
	case c.Glass != nil:
		return *c.Glass
	case c.Bring != nil:
		return c.Bring.Stops
	}
	return 0
}

// With returns the scene changed; s itself stays as it is. The error is that of
// Rebuild.
func (s *Scene) With(c Change) (Scene, error) {
	changed := *s
	q := &changed.Question
	if c.Rate != nil {
		q.Rate = *c.Rate
	}
	if c.Time != nil {
		changed.Wish = Wish{Time: *c.Time}
	}
	if c.Ceiling != nil {
		q.Ceiling = *c.Ceiling
	}
	if extra := c.Bring; extra != nil || c.Glass != nil {
		if extra == nil {
			extra = &glass.Filter{ID: NewGlass, Kind: glass.ND, Stops: *c.Glass}
		}
		stacks, err := s.Rebuild(*extra)
		if err != nil {
			return Scene{}, fmt.Errorf("with another filter: %w", err)
		}
		changed.Stacks = stacks
	}
	if c.Stand {
		changed.stand()
	}
	if c.HFOV != nil {
		changed.widen(*c.HFOV)
	}
	return changed, nil
}

// PutOn returns the scene with glass on that was put on by hand: of all there is only that. s
// itself stays as it is.
func (s *Scene) PutOn(stack *glass.Stack) *Scene {
	on := *s
	on.Stacks = []glass.Stack{*stack}
	return &on
}

// stand puts the camera on a stand.
func (s *Scene) stand() {
	s.Carried = motion.OnStand
	if s.Shaking != nil {
		shaking := *s.Shaking
		shaking.Stabiliser, shaking.Rate = motion.NoStabiliser, motion.StandShake
		s.Shaking = &shaking
	}
	if s.Uncropped > 0 {
		s.widen(s.Uncropped)
	}
}

// NewGlass is the id of a filter that a trade adds.
const NewGlass = "new filter"

func (s *Scene) widen(hfov angle.Deg) {
	if s.Shaking != nil {
		shaking := *s.Shaking
		shaking.Lens.HFOV = hfov
		s.Shaking = &shaking
	}
	if s.Passing != nil {
		passing := *s.Passing
		passing.Lens.HFOV = hfov
		s.Passing = &passing
	}
	if s.Vibration != nil {
		vibration := *s.Vibration
		vibration.Lens.HFOV = hfov
		s.Vibration = &vibration
	}
}

// lens returns a lens of the scene; all parts see through the same one.
func (s *Scene) lens() (motion.Lens, bool) {
	switch {
	case s.Shaking != nil:
		return s.Shaking.Lens, true
	case s.Passing != nil:
		return s.Passing.Lens, true
	case s.Vibration != nil:
		return s.Vibration.Lens, true
	}
	return motion.Lens{}, false
}
