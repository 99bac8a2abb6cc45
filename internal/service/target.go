package service

import (
	"context"

	"pinhole/core/stop"
	"pinhole/internal/sim"
	"pinhole/internal/store"
)

// What the simulated camera exposes at where no camera is meant.
const (
	simulatedAperture = stop.FNumber(2.8)
	simulatedISO      = stop.ISO(100)
)

// SimulatedTarget takes a frame of a target through a filter, or through nothing where filterID
// is empty, by the camera of a rig, and returns it as PNG with a name for its file. The light
// falls a little with each frame that was taken before.
func (svc *Service) SimulatedTarget(ctx context.Context, target sim.Target, filterID, rigID string, frame int) (name string, png []byte, err error) {
	s, err := svc.shelf(ctx)
	if err != nil {
		return "", nil, err
	}
	r := sim.TargetRequest{Target: target, Aperture: simulatedAperture, ISO: simulatedISO, Frame: frame, Seed: uint64(frame) + 1}
	if rig := s.rig(rigID); rig != nil {
		camera := s.cameras[rig.CameraID]
		r.Aperture, r.ISO = camera.Aperture, camera.ISOBase
	}
	name = "bare"
	if filterID != "" {
		f, err := svc.Store.Filters().Get(ctx, filterID)
		if err != nil {
			return "", nil, err
		}
		shown, err := Show(f)
		if err != nil {
			return "", nil, err
		}
		on := &Seat{}
		if rig := s.rig(rigID); rig != nil {
			if on, err = s.seat(*rig, []store.Filter{f}); err != nil {
				return "", nil, err
			}
		}
		m := on.measured(f)
		printed := shown.Takes
		if shown.Counts == nil { // a label that can be read in two ways is read in the likelier
			printed = shown.Reads.TotalStops
		}
		name, r.Filter = shown.Title, sim.TruthOf(shown.Title+f.Slot, sim.Known{
			Printed: printed, Stops: f.MeasuredStops, CastStops: f.CastStops, CornerStops: m.CornerStops, SharpnessLost: m.SharpnessLost, Flare: m.Flare,
		})
	}
	png, err = sim.TargetFrame(r)
	return "simulated-" + string(target) + "-" + name + ".png", png, err
}
