package day

import (
	"pinhole/core/assemble"
	"slices"
	"strings"

	"pinhole/core/glass"
)

// OutingStacks returns every stack that the kit of a camera, held as a rig, makes under
// the choices, the glass they ask for in each, named by name.
func OutingStacks(cameraID, rigID string, kit []assemble.KitFilter, c assemble.Choices, name func(id string) string) ([]OutingStack, error) {
	all, err := assemble.Filters(kit)
	if err != nil {
		return nil, err
	}
	stacks, err := glass.Stacks(all, c.Rules())
	if err != nil {
		return nil, err
	}
	out := make([]OutingStack, len(stacks))
	for i := range stacks {
		s := &stacks[i]
		least, most := s.Reach()
		names, on := []string{}, glass.IDs(s.Filters)
		for _, id := range on {
			names = append(names, name(id))
		}
		if len(names) == 0 {
			names = append(names, "No glass")
		}
		out[i] = OutingStack{ID: cameraID + "/" + rigID + ":" + strings.Join(on, "+"), Name: strings.Join(names, " + "), Stops: least, CameraID: cameraID, RigID: rigID, Layers: len(on), Filters: on, Effects: slices.Clone(c.Required)}
		if most > least {
			out[i].Most = most
		}
	}
	return out, nil
}
