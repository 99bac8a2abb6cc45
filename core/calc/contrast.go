package calc

import (
	"fmt"

	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// ContrastRequest asks what one exposure loses at either end of a frame.
type ContrastRequest struct {
	SubjectEV100  stop.EV         `json:"subjectEv100" minimum:"-20" maximum:"40"`
	BrightEV100   stop.EV         `json:"brightEv100" minimum:"-20" maximum:"40" doc:"the brightest part, at least the subject"`
	DarkEV100     stop.EV         `json:"darkEv100" minimum:"-20" maximum:"40" doc:"the darkest part, at most the subject"`
	ExposeFor     light.ExposeFor `json:"exposeFor"`
	HeadroomStops *stop.Stops     `json:"headroomStops,omitempty" minimum:"0" maximum:"20" doc:"what the picture holds above the aim; 2.5 by default"`
	DepthStops    *stop.Stops     `json:"depthStops,omitempty" minimum:"0" maximum:"20" doc:"what it holds below; 5 by default"`
}

// ContrastAnswer is what is lost. ND changes none of it.
type ContrastAnswer struct {
	AimEV100           stop.EV        `json:"aimEv100" doc:"the light the exposure is made for"`
	LostHighlightStops stop.Stops     `json:"lostHighlightStops"`
	LostShadowStops    stop.Stops     `json:"lostShadowStops"`
	GraduatedStops     stop.Stops     `json:"graduatedStops" doc:"graduated filter over the bright part that would save it"`
	Graduated          string         `json:"graduated,omitempty" doc:"in a shot: the id of the graduated filter in the kit that would do"`
	Use                map[string]any `json:"use,omitempty" doc:"in a shot: a merge patch for its fields that exposes for the aim"`
	Words              []string       `json:"words"`
}

// InOneFrame answers contrast.
func InOneFrame(r ContrastRequest) (*ContrastAnswer, error) {
	switch {
	case r.BrightEV100 < r.SubjectEV100:
		return nil, &problem.Fault{Field: "brightEv100", Value: r.BrightEV100, Allowed: "at least the subject's light: the brightest part may be the subject"}
	case r.DarkEV100 > r.SubjectEV100:
		return nil, &problem.Fault{Field: "darkEv100", Value: r.DarkEV100, Allowed: "at most the subject's light: the darkest part may be the subject"}
	}
	c := light.Contrast{Subject: r.SubjectEV100, Bright: r.BrightEV100, Dark: r.DarkEV100, Headroom: light.DefaultHeadroom, Depth: light.DefaultDepth}
	if r.HeadroomStops != nil {
		c.Headroom = *r.HeadroomStops
	}
	if r.DepthStops != nil {
		c.Depth = *r.DepthStops
	}
	a := &ContrastAnswer{
		AimEV100: c.Aim(r.ExposeFor), LostHighlightStops: c.LostHighlights(r.ExposeFor), LostShadowStops: c.LostShadows(r.ExposeFor), GraduatedStops: c.Graduated(),
	}
	a.Words = a.words()
	return a, nil
}

func (a *ContrastAnswer) words() []string {
	var words []string
	if a.LostHighlightStops > 0 {
		words = append(words, fmt.Sprintf("the brightest part clips by %v stops", a.LostHighlightStops))
	}
	if a.LostShadowStops > 0 {
		words = append(words, fmt.Sprintf("the darkest part blocks up by %v stops", a.LostShadowStops))
	}
	if len(words) == 0 {
		return []string{"the picture holds both ends"}
	}
	words = append(words, "ND darkens both ends alike and cannot change this: turn, add light to the subject, or wait")
	if a.GraduatedStops > 0 {
		words = append(words, fmt.Sprintf("a graduated filter of %v stops, dark half over the bright part, would; only for a level horizon and a camera that neither tilts nor rolls", a.GraduatedStops))
	}
	return words
}
