package assemble

import (
	"pinhole/core/motion"
	"pinhole/core/shot"
)

// Preferences are what an owner settled for shots that say nothing else.
type Preferences struct {
	Tolerance *Tolerance                          `json:"tolerance,omitempty" doc:"what they accept; what everybody does by default"`
	Schools   map[motion.ActivityName]shot.School `json:"schools,omitempty" doc:"by what their shutter is chosen, by activity"`
}

// For returns what is asked of a new shot, with what was settled where it says nothing else. An
// angle or a time is no school to settle: it stands in the look.
func (p *Preferences) For(asked Asked) Asked {
	if p == nil {
		return asked
	}
	if asked.Choices.Tolerance == nil && p.Tolerance != nil {
		own := *p.Tolerance
		asked.Choices.Tolerance = &own
	}
	if school := p.Schools[asked.Scene.Activity]; school != shot.ByAngle && school != shot.ByTime && asked.Scene.School == "" {
		asked.Scene.School = school
	}
	return asked
}
