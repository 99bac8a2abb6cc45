package assemble

import (
	"fmt"

	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// ShotRequest is a shot as it is typed: what people write, in the forms they
// write it, beside the camera and its kit.
type ShotRequest struct {
	Camera Camera      `json:"camera"`
	Kit    []KitFilter `json:"kit" maxItems:"200"`
	Look   ShotLook    `json:"look"`
	Light  ShotLight   `json:"light"`
	Choices
	Profile *CameraProfile `json:"profile,omitempty" doc:"what the camera is like beyond its exposure"`
	Rates   []string       `json:"rates,omitempty" maxItems:"40" maxLength:"12" doc:"frame rates the camera offers, as written"`
	Craft   *Craft         `json:"craft,omitempty" doc:"what carries the camera as it is held, and how that usually moves"`
	Scene   ShotScene      `json:"scene,omitzero"`
	Placed  *[]string      `json:"placed,omitempty" maxItems:"4" doc:"ids of the glass put on by hand; left out, the best option is taken"`
	Most    int            `json:"most,omitempty" minimum:"1" doc:"at most so many options are written, the best; all of them where left out"`
}

// Asked is what is asked of a shot beside its light: its look, what moves and shines in it,
// and the choices it is made by. Whoever stores a shot, plans it or sets a camera to it
// holds one.
type Asked struct {
	Look    ShotLook  `json:"look"`
	Scene   ShotScene `json:"scene,omitzero"`
	Choices Choices   `json:"choices"`
}

// ShotLook is the frame rate and the shutter wanted.
type ShotLook struct {
	FPS    string `json:"fps" maxLength:"12" doc:"25, 29.97, 50fps; still"`
	Target string `json:"target" maxLength:"20" doc:"180°, or a time such as 1/100"`
}

// ShotLight is what was read, in one of the forms people use.
type ShotLight struct {
	Kind   string `json:"kind" enum:"meter,auto,bias,lux,sky,looks" doc:"a hand meter, the camera's automatic, the bias of the locked camera, lux, the sky by eye, or no meter at all"`
	At     *Entry `json:"at,omitempty" doc:"the reading; in a range the highest light"`
	Low    *Entry `json:"low,omitempty" doc:"the lowest light, where the shot sees a range"`
	Sky    *Sight `json:"sky,omitempty" doc:"sky: what the eye sees; looks: what is expected by it, with three times its spread"`
	Looks  []Look `json:"looks,omitempty" maxItems:"50"`
	Prior  *Prior `json:"prior,omitempty" doc:"looks: the light to expect before the first; what the sky tells, else EV 11 to 16, outdoors by day, by default"`
	Source string `json:"source,omitempty" enum:"real,simulated" doc:"where the reading came from; real by default"`
}

// Sight is light judged by eye. What is left out stands for what is usual, and widens the
// spread.
type Sight struct {
	Sky    light.Seen   `json:"sky" doc:"clear, hazy sun, clouds with gaps, overcast, heavy cloud"`
	Facing light.Facing `json:"facing,omitempty" doc:"the sun in the subject's face, at its side, behind it; open shade; ground from above"`
	Ground light.Ground `json:"ground,omitempty" doc:"what the scene is made of"`
	Height light.Height `json:"height,omitempty" doc:"how high the sun stands"`
}

// Scene returns the light of what the eye sees.
func (s *Sight) Scene() light.Scene {
	return light.Sight{Sky: s.Sky, Facing: s.Facing, Ground: s.Ground, Height: s.Height}.Scene()
}

// Entry is one reading as typed. Which fields count depends on the kind.
type Entry struct {
	Text    string      `json:"text,omitempty" maxLength:"100" doc:"meter: f2 1/1250 iso50 or EV 14.3; lux: 6400"`
	Shutter string      `json:"shutter,omitempty" maxLength:"20" doc:"auto: what the automatic chose; bias: the locked shutter, the target by default"`
	ISO     string      `json:"iso,omitempty" maxLength:"12" doc:"auto and bias; base ISO by default"`
	Bias    string      `json:"bias,omitempty" maxLength:"8" doc:"bias: as shown, as in +0.7"`
	Glass   []string    `json:"glass,omitempty" maxItems:"4" doc:"auto and bias: ids of the loose glass that was on"`
	Stops   *stop.Stops `json:"glassStops,omitempty" minimum:"-1" maximum:"60" doc:"auto and bias: the stops of all glass that was on, as it was turned, in place of glass"`
}

// PlanWish returns the wish as plan takes it: an angle stays one when the frame
// rate changes.
func (r *ShotRequest) PlanWish(t stop.Shutter) shot.Wish {
	fps, _ := stop.ParseRate(r.Look.FPS) // wish has read both
	if deg, isAngle := stop.ParseAngle(r.Look.Target); isAngle && fps > 0 && r.Scene.Interval == 0 {
		return shot.Wish{Angle: deg}
	}
	return shot.Wish{Time: t}
}

// Wish turns the written look into the fields that solve takes.
func (r *ShotRequest) Wish() (*Wish, error) {
	fps, err := stop.ParseRate(r.Look.FPS)
	if err != nil {
		return nil, Unreadable("look.fps", err)
	}
	rate := fps
	if r.Scene.Interval > 0 { // a time-lapse is a row of stills: its angle is of the interval
		fps, rate = 0, stop.FrameRate(1/r.Scene.Interval)
	}
	t, err := stop.ParseShutter(r.Look.Target, rate)
	if err != nil {
		return nil, Unreadable("look.target", err)
	}
	if !t.Possible(fps) {
		return nil, &problem.Fault{Field: "look.target", Value: r.Look.Target, Allowed: fmt.Sprintf("at most 360°, which is %v at %v fps; a longer exposure is a photo", fps.Frame(), fps)}
	}
	return &Wish{Camera: r.Camera, FPS: float64(fps), ShutterS: &t, Kit: r.Kit, Choices: r.Choices.ForShot(), shutterField: "look.target"}, nil
}

// Setup returns the setup of the typed shot; its light is not known yet.
func (r *ShotRequest) Setup() (*Setup, error) {
	wish, err := r.Wish()
	if err != nil {
		return nil, err
	}
	return wish.Setup()
}

// Delivery is how the frames are shown.
type Delivery struct {
	Mode   motion.Showing `json:"mode"`
	FPS    float64        `json:"fps,omitempty" minimum:"0.00001" maximum:"10000" doc:"frames per second shown"`
	Factor float64        `json:"factor,omitempty" minimum:"0.00001" maximum:"10000" doc:"how many times faster than life"`
}

// Delivery returns how the frames are shown; nil shows every one.
func (d *Delivery) Delivery() (motion.Delivery, error) {
	if d == nil {
		return motion.Delivery{}, nil
	}
	out := motion.Delivery{Showing: d.Mode, Rate: stop.ExactRate(d.FPS), Factor: d.Factor}
	switch {
	case d.Mode == motion.SpeedUp && d.Factor == 0:
		return out, &problem.Fault{Field: "factor", Allowed: "how many times faster than life, above 0"}
	case d.Mode != motion.EveryFrame && d.FPS == 0:
		return out, &problem.Fault{Field: "fps", Allowed: "the frame rate at which it is shown, above 0"}
	}
	return out, nil
}

// NoPossibleStep is the fault of a camera none of whose shutter times fits into a frame.
func NoPossibleStep(field string, steps []stop.Shutter, fps stop.FrameRate) error {
	return &problem.Fault{Field: field, Value: len(steps), Allowed: fmt.Sprintf(
		"at least one shutter time of no more than %v, the length of a frame at %v fps", fps.Frame(), fps)}
}
