package calc

import (
	"fmt"

	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/problem"
	"pinhole/core/stop"
)

// read reduces one typed reading to the light of the scene.
func (r *ShotRequest) read(e *Entry, path string, b *bench) (light.Scene, error) {
	switch r.Light.Kind {
	case "meter", "lux":
		return r.readText(e, path, b)
	case "bias":
		bias, err := stop.ParseSigned(e.Bias)
		if err == nil && (bias < -10 || bias > 10) {
			err = &stop.ParseError{What: "a bias", Input: e.Bias, Err: light.ErrReach}
		}
		if err != nil {
			return light.Scene{}, unreadable(path+".bias", err)
		}
		locked, on, err := r.cameraSetting(e, path, b, true)
		return light.FromBias(locked, on, stop.Stops(bias)), err
	}
	chosen, on, err := r.cameraSetting(e, path, b, false)
	return light.FromSetting(chosen, on), err
}

// readText reads what stands in a single field: a meter's setting, an exposure
// value or lux.
func (r *ShotRequest) readText(e *Entry, path string, b *bench) (light.Scene, error) {
	text := e.Text
	if _, err := stop.ParseSigned(text); err == nil && r.Light.Kind == "lux" {
		text += " lux"
	}
	w, err := light.ParseWritten(text)
	if err != nil {
		return light.Scene{}, unreadable(path+".text", err)
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
		w.Setting.Aperture = b.question.Setting.Aperture
	}
	if w.Setting.ISO == 0 {
		w.Setting.ISO = b.question.Setting.ISO
	}
	return light.FromSetting(w.Setting, 0), nil
}

// cameraSetting returns the setting the camera was at when it was read and the
// stops of all glass before it, what lives on the lens included. A locked camera
// stands at the target unless its shutter was written.
func (r *ShotRequest) cameraSetting(e *Entry, path string, b *bench, isLocked bool) (stop.Setting, stop.Stops, error) {
	s := b.question.Setting
	if !isLocked || e.Shutter != "" {
		t, err := stop.ParseShutter(e.Shutter, b.question.Rate)
		if err != nil {
			return s, 0, unreadable(path+".shutter", err)
		}
		s.Shutter = t
	}
	if e.ISO != "" {
		iso, err := stop.ParseISO(e.ISO)
		if err != nil {
			return s, 0, unreadable(path+".iso", err)
		}
		s.ISO = iso
	}
	on, err := r.glassOn(e.Glass, path+".glass")
	return s, on, err
}

// glassOn sums the stops of the named loose filters and of what lives on the lens.
func (r *ShotRequest) glassOn(loose []string, path string) (stop.Stops, error) {
	kit, err := filters(r.Kit)
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
			return 0, &problem.Fault{Field: at, Value: id, Allowed: "glass of fixed strength: where a variable filter's ring stood is not known, so read without it"}
		case !counted[id]:
			counted[id] = true
			sum += f.Stops
		}
	}
	return sum, nil
}
