package service

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"pinhole/core/assemble"
	"pinhole/core/fit"
	"slices"

	"pinhole/core/motion"
	"pinhole/core/problem"
	"pinhole/core/stop"
	"pinhole/internal/store"
)

// optics returns what choosing needs to know of a camera. Its faults name the
// fields of store.CameraFields.
func optics(c store.CameraFields) (assemble.Camera, error) {
	out := assemble.Camera{Aperture: c.Aperture, ISOBase: c.ISOBase, ISOCeiling: c.ISOCeiling}
	if c.TNumber != nil { // the light that comes through
		out.Aperture = *c.TNumber
		if *c.TNumber < c.Aperture {
			return out, &problem.Fault{Field: "tNumber", Value: *c.TNumber, Allowed: fmt.Sprintf("at least the f-number, %v: a lens loses light", c.Aperture)}
		}
	}
	for i, text := range c.FrameSizes {
		if _, err := motion.ParseFrameSize(text); err != nil {
			return out, &problem.Fault{Field: fmt.Sprintf("frameSizes[%d]", i), Value: text, Allowed: err.Error()}
		}
	}
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

// SaveCamera stores a new camera, held as its archetype is, or a change of one.
func (svc *Service) SaveCamera(ctx context.Context, c store.Camera) (store.Camera, error) {
	if err := errors.Join(svc.CheckCamera(c), svc.CheckMounted(ctx, c)); err != nil {
		return c, err
	}
	if p := c.Profile; p != nil && p.Lens != nil {
		lens := p.Lens.AsRecorded(c.FrameSizes)
		changed := *p
		changed.Lens = &lens
		c.Profile = &changed
	}
	if c.IsNew() {
		return svc.Store.AddCamera(ctx, c, firstRig(c.CameraFields))
	}
	return svc.Store.Cameras().Save(ctx, c)
}

// CheckRig returns the fault of a rig that could not be.
func (svc *Service) CheckRig(r store.Rig) error {
	err := errors.Join(checkSources(r.Sources), problem.At("measures", fit.CheckRig(&r.Measures)))
	if r.Craft != nil {
		err = errors.Join(err, problem.At("craft", r.Craft.Check()))
	}
	return err
}

func checkSources(sources map[string]store.Source) error {
	for _, field := range slices.Sorted(maps.Keys(sources)) {
		if s := sources[field]; s != store.Printed && s != store.Measured && s != store.Assumed {
			return &problem.Fault{Field: "sources." + field, Value: s, Allowed: "one of printed, measured, assumed"}
		}
	}
	return nil
}

// CheckCamera returns the fault of a camera that could not be used.
func (svc *Service) CheckCamera(c store.Camera) error {
	_, err := optics(c.CameraFields)
	return errors.Join(checkSources(c.Sources), err)
}
