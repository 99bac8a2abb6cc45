package calc

import (
	"errors"
	"fmt"
	"strings"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Camera is what choosing glass needs to know of a camera.
type Camera struct {
	Aperture   stop.FNumber   `json:"aperture" minimum:"0.5" maximum:"64" doc:"f-number, T-number where known"`
	ISOBase    stop.ISO       `json:"isoBase" minimum:"1" maximum:"1000000"`
	ISOCeiling stop.ISO       `json:"isoCeiling" minimum:"1" maximum:"10000000" doc:"the highest ISO that still looks good"`
	Steps      []stop.Shutter `json:"steps,omitempty" maxItems:"200" minimum:"0.0000001" maximum:"86400" doc:"the shutter times the camera offers, in seconds; none means any"`
	FastestS   stop.Shutter   `json:"fastestS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"the shortest shutter time, in seconds; left out, the shortest of steps"`
}

// fastest returns the shortest shutter time, 0 where it is not known.
func (c *Camera) fastest() stop.Shutter {
	fastest := c.FastestS
	for _, s := range c.Steps {
		if c.FastestS == 0 && (fastest == 0 || s < fastest) {
			fastest = s
		}
	}
	return fastest
}

// KitFilter is a filter as a request states it.
type KitFilter struct {
	ID            string      `json:"id" minLength:"1" maxLength:"100"`
	Stops         stop.Stops  `json:"stops" minimum:"0" maximum:"40" doc:"as printed: the total of a hybrid, the least of a variable, 0 for a graduated filter"`
	Kind          glass.Kind  `json:"kind" enum:"nd,nd-polariser,polariser,variable,graduated,clear,mist,night"`
	MinStops      *stop.Stops `json:"minStops,omitempty" minimum:"0" maximum:"40" doc:"variable: the lightest setting"`
	MaxStops      *stop.Stops `json:"maxStops,omitempty" minimum:"0" maximum:"40" doc:"variable: the darkest setting"`
	MeasuredStops *stop.Stops `json:"measuredStops,omitempty" minimum:"-1" maximum:"40" doc:"replaces stops"`
	StdErrStops   stop.Stops  `json:"stdErrStops,omitempty" minimum:"0" maximum:"10" doc:"standard error of measuredStops"`
	CornerStops   stop.Stops  `json:"cornerStops,omitempty" minimum:"0" maximum:"20" doc:"how much darker the corners come out"`
	CastStops     stop.Stops  `json:"castStops,omitempty" minimum:"-5" maximum:"5" doc:"colour cast, positive towards red"`
	WeightG       float64     `json:"weightG,omitempty" minimum:"0" maximum:"10000" doc:"grams"`
	Ring          []RingMark  `json:"ring,omitempty" maxItems:"30" doc:"variable: marks on its ring and what was measured there; replaces minStops and maxStops"`
	TiltUpDeg     *angle.Deg  `json:"tiltUpDeg,omitempty" minimum:"-90" maximum:"90" doc:"how far the camera still tilts up with it on, degrees"`
	Fits          *bool       `json:"fits,omitempty" doc:"false removes the filter; true by default"`
	Base          *bool       `json:"base,omitempty" doc:"false: cannot sit on the camera itself; true by default"`
	TakesLayer    *bool       `json:"takesLayer,omitempty" doc:"false: nothing goes on it; true by default"`
}

// RingMark is a position on the ring of a variable filter.
type RingMark struct {
	Mark  string     `json:"mark" minLength:"1" maxLength:"20" doc:"as it stands on the ring"`
	Stops stop.Stops `json:"stops" minimum:"0" maximum:"40" doc:"measured there"`
}

// CheckRing returns the fault of marks that make no ring; path is where they stand.
func CheckRing(path string, marks []RingMark) (glass.Ring, error) {
	all := make([]glass.RingMark, len(marks))
	for i, m := range marks {
		all[i] = glass.RingMark(m)
	}
	ring, ok := glass.NewRing(all)
	if !ok {
		return nil, &problem.Fault{Field: path, Value: marks, Allowed: "two marks at least, each with other stops"}
	}
	return ring, nil
}

func isFalse(b *bool) bool { return b != nil && !*b }

func (k *KitFilter) filter(path string) (glass.Filter, error) {
	f := glass.Filter{
		ID: k.ID, Kind: k.Kind, Stops: k.Stops, Corner: k.CornerStops, Cast: k.CastStops, WeightG: k.WeightG,
		Unfit: isFalse(k.Fits), NeedsBase: isFalse(k.Base), Closed: isFalse(k.TakesLayer),
	}
	if k.Kind != glass.Variable {
		if k.MeasuredStops != nil {
			f.Stops, f.Measured, f.StdErr = *k.MeasuredStops, true, k.StdErrStops
		}
		if k.Kind == glass.Graduated {
			f.Stops = 0
		}
		return f, nil
	}
	ring, err := CheckRing(path+".ring", k.Ring)
	if err != nil {
		return f, err
	}
	if f.Ring = ring; len(ring) > 0 {
		f.Stops, f.Most = ring[0].Stops, ring[len(ring)-1].Stops
		return f, nil
	}
	switch {
	case k.MeasuredStops != nil:
		return f, &problem.Fault{Field: path + ".measuredStops", Value: *k.MeasuredStops, Allowed: "nothing for a variable filter, which is described by minStops and maxStops"}
	case k.MinStops == nil || k.MaxStops == nil:
		return f, &problem.Fault{Field: path + ".maxStops", Allowed: "a variable filter needs minStops and maxStops"}
	case *k.MinStops > *k.MaxStops:
		return f, &problem.Fault{Field: path + ".maxStops", Value: *k.MaxStops, Allowed: fmt.Sprintf("at least minStops, %v", float64(*k.MinStops))}
	}
	f.Stops, f.Most = *k.MinStops, *k.MaxStops
	return f, nil
}

// Tolerance is the accepted exposure error, in stops, both sides positive.
type Tolerance struct {
	Dark   stop.Stops `json:"dark" minimum:"0" maximum:"5" doc:"stops darker than wanted"`
	Bright stop.Stops `json:"bright" minimum:"0" maximum:"5" doc:"stops brighter than wanted"`
}

// Choices are the user's schools and rules, each with a default.
type Choices struct {
	MaxLayers   int            `json:"maxLayers,omitempty" minimum:"1" maximum:"4" doc:"most loose layers in a stack; 2 by default"`
	OffsetStops stop.Stops     `json:"offsetStops,omitempty" minimum:"-5" maximum:"5" doc:"exposure wanted against the meter, positive brighter"`
	Tolerance   *Tolerance     `json:"tolerance,omitempty" doc:"two thirds dark and one third bright by default"`
	Priority    glass.Priority `json:"priority,omitempty" enum:"blur,image" doc:"what is kept first: the shutter (blur, the default) or ISO (image)"`
	Allow       []glass.Kind   `json:"allow,omitempty" maxItems:"8" enum:"nd,nd-polariser,polariser,variable,graduated,clear,mist,night" doc:"kinds used for their darkness; nd and variable by default"`
	Required    []string       `json:"required,omitempty" maxItems:"4" doc:"ids of glass asked for, for its effect"`
	Mounted     []string       `json:"mounted,omitempty" maxItems:"4" doc:"ids of glass that lives on the lens"`
}

func (c *Choices) rules() glass.Rules {
	return glass.Rules{MaxLayers: c.MaxLayers, Allow: c.Allow, Required: c.Required, Mounted: c.Mounted}
}

// Wish is a camera, the shutter wanted of it, and the glass there is.
type Wish struct {
	Camera   Camera        `json:"camera"`
	FPS      float64       `json:"fps,omitempty" minimum:"0.00001" maximum:"10000" doc:"frames per second; left out for a still"`
	AngleDeg *stop.Angle   `json:"angleDeg,omitempty" minimum:"0.001" maximum:"360" doc:"degrees; this or shutterS"`
	ShutterS *stop.Shutter `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds; this or angleDeg"`
	Kit      []KitFilter   `json:"kit" maxItems:"200"`
	Choices
}

// bench is a wish made ready for choosing.
type bench struct {
	question glass.Question
	snapped  stop.Snapped
	stacks   []glass.Stack
	kit      []glass.Filter
	mounted  []string
}

func (w *Wish) bench() (*bench, error) {
	fps := stop.ExactRate(w.FPS)
	if w.Camera.ISOCeiling < w.Camera.ISOBase {
		return nil, &problem.Fault{Field: "camera.isoCeiling", Value: w.Camera.ISOCeiling, Allowed: fmt.Sprintf("at least isoBase, %.0f", float64(w.Camera.ISOBase))}
	}
	ideal, err := w.ideal(fps)
	if err != nil {
		return nil, err
	}
	snapped, ok := stop.Snap(ideal, w.Camera.Steps, fps)
	if !ok {
		return nil, noPossibleStep("camera.steps", w.Camera.Steps, fps)
	}
	if !snapped.Offered.Possible(fps) {
		return nil, &problem.Fault{Field: "shutterS", Value: ideal, Allowed: fmt.Sprintf("at most %v, the length of a frame at %v fps", fps.Frame(), fps)}
	}
	if fastest := w.Camera.fastest(); !stop.AtMost(float64(fastest), float64(snapped.Offered)) {
		return nil, &problem.Fault{Field: "shutterS", Value: ideal, Allowed: fmt.Sprintf("at least %v, the camera's fastest", fastest)}
	}
	kit, err := filters(w.Kit)
	if err != nil {
		return nil, err
	}
	stacks, err := glass.Stacks(kit, w.rules())
	if err != nil {
		return nil, err
	}
	q := glass.Question{
		Setting: stop.Setting{Aperture: w.Camera.Aperture, Shutter: snapped.Offered, ISO: w.Camera.ISOBase},
		Rate:    fps, Ceiling: w.Camera.ISOCeiling, Fastest: w.Camera.fastest(),
		Offset: w.OffsetStops, Band: glass.DefaultBand, Priority: w.Priority,
	}
	if t := w.Tolerance; t != nil {
		q.Band = glass.Band{Dark: t.Dark, Bright: t.Bright}
	}
	return &bench{question: q, snapped: snapped, stacks: stacks, kit: kit, mounted: w.Mounted}, nil
}

// rebuild returns the function that makes the stacks anew with one more filter.
func (b *bench) rebuild(c Choices) func(glass.Filter) ([]glass.Stack, error) {
	return func(extra glass.Filter) ([]glass.Stack, error) {
		return glass.Stacks(append(b.kit[:len(b.kit):len(b.kit)], extra), c.rules())
	}
}

func (w *Wish) ideal(fps stop.FrameRate) (stop.Shutter, error) {
	switch {
	case w.AngleDeg == nil && w.ShutterS == nil:
		return 0, &problem.Fault{Field: "angleDeg", Allowed: "either this or shutterS"}
	case w.AngleDeg != nil && w.ShutterS != nil:
		return 0, &problem.Fault{Field: "angleDeg", Value: *w.AngleDeg, Allowed: "either this or shutterS, not both"}
	case w.ShutterS != nil:
		return *w.ShutterS, nil
	case fps == 0:
		return 0, &problem.Fault{Field: "fps", Allowed: "frames per second: an angle says nothing without them"}
	}
	return w.AngleDeg.At(fps), nil
}

// weigh returns the option made by exactly the filters named, whatever their
// kinds; field names the list in a fault.
func (b *bench) weigh(ids []string, field string) (glass.Option, error) {
	stacks, err := glass.Stacks(b.kit, glass.Rules{MaxLayers: glass.MaxLayers, Allow: []glass.Kind{}, Required: ids, Mounted: b.mounted})
	if err != nil {
		var fault *problem.Fault
		if errors.As(err, &fault) {
			fault.Field = strings.Replace(fault.Field, "required", field, 1)
		}
		return glass.Option{}, err
	}
	return glass.Weigh(&b.question, &stacks[0]), nil
}

func filters(kit []KitFilter) ([]glass.Filter, error) {
	all := make([]glass.Filter, len(kit))
	seen := make(map[string]bool, len(kit))
	for i := range kit {
		path := fmt.Sprintf("kit[%d]", i)
		f, err := kit[i].filter(path)
		if err != nil {
			return nil, err
		}
		if seen[f.ID] {
			return nil, &problem.Fault{Field: path + ".id", Value: f.ID, Allowed: "an id that no other filter has"}
		}
		seen[f.ID], all[i] = true, f
	}
	return all, nil
}
