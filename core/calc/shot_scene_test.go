package calc

import (
	"encoding/json"
	"fmt"
	"math"
	"pinhole/core/assemble"
	"slices"
	"strings"
	"testing"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/picture"
)

// crates is the demo's crate trailer as a shot: 50 fps at 180° on a rough lane.
const crates = `{"camera":{"aperture":2.8,"isoBase":100,"isoCeiling":1600,"steps":[0.04,0.02,0.0166666667,0.01,0.005,0.0041666667,0.0025,0.001,0.000125]},
	"kit":[{"id":"nd8","stops":3,"kind":"nd"},{"id":"nd16","stops":4,"kind":"nd"},{"id":"pol","stops":1.5,"kind":"polariser"}],
	"look":{"fps":"50","target":"180°"},"light":{"kind":"meter","at":{"text":"EV 13.9"}},"rates":["25","50","100"],
	"profile":{"lens":{"widthPx":3840,"hfovDeg":118,"projection":"equidistant"},"stabiliser":"electronic","readoutS":0.014,"automatic":{"priority":"iso"}},
	"scene":{"shakeDegS":55,"movement":{"speedMps":4,"distanceM":2}}}`

func object(t testing.TB, text string) map[string]any {
	t.Helper()
	var v map[string]any
	if err := json.Unmarshal([]byte(text), &v); err != nil {
		t.Fatal(err)
	}
	return v
}

// changed returns the request with a merge patch applied.
func changed(t testing.TB, request, patch string) string {
	t.Helper()
	return marshal(t, merged(object(t, request), object(t, patch)))
}

func answered(t testing.TB, request string) *ShotAnswer {
	t.Helper()
	return run(t, "shot", request).(*ShotAnswer)
}

// A trade on a shot, applied to what was typed and asked again, leaves what it says.
func TestTradesOnAShotDoWhatTheyClaim(t *testing.T) {
	for _, patch := range []string{
		`{}`, `{"look":{"target":"360°"}}`, `{"look":{"fps":"25"}}`, `{"light":{"at":{"text":"EV 16.5"}}}`, `{"light":{"at":{"text":"EV 3"}}}`,
		`{"profile":{"stabiliser":"gimbal+electronic"},"scene":{"shakeDegS":900}}`, `{"scene":{"lamps":{"mainsHz":60}}}`,
		`{"scene":{"motor":{"rpm":5000,"amplitudeDeg":0.5}}}`,
	} {
		request := changed(t, crates, patch)
		before := answered(t, request)
		for _, trade := range before.Window.Trades {
			after := answered(t, changed(t, request, marshal(t, trade.Change)))
			if after.State != trade.State {
				t.Errorf("%s: %s claims %s, asked again it %s", patch, trade.Does, trade.State, after.State)
			}
			// A look is typed with five digits at most.
			if left := sizeOf(after.Window, trade); math.Abs(left-float64(trade.LeavesStops)) > 1e-3 {
				t.Errorf("%s: %s claims to leave %v, asked again it is %v", patch, trade.Does, trade.LeavesStops, left)
			}
		}
	}
}

// What a school's line says is what taking that school gives.
func TestASchoolTakenIsTheSchoolShown(t *testing.T) {
	for _, patch := range []string{`{}`, `{"look":{"target":"1/200"}}`, `{"light":{"at":{"text":"EV 9"}}}`, `{"light":{"at":{"text":"EV 14"},"low":{"text":"EV 11"}}}`} {
		request := changed(t, crates, patch)
		for _, line := range answered(t, request).Schools {
			take := `{"scene":{"school":null}}`
			switch line.School {
			case "stabiliser-first", "free", "automatic":
				take = `{"scene":{"school":"` + line.School + `"}}`
			case "180", "360", "90":
				take = `{"look":{"target":"` + line.School + `°"},"scene":{"school":null}}`
			}
			taken := answered(t, changed(t, request, take))
			isTaken := slices.ContainsFunc(taken.Schools, func(s SchoolLine) bool { return s.School == line.School && s.IsTaken })
			if !isTaken || !slices.Equal(taken.Chosen.Filters, line.Filters) || taken.State != line.State || taken.Chosen.ShutterText != line.Text {
				t.Errorf("%s, %s shows %v at %v, %s; taken it is %v at %v, %s (taken %v)", patch, line.Name, line.Filters, line.Text, line.State,
					taken.Chosen.Filters, taken.Chosen.ShutterText, taken.State, isTaken)
			}
		}
	}
}

// Where the exposure needs another shutter than the look's, everything is judged
// and measured at the one the camera is set to.
func TestDemandsAreJudgedAtTheShutterTheExposureTakes(t *testing.T) {
	lit := changed(t, crates, `{"look":{"fps":"25","target":"180°"},"placed":["nd16"],"scene":{"shakeDegS":null,"movement":{"speedMps":0.1,"distanceM":5},"lamps":{"mainsHz":50}}}`)
	strained := func(a *ShotAnswer) bool {
		return slices.ContainsFunc(a.Window.Verdict.Strains, func(s Strain) bool { return s.Kind == "lamps" && s.State != "holds" })
	}
	before := answered(t, changed(t, lit, `{"light":{"at":{"text":"EV 12.5"}}}`))
	if before.Chosen.Verdict != "on" || strained(before) {
		t.Fatalf("1/50 under 50 Hz is %q and ripples", before.Chosen.Verdict)
	}
	after := answered(t, changed(t, lit, `{"light":{"at":{"text":"EV 14"}}}`))
	if after.Chosen.Verdict != "shutter" || !strained(after) {
		t.Errorf("%s under 50 Hz is %q and does not ripple: %+v", after.Chosen.ShutterText, after.Chosen.Verdict, after.Window.Verdict.Strains)
	}
	shorter := float64(after.Chosen.ShutterS / before.Chosen.ShutterS)
	if got := after.Motion.BlurPx / before.Motion.BlurPx; math.Abs(got-shorter) > 1e-9 {
		t.Errorf("a shutter of %v times blurs %v times as much", shorter, got)
	}
	floating := answered(t, changed(t, lit, `{"light":{"at":{"text":"EV 14"},"low":{"text":"EV 7"}}}`))
	if floating.Chosen.Verdict != "float-shutter" || !strained(floating) {
		t.Errorf("a shutter that floats from %s to %s meets no ripple", floating.Chosen.Mode.FastestText, floating.Chosen.Mode.SlowestText)
	}
}

// Each line of what ISO or shutter makes good comes to what the option says.
func TestTheChainOfNumbersAddsUp(t *testing.T) {
	const dark, bright = `{"light":{"at":{"text":"EV 10"}},"placed":["nd8"]}`, `{"light":{"at":{"text":"EV 15"}},"placed":["nd8"]}`
	const both = `{"light":{"at":{"text":"EV 15"},"low":{"text":"EV 10"}},"placed":["nd8"]}`
	for _, test := range []struct {
		patch, line string
		takes       func(*Option) float64
	}{
		{dark, "ISO", func(o *Option) float64 { return float64(o.ISO) }},
		{bright, "shutter that exposes", func(o *Option) float64 { return o.ShutterS.Seconds() }},
		{both, "shutter at the highest light", func(o *Option) float64 { return o.Mode.FastestS.Seconds() }},
		{both, "ISO at the lowest light", func(o *Option) float64 { return float64(o.Mode.ISOHigh) }},
	} {
		a := answered(t, changed(t, crates, test.patch))
		i := slices.IndexFunc(a.Explain, func(l ExplainLine) bool { return l.Name == test.line })
		if i < 0 {
			t.Errorf("%s: no line of %s in %+v", test.patch, test.line, a.Explain)
			continue
		}
		var from, by float64
		if _, err := fmt.Sscanf(strings.Replace(a.Explain[i].Numbers, " s ", " ", 1), "%g · 2^%g", &from, &by); err != nil {
			t.Fatalf("%s: %q: %v", test.line, a.Explain[i].Numbers, err)
		}
		// The exponent is written to two digits.
		if got, want := from*math.Exp2(by), test.takes(&a.Chosen); math.Abs(got/want-1) > 0.01 {
			t.Errorf("%s: %s = %v, but the option takes %v", test.line, a.Explain[i].Numbers, got, want)
		}
	}
}

func TestAutomaticRaisesISOBehindGlass(t *testing.T) {
	a := answered(t, changed(t, crates, `{"placed":["nd16"]}`))
	if a.Auto == nil || a.Auto.With.ISO < 150 || !strings.Contains(a.Auto.Words, "1.0 stops more noise") {
		t.Errorf("behind four stops the automatic is %+v", a.Auto)
	}
	a = answered(t, changed(t, crates, `{"light":{"low":{"text":"EV 9"}},"placed":["nd16"]}`))
	if !strings.Contains(a.Auto.Words, "; in the lowest light 1/") {
		t.Errorf("over a range the automatic is said to do %q", a.Auto.Words)
	}
	a = answered(t, changed(t, crates, `{"profile":{"automatic":{"priority":"shutter"}},"placed":["nd16"]}`))
	if a.Auto.With.ISO != 100 || a.Auto.With.ShutterS <= a.Auto.Without.ShutterS {
		t.Errorf("with the shutter first it is %+v", a.Auto)
	}
}

func TestWhatIsNotKnownIsSaidAndNotJudged(t *testing.T) {
	tests := []struct{ patch, want, field string }{
		{`{"profile":null}`, "field of view and frame width are not known", "profile.lens.hfovDeg"},
		{`{"profile":{"stabiliser":null}}`, "what stabiliser the camera has is not known", "profile.stabiliser"},
		{`{"scene":{"shakeDegS":null}}`, "nothing is said of what carries the camera", "scene.activity"},
		{`{"profile":{"automatic":null},"scene":{"school":"automatic"}}`, "how this camera's automatic behaves", "profile.automatic.priority"},
		{`{"camera":{"steps":null},"scene":{"school":"automatic","shakeDegS":null}}`, "its fastest shutter", "steps"},
		{`{"profile":{"readoutS":null},"scene":{"shakeDegS":null,"motor":{"rpm":18000,"amplitudeDeg":0.03}}}`, "how long the sensor takes", "profile.readoutS"},
	}
	for _, test := range tests {
		a := answered(t, changed(t, crates, test.patch))
		if !slices.ContainsFunc(a.Missing, func(u Unjudged) bool { return strings.Contains(u.Words, test.want) && u.Field == test.field }) {
			t.Errorf("%s: %q does not say that %s", test.patch, a.Missing, test.want)
		}
		if slices.ContainsFunc(a.Window.Bands, func(b WindowBand) bool { return b.Kind == "stabiliser" }) && !strings.Contains(test.patch, "automatic") {
			t.Errorf("%s: the stabiliser is judged all the same", test.patch)
		}
	}
}

func TestWhatIsAssumedIsSaid(t *testing.T) {
	a := answered(t, changed(t, crates, `{"scene":{"shakeDegS":null,"activity":"walk"},"profile":{"stabiliser":"gimbal+electronic"},"required":["pol"]}`))
	for _, want := range []string{"a shake of 20°/s is assumed for a camera walking calmly", "let 8 % of the shake through", "1.5 stops, ±0.4"} {
		if !slices.ContainsFunc(a.Assumed, func(s string) bool { return strings.Contains(s, want) }) {
			t.Errorf("%q does not say %q", a.Assumed, want)
		}
	}
	if a = answered(t, crates); len(a.Assumed) != 0 {
		t.Errorf("a measured shot assumes %q", a.Assumed)
	}
}

func TestATimeLapseTakesItsIntervalForAFrame(t *testing.T) {
	a := answered(t, changed(t, crates, `{"look":{"target":"180°"},"scene":{"intervalS":2}}`))
	if a.Lapse == nil || !a.Lapse.Possible || a.Lapse.ShutterS > 1 || a.Shutter.IdealS != 1 {
		t.Errorf("half of two seconds is %+v of %+v", a.Lapse, a.Shutter)
	}
	if a = answered(t, changed(t, crates, `{"look":{"target":"1/50"},"scene":{"intervalS":0.51}}`)); a.Lapse.Possible {
		t.Errorf("nothing is left to write the frame, and yet %+v", a.Lapse)
	}
}

func TestThePartsOfAShotNameTheirFields(t *testing.T) {
	for _, test := range []struct{ patch, field string }{
		{`{"scene":{"movement":{"distanceM":null}}}`, "scene.movement.distanceM"},
		{`{"scene":{"lamps":{}}}`, "scene.lamps.mainsHz"},
		{`{"scene":{"motor":{"hz":5,"rpm":5,"amplitudeDeg":1}}}`, "scene.motor.hz"},
		{`{"scene":{"parts":{"subjectEv100":10,"brightEv100":9,"darkEv100":5,"exposeFor":"subject"}}}`, "scene.parts.brightEv100"},
		{`{"scene":{"stick":{"centreDegS":500,"maxDegS":100,"expo":0}}}`, "scene.stick.maxDegS"},
		{`{"craft":{"rates":{"roll":{"centreDegS":500,"maxDegS":100,"expo":0}}}}`, "craft.rates.roll.maxDegS"},
		{`{"scene":{"delivery":{"mode":"real-time"}}}`, "scene.delivery.fps"},
		{`{"scene":{"activity":"dance"}}`, "scene.activity"},
		{`{"profile":{"lens":{"projection":"rectilinear","hfovDeg":180}}}`, "profile.lens.hfovDeg"},
		{`{"rates":["often"]}`, "rates"},
	} {
		op, _ := Named("shot")
		_, err := op.Run([]byte(changed(t, crates, test.patch)))
		if doc := documentOf(err); doc == nil || len(doc.Errors) == 0 || doc.Errors[0].Field != test.field {
			t.Errorf("%s gives %v, want a fault of %s", test.patch, err, test.field)
		}
	}
}

// Each drawing shows what the model says is seen most.
func TestLoopsPointAtTheirEffect(t *testing.T) {
	tests := []struct{ patch, show, effect string }{
		{`{}`, `{"show":"taken"}`, "ghosting"},
		{`{"profile":{"stabiliser":"none"}}`, `{"show":"taken"}`, "blur"},
		{`{"profile":{"stabiliser":"none","automatic":{"priority":"shutter"}}}`, `{"show":"automatic"}`, "strobing"},
		{`{"scene":{"shakeDegS":null,"movement":null}}`, `{"show":"taken"}`, "crisp"},
		{`{"scene":{"shakeDegS":null,"movement":{"speedMps":90}}}`, `{"show":"taken"}`, "smear"},
		{`{"profile":{"stabiliser":"none"},"scene":{"lamps":{"mainsHz":60}}}`, `{"show":"taken"}`, "ripple"},
		{`{"profile":{"stabiliser":"none"},"light":{"at":{"text":"EV 1"}}}`, `{"show":"taken"}`, "dark"},
		{`{"profile":{"stabiliser":"none"}}`, `{"show":"option","filters":["nd8"]}`, "strobing"},
		{`{"profile":{"stabiliser":"none"}}`, `{"show":"school","school":"360"}`, "blur"},
		{`{"profile":{"stabiliser":"none"},"scene":{"motor":{"hz":60,"amplitudeDeg":0.5}}}`, `{"show":"taken"}`, "wobble"},
	}
	for _, test := range tests {
		request := object(t, test.show)
		request["shot"] = object(t, changed(t, crates, test.patch))
		a := run(t, "loop", marshal(t, request)).(*LoopAnswer)
		if string(a.Effect) != test.effect || a.LookAt == "" || !a.Simulated {
			t.Errorf("%s %s: %s, %q, want %s", test.patch, test.show, a.Effect, a.LookAt, test.effect)
		}
	}
	op, _ := Named("loop")
	for field, show := range map[string]string{"filters": `"option","filters":["gone"]`, "school": `"school","school":"own"`, "shot.look.fps": `"taken"`} {
		shot := crates
		if field == "shot.look.fps" {
			shot = changed(t, crates, `{"look":{"fps":"x"}}`)
		}
		_, err := op.Run([]byte(`{"shot":` + shot + `,"show":` + show + `}`))
		if doc := documentOf(err); doc == nil || doc.Errors[0].Field != field {
			t.Errorf("%s gives %v, want a fault of %s", show, err, field)
		}
	}
}

// The drawing's blur is that of the shot: its view has the shot's lens and movement.
func TestLoopViewIsTheShots(t *testing.T) {
	var r LoopRequest
	if err := json.Unmarshal([]byte(`{"shot":`+crates+`,"show":"taken"}`), &r); err != nil {
		t.Fatal(err)
	}
	loop, err := PlanLoop(r)
	if err != nil {
		t.Fatal(err)
	}
	if v := loop.View; v.Lens.HFOV != 118 || v.Movement.SpeedMps != 4 || v.Rate != 50 || !v.ShiftsFrames || v.Shake != 55 || v.ReadoutS != 0.014 {
		t.Errorf("the view is %+v", v)
	}
	if loop.Exposure != (picture.Exposure{Shutter: 0.01, Error: loop.Answer.ErrorStops}) {
		t.Errorf("the exposure is %+v", loop.Exposure)
	}
}

func angle30() angle.Deg { return 30 }

// A stabiliser's crop narrows the view, so the same motion blurs more pixels; a
// field of view that is tried is the one seen.
func TestTheStabilisersCropIsSeen(t *testing.T) {
	r := assemble.ShotRequest{Profile: &assemble.CameraProfile{Lens: &assemble.LensFields{WidthPx: 3840, HFOVDeg: 90, Projection: motion.Rectilinear}, Stabiliser: motion.Electronic, CropShare: 0.2}}
	seen := r.Tried().Profile.Lens.HFOVDeg
	if want := 2 * math.Atan(0.8) * 180 / math.Pi; math.Abs(float64(seen)-want) > 1e-9 {
		t.Errorf("a fifth of 90° cropped away leaves %v, want %v", seen, want)
	}
	if r.Profile.Lens.HFOVDeg != 90 {
		t.Error("the request was changed")
	}
	wide := angle.Deg(100)
	r.Scene.WhatIf = &assemble.WhatIf{HFOVDeg: &wide}
	if seen := r.Tried().Profile.Lens.HFOVDeg; seen != wide {
		t.Errorf("100° tried are seen as %v", seen)
	}
	r.Scene.WhatIf = &assemble.WhatIf{Stabiliser: motion.NoStabiliser}
	if seen := r.Tried().Profile.Lens.HFOVDeg; seen != 90 {
		t.Errorf("with the stabiliser off %v are seen", seen)
	}
}

// What a trial found of a filter's tilt counts before what is known of the rig.
func TestTiltLeftByTheGlassThatIsOn(t *testing.T) {
	ten, forty := angle.Deg(10), angle.Deg(40)
	r := assemble.ShotRequest{Profile: &assemble.CameraProfile{MaxTiltDeg: &forty}, Kit: []assemble.KitFilter{{ID: "thick", TiltUpDeg: &ten}, {ID: "thin"}}}
	for _, test := range []struct {
		on   []string
		want angle.Deg
	}{{nil, 40}, {[]string{"thin"}, 40}, {[]string{"thick"}, 10}, {[]string{"thin", "thick"}, 10}} {
		if left := tiltLeftOf(&r, test.on); left == nil || *left != test.want {
			t.Errorf("with %v on %v are left, want %v", test.on, left, test.want)
		}
	}
	r.Profile = nil
	if left := tiltLeftOf(&r, []string{"thin"}); left != nil {
		t.Errorf("%v are left of what is not known", *left)
	}
}

// Light that is missing is said in stops, and what helps gives what it says.
func TestWhatHelpsWhereLightIsMissing(t *testing.T) {
	dark := strings.Replace(crates, `"EV 13.9"`, `"EV 2"`, 1)
	a := ask[ShotAnswer](t, "shot", dark)
	// The setting needs EV 9.6; four stops of ISO and two thirds of tolerance leave 2.95.
	if a.Short == nil || math.Abs(float64(a.Short.Stops)-2.948) > 0.01 || len(a.Short.Helps) != 4 {
		t.Fatalf("%+v", a.Short)
	}
	if h := a.Short.Helps[0]; !strings.Contains(h.Words, "1/50") || h.Gives != 1 {
		t.Errorf("the whole frame gives %+v", h)
	}
	brighter := strings.Replace(crates, `"EV 13.9"`, fmt.Sprintf(`"EV %.3f"`, 2+float64(a.Short.Stops)), 1)
	if b := ask[ShotAnswer](t, "shot", brighter); b.Short != nil {
		t.Errorf("with the light it asks for it is still short: %+v", b.Short)
	}
	if bright := ask[ShotAnswer](t, "shot", crates); bright.Short != nil {
		t.Errorf("in bright light: %+v", bright.Short)
	}
}
