package glass

import (
	"slices"

	"pinhole/core/stop"
)

// MaxCarried is the largest kit of which every part is tried.
const MaxCarried = 12

// set is the indices of filters of the kit, in order.
type set []int

func (s set) within(carried []bool) bool {
	return !slices.ContainsFunc(s, func(i int) bool { return !carried[i] })
}

// servers returns, for each want, the sets of loose filters of the kit any of which serves
// it. What is asked for or lives on the lens comes along anyway and is in none of them.
func (v *Inventory) servers(wanted []Wanted) ([][]set, error) {
	index := map[string]int{}
	for i := range v.kit {
		index[v.kit[i].ID] = i
	}
	all := make([][]set, len(wanted))
	for i := range wanted {
		stacks, err := v.stacks(wanted[i].Layers)
		if err != nil {
			return nil, err
		}
		for k := range stacks {
			if !wanted[i].servedBy(stacks[k : k+1]) {
				continue
			}
			var s set
			for _, f := range stacks[k].Filters {
				if !slices.Contains(v.rules.Required, f.ID) {
					s = append(s, index[f.ID])
				}
			}
			slices.Sort(s)
			all[i] = append(all[i], s)
		}
	}
	return all, nil
}

// served reports whether what is carried serves a want, by the sets that do.
func served(by []set, carried []bool) bool {
	return slices.ContainsFunc(by, func(s set) bool { return s.within(carried) })
}

// Carry returns the fewest filters of the kit that serve every want that the whole
// kit serves, as indices in order, and the indices of the wants that nothing serves.
// Of equally few the set that comes first in the order of the kit. Kits of more
// than MaxCarried filters are searched greedily, which may keep one too many.
func (v *Inventory) Carry(wanted []Wanted) (carried, hopeless []int, err error) {
	by, err := v.servers(wanted)
	if err != nil {
		return nil, nil, err
	}
	for i := range by {
		if len(by[i]) == 0 {
			hopeless = append(hopeless, i)
		}
	}
	enough := func(have []bool) bool {
		return !slices.ContainsFunc(by, func(of []set) bool { return len(of) > 0 && !served(of, have) })
	}
	have := make([]bool, len(v.kit))
	if len(v.kit) > MaxCarried {
		return shed(have, enough), hopeless, nil
	}
	for size := range len(v.kit) + 1 {
		if found := combination(have, size, enough); found != nil {
			return found, hopeless, nil
		}
	}
	return nil, hopeless, nil // unreachable: the whole kit is enough
}

// combination returns the first set of a size that is enough, nil where none is. have is
// all false, and left so.
func combination(have []bool, size int, enough func([]bool) bool) []int {
	chosen := make([]int, 0, size)
	var extend func(from int) []int
	extend = func(from int) []int {
		if len(chosen) == size {
			if !enough(have) {
				return nil
			}
			return append([]int{}, chosen...)
		}
		for i := from; i < len(have); i++ {
			have[i], chosen = true, append(chosen, i)
			found := extend(i + 1)
			have[i], chosen = false, chosen[:len(chosen)-1]
			if found != nil {
				return found
			}
		}
		return nil
	}
	return extend(0)
}

// shed takes filters out of the whole kit, the last first, as long as it stays enough.
func shed(have []bool, enough func([]bool) bool) []int {
	for i := range have {
		have[i] = true
	}
	for i := len(have) - 1; i >= 0; i-- {
		if have[i] = false; !enough(have) {
			have[i] = true
		}
	}
	var kept []int
	for i, is := range have {
		if is {
			kept = append(kept, i)
		}
	}
	return kept
}

// Spare returns the filter that is worth a pocket beside those carried: the one
// that serves most of what is wanted when the light comes out swing stops brighter
// or darker than planned, and the weight that it adds. Of equal ones the lighter;
// found is false where no filter adds anything.
func (v *Inventory) Spare(carried []int, wanted []Wanted, swing stop.Stops) (spare int, adds float64, found bool, err error) {
	var moved []Wanted
	for _, w := range wanted {
		moved = append(moved, w.brighter(swing), w.brighter(-swing))
	}
	by, err := v.servers(moved)
	if err != nil {
		return 0, 0, false, err
	}
	have := make([]bool, len(v.kit))
	for _, i := range carried {
		have[i] = true
	}
	for i := range v.kit {
		if have[i] || v.kit[i].Unfit {
			continue
		}
		added := 0.0
		for k := range moved {
			if served(by[k], have) {
				continue
			}
			have[i] = true
			if served(by[k], have) {
				added += moved[k].Weight
			}
			have[i] = false
		}
		if added > adds || found && added == adds && v.kit[i].Stops < v.kit[spare].Stops {
			spare, adds, found = i, added, true
		}
	}
	return spare, adds, found, nil
}
