package service

import (
	"context"
	"fmt"
	"pinhole/core/day"
	"slices"
	"strings"

	"pinhole/internal/files"
)

// PlanFile returns the plan of a shoot as it is written to files.
func (svc *Service) PlanFile(ctx context.Context, shootID string) (*files.Plan, error) {
	shoot, err := svc.Day(ctx, shootID)
	if err != nil {
		return nil, err
	}
	answer, err := day.Outing(ctx, shoot.Request)
	if err != nil {
		return nil, err
	}
	names := map[string]string{}
	for _, s := range shoot.Request.Stacks {
		names[s.ID] = s.Name
	}
	shots := map[string]day.OutingShot{}
	for _, s := range shoot.Request.Shots {
		shots[s.ID] = s
	}
	out := &files.Plan{Shoot: shoot.Shoot.Name, Place: shoot.Shoot.Place, Zone: shoot.Zone, Shots: []files.Shot{}, Swaps: []files.Swap{}}
	for _, p := range answer.Shots {
		s := shots[p.ID]
		var glass, spare []string
		for i, pack := range p.Packs {
			if i == 0 || pack.Stack != p.Packs[i-1].Stack {
				glass = append(glass, names[pack.Stack])
			}
			for _, id := range []string{pack.Brighter, pack.Darker} {
				if id != "" {
					spare = append(spare, names[id])
				}
			}
		}
		out.Shots = append(out.Shots, files.Shot{
			ID: p.ID, Name: s.Name, Camera: shoot.Cameras[s.CameraID], From: p.Packs[0].From, To: p.Packs[len(p.Packs)-1].To, Glass: strings.Join(glass, ", then "),
			Setting: s.ShutterS.Spoken(), State: string(p.State), Words: p.Words, Spare: strings.Join(uniq(spare), ", "),
		})
	}
	for _, s := range answer.Swaps {
		out.Swaps = append(out.Swaps, files.Swap{
			ID: fmt.Sprintf("%s-swap-%d", s.Shot, swapNumber(answer.Swaps, s)), Camera: shoot.Cameras[s.CameraID], At: s.At, From: names[s.From], To: names[s.To], Latest: s.Latest, Why: s.Because,
		})
	}
	return out, nil
}

// swapNumber counts the swaps of one shot, so that each keeps its id.
func swapNumber(all []day.Swap, swap day.Swap) (n int) {
	for _, s := range all {
		if s.Shot == swap.Shot && !s.At.After(swap.At) {
			n++
		}
	}
	return n
}

// uniq returns the texts in order, each once.
func uniq(all []string) []string {
	slices.Sort(all)
	return slices.Compact(all)
}
