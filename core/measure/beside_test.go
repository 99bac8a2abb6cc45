package measure

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"

	"pinhole/core/angle"
	"pinhole/core/assemble"
	"pinhole/core/request"
	"pinhole/core/stop"
	"pinhole/core/take"
)

// meant is a handheld shot at 1/50 with an activity that shakes by 15 °/s or so, under no lamps.
const meant = `{"camera":{"aperture":2,"isoBase":100,"isoCeiling":1600,"steps":[0.02,0.01]},"kit":[],
	"look":{"fps":"25","target":"180°"},"light":{"kind":"meter","at":{"text":"EV 8"}},
	"profile":{"lens":{"widthPx":320,"hfovDeg":70,"projection":"rectilinear"},"stabiliser":"%s","readoutS":0.016},
	"scene":{"shakeDegS":%v}}`

func besideOf(t *testing.T, stabiliser string, shake float64, known take.Request, a take.Answer) map[Demand]Beside {
	t.Helper()
	asked, err := request.Decode[assemble.ShotRequest]([]byte(fmt.Sprintf(meant, stabiliser, shake)))
	if err != nil {
		t.Fatal(err)
	}
	all, err := besides(&asked, known, &a)
	if err != nil {
		t.Fatal(err)
	}
	by := map[Demand]Beside{}
	for _, b := range all {
		by[b.Of] = b
	}
	return by
}

func TestAClipBesideItsShot(t *testing.T) {
	at := func(share, se, shake float64) take.Answer {
		a := take.Answer{FPS: 25}
		a.Shutter.Share, a.Shutter.SE = &share, se
		degS := angle.DegPerS(shake)
		a.Shake.DegS, a.Shake.SE = &degS, 0.3
		none := 0.0
		a.Flicker.Depth, a.Ghost.BlurPx = &none, &none
		return a
	}
	known := take.Request{ShutterS: 1. / 50}
	tests := []struct {
		name, stabiliser string
		shake            float64
		a                take.Answer
		of               Demand
		agrees           string
		words            string
	}{
		{"as meant", "none", 15, at(0.48, 0.03, 15), OfShutter, "true", "1/50, as meant"},
		{"on automatic", "none", 15, at(0.21, 0.02, 15), OfShutter, "false", "1/119, not 1/50"},
		{"the same shake", "none", 15, at(0.5, 0.03, 14), OfShake, "true", "measured before"},
		{"more shake", "none", 15, at(0.5, 0.03, 24), OfShake, "false", "24 °/s, not the 15"},
		{"held later", "post", 15, at(0.5, 0.03, 24), OfShake, "false", "the stabiliser limit is 1/"},
		{"held while it is recorded", "electronic", 15, at(0.5, 0.03, 2), OfShake, "<nil>", "before a clip shows it"},
		{"ghosting was to be feared", "electronic", 40, at(0.5, 0.03, 2), OfGhosting, "false", "no ghosting, although"},
		{"it stood still", "none", 15, at(0.5, 0.03, 15), OfExposure, "true", "stood still"},
	}
	for _, test := range tests {
		b, ok := besideOf(t, test.stabiliser, test.shake, known, test.a)[test.of]
		agrees := "<nil>"
		if b.Agrees != nil {
			agrees = fmt.Sprint(*b.Agrees)
		}
		if !ok || agrees != test.agrees || !strings.Contains(b.Words, test.words) {
			t.Errorf("%s: %s, %q; want %s, %q", test.name, agrees, b.Words, test.agrees, test.words)
		}
	}
	starved := at(0.2, 0.02, 15)
	starved.Shutter.AtLeast = true
	if b := besideOf(t, "none", 15, known, starved)[OfShutter]; b.Agrees != nil || !strings.Contains(b.Words, "at least") {
		t.Errorf("a starved clip: %+v", b)
	}
	unknown := at(0.5, 0.03, 15)
	unknown.Shutter.Share = nil
	if b := besideOf(t, "none", 15, known, unknown)[OfShutter]; b.Agrees != nil || b.Measured != nil {
		t.Errorf("what cannot be told: %+v", b)
	}
	depth, beat := 0.3, 10.0
	lit := at(0.5, 0.03, 15)
	lit.Flicker.Depth, lit.Flicker.BeatHz = &depth, &beat
	if b := besideOf(t, "none", 15, known, lit)[OfLamps]; b.Agrees == nil || *b.Agrees {
		t.Errorf("lamps nobody spoke of: %+v", b)
	}
}

// The surer a clip is, the less it may be off before it no longer agrees; never the other way.
func TestAgreementFollowsTheError(t *testing.T) {
	for _, off := range []float64{0, 0.02, 0.05, 0.1, 0.2, 0.4} {
		last := false
		for _, se := range []float64{0.005, 0.02, 0.05, 0.1, 0.3} {
			share := 0.5 + off
			a := take.Answer{FPS: 25}
			a.Shutter.Share, a.Shutter.SE = &share, se
			b := besideShutter(&take.Request{ShutterS: 1. / 50}, &a)
			if last && !*b.Agrees {
				t.Errorf("off by %v: agrees no more at ±%v", off, se)
			}
			last = *b.Agrees
			if math.Abs(*b.Measured-share/25) > 1e-12 {
				t.Errorf("measured %v of a share of %v", *b.Measured, share)
			}
		}
	}
}

// A shutter that the camera chose speaks of the light: twice as fast is a stop more than the
// setting suits.
func TestAShutterSpeaksOfTheLight(t *testing.T) {
	suits := stop.EV(13)
	share := 0.25
	a := take.Answer{FPS: 25}
	a.Shutter.Share, a.Shutter.SE = &share, 0.01
	b := besideShutter(&take.Request{ShutterS: 1. / 50, SuitsEV: &suits}, &a)
	if b.Light == nil || math.Abs(float64(b.Light.EV100)-14) > 1e-9 || b.Light.Spread < 0.4 {
		t.Errorf("%+v", b.Light)
	}
	share = 0.5
	if b := besideShutter(&take.Request{ShutterS: 1. / 50, SuitsEV: &suits}, &a); b.Light != nil {
		t.Errorf("a shutter as meant speaks of %+v", b.Light)
	}
}

// A whole clip goes through the table of operations, with its shot and without.
func TestATakeIsAnOperation(t *testing.T) {
	var clip bytes.Buffer
	clip.WriteString("YUV4MPEG2 W128 H64 F25:1 Cmono XCOLORRANGE=FULL\n")
	for i := range 12 {
		clip.WriteString("FRAME\n")
		for p := range 128 * 64 {
			clip.WriteByte(byte(80 + (p*7919+p/128*31+i*17)%90))
		}
	}
	in := Input{Files: files("file", File{Name: "x.y4m", Bytes: clip.Bytes()}), Texts: map[string][]string{"request": {`{"shutterS":0.02}`}}}
	if a := run[*TakeAnswer](t, "take", in); a.Frames != 12 || a.Beside != nil || a.Shutter.Share != nil {
		t.Errorf("%+v", a)
	}
	in.Files["shot"] = []File{{Name: "shot.json", Bytes: []byte(fmt.Sprintf(meant, "none", 15))}}
	if a := run[*TakeAnswer](t, "take", in); len(a.Beside) < 2 {
		t.Errorf("%+v", a.Beside)
	}
	o, _ := Named("take")
	in.Files["shot"][0].Bytes = []byte(`{"look":{"fps":"x"}}`)
	if _, err := o.Run(in); err == nil {
		t.Error("a shot that cannot be read is taken")
	}
	if text, err := json.Marshal(run[*TakeAnswer](t, "take", Input{Files: files("file", File{Bytes: clip.Bytes()})})); err != nil || strings.Contains(string(text), "NaN") {
		t.Errorf("%.200s, %v", text, err)
	}
}
