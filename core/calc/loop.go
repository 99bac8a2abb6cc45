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
	Still   bool                 `json:"still,omitempty" doc:"one frame, where nothing is to move: a sixteenth of the work"`
}

// LoopAnswer is what a drawing shows.
type LoopAnswer struct {
	Name       string       `json:"name" doc:"the setting in words"`
	ShutterS   stop.Shutter `json:"shutterS"`
	ISO        stop.ISO     `json:"iso"`
	ErrorStops stop.Stops   `json:"errorStops" doc:"how the picture comes out against the meter"`
	Effect     shot.Effect  `json:"effect" doc:"what is seen most"`
	SizePx     *float64     `json:"sizePx,omitempty" doc:"its size in pixels of the output frame, where it has one"`
	LookAt     string       `json:"lookAt"`
	Simulated  bool         `json:"simulated" doc:"always true: the scene is drawn, not filmed"`
}

// Loop is a drawing made ready: what to draw, and what it shows.
type Loop struct {
	View     picture.View
	Exposure picture.Exposure
	Frames   int // how many are drawn, from the first on
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
	loop := &Loop{Frames: picture.Frames, View: viewOf(scene), Exposure: picture.Exposure{Shutter: set.shutter, Error: set.left, Gain: set.iso.Over(b.Question.Setting.ISO)}}
	loop.View.ReadoutS = readoutOf(&r.Shot)
	loop.View.Weather = weatherOf(&r.Shot)
	loop.View.Ground, loop.View.HasHands = groundOf(&r.Shot, scene), scene.Carried == motion.Ridden
	if r.Small {
		loop.View.Width, loop.View.Height = loopWidth/2, loopHeight/2
	}
	if r.Still {
		loop.Frames = 1
	}
	loop.Answer = LoopAnswer{Name: set.name, ShutterS: set.shutter, ISO: set.iso, ErrorStops: set.left, Simulated: true}
	seen := scene.Notice(set.shutter, set.left, loop.Exposure.Gain)
	loop.Answer.Effect, loop.Answer.LookAt = seen.Effect, seen.Words
	if seen.Px > 0 {
		loop.Answer.SizePx = &seen.Px
	}
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

var weathers = map[light.Seen]picture.Weather{
	light.SeenClear: picture.ClearSky, light.SeenHazy: picture.Hazy, light.SeenGaps: picture.Gaps, light.SeenOvercast: picture.Overcast, light.SeenHeavy: picture.Heavy,
}

// weatherOf returns the sky as it was seen; a fair one where nobody says.
func weatherOf(r *assemble.ShotRequest) picture.Weather {
	if r.Light.Sky == nil {
		return picture.Fair
	}
	return weathers[r.Light.Sky.Sky]
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
		return drawn{fmt.Sprintf("%s, %s at %v", name, o.ShutterS.Spoken(), b.Question.OfferedISO(o.ISO)), o.ShutterS, o.ISO, o.LeftStops}
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
				return drawn{fmt.Sprintf("%s, %s at %v", s.Name, s.Text, b.Question.OfferedISO(s.ISO)), s.ShutterS, s.ISO, s.LeftStops}, nil
			}
		}
		return drawn{}, &problem.Fault{Field: "school", Value: r.School, Allowed: "one of the approaches in the shot's answer"}
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
