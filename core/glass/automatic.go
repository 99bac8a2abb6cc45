package glass

import (
	"cmp"
	"math"
	"slices"

	"pinhole/core/stop"
)

// Moves says what a camera's automatic exposure moves first.
type Moves string

// The two habits of automatic exposure.
const (
	// ShutterFirst keeps ISO at base as long as the shutter can slow down: behind
	// glass it blurs, as wished.
	ShutterFirst Moves = "shutter"
	// ISOFirst holds a preferred shutter and raises ISO before it slows: behind
	// glass it only adds noise.
	ISOFirst Moves = "iso"
)

// Values returns every Moves there is.
func (Moves) Values() []Moves {
	return []Moves{ShutterFirst, ISOFirst}
}

// Automatic is a camera's automatic exposure.
type Automatic struct {
	Aperture         stop.FNumber
	Base, Ceiling    stop.ISO     // Base ≤ Ceiling
	Fastest, Slowest stop.Shutter // Fastest ≤ Slowest
	Moves            Moves
	// Preferred is the shutter that ISOFirst holds, in [Fastest, Slowest].
	Preferred stop.Shutter
}

// Expose returns the setting the automatic takes in a light behind glass, and the
// error it cannot make good: positive brighter than the meter's aim.
func (a *Automatic) Expose(scene stop.EV, glass stop.Stops) (stop.Setting, stop.Stops) {
	behind := scene.Plus(-glass)
	set := stop.Setting{Aperture: a.Aperture, Shutter: a.Preferred, ISO: a.Base}
	if a.Moves == ShutterFirst {
		set.Shutter = a.Fastest
	}
	// Positive: more exposure is wanted than the setting gives.
	missing := func() stop.Stops { return set.EV().Above(behind) }
	if missing() < 0 { // only ISOFirst comes here with room left: faster than preferred
		set.Shutter = max(a.Fastest, set.Shutter.Times(missing()))
	}
	slow := func() {
		if m := missing(); m > 0 {
			set.Shutter = min(a.Slowest, set.Shutter.Times(m))
		}
	}
	raise := func() {
		if m := missing(); m > 0 {
			set.ISO = min(a.Ceiling, set.ISO.Raised(m))
		}
	}
	if a.Moves == ShutterFirst {
		slow()
		raise()
	} else {
		raise()
		slow()
	}
	return set, -missing()
}

// Nearest returns the stack behind which the automatic comes nearest to a wished
// shutter in a light, and the setting it takes there; then the one that needs
// less ISO, then fewer layers. A variable filter is turned for the wished shutter
// at base ISO. stacks is not empty.
func (a *Automatic) Nearest(scene stop.EV, target stop.Shutter, stacks []Stack) (*Stack, stop.Setting) {
	want := scene.Above(stop.Setting{Aperture: a.Aperture, Shutter: target, ISO: a.Base}.EV())
	type way struct {
		stack *Stack
		set   stop.Setting
		off   stop.Stops
	}
	ways := make([]way, len(stacks))
	for i := range stacks {
		set, _ := a.Expose(scene, stacks[i].At(want))
		ways[i] = way{&stacks[i], set, set.Shutter.Over(target).Abs()}
	}
	best := slices.MinFunc(ways, func(x, y way) int {
		return cmp.Or(
			cmp.Compare(math.Round(float64(x.off)/costStep), math.Round(float64(y.off)/costStep)),
			cmp.Compare(x.set.ISO, y.set.ISO),
			cmp.Compare(len(x.stack.Filters), len(y.stack.Filters)),
		)
	})
	return best.stack, best.set
}
