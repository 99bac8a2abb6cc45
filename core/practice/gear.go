package practice

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// apart is how far filters that are offered beside each other are apart, and so by how much the
// wrong ones are wrong at the least.
const apart = stop.Stops(0.8)

// usualKit are ND filters of so many stops.
func usualKit(stops ...int) []assemble.KitFilter {
	var kit []assemble.KitFilter
	for _, n := range stops {
		label := languages[0](n)
		kit = append(kit, assemble.KitFilter{ID: label, Kind: glass.ND, Stops: stop.Stops(n)})
	}
	return kit
}

// cameraOf returns a kind of camera as a shot is asked of it, with a kit.
func cameraOf(a assemble.Archetype, kit []assemble.KitFilter) assemble.ShotRequest {
	profile := a.Profile
	r := assemble.ShotRequest{
		Camera: assemble.Camera{Aperture: a.Aperture, ISOBase: a.ISOBase, ISOCeiling: a.ISOCeiling}, Kit: kit, Profile: &profile, Rates: a.Rates,
	}
	for _, text := range a.Steps {
		t, err := stop.ParseShutter(text, 0)
		if err != nil {
			panic(fmt.Sprintf("practice: a step of %s: %v", a.Name, err)) // they are our own
		}
		r.Camera.Steps = append(r.Camera.Steps, t)
	}
	r.MaxLayers = 1
	return r
}

// named is one of the kinds of camera.
func named(key string) assemble.Archetype {
	all := assemble.Archetypes()
	return all[slices.IndexFunc(all, func(a assemble.Archetype) bool { return a.Key == key })]
}

// gear returns a camera and filters that are apart: the person's own, where they have enough that
// are, else a kind of camera with a usual kit.
func (d *draw) gear(stops ...int) (r assemble.ShotRequest, name string, titles map[string]string) {
	if h := d.Held; h != nil {
		var kit []assemble.KitFilter
		for _, k := range h.Kit {
			takes, err := k.Takes()
			isPlain := err == nil && k.Kind == glass.ND && k.MaxStops == nil && len(k.Ring) == 0 && takes >= 1 && (k.Fits == nil || *k.Fits)
			if isPlain && !slices.ContainsFunc(kit, func(o assemble.KitFilter) bool { other, _ := o.Takes(); return (other - takes).Abs() < apart }) {
				kit = append(kit, k)
			}
		}
		if len(kit) >= offeredLeast {
			d.of = min(offered, len(kit))
			r = *h.Shot(assemble.Asked{})
			r.Kit, r.MaxLayers = kit, 1
			return r, "your camera", d.Titles
		}
	}
	d.of = offered
	a := assemble.Archetypes()[d.IntN(len(assemble.Archetypes()))]
	return cameraOf(a, usualKit(stops...)), a.Name, nil
}

// rateOf draws a frame rate that a camera has.
func rateOf(d *draw, r *assemble.ShotRequest) string {
	var rates []string
	for _, text := range r.Rates {
		if fps, err := stop.ParseRate(text); err == nil && fps >= 20 && fps <= 60 {
			rates = append(rates, text)
		}
	}
	if len(rates) == 0 {
		return "25"
	}
	return oneOf(d, rates...)
}

// best is what the product takes for a shot.
func best(r *assemble.ShotRequest) (*shot.Verdict, *assemble.Assembled, bool) {
	ready, err := r.Assemble()
	if err != nil {
		return nil, nil, false
	}
	v, err := ready.Scene.Best()
	return v, ready, err == nil
}

// byStops sorts filters by what they take.
func byStops(kit []assemble.KitFilter) []assemble.KitFilter {
	sorted := slices.Clone(kit)
	slices.SortFunc(sorted, func(a, b assemble.KitFilter) int {
		x, _ := a.Takes()
		y, _ := b.Takes()
		return cmp.Compare(x, y)
	})
	return sorted
}

// inKit offers filters that follow on each other in strength, the right one among them in its place;
// ok is false where the kit does not reach that far.
func (m *made) inKit(d *draw, kit []assemble.KitFilter, right string, titles map[string]string) (ok bool) {
	sorted := byStops(kit)
	at := slices.IndexFunc(sorted, func(k assemble.KitFilter) bool { return k.ID == right })
	if from := at - d.place(); at < 0 || from < 0 || from+d.of > len(sorted) {
		return false
	}
	is, _ := sorted[at].Takes()
	m.onScale(d, func(k int) string { return nameIn(sorted[at+k].ID, titles) }, func(k int) float64 {
		takes, _ := sorted[at+k].Takes()
		return math.Round(10*float64(takes-is)) / 10
	})
	m.unit, m.margin = "stops", float64(apart)
	return true
}

// nameIn is what a filter of a kit is called.
func nameIn(id string, titles map[string]string) string { return cmp.Or(titles[id], id) }
