package desk

import (
	"context"
	"pinhole/core/assemble"
	"slices"

	"pinhole/core/calc"
	"pinhole/core/stop"
)

// Covered is the light a camera's glass covers, by the looks and the shots that
// are stored.
type Covered struct {
	calc.CoverageAnswer
	Shots map[string]string `json:"shots" doc:"names of the shots whose light is wanted, by id"`
}

// The light that a coverage table shows: from a lantern to sun on snow, in half stops.
const (
	lanternEV  = stop.EV(2)
	snowEV     = stop.EV(17)
	halfStops  = 31
	mostLooks  = 12
	usualAngle = "180°"
)

// Coverage returns what the glass of a camera covers, held as one of its rigs: the
// looks of its shots, then its frame rates at 180°, against the light of those
// shots, or of the shots of one shoot where that is named.
func (d *Desk) Coverage(ctx context.Context, cameraID, rigID, shootID string) (*Covered, error) {
	b, err := d.Bench(ctx, cameraID, rigID)
	if err != nil {
		return nil, err
	}
	shots, err := d.Store.Shots().List(ctx)
	if err != nil {
		return nil, err
	}
	request := calc.CoverageRequest{
		Camera: b.Optics, Kit: b.Kit, LowEV100: lanternEV, HighEV100: snowEV, Columns: halfStops, Choices: assemble.Choices{Mounted: b.mounted()},
	}
	names := map[string]string{}
	for _, s := range shots {
		if s.CameraID != cameraID || s.Scene.Interval > 0 || shootID != "" && s.ShootID != shootID {
			continue
		}
		if r := s.Answer.Given.Reading; r != nil && s.Answer.Given.Settled {
			low := r
			if s.Answer.Given.Low != nil {
				low = s.Answer.Given.Low
			}
			names[s.ID] = s.Name
			request.Wanted = append(request.Wanted, calc.WantedLight{
				ID: s.ID, FPS: s.Look.FPS, Target: s.Look.Target, LowEV100: low.EV100, HighEV100: r.EV100, SpreadStops: max(low.SpreadStops, r.SpreadStops), MaxLayers: s.Choices.MaxLayers,
			})
		}
		request.Looks = withLook(request.Looks, s.Look.FPS, s.Look.Target)
	}
	for _, fps := range b.Camera.Rates {
		if rate, err := stop.ParseRate(fps); err != nil || rate == 0 {
			continue // a still has no angle
		}
		request.Looks = withLook(request.Looks, fps, usualAngle)
	}
	if len(request.Looks) == 0 {
		request.Looks = withLook(nil, "25", usualAngle)
	}
	answer, err := calc.Coverage(request)
	if err != nil {
		return nil, err
	}
	return &Covered{*answer, names}, nil
}

// withLook adds a look that is not there yet, as long as there is room for it.
func withLook(looks []calc.CoverageLook, fps, target string) []calc.CoverageLook {
	look := calc.CoverageLook{FPS: fps, Target: target}
	if len(looks) >= mostLooks || slices.Contains(looks, look) {
		return looks
	}
	return append(looks, look)
}

// mounted returns the glass that lives on the lens and is in the kit.
func (b *Bench) mounted() []string {
	return slices.DeleteFunc(slices.Clone(b.Camera.Mounted), func(id string) bool {
		return !slices.ContainsFunc(b.Kit, func(k assemble.KitFilter) bool { return k.ID == id })
	})
}
