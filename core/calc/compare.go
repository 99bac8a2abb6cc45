package calc

import (
	"fmt"

	"pinhole/core/glass"
	"pinhole/core/problem"
)

// CompareRequest asks which of several sets of filters is worth most to somebody.
type CompareRequest struct {
	Sets    []SetFigures `json:"sets" minItems:"2" maxItems:"20"`
	Weights *SetWeights  `json:"weights,omitempty" doc:"how much each criterion counts; ours by default"`
}

// SetFigures is what is known of a set; what is left out is not known.
type SetFigures struct {
	Name      string   `json:"name" minLength:"1" maxLength:"80"`
	Fit       *float64 `json:"fit,omitempty" minimum:"0" maximum:"1" doc:"how well its filters go on the rig: 1 all tried and good, 0 none goes"`
	Truth     *float64 `json:"truth,omitempty" minimum:"0" maximum:"20" doc:"mean of how far its filters are off their label, stops"`
	Tint      *float64 `json:"tint,omitempty" minimum:"0" maximum:"5" doc:"the strongest cast, stops"`
	Corners   *float64 `json:"corners,omitempty" minimum:"0" maximum:"20" doc:"the darkest corners, stops"`
	Flare     *float64 `json:"flare,omitempty" minimum:"0" maximum:"3" doc:"the worst flare: 0 none, 3 heavy"`
	Sharpness *float64 `json:"sharpness,omitempty" minimum:"0" maximum:"100" doc:"the most sharpness lost, per cent"`
	Mass      *float64 `json:"mass,omitempty" minimum:"0" maximum:"100000" doc:"of all its filters, grams"`
	Case      *float64 `json:"case,omitempty" minimum:"0" maximum:"1" doc:"share of its filters that have a slot in the case"`
	Price     *float64 `json:"price,omitempty" minimum:"0" maximum:"1000000000" doc:"of all of it, in the owner's money"`
}

// SetWeights says how much each criterion counts; one of them at least is above 0.
type SetWeights struct {
	Fit       float64 `json:"fit" minimum:"0" maximum:"100"`
	Truth     float64 `json:"truth" minimum:"0" maximum:"100"`
	Tint      float64 `json:"tint" minimum:"0" maximum:"100"`
	Corners   float64 `json:"corners" minimum:"0" maximum:"100"`
	Flare     float64 `json:"flare" minimum:"0" maximum:"100"`
	Sharpness float64 `json:"sharpness" minimum:"0" maximum:"100"`
	Mass      float64 `json:"mass" minimum:"0" maximum:"100"`
	Case      float64 `json:"case" minimum:"0" maximum:"100"`
	Price     float64 `json:"price" minimum:"0" maximum:"100"`
}

// CompareAnswer is how the sets stand.
type CompareAnswer struct {
	Scores  []SetScore `json:"scores" doc:"in the order of the sets"`
	Weights SetWeights `json:"weights" doc:"those used"`
	Ahead   *string    `json:"ahead" doc:"the set that is ahead whatever the unknown turns out to be; null where none is"`
	Words   string     `json:"words"`
}

// SetScore is what one set is worth, from 0 to 1.
type SetScore struct {
	Name  string             `json:"name"`
	Least float64            `json:"least" doc:"if everything unknown turns out badly"`
	Most  float64            `json:"most" doc:"if everything unknown turns out well"`
	Worth map[string]float64 `json:"worth" doc:"of each figure that is known, 0 to 1"`
}

// criterionWords names each criterion for a sentence.
var criterionWords = map[glass.Criterion]string{
	glass.ByFit: "how they fit this rig", glass.ByTruth: "their true stops", glass.ByTint: "their colour shift", glass.ByCorners: "their vignetting", glass.ByFlare: "their flare",
	glass.BySharpness: "the sharpness they cost", glass.ByMass: "their mass", glass.ByCase: "their case", glass.ByPrice: "their price",
}

// CompareSets answers compare.
func CompareSets(r CompareRequest) (*CompareAnswer, error) {
	weights := glass.DefaultWeights()
	if w := r.Weights; w != nil {
		weights = map[glass.Criterion]float64{glass.ByFit: w.Fit, glass.ByTruth: w.Truth, glass.ByTint: w.Tint, glass.ByCorners: w.Corners, glass.ByFlare: w.Flare,
			glass.BySharpness: w.Sharpness, glass.ByMass: w.Mass, glass.ByCase: w.Case, glass.ByPrice: w.Price}
		if *w == (SetWeights{}) {
			return nil, &problem.Fault{Field: "weights", Value: 0, Allowed: "at least one weight above 0"}
		}
	}
	sets := make([]glass.Figures, len(r.Sets))
	for i := range r.Sets {
		sets[i] = r.Sets[i].figures()
	}
	c := glass.CompareSets(sets, weights)
	a := &CompareAnswer{Weights: SetWeights{weights[glass.ByFit], weights[glass.ByTruth], weights[glass.ByTint], weights[glass.ByCorners], weights[glass.ByFlare],
		weights[glass.BySharpness], weights[glass.ByMass], weights[glass.ByCase], weights[glass.ByPrice]}}
	for i, s := range c.Scores {
		worth := map[string]float64{}
		for k, v := range c.Worth[i] {
			worth[string(k)] = v
		}
		a.Scores = append(a.Scores, SetScore{r.Sets[i].Name, s.Least, s.Most, worth})
	}
	switch {
	case c.Ahead >= 0:
		a.Ahead = &r.Sets[c.Ahead].Name
		a.Words = fmt.Sprintf("best in every case: %s", *a.Ahead)
	case c.AskOf >= 0:
		a.Words = fmt.Sprintf("no clear winner. For %s, find out %s first", r.Sets[c.AskOf].Name, criterionWords[c.Ask])
	default:
		a.Words = "a tie: they are worth the same to you"
	}
	return a, nil
}

// fields are the figures of a set by what they are of.
func (s *SetFigures) fields() map[glass.Criterion]**float64 {
	return map[glass.Criterion]**float64{glass.ByFit: &s.Fit, glass.ByTruth: &s.Truth, glass.ByTint: &s.Tint, glass.ByCorners: &s.Corners, glass.ByFlare: &s.Flare,
		glass.BySharpness: &s.Sharpness, glass.ByMass: &s.Mass, glass.ByCase: &s.Case, glass.ByPrice: &s.Price}
}

func (s *SetFigures) figures() glass.Figures {
	f := glass.Figures{}
	for k, field := range s.fields() {
		if *field != nil {
			f[k] = **field
		}
	}
	return f
}

// SetFiguresOf returns figures as they are asked about.
func SetFiguresOf(name string, figures glass.Figures) SetFigures {
	s := SetFigures{Name: name}
	for k, field := range s.fields() {
		if v, isKnown := figures[k]; isKnown {
			*field = &v
		}
	}
	return s
}
