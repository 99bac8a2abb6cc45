package day

import (
	"slices"
	"strings"

	"pinhole/core/assemble"
	"pinhole/core/glass"
)

// StackID names glass on a camera as it is held, the filter on the camera first.
func StackID(cameraID, rigID string, filters []string) string {
	return cameraID + "/" + rigID + ":" + strings.Join(filters, "+")
}

// FiltersOf returns the filters that a stack's id names.
func FiltersOf(stackID string) []string {
	_, filters, _ := strings.Cut(stackID, ":")
	return strings.FieldsFunc(filters, func(r rune) bool { return r == '+' })
}

// OutingStacks returns every stack that the kit of a camera makes under the choices of a
// shot, the glass they ask for in each, and what was put on by hand, its filters named by name.
func OutingStacks(h *assemble.Held, c assemble.Choices, placed *[]string, name func(id string) string) ([]OutingStack, error) {
	all, err := assemble.Filters(h.Kit)
	if err != nil {
		return nil, err
	}
	c = c.ForShot()
	stacks, err := glass.Stacks(all, c.Rules(&h.Optics))
	if err != nil {
		return nil, err
	}
	if isThere := func(s glass.Stack) bool { return glass.SameIDs(glass.IDs(s.Filters), *placed) }; placed != nil && !slices.ContainsFunc(stacks, isThere) {
		on, err := glass.Exactly(all, *placed, c.Mounted)
		if err != nil {
			return nil, err
		}
		stacks = append(stacks, *on)
	}
	out := make([]OutingStack, len(stacks))
	for i := range stacks {
		out[i] = stackOf(h.CameraID, h.RigID, &stacks[i], c.Required, name)
	}
	return out, nil
}

func stackOf(cameraID, rigID string, s *glass.Stack, required []string, name func(id string) string) OutingStack {
	least, most := s.Reach()
	names, on := []string{}, glass.IDs(s.Filters)
	for _, id := range on {
		names = append(names, name(id))
	}
	if len(names) == 0 {
		names = append(names, "No filter")
	}
	out := OutingStack{Stack: Stack{ID: StackID(cameraID, rigID, on), Name: strings.Join(names, " + "), Stops: least, CameraID: cameraID}, RigID: rigID, Layers: len(on), Filters: on, Effects: slices.Clone(required)}
	if most > least {
		out.Most = most
	}
	return out
}
