package day

import (
	"fmt"
	"pinhole/core/assemble"
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
	Sky     light.Sky           `json:"sky" enum:"clear,partly,overcast"`
	Surface stop.Stops          `json:"surfaceStops,omitempty" minimum:"-5" maximum:"5"`
	Hours   []float64           `json:"hours" minItems:"1" maxItems:"24" minimum:"0" maximum:"23.99" doc:"of the local clock"`
	EVSet   stop.EV             `json:"evSet" minimum:"-20" maximum:"40" doc:"the light the setting needs"`
	Offset  stop.Stops          `json:"offsetStops,omitempty" minimum:"-5" maximum:"5"`
	Stacks  []OutingStack       `json:"stacks" maxItems:"100"`
	Band    *assemble.Tolerance `json:"tolerance,omitempty"`
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
	EV100       stop.EV    `json:"ev100"`
	SpreadStops stop.Stops `json:"spreadStops"`
	AltitudeDeg angle.Deg  `json:"altitudeDeg"`
	NeedStops   stop.Stops `json:"needStops" doc:"negative where light is missing"`
	Stack       string     `json:"stack" doc:"the glass that comes nearest; empty without stacks"`
	ErrorStops  stop.Stops `json:"errorStops"`
	IsServed    bool       `json:"isServed" doc:"within the accepted error with ISO at base"`
}

// YearCall is one glass and how many cells call for it.
type YearCall struct {
	Stack string `json:"stack"`
	Name  string `json:"name"`
	Cells int    `json:"cells"`
}

// Year answers year.
func Year(r YearRequest) (*YearAnswer, error) {
	band := glass.DefaultBand
	if t := r.Band; t != nil {
		band = glass.Band{Dark: t.Dark, Bright: t.Bright}
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
			at := day.Add(time.Duration(hour * float64(time.Hour)))
			scene, sun := o.At(at)
			c := YearCell{EV100: scene.EV, SpreadStops: scene.Spread, AltitudeDeg: sun.Apparent(), NeedStops: scene.EV.Above(r.EVSet) - r.Offset}
			r.serve(&c, band)
			if c.Stack != "" && c.IsServed {
				calls[c.Stack]++
			} else if c.NeedStops > band.Bright {
				open++
			}
			week.Cells = append(week.Cells, c)
		}
		a.Weeks = append(a.Weeks, week)
	}
	for _, s := range r.Stacks {
		if n := calls[s.ID]; n > 0 {
			a.Calls = append(a.Calls, YearCall{s.ID, s.Name, n})
		}
	}
	slices.SortStableFunc(a.Calls, func(x, y YearCall) int { return y.Cells - x.Cells })
	if open > 0 {
		a.Words = append(a.Words, fmt.Sprintf("%d of %d cells are too bright for any of this glass as it is", open, len(a.Weeks)*len(r.Hours)))
	}
	return a, nil
}

// serve picks the stack that comes nearest, of equal ones the one given first.
func (r *YearRequest) serve(c *YearCell, band glass.Band) {
	best := stop.Stops(0)
	for i, s := range r.Stacks {
		takes := min(max(c.NeedStops, s.Stops), max(s.Most, s.Stops))
		if e := c.NeedStops - takes; i == 0 || e.Abs() < best.Abs()-stop.Tolerance {
			best, c.Stack = e, s.ID
		}
	}
	c.ErrorStops = best
	if len(r.Stacks) == 0 {
		c.ErrorStops = c.NeedStops
	}
	c.IsServed = c.ErrorStops <= band.Bright+stop.Tolerance && c.ErrorStops >= -band.Dark-stop.Tolerance
}
