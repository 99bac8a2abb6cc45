package calc

import (
	"context"
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"slices"
	"time"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// DayRequest asks which glass goes on which camera when.
type DayRequest struct {
	Shots     []day.Shot          `json:"shots" minItems:"1" maxItems:"40"`
	Stacks    []day.Stack         `json:"stacks" minItems:"1" maxItems:"60"`
	Start     map[string]string   `json:"start,omitempty" doc:"what cameras carry at first: the id of a stack by the id of its camera"`
	Tolerance *assemble.Tolerance `json:"tolerance,omitempty" doc:"two thirds dark and one third bright by default"`
	SwapCost  *float64            `json:"swapCost,omitempty" minimum:"0" maximum:"1000" doc:"what a swap weighs; 1 by default"`
}

// DayAnswer is the plan.
type DayAnswer struct {
	Plan  []DayPlanned `json:"plan" doc:"in order of start"`
	Swaps []day.Swap   `json:"swaps"`
	Cost  float64      `json:"cost"`
}

// DayPlanned is one shot with its glass.
type DayPlanned struct {
	Shot            string     `json:"shot"`
	Stack           string     `json:"stack"`
	MeanErrorStops  stop.Stops `json:"meanErrorStops" doc:"with ISO at base, positive brighter"`
	WorstStops      stop.Stops `json:"worstStops" doc:"the largest excess beyond band and ISO, positive brighter; 0 is served throughout"`
	LastMinute      *time.Time `json:"lastMinute" doc:"the last minute before the light, once served by this glass, leaves it; null where it never served"`
	SpareIfBrighter string     `json:"spareIfBrighter,omitempty" doc:"the stack to carry for light brighter by the spread"`
	SpareIfDarker   string     `json:"spareIfDarker,omitempty"`
	Words           string     `json:"words"`
}

// PlanDay answers day; it gives up when the context ends, with its error.
func PlanDay(ctx context.Context, r DayRequest) (*DayAnswer, error) {
	d, err := r.day()
	if err != nil {
		return nil, err
	}
	p, err := d.Plan(ctx)
	if err != nil {
		return nil, err
	}
	a := &DayAnswer{Cost: p.Cost, Swaps: append([]day.Swap{}, p.Swaps...)}
	for _, s := range p.Shots {
		a.Plan = append(a.Plan, DayPlanned{
			Shot: s.Shot.ID, Stack: s.Stack.ID, MeanErrorStops: s.MeanError, WorstStops: s.Worst, LastMinute: day.Known(s.LastMinute),
			SpareIfBrighter: day.IDOf(s.Brighter), SpareIfDarker: day.IDOf(s.Darker), Words: s.Words(),
		})
	}
	return a, nil
}

func (r *DayRequest) day() (*day.Day, error) {
	d := &day.Day{Shots: r.Shots, Stacks: r.Stacks, Start: r.Start, Band: glass.DefaultBand, SwapCost: day.DefaultSwapCost}
	if t := r.Tolerance; t != nil {
		d.Band = glass.Band{Dark: t.Dark, Bright: t.Bright}
	}
	if r.SwapCost != nil {
		d.SwapCost = *r.SwapCost
	}
	for i, s := range r.Stacks {
		if slices.ContainsFunc(r.Stacks[:i], func(other day.Stack) bool { return other.ID == s.ID }) {
			return nil, &problem.Fault{Field: fmt.Sprintf("stacks[%d].id", i), Value: s.ID, Allowed: "an id that no other stack has"}
		}
	}
	for i := range r.Shots {
		s, path := &r.Shots[i], fmt.Sprintf("shots[%d]", i)
		minutes := int(s.To.Sub(s.From) / time.Minute)
		switch {
		case s.To.Before(s.From):
			return nil, &problem.Fault{Field: path + ".to", Value: s.To, Allowed: "an instant no earlier than from"}
		case len(s.Points) != minutes+1:
			return nil, &problem.Fault{Field: path + ".points", Value: len(s.Points), Allowed: fmt.Sprintf("one point a minute from from to to, both included: %d", minutes+1)}
		case slices.ContainsFunc(r.Shots[:i], func(other day.Shot) bool { return other.ID == s.ID }):
			return nil, &problem.Fault{Field: path + ".id", Value: s.ID, Allowed: "an id that no other shot has"}
		}
	}
	return d, d.Check()
}
