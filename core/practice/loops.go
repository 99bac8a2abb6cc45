package practice

import (
	"fmt"
	"slices"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/glass"
	"pinhole/core/motion"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

// effectWords say what can be wrong with a loop.
var effectWords = map[shot.Effect]string{
	shot.SeeGhosting: "Ghosting", shot.SeeSmear: "Smeared", shot.SeeDark: "Too dark", shot.SeeWobble: "Wobble", shot.SeeRipple: "Flicker",
	shot.SeeStrobing: "Strobing", shot.SeeBlur: nothingWrong, shot.SeeCrisp: nothingWrong,
}

const nothingWrong = "Nothing wrong"

var faults = []string{"Ghosting", "Smeared", "Too dark", "Wobble", "Flicker", "Strobing", nothingWrong}

// staged is a shot in which a fault is likely.
func staged(d *draw, wanted string) (r assemble.ShotRequest) {
	num := func(low, high float64) *float64 { v := low + (high-low)*d.Float64(); return &v }
	r = cameraOf(named("pocket-gimbal"), nil)
	r.Look = assemble.ShotLook{FPS: oneOf(d, "25", "30"), Target: oneOf(d, "180°", "1/100", "1/50")}
	ev := 8 + 2*d.Float64()
	near := num(2.5, 5)
	r.Scene.Activity = "stand"
	r.Scene.Movement = &assemble.MovementFields{SpeedMps: num(0.6, 1.6), DistanceM: near}
	switch wanted {
	case "Ghosting":
		r = cameraOf(named("action"), nil)
		r.Look, r.Scene.Activity = assemble.ShotLook{FPS: "25", Target: oneOf(d, "180°", "1/60")}, oneOf(d, motion.ActivityName("walk"), "helmet", "run")
		r.Scene.Movement = &assemble.MovementFields{SpeedMps: num(1, 2), DistanceM: near}
	case "Smeared":
		turn := angle.DegPerS(*num(130, 260))
		r.Scene.Movement = &assemble.MovementFields{TurnDegS: &turn}
		r.Look.Target, ev = "360°", 5.4+d.Float64()
	case "Too dark":
		r.Camera.ISOCeiling, ev = r.Camera.ISOBase*2, 1+2*d.Float64()
	case "Wobble":
		hz := *num(120, 260)
		r.Scene.Motor = &assemble.MotorSwing{Hz: &hz, AmplitudeDeg: angle.Deg(*num(0.05, 0.2))}
		r.Look.Target = oneOf(d, "1/1000", "1/2000")
		ev = 13 + d.Float64()
		r.Scene.Movement = &assemble.MovementFields{SpeedMps: num(0.2, 0.5), DistanceM: near}
	case "Flicker":
		r.Scene.Lamps = &assemble.LampFields{MainsHz: oneOf(d, num(50, 50), num(60, 60)), Depth: num(0.6, 1)}
		r.Look.Target = oneOf(d, "1/160", "1/200", "1/320")
	case "Strobing":
		r.Scene.Movement = &assemble.MovementFields{SpeedMps: num(4, 9), DistanceM: near}
		r.Look.Target, ev = oneOf(d, "1/1000", "1/2000"), 13+d.Float64()
	}
	r.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: fmt.Sprintf("EV %.1f", ev)}}
	return r
}

// notice is what is seen most of a shot as the product takes it.
func notice(r *assemble.ShotRequest) (n shot.Noticed, v *shot.Verdict, ok bool) {
	v, ready, ok := best(r)
	if !ok {
		return n, nil, false
	}
	o := &v.Option
	return ready.Scene.Notice(o.Shutter, o.Left, o.ISO.Over(v.Question.Setting.ISO)), v, true
}

// fault asks what is wrong with a loop.
func fault(d *draw) (*made, bool) {
	wanted := aimed(d, faults...)
	r := staged(d, wanted)
	n, v, ok := notice(&r)
	if !ok || effectWords[n.Effect] != wanted || wanted == nothingWrong && v.State == glass.Breaks {
		return nil, false
	}
	m := &made{shot: &r}
	m.Asks = "What is wrong with this loop?"
	m.Loops = []Drawn{{r, "taken"}}
	m.Question.Given = []string{fmt.Sprintf("%s fps", r.Look.FPS)}
	if d.Grade == 1 {
		m.Question.Given = append(m.Question.Given, "Shutter "+v.Option.Shutter.Spoken())
	}
	others := slices.DeleteFunc(slices.Clone(faults), func(f string) bool { return f == wanted })
	d.Shuffle(len(others), func(i, j int) { others[i], others[j] = others[j], others[i] })
	m.among(d, wanted, others[:graded(d, 2, 3, 4)]...)
	m.working = []string{fmt.Sprintf("Look at %s.", n.Words), fmt.Sprintf("Shutter %s, %v.", v.Option.Shutter.Spoken(), v.Option.ISO)}
	return m, true
}

// told is by how many stops the two shutters differ, so that their blur can be told apart.
const told = stop.Stops(2)

// alike is how far the two may be apart in brightness, which would tell them apart as well.
const alike = stop.Stops(0.15)

// withFilter asks which of two loops of a shot had a filter: there the shutter was longer.
func withFilter(d *draw) (*made, bool) {
	r := cameraOf(oneOf(d, named("pocket-gimbal"), named("camera-drone")), usualKit(2, 3, 4, 5, 6, 7))
	r.Look = assemble.ShotLook{FPS: oneOf(d, "25", "30"), Target: "180°"}
	speed, away := 1+3*d.Float64(), 2.5+2*d.Float64()
	r.Scene.Activity = "stand"
	r.Scene.Movement = &assemble.MovementFields{SpeedMps: &speed, DistanceM: &away}
	r.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: fmt.Sprintf("EV %.1f", 12+3*d.Float64())}}
	v, ready, ok := best(&r)
	if !ok || len(v.Option.Filters) == 0 || v.State == glass.Breaks || ready.Scene.Automatic == nil {
		return nil, false
	}
	bare, _ := ready.Scene.Automatic.Expose(ready.High.EV, 0)
	p := ready.Scene.Passing
	apart := v.Option.Shutter.Over(bare.Shutter)
	with, without := motion.BlurPx(p.Lens, p.Movement, v.Option.Shutter), motion.BlurPx(p.Lens, p.Movement, bare.Shutter)
	if v.Option.Left.Abs() > alike || apart < told+stop.Stops(graded(d, 2, 1, 0)) || p.Lens.Share(with) < motion.NaturalFrom {
		return nil, false
	}
	m := &made{shot: &r}
	m.Asks = "Which of the two had a filter on?"
	m.Question.Given = []string{fmt.Sprintf("The same light, %s fps", r.Look.FPS)}
	loops := []Drawn{{r, "taken"}, {r, "automatic"}}
	m.answer = []int{0}
	if d.aim%2 == 1 {
		slices.Reverse(loops)
		m.answer[0] = 1
	}
	m.Loops, m.Choices = loops, []string{"A", "B"}
	m.working = []string{
		fmt.Sprintf("With %s: %s, %.0f px of blur.", v.Option.Filters[0].ID, v.Option.Shutter.Spoken(), with),
		fmt.Sprintf("Without: %s, %.0f px. The filter lets the shutter stay open %v stops longer.", bare.Shutter.Spoken(), without, apart),
	}
	return m, true
}

// What can give way.
var waysOut = []string{"Shutter target", "Stabiliser limit", "Exposure", "Nothing: it holds"}

// givesWay asks which demand breaks in a shot.
func givesWay(d *draw) (*made, bool) {
	wanted := aimed(d, waysOut...)
	r := cameraOf(oneOf(d, named("action"), named("air-unit")), usualKit(2, 3, 4, 5, 6))
	r.Look = assemble.ShotLook{FPS: rateOf(d, &r), Target: oneOf(d, "180°", "90°")}
	r.Scene.Activity = oneOf(d, motion.ActivityName("walk"), "helmet", "bar", "stand", "cruise")
	if d.Grade > 1 || wanted == waysOut[0] {
		r.Scene.School = oneOf(d, shot.School(""), shot.StabiliserFirst)
	}
	ev := 5 + 11*d.Float64()
	r.Light = assemble.ShotLight{Kind: "meter", At: &assemble.Entry{Text: fmt.Sprintf("EV %.1f", ev)}}
	v, _, ok := best(&r)
	if !ok {
		return nil, false
	}
	right := waysOut[3]
	if len(v.Strains) > 0 {
		first := v.Strains[0]
		kinds := map[shot.Kind]string{shot.Look: waysOut[0], shot.Stabiliser: waysOut[1], shot.Exposure: waysOut[2]}
		if right, ok = kinds[first.Kind]; !ok || first.State != glass.Breaks || first.Stops < 0.5 || len(v.Strains) > 1 && v.Strains[1].State == glass.Breaks {
			return nil, false
		}
	} else if v.State != glass.Holds {
		return nil, false
	}
	if right != wanted {
		return nil, false
	}
	m := &made{shot: &r}
	m.Asks = "Which demand breaks in this shot?"
	approach := "Shot by the shutter target"
	if r.Scene.School == shot.StabiliserFirst {
		approach = "Shot by the stabiliser first"
	}
	activity, _ := motion.ActivityNamed(r.Scene.Activity)
	m.Question.Given = []string{
		fmt.Sprintf("Camera %s, electronic stabiliser", activity.Words), fmt.Sprintf("%s; wanted: %s at %s fps. %s", r.Light.At.Text, r.Look.Target, r.Look.FPS, approach),
		"ND4 to ND64 at hand, ISO up to " + fmt.Sprintf("%.0f", float64(r.Camera.ISOCeiling)),
	}
	m.ofSet(right, waysOut...)
	m.working = []string{sentence(v.Words())}
	for _, because := range v.Because() {
		m.working = append(m.working, sentence(because))
	}
	return m, true
}
