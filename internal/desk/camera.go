package desk

import (
	"fmt"

	"pinhole/core/calc"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// optics returns what choosing needs to know of a camera. Its faults name the
// fields of store.CameraFields.
func optics(c store.CameraFields) (calc.Camera, error) {
	out := calc.Camera{Aperture: c.Aperture, ISOBase: c.ISOBase, ISOCeiling: c.ISOCeiling}
	if c.ISOCeiling < c.ISOBase {
		return out, &problem.Fault{Field: "isoCeiling", Value: c.ISOCeiling, Allowed: fmt.Sprintf("at least the base ISO, %.0f", float64(c.ISOBase))}
	}
	if err := c.Profile.Check(); err != nil {
		return out, err
	}
	for i, text := range c.Steps {
		t, err := stop.ParseShutter(text, 0)
		if err != nil {
			return out, named(fmt.Sprintf("steps[%d]", i), text, err)
		}
		out.Steps = append(out.Steps, t)
	}
	for i, text := range c.Rates {
		if _, err := stop.ParseRate(text); err != nil {
			return out, named(fmt.Sprintf("rates[%d]", i), text, err)
		}
	}
	return out, nil
}

// CheckCamera returns the fault of a camera that could not be used.
func (d *Desk) CheckCamera(c store.Camera) error {
	_, err := optics(c.CameraFields)
	return err
}
