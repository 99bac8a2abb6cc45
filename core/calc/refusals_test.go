package calc

import (
	"encoding/json"
	"pinhole/core/fit"
	"strings"
	"testing"
)

// What contradicts itself or lies out of reach is refused by the field it is in,
// for every computation beside those of glass.
func TestRefusals(t *testing.T) {
	lens := `"widthPx":1920,"hfovDeg":90,"projection":"rectilinear",`
	auto := `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":800,"fastestS":0.0001,"slowestS":0.03,"priority":"iso"},"ev100":10,"glassStops":3}`
	light := `{"from":"2031-09-20T07:00:00-01:00","to":"2031-09-20T08:00:00-01:00","stepS":60,"latDeg":38,"lonDeg":-20,"sky":"clear","plane":"top"}`
	day := `{"shots":[{"id":"a","cameraId":"x","from":"2031-09-20T07:00:00Z","to":"2031-09-20T07:01:00Z","evSet":9,"points":[12,12]},
		{"id":"b","cameraId":"x","from":"2031-09-20T08:00:00Z","to":"2031-09-20T08:00:00Z","evSet":9,"points":[12]}],
		"stacks":[{"id":"none","stops":0}]}`
	table := `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":800},"kit":[{"id":"a","stops":3,"kind":"nd"}],"looks":[{"fps":"25","target":"180°"}],
		"lowEv100":2,"highEv100":17,"columns":31,"wanted":[{"id":"s","fps":"25","target":"180°","lowEv100":12,"highEv100":12}]}`
	dark := `{"optics":{"aperture":2,"isoBase":100,"isoCeiling":800},"shutterS":0.02,"fps":25,"glassStops":6,"looseStops":6,"outsideEv100":13}`
	change := func(body, from, to string) string {
		if !strings.Contains(body, from) {
			t.Fatalf("%s is not in %s", from, body)
		}
		return strings.Replace(body, from, to, 1)
	}
	tests := []struct{ name, body, field string }{
		{"solve", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":800,"fastestS":0.000125},"shutterS":0.00005,"kit":[],"light":{"ev100":16}}`, "shutterS"},
		{"blur", `{` + lens + `"shutterS":0.02,"fps":25}`, "speedMps"},
		{"blur", `{` + lens + `"shutterS":0.02,"fps":25,"speedMps":3}`, "distanceM"},
		{"blur", `{` + lens + `"shutterS":0.02,"fps":25,"distanceM":3}`, "speedMps"},
		{"blur", `{` + lens + `"shutterS":0.05,"fps":25,"turnDegS":3}`, "shutterS"},
		{"blur", `{` + lens + `"shutterS":1e-400,"fps":25,"turnDegS":3}`, "shutterS"},
		{"blur", `{` + lens + `"shutterS":0.02,"fps":25,"turnDegS":1e9}`, "turnDegS"},
		{"blur", `{"widthPx":1920,"hfovDeg":180,"projection":"rectilinear","shutterS":0.02,"fps":25,"turnDegS":1}`, "hfovDeg"},
		{"blur", `{"widthPx":0,"hfovDeg":90,"projection":"rectilinear","shutterS":0.02,"fps":25,"turnDegS":1}`, "widthPx"},
		{"stabiliser", `{` + lens + `"kind":"magic","shakeDegS":10}`, "kind"},
		{"stabiliser", `{` + lens + `"kind":"post","shakeDegS":10,"toleranceShare":0}`, "toleranceShare"},
		{"vibration", `{` + lens + `"amplitudeDeg":1,"readoutS":0.01,"shutterS":0.01}`, "hz"},
		{"vibration", `{` + lens + `"hz":100,"blades":3,"amplitudeDeg":1,"readoutS":0.01,"shutterS":0.01}`, "blades"},
		{"vibration", `{` + lens + `"rpm":100,"blades":2.5,"amplitudeDeg":1,"readoutS":0.01,"shutterS":0.01}`, "blades"},
		{"lamps", `{"shutterS":0.01,"fps":25}`, "mainsHz"},
		{"lamps", `{"mainsHz":50,"pulseHz":100,"shutterS":0.01,"fps":25}`, "mainsHz"},
		{"rates", `{"centreDegS":200,"maxDegS":100,"expo":0}`, "maxDegS"},
		{"rates", `{"centreDegS":100,"maxDegS":200,"expo":0,"widthPx":1920}`, "shutterS"},
		{"uptilt", `{"tiltDeg":90,"atMps":1,"speedMps":1}`, "tiltDeg"},
		{"uptilt", `{"tiltDeg":20,"atMps":0,"speedMps":1}`, "atMps"},
		{"auto", auto, "camera.preferredS"},
		{"auto", change(auto, `"iso"}`, `"iso","preferredS":1}`), "camera.preferredS"},
		{"auto", change(auto, `"slowestS":0.03`, `"slowestS":0.00001`), "camera.slowestS"},
		{"contrast", `{"subjectEv100":10,"brightEv100":9,"darkEv100":5,"exposeFor":"subject"}`, "brightEv100"},
		{"contrast", `{"subjectEv100":10,"brightEv100":12,"darkEv100":11,"exposeFor":"subject"}`, "darkEv100"},
		{"sun", `{"time":"2031-09-20","latDeg":1,"lonDeg":1}`, "time"},
		{"sun", `{"time":"1850-09-20T00:00:00Z","latDeg":1,"lonDeg":1}`, "time"},
		{"sun", `{"time":"2031-09-20T00:00:00Z","latDeg":91,"lonDeg":1}`, "latDeg"},
		{"light", change(light, "08:00:00", "06:00:00"), "to"},
		{"light", change(light, `"stepS":60`, `"stepS":1`), "stepS"},
		{"light", change(light, `"stepS":60`, `"stepS":0`), "stepS"},
		{"light", change(light, "2031-09-20T08", "9999-09-20T08"), "to"},
		{"reading", `{"kind":"sky","sunAltitudeDeg":10}`, "sky"},
		{"reading", `{"kind":"sky","sky":"clear"}`, "sunAltitudeDeg"},
		{"polariser", `{"sunAltitudeDeg":10,"sunAzimuthDeg":0,"cameraAltitudeDeg":0,"cameraAzimuthDeg":0,"hfovDeg":60,"water":{"depressionDeg":95}}`, "water.depressionDeg"},
		{"fit", `{"mount":"glue","barrelMm":[18,18],"filterMm":[18,18]}`, "mount"},
		{"fit", `{"mount":"snap","barrelMm":[18.2,18],"filterMm":[18,18]}`, "barrelMm"},
		{"fit", `{"mount":"snap","barrelMm":[18],"filterMm":[18,18]}`, "barrelMm"},
		{"fit", `{"mount":"snap","barrelMm":[-18,18],"filterMm":[18,18]}`, "barrelMm[0]"},
		{"hold", `{"mount":"clip","inFlight":true,"massG":5,"accelG":3,"speedMps":10,"diameterMm":20,"pullOffN":1,"pullOffG":100}`, "pullOffN"},
		{"hold", `{"mount":"clip","inFlight":true,"massG":-5,"accelG":3,"speedMps":10,"diameterMm":20}`, "massG"},
		{"corners", `{"aperture":2,"focalMm":3,"halfDiagonalDeg":90,"rings":[{"clearMm":10,"zMm":3}]}`, "halfDiagonalDeg"},
		{"corners", `{"aperture":2,"focalMm":3,"halfDiagonalDeg":40,"rings":[]}`, "rings"},
		{"balance", `{"filterG":5,"filterArmMm":5,"counterArmMm":0}`, "counterArmMm"},
		{"mass", `{"partsG":[100,-5],"limitG":250}`, "partsG[1]"},
		{"coverage", change(table, `"highEv100":17`, `"highEv100":1`), "highEv100"},
		{"coverage", change(table, `"180°"`, `"half"`), "looks[0].target"},
		{"coverage", change(table, `"columns":31`, `"columns":5000`), "columns"},
		{"coverage", change(table, `"highEv100":12`, `"highEv100":2`), "wanted[0].highEv100"},
		{"card", change(field("2031-09-20T07:30:00-01:00", false, "", ""), `"cameraId":"pocket","camera"`, `"cameraId":"other","camera"`), "benches"},
		{"card", change(field("2031-09-20T07:30:00-01:00", false, "", ""), `{"id":"b","look"`, `{"id":"x","look"`), "shots"},
		{"card", field("1031-09-20T07:30:00-01:00", false, "", ""), "now"},
		{"passage", dark, "insideEv100"},
		{"passage", change(dark, `"fps":25`, `"fps":25,"dark":"hall","insideEv100":3`), "dark"},
		{"passage", change(dark, `"fps":25`, `"fps":25,"insideEv100":30`), "insideEv100"},
		{"passage", change(dark, `"fps":25`, `"fps":25,"dark":"hall"`), "lengthM"},
		{"passage", change(dark, `"fps":25`, `"fps":25,"dark":"hall","lengthM":20`), "speedMps"},
		{"passage", change(dark, `"fps":25`, `"fps":25,"dark":"hall","seconds":3,"lengthM":20`), "seconds"},
		{"passage", change(dark, `"fps":25`, `"fps":60,"dark":"hall","seconds":3`), "shutterS"},
		{"day", change(day, `[12,12]`, `[12]`), "shots[0].points"},
		{"day", change(day, `"id":"b"`, `"id":"a"`), "shots[1].id"},
		{"day", change(day, `08:00:00Z","to":"2031-09-20T08:00:00Z","evSet":9,"points":[12]`, `07:00:00Z","to":"2031-09-20T07:01:00Z","evSet":9,"points":[12,12]`), "shots[1].from"},
		{"day", change(day, `"stops":0}]`, `"stops":0,"cameraId":"y"}]`), "shots[0].cameraId"},
		{"day", change(day, `"stops":0}]`, `"stops":0},{"id":"none","stops":1}]`), "stacks[1].id"},
		{"day", change(day, `"stacks"`, `"start":{"x":"gone"},"stacks"`), "start.x"},
		{"day", `{"shots":[],"stacks":[{"id":"none","stops":0}]}`, "shots"},
	}
	for _, test := range tests {
		op, known := Named(test.name)
		if !known {
			t.Fatalf("no computation %q", test.name)
		}
		_, err := op.Run([]byte(test.body))
		if doc := documentOf(err); doc == nil || len(doc.Errors) == 0 || doc.Errors[0].Field != test.field {
			t.Errorf("%s of %s\ngives %v, want a fault of %s", test.name, test.body, err, test.field)
		}
	}
}

// What is asked at the edge of a formula is answered, not failed.
func TestEdgesAreAnswered(t *testing.T) {
	lens := `"widthPx":1920,"hfovDeg":90,"projection":"rectilinear",`
	still := run(t, "blur", `{`+lens+`"shutterS":0.02,"fps":25,"speedMps":0}`).(*BlurAnswer)
	if still.BlurPx != 0 || still.Class != "frozen" || *still.VisibleWithinM != 0 || still.Strobes {
		t.Errorf("a subject that stands still: %+v", still)
	}
	calm := run(t, "stabiliser", `{`+lens+`"kind":"electronic","shakeDegS":0,"shutterS":0.02}`).(*StabiliserAnswer)
	if calm.FloorS != nil || !*calm.Holds {
		t.Errorf("a camera that nothing shakes: %+v", calm)
	}
	if z := run(t, "rates", `{"centreDegS":0,"maxDegS":0,"expo":0,`+lens+`"shutterS":0.01}`).(*RatesAnswer); *z.HeavyStick != 1 {
		t.Errorf("rates of zero: %+v", z)
	}
	if dark := run(t, "corners", `{"aperture":2,"focalMm":4,"halfDiagonalDeg":80,"rings":[{"clearMm":3,"zMm":9}]}`).(*fit.CornersAnswer); dark.LossStops != nil || dark.Share != 0 {
		t.Errorf("a ring that shuts the corner out: %+v", dark)
	}
	polar := run(t, "sun", `{"time":"2031-12-21T12:00:00Z","latDeg":76,"lonDeg":0}`).(*SunAnswer)
	if polar.Polar != "night" || polar.Sunrise != nil || polar.Twilight.Civil != nil || polar.Twilight.Nautical == nil {
		t.Errorf("polar night: %+v", polar)
	}
	night := run(t, "reading", `{"kind":"sky","sky":"overcast","sunAltitudeDeg":-50}`).(*ReadingAnswer)
	if night.EV100 > -5 || night.SpreadStops != 0.7 {
		t.Errorf("night by the sky: %+v", night)
	}
	magnet := run(t, "hold", `{"mount":"magnet","inFlight":true,"massG":0,"accelG":0,"speedMps":0,"diameterMm":20,"pullOffG":300}`).(*fit.HoldAnswer)
	if magnet.Margin != nil || magnet.Verdict != "tether" {
		t.Errorf("a magnet that nothing pulls: %+v", magnet)
	}
	if f := run(t, "fit", `{"mount":"twist","barrelMm":[18,18],"filterMm":[30,30]}`).(*fit.FitAnswer); f.Class != nil || f.Settle == "" {
		t.Errorf("a twist mount by clearance: %+v", f)
	}
}

// Every number of a request in turn at values from nothing to beyond reach: the
// answer is JSON or a problem that names a field, never a panic or an infinity.
func TestEveryNumberAtItsExtremes(t *testing.T) {
	extremes := []float64{-1e300, -1e6, -360, -1, 0, 1e-300, 1e-7, 1e-3, 0.5, 1, 2, 89, 180, 360, 1e4, 1e5, 1e6, 1e300}
	asked, answered := map[string]int{}, 0
	seeds := append(workedCases(t), worked{Calc: "window", Request: json.RawMessage(trailer)},
		worked{Calc: "reading", Request: json.RawMessage(`{"kind":"sky","sky":"partly","sunAltitudeDeg":3,"betaDeg":10,"groundAlbedo":0.2,"surfaceStops":1,"dayOfYear":100}`)},
		worked{Calc: "mass", Request: json.RawMessage(`{"partsG":[180,45],"limitG":250}`)})
	for _, seed := range seeds {
		if asked[seed.Calc]++; asked[seed.Calc] > 2 && seed.Calc != "reading" {
			continue
		}
		op, _ := Named(seed.Calc)
		var request any
		if err := json.Unmarshal(seed.Request, &request); err != nil {
			t.Fatal(err)
		}
		eachNumber(request, func(set func(float64)) {
			for _, v := range extremes {
				set(v)
				body := []byte(marshal(t, request))
				answer, err := op.Run(body)
				if doc := documentOf(err); err != nil && (doc == nil || len(doc.Errors) == 0) {
					t.Fatalf("%s of %s: %v names no field", seed.Calc, body, err)
				}
				if err == nil {
					answered++
					marshal(t, answer)
				}
			}
		})
	}
	if answered < 1000 {
		t.Errorf("only %d requests were answered; the rest never reached a formula", answered)
	}
}

// eachNumber calls change for every number in a decoded JSON value, with a
// function that sets it, and puts it back afterwards.
func eachNumber(v any, change func(set func(float64))) {
	visit := func(item any, set func(any)) {
		if _, isNumber := item.(float64); isNumber {
			change(func(f float64) { set(f) })
			set(item)
			return
		}
		eachNumber(item, change)
	}
	switch v := v.(type) {
	case map[string]any:
		for k, item := range v {
			visit(item, func(to any) { v[k] = to })
		}
	case []any:
		for i, item := range v[:min(len(v), 3)] {
			visit(item, func(to any) { v[i] = to })
		}
	}
}
