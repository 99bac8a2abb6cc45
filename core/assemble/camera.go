package assemble

import (
	"pinhole/core/angle"
	"pinhole/core/fit"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

// Camera is what choosing glass needs to know of a camera.
type Camera struct {
	Aperture   stop.FNumber   `json:"aperture" minimum:"0.5" maximum:"64" doc:"f-number, T-number where known"`
	ISOBase    stop.ISO       `json:"isoBase" minimum:"1" maximum:"1000000"`
	ISOCeiling stop.ISO       `json:"isoCeiling" minimum:"1" maximum:"10000000" doc:"the highest ISO that still looks good"`
	Steps      []stop.Shutter `json:"steps,omitempty" maxItems:"200" minimum:"0.0000001" maximum:"86400" doc:"the shutter times the camera offers, in seconds; none means any"`
	Mount      fit.Mount      `json:"mount,omitempty" doc:"how it takes a filter as it is held; how many layers are offered follows it unless maxLayers says"`
	FastestS   stop.Shutter   `json:"fastestS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"the shortest shutter time, in seconds; left out, the shortest of steps"`
}

// fastest returns the shortest shutter time, 0 where it is not known.
func (c *Camera) fastest() stop.Shutter {
	fastest := c.FastestS
	for _, s := range c.Steps {
		if c.FastestS == 0 && (fastest == 0 || s < fastest) {
			fastest = s
		}
	}
	return fastest
}

// CameraProfile is what a camera is like beyond its exposure; what is left out is
// not known, and what hangs on it is not judged.
type CameraProfile struct {
	Lens       *LensFields       `json:"lens,omitempty"`
	Stabiliser motion.Stabiliser `json:"stabiliser,omitempty"`
	CropShare  float64           `json:"cropShare,omitempty" minimum:"0" maximum:"0.9" doc:"share of the width that its electronic stabiliser crops away"`
	PassShare  *float64          `json:"passShare,omitempty" minimum:"0" maximum:"1" doc:"share of the shake its gimbal lets through; 0.08 by default"`
	TrialS     stop.Shutter      `json:"trialS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"slowest shutter judged good in a shutter test of its stabiliser, seconds"`
	TrialShake *angle.DegPerS    `json:"trialShakeDegS,omitempty" minimum:"0" maximum:"100000" doc:"shake of the path that the test was made on, degrees a second; that of walking by default"`
	ViewsDeg   []angle.Deg       `json:"viewsDeg,omitempty" maxItems:"20" minimum:"0.01" maximum:"360" doc:"horizontal fields of view it can be switched to, beside that of lens, degrees"`
	ReadoutS   float64           `json:"readoutS,omitempty" minimum:"0" maximum:"1" doc:"time its sensor takes to read a frame, seconds"`
	Automatic  *AutomaticProfile `json:"automatic,omitempty" doc:"how its automatic exposure behaves"`
	MaxTiltDeg *angle.Deg        `json:"maxTiltDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far up it tilts with glass on, degrees"`
	Flies      bool              `json:"flies,omitempty" doc:"it rides on a craft, which tilts and rolls"`
	FocalMm    float64           `json:"focalMm,omitempty" minimum:"0.1" maximum:"2000" doc:"true focal length, millimetres"`
}

// AutomaticProfile is how a camera's automatic behaves.
type AutomaticProfile struct {
	Priority   glass.Moves   `json:"priority" doc:"what moves first"`
	PreferredS *stop.Shutter `json:"preferredS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"with priority iso, the shutter it holds; 1/250 by default"`
	SlowestS   *stop.Shutter `json:"slowestS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"the slowest it takes; a frame by default"`
}

// Check returns the fault of a profile that contradicts itself, its field as in
// "profile.lens.hfovDeg".
func (p *CameraProfile) Check() error {
	if p == nil || p.Lens == nil {
		return nil
	}
	_, err := p.Lens.Lens("profile.lens.")
	return err
}

// seen returns the field of view that the stabiliser's crop leaves of a lens.
func (p *CameraProfile) seen(f LensFields) angle.Deg {
	lens, err := f.Lens("")
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

// AssumedAutomatic is the automatic of a camera whose habits are not known: it
// moves the shutter first, from 1/8000 where the fastest is not known either.
func AssumedAutomatic(c *Camera, fps stop.FrameRate) *glass.Automatic {
	a := &glass.Automatic{
		Aperture: c.Aperture, Base: c.ISOBase, Ceiling: c.ISOCeiling, Fastest: c.fastest(), Slowest: stop.Shutter(1), Moves: glass.ShutterFirst,
	}
	if a.Fastest == 0 {
		a.Fastest = stop.Shutter(1.0 / 8000)
	}
	if fps > 0 {
		a.Slowest = max(fps.Frame(), a.Fastest)
	}
	return a
}

// ViewOf returns what a camera of this profile sees, nil where its focal length,
// lens or frame is not known. The f-number is the lens's own, not its T-number;
// without a crop, since the widest picture is the one that shows dark corners.
func (p *CameraProfile) ViewOf(n stop.FNumber, frame *motion.FrameSize) *fit.View {
	if p == nil || p.Lens == nil || p.FocalMm == 0 || frame == nil {
		return nil
	}
	lens, err := p.Lens.Lens("")
	if err != nil {
		return nil
	}
	return &fit.View{Aperture: n, FocalMm: p.FocalMm, HalfDiagonalDeg: min(lens.HalfDiagonal(frame.Aspect()), steepest)}
}

// steepest is the widest half diagonal that corners are computed for.
const steepest = angle.Deg(89)
