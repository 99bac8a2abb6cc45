package desk

import (
	"context"

	"pinhole/core/stop"
	"pinhole/core/take"
)

// TakeOf returns what is known of a clip of a shot before it is measured: how it was meant to be
// exposed, and what its camera sees.
func (d *Desk) TakeOf(ctx context.Context, shotID string) (*take.Request, error) {
	shot, err := d.Store.Shots().Get(ctx, shotID)
	if err != nil {
		return nil, err
	}
	r := &take.Request{}
	asked := shot.Answer.Request
	if given := shot.Answer.Given; given.Shutter != nil {
		r.ShutterS = stop.Shutter(given.Shutter.ShutterS)
	}
	if p := asked.Profile; p != nil {
		r.ReadoutS = p.ReadoutS
		if p.Lens != nil {
			r.HFOVDeg, r.Projection = p.Lens.HFOVDeg, p.Lens.Projection
		}
	}
	if lamps := asked.Scene.Lamps; lamps != nil && lamps.MainsHz != nil {
		r.MainsHz = *lamps.MainsHz
	}
	return r, nil
}
