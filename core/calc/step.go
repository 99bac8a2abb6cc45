package calc

import (
	"pinhole/core/glass"
	"pinhole/core/stop"
)

// StepRequest is a wish and the looks so far.
type StepRequest struct {
	Wish
	Looks []Look `json:"looks" maxItems:"50"`
}

// Look is one look at a locked setting.
type Look struct {
	Stops stop.Stops `json:"stops" minimum:"0" maximum:"40" doc:"the glass that was on"`
	EVSet *stop.EV   `json:"evSet,omitempty" minimum:"-20" maximum:"40" doc:"what the setting needed; the wished one by default"`
	Saw   glass.Saw  `json:"saw" enum:"dark,right,bright" doc:"too dark, right or too bright"`
}

// StepAnswer is the light as far as it is known and what to put on next.
type StepAnswer struct {
	LowEV100  stop.EV `json:"lowEv100"`
	HighEV100 stop.EV `json:"highEv100"`
	Settled   bool    `json:"settled" doc:"true when next is what to fly, false when it is what to look through"`
	Next      *Next   `json:"next,omitempty"`
}

// Next is the glass to put on.
type Next struct {
	Filters  []string              `json:"filters"`
	Stops    stop.Stops            `json:"stops" doc:"in all, what lives on the lens included"`
	Settings map[string]stop.Stops `json:"settings,omitempty" doc:"where a variable filter is turned to"`
}

// TakeStep answers step.
func TakeStep(r StepRequest) (*StepAnswer, error) {
	b, err := r.Wish.bench()
	if err != nil {
		return nil, err
	}
	return b.step(r.Looks)
}

func (b *bench) step(looks []Look) (*StepAnswer, error) {
	taken := make([]glass.Look, len(looks))
	for i, l := range looks {
		taken[i] = glass.Look{Stops: l.Stops, EVSet: b.question.Setting.EV(), Saw: l.Saw}
		if l.EVSet != nil {
			taken[i].EVSet = *l.EVSet
		}
	}
	step, err := glass.NextLook(&b.question, b.stacks, taken)
	if err != nil {
		return nil, err
	}
	next := b.option(&step.Next)
	return &StepAnswer{
		LowEV100: step.Light.Low, HighEV100: step.Light.High, Settled: step.Settled,
		Next: &Next{Filters: next.Filters, Stops: next.Stops, Settings: next.Settings},
	}, nil
}
