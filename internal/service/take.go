package service

import (
	"context"
	"hash/fnv"
	"math"
	"math/rand/v2"

	"pinhole/core/angle"
	judged "pinhole/core/shot"
	"pinhole/core/stop"
	"pinhole/core/take"
	"pinhole/internal/sim"
)

// TakeOf returns what is known of a clip of a shot before it is measured: how it was meant to be
// exposed, and what its camera sees.
func (svc *Service) TakeOf(ctx context.Context, shotID string) (*take.Request, error) {
	shot, err := svc.Shot(ctx, shotID)
	if err != nil {
		return nil, err
	}
	r := &take.Request{}
	asked := shot.Answer.Request
	// The shutter that is told on every screen, and only where the camera holds it.
	given := shot.Answer.Given
	if t, isLocked := given.Chosen.Locked(); isLocked && given.Settled && asked.Scene.School != judged.ByAutomatic {
		r.ShutterS = t
		setting := stop.Setting{Aperture: asked.Camera.Aperture, Shutter: t, ISO: given.Chosen.ISO}
		suits := setting.EV().Plus(given.Chosen.Stops + given.Offset)
		r.SuitsEV = &suits
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

// How far what the simulated camera does may stray from what a shot meant, in natural logarithms:
// people shake otherwise than is assumed.
const simulatedStray = 0.25

// SimulatedClip records a clip of a shot with the simulated camera, and returns it with a name for
// its file. What is off in it is the same each time.
func (svc *Service) SimulatedClip(ctx context.Context, shotID string) (name string, clip []byte, err error) {
	shot, err := svc.Shot(ctx, shotID)
	if err != nil {
		return "", nil, err
	}
	known, err := svc.TakeOf(ctx, shotID)
	if err != nil {
		return "", nil, err
	}
	fps, err := stop.ParseRate(shot.Look.FPS)
	if err != nil || fps <= 0 {
		fps = usualRate
	}
	hash := fnv.New64a()
	_, _ = hash.Write([]byte(shot.Name)) // a hash takes all
	shake := angle.DegPerS(0)
	if ready, err := shot.Answer.Request.Assemble(); err == nil && ready.Scene.Shaking != nil && !ready.Scene.Shaking.Stabiliser.ShiftsFrames() {
		shake = ready.Scene.Shaking.Reaching()
	}
	shake *= angle.DegPerS(math.Exp(simulatedStray * rand.New(rand.NewPCG(hash.Sum64(), 1)).NormFloat64()))
	known.ShutterS = shot.Answer.Given.Chosen.ShutterS
	return "simulated-" + shot.Name + ".y4m", sim.Clip(*known, float64(fps), shake, hash.Sum64()), nil
}

// usualRate is that of a shot that has none, a still or a time-lapse.
const usualRate = stop.FrameRate(25)
