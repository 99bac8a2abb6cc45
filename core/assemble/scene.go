package assemble

import (
	"fmt"
	"pinhole/core/angle"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// ShotScene is what moves, shakes and shines in a shot, and the school it is shot
// by. Nothing in it has to be given.
type ShotScene struct {
	School   shot.School         `json:"school,omitempty" enum:"stabiliser-first,free,automatic" doc:"left out, the shutter target rules"`
	Activity motion.ActivityName `json:"activity,omitempty" doc:"what carries the camera, a rough measure of its shake; the craft's by default"`
	Shake    *angle.DegPerS      `json:"shakeDegS,omitempty" minimum:"0" maximum:"100000" doc:"measured shake, degrees a second; replaces the activity's"`
	Movement *MovementFields     `json:"movement,omitempty" doc:"what passes"`
	Lamps    *LampFields         `json:"lamps,omitempty" doc:"what lights the scene, where it pulses"`
	Motor    *MotorSwing         `json:"motor,omitempty" doc:"what vibrates"`
	Parts    *PartsFields        `json:"parts,omitempty" doc:"the light of the parts of one frame"`
	Stick    *StickFields        `json:"stick,omitempty" doc:"rates of the pan stick tried for this shot; the craft's by default, over which these are laid"`
	Tilt     *UptiltRequest      `json:"tilt,omitempty" doc:"camera tilt against speed"`
	Delivery *Delivery           `json:"delivery,omitempty" doc:"how the frames are shown"`
	Interval float64             `json:"intervalS,omitempty" minimum:"0.001" maximum:"86400" doc:"time-lapse: seconds from frame to frame"`
	WhatIf   *WhatIf             `json:"whatIf,omitempty" doc:"changes to the gear that are being tried"`
}

// MotorSwing is the motor that shakes the camera.
type MotorSwing struct {
	Hz           *float64  `json:"hz,omitempty" minimum:"0.001" maximum:"100000" doc:"frequency as measured; this or rpm"`
	RPM          *float64  `json:"rpm,omitempty" minimum:"0.1" maximum:"1000000" doc:"turns a minute"`
	Blades       *int      `json:"blades,omitempty" minimum:"1" maximum:"20" doc:"with rpm; 1 by default"`
	AmplitudeDeg angle.Deg `json:"amplitudeDeg" minimum:"0" maximum:"90" doc:"how far the camera swings to either side, degrees"`
}

// vibration returns the swing, for a sensor that takes so long to be read out.
func (m *MotorSwing) vibration(readoutS float64, path string) (motion.Vibration, error) {
	return (&VibrationFields{m.Hz, m.RPM, m.Blades, m.AmplitudeDeg, readoutS}).Vibration(path)
}

// PartsFields is the light of the parts of one frame.
type PartsFields struct {
	SubjectEV100 stop.EV         `json:"subjectEv100" minimum:"-20" maximum:"40"`
	BrightEV100  stop.EV         `json:"brightEv100" minimum:"-20" maximum:"40"`
	DarkEV100    stop.EV         `json:"darkEv100" minimum:"-20" maximum:"40"`
	ExposeFor    light.ExposeFor `json:"exposeFor"`
}

// WhatIf is gear other than the camera's own, tried for this shot.
type WhatIf struct {
	Stabiliser motion.Stabiliser `json:"stabiliser,omitempty"`
	HFOVDeg    *angle.Deg        `json:"hfovDeg,omitempty" minimum:"0.01" maximum:"360"`
	ISOCeiling *stop.ISO         `json:"isoCeiling,omitempty" minimum:"1" maximum:"10000000"`
	GlassStops *stop.Stops       `json:"glassStops,omitempty" minimum:"0" maximum:"40" doc:"a grey filter that is not in the kit"`
}

// TriedGlass is what a grey filter is called that is tried and not in the kit, "" for none.
func (s *ShotScene) TriedGlass() string {
	if s.WhatIf == nil || s.WhatIf.GlassStops == nil {
		return ""
	}
	return fmt.Sprintf("new %g-stop filter", float64(*s.WhatIf.GlassStops))
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
		r.Choices = r.Choices.AlsoAtHand(shot.NewGlass)
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

// carried returns what carries the camera. One that flies hovers where its activity is
// not a flight, and without an activity where nothing is passed.
func (r *ShotRequest) carried() motion.Carried {
	a, isKnown := r.Activity()
	if r.Profile == nil || !r.Profile.Flies {
		return a.Carried
	}
	moves := r.Scene.Movement != nil && r.Scene.Movement.SpeedMps != nil && *r.Scene.Movement.SpeedMps > 0
	if isKnown && a.Carried != motion.Flying || !isKnown && !moves {
		return motion.Hovers
	}
	return motion.Flying
}

// Assembled is a typed shot as it is judged: its setup, its light, and the scene.
type Assembled struct {
	*Setup
	*Lit
	Scene *shot.Scene
}

// Assemble makes the question of a typed shot.
func (r *ShotRequest) Assemble() (*Assembled, error) {
	tried := r.Tried()
	setup, err := tried.Setup()
	if err != nil {
		return nil, err
	}
	lit, err := tried.Lit(setup)
	if err != nil {
		return nil, err
	}
	scene, err := r.scene(&tried, setup)
	return &Assembled{setup, lit, scene}, err
}

// AssembleIn makes the question of a typed shot in a light other than the typed one.
func (r *ShotRequest) AssembleIn(light glass.Light) (*Assembled, error) {
	tried := r.Tried()
	setup, err := tried.Setup()
	if err != nil {
		return nil, err
	}
	setup.Question.Light = light
	scene, err := r.scene(&tried, setup)
	return &Assembled{Setup: setup, Scene: scene}, err
}

// AssembleLocked makes the question of a typed shot whose camera is locked at a shutter,
// whatever was wished or a menu offers.
func (r *ShotRequest) AssembleLocked(at stop.Shutter) (*Assembled, error) {
	tried := r.Tried()
	setup, err := tried.Setup()
	if err != nil {
		return nil, err
	}
	if fps := setup.Question.Rate; !at.Possible(fps) {
		return nil, &problem.Fault{Field: "shutterS", Value: at, Allowed: fmt.Sprintf("at most %v, the length of a frame at %v fps", fps.Frame(), fps)}
	}
	setup.Question.Setting.Shutter = at
	lit, err := tried.Lit(setup)
	if err != nil {
		return nil, err
	}
	scene, err := r.scene(&tried, setup)
	return &Assembled{setup, lit, scene}, err
}

// scene turns the shot, with what is tried tried, into what is judged, on a setup whose
// light is known.
func (r *ShotRequest) scene(tried *ShotRequest, b *Setup) (*shot.Scene, error) {
	s, err := tried.bareScene(b)
	if err != nil {
		return nil, err
	}
	if p := r.Profile; p != nil && p.Lens != nil && (r.Scene.WhatIf == nil || r.Scene.WhatIf.HFOVDeg == nil) {
		s.Uncropped = p.Lens.HFOVDeg
	}
	return s, nil
}

func (r *ShotRequest) bareScene(b *Setup) (*shot.Scene, error) {
	s := &shot.Scene{
		Question: b.Question, Stacks: b.Stacks, Away: b.Rules.Away(b.Kit), Rebuild: b.Rebuild, Wish: r.PlanWish(b.Snapped.Ideal), School: r.Scene.School,
		Automatic: r.Profile.AutomaticExposure(&r.Camera, b.Question.Rate), Carried: r.carried(), Standings: map[string]fit.Standing{},
	}
	if r.Profile != nil {
		s.ReadoutS = r.Profile.ReadoutS
	}
	var err error
	if s.Delivery, err = r.Scene.Delivery.Delivery(); err != nil {
		return nil, problem.At("scene.delivery", err)
	}
	for i := range r.Kit {
		if k := &r.Kit[i]; k.Standing != "" {
			s.Standings[k.ID] = k.Standing
		}
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
	motor := r.Motor()
	if motor != nil {
		readout := 0.0
		if r.Profile != nil {
			readout = r.Profile.ReadoutS
		}
		var err error
		if vibration, err = motor.vibration(readout, "scene.motor."); err != nil {
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
	if rate, _, ok := r.ShakeRate(); ok && r.Profile.Stabiliser != "" {
		shake := (&ShakeFields{Kind: r.Profile.Stabiliser, ShakeDegS: rate, PassShare: r.Profile.PassShare}).Shake()
		s.Shaking = &shot.Shaking{Lens: lens, Shake: shake, Trial: r.Profile.TrialS}
		if r.Profile.TrialShake != nil {
			s.Shaking.TrialRate = *r.Profile.TrialShake
		}
	}
	for _, hfov := range r.Profile.ViewsDeg {
		view := *r.Profile.Lens
		view.HFOVDeg = hfov
		s.Views = append(s.Views, r.Profile.seen(view))
	}
	if r.Scene.Movement != nil {
		s.Passing = &shot.Passing{Lens: lens, Movement: movement}
	}
	if motor != nil {
		s.Vibration = &shot.Vibrating{Lens: lens, Vibration: vibration}
	}
	return nil
}
