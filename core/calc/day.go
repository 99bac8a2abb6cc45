package calc

import (
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
	Shots     []DayShot           `json:"shots" minItems:"1" maxItems:"40"`
	Stacks    []DayStack          `json:"stacks" minItems:"1" maxItems:"60"`
	Start     map[string]string   `json:"start,omitempty" doc:"what cameras carry at first: the id of a stack by the id of its camera"`
	Tolerance *assemble.Tolerance `json:"tolerance,omitempty" doc:"two thirds dark and one third bright by default"`
	SwapCost  *float64            `json:"swapCost,omitempty" minimum:"0" maximum:"1000" doc:"what a swap weighs; 1 by default"`
}

// DayShot is one shot in light known by the minute.
type DayShot struct {
	ID               string     `json:"id" minLength:"1" maxLength:"100"`
	CameraID         string     `json:"cameraId" minLength:"1" maxLength:"100"`
	From             time.Time  `json:"from"`
	To               time.Time  `json:"to" doc:"whole minutes after from"`
	EVSet            stop.EV    `json:"evSet" minimum:"-20" maximum:"40" doc:"the light its setting needs"`
	Points           []stop.EV  `json:"points" minItems:"1" maxItems:"1441" minimum:"-20" maximum:"40" doc:"EV at ISO 100, one a minute from from to to, both included"`
	OffsetStops      stop.Stops `json:"offsetStops,omitempty" minimum:"-5" maximum:"5" doc:"exposure wanted against the meter"`
	ISOHeadroomStops stop.Stops `json:"isoHeadroomStops,omitempty" minimum:"0" maximum:"20" doc:"what ISO can lift"`
	SpreadStops      stop.Stops `json:"spreadStops,omitempty" minimum:"0" maximum:"10" doc:"how far the light may be off"`
}

// DayStack is glass as it may be on a camera.
type DayStack struct {
	ID       string     `json:"id" minLength:"1" maxLength:"100"`
	Stops    stop.Stops `json:"stops" minimum:"-1" maximum:"40"`
	CameraID string     `json:"cameraId,omitempty" maxLength:"100" doc:"the only camera it goes on"`
}

// DayAnswer is the plan.
type DayAnswer struct {
	Plan  []DayPlanned     `json:"plan" doc:"in order of start"`
	Swaps []day.OutingSwap `json:"swaps"`
	Cost  float64          `json:"cost"`
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

// PlanDay answers day.
func PlanDay(r DayRequest) (*DayAnswer, error) {
	d, err := r.day()
	if err != nil {
		return nil, err
	}
	p := d.Plan()
	a := &DayAnswer{Cost: p.Cost, Swaps: []day.OutingSwap{}}
	for _, s := range p.Shots {
		a.Plan = append(a.Plan, DayPlanned{
			Shot: s.Shot.ID, Stack: s.Stack.ID, MeanErrorStops: s.MeanError, WorstStops: s.Worst, LastMinute: day.Known(s.LastMinute),
			SpareIfBrighter: day.IDOf(s.Brighter), SpareIfDarker: day.IDOf(s.Darker), Words: s.Words(),
		})
	}
	for _, s := range p.Swaps {
		a.Swaps = append(a.Swaps, s.Told())
	}
	return a, nil
}

func (r *DayRequest) day() (*day.Day, error) {
	d := &day.Day{Start: r.Start, Band: glass.DefaultBand, SwapCost: day.DefaultSwapCost}
	if t := r.Tolerance; t != nil {
		d.Band = glass.Band{Dark: t.Dark, Bright: t.Bright}
	}
	if r.SwapCost != nil {
		d.SwapCost = *r.SwapCost
	}
	for i, s := range r.Stacks {
		if slices.ContainsFunc(d.Stacks, func(other day.Stack) bool { return other.ID == s.ID }) {
			return nil, &problem.Fault{Field: fmt.Sprintf("stacks[%d].id", i), Value: s.ID, Allowed: "an id that no other stack has"}
		}
		d.Stacks = append(d.Stacks, day.Stack{ID: s.ID, Stops: s.Stops, Camera: s.CameraID})
	}
	for i := range r.Shots {
		s, err := r.Shots[i].shot(fmt.Sprintf("shots[%d]", i))
		if err != nil {
			return nil, err
		}
		if slices.ContainsFunc(d.Shots, func(other day.Shot) bool { return other.ID == s.ID }) {
			return nil, &problem.Fault{Field: fmt.Sprintf("shots[%d].id", i), Value: s.ID, Allowed: "an id that no other shot has"}
		}
		d.Shots = append(d.Shots, s)
	}
	return d, d.Check()
}

func (s *DayShot) shot(path string) (day.Shot, error) {
	minutes := int(s.To.Sub(s.From) / time.Minute)
	switch {
	case s.To.Before(s.From):
		return day.Shot{}, &problem.Fault{Field: path + ".to", Value: s.To, Allowed: "an instant no earlier than from"}
	case len(s.Points) != minutes+1:
		return day.Shot{}, &problem.Fault{Field: path + ".points", Value: len(s.Points), Allowed: fmt.Sprintf("one point a minute from from to to, both included: %d", minutes+1)}
	}
	return day.Shot{
		ID: s.ID, Camera: s.CameraID, From: s.From, To: s.To, EVSet: s.EVSet, Points: s.Points,
		Offset: s.OffsetStops, Headroom: s.ISOHeadroomStops, Spread: s.SpreadStops,
	}, nil
}
