package measure

import (
	"fmt"
	"math"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/motion"
	"pinhole/core/shot"
	"pinhole/core/stop"
	"pinhole/core/take"
)

// TakeAnswer is what a clip says, and beside it what its shot meant.
type TakeAnswer struct {
	take.Answer
	Beside []Beside `json:"beside,omitempty" doc:"what was meant beside what came out, where the shot is given"`
}

// Demand is what of a shot a clip can be held against.
type Demand string

// The demands.
const (
	OfShutter  Demand = "shutter"
	OfShake    Demand = "shake"
	OfGhosting Demand = "ghosting"
	OfStrobing Demand = "strobing"
	OfLamps    Demand = "lamps"
	OfExposure Demand = "exposure"
)

// Values returns every Demand there is.
func (Demand) Values() []Demand {
	return []Demand{OfShutter, OfShake, OfGhosting, OfStrobing, OfLamps, OfExposure}
}

// Beside is one demand: what was meant, what came out, and what that means.
type Beside struct {
	Of       Demand   `json:"of"`
	Expected *float64 `json:"expected,omitempty" doc:"seconds of a shutter, degrees a second of a shake, stops"`
	Measured *float64 `json:"measured,omitempty"`
	SE       float64  `json:"se" doc:"of both together"`
	// Agrees is nil where it cannot be told.
	Agrees *bool  `json:"agrees" doc:"null where it cannot be told"`
	Words  string `json:"words"`
	// Light is what the scene had, where auto exposure moved the shutter by itself.
	Light *BesideLight `json:"light,omitempty" doc:"the light that another shutter speaks of, where ISO stayed"`
}

// BesideLight is the light that a shutter speaks of that the camera chose by itself.
type BesideLight struct {
	EV100  stop.EV    `json:"ev100"`
	Spread stop.Stops `json:"spreadStops"`
}

// How far measured and meant may be apart, beside the error that the clip states.
const (
	agreesWithin  = 2.0  // errors
	shutterStray  = 0.05 // of the share, beside 0.01: what the method leaves
	shakeStray    = 0.12 // of the shake, beside 0.2 °/s
	assumedStray  = 0.35 // of a shake that was assumed of an activity
	leastDrift    = stop.Stops(0.15)
	noteworthyPct = 100
	autoSpread    = 0.4 // stops: how auto exposure weighs a scene, and its ISO
)

// besides lays a clip beside its shot. What the shot does not say is not held against it.
func besides(r *assemble.ShotRequest, known take.Request, a *take.Answer) ([]Beside, error) {
	ready, err := r.Assemble()
	if err != nil {
		return nil, err
	}
	all := []Beside{}
	add := func(b *Beside) {
		if b != nil {
			all = append(all, *b)
		}
	}
	add(besideShutter(&known, a))
	add(besideShake(r, ready.Scene, a))
	add(besideGhost(ready.Scene, stop.Shutter(known.ShutterS), a))
	add(besideStrobe(ready.Scene, stop.Shutter(known.ShutterS), a))
	add(besideLamps(ready.Scene, a))
	add(besideExposure(a))
	return all, nil
}

func is(v bool) *bool { return &v }

// rough writes a shutter that was measured: to whole numbers, it is no mark of a camera.
func rough(t stop.Shutter) string {
	if t >= 0.3 {
		return fmt.Sprintf("%.1f s", t.Seconds())
	}
	return fmt.Sprintf("1/%.0f", 1/t.Seconds())
}

func besideShutter(known *take.Request, a *take.Answer) *Beside {
	meant := known.ShutterS
	if meant <= 0 {
		return nil
	}
	expected := float64(meant)
	b := &Beside{Of: OfShutter, Expected: &expected}
	s := a.Shutter
	if s.Share == nil {
		b.Words = fmt.Sprintf("whether the shutter was %v cannot be told from this clip", meant)
		return b
	}
	share := expected * a.FPS
	took := *s.Share / a.FPS
	b.Measured, b.SE = &took, math.Hypot(s.SE, shutterStray*share+0.01)/a.FPS
	off := took - expected
	switch agrees := math.Abs(off) <= agreesWithin*b.SE; {
	case agrees:
		b.Agrees, b.Words = is(true), fmt.Sprintf("the shutter was %v, as meant", meant)
	case s.AtLeast && off < 0:
		b.Words = fmt.Sprintf("the shutter was open for %s at least; compression hides more", rough(stop.Shutter(took)))
	default:
		b.Agrees, b.Words = is(false), fmt.Sprintf("the shutter was %s, not %v: %s", rough(stop.Shutter(took)), meant, whoMoved(a))
		if known.SuitsEV != nil && took > 0 {
			light := known.SuitsEV.Plus(meant.Over(stop.Shutter(took)))
			b.Light = &BesideLight{light, stop.Stops(math.Hypot(autoSpread, b.SE/took/math.Ln2))}
		}
	}
	return b
}

// whoMoved says who set another shutter than was meant.
func whoMoved(a *take.Answer) string {
	if stop.Stops(a.Exposure.DriftStops) > leastDrift {
		return "auto exposure was on"
	}
	return "it was set otherwise, or by auto exposure in even light"
}

func besideShake(r *assemble.ShotRequest, s *shot.Scene, a *take.Answer) *Beside {
	rate, isMeasured, ok := r.ShakeRate()
	if !ok || s.Shaking == nil {
		return nil
	}
	b := &Beside{Of: OfShake}
	shake := s.Shaking.Shake
	if shake.Stabiliser.ShiftsFrames() && shake.Stabiliser != motion.Post {
		b.Words = "the stabiliser takes the shake off before a clip shows it"
		return b
	}
	expected := float64(shake.Reaching())
	b.Expected = &expected
	if a.Shake.DegS == nil {
		b.Words = "the shake cannot be told from this clip"
		return b
	}
	took := float64(*a.Shake.DegS)
	stray := 0.0
	if !isMeasured {
		stray = assumedStray * expected
	}
	b.Measured, b.SE = &took, math.Hypot(math.Hypot(a.Shake.SE, shakeStray*took+0.2), stray)
	said := map[bool]string{true: "measured before", false: "assumed"}[isMeasured]
	if math.Abs(took-expected) <= agreesWithin*b.SE {
		b.Agrees, b.Words = is(true), fmt.Sprintf("the shake was %.0f °/s, as %s", took, said)
		return b
	}
	b.Agrees, b.Words = is(false), fmt.Sprintf("the shake was %.0f °/s, not the %.0f %s", took, expected, said)
	shaken := *s.Shaking
	if expected > 0 {
		shaken.Rate = rate * angle.DegPerS(took/expected)
	}
	if floor, ok := shaken.Slowest(); ok {
		b.Words += fmt.Sprintf(": the stabiliser limit is %s", rough(floor))
	}
	return b
}

func besideGhost(s *shot.Scene, meant stop.Shutter, a *take.Answer) *Beside {
	if s.Shaking == nil || a.Ghost.BlurPx == nil {
		return nil
	}
	floor, ok := s.Shaking.Slowest()
	if !ok || meant <= 0 {
		return nil
	}
	if t := a.Shutter.ShutterS; t != nil && !a.Shutter.AtLeast && *t > 0 { // a limit is judged by what was, not by what was meant
		meant = *t
	}
	feared := meant > floor
	b := &Beside{Of: OfGhosting, Agrees: is(feared == a.Ghost.Stabilised)}
	switch {
	case a.Ghost.Stabilised && feared:
		b.Words = fmt.Sprintf("it ghosts, as was to be expected slower than %s", rough(floor))
	case a.Ghost.Stabilised:
		b.Words = fmt.Sprintf("it ghosts although %s is faster than the limit of %s: the limit is too slow for this shake", rough(meant), rough(floor))
	case feared:
		b.Words = fmt.Sprintf("no ghosting, although %s is slower than the limit of %s", rough(meant), rough(floor))
	default:
		b.Words = "no ghosting, as meant"
	}
	return b
}

func besideStrobe(s *shot.Scene, meant stop.Shutter, a *take.Answer) *Beside {
	if s.Passing == nil || a.Strobe.Strobes == nil || meant <= 0 {
		return nil
	}
	expected := motion.Strobes(s.Passing.Lens, s.Passing.Movement, meant, stop.FrameRate(a.FPS))
	took := *a.Strobe.Strobes
	words := map[[2]bool]string{
		{false, false}: "movement flows, as meant", {true, true}: "movement strobes, as was to be expected",
		{false, true}: "movement strobes, which was not expected", {true, false}: "movement flows, although strobing was expected",
	}
	return &Beside{Of: OfStrobing, Agrees: is(expected == took), Words: words[[2]bool{expected, took}]}
}

func besideLamps(s *shot.Scene, a *take.Answer) *Beside {
	f := a.Flicker
	if f.Depth == nil {
		return nil
	}
	beats := *f.Depth > 0
	switch {
	case s.Lamp == nil && !beats:
		return nil // nothing was said of lamps, and none show
	case beats && s.Lamp == nil:
		return &Beside{Of: OfLamps, Agrees: is(false), Words: fmt.Sprintf("lights flicker at %.0f Hz by %.0f %%: the shot says nothing of lights", *f.BeatHz, noteworthyPct**f.Depth)}
	case beats:
		return &Beside{Of: OfLamps, Agrees: is(false), Words: fmt.Sprintf("lights flicker at %.0f Hz by %.0f %%: take a shutter that suits them", *f.BeatHz, noteworthyPct**f.Depth)}
	}
	return &Beside{Of: OfLamps, Agrees: is(true), Words: "no flicker, as meant"}
}

func besideExposure(a *take.Answer) *Beside {
	zero, drift := 0.0, a.Exposure.DriftStops
	b := &Beside{Of: OfExposure, Expected: &zero, Measured: &drift, SE: float64(leastDrift) / agreesWithin, Agrees: is(stop.Stops(drift) <= leastDrift)}
	if b.Words = "the exposure stood still"; !*b.Agrees {
		b.Words = fmt.Sprintf("the camera changed its exposure by %.1f stops", drift)
	}
	return b
}
