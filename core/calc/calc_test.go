package calc

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"pinhole/core/problem"
)

// run answers a request given as JSON text.
func run(t testing.TB, name, body string) any {
	t.Helper()
	op, _ := Named(name)
	answer, err := op.Run([]byte(body))
	if err != nil {
		t.Fatalf("%s: %v", name, err)
	}
	return answer
}

const gear = `"camera":{"aperture":2,"isoBase":100,"isoCeiling":1600,"steps":[0.04,0.02,0.01,0.000125]},
	"kit":[{"id":"a","stops":3,"kind":"nd","measuredStops":3.1},{"id":"b","stops":5,"kind":"nd"},{"id":"p","stops":1.5,"kind":"polariser"},
	       {"id":"v","stops":1,"kind":"variable","minStops":1,"maxStops":5}]`

func askShot(t testing.TB, rest string) *ShotAnswer {
	t.Helper()
	return run(t, "shot", `{`+gear+`,`+rest+`}`).(*ShotAnswer)
}

func TestShotReadsEveryForm(t *testing.T) {
	look := `"look":{"fps":"25","target":"180°"},`
	// EVset of f/2, 1/50, ISO 100 is log2(200) = 7.644.
	tests := []struct {
		name, light string
		ev          float64
	}{
		{"meter", `{"kind":"meter","at":{"text":"f2 1/1250 iso50"}}`, 13.287712379549449},
		{"EV", `{"kind":"meter","at":{"text":"EV 14.3"}}`, 14.3},
		{"a meter set as the camera", `{"kind":"meter","at":{"text":"1/800"}}`, 11.643856189774725},
		{"automatic", `{"kind":"auto","at":{"shutter":"1/800"}}`, 11.643856189774725},
		{"automatic through glass", `{"kind":"auto","at":{"shutter":"1/800","iso":"200","glass":["a"]}}`, 13.743856189774725},
		{"bias", `{"kind":"bias","at":{"bias":"+0.7","glass":["b"]}}`, 13.310522856441391},
		{"bias at another shutter", `{"kind":"bias","at":{"bias":"-0.3","shutter":"1/100"}}`, 8.310522856441391},
		{"lux", `{"kind":"lux","at":{"text":"6400"}}`, 11.321928094887362},
		{"klx", `{"kind":"lux","at":{"text":"6.4 klx"}}`, 11.321928094887362},
	}
	for _, test := range tests {
		if a := askShot(t, look+`"light":`+test.light); math.Abs(float64(a.Reading.EV100)-test.ev) > 1e-9 {
			t.Errorf("%s: EV %v, want %v", test.name, float64(a.Reading.EV100), test.ev)
		}
	}
}

func TestShotChoosesPlacesAndSteps(t *testing.T) {
	rest := `"look":{"fps":"25","target":"180°"},"light":{"kind":"meter","at":{"text":"EV 10.7"}}`
	if a := askShot(t, rest); !slices.Equal(a.Chosen.Filters, []string{"v"}) || a.Placed || !a.Settled {
		t.Errorf("the best is %v, placed %v, settled %v", a.Chosen.Filters, a.Placed, a.Settled)
	}
	if a := askShot(t, rest+`,"placed":["b"]`); !slices.Equal(a.Chosen.Filters, []string{"b"}) || !a.Placed || a.Chosen.ISO < 300 {
		t.Errorf("placed by hand: %+v", a.Chosen)
	}
	if a := askShot(t, rest+`,"placed":["p"]`); a.Chosen.Stops != 1.5 {
		t.Errorf("a polariser placed by hand takes %v", a.Chosen.Stops)
	}
	if a := askShot(t, rest+`,"placed":[]`); len(a.Chosen.Filters) != 0 || !a.Placed {
		t.Errorf("nothing placed by hand: %+v", a.Chosen.Filters)
	}
	a := askShot(t, `"look":{"fps":"25","target":"180°"},"light":{"kind":"looks","looks":[]}`)
	if a.Settled || a.Step == nil || !slices.Equal(a.Chosen.Filters, a.Step.Next.Filters) {
		t.Errorf("looking starts with %+v", a.Step)
	}
	a = askShot(t, `"look":{"fps":"25","target":"180°"},"light":{"kind":"meter","at":{"text":"EV 12"},"low":{"text":"EV 10"}}`)
	if a.Low == nil || a.Solve.Mode == nil || a.Chosen.Mode == nil {
		t.Errorf("a range has mode %+v", a.Solve.Mode)
	}
}

func TestShotNamesTheFieldThatWasTyped(t *testing.T) {
	look, light := `"look":{"fps":"25","target":"180°"}`, `"light":{"kind":"meter","at":{"text":"EV 12"}}`
	tests := []struct{ rest, field string }{
		{`"look":{"fps":"fast","target":"180°"},` + light, "look.fps"},
		{`"look":{"fps":"25","target":"half"},` + light, "look.target"},
		{`"look":{"fps":"still","target":"180°"},` + light, "look.target"},
		{`"look":{"fps":"25","target":"400°"},` + light, "look.target"},
		{`"look":{"fps":"9000","target":"180°"},` + light, "camera.steps"},
		{look + `,"light":{"kind":"meter","at":{"text":"f2"}}`, "light.at.text"},
		{look + `,"light":{"kind":"meter","at":{}}`, "light.at.text"},
		{look + `,"light":{"kind":"meter"}`, "light.at"},
		{look + `,"light":{"kind":"meter","at":{"text":"bias +1"}}`, "light.at.text"},
		{look + `,"light":{"kind":"meter","at":{"text":"EV 10"},"low":{"text":"EV 11"}}`, "light.low"},
		{look + `,"light":{"kind":"meter","at":{"text":"EV 10"},"low":{"text":"?"}}`, "light.low.text"},
		{look + `,"light":{"kind":"auto","at":{"shutter":""}}`, "light.at.shutter"},
		{look + `,"light":{"kind":"auto","at":{"shutter":"1/50","iso":"many"}}`, "light.at.iso"},
		{look + `,"light":{"kind":"auto","at":{"shutter":"1/50","glass":["a","x"]}}`, "light.at.glass[1]"},
		{look + `,"light":{"kind":"auto","at":{"shutter":"1/50","glass":["v"]}}`, "light.at.glass[0]"},
		{look + `,"light":{"kind":"bias","at":{"bias":"?"}}`, "light.at.bias"},
		{look + `,"light":{"kind":"bias","at":{"bias":"99"}}`, "light.at.bias"},
		{look + `,"light":{"kind":"lux","at":{"text":"f2 1/50"}}`, "light.at.text"},
		{look + `,"light":{"kind":"looks","looks":[{"stops":3,"saw":"dark"},{"stops":3,"saw":"bright"}]}`, "light.looks[1].saw"},
		{look + `,` + light + `,"placed":["x"]`, "placed[0]"},
		{look + `,` + light + `,"placed":["p","v"]`, "placed"},
		{look + `,` + light + `,"required":["p","v"]`, "required"},
	}
	op, _ := Named("shot")
	for _, test := range tests {
		_, err := op.Run([]byte(`{` + gear + `,` + test.rest + `}`))
		var doc *problem.Document
		if !errors.As(err, &doc) || len(doc.Errors) == 0 || doc.Errors[0].Field != test.field {
			t.Errorf("%s\ngives %v, want a fault of %s", test.rest, err, test.field)
		}
	}
}

func TestShutterOfTimeLapseAndStill(t *testing.T) {
	a := run(t, "shutter", `{"angleDeg":180,"intervalS":2}`).(*ShutterAnswer)
	if a.ShutterS != 1 || *a.AngleDeg != 180 || !a.Possible {
		t.Errorf("half of a two-second interval is %+v", a)
	}
	if a = run(t, "shutter", `{"angleDeg":300,"intervalS":2}`).(*ShutterAnswer); a.Possible || a.Why == "" {
		t.Errorf("an exposure that leaves no time to write it is %+v", a)
	}
	if a = run(t, "shutter", `{"text":"2\""}`).(*ShutterAnswer); a.AngleDeg != nil || a.DeliveredAngleDeg != nil || a.ShutterS != 2 {
		t.Errorf("a still is %+v", a)
	}
	if a = run(t, "shutter", `{"shutterS":0.05,"fps":25,"steps":[0.04,0.02]}`).(*ShutterAnswer); a.Possible || a.ShutterS != 0.04 {
		t.Errorf("longer than a frame is %+v", a)
	}
	for _, same := range []string{`{"angleDeg":180,"fps":25}`, `{"angleDeg":180,"intervalS":2}`, `{"angleDeg":180,"fps":25,"delivery":{"mode":"every-frame"}}`, `{"angleDeg":180,"intervalS":2,"delivery":{"mode":"every-frame"}}`} {
		if a = run(t, "shutter", same).(*ShutterAnswer); a.DeliveredAngleDeg == nil || *a.DeliveredAngleDeg != *a.AngleDeg {
			t.Errorf("%s: delivered %v, shot at %v", same, a.DeliveredAngleDeg, *a.AngleDeg)
		}
	}
	a = run(t, "shutter", `{"shutterS":0.01,"fps":50,"delivery":{"mode":"speed-up","fps":25,"factor":2}}`).(*ShutterAnswer)
	if math.Abs(*a.DeliveredAngleDeg-45) > 1e-9 {
		t.Errorf("sped up twice it is shown at %v°", *a.DeliveredAngleDeg)
	}
}

// What nobody should ask is refused at once, by the field it is in.
func TestSillyRequests(t *testing.T) {
	var kit []string
	for i := range 5000 {
		kit = append(kit, fmt.Sprintf(`{"id":"f%d","stops":1,"kind":"nd"}`, i))
	}
	camera := `"camera":{"aperture":2,"isoBase":100,"isoCeiling":1600},"fps":25,"angleDeg":180,"light":{"ev100":14}`
	tests := []struct{ name, body, field string }{
		{"a kit of 5,000", `{` + camera + `,"maxLayers":3,"kit":[` + strings.Join(kit, ",") + `]}`, "kit"},
		{"200 filters in three layers", `{` + camera + `,"maxLayers":3,"kit":[` + strings.Join(kit[:200], ",") + `]}`, "kit"},
		{"the same id twice", `{` + camera + `,"kit":[` + kit[0] + `,` + kit[0] + `]}`, "kit[1].id"},
		{"a ceiling below the base", `{"camera":{"aperture":2,"isoBase":400,"isoCeiling":100},"fps":25,"angleDeg":180,"light":{"ev100":14},"kit":[]}`, "camera.isoCeiling"},
		{"angle and time", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":100},"fps":25,"angleDeg":180,"shutterS":0.02,"light":{"ev100":14},"kit":[]}`, "angleDeg"},
		{"no light", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":100},"fps":25,"angleDeg":180,"light":{},"kit":[]}`, "light.ev100"},
		{"half a range", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":100},"fps":25,"angleDeg":180,"light":{"lowEv100":3},"kit":[]}`, "light.highEv100"},
		{"a range upside down", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":100},"fps":25,"angleDeg":180,"light":{"lowEv100":3,"highEv100":2},"kit":[]}`, "light.lowEv100"},
		{"light of a bomb", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":100},"fps":25,"angleDeg":180,"light":{"ev100":1e300},"kit":[]}`, "light.ev100"},
		{"an angle of a still", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":100},"angleDeg":180,"light":{"ev100":14},"kit":[]}`, "fps"},
		{"a frame longer than itself", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":100},"fps":25,"shutterS":0.5,"light":{"ev100":14},"kit":[]}`, "shutterS"},
		{"a ring without its marks", `{` + camera + `,"kit":[{"id":"v","stops":1,"kind":"variable"}]}`, "kit[0].maxStops"},
	}
	op, _ := Named("solve")
	for _, test := range tests {
		_, err := op.Run([]byte(test.body))
		var doc *problem.Document
		if !errors.As(err, &doc) || len(doc.Errors) == 0 || doc.Errors[0].Field != test.field {
			t.Errorf("%s gives %v, want a fault of %s", test.name, err, test.field)
		}
	}
}

// documentOf returns the problem document an error is, nil where it is none.
func documentOf(err error) *problem.Document {
	var doc *problem.Document
	if !errors.As(err, &doc) {
		return nil
	}
	return doc
}

// Whatever JSON comes in, each computation answers it or names what is wrong, and
// what it answers is JSON again: no number in it is infinite.
func FuzzRun(f *testing.F) {
	for _, c := range workedCases(f) {
		f.Add(c.Calc, []byte(c.Request))
	}
	f.Add("shot", []byte(`{`+gear+`,"look":{"fps":"25","target":"180°"},"light":{"kind":"auto","at":{"shutter":"1/800","glass":["a"]}}}`))
	f.Add("window", []byte(trailer))
	f.Add("reading", []byte(`{"kind":"sky","sky":"partly","sunAltitudeDeg":3,"plane":"shade"}`))
	f.Add("light", []byte(`{"from":"2031-09-20T07:00:00-01:00","to":"2031-09-20T08:00:00-01:00","stepS":600,"latDeg":38,"lonDeg":-20,"sky":"clear","plane":"vertical","anchor":{"time":"2031-09-20T07:00:00-01:00","ev100":12}}`))
	f.Add("mass", []byte(`{"partsG":[180,45],"limitG":250}`))
	f.Add("ask", []byte(`{"line":"f2 1/1250 iso50 > 50fps · 4 8 16 32","whole":true}`))
	f.Fuzz(func(t *testing.T, name string, body []byte) {
		op, known := Named(name)
		if !known {
			return
		}
		answer, err := op.Run(body)
		var doc *problem.Document
		switch {
		case err == nil:
			if _, err := json.Marshal(answer); err != nil {
				t.Fatalf("%s answers %s with %+v: %v", name, body, answer, err)
			}
		case !errors.As(err, &doc):
			t.Fatalf("%s answers %s with %T: %v", name, body, err, err)
		}
	})
}

func BenchmarkShotFromJSON(b *testing.B) {
	body := []byte(`{` + gear + `,"look":{"fps":"25","target":"180°"},"light":{"kind":"meter","at":{"text":"f2 1/1250 iso50"}}}`)
	op, _ := Named("shot")
	b.ReportAllocs()
	for b.Loop() {
		answer, err := op.Run(body)
		if err != nil {
			b.Fatal(err)
		}
		if _, err := json.Marshal(answer); err != nil {
			b.Fatal(err)
		}
	}
}
