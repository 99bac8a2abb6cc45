package calc

import (
	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// SteppedAnswer is the plan of a stepped trial.
type SteppedAnswer struct {
	ComputedS  stop.Shutter  `json:"computedS" doc:"the stabiliser limit at the default tolerance"`
	Mode       string        `json:"mode" doc:"of the stabiliser"`
	Activity   string        `json:"activity"`
	ShakeDegS  angle.DegPerS `json:"shakeDegS" doc:"the shake behind the computed limit"`
	IsMeasured bool          `json:"measured" doc:"it was measured"`
	Filters    []string      `json:"filters" doc:"ids of what is on for all of it"`
	ISOCeiling stop.ISO      `json:"isoCeiling" doc:"from where on noise hides what a stabiliser leaves"`
	Path       string        `json:"path" doc:"what to do at each step"`
	Steps      []SteppedStep `json:"steps" doc:"in their order, the fastest first"`
}

// SteppedStep is one shutter of the trial.
type SteppedStep struct {
	ShutterS    stop.Shutter `json:"shutterS"`
	ShutterText string       `json:"shutterText"`
	ISO         stop.ISO     `json:"iso"`
	IsFar       bool         `json:"isFar" doc:"so far off that the take can hardly be judged"`
	OffStops    stop.Stops   `json:"offStops" doc:"what ISO cannot make up for: too bright, or too dark where negative"`
}

// trialPaths are what to do at each step, by what carries the camera.
var trialPaths = map[string]string{
	"any":  "Move along the same path at the same pace each time, past something with fine detail; keep to local rules, and stop to set the camera.",
	"hand": "Take the same fifteen steps at your usual pace, towards something with fine detail three to five metres away; then stand and turn once, slowly.",
	"ride": "Ride the same fifty metres at the same speed, past something with fine detail. Only where that is allowed and clear; stop to set the camera.",
	"fly":  "Fly the same line at the same speed, over something with fine detail. Keep to local rules and to your own procedure; land to set the camera.",
}

// SteppedTrial answers stepped.
func SteppedTrial(r assemble.ShotRequest) (*SteppedAnswer, error) {
	ready, err := r.Assemble()
	if err != nil {
		return nil, err
	}
	t, ok := ready.Scene.SteppedTrial()
	if !ok {
		return nil, &problem.Fault{Field: "profile.stabiliser", Allowed: "one that shifts frames, on a camera that shakes, in light that its filters and ISO can bring to shutters around the computed limit"}
	}
	s := ready.Scene.Shaking
	activity, _ := r.Activity()
	shake, isMeasured, _ := r.ShakeRate()
	a := &SteppedAnswer{
		ComputedS: t.Computed, Mode: string(s.Stabiliser), Activity: string(activity.Name), ShakeDegS: shake, IsMeasured: isMeasured, Filters: glass.IDs(t.Stack.Filters),
		ISOCeiling: ready.Question.Ceiling, Path: trialPaths[pathOf(ready.Scene, activity.Name)],
	}
	for _, step := range t.Steps {
		a.Steps = append(a.Steps, SteppedStep{step.Shutter, step.Shutter.String(), step.ISO, step.IsFar, step.Off})
	}
	return a, nil
}

func pathOf(s *shot.Scene, activity motion.ActivityName) string {
	switch s.Carried {
	case motion.Flying, motion.Hovers:
		return "fly"
	case motion.Ridden:
		return "ride"
	}
	if activity == "" {
		return "any"
	}
	return "hand"
}
