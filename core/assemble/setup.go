package assemble

import (
	"cmp"
	"errors"
	"fmt"
	"slices"
	"strings"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Wish is a camera, the shutter wanted of it, and the glass there is.
type Wish struct {
	Camera   Camera        `json:"camera"`
	FPS      float64       `json:"fps,omitempty" minimum:"0.00001" maximum:"10000" doc:"frames per second; left out for a still"`
	AngleDeg *stop.Angle   `json:"angleDeg,omitempty" minimum:"0.001" maximum:"360" doc:"degrees; this or shutterS"`
	ShutterS *stop.Shutter `json:"shutterS,omitempty" minimum:"0.0000001" maximum:"86400" doc:"seconds; this or angleDeg"`
	Kit      []KitFilter   `json:"kit" maxItems:"200"`
	Choices

	// shutterField is what a fault calls the shutter, where it was typed elsewhere.
	shutterField string
}

// Setup is a wish made ready for choosing.
type Setup struct {
	Question glass.Question
	Snapped  stop.Snapped
	Stacks   []glass.Stack
	Kit      []glass.Filter
	Rules    glass.Rules
	mounted  []string
}

// Setup makes the wish ready for choosing; its light is not known yet.
func (w *Wish) Setup() (*Setup, error) {
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
		return nil, NoPossibleStep("camera.steps", w.Camera.Steps, fps)
	}
	if !snapped.Offered.Possible(fps) {
		return nil, &problem.Fault{Field: cmp.Or(w.shutterField, "shutterS"), Value: ideal, Allowed: fmt.Sprintf("at most %v, the length of a frame at %v fps", fps.Frame(), fps)}
	}
	if fastest := w.Camera.fastest(); !stop.AtMost(float64(fastest), float64(snapped.Offered)) {
		return nil, &problem.Fault{Field: cmp.Or(w.shutterField, "shutterS"), Value: ideal, Allowed: fmt.Sprintf("at least %v, the camera's fastest", fastest)}
	}
	kit, err := Filters(w.Kit)
	if err != nil {
		return nil, err
	}
	rules := w.Rules(&w.Camera)
	stacks, err := glass.Stacks(kit, rules)
	if err != nil {
		return nil, err
	}
	q := glass.Question{
		Setting: stop.Setting{Aperture: w.Camera.Aperture, Shutter: snapped.Offered, ISO: w.Camera.ISOBase},
		Wished:  snapped.Ideal,
		Steps:   w.Camera.Steps,
		Rate:    fps, Ceiling: w.Camera.ISOCeiling, Fastest: w.Camera.fastest(),
		Offset: w.OffsetStops, Band: glass.DefaultBand, Priority: w.Priority, FreeLift: w.FreeLift,
	}
	if t := w.Tolerance; t != nil {
		q.Band = glass.Band{Dark: t.Dark, Bright: t.Bright}
	}
	return &Setup{Question: q, Snapped: snapped, Stacks: stacks, Kit: kit, Rules: rules, mounted: w.Mounted}, nil
}

// Rebuild makes the stacks anew with one more filter: a new one, or one of the kit that was not
// at hand.
func (b *Setup) Rebuild(extra glass.Filter) ([]glass.Stack, error) {
	kit := b.Kit
	if !slices.ContainsFunc(kit, func(f glass.Filter) bool { return f.ID == extra.ID }) {
		kit = append(kit[:len(kit):len(kit)], extra)
	}
	return glass.Stacks(kit, b.Rules.With(extra))
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

// Stack returns exactly the filters named, whatever their kinds: in the order in which such a
// stack is offered, else in that of the names. field names the list in a fault.
func (b *Setup) Stack(ids []string, field string) (*glass.Stack, error) {
	for i := range b.Stacks {
		if glass.SameIDs(glass.IDs(b.Stacks[i].Filters), ids) {
			return &b.Stacks[i], nil
		}
	}
	stack, err := glass.Exactly(b.Kit, ids, b.mounted)
	var fault *problem.Fault
	if errors.As(err, &fault) {
		fault.Field = strings.Replace(fault.Field, "required", field, 1)
	}
	return stack, err
}

// Look is one look at a locked setting.
type Look struct {
	Stops stop.Stops `json:"stops" minimum:"0" maximum:"40" doc:"the glass that was on"`
	EVSet *stop.EV   `json:"evSet,omitempty" minimum:"-20" maximum:"40" doc:"what the setting needed; the wished one by default"`
	Saw   glass.Saw  `json:"saw" doc:"too dark, right or too bright"`
}

// Prior is the light that is to be expected before anything was looked at.
type Prior struct {
	LowEV100  stop.EV `json:"lowEv100" minimum:"-20" maximum:"40"`
	HighEV100 stop.EV `json:"highEv100" minimum:"-20" maximum:"40" doc:"at least lowEv100"`
}

// interval returns the prior as a search starts from it, otherwise where it is nil.
func (p *Prior) interval(otherwise glass.Interval) (glass.Interval, error) {
	if p == nil {
		return otherwise, nil
	}
	if p.HighEV100 < p.LowEV100 {
		return otherwise, &problem.Fault{Field: "prior.highEv100", Value: p.HighEV100, Allowed: "at least lowEv100"}
	}
	return glass.Interval{Low: p.LowEV100, High: p.HighEV100}, nil
}

// Looked narrows the light down by looks, from a prior or where that is nil from all
// light there is; their faults name looks[i] and prior.
func (b *Setup) Looked(looks []Look, prior *Prior) (*glass.Step, error) {
	return b.looked(looks, prior, glass.EveryLight)
}

func (b *Setup) looked(looks []Look, prior *Prior, otherwise glass.Interval) (*glass.Step, error) {
	taken := make([]glass.Look, len(looks))
	for i, l := range looks {
		taken[i] = glass.Look{Stops: l.Stops, EVSet: b.Question.Setting.EV(), Saw: l.Saw}
		if l.EVSet != nil {
			taken[i].EVSet = *l.EVSet
		}
	}
	from, err := prior.interval(otherwise)
	if err != nil {
		return nil, err
	}
	step, err := glass.NextLook(&b.Question, b.Stacks, from, taken)
	if err != nil && prior == nil { // looks outweigh a light that was only supposed
		step, err = glass.NextLook(&b.Question, b.Stacks, glass.EveryLight, taken)
	}
	return &step, err
}

// SceneLight is one light, or the lowest and highest of a shot.
type SceneLight struct {
	EV100       *stop.EV   `json:"ev100,omitempty" minimum:"-20" maximum:"40" doc:"one light, as EV at ISO 100; this or both others"`
	LowEV100    *stop.EV   `json:"lowEv100,omitempty" minimum:"-20" maximum:"40" doc:"the lowest light of the shot"`
	HighEV100   *stop.EV   `json:"highEv100,omitempty" minimum:"-20" maximum:"40" doc:"the highest light of the shot"`
	SpreadStops stop.Stops `json:"spreadStops,omitempty" minimum:"0" maximum:"10" doc:"how far the reading may be off"`
}

func (l *SceneLight) Light() (glass.Light, error) {
	isRange := l.LowEV100 != nil || l.HighEV100 != nil
	switch {
	case l.EV100 != nil && isRange:
		return glass.Light{}, &problem.Fault{Field: "light.ev100", Value: *l.EV100, Allowed: "either one light or a range, not both"}
	case l.EV100 != nil:
		return glass.Light{Low: *l.EV100, High: *l.EV100, Spread: l.SpreadStops}, nil
	case l.HighEV100 == nil && isRange:
		return glass.Light{}, &problem.Fault{Field: "light.highEv100", Allowed: "the highest light beside the lowest"}
	case l.LowEV100 == nil && isRange:
		return glass.Light{}, &problem.Fault{Field: "light.lowEv100", Allowed: "the lowest light beside the highest"}
	case !isRange:
		return glass.Light{}, &problem.Fault{Field: "light.ev100", Allowed: "one light, or lowEv100 and highEv100"}
	case *l.LowEV100 > *l.HighEV100:
		return glass.Light{}, &problem.Fault{Field: "light.lowEv100", Value: *l.LowEV100, Allowed: "at most highEv100"}
	}
	return glass.Light{Low: *l.LowEV100, High: *l.HighEV100, Spread: l.SpreadStops}, nil
}

// Angle returns the shutter angle of t, nil for a still.
func (b *Setup) Angle(t stop.Shutter) *stop.Angle {
	if b.Question.Rate == 0 {
		return nil
	}
	angle := t.Angle(b.Question.Rate)
	return &angle
}
