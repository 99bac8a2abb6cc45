package calc

import (
	"fmt"
	"pinhole/core/assemble"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// BlurRequest asks what a movement does to the picture.
type BlurRequest struct {
	assemble.LensFields
	ShutterS stop.Shutter `json:"shutterS" minimum:"0.0000001" maximum:"86400" doc:"seconds"`
	FPS      float64      `json:"fps" minimum:"0.00001" maximum:"10000" doc:"frames per second"`
	assemble.MovementFields
}

// BlurAnswer is the blur and the step from frame to frame.
type BlurAnswer struct {
	FPx             float64        `json:"fPx" doc:"image scale at the centre in pixels per radian"`
	BlurPx          float64        `json:"blurPx"`
	BlurShare       float64        `json:"blurShare" doc:"of the picture's width"`
	Class           motion.Class   `json:"class"`
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
	lens, err := r.Lens("")
	if err != nil {
		return nil, err
	}
	m, err := r.Movement("")
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
