package glass

import (
	"math"
	"sort"
	"strings"

	"pinhole/core/stop"
)

// naive answers one light the plain way: nested loops over pairs, every number
// from its formula, sorted at the end. It is the reference that Stacks and Choose
// are compared with, and the baseline of their benchmark. It knows no mounted,
// required or variable glass and at most two layers.
type naiveOption struct {
	ids        []string
	stops      float64
	err        float64
	verdict    Verdict
	rank       int
	cost       float64
	weight     float64
	iso, shutS float64
}

func naive(q *Question, kit []Filter) []naiveOption {
	var sets [][]Filter
	sets = append(sets, nil)
	usable := func(f Filter) bool { return !f.Unfit && f.Kind == ND }
	for _, f := range kit {
		if usable(f) && !f.NeedsBase {
			sets = append(sets, []Filter{f})
		}
	}
	for i := range kit {
		for j := i + 1; j < len(kit); j++ {
			a, b := kit[i], kit[j]
			if !usable(a) || !usable(b) {
				continue
			}
			switch {
			case !a.NeedsBase && !a.Closed:
				sets = append(sets, []Filter{a, b})
			case !b.NeedsBase && !b.Closed:
				sets = append(sets, []Filter{b, a})
			}
		}
	}
	var out []naiveOption
	for _, set := range sets {
		out = append(out, naiveWeigh(q, set))
	}
	sort.SliceStable(out, func(i, j int) bool {
		a, b := out[i], out[j]
		if a.rank != b.rank {
			return a.rank < b.rank
		}
		if math.Abs(a.cost-b.cost) > 1e-9 {
			return a.cost < b.cost
		}
		if len(a.ids) != len(b.ids) {
			return len(a.ids) < len(b.ids)
		}
		return a.weight < b.weight
	})
	return out
}

func naiveWeigh(q *Question, set []Filter) naiveOption {
	n, t, iso := float64(q.Setting.Aperture), float64(q.Setting.Shutter), float64(q.Setting.ISO)
	evSet := math.Log2(n*n/t) - math.Log2(iso/100)
	var s, corner, cast, weight float64
	o := naiveOption{iso: iso, shutS: t}
	for _, f := range set {
		s += float64(f.Stops)
		corner += float64(f.Corner)
		cast += float64(f.Cast)
		weight += f.WeightG
		o.ids = append(o.ids, f.ID)
	}
	b := float64(q.Offset)
	e := float64(q.Light.High) - s - evSet
	h := math.Log2(float64(q.Ceiling) / iso)
	wISO, wShutter := 0.6, 1.0
	if q.Priority == ImageFirst {
		wISO, wShutter = 1, 0.6
	}
	w := 1.0
	const eps = 1e-9
	switch {
	case e >= b-float64(q.Band.Dark)-eps && e <= b+float64(q.Band.Bright)+eps:
		o.verdict = On
		if len(set) > 1 {
			o.rank = 1
		}
	case e > b:
		o.verdict, o.rank, w = FasterShutter, 1, wShutter
		o.shutS = math.Max(t*math.Pow(2, -(e-b)), float64(q.Fastest))
	case b-e <= h+float64(q.Band.Dark)+eps:
		o.verdict, o.rank, w = RaiseISO, 1, wISO
		o.iso = iso * math.Pow(2, math.Min(b-e, h))
	default:
		o.verdict, o.rank = Dark, 2
		o.iso = float64(q.Ceiling)
	}
	o.stops, o.err, o.weight = s, e, weight
	o.cost = math.Abs(e-b)*w + 0.3*corner + 0.2*math.Abs(cast)
	if len(set) > 1 {
		o.cost += 0.4 * float64(len(set)-1)
	}
	return o
}

func naiveKey(o naiveOption) string { return strings.Join(o.ids, "+") }

func key(o *Option) string {
	var ids []string
	for _, f := range o.Filters {
		ids = append(ids, f.ID)
	}
	return strings.Join(ids, "+")
}

// caseOf14 is a kit of fourteen grey filters of all traits, as the benchmark uses.
func caseOf14() []Filter {
	var kit []Filter
	for i := range 14 {
		kit = append(kit, Filter{
			ID: string(rune('a' + i)), Kind: ND, Stops: stop.Stops(0.5 + 0.7*float64(i)), Corner: stop.Stops(0.01 * float64(i%4)),
			Cast: stop.Stops(0.03 * float64(i%3-1)), WeightG: 1 + float64(i%5), NeedsBase: i%6 == 5, Closed: i%5 == 4,
		})
	}
	return kit
}
