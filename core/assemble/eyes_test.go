package assemble

import (
	"testing"

	"pinhole/core/angle"
	"pinhole/core/glass"
	"pinhole/core/light"
	"pinhole/core/motion"
	"pinhole/core/shot"
	"pinhole/core/stop"
)

func number[T any](v T) *T { return &v }

// seen is a shot in light that exposes it as metered, so that only what moves, shakes and
// pulses decides.
func seen(t *testing.T, fps, target string, lens LensFields, kind motion.Stabiliser, flies bool, scene ShotScene) *shot.Verdict {
	t.Helper()
	r := &ShotRequest{
		Camera: Camera{Aperture: 2.8, ISOBase: 100, ISOCeiling: 1600}, Look: ShotLook{FPS: fps, Target: target}, Scene: scene,
		Profile: &CameraProfile{Lens: &lens, Stabiliser: kind, Flies: flies},
	}
	wish, err := r.Wish()
	if err != nil {
		t.Fatal(err)
	}
	right := stop.Setting{Aperture: 2.8, Shutter: *wish.ShutterS, ISO: 100}.EV()
	ready, err := r.AssembleIn(glass.Light{Low: right, High: right, Spread: light.OnTheSpot})
	if err != nil {
		t.Fatal(err)
	}
	v, err := ready.Scene.Best()
	if err != nil {
		t.Fatal(err)
	}
	return v
}

// What practised eyes see, sentence by sentence (docs/model.md, One judge). The defaults of
// the judge are held against these; where one contradicts, the default is wrong.
func TestPractisedEyes(t *testing.T) {
	action := LensFields{WidthPx: 3840, HFOVDeg: 115, Projection: motion.Equidistant}
	unit := LensFields{WidthPx: 3840, HFOVDeg: 130, Projection: motion.Equidistant}
	pocket := LensFields{WidthPx: 3840, HFOVDeg: 72, Projection: motion.Rectilinear}
	drone := LensFields{WidthPx: 3840, HFOVDeg: 70, Projection: motion.Rectilinear}
	passing := func(mps, metres float64) *MovementFields { return &MovementFields{SpeedMps: &mps, DistanceM: &metres} }
	turning := func(degS angle.DegPerS) *MovementFields { return &MovementFields{TurnDegS: &degS} }
	shown30 := &Delivery{Mode: motion.RealTime, FPS: 30}
	lamps := &LampFields{MainsHz: number(50.0)}
	walk, brisk := ShotScene{Activity: "walk"}, ShotScene{Activity: "brisk"}
	for _, c := range []struct {
		done, fps, target string
		lens              LensFields
		kind              motion.Stabiliser
		flies             bool
		scene             ShotScene
		want              glass.State
		gives             shot.Kind // what gives way first
	}{
		{"walking, electronic, 1/45: ghosts plainly", "25", "1/45", action, motion.Electronic, false, walk, glass.Breaks, shot.Stabiliser},
		{"around 1/75 only just usable", "25", "1/75", action, motion.Electronic, false, walk, glass.Tight, shot.Stabiliser},
		{"from 1/110 on safe", "25", "1/110", action, motion.Electronic, false, walk, glass.Holds, ""},
		{"the same on a stand, 1/45", "25", "1/45", action, motion.Electronic, false, ShotScene{Activity: "stand"}, glass.Holds, ""},
		{"shaken on purpose while walking, around 1/110 doubtful", "25", "1/110", action, motion.Electronic, false, brisk, glass.Tight, shot.Stabiliser},
		{"from 1/170 on good", "25", "1/170", action, motion.Electronic, false, brisk, glass.Holds, ""},
		{"a hand waved at arm's length, 180°", "30", "180°", action, motion.Electronic, false, ShotScene{Activity: "stand", Movement: passing(1.5, 0.6)}, glass.Holds, ""},
		{"ten times faster frozen and jerky", "30", "1/600", action, motion.Electronic, false, ShotScene{Activity: "stand", Movement: passing(1.5, 0.6)}, glass.Tight, shot.Strobing},
		{"helmet on a smooth road at speed, 180°", "30", "180°", action, motion.Electronic, false, ShotScene{Activity: "helmet-smooth", Movement: passing(14, 1.5)}, glass.Holds, ""},
		{"small quad, flips and rolls, 180°", "30", "180°", unit, motion.NoStabiliser, true, ShotScene{Activity: "freestyle", Movement: turning(600)}, glass.Breaks, shot.Smearing},
		{"at 60 and 180°, shown at 30, good", "60", "180°", unit, motion.NoStabiliser, true, ShotScene{Activity: "freestyle", Movement: turning(600), Delivery: shown30}, glass.Holds, ""},
		{"small quad, smooth lines, 180°", "30", "180°", unit, motion.NoStabiliser, true, ShotScene{Activity: "cruise", Movement: turning(100)}, glass.Holds, ""},
		{"everything 30 m away, a quad", "60", "180°", unit, motion.NoStabiliser, true, ShotScene{Activity: "cruise", Movement: passing(12, 30)}, glass.Holds, ""},
		{"everything 30 m away, a drone", "60", "180°", drone, motion.Gimbal, true, ShotScene{Activity: "cruise", Movement: passing(8, 30)}, glass.Holds, ""},
		{"pocket gimbal, a walk, 180°", "25", "180°", pocket, motion.GimbalAndElectronic, false, ShotScene{Activity: "walk", Movement: passing(1.4, 3)}, glass.Holds, ""},
		{"twice the delivered rate at 180°, half the frames dropped", "60", "180°", pocket, motion.GimbalAndElectronic, false, ShotScene{Activity: "held", Movement: passing(1.4, 1), Delivery: shown30}, glass.Holds, ""},
		{"lamps on 50 Hz, 1/50 clean", "25", "1/50", pocket, motion.NoStabiliser, false, ShotScene{Activity: "stand", Lamps: lamps}, glass.Holds, ""},
		{"at 1/700 strobing", "25", "1/700", pocket, motion.NoStabiliser, false, ShotScene{Activity: "stand", Lamps: lamps}, glass.Breaks, shot.Lamps},
	} {
		v := seen(t, c.fps, c.target, c.lens, c.kind, c.flies, c.scene)
		first := shot.Kind("")
		if len(v.Strains) > 0 {
			first = v.Strains[0].Kind
		}
		if v.State != c.want || first != c.gives {
			t.Errorf("%s: %s, %q gives way (%s); practised eyes say %s, %q", c.done, v.State, first, v.Gives(), c.want, c.gives)
		}
	}
	// What is seen beside the state.
	if v := seen(t, "60", "180°", unit, motion.NoStabiliser, true, ShotScene{Movement: passing(12, 30)}); !contains(v.Because(), "motion blur will not show, so ND is optional") {
		t.Errorf("30 m away glass is a matter of taste: %q", v.Because())
	}
	frozen := motion.Classify(motion.BlurPx(motion.Lens{WidthPx: 1, HFOV: 115, Projection: motion.Equidistant}, motion.Movement{SpeedMps: 14, DistanceM: 1.5, OffAxis: 90}, 1.0/4000))
	if motion.Shows(frozen) {
		t.Errorf("on automatic in sun the road is %s", frozen)
	}
}

func contains(lines []string, line string) bool {
	for _, l := range lines {
		if l == line {
			return true
		}
	}
	return false
}

// A trial says something of its own shake: on a stand there is no floor, and running has a
// faster one than walking.
func TestATrialIsEvidenceForEveryShake(t *testing.T) {
	lens := motion.Lens{WidthPx: 3840, HFOV: 115, Projection: motion.Equidistant}
	floor := func(rate angle.DegPerS, trial stop.Shutter) (stop.Shutter, bool) {
		s := shot.Shaking{Lens: lens, Shake: motion.Shake{Stabiliser: motion.Electronic, Rate: rate, Passes: 1, Tolerance: motion.GhostTolerance}, Trial: trial}
		return s.Slowest()
	}
	if got, ok := floor(20, 1.0/60); !ok || got.Over(1.0/60).Abs() > 1e-9 {
		t.Errorf("walked at 1/60, walking has a floor of %v", got)
	}
	if got, ok := floor(70, 1.0/60); !ok || got.Over(1.0/60*20/70).Abs() > 1e-9 {
		t.Errorf("walked at 1/60, running has a floor of %v", got)
	}
	if got, ok := floor(motion.StandShake, 1.0/60); ok {
		t.Errorf("on a stand there is a floor of %v", got)
	}
}

// A shutter that gives is counted from the wish: a second wanted of a menu that begins at
// 1/25 is no look held.
func TestTheLookIsJudgedAgainstTheWish(t *testing.T) {
	r := &ShotRequest{Camera: Camera{Aperture: 2.8, ISOBase: 100, ISOCeiling: 1600, Steps: []stop.Shutter{1.0 / 25, 1.0 / 50, 1.0 / 100}}, Look: ShotLook{FPS: "still", Target: "1s"}}
	ready, err := r.AssembleIn(glass.Light{Low: 7.6, High: 7.6})
	if err != nil {
		t.Fatal(err)
	}
	v, err := ready.Scene.Best()
	if err != nil || v.State != glass.Breaks || v.Strains[0].Kind != shot.Look {
		t.Errorf("a second wanted and 1/25 taken %s: %+v, %v", v.State, v.Strains, err)
	}
	r.Camera.Steps = append(r.Camera.Steps, 1, 30)
	for _, target := range []string{"1s", "30s"} {
		r.Look.Target = target
		ready, err := r.AssembleIn(glass.Light{})
		if err != nil {
			t.Fatal(err)
		}
		set := ready.Question.Setting.EV()
		ready.Scene.Question.Light = glass.Light{Low: set, High: set}
		if v, err := ready.Scene.Best(); err != nil || v.State != glass.Holds {
			t.Errorf("a still of %s %s: %+v, %v", target, v.State, v.Strains, err)
		}
	}
}
