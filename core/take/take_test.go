package take

import (
	"bytes"
	"compress/gzip"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"
)

func near(t *testing.T, what string, got, want, most float64) {
	t.Helper()
	if !(math.Abs(got-want) <= most) {
		t.Errorf("%s: %.4f, want %.4f ±%.4f", what, got, want, most)
	}
}

func measured(t *testing.T, c *Clip, r Request) *Answer {
	t.Helper()
	a, err := Measure(c, r)
	if err != nil {
		t.Fatal(err)
	}
	return a
}

// hand is a camera in a hand that pans: its speed changes.
func hand(t float64) (x, y float64) {
	return 2.5*t + 9*math.Sin(t/3.1) + 2*math.Sin(1.3*t), 5*math.Sin(t/4.3+1) + math.Sin(1.1*t)
}

// Clips whose truth stands beside them.
func TestClipsWithTruth(t *testing.T) {
	read := func(name string) *Answer {
		t.Helper()
		file, err := os.Open("testdata/" + name + ".y4m.gz")
		if err != nil {
			t.Fatal(err)
		}
		defer file.Close()
		unpacked, err := gzip.NewReader(file)
		if err != nil {
			t.Fatal(err)
		}
		c, err := ReadY4M(unpacked)
		if err != nil {
			t.Fatal(err)
		}
		return measured(t, c, Request{HFOVDeg: 70})
	}
	walk := read("hand-180")
	near(t, "share of hand-180", *walk.Shutter.Share, 0.5, 0.1)
	near(t, "its blur", *walk.Ghost.BlurPx, 2.95, 0.25*2.95)
	near(t, "its first shift", walk.Motion.Pairs[0].DxPx, -1.77, 0.15)
	if walk.Ghost.Stabilised || *walk.Flicker.Depth != 0 || *walk.Wobble.Px != 0 || *walk.Strobe.Strobes || len(walk.Duplicates)+len(walk.Drops) > 0 {
		t.Errorf("hand-180: %+v", walk)
	}
	pan := read("start-stop")
	near(t, "share of start-stop", *pan.Shutter.Share, 0.9, 0.13)
	jumps := read("repeats")
	if !slices.Equal(jumps.Duplicates, []int{7, 15}) || !slices.Equal(jumps.Drops, []int{20}) {
		t.Errorf("repeats %v, drops %v", jumps.Duplicates, jumps.Drops)
	}
}

// The share is found however long the shutter was open, played forth or back.
func TestSharesOfAMovingHand(t *testing.T) {
	for _, share := range []float64{0.1, 0.5, 0.9} {
		c := made{frames: 20, share: share, fps: 25, path: hand, seed: 3}.clip()
		a := measured(t, c, Request{HFOVDeg: 70})
		if a.Shutter.Share == nil {
			t.Errorf("share %v cannot be told: %s", share, a.Shutter.Why)
			continue
		}
		near(t, fmt.Sprintf("share %v, ±%.3f", share, a.Shutter.SE), *a.Shutter.Share, share, 0.05+0.1*share)
		near(t, "in errors", (*a.Shutter.Share-share)/a.Shutter.SE, 0, 3.5)
		if share != 0.5 {
			continue
		}
		slices.Reverse(c.Frames)
		back := measured(t, c, Request{BitsPerFrame: 5000})
		near(t, "backwards", *back.Shutter.Share, *a.Shutter.Share, 0.03+0.06*share)
		if !back.Shutter.AtLeast {
			t.Error("a starved clip is taken at its word")
		}
	}
}

// A cut says nothing of the shutter, and its two pictures are still told.
func TestACut(t *testing.T) {
	c := made{frames: 22, share: 0.5, fps: 25, path: hand, seed: 3}.clip()
	c.Frames = append(c.Frames, c.Frames[:14]...) // as in a loop: far back at once
	a := measured(t, c, Request{HFOVDeg: 70})
	if !slices.Equal(a.Cuts, []int{22}) {
		t.Errorf("cuts %v", a.Cuts)
	}
	if a.Shutter.Share == nil {
		t.Fatalf("%+v", a.Shutter)
	}
	near(t, "share", *a.Shutter.Share, 0.5, 0.1)
}

// A pan at one speed is told by the gaps in its spectrum.
func TestASteadyPan(t *testing.T) {
	a := measured(t, made{frames: 12, share: 0.6, fps: 25, path: func(t float64) (float64, float64) { return 13 * t, 0 }, seed: 4, waves: 2500}.clip(), Request{ShutterS: 1. / 50})
	if a.Shutter.Share == nil || a.Shutter.By != ByNulls {
		t.Fatalf("%+v", a.Shutter)
	}
	near(t, "share", *a.Shutter.Share, 0.6, 0.03+0.06)
	near(t, "expected", *a.Shutter.Expected, 0.5, 1e-9)
	near(t, "step", *a.Strobe.StepPx, 13, 0.3)
}

// What cannot be told is not told: a still, a flat wall, a clip that was held still afterwards.
func TestWhatCannotBeTold(t *testing.T) {
	shaken := func(t float64) (float64, float64) { return 7 * math.Sin(t*0.9), 6 * math.Sin(t*0.7+1) }
	for name, m := range map[string]made{
		"still":      {frames: 10, share: 0.5, path: func(float64) (float64, float64) { return 0, 0 }},
		"flat":       {frames: 10, share: 0.5, path: hand, flat: true},
		"stabilised": {frames: 20, share: 0.9, path: shaken, back: func(i int) (float64, float64) { return shaken(float64(i)) }},
	} {
		m.fps, m.seed = 25, 5
		a := measured(t, m.clip(), Request{HFOVDeg: 70})
		if a.Shutter.Share != nil || a.Shutter.Why == "" {
			t.Errorf("%s: %+v", name, a.Shutter)
		}
		if name == "flat" && a.Ghost.BlurPx != nil {
			t.Errorf("a flat wall has %v px of blur", *a.Ghost.BlurPx)
		}
		if isHeld := name == "stabilised"; a.Ghost.Stabilised != isHeld {
			t.Errorf("%s: ghost %+v", name, a.Ghost)
		}
	}
}

// Lamps that pulse, rows that bend and an automatic that pumps are told by size and number.
func TestWavesAndSteps(t *testing.T) {
	still := func(t float64) (float64, float64) { return 0.3 * t, 0.1 * t }
	const readout, lamp, motor = 0.016, 100.0, 118.0
	lit := made{frames: 20, share: 0.2, fps: 30, path: still, seed: 6, gain: func(i int, row float64) float64 {
		return 1 + 0.2*math.Cos(2*math.Pi*lamp*(float64(i)/30+row*readout))
	}}
	a := measured(t, lit.clip(), Request{ReadoutS: readout, MainsHz: 50})
	near(t, "depth", *a.Flicker.Depth, 0.2, 0.024)
	near(t, "beat", *a.Flicker.BeatHz, 10, 0.35)
	near(t, "bands", *a.Flicker.Bands, lamp*readout, 0.2)
	near(t, "pulse", *a.Flicker.PulseHz, lamp, 0.5)
	near(t, "expected beat", *a.Flicker.Expected, 10, 1e-9)
	bent := made{frames: 20, share: 0.1, fps: 25, path: still, seed: 7, bend: func(i int, row float64) float64 {
		return 0.6 * math.Cos(2*math.Pi*motor*(float64(i)/25+row*readout))
	}}
	a = measured(t, bent.clip(), Request{ReadoutS: readout})
	near(t, "wobble", *a.Wobble.Px, 1.2, 0.24)
	near(t, "its bands", *a.Wobble.Bands, motor*readout, 0.25)
	near(t, "its pitch", *a.Wobble.Hz, motor, 0.5)
	if a.Shutter.Share != nil || a.Shutter.Why != WhyVibration {
		t.Errorf("a picture that wobbles: %+v", a.Shutter)
	}
	pumped := made{frames: 20, share: 0.4, fps: 25, path: hand, seed: 8, gain: func(i int, _ float64) float64 {
		return math.Exp2(0.7 / (1 + math.Exp(-float64(i-10))))
	}}
	a = measured(t, pumped.clip(), Request{})
	near(t, "drift", a.Exposure.DriftStops, 0.7, 0.08)
	if len(a.Exposure.Steps) < 2 || a.Exposure.Steps[0].Stops < 0 {
		t.Errorf("steps %v", a.Exposure.Steps)
	}
}

// Times say where the clock jumps; they have to go on.
func TestTimes(t *testing.T) {
	c := made{frames: 12, share: 0.3, path: hand, seed: 9}.clip()
	times := make([]float64, 12)
	for i := range times {
		times[i] = float64(i) / 50
		if i >= 6 {
			times[i] += 0.1
		}
	}
	a := measured(t, c, Request{Times: times})
	near(t, "rate", a.FPS, 50, 1e-6)
	if !slices.Equal(a.Gaps, []int{6}) {
		t.Errorf("gaps %v", a.Gaps)
	}
	times[3] = times[2]
	for name, r := range map[string]Request{"no rate": {}, "too few": {Times: times[:4]}, "standing": {Times: times}} {
		if _, err := Measure(c, r); err == nil {
			t.Errorf("%s is taken", name)
		}
	}
}

// A clip of another size is worked on reduced, and told in its own pixels.
func TestALargerClipIsReduced(t *testing.T) {
	small := made{frames: 10, share: 0.5, fps: 25, path: hand, seed: 10}.clip()
	large := &Clip{Width: 2 * madeWidth, Height: 2 * madeHeight, FPS: 25}
	for _, f := range small.Frames {
		frame := make([]byte, len(f)*4)
		for y := range large.Height {
			for x := range large.Width {
				frame[y*large.Width+x] = f[y/2*madeWidth+x/2]
			}
		}
		large.Frames = append(large.Frames, frame)
	}
	a, b := measured(t, small, Request{HFOVDeg: 70}), measured(t, large, Request{HFOVDeg: 70})
	near(t, "speed", b.Motion.SpeedPx, 2*a.Motion.SpeedPx, 1e-6)
	near(t, "blur", *b.Ghost.BlurPx, 2**a.Ghost.BlurPx, 1e-6)
	near(t, "turn", float64(*b.Motion.TurnDegS), float64(*a.Motion.TurnDegS), 1e-6)
}

const header = "YUV4MPEG2 W128 H64 F25:1 C420jpeg\n"

func TestTornFilesAreRefused(t *testing.T) {
	frame := "FRAME\n" + strings.Repeat("x", 128*64*3/2)
	whole := header + strings.Repeat(frame, FewestFrames)
	if _, err := ReadY4M(strings.NewReader(whole)); err != nil {
		t.Fatal(err)
	}
	for name, file := range map[string]string{
		"nothing": "", "text": "f2 1/500", "few": header + frame, "cut short": whole[:len(whole)-9], "no mark": header + strings.Repeat("x", 100000),
		"ten bits": strings.Replace(whole, "C420jpeg", "C420p10", 1), "huge": "YUV4MPEG2 W999999 H999999 F25:1\n", "negative": "YUV4MPEG2 W-128 H64 F25:1\n",
		"endless header": "YUV4MPEG2 " + strings.Repeat("X", 10000), "no rate": strings.Replace(whole, "25:1", "-1:0", 1),
	} {
		if c, err := ReadY4M(strings.NewReader(file)); err == nil {
			t.Errorf("%s is read as %d × %d, %d frames", name, c.Width, c.Height, len(c.Frames))
		}
	}
}

func FuzzReadY4M(f *testing.F) {
	f.Add([]byte(header + strings.Repeat("FRAME\n"+strings.Repeat("x", 128*64*3/2), FewestFrames)))
	f.Add([]byte("YUV4MPEG2 W128 H64 F0:0 Cmono XCOLORRANGE=FULL\nFRAME Ip\n"))
	f.Fuzz(func(t *testing.T, file []byte) {
		c, err := ReadY4M(bytes.NewReader(file))
		if err != nil {
			return
		}
		for _, frame := range c.Frames {
			if len(frame) != c.Width*c.Height {
				t.Fatalf("%d bytes of %d × %d", len(frame), c.Width, c.Height)
			}
		}
	})
}

// 40 ms a frame is the aim, beside the transforms that cannot be done without.
func BenchmarkTake(b *testing.B) {
	c := made{frames: 50, share: 0.5, fps: 25, path: hand, seed: 3}.clip()
	b.Run("take", func(b *testing.B) {
		for b.Loop() {
			if _, err := Measure(c, Request{HFOVDeg: 70}); err != nil {
				b.Fatal(err)
			}
		}
		b.ReportMetric(float64(b.Elapsed().Milliseconds())/float64(b.N)/50, "ms/frame")
	})
	b.Run("baseline-transforms", func(b *testing.B) {
		t := newTracker(reduced(c))
		for b.Loop() {
			for i := range c.Frames {
				for _, place := range t.places {
					t.cutBlock(t.spectra[0], t.frames[i].encoded, place[0], place[1])
				}
			}
		}
		b.ReportMetric(float64(b.Elapsed().Milliseconds())/float64(b.N)/50, "ms/frame")
	})
}
