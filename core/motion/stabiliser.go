package motion

import (
	"math"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/stop"
)

// Stabiliser says what holds the picture still.
type Stabiliser string

// The kinds of stabiliser.
const (
	NoStabiliser        Stabiliser = "none"
	Electronic          Stabiliser = "electronic" // in the camera: shifts whole frames
	Gimbal              Stabiliser = "gimbal"     // turns the camera against the shake
	GimbalAndElectronic Stabiliser = "gimbal+electronic"
	Post                Stabiliser = "post" // later, from a log of the gyro
)

// Values returns every Stabiliser there is.
func (Stabiliser) Values() []Stabiliser {
	return []Stabiliser{NoStabiliser, Electronic, Gimbal, GimbalAndElectronic, Post}
}

// ShiftsFrames reports whether the stabiliser moves whole frames after they were
// exposed, so that blur inside a frame stays and shows as ghosting.
func (s Stabiliser) ShiftsFrames() bool {
	return s == Electronic || s == GimbalAndElectronic || s == Post
}

// HasGimbal reports whether a gimbal takes most of the shake before the sensor.
func (s Stabiliser) HasGimbal() bool { return s == Gimbal || s == GimbalAndElectronic }

// Defaults that a user can change.
const (
	// GimbalPasses is the share of the shake that a three-axis gimbal lets through.
	GimbalPasses = 0.08
	// GhostTolerance is the blur inside one frame, as a share of the width, that
	// a stabilised picture hides.
	GhostTolerance = 0.002
)

// Shake is how a body shakes its camera, and what is to hide it.
type Shake struct {
	Stabiliser Stabiliser
	// Rate is the shake: the 90th percentile of angular speed, at least 0.
	Rate angle.DegPerS
	// Passes is the share that the gimbal lets through, in [0, 1]; it counts only
	// where there is a gimbal.
	Passes float64
	// Tolerance is the hidden blur as a share of the picture's width, above 0.
	Tolerance float64
}

// Reaching returns the shake that reaches the sensor.
func (s Shake) Reaching() angle.DegPerS {
	if s.Stabiliser.HasGimbal() {
		return s.Rate * angle.DegPerS(s.Passes)
	}
	return s.Rate
}

// BlurPx returns the blur the shake leaves inside one frame: f_px·ω·g·t.
func (s Shake) BlurPx(l Lens, t stop.Shutter) float64 {
	return BlurPx(l, Movement{Turn: s.Reaching()}, t)
}

// Floor returns the slowest shutter time at which the stabiliser still works:
// q·W/(f_px·ω·g). ok is false where there is no floor: nothing shifts frames, or
// nothing shakes.
func (s Shake) Floor(l Lens) (floor stop.Shutter, ok bool) {
	if !s.Stabiliser.ShiftsFrames() {
		return 0, false
	}
	floor, ok = ShutterForShare(l, Movement{Turn: s.Reaching()}, s.Tolerance)
	return floor, ok && !math.IsInf(floor.Seconds(), 0)
}

// ActivityName is what an activity is called on the wire.
type ActivityName string

// Values returns every ActivityName there is.
func (ActivityName) Values() []ActivityName {
	names := make([]ActivityName, len(activities))
	for i, a := range activities {
		names[i] = a.Name
	}
	return names
}

// Activity is what the person or craft does that carries the camera.
type Activity struct {
	Name    ActivityName
	Words   string
	Shake   angle.DegPerS
	Carried Carried
}

// StandShake is the shake of a camera on a stand: nothing shakes.
const StandShake = angle.DegPerS(0.1)

// activities are the shakes to expect until a gyro log gives the real one; rough, and
// held against what practised eyes see (docs/model.md, One judge). A road and a flight
// differ by terrain and by hand, so that they stand twice.
var activities = []Activity{
	{"stand", "on a tripod", StandShake, OnStand},
	{"held", "handheld", 6, ByHand},
	{"walk", "walking calmly", 20, ByHand},
	{"brisk", "walking briskly", 30, ByHand},
	{"run", "running", 70, ByHand},
	{"helmet-smooth", "on a helmet or chest, smooth road", 12, Ridden},
	{"helmet", "on a helmet, rough road or trail", 40, Ridden},
	{"bar-smooth", "on a handlebar, smooth road", 25, Ridden},
	{"bar", "on a handlebar or chest, rough road or trail", 90, Ridden},
	{"cruise", "in FPV cruise", 12, Flying},
	{"freestyle", "in FPV freestyle", 80, Flying},
}

// Activities returns what may carry a camera, the calmest first of each kind.
func Activities() []Activity { return slices.Clone(activities) }

// ActivityNamed returns the activity of that name; ok is false where there is none.
func ActivityNamed(name ActivityName) (a Activity, ok bool) {
	i := slices.IndexFunc(activities, func(a Activity) bool { return a.Name == name })
	if i < 0 {
		return Activity{}, false
	}
	return activities[i], true
}
