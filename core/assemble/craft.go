package assemble

import (
	"fmt"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
)

// Craft is what carries a camera as it is held, and how that usually moves: a hand, a helmet,
// a drone with its pilot's rates. A shot says only where it differs.
type Craft struct {
	Activity motion.ActivityName `json:"activity,omitempty" doc:"how it usually moves, a rough measure of its shake"`
	Shake    *angle.DegPerS      `json:"shakeDegS,omitempty" minimum:"0" maximum:"100000" doc:"shake as measured, degrees a second; replaces the activity's"`
	// Shakes outweigh what is assumed of an activity.
	Shakes    []ActivityShake `json:"shakes,omitempty" maxItems:"20" doc:"shake as measured, by what it does"`
	Vibration *MotorSwing     `json:"vibration,omitempty" doc:"what vibrates in it, as measured; of a shot that does not say"`

	Rates    AxisRates `json:"rates,omitzero" doc:"the pilot's rates"`
	Compared AxisRates `json:"compared,omitzero" doc:"other rates, to be laid over these"`
}

// ActivityShake is the shake of a person or a craft that does something, as measured.
type ActivityShake struct {
	Activity motion.ActivityName `json:"activity"`
	Shake    angle.DegPerS       `json:"shakeDegS" minimum:"0" maximum:"100000" doc:"90th percentile of angular speed, degrees a second"`
}

// shakeOf returns the shake that was measured of an activity; ok is false where none was.
func (c *Craft) shakeOf(name motion.ActivityName) (rate angle.DegPerS, ok bool) {
	if c == nil {
		return 0, false
	}
	i := slices.IndexFunc(c.Shakes, func(s ActivityShake) bool { return s.Activity == name })
	if i < 0 {
		return 0, false
	}
	return c.Shakes[i].Shake, true
}

// AxisRates is a pilot's rates by axis. What is left out is not known.
type AxisRates struct {
	Pan   *StickFields `json:"pan,omitempty" doc:"yaw"`
	Pitch *StickFields `json:"pitch,omitempty"`
	Roll  *StickFields `json:"roll,omitempty"`
}

// StickFields is a pilot's rates about one axis.
type StickFields struct {
	CentreDegS angle.DegPerS `json:"centreDegS" minimum:"0" maximum:"100000" doc:"slope around the middle, degrees a second at full stick"`
	MaxDegS    angle.DegPerS `json:"maxDegS" minimum:"0" maximum:"100000" doc:"rate at full stick, at least centreDegS"`
	Expo       float64       `json:"expo" minimum:"0" maximum:"1"`
}

// About returns the rates about an axis, nil where they are not known.
func (a *AxisRates) About(axis motion.Axis) *StickFields {
	switch axis {
	case motion.Pitch:
		return a.Pitch
	case motion.Roll:
		return a.Roll
	}
	return a.Pan
}

// Rates returns the rates. Its fault names the field.
func (f *StickFields) Rates() (motion.Rates, error) {
	if f.MaxDegS < f.CentreDegS {
		return motion.Rates{}, &problem.Fault{Field: "maxDegS", Value: f.MaxDegS, Allowed: fmt.Sprintf("at least centreDegS, %v", float64(f.CentreDegS))}
	}
	return motion.Rates{Centre: f.CentreDegS, Max: f.MaxDegS, Expo: f.Expo}, nil
}

// Check returns the fault of a craft that could not be.
func (c *Craft) Check() error {
	for i, s := range c.Shakes {
		if slices.ContainsFunc(c.Shakes[:i], func(t ActivityShake) bool { return t.Activity == s.Activity }) {
			return &problem.Fault{Field: fmt.Sprintf("shakes[%d].activity", i), Value: s.Activity, Allowed: "each activity once"}
		}
	}
	if c.Vibration != nil {
		if _, err := c.Vibration.vibration(0, "vibration."); err != nil {
			return err
		}
	}
	for _, of := range []struct {
		name  string
		rates *AxisRates
	}{{"rates", &c.Rates}, {"compared", &c.Compared}} {
		for _, axis := range motion.Axis("").Values() {
			if f := of.rates.About(axis); f != nil {
				if _, err := f.Rates(); err != nil {
					return problem.At(of.name+"."+string(axis), err)
				}
			}
		}
	}
	return nil
}

// Activity returns what carries the camera: as the shot says, else as its craft usually does.
// ok is false where neither says.
func (r *ShotRequest) Activity() (a motion.Activity, ok bool) {
	name := r.Scene.Activity
	if name == "" && r.Craft != nil {
		name = r.Craft.Activity
	}
	return motion.ActivityNamed(name)
}

// ShakeRate returns the shake of the shot, as measured before as assumed and of the shot before
// its craft; isMeasured says which, ok is false where nothing tells.
func (r *ShotRequest) ShakeRate() (rate angle.DegPerS, isMeasured, ok bool) {
	if r.Scene.Shake != nil {
		return *r.Scene.Shake, true, true
	}
	if r.Scene.Activity == "" && r.Craft != nil && r.Craft.Shake != nil {
		return *r.Craft.Shake, true, true
	}
	a, ok := r.Activity()
	if rate, isMeasured = r.Craft.shakeOf(a.Name); isMeasured {
		return rate, true, true
	}
	return a.Shake, false, ok
}

// Motor returns what vibrates: as the shot says, else as was measured of its craft; nil where
// neither says.
func (r *ShotRequest) Motor() *MotorSwing {
	if r.Scene.Motor == nil && r.Craft != nil {
		return r.Craft.Vibration
	}
	return r.Scene.Motor
}
