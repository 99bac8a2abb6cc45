package calc

import (
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/stop"
)

// StepRequest is a wish and the looks so far.
type StepRequest struct {
	assemble.Wish
	Prior *assemble.Prior `json:"prior,omitempty" doc:"the light to expect before the first look; EV 0 to 17 by default"`
	Looks []assemble.Look `json:"looks" maxItems:"50"`
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
	b, err := r.Wish.Setup()
	if err != nil {
		return nil, err
	}
	step, err := b.Looked(r.Looks, r.Prior)
	if err != nil {
		return nil, err
	}
	return stepOf(b, step), nil
}

func stepOf(b *assemble.Setup, step *glass.Step) *StepAnswer {
	next := optionOf(b, &step.Next)
	return &StepAnswer{
		LowEV100: step.Light.Low, HighEV100: step.Light.High, Settled: step.Settled,
		Next: &Next{Filters: next.Filters, Stops: next.Stops, Settings: next.Settings},
	}
}
