package assemble

import (
	"fmt"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// Lit is the light of a typed shot: its highest, its lowest where it sees a range, and
// where it was looked for, what the looks came to.
type Lit struct {
	High light.Scene
	Low  *light.Scene
	Step *glass.Step
}

// Settled reports whether more looks would not help.
func (l *Lit) Settled() bool { return l.Step == nil || l.Step.Settled }

// Lit reads the light of the shot and puts it into the question of its bench.
func (r *ShotRequest) Lit(b *Setup) (*Lit, error) {
	if r.Light.Kind == "looks" {
		return r.looked(b)
	}
	if r.Light.Kind == "sky" {
		if r.Light.Sky == nil {
			return nil, &problem.Fault{Field: "light.sky", Allowed: "what the sky is like"}
		}
		scene := r.Light.Sky.Scene()
		b.Question.Light = glass.Light{Low: scene.EV, High: scene.EV, Spread: scene.Spread}
		return &Lit{High: scene}, nil
	}
	if r.Light.At == nil {
		return nil, &problem.Fault{Field: "light.at", Allowed: "a reading"}
	}
	high, err := r.read(r.Light.At, "light.at", b)
	if err != nil {
		return nil, err
	}
	out := &Lit{High: high}
	b.Question.Light = glass.Light{Low: high.EV, High: high.EV, Spread: high.Spread}
	if r.Light.Low != nil {
		low, err := r.read(r.Light.Low, "light.low", b)
		if err != nil {
			return nil, err
		}
		if low.EV > high.EV {
			return nil, &problem.Fault{Field: "light.low", Value: low.EV.String(), Allowed: "no more light than the highest reading, " + high.EV.String()}
		}
		b.Question.Light.Low = low.EV
		out.Low = &low
	}
	return out, nil
}

// priorSpreads is how many of its spreads the light by eye may be off before anything was
// looked at.
const priorSpreads = 3

// looked takes the light from looks at the picture, from what the sky tells on where that was
// said.
func (r *ShotRequest) looked(b *Setup) (*Lit, error) {
	expected := glass.DayOutdoors
	if r.Light.Sky != nil {
		seen := r.Light.Sky.Scene()
		expected = glass.Interval{Low: seen.EV.Plus(-priorSpreads * seen.Spread), High: seen.EV.Plus(priorSpreads * seen.Spread)}
	}
	step, err := b.looked(r.Light.Looks, r.Light.Prior, expected)
	if err != nil {
		return nil, problem.At("light", err)
	}
	scene := light.Scene{EV: step.Light.Middle(), Spread: step.Light.Width() / 2}
	b.Question.Light = glass.Light{Low: scene.EV, High: scene.EV, Spread: scene.Spread}
	return &Lit{High: scene, Step: step}, nil
}

// read reduces one typed reading to the light of the scene.
func (r *ShotRequest) read(e *Entry, path string, b *Setup) (light.Scene, error) {
	switch r.Light.Kind {
	case "meter", "lux":
		return r.readText(e, path, b)
	case "bias":
		bias, err := stop.ParseBias(e.Bias)
		if err == nil && (bias < -10 || bias > 10) {
			err = &stop.ParseError{What: "a bias", Input: e.Bias, Err: light.ErrReach}
		}
		if err != nil {
			return light.Scene{}, Unreadable(path+".bias", err)
		}
		locked, on, err := r.cameraSetting(e, path, b, true)
		return light.FromBias(locked, on, bias), err
	}
	chosen, on, err := r.cameraSetting(e, path, b, false)
	return light.FromSetting(chosen, on), err
}

// readText reads what stands in a single field: a meter's setting, an exposure
// value or lux.
func (r *ShotRequest) readText(e *Entry, path string, b *Setup) (light.Scene, error) {
	text := e.Text
	if _, err := stop.ParseSigned(text); err == nil && r.Light.Kind == "lux" {
		text += " lux"
	}
	w, err := light.ParseWritten(text)
	if err != nil {
		return light.Scene{}, Unreadable(path+".text", err)
	}
	incomplete := func(allowed string) (light.Scene, error) {
		return light.Scene{}, &problem.Fault{Field: path + ".text", Value: e.Text, Allowed: allowed}
	}
	switch w.Form {
	case light.AsEV:
		return light.Scene{EV: w.EV, Spread: light.OnTheSpot}, nil
	case light.AsLux:
		return light.FromLux(w.Lux), nil
	case light.AsBias:
		return incomplete("a meter's reading; a bias has its own entry")
	}
	if r.Light.Kind == "lux" {
		return incomplete("incident light in lux, as in 6400")
	}
	if w.Setting.Shutter == 0 {
		return incomplete("a shutter time too, as in f2 1/1250 iso50")
	}
	// A meter is set to the camera's own aperture and base ISO unless it says otherwise.
	if w.Setting.Aperture == 0 {
		w.Setting.Aperture = b.Question.Setting.Aperture
	}
	if w.Setting.ISO == 0 {
		w.Setting.ISO = b.Question.Setting.ISO
	}
	return light.FromSetting(w.Setting, 0), nil
}

// cameraSetting returns the setting the camera was at when it was read and the
// stops of all glass before it, what lives on the lens included. A locked camera
// stands at the target unless its shutter was written.
func (r *ShotRequest) cameraSetting(e *Entry, path string, b *Setup, isLocked bool) (stop.Setting, stop.Stops, error) {
	s := b.Question.Setting
	if !isLocked || e.Shutter != "" {
		t, err := stop.ParseShutter(e.Shutter, b.Question.Rate)
		if err != nil {
			return s, 0, Unreadable(path+".shutter", err)
		}
		s.Shutter = t
	}
	if e.ISO != "" {
		iso, err := stop.ParseISO(e.ISO)
		if err != nil {
			return s, 0, Unreadable(path+".iso", err)
		}
		s.ISO = iso
	}
	if e.Stops != nil {
		return s, *e.Stops, nil
	}
	on, err := r.glassOn(e.Glass, path+".glass")
	return s, on, err
}

// glassOn sums the stops of the named loose filters and of what lives on the lens.
func (r *ShotRequest) glassOn(loose []string, path string) (stop.Stops, error) {
	kit, err := Filters(r.Kit)
	if err != nil {
		return 0, err
	}
	byID := map[string]*glass.Filter{}
	for i := range kit {
		byID[kit[i].ID] = &kit[i]
	}
	var sum stop.Stops
	counted := map[string]bool{}
	for i, id := range append(append([]string{}, r.Mounted...), loose...) {
		f, known := byID[id]
		at := fmt.Sprintf("%s[%d]", path, i-len(r.Mounted))
		switch {
		case !known:
			return 0, &problem.Fault{Field: at, Value: id, Allowed: "the id of a filter in the kit"}
		case f.Kind == glass.Variable:
			return 0, &problem.Fault{Field: at, Value: id, Allowed: "filters of fixed strength: where a variable filter's ring stood is not known, so read without it"}
		case !counted[id]:
			counted[id] = true
			sum += f.Stops
		}
	}
	return sum, nil
}
