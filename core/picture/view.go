package picture

import (
	"math"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Frames is how many frames a loop has.
const Frames = 16

// View is what is looked at and how it moves: all of a loop but the setting.
type View struct {
	// Width and Height of the drawing in pixels, above 0. Lens is that of the output
	// frame, whose width may be another, as it is seen: a crop is in it already.
	Width, Height int
	Lens          motion.Lens
	// Movement is the subject's, DistanceM away; 0 metres is taken as usual.
	Movement motion.Movement
	// Rate is the frame rate; a still, 0, is shown as so many a second as usual.
	Rate stop.FrameRate
	// Shake is what reaches the sensor. Where frames are shifted against it, the
	// picture stands still, and keeps the blur inside each frame.
	Shake        angle.DegPerS
	ShiftsFrames bool
	Vibration    *motion.Vibration
	Lamp         *motion.Lamp
	ReadoutS     float64
	IsInterior   bool
	Ground       Ground
	Weather      Weather
	// HasHands puts the hands of somebody who rides before the lens.
	HasHands      bool
	Seed          uint64
	subjectMetres float64
}

// Ground is what lies before the camera.
type Ground int

// The grounds.
const (
	Field Ground = iota
	Road
	Water
	Pale // stone or sand
	Snow
)

// Weather is what the sky looks like.
type Weather int

// The weathers.
const (
	Fair Weather = iota // a few clouds
	ClearSky
	Hazy // thin cloud before the sun
	Gaps // clouds with gaps
	Overcast
	Heavy // dark cloud
)

// cloud returns how much of a place of the sky cloud covers, and how bright it is there beside a
// white one, of a texture around 1.
func (w Weather) cloud(texture float64) (cover, bright float64) {
	switch w {
	case ClearSky:
		return 0, 0
	case Hazy:
		return min(max(0.42+0.5*(texture-1), 0.1), 0.8), 0.58
	case Gaps:
		return min(max((texture-0.86)*4, 0), 1), 0.85
	case Overcast:
		return 1, 0.46 + 0.05*(texture-1)
	case Heavy:
		return 1, 0.2 + 0.13*(texture-1)
	}
	return min(max((texture-1)*2.2, 0), 1), 1
}

// Exposure is the setting under test.
type Exposure struct {
	Shutter stop.Shutter
	// Error is how much brighter than the meter's aim the picture comes out.
	Error stop.Stops
	// Gain is how far ISO is above base.
	Gain stop.Stops
}

// What a shot that says nothing is drawn with.
const (
	usualDistance = 3.0 // metres
	usualRate     = stop.FrameRate(25)
)

// fPx returns the image scale of the drawing in pixels per radian.
func (v *View) fPx() float64 {
	return v.Lens.PxPerRadian() * float64(v.Width) / v.Lens.WidthPx
}

func (v *View) rate() stop.FrameRate {
	if v.Rate == 0 {
		return usualRate
	}
	return v.Rate
}

func (v *View) distance() float64 {
	if v.Movement.DistanceM > 0 {
		return v.Movement.DistanceM
	}
	return usualDistance
}

// pxPerS returns how fast what lies metres away slides through the drawing.
func (v *View) pxPerS(metres float64) float64 {
	m := v.Movement
	m.DistanceM = metres
	return motion.BlurPx(motion.Lens{WidthPx: float64(v.Width), HFOV: v.Lens.HFOV, Projection: v.Lens.Projection}, m, 1)
}

// shakeBlurPx returns the blur of the shake inside one frame.
func (v *View) shakeBlurPx(t stop.Shutter) float64 {
	return v.fPx() * v.Shake.RadiansPerS() * t.Seconds()
}

// wobble returns the rolling-shutter wobble from the middle to either side, in
// pixels of the drawing, and the softness that the averaged swing becomes.
func (v *View) wobble(t stop.Shutter) (px, soft float64) {
	if v.Vibration == nil {
		return 0, 0
	}
	scale := float64(v.Width) / v.Lens.WidthPx
	return v.Vibration.WobblePx(v.Lens, t) / 2 * scale, v.Vibration.SoftnessPx(v.Lens, t) * scale
}

// ripple returns by what factor lamps brighten a row of a frame.
func (v *View) ripple(t stop.Shutter, frame int, row float64) float64 {
	if v.Lamp == nil {
		return 1
	}
	at := float64(frame)/float64(v.rate()) + v.ReadoutS*row/float64(v.Height)
	return 1 + v.Lamp.Ripple(t)*math.Cos(2*math.Pi*v.Lamp.PulseHz*at)
}
