package day

import (
	"cmp"
	"math"
	"slices"

	"pinhole/core/glass"
	"pinhole/core/problem"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// bareScene is a shot of which only the light its setting needs is known: its exposure is
// judged as that of any other shot, and nothing else is demanded. Each stack stands for
// one filter.
func bareScene(evSet stop.EV, t stop.Shutter, fps stop.FrameRate, offset, headroom stop.Stops, band glass.Band, stacks []*OutingStack) (*shot.Scene, error) {
	kit := make([]glass.Filter, len(stacks))
	for i, s := range stacks {
		kit[i] = glass.Filter{ID: s.ID, Kind: glass.ND, Stops: s.Stops}
		if s.Most > s.Stops {
			kit[i].Kind, kit[i].Most = glass.Variable, s.Most
		}
	}
	one := glass.Rules{MaxLayers: 1}
	all, err := glass.Stacks(kit, one)
	if err != nil {
		return nil, err
	}
	t = cmp.Or(t, usualShutter)
	if !t.Possible(fps) {
		fps = 0 // its frame rate was not said with its shutter
	}
	return &shot.Scene{
		Question: glass.Question{
			Setting: stop.Setting{Aperture: stop.FNumber(math.Sqrt(math.Exp2(float64(evSet)) * t.Seconds())), Shutter: t, ISO: isoForBare},
			Ceiling: isoForBare.Raised(headroom), Rate: fps, Offset: offset, Band: band,
		},
		Wish:   shot.Wish{Time: t},
		Stacks: all[1:], // the bare lens is a stack of its own where it is one
		Rebuild: func(extra glass.Filter) ([]glass.Stack, error) {
			with, err := glass.Stacks(append(kit[:len(kit):len(kit)], extra), one)
			return with[1:], err
		},
	}, nil
}

// bare returns the kit of a shot of which only the light its setting needs is known.
func (o *Prepared) bare(s *OutingShot, path string) (*kit, error) {
	takes := func(stack *OutingStack) bool {
		return s.RigID == stack.RigID && (s.Layers == 0 || stack.Layers <= s.Layers) && glass.SameIDs(s.Required, stack.Effects)
	}
	var stacks, taken []*OutingStack
	for i := range o.OutingRequest.Stacks {
		if stack := &o.OutingRequest.Stacks[i]; stack.CameraID == "" || stack.CameraID == s.CameraID {
			stacks = append(stacks, stack)
			if takes(stack) {
				taken = append(taken, stack)
			}
		}
	}
	if len(stacks) == 0 {
		return nil, nil
	}
	unmet := ""
	if len(taken) == 0 {
		taken, unmet = stacks, "no glass that goes on its camera meets what it asks for"
	}
	band := o.Day.Band
	if own := s.Band.Band(); own != nil {
		band = *own
	}
	scene, err := bareScene(s.EVSet, s.ShutterS, stop.ExactRate(s.FPS), s.Offset, s.Headroom, band, taken)
	if err != nil {
		return nil, problem.At(path, err)
	}
	id := func(filters []*glass.Filter) string { return filters[0].ID }
	if len(taken) == 0 || slices.ContainsFunc(scene.Stacks, func(s glass.Stack) bool { return len(s.Filters) == 0 }) {
		return nil, nil
	}
	k, err := newKit(scene, id, unmet)
	return k, problem.At(path, err)
}
