package calc_test

import (
	"encoding/json"
	"fmt"
	"strings"

	"pinhole/core/calc"
)

// show asks one computation and prints the named fields of its answer, one a line;
// a dot leads into objects and lists.
func show(name, request string, fields ...string) {
	op, _ := calc.Named(name)
	answer, err := op.Run([]byte(request))
	if err != nil {
		fmt.Println(err)
		return
	}
	text, err := json.Marshal(answer)
	if err != nil {
		fmt.Println(err)
		return
	}
	var object any
	if err := json.Unmarshal(text, &object); err != nil {
		fmt.Println(err)
		return
	}
	for _, field := range fields {
		fmt.Println(field, written(at(object, strings.Split(field, "."))))
	}
}

func at(v any, path []string) any {
	for _, step := range path {
		var i int
		switch container := v.(type) {
		case map[string]any:
			v = container[step]
		case []any:
			if _, err := fmt.Sscan(step, &i); err != nil || i >= len(container) {
				return nil
			}
			v = container[i]
		}
	}
	return v
}

// written prints numbers to four places, which is more than the work needs.
func written(v any) string {
	if f, ok := v.(float64); ok {
		return fmt.Sprintf("%.4g", f)
	}
	return fmt.Sprint(v)
}

func Example_exposure() {
	show("reading", `{"kind":"meter","aperture":2,"shutterS":0.0025,"iso":100}`, "ev100", "lux")
	// Output:
	// ev100 10.64
	// lux 4000
}

func Example_shutter() {
	show("shutter", `{"text":"180°","fps":24,"steps":[0.02,0.025,0.0166667]}`, "idealS", "shutterS", "snapStops", "angleDeg")
	// Output:
	// idealS 0.02083
	// shutterS 0.02
	// snapStops -0.05889
	// angleDeg 172.8
}

func Example_label() {
	show("label", `{"label":"ND 2.0"}`, "stops", "factor", "ambiguous", "alternatives.0.reads")
	// Output:
	// stops 6.644
	// factor 100
	// ambiguous true
	// alternatives.0.reads factor 2
}

func Example_choosing() {
	show("solve", `{"camera":{"aperture":2.8,"isoBase":100,"isoCeiling":1600},"fps":50,"angleDeg":180,"light":{"ev100":13.94,"spreadStops":0.2},"kit":[{"id":"ND8","stops":3,"measuredStops":2.94,"kind":"nd"},{"id":"ND16","stops":4,"measuredStops":4.2,"kind":"nd"}]}`,
		"needStops", "options.0.filters.0", "options.0.errorStops", "options.0.verdict", "options.0.lostStops")
	// Output:
	// needStops 4.325
	// options.0.filters.0 ND16
	// options.0.errorStops 0.1253
	// options.0.verdict on
	// options.0.lostStops 4.325
}

func Example_range() {
	show("solve", `{"camera":{"aperture":2.1,"isoBase":100,"isoCeiling":800},"fps":60,"angleDeg":180,"light":{"lowEv100":13.2,"highEv100":14.9},"kit":[{"id":"Density 1.5","stops":4.983,"kind":"nd"}]}`,
		"options.0.filters.0", "mode.kind", "mode.isoLow", "mode.isoHigh")
	// Output:
	// options.0.filters.0 Density 1.5
	// mode.kind float-shutter
	// mode.isoLow 100
	// mode.isoHigh 177.9
}

func Example_looking() {
	show("step", `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":1600},"fps":25,"angleDeg":180,"kit":[{"id":"ND8","stops":3,"kind":"nd"},{"id":"ND32","stops":5,"kind":"nd"}],"looks":[{"stops":0,"saw":"bright"}]}`,
		"lowEv100", "highEv100", "next.filters.0")
	// Output:
	// lowEv100 7.977
	// highEv100 17
	// next.filters.0 ND32
}

func Example_automatic() {
	show("auto", `{"camera":{"aperture":2.1,"isoBase":100,"isoCeiling":800,"fastestS":0.000125,"slowestS":0.0166667,"priority":"iso","preferredS":0.004},"ev100":14,"glassStops":5}`, "text")
	// Output:
	// text 1/250 at ISO 215
}

func Example_contrast() {
	show("contrast", `{"subjectEv100":10.5,"brightEv100":14.5,"darkEv100":8,"exposeFor":"between"}`, "aimEv100", "lostHighlightStops", "graduatedStops")
	// Output:
	// aimEv100 12.5
	// lostHighlightStops 0
	// graduatedStops 1.5
}

func Example_blur() {
	show("blur", `{"widthPx":3840,"hfovDeg":118,"projection":"equidistant","shutterS":0.01,"fps":50,"speedMps":4,"distanceM":2}`,
		"fPx", "blurPx", "class", "strobes", "visibleWithinM", "readablePanDegS")
	// Output:
	// fPx 1865
	// blurPx 37.29
	// class natural
	// strobes false
	// visibleWithinM 4.856
	// readablePanDegS 35.12
}

func Example_uptilt() {
	show("uptilt", `{"tiltDeg":25,"atMps":14,"speedMps":20}`, "tiltDeg")
	// Output:
	// tiltDeg 43.58
}

func Example_stick() {
	show("rates", `{"centreDegS":120,"maxDegS":560,"expo":0.4,"stick":0.5,"widthPx":2704,"hfovDeg":130,"projection":"equidistant","shutterS":0.00833}`, "rateDegS", "heavyStick")
	// Output:
	// rateDegS 128.8
	// heavyStick 1
}

func Example_stabiliser() {
	show("stabiliser", `{"widthPx":3840,"hfovDeg":118,"projection":"equidistant","kind":"electronic","shakeDegS":55,"shutterS":0.01}`, "floorS", "blurPx", "holds")
	// Output:
	// floorS 0.004291
	// blurPx 17.9
	// holds false
}

func Example_vibration() {
	show("vibration", `{"widthPx":2704,"hfovDeg":130,"projection":"equidistant","rpm":18000,"blades":3,"amplitudeDeg":0.02,"readoutS":0.012,"shutterS":0.00104}`, "hz", "averaging", "wobblePx", "shows", "softnessPx")
	// Output:
	// hz 900
	// averaging 0.1795
	// wobblePx 0.1494
	// shows false
	// softnessPx 0.832
}

func Example_lamps() {
	show("lamps", `{"mainsHz":50,"shutterS":0.0166667,"fps":30}`, "ripple", "beatHz", "safeS.0", "safe")
	// Output:
	// ripple 0.1654
	// beatHz 10
	// safeS.0 0.01
	// safe false
}

func Example_window() {
	show("window", `{"camera":{"aperture":2.8,"isoBase":100,"isoCeiling":1600,"steps":[0.02,0.01,0.005,0.004,0.002,0.000125]},"fps":50,"angleDeg":180,"light":{"ev100":13.94},"kit":[{"id":"ND16","stops":4,"measuredStops":4.2,"kind":"nd"}],"stabiliser":{"widthPx":3840,"hfovDeg":118,"projection":"equidistant","kind":"electronic","shakeDegS":55}}`,
		"conflicts.0.text", "verdict.gives", "trades.0.does", "trades.0.costs", "trades.0.leavesStops")
	// Output:
	// conflicts.0.text shutter target and stabiliser limit are 0.9 stops apart: one of them is tight
	// verdict.gives stabiliser limit breaks by 1.2 stops
	// trades.0.does stabiliser off, camera on a tripod
	// trades.0.costs the camera stays where it stands
	// trades.0.leavesStops 0
}

func Example_loop() {
	show("loop", `{"show":"taken","shot":{"camera":{"aperture":2.8,"isoBase":100,"isoCeiling":1600},"kit":[{"id":"ND16","stops":4.2,"kind":"nd"}],"look":{"fps":"50","target":"180°"},"light":{"kind":"meter","at":{"text":"EV 13.94"}},"profile":{"lens":{"widthPx":3840,"hfovDeg":118,"projection":"equidistant"},"stabiliser":"electronic"},"scene":{"shakeDegS":55,"movement":{"speedMps":4,"distanceM":2}}}}`,
		"name", "effect", "sizePx", "lookAt")
	// Output:
	// name your setting, 1/100 at ISO 100
	// effect ghosting
	// sizePx 17.9
	// lookAt the whole picture: 18 px of shake stay inside each frame, in another direction every time
}

func Example_sun() {
	show("sun", `{"time":"2031-09-20T10:40:00-01:00","latDeg":38.4,"lonDeg":-20.5}`, "altitudeDeg", "azimuthDeg", "sunrise", "sunset", "twilight.civil.dusk")
	// Output:
	// altitudeDeg 46.73
	// azimuthDeg 143.8
	// sunrise 2031-09-20T06:07:44-01:00
	// sunset 2031-09-20T18:22:37-01:00
	// twilight.civil.dusk 2031-09-20T18:49:02-01:00
}

func Example_sky() {
	show("reading", `{"kind":"sky","sky":"clear","sunAltitudeDeg":47,"betaDeg":40,"surfaceStops":0.5,"dayOfYear":263}`, "ev100", "spreadStops")
	// Output:
	// ev100 15.17
	// spreadStops 0.3
}

func Example_anchor() {
	show("light", `{"from":"2031-09-20T10:40:00-01:00","to":"2031-09-20T12:40:00-01:00","stepS":3600,"latDeg":38.4,"lonDeg":-20.5,"sky":"partly","plane":"vertical","anchor":{"time":"2031-09-20T10:40:00-01:00","ev100":13.9}}`,
		"offsetStops", "points.0.ev100", "points.2.ev100", "points.2.spreadStops")
	// Output:
	// offsetStops -0.4403
	// points.0.ev100 13.9
	// points.2.ev100 14.07
	// points.2.spreadStops 0.7121
}

func Example_polariser() {
	show("polariser", `{"sunAltitudeDeg":47,"sunAzimuthDeg":144,"cameraAltitudeDeg":-35,"cameraAzimuthDeg":60,"hfovDeg":70,"water":{"depressionDeg":35}}`, "gammaDeg", "glareLeft", "uneven")
	// Output:
	// gammaDeg 111.2
	// glareLeft 0.006041
	// uneven true
}

func Example_fit() {
	show("fit", `{"mount":"push-on","barrelMm":[21.02,21.05],"filterMm":[21.08,21.1]}`, "class", "worst", "settle")
	// Output:
	// class snug
	// worst loose
	// settle measure both with a finer gauge: most of the doubt, 0.08 mm, is there; or try it on by hand
}

func Example_hold() {
	show("hold", `{"mount":"push-on","inFlight":true,"massG":0.7,"accelG":12,"speedMps":30,"diameterMm":21,"pullOffG":90}`, "loadN", "margin", "verdict", "advice")
	// Output:
	// loadN 0.3058
	// margin 1.732
	// verdict tether
	// advice add a tether or tape, and test it by hand before each flight
}

func Example_corners() {
	show("corners", `{"aperture":2.8,"focalMm":2.7,"halfDiagonalDeg":59.5,"rings":[{"clearMm":24,"zMm":4},{"clearMm":24,"zMm":7}]}`, "lossStops", "cleanHalfDeg", "further.lossStops")
	// Output:
	// lossStops 0.6255
	// cleanHalfDeg 58.71
	// further.lossStops 2.229
}

func Example_balance() {
	show("balance", `{"filterG":9,"filterArmMm":22,"counterArmMm":45}`, "counterG")
	// Output:
	// counterG 4.4
}

func Example_mass() {
	show("mass", `{"partsG":[231.5,12.2,1.6,2.9],"limitG":249}`, "words")
	// Output:
	// words 248.2 g, 0.8 g under your limit of 249 g; local rules decide what a class allows
}

func Example_seat() {
	show("seat", `{"rig":{"mount":"push-on","barrelMm":[21.02,21.04],"accelG":12,"speedMps":30},"inFlight":true,"glass":[{"mount":"push-on","seatMm":[21.06,21.07],"outerMm":23,"weightG":0.7}],"trial":{"seated":true,"pullOffG":90},"referenceMm":0.02}`, "standing", "because.0", "hold.margin", "fit.worst")
	// Output:
	// standing tight
	// because.0 weak hold: tether it
	// hold.margin 1.512
	// fit.worst snug
}

func Example_compare() {
	show("compare", `{"sets":[{"name":"thin rings","fit":1,"truth":0.05,"tint":0.1,"mass":4.2,"price":60},{"name":"wide rings","fit":0.5,"truth":0.2,"tint":0.1,"corners":0,"mass":7,"price":45}]}`, "scores.0.least", "scores.0.most", "scores.1.most", "words")
	// Output:
	// scores.0.least 0.6074
	// scores.0.most 0.9407
	// scores.1.most 0.7852
	// words no clear winner. For thin rings, find out their vignetting first
}

func Example_outing() {
	show("outing", `{"place":{"latDeg":38.4,"lonDeg":-20.5},"sky":"clear","from":"2031-09-20T06:00:00-01:00","to":"2031-09-20T20:00:00-01:00","stepS":3600,"anchor":{"time":"2031-09-20T12:00:00-01:00","ev100":13.9},"shots":[{"id":"noon","name":"Noon walk","cameraId":"pocket","from":"2031-09-20T12:50:00-01:00","minutes":20,"evSet":7.64,"plane":"vertical","headingDeg":0}],"stacks":[{"id":"ND8","name":"ND8","stops":3.05},{"id":"ND32","name":"ND32","stops":4.87}]}`,
		"offsetStops", "days.0.sunrise", "shots.0.packs.0.stack", "shots.0.state", "shots.0.remedies.0", "shots.0.sun.words")
	// Output:
	// offsetStops -0.9849
	// days.0.sunrise 2031-09-20T06:07:44-01:00
	// shots.0.packs.0.stack ND32
	// shots.0.state breaks
	// shots.0.remedies.0 option: a filter of 7.0 stops (ND128)
	// shots.0.sun.words the sun is behind the camera
}

func Example_polariserDay() {
	show("polariser-day", `{"at":"2031-09-21T11:25:00-01:00","latDeg":38.4,"lonDeg":-20.5,"cameraAltitudeDeg":-40,"cameraAzimuthDeg":150,"hfovDeg":70,"water":true}`, "now.centre", "now.glareLeft", "bestAt")
	// Output:
	// now.centre 0.7995
	// now.glareLeft 0.01507
	// bestAt 2031-09-21T11:10:00-01:00
}

func Example_year() {
	show("year", `{"days":["2031-01-01T00:00:00-01:00","2031-07-02T00:00:00-01:00"],"latDeg":38.4,"lonDeg":-20.5,"sky":"clear","hours":[7.5],"evSet":7.64,"stacks":[{"id":"none","name":"No glass","stops":0},{"id":"ND32","name":"ND32","stops":4.87}]}`, "weeks.0.cells.0.needStops", "weeks.1.cells.0.stack", "weeks.1.cells.0.errorStops")
	// Output:
	// weeks.0.cells.0.needStops -2.631
	// weeks.1.cells.0.stack ND32
	// weeks.1.cells.0.errorStops 2.435
}

func Example_day() {
	show("day", `{"shots":[{"id":"dawn walk","cameraId":"pocket","from":"2031-09-20T07:20:00-01:00","to":"2031-09-20T07:22:00-01:00","evSet":7.64,"points":[10.6,10.7,10.8],"isoHeadroomStops":4},{"id":"noon walk","cameraId":"pocket","from":"2031-09-20T12:00:00-01:00","to":"2031-09-20T12:01:00-01:00","evSet":7.64,"points":[14.8,14.8],"isoHeadroomStops":4}],"stacks":[{"id":"ND8","stops":3.05},{"id":"ND32","stops":4.87},{"id":"ND8 + ND32","stops":7.92}],"start":{"pocket":"ND8"}}`,
		"plan.0.stack", "plan.1.stack", "swaps.0.because", "cost")
	// Output:
	// plan.0.stack ND8
	// plan.1.stack ND8 + ND32
	// swaps.0.because 12:00 swap ND8 for ND8 + ND32, for noon walk: 3.8 stops over tolerance otherwise; ND8 + ND32: 0.8 stops under on average; last shot on ND8 ends 07:22
	// cost 1.097
}

func Example_remeter() {
	show("remeter", `{"bench":{"cameraId":"pocket","camera":"Pocket","optics":{"aperture":2,"isoBase":100,"isoCeiling":200},"rig":{},"kit":[{"id":"ND8","stops":3.05,"kind":"nd"},{"id":"ND32","stops":4.87,"kind":"nd"}]},"shot":{"id":"noon","look":{"fps":"25","target":"180°"},"choices":{}},"on":["ND32"],"shutterS":0.02,"light":{"kind":"bias","at":{"bias":"-2","glass":["ND32"]}},"planned":{"ev100":12.5,"spreadStops":0.5,"generalEv100":12.2}}`,
		"ev100", "serves", "words", "against", "change.filters.0", "change.words", "anchorEv100")
	// Output:
	// ev100 10.51
	// serves breaks
	// words 1.0 stops under at highest ISO
	// against −2.0 stops from the forecast EV 12.5, more than its ±0.7
	// change.filters.0 ND8
	// change.words covered, 0.2 stops under
	// anchorEv100 10.21
}

func Example_passage() {
	show("passage", `{"optics":{"aperture":2.8,"isoBase":100,"isoCeiling":800},"shutterS":0.01,"fps":50,"glassStops":5,"looseStops":5,"outsideEv100":14.6,"dark":"lit-tunnel","lengthM":80,"speedMps":10}`,
		"insideEv100", "seconds", "ways.0.words", "ways.1.title", "ways.1.words", "take", "ways.3.words")
	// Output:
	// insideEv100 5.907
	// seconds 8
	// ways.0.words Inside 8.7 stops under for 8 s, hardly visible; exit correct.
	// ways.1.title Auto ISO 100–800
	// ways.1.words Shutter locked; inside 5.7 stops under at ISO 800; exit 3.0 stops over until auto exposure recovers.
	// take two-takes
	// ways.3.words Stop or land first, then change. Inside, no filter: 0.7 stops under at 1/100, ISO 800. Neither end is over.
}
