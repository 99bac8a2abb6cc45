package demo

import (
	"cmp"
	"maps"
	"math/rand/v2"
	"reflect"
	"slices"
	"testing"
	"time"

	"pinhole/core/assemble"
	"pinhole/core/day"
	"pinhole/core/stop"
)

// No camera's plan hangs on another's: a page asks for each by itself, and what it puts
// together is the plan of the day, wherever shots are moved to.
func TestEachCameraIsPlannedByItself(t *testing.T) {
	whole := harvest(t, seeded(t)).Request
	r := rand.New(rand.NewPCG(20, 11))
	planned := 0
	for range 30 {
		moved := whole
		moved.Shots = slices.Clone(whole.Shots)
		for range r.IntN(4) {
			s := &moved.Shots[r.IntN(len(moved.Shots))]
			s.From = s.From.Add(time.Duration(r.IntN(36)-18) * 5 * time.Minute)
		}
		if r.IntN(2) == 0 {
			moved.Anchor = &assemble.LightReading{Time: moved.From.Add(12 * time.Hour), EV100: stop.EV(12 + 3*r.Float64())}
		}
		want, err := day.Outing(t.Context(), moved)
		if err != nil {
			continue // two shots of one camera at a time
		}
		planned++
		got := day.OutingAnswer{Shots: []day.OutingPlan{}, Swaps: []day.Swap{}, Changes: []string{}, Unknown: []string{}, Names: map[string]string{}}
		for _, camera := range camerasOf(moved.Shots) {
			part, err := day.Outing(t.Context(), ofCamera(moved, camera))
			if err != nil {
				t.Fatal(err)
			}
			got.Shots, got.Swaps = append(got.Shots, part.Shots...), append(got.Swaps, part.Swaps...)
			got.Changes, got.Unknown = append(got.Changes, part.Changes...), append(got.Unknown, part.Unknown...)
			got.Cost += part.Cost
			maps.Copy(got.Names, part.Names)
		}
		for _, a := range []*day.OutingAnswer{want, &got} {
			slices.SortFunc(a.Shots, func(x, y day.OutingPlan) int { return cmp.Compare(x.ID, y.ID) })
			slices.SortFunc(a.Swaps, func(x, y day.Swap) int { return cmp.Compare(x.Shot, y.Shot) })
			slices.Sort(a.Changes)
			slices.Sort(a.Unknown)
		}
		if off := got.Cost - want.Cost; off > 1e-9 || off < -1e-9 {
			t.Errorf("the parts cost %v, the whole %v", got.Cost, want.Cost)
		}
		for name, both := range map[string][2]any{
			"shots": {got.Shots, want.Shots}, "swaps": {got.Swaps, want.Swaps}, "names": {got.Names, want.Names},
			"changes": {got.Changes, want.Changes}, "unknown": {got.Unknown, want.Unknown},
		} {
			if !reflect.DeepEqual(both[0], both[1]) {
				t.Errorf("the %s of the parts are\n%+v\nof the whole\n%+v", name, both[0], both[1])
			}
		}
	}
	if planned < 10 {
		t.Errorf("only %d of 30 days could be planned", planned)
	}
}

// ofCamera returns what concerns one camera of a day.
func ofCamera(r day.OutingRequest, camera string) day.OutingRequest {
	r.Shots = slices.DeleteFunc(slices.Clone(r.Shots), func(s day.OutingShot) bool { return s.CameraID != camera })
	r.Held = slices.DeleteFunc(slices.Clone(r.Held), func(h assemble.Held) bool { return h.CameraID != camera })
	r.Stacks = slices.DeleteFunc(slices.Clone(r.Stacks), func(s day.OutingStack) bool { return s.CameraID != "" && s.CameraID != camera })
	return r
}

func camerasOf(shots []day.OutingShot) []string {
	all := map[string]bool{}
	for _, s := range shots {
		all[s.CameraID] = true
	}
	return slices.Sorted(maps.Keys(all))
}
