package calc

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/shot"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/picture"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// LoopRequest asks for a drawing of a shot at one setting.
type LoopRequest struct {
	Shot    assemble.ShotRequest `json:"shot"`
	Show    string               `json:"show" enum:"taken,automatic,option,school" doc:"what the shot is told; the camera's automatic without loose glass; another option; another school"`
	Filters []string             `json:"filters,omitempty" maxItems:"4" doc:"option: the ids of its filters"`
	School  string               `json:"school,omitempty" enum:"180,360,90,own,stabiliser-first,free,automatic" doc:"school: as the answer's schools name it"`
	Small   bool                 `json:"small,omitempty" doc:"half as wide and high, for a small place: a quarter of the work"`
}

// LoopAnswer is what a drawing shows.
type LoopAnswer struct {
	Name       string       `json:"name" doc:"the setting in words"`
	ShutterS   stop.Shutter `json:"shutterS"`
	ISO        stop.ISO     `json:"iso"`
	ErrorStops stop.Stops   `json:"errorStops" doc:"how the picture comes out against the meter"`
	Effect     string       `json:"effect" enum:"ghosting,smear,clipping,dark,wobble,ripple,strobing,noise,blur,crisp" doc:"what is seen most"`
	SizePx     *float64     `json:"sizePx,omitempty" doc:"its size in pixels of the output frame, where it has one"`
	LookAt     string       `json:"lookAt"`
	Simulated  bool         `json:"simulated" doc:"always true: the scene is drawn, not filmed"`
}

// Loop is a drawing made ready: what to draw, and what it shows.
type Loop struct {
	View     picture.View
	Exposure picture.Exposure
	Answer   LoopAnswer
}

// Size of a drawing, in pixels.
const loopWidth, loopHeight = 640, 360

// DescribeLoop answers loop.
func DescribeLoop(r LoopRequest) (*LoopAnswer, error) {
	loop, err := PlanLoop(r)
	if err != nil {
		return nil, err
	}
	return &loop.Answer, nil
}

// PlanLoop makes the drawing of a shot at a setting ready.
func PlanLoop(r LoopRequest) (*Loop, error) {
	a, scene, b, err := answerShot(r.Shot)
	if err != nil {
		return nil, problem.At("shot", err)
	}
	set, err := r.setting(a, scene, b)
	if err != nil {
		return nil, err
	}
	loop := &Loop{View: viewOf(scene), Exposure: picture.Exposure{Shutter: set.shutter, Error: set.left, Gain: set.iso.Over(b.Question.Setting.ISO)}}
	loop.View.ReadoutS = readoutOf(&r.Shot)
	loop.View.Ground, loop.View.HasHands = groundOf(&r.Shot, scene), scene.Carried == motion.Ridden
	if r.Small {
		loop.View.Width, loop.View.Height = loopWidth/2, loopHeight/2
	}
	loop.Answer = LoopAnswer{Name: set.name, ShutterS: set.shutter, ISO: set.iso, ErrorStops: set.left, Simulated: true}
	loop.Answer.notice(scene, loop.Exposure, b.Question.Band)
	return loop, nil
}

// fasterThanARun, in metres a second: what passes so fast and does not fly is seen from a road.
const fasterThanARun = 3.5

// groundOf returns what lies before the camera: what was said of it by eye, else a road for who
// rides or is carried along one.
func groundOf(r *assemble.ShotRequest, s *shot.Scene) picture.Ground {
	if sky := r.Light.Sky; sky != nil {
		switch sky.Ground {
		case light.WaterGround:
			return picture.Water
		case light.PaleGround:
			return picture.Pale
		case light.SnowGround:
			return picture.Snow
		}
	}
	isUnsaid := s.Carried == "" && s.Passing != nil && s.Passing.SpeedMps > fasterThanARun
	if s.Carried == motion.Ridden || isUnsaid {
		return picture.Road
	}
	return picture.Field
}

func readoutOf(r *assemble.ShotRequest) float64 {
	if r.Profile == nil {
		return 0
	}
	return r.Profile.ReadoutS
}

// drawn is a setting and how the picture comes out at it.
type drawn struct {
	name    string
	shutter stop.Shutter
	iso     stop.ISO
	left    stop.Stops
}

func (r *LoopRequest) setting(a *ShotAnswer, scene *shot.Scene, b *assemble.Setup) (drawn, error) {
	ofOption := func(o Option, name string) drawn {
		return drawn{fmt.Sprintf("%s, %s at %v", name, o.ShutterS.Spoken(), o.ISO), o.ShutterS, o.ISO, o.LeftStops}
	}
	switch r.Show {
	case "automatic":
		auto := scene.Automatic
		name := "auto exposure, no filter"
		if auto == nil {
			auto = assemble.AssumedAutomatic(&r.Shot.Camera, b.Question.Rate)
			name += ", assumed to move the shutter first"
		}
		set, left := auto.Expose(b.Question.Light.High, a.Chosen.Stops-looseStops(a))
		return drawn{fmt.Sprintf("%s: %s", name, autoText(set, 0)), set.Shutter, set.ISO, left}, nil
	case "option":
		for _, o := range a.Solve.Options {
			if glass.SameIDs(o.Filters, r.Filters) {
				return ofOption(o, "that filter"), nil
			}
		}
		return drawn{}, &problem.Fault{Field: "filters", Value: r.Filters, Allowed: "the filters of one of the shot's options"}
	case "school":
		for _, s := range a.Schools {
			if s.School == r.School {
				return drawn{fmt.Sprintf("%s, %s at %v", s.Name, s.Text, s.ISO), s.ShutterS, s.ISO, s.LeftStops}, nil
			}
		}
		return drawn{}, &problem.Fault{Field: "school", Value: r.School, Allowed: "one of the schools in the shot's answer"}
	}
	return ofOption(a.Chosen, "your setting"), nil
}

// looseStops returns the stops of the chosen glass that can come off.
func looseStops(a *ShotAnswer) stop.Stops {
	return a.Chosen.LostStops - a.Chosen.ErrorStops
}

// usualLens is drawn through where the camera's is not known.
var usualLens = motion.Lens{WidthPx: assemble.UsualWidthPx, HFOV: assemble.UsualHFOV, Projection: motion.Rectilinear}

func viewOf(s *shot.Scene) picture.View {
	v := picture.View{Width: loopWidth, Height: loopHeight, Lens: usualLens, Rate: s.Question.Rate, Lamp: s.Lamp, IsInterior: s.Lamp != nil, Seed: 1}
	if p := s.Passing; p != nil {
		v.Lens, v.Movement = p.Lens, p.Movement
	}
	if sh := s.Shaking; sh != nil {
		v.Lens, v.ShiftsFrames, v.Shake = sh.Lens, sh.Stabiliser.ShiftsFrames(), sh.Reaching()
	}
	if m := s.Vibration; m != nil {
		v.Lens, v.Vibration = m.Lens, &m.Vibration
	}
	return v
}

// Noise that is seen, in stops of ISO above base.
const seenGain = stop.Stops(3)

// rippleWords says what pulsing lamps do to the picture: bands only where the sensor is
// known to read its rows one after the other.
func rippleWords(s *shot.Scene, t stop.Shutter) string {
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

// notice says what is seen most at a setting, and how large it is.
func (a *LoopAnswer) notice(s *shot.Scene, e picture.Exposure, band glass.Band) {
	set := func(effect string, px float64, format string, args ...any) {
		a.Effect, a.LookAt = effect, fmt.Sprintf(format, args...)
		if px > 0 {
			a.SizePx = &px
		}
	}
	t := e.Shutter
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
			set("ghosting", ghost, "the whole picture: %.0f px of shake stay inside each frame, in another direction every time", ghost)
			return
		}
	}
	switch {
	case class == motion.Smeared && s.Question.Rate > 0:
		set("smear", blur, "the stems: blurred by %.0f px, they can hardly be told apart", blur)
	case a.ErrorStops > band.Bright+1:
		set("clipping", 0, "the sky and the pale ground: %v stops over, they clip", a.ErrorStops)
	case a.ErrorStops < -band.Dark-1:
		set("dark", 0, "the leaves: %v stops under, they block up", a.ErrorStops.Abs())
	case s.Vibration != nil && s.Vibration.Shows(s.Vibration.Lens, t):
		wobble := s.Vibration.WobblePx(s.Vibration.Lens, t)
		set("wobble", wobble, "the stems: they wave by %.1f px from top to bottom", wobble)
	case s.Lamp != nil && !s.Lamp.Safe(t):
		set("ripple", 0, "%s", rippleWords(s, t))
	case strobes:
		set("strobing", step, "the stems: they jump %.0f px from frame to frame and %.0f %% of that is uncovered", step, 100*motion.Uncovered(t, s.Question.Rate))
	case e.Gain >= seenGain:
		set("noise", 0, "the shaded leaves: %v stops of ISO bring noise", e.Gain)
	case class == motion.Natural || class == motion.Heavy || class == motion.Smeared:
		set("blur", blur, "the stems: blurred by %.0f px, so that they flow", blur)
	default:
		set("crisp", blur, "the stems: sharp, %.1f px of blur do not show", blur)
	}
}
