package calc

import (
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/shot"
	"slices"
	"strings"

	"pinhole/core/glass"
	"pinhole/core/motion"
)

// shotChange writes a trade as a merge patch for the fields of a shot. The text
// of a look is what a person would have typed.
func shotChange(c shot.Change, choices *assemble.Choices) map[string]any {
	look, scene, whatIf := map[string]any{}, map[string]any{}, map[string]any{}
	if c.Rate != nil {
		look["fps"] = c.Rate.String()
	}
	if c.Time != nil {
		look["target"] = c.Time.String()
	}
	if c.Stand {
		scene["activity"], scene["shakeDegS"] = "stand", nil
		whatIf["stabiliser"] = motion.NoStabiliser
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
	if c.Bring != nil {
		patch["choices"] = map[string]any{"atHand": choices.AlsoAtHand(c.Bring.ID).AtHand}
	}
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

// Unjudged is something of a shot that is not judged, and what would let it be.
type Unjudged struct {
	Words string `json:"words"`
	Field string `json:"field,omitempty" doc:"what would tell: a field of the camera as it is stored, or scene.activity; left out where no one field does"`
}

// The fields that a judgement may wait for, as a stored camera and a shot have them.
const (
	fieldOfView    = "profile.lens.hfovDeg"
	fieldOfSteady  = "profile.stabiliser"
	fieldOfReadout = "profile.readoutS"
	fieldOfAuto    = "profile.automatic.priority"
	fieldOfSteps   = "steps"
	fieldOfMoving  = "scene.activity"
)

// unjudgedOf lists what is not known and so is not judged, with the field that would tell.
func unjudgedOf(r *assemble.ShotRequest, s *shot.Scene, on []string) []Unjudged {
	var all []Unjudged
	add := func(field, words string) { all = append(all, Unjudged{words, field}) }
	_, _, isShaken := r.ShakeRate()
	hasLens := r.Profile != nil && r.Profile.Lens != nil
	asks := isShaken || r.Scene.Movement != nil || r.Motor() != nil
	switch {
	case asks && !hasLens:
		add(fieldOfView, "the camera's field of view and frame width are not known, so blur, stabiliser and wobble are not judged")
	case isShaken && s.Shaking == nil:
		add(fieldOfSteady, "what stabiliser the camera has is not known, so its limit is not judged")
	}
	if hasLens && r.Motor() != nil && s.ReadoutS == 0 {
		add(fieldOfReadout, "how long the sensor takes to read a frame is not known, so wobble is not judged")
	}
	if !isShaken && s.Shaking == nil && r.Profile != nil && r.Profile.Stabiliser.ShiftsFrames() {
		add(fieldOfMoving, "nothing is said of what carries the camera, so the stabiliser limit is not judged")
	}
	if r.Scene.School == shot.ByAutomatic && s.Automatic == nil {
		field := fieldOfAuto
		if r.Profile != nil && r.Profile.Automatic != nil {
			field = fieldOfSteps
		}
		add(field, "how this camera's automatic behaves, or its fastest shutter, is not known, so its target stands")
	}
	if takes := r.Rules(&r.Camera).MaxLayers; len(on) > takes {
		add("", fmt.Sprintf("%d layers are on where %d is reckoned with, so how they sit is not judged", len(on), takes))
	}
	return all
}

// assumedOf lists the defaults that the answer rests on, in words.
func assumedOf(r *assemble.ShotRequest, s *shot.Scene, on []string) []string {
	var words []string
	if s.Shaking != nil {
		_, isMeasured, _ := r.ShakeRate()
		if a, ok := r.Activity(); ok && !isMeasured {
			words = append(words, fmt.Sprintf("a shake of %.3g°/s is assumed for a camera %s, until it is measured", float64(a.Shake), a.Words))
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
