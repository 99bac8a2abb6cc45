package day

import (
	"cmp"
	"math"
	"slices"
	"strings"

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

// bareShot is all that is known of a shot of which only the light its setting needs is.
type bareShot struct {
	cameraID, rigID, required string
	layers                    int
	evSet                     stop.EV
	shutter                   stop.Shutter
	fps                       float64
	offset, headroom          stop.Stops
	band                      glass.Band
}

// bare returns the kit of a shot of which only the light its setting needs is known.
func (o *Prepared) bare(s *OutingShot, path string) (*kit, error) {
	band := o.Day.Band
	if own := s.Band.Band(); own != nil {
		band = *own
	}
	same := bareShot{s.CameraID, s.RigID, strings.Join(s.Required, "\x00"), s.Layers, s.EVSet, s.ShutterS, s.FPS, s.Offset, s.Headroom, band}
	if k, isMade := o.bareKits[same]; isMade {
		return k, nil
	}
	k, err := o.bareKit(s, band)
	if err != nil {
		return nil, problem.At(path, err)
	}
	o.bareKits[same] = k
	return k, nil
}

func (o *Prepared) bareKit(s *OutingShot, band glass.Band) (*kit, error) {
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
		taken, unmet = stacks, "no filter that fits its camera meets what it asks for"
	}
	scene, err := bareScene(s.EVSet, s.ShutterS, stop.ExactRate(s.FPS), s.Offset, s.Headroom, band, taken)
	if err != nil {
		return nil, err
	}
	id := func(filters []*glass.Filter) string { return filters[0].ID }
	if len(taken) == 0 || slices.ContainsFunc(scene.Stacks, func(s glass.Stack) bool { return len(s.Filters) == 0 }) {
		return nil, nil
	}
	return newKit(scene, id, unmet)
}
