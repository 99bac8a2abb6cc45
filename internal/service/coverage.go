package service

import (
	"context"
	"fmt"
	"pinhole/core/assemble"
	"pinhole/core/day"
	"pinhole/core/glass"
	"pinhole/internal/store"
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

// mostLooks is how many looks a coverage table has room for.
const mostLooks = 12

// Coverage returns what the glass of a camera covers, held as one of its rigs: the
// looks of its shots, then its frame rates at the usual angle, against the light of those
// shots, or of the shots of one shoot where that is named. A shot with a time is asked for in
// the light that the plan of its day goes by.
func (svc *Service) Coverage(ctx context.Context, cameraID, rigID, shootID string) (*Covered, error) {
	b, err := svc.Bench(ctx, cameraID, rigID)
	if err != nil {
		return nil, err
	}
	shots, err := svc.Store.Shots().List(ctx)
	if err != nil {
		return nil, err
	}
	shots = slices.DeleteFunc(shots, func(s store.Shot) bool {
		return s.CameraID != cameraID || s.Scene.Interval > 0 || shootID != "" && s.ShootID != shootID
	})
	if err := svc.tell(ctx, shots); err != nil {
		return nil, err
	}
	request := calc.CoverageRequest{
		Camera: b.Optics, Kit: b.Kit, LowEV100: glass.TableLow, HighEV100: glass.TableHigh, Columns: glass.TableColumns, Choices: assemble.Choices{Mounted: b.mounted()}, Profile: b.Camera.Profile,
	}
	names := map[string]string{}
	plans := plans{svc, map[string]map[string]day.OutingPlan{}}
	for _, s := range shots {
		if r := s.Answer.Given.Reading; r != nil && s.Answer.Given.Settled {
			low := r
			if s.Answer.Given.Low != nil {
				low = s.Answer.Given.Low
			}
			names[s.ID] = s.Name
			wanted := calc.WantedLight{
				ID: s.ID, FPS: s.Look.FPS, Target: s.Look.Target, LowEV100: low.EV100, HighEV100: r.EV100, SpreadStops: max(low.SpreadStops, r.SpreadStops), MaxLayers: s.Choices.MaxLayers,
			}
			wanted.Shot = b.wantedShot(&s)
			plan, isPlanned, err := plans.of(ctx, s)
			if err != nil {
				return nil, err
			}
			if isPlanned {
				wanted.LowEV100, wanted.HighEV100, wanted.SpreadStops = plan.LowEV100, plan.HighEV100, plan.Spread
			}
			request.Wanted = append(request.Wanted, wanted)
		}
		request.Looks = withLook(request.Looks, s.Look.FPS, s.Look.Target)
	}
	usualAngle := assemble.UsualPresets().Target
	for _, fps := range b.Camera.Rates {
		if rate, err := stop.ParseRate(fps); err != nil || rate == 0 {
			continue // a still has no angle
		}
		request.Looks = withLook(request.Looks, fps, usualAngle)
	}
	if len(request.Looks) == 0 {
		request.Looks = withLook(nil, "25", usualAngle)
	}
	if request.Packs, err = svc.considered(ctx, cameraID); err != nil {
		return nil, err
	}
	answer, err := calc.Coverage(ctx, request)
	if err != nil {
		return nil, err
	}
	return &Covered{*answer, names}, nil
}

// wantedShot returns a shot to be judged whole, with the gear as it is and without glass that
// is gone.
func (b *Bench) wantedShot(s *store.Shot) *assemble.Asked {
	out := s.Asked
	out.Scene.WhatIf = nil
	out.Choices.Mounted = b.inKit(s.Choices.Mounted)
	out.Choices.Required = b.inKit(s.Choices.Required)
	out.Choices.AtHand = nil // what all of the kit covers is asked
	return &out
}

// plans are those of shoots, each made when it is first asked for.
type plans struct {
	service *Service
	made    map[string]map[string]day.OutingPlan
}

// of returns the plan of a shot; ok is false for one without a time, or whose light is not
// known then.
func (p *plans) of(ctx context.Context, s store.Shot) (plan day.OutingPlan, ok bool, err error) {
	if s.StartsAt == nil {
		return plan, false, nil
	}
	if p.made[s.ShootID] == nil {
		shoot, err := p.service.Day(ctx, s.ShootID)
		if err != nil {
			return plan, false, err
		}
		shoot.Request.StepS = maxStepS // nobody looks at the curve
		answer, err := day.Outing(ctx, shoot.Request)
		if err != nil {
			return plan, false, fmt.Errorf("the plan of shoot %s: %w", s.ShootID, err)
		}
		p.made[s.ShootID] = map[string]day.OutingPlan{}
		for _, plan := range answer.Shots {
			p.made[s.ShootID][plan.ID] = plan
		}
	}
	plan, ok = p.made[s.ShootID][s.ID]
	return plan, ok, nil
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
func (b *Bench) mounted() []string { return b.inKit(b.Camera.Mounted) }

// stillAtHand returns what is left of the glass that was at hand: all of the kit where that was
// not said.
func (b *Bench) stillAtHand(ids *[]string) *[]string {
	if ids == nil {
		return nil
	}
	left := b.inKit(*ids)
	return &left
}

// inKit returns those of the ids that the kit has.
func (b *Bench) inKit(ids []string) []string {
	return slices.DeleteFunc(slices.Clone(ids), func(id string) bool {
		return !slices.ContainsFunc(b.Kit, func(k assemble.KitFilter) bool { return k.ID == id })
	})
}
