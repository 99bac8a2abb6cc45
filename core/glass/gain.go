package glass

import (
	"fmt"
)

// Gain is what a pack of filters that is not owned would add to a kit.
type Gain struct {
	// Cells is how many of the open questions hold with it.
	Cells int
	// Covers is the weight of wanted light that it covers and nothing did; Open is what stays
	// open.
	Covers, Open float64
	// Like are pairs of a filter of the pack and one of the kit, by their places in each, of
	// which one does for both.
	Like [][2]int
}

// GainOf returns what a pack adds: to questions in which nothing of the kit holds, and to
// light that is wanted. Its filters stack among themselves and with what is there.
func (v *Inventory) GainOf(pack []Filter, open []Question, wanted []Wanted) (Gain, error) {
	var g Gain
	for i := range pack {
		for j := range v.kit {
			p, k := &pack[i], &v.kit[j]
			if p.Kind == k.Kind && !k.Unfit && p.Kind != Variable && (p.Stops-k.Stops).Abs() < TwinStops {
				g.Like = append(g.Like, [2]int{i, j})
				break
			}
		}
	}
	with, err := v.withPack(0, pack)
	if err != nil {
		return g, err
	}
	for i := range open {
		if anyOf(&open[i], with, Holds, nil) {
			g.Cells++
		}
	}
	unserved, err := v.Unserved(wanted)
	if err != nil {
		return g, err
	}
	for _, i := range unserved {
		with, err := v.withPack(wanted[i].Layers, pack)
		if err != nil {
			return g, err
		}
		if wanted[i].servedBy(with) {
			g.Covers += wanted[i].Weight
		} else {
			g.Open += wanted[i].Weight
		}
	}
	return g, nil
}

// withPack returns the stacks of the kit and a pack that have at least one filter of the pack.
func (v *Inventory) withPack(layers int, pack []Filter) ([]Stack, error) {
	ids := make([]string, len(pack))
	for i := range pack {
		ids[i] = pack[i].ID
	}
	return v.grown(fmt.Sprintf("%d with %q", layers, ids), layers, pack, 1)
}
