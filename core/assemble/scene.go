package assemble

import (
	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// ShotScene is what moves, shakes and shines in a shot, and the school it is shot
// by. Nothing in it has to be given.
type ShotScene struct {
	School   shot.School     `json:"school,omitempty" enum:"stabiliser-first,free,automatic" doc:"left out, the shutter target rules"`
	Activity string          `json:"activity,omitempty" enum:"stand,held,walk,brisk,run,helmet,bar,cruise,freestyle" doc:"what carries the camera; a rough measure of its shake"`
	Shake    *angle.DegPerS  `json:"shakeDegS,omitempty" minimum:"0" maximum:"100000" doc:"measured shake, degrees a second; replaces the activity's"`
	Movement *MovementFields `json:"movement,omitempty" doc:"what passes"`
	Lamps    *LampFields     `json:"lamps,omitempty" doc:"what lights the scene, where it pulses"`
	Motor    *MotorSwing     `json:"motor,omitempty" doc:"what vibrates"`
	Parts    *PartsFields    `json:"parts,omitempty" doc:"the light of the parts of one frame"`
	Stick    *StickFields    `json:"stick,omitempty" doc:"how the pilot's stick turns the craft"`
	Tilt     *UptiltRequest  `json:"tilt,omitempty" doc:"camera tilt against speed"`
	Delivery *Delivery       `json:"delivery,omitempty" doc:"how the frames are shown"`
	Interval float64         `json:"intervalS,omitempty" minimum:"0.001" maximum:"86400" doc:"time-lapse: seconds from frame to frame"`
	WhatIf   *WhatIf         `json:"whatIf,omitempty" doc:"changes to the gear that are being tried"`
}

// MotorSwing is the motor that shakes the camera.
type MotorSwing struct {
	Hz           *float64  `json:"hz,omitempty" minimum:"0.001" maximum:"100000" doc:"frequency as measured; this or rpm"`
	RPM          *float64  `json:"rpm,omitempty" minimum:"0.1" maximum:"1000000" doc:"turns a minute"`
	Blades       *int      `json:"blades,omitempty" minimum:"1" maximum:"20" doc:"with rpm; 1 by default"`
	AmplitudeDeg angle.Deg `json:"amplitudeDeg" minimum:"0" maximum:"90" doc:"how far the camera swings to either side, degrees"`
}

// PartsFields is the light of the parts of one frame.
type PartsFields struct {
	SubjectEV100 stop.EV         `json:"subjectEv100" minimum:"-20" maximum:"40"`
	BrightEV100  stop.EV         `json:"brightEv100" minimum:"-20" maximum:"40"`
	DarkEV100    stop.EV         `json:"darkEv100" minimum:"-20" maximum:"40"`
	ExposeFor    light.ExposeFor `json:"exposeFor" enum:"subject,bright,between"`
}

// StickFields is a pilot's rates.
type StickFields struct {
	CentreDegS angle.DegPerS `json:"centreDegS" minimum:"0" maximum:"100000"`
	MaxDegS    angle.DegPerS `json:"maxDegS" minimum:"0" maximum:"100000"`
	Expo       float64       `json:"expo" minimum:"0" maximum:"1"`
}

// WhatIf is gear other than the camera's own, tried for this shot.
type WhatIf struct {
	Stabiliser motion.Stabiliser `json:"stabiliser,omitempty" enum:"none,electronic,gimbal,gimbal+electronic,post"`
	HFOVDeg    *angle.Deg        `json:"hfovDeg,omitempty" minimum:"0.01" maximum:"360"`
	ISOCeiling *stop.ISO         `json:"isoCeiling,omitempty" minimum:"1" maximum:"10000000"`
	GlassStops *stop.Stops       `json:"glassStops,omitempty" minimum:"0" maximum:"40" doc:"a grey filter that is not in the kit"`
}

// Tried returns the request with the changes of its what-if made and its lens as
// the stabiliser shows it, cropped. A field of view that is tried is the one seen.
func (r ShotRequest) Tried() ShotRequest {
	w := r.Scene.WhatIf
	if w == nil {
		w = &WhatIf{}
	}
	if w.ISOCeiling != nil {
		r.Camera.ISOCeiling = *w.ISOCeiling
	}
	if w.GlassStops != nil {
		r.Kit = append(r.Kit[:len(r.Kit):len(r.Kit)], KitFilter{ID: shot.NewGlass, Kind: glass.ND, Stops: *w.GlassStops})
	}
	if r.Profile == nil {
		return r
	}
	profile := *r.Profile
	if w.Stabiliser != "" {
		profile.Stabiliser = w.Stabiliser
	}
	if profile.Lens != nil {
		lens := *profile.Lens
		lens.HFOVDeg = profile.seen(lens)
		if w.HFOVDeg != nil {
			lens.HFOVDeg = *w.HFOVDeg
		}
		profile.Lens = &lens
	}
	r.Profile = &profile
	return r
}

// CarriedAt returns the shake of the shot; ok is false where neither a measured one
// nor an activity is given.
func (s *ShotScene) CarriedAt() (rate angle.DegPerS, ok bool) {
	if s.Shake != nil {
		return *s.Shake, true
	}
	for _, a := range motion.Activities() {
		if a.Name == s.Activity {
			return a.Shake, true
		}
	}
	return 0, false
}

// Planned turns the shot into what plan weighs, on a bench whose light is known.
func (r *ShotRequest) Planned(b *Setup, wish shot.Wish) (*shot.Scene, error) {
	s := &shot.Scene{
		Question: b.Question, Stacks: b.Stacks, Rebuild: b.Rebuild(r.Choices), Wish: wish, School: r.Scene.School, Steps: r.Camera.Steps,
		Automatic: r.Profile.AutomaticExposure(&r.Camera, b.Question.Rate),
	}
	for _, text := range r.Rates {
		fps, err := stop.ParseRate(text)
		if err != nil {
			return nil, Unreadable("rates", err)
		}
		if fps > 0 {
			s.Rates = append(s.Rates, fps)
		}
	}
	return s, r.demands(s)
}

// demands fills in what shakes, passes, vibrates and pulses, as far as the
// camera's profile lets it be judged.
func (r *ShotRequest) demands(s *shot.Scene) error {
	if f := r.Scene.Lamps; f != nil {
		lamp, err := f.Lamp("scene.lamps.")
		if err != nil {
			return err
		}
		s.Lamp = &lamp
	}
	var movement motion.Movement
	if f := r.Scene.Movement; f != nil {
		var err error
		if movement, err = f.Movement("scene.movement."); err != nil {
			return err
		}
	}
	var vibration motion.Vibration
	if f := r.Scene.Motor; f != nil {
		readout := 0.0
		if r.Profile != nil {
			readout = r.Profile.ReadoutS
		}
		var err error
		if vibration, err = (&VibrationFields{f.Hz, f.RPM, f.Blades, f.AmplitudeDeg, readout}).Vibration("scene.motor."); err != nil {
			return err
		}
	}
	if r.Profile == nil || r.Profile.Lens == nil {
		return nil
	}
	lens, err := r.Profile.Lens.Lens("profile.lens.")
	if err != nil {
		return err
	}
	if rate, ok := r.Scene.CarriedAt(); ok && r.Profile.Stabiliser != "" {
		shake := (&ShakeFields{Kind: r.Profile.Stabiliser, ShakeDegS: rate, PassShare: r.Profile.PassShare}).Shake()
		s.Shaking = &shot.Shaking{Lens: lens, Shake: shake, Trial: r.Profile.TrialS}
	}
	if r.Scene.Movement != nil {
		s.Passing = &shot.Passing{Lens: lens, Movement: movement}
	}
	if r.Scene.Motor != nil {
		s.Vibration = &shot.Vibrating{Lens: lens, Vibration: vibration}
	}
	return nil
}
