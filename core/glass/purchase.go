package glass

import (
	"cmp"
	"slices"

	"pinhole/core/stop"
)

// Purchase is glass that is not there yet, and what it would close.
type Purchase struct {
	Stops []stop.Stops
	// Closes is the weight that is served with it and was not before; Open is what stays
	// open.
	Closes, Open float64

	holds float64 // of Closes, what holds and is not merely tight
}

// purchasable are the strengths that are made: whole stops from one to ten.
var purchasable = []stop.Stops{1, 2, 3, 4, 5, 6, 7, 8, 9, DarkestMade}

// Purchasable returns the strengths that are made, the lightest first.
func Purchasable() []stop.Stops { return slices.Clone(purchasable) }

// DarkestMade is the darkest filter that is commonly made, in stops.
const DarkestMade = stop.Stops(10)

// TwinStops is how near two filters are when one does for both.
const TwinStops = stop.Stops(1.0 / 6)

// Buy returns the single filter and the pair of filters that close most of what is wanted
// and not served by the kit, by themselves or with what is there: of equal ones those with
// which more holds, then the lighter. Closes is 0 where nothing helps.
func (v *Inventory) Buy(wanted []Wanted) (single, pair Purchase, err error) {
	unserved, err := v.Unserved(wanted)
	if err != nil {
		return single, pair, err
	}
	open := make([]Wanted, len(unserved))
	total := 0.0
	for i, k := range unserved {
		open[i] = wanted[k]
		total += open[i].Weight
	}
	// met returns what each open want comes to with new glass, Breaks for what stays open.
	met := func(extra ...stop.Stops) ([]State, error) {
		out := make([]State, len(open))
		for i := range open {
			with, err := v.with(open[i].Layers, extra...)
			if err != nil {
				return nil, err
			}
			switch {
			case open[i].comesTo(with, Holds):
				out[i] = Holds
			case open[i].servedBy(with):
				out[i] = Tight
			default:
				out[i] = Breaks
			}
		}
		return out, nil
	}
	weigh := func(stops []stop.Stops, comesTo func(i int) State) Purchase {
		p := Purchase{Stops: stops, Open: total}
		for i := range open {
			state := comesTo(i)
			if state == Holds {
				p.holds += open[i].Weight
			}
			if state != Breaks {
				p.Closes += open[i].Weight
				p.Open -= open[i].Weight
			}
		}
		return p
	}
	alone := make([][]State, len(purchasable))
	var singles, pairs []Purchase
	for a, s := range purchasable {
		if alone[a], err = met(s); err != nil {
			return single, pair, err
		}
		singles = append(singles, weigh([]stop.Stops{s}, func(i int) State { return alone[a][i] }))
	}
	better := func(a, b State) State {
		if a.Compare(b) < 0 {
			return a
		}
		return b
	}
	for a, s := range purchasable {
		for b := a + 1; b < len(purchasable); b++ {
			together, err := met(s, purchasable[b])
			if err != nil {
				return single, pair, err
			}
			pairs = append(pairs, weigh([]stop.Stops{s, purchasable[b]}, func(i int) State { return better(together[i], better(alone[a][i], alone[b][i])) }))
		}
	}
	most := func(of []Purchase) Purchase {
		return slices.MinFunc(of, func(a, b Purchase) int { return cmp.Or(cmp.Compare(b.Closes, a.Closes), cmp.Compare(b.holds, a.holds)) })
	}
	return most(singles), most(pairs), nil
}
