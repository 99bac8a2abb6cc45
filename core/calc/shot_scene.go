package calc

import (
	"fmt"
	"pinhole/core/shot"
	"slices"
	"strings"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// CameraProfile is what a camera is like beyond its exposure; what is left out is
// not known, and what hangs on it is not judged.
type CameraProfile struct {
	Lens       *LensFields       `json:"lens,omitempty"`
	Stabiliser motion.Stabiliser `json:"stabiliser,omitempty" enum:"none,electronic,gimbal,gimbal+electronic,post"`
	CropShare  float64           `json:"cropShare,omitempty" minimum:"0" maximum:"0.9" doc:"share of the width that its electronic stabiliser crops away"`
	PassShare  *float64          `json:"passShare,omitempty" minimum:"0" maximum:"1" doc:"share of the shake its gimbal lets through; 0.08 by default"`
	TrialS     stop.Shutter      `json:"trialS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"slowest shutter judged good in a stepped trial of its stabiliser, seconds"`
	ReadoutS   float64           `json:"readoutS,omitempty" minimum:"0" maximum:"1" doc:"time its sensor takes to read a frame, seconds"`
	Automatic  *AutomaticProfile `json:"automatic,omitempty" doc:"how its automatic exposure behaves"`
	MaxTiltDeg *angle.Deg        `json:"maxTiltDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far up it tilts with glass on, degrees"`
	Flies      bool              `json:"flies,omitempty" doc:"it rides on a craft, which tilts and rolls"`
	FocalMm    float64           `json:"focalMm,omitempty" minimum:"0.1" maximum:"2000" doc:"true focal length, millimetres"`
}

// AutomaticProfile is how a camera's automatic behaves.
type AutomaticProfile struct {
	Priority   glass.Moves   `json:"priority" enum:"shutter,iso" doc:"what moves first"`
	PreferredS *stop.Shutter `json:"preferredS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"with priority iso, the shutter it holds; 1/250 by default"`
	SlowestS   *stop.Shutter `json:"slowestS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"the slowest it takes; a frame by default"`
}

// Check returns the fault of a profile that contradicts itself, its field as in
// "profile.lens.hfovDeg".
func (p *CameraProfile) Check() error {
	if p == nil || p.Lens == nil {
		return nil
	}
	_, err := p.Lens.lens("profile.lens.")
	return err
}

// seen returns the field of view that the stabiliser's crop leaves of a lens.
func (p *CameraProfile) seen(f LensFields) angle.Deg {
	lens, err := f.lens("")
	if err != nil || p.CropShare == 0 || !p.Stabiliser.ShiftsFrames() {
		return f.HFOVDeg // a lens that cannot be is refused where it is used
	}
	return lens.Cropped(p.CropShare).HFOV
}

// preferredShutter is the shutter that an automatic which raises ISO first holds
// when its profile does not say.
const preferredShutter = stop.Shutter(1.0 / 250)

// AutomaticExposure returns the automatic exposure of a camera of this profile, nil
// where its habit or its fastest shutter is not known. Its limits are those of the
// camera and of a frame.
func (p *CameraProfile) AutomaticExposure(c *Camera, fps stop.FrameRate) *glass.Automatic {
	if p == nil || p.Automatic == nil || c.fastest() == 0 {
		return nil
	}
	a := &glass.Automatic{
		Aperture: c.Aperture, Base: c.ISOBase, Ceiling: c.ISOCeiling, Fastest: c.fastest(), Slowest: stop.Shutter(1),
		Moves: p.Automatic.Priority, Preferred: preferredShutter,
	}
	if fps > 0 {
		a.Slowest = fps.Frame()
	}
	if s := p.Automatic.SlowestS; s != nil {
		a.Slowest = min(a.Slowest, *s)
	}
	a.Slowest = max(a.Slowest, a.Fastest)
	if s := p.Automatic.PreferredS; s != nil {
		a.Preferred = *s
	}
	a.Preferred = min(max(a.Preferred, a.Fastest), a.Slowest)
	return a
}

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

// tried returns the request with the changes of its what-if made and its lens as
// the stabiliser shows it, cropped. A field of view that is tried is the one seen.
func (r ShotRequest) tried() ShotRequest {
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

// shake returns the shake of the shot; ok is false where neither a measured one
// nor an activity is given.
func (s *ShotScene) shake() (rate angle.DegPerS, ok bool) {
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

// planned turns the shot into what plan weighs, on a bench whose light is known.
func (r *ShotRequest) planned(b *bench, wish shot.Wish) (*shot.Scene, error) {
	s := &shot.Scene{
		Question: b.question, Stacks: b.stacks, Rebuild: b.rebuild(r.Choices), Wish: wish, School: r.Scene.School, Steps: r.Camera.Steps,
		Automatic: r.Profile.AutomaticExposure(&r.Camera, b.question.Rate),
	}
	for _, text := range r.Rates {
		fps, err := stop.ParseRate(text)
		if err != nil {
			return nil, unreadable("rates", err)
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
		lamp, err := f.lamp("scene.lamps.")
		if err != nil {
			return err
		}
		s.Lamp = &lamp
	}
	var movement motion.Movement
	if f := r.Scene.Movement; f != nil {
		var err error
		if movement, err = f.movement("scene.movement."); err != nil {
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
		if vibration, err = (&VibrationFields{f.Hz, f.RPM, f.Blades, f.AmplitudeDeg, readout}).vibration("scene.motor."); err != nil {
			return err
		}
	}
	if r.Profile == nil || r.Profile.Lens == nil {
		return nil
	}
	lens, err := r.Profile.Lens.lens("profile.lens.")
	if err != nil {
		return err
	}
	if rate, ok := r.Scene.shake(); ok && r.Profile.Stabiliser != "" {
		shake := (&ShakeFields{Kind: r.Profile.Stabiliser, ShakeDegS: rate, PassShare: r.Profile.PassShare}).shake()
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

// shotChange writes a trade as a merge patch for the fields of a shot. The text
// of a look is what a person would have typed.
func shotChange(c shot.Change) map[string]any {
	look, scene, whatIf := map[string]any{}, map[string]any{}, map[string]any{}
	if c.Rate != nil {
		look["fps"] = c.Rate.String()
	}
	if c.Time != nil {
		look["target"] = c.Time.String()
	}
	if c.Shake != nil {
		scene["shakeDegS"] = *c.Shake
	}
	if c.Stabiliser != nil {
		whatIf["stabiliser"] = *c.Stabiliser
	}
	if c.HFOV != nil {
		whatIf["hfovDeg"] = *c.HFOV
	}
	if c.Ceiling != nil {
		whatIf["isoCeiling"] = *c.Ceiling
	}
	if c.Glass != nil {
		whatIf["glassStops"] = *c.Glass
	}
	patch := map[string]any{}
	if len(whatIf) > 0 {
		scene["whatIf"] = whatIf
	}
	if len(look) > 0 {
		patch["look"] = look
	}
	if len(scene) > 0 {
		patch["scene"] = scene
	}
	return patch
}

// missing lists what is not known and so is not judged, in words.
func (r *ShotRequest) missing(s *shot.Scene) []string {
	var words []string
	_, isShaken := r.Scene.shake()
	hasLens := r.Profile != nil && r.Profile.Lens != nil
	asks := isShaken || r.Scene.Movement != nil || r.Scene.Motor != nil
	switch {
	case asks && !hasLens:
		words = append(words, "the camera's field of view and frame width are not known, so blur, stabiliser and wobble are not judged")
	case isShaken && s.Shaking == nil:
		words = append(words, "what stabiliser the camera has is not known, so its floor is not judged")
	}
	if !isShaken && s.Shaking == nil && r.Profile != nil && r.Profile.Stabiliser.ShiftsFrames() {
		words = append(words, "nothing is said of what carries the camera, so the stabiliser's floor is not judged")
	}
	if r.Scene.School == shot.ByAutomatic && s.Automatic == nil {
		words = append(words, "how this camera's automatic behaves, or its fastest shutter, is not known, so its target stands")
	}
	return words
}

// assumed lists the defaults that the answer rests on, in words.
func (r *ShotRequest) assumed(s *shot.Scene, on []string) []string {
	var words []string
	if s.Shaking != nil {
		for _, a := range motion.Activities() {
			if r.Scene.Shake == nil && a.Name == r.Scene.Activity {
				words = append(words, fmt.Sprintf("a shake of %.3g°/s is assumed for %s, until it is measured", float64(a.Shake), a.Words))
			}
		}
		if p := r.Profile; p.PassShare == nil && (p.Stabiliser == motion.Gimbal || p.Stabiliser == motion.GimbalAndElectronic) {
			words = append(words, fmt.Sprintf("the gimbal is assumed to let %.0f %% of the shake through", 100*motion.GimbalPasses))
		}
	}
	for i := range r.Kit {
		k := &r.Kit[i]
		if spread := k.Kind.Spread(); spread > 0 && k.MeasuredStops == nil && k.Kind != glass.Variable && slices.Contains(on, k.ID) {
			words = append(words, fmt.Sprintf("the %s is counted as %v stops, ±%v, until it is measured", strings.ReplaceAll(string(k.Kind), "-", " with "), k.Stops, spread))
		}
	}
	return words
}
