package calc

import (
	"fmt"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// MovementFields is how the scene moves past the camera.
type MovementFields struct {
	SpeedMps   *float64       `json:"speedMps,omitempty" minimum:"0" maximum:"1000" doc:"speed of subject against camera in metres a second; needs distanceM"`
	DistanceM  *float64       `json:"distanceM,omitempty" minimum:"0.001" maximum:"1000000" doc:"how far away the subject is, in metres"`
	OffAxisDeg *angle.Deg     `json:"offAxisDeg,omitempty" minimum:"0" maximum:"180" doc:"flying towards it: how far off the axis it lies; 90, passing sideways, by default"`
	TurnDegS   *angle.DegPerS `json:"turnDegS,omitempty" minimum:"-100000" maximum:"100000" doc:"how fast the camera turns, degrees a second"`
}

// sideways is the angle off the axis of what passes sideways.
const sideways = angle.Deg(90)

// movement returns the movement; path is where the fields stand, as in "blur.".
func (f *MovementFields) movement(path string) (motion.Movement, error) {
	m := motion.Movement{OffAxis: sideways}
	switch {
	case f.SpeedMps == nil && f.DistanceM == nil && f.TurnDegS == nil:
		return m, &problem.Fault{Field: path + "speedMps", Allowed: "a speed with distanceM, or turnDegS; 0 for a subject that stands still"}
	case f.SpeedMps != nil && f.DistanceM == nil && *f.SpeedMps > 0:
		return m, &problem.Fault{Field: path + "distanceM", Allowed: "the distance in metres that goes with speedMps"}
	case f.SpeedMps == nil && f.DistanceM != nil:
		return m, &problem.Fault{Field: path + "speedMps", Allowed: "the speed that goes with distanceM; 0 for a subject that stands still"}
	}
	if f.SpeedMps != nil {
		m.SpeedMps = *f.SpeedMps
	}
	if f.DistanceM != nil {
		m.DistanceM = *f.DistanceM
	}
	if f.OffAxisDeg != nil {
		m.OffAxis = *f.OffAxisDeg
	}
	if f.TurnDegS != nil {
		m.Turn = *f.TurnDegS
	}
	return m, nil
}

// BlurRequest asks what a movement does to the picture.
type BlurRequest struct {
	LensFields
	ShutterS stop.Shutter `json:"shutterS" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
	FPS      float64      `json:"fps" minimum:"0.00001" maximum:"10000" doc:"frames per second"`
	MovementFields
}

// BlurAnswer is the blur and the step from frame to frame.
type BlurAnswer struct {
	FPx             float64        `json:"fPx" doc:"image scale at the centre in pixels per radian"`
	BlurPx          float64        `json:"blurPx"`
	BlurShare       float64        `json:"blurShare" doc:"of the picture's width"`
	Class           motion.Class   `json:"class" enum:"frozen,crisp,natural,heavy,smeared"`
	StepPx          float64        `json:"stepPx" doc:"from frame to frame"`
	UncoveredShare  float64        `json:"uncoveredShare" doc:"of the step, not covered by the exposure"`
	Strobes         bool           `json:"strobes"`
	VisibleWithinM  *float64       `json:"visibleWithinM,omitempty" doc:"beyond this distance the passing shows no blur, in metres; left out without speedMps"`
	ReadablePanDegS angle.DegPerS  `json:"readablePanDegS" doc:"the fastest turn that stays readable"`
	PanDegS         *angle.DegPerS `json:"panDegS,omitempty" doc:"the turn asked about"`
	PanReadable     *bool          `json:"panReadable,omitempty" doc:"left out without a turn"`
}

// Blur answers blur.
func Blur(r BlurRequest) (*BlurAnswer, error) {
	lens, err := r.lens("")
	if err != nil {
		return nil, err
	}
	m, err := r.movement("")
	if err != nil {
		return nil, err
	}
	fps := stop.ExactRate(r.FPS)
	if !r.ShutterS.Possible(fps) {
		return nil, tooLong("shutterS", r.ShutterS, fps)
	}
	a := blurAt(lens, m, r.ShutterS, fps)
	if r.SpeedMps == nil {
		a.VisibleWithinM = nil
	}
	if r.TurnDegS == nil {
		a.PanDegS, a.PanReadable = nil, nil
	}
	return &a, nil
}

// blurAt measures a movement at a shutter; at the zero frame rate, a still, without
// what lies between frames.
func blurAt(l motion.Lens, m motion.Movement, t stop.Shutter, fps stop.FrameRate) BlurAnswer {
	a := BlurAnswer{FPx: l.PxPerRadian(), BlurPx: motion.BlurPx(l, m, t), VisibleWithinM: number(motion.VisibleWithinM(l, m, t))}
	a.BlurShare = l.Share(a.BlurPx)
	a.Class = motion.Classify(a.BlurShare)
	if fps > 0 {
		a.StepPx, a.UncoveredShare, a.Strobes = motion.StepPx(l, m, fps), motion.Uncovered(t, fps), motion.Strobes(l, m, t, fps)
		a.ReadablePanDegS = motion.ReadablePan(l, fps)
		turn := m.Turn.Abs()
		isReadable := stop.AtMost(turn, a.ReadablePanDegS)
		a.PanDegS, a.PanReadable = &turn, &isReadable
	}
	return a
}

func tooLong(field string, t stop.Shutter, fps stop.FrameRate) error {
	return &problem.Fault{Field: field, Value: t, Allowed: fmt.Sprintf("at most %v, the length of a frame at %v fps", fps.Frame(), fps)}
}
