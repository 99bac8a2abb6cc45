package day

import (
	"context"
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/shot"
	"slices"
	"time"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/stop"
)

// YearRequest asks for the light of a place through a year, at the hours somebody
// shoots, and the glass it calls for.
type YearRequest struct {
	Days []time.Time `json:"days" minItems:"1" maxItems:"60" doc:"local midnights, a week apart, each with the offset its day has"`
	assemble.PlaceFields
	Sky      light.Sky           `json:"sky"`
	Surface  stop.Stops          `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5"`
	Hours    []float64           `json:"hours" minItems:"1" maxItems:"24" minimum:"0" maximum:"23.99" doc:"of the local clock"`
	EVSet    stop.EV             `json:"evSet" minimum:"-20" maximum:"40" doc:"the light the setting needs"`
	Offset   stop.Stops          `json:"offsetStops,omitempty" minimum:"-5" maximum:"5"`
	Stacks   []OutingStack       `json:"stacks" maxItems:"5000"`
	Band     *assemble.Tolerance `json:"tolerance,omitempty"`
	Headroom stop.Stops          `json:"isoHeadroomStops,omitempty" minimum:"0" maximum:"20" doc:"what ISO can lift"`
	// The whole shot, in place of what its setting needs.
	Held    *assemble.Held     `json:"held,omitempty" doc:"the camera as it is held: with look, the whole shot is judged"`
	Look    *assemble.ShotLook `json:"look,omitempty"`
	Scene   assemble.ShotScene `json:"scene,omitzero"`
	Choices assemble.Choices   `json:"choices,omitzero"`
}

// YearAnswer is a row a week.
type YearAnswer struct {
	Weeks []YearWeek `json:"weeks"`
	Calls []YearCall `json:"calls" doc:"how often each glass is called for, the most often first"`
	Words []string   `json:"words"`
}

// YearWeek is one week, by its first day.
type YearWeek struct {
	From  string     `json:"from" doc:"local date"`
	Cells []YearCell `json:"cells" doc:"one for each hour"`
}

// YearCell is the light at one hour of its first day.
type YearCell struct {
	EV100       stop.EV     `json:"ev100"`
	SpreadStops stop.Stops  `json:"spreadStops"`
	AltitudeDeg angle.Deg   `json:"altitudeDeg"`
	NeedStops   stop.Stops  `json:"needStops" doc:"negative where light is missing"`
	Stack       string      `json:"stack" doc:"the glass that the shot would take; empty without stacks"`
	ErrorStops  stop.Stops  `json:"errorStops"`
	State       glass.State `json:"state"`
	IsServed    bool        `json:"isServed" doc:"the shot holds with it"`
}

// YearCall is one glass and how many cells call for it.
type YearCall struct {
	Stack string `json:"stack"`
	Name  string `json:"name"`
	Cells int    `json:"cells"`
}

// Year answers year: each hour is judged as the shot would be then. It gives up when the
// context ends, with its error.
func Year(ctx context.Context, r YearRequest) (*YearAnswer, error) {
	judge, names, err := r.judge()
	if err != nil {
		return nil, err
	}
	o := &light.Outdoors{Place: r.Place(), Sky: r.Sky, Plane: light.Vertical, Albedo: light.DefaultAlbedo, Surface: r.Surface}
	a := &YearAnswer{Calls: []YearCall{}, Words: []string{}}
	calls := map[string]int{}
	open := 0
	for i, day := range r.Days {
		if err := assemble.CheckYear(fmt.Sprintf("days[%d]", i), day); err != nil {
			return nil, err
		}
		week := YearWeek{From: day.Format(time.DateOnly)}
		for _, hour := range r.Hours {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			at := day.Add(time.Duration(hour * float64(time.Hour)))
			scene, sun := o.At(at)
			c := YearCell{EV100: scene.EV, SpreadStops: scene.Spread, AltitudeDeg: sun.Apparent()}
			judge(&c)
			if c.IsServed {
				calls[c.Stack]++
			} else {
				open++
			}
			week.Cells = append(week.Cells, c)
		}
		a.Weeks = append(a.Weeks, week)
	}
	for _, id := range names.order {
		if n := calls[id]; n > 0 {
			a.Calls = append(a.Calls, YearCall{id, names.of[id], n})
		}
	}
	slices.SortStableFunc(a.Calls, func(x, y YearCall) int { return y.Cells - x.Cells })
	if all := len(a.Weeks) * len(r.Hours); open > 0 && len(names.order) > 0 {
		a.Words = append(a.Words, fmt.Sprintf("%d of %d hours not covered", open, all))
	}
	return a, nil
}

// stackNames are what stacks are called, in the order in which they were given.
type stackNames struct {
	order []string
	of    map[string]string
}

// judge returns what judges an hour by its light: the whole shot where that is known, else
// the light its setting needs.
func (r *YearRequest) judge() (judge func(*YearCell), names stackNames, err error) {
	names.of = map[string]string{}
	var stacks []*OutingStack
	for i := range r.Stacks {
		stacks = append(stacks, &r.Stacks[i])
		names.order, names.of[r.Stacks[i].ID] = append(names.order, r.Stacks[i].ID), r.Stacks[i].Name
	}
	band := glass.DefaultBand
	if own := r.Band.Band(); own != nil {
		band = *own
	}
	var scene *shot.Scene
	id := func(filters []*glass.Filter) string { return filters[0].ID }
	switch {
	case r.Held != nil && r.Look != nil:
		ready, err := r.Held.Shot(assemble.Asked{Look: *r.Look, Scene: r.Scene, Choices: r.Choices}).AssembleIn(glass.Light{})
		if err != nil {
			return nil, names, err
		}
		scene = ready.Scene
		id = func(filters []*glass.Filter) string {
			return StackID(r.Held.CameraID, r.Held.RigID, glass.IDs(filters))
		}
	case len(stacks) == 0:
		return func(c *YearCell) {
			c.NeedStops = c.EV100.Above(r.EVSet) - r.Offset
			c.ErrorStops, c.State = c.NeedStops, glass.Breaks
		}, names, nil
	default:
		if scene, err = bareScene(r.EVSet, 0, 0, r.Offset, r.Headroom, band, stacks); err != nil {
			return nil, names, err
		}
	}
	aim, err := scene.Aim()
	if err != nil {
		return nil, names, err
	}
	return func(c *YearCell) {
		v := aim.Best(glass.Light{Low: c.EV100, High: c.EV100, Spread: c.SpreadStops})
		c.NeedStops, c.ErrorStops = v.Question.Need(), v.Option.Error
		c.Stack, c.State = id(v.Option.Filters), v.State
		c.IsServed = v.State == glass.Holds
	}, names, nil
}
