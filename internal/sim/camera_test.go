package sim

import (
	"bytes"
	"image/png"
	"pinhole/core/assemble"
	"testing"

	"pinhole/core/glass"
	"pinhole/core/stop"
)

func pointed(ev stop.EV, moves glass.Moves) CameraRequest {
	return CameraRequest{
		Camera:  assemble.Camera{Aperture: 2.8, ISOBase: 100, ISOCeiling: 1600, FastestS: 1. / 8000},
		Profile: &assemble.CameraProfile{Automatic: &assemble.AutomaticProfile{Priority: moves}}, FPS: "25", EV100: ev, GlassStops: 3,
	}
}

// What the simulated camera shows, read back as a reading, is the light it was
// pointed at.
func TestCameraReadsBack(t *testing.T) {
	for _, moves := range []glass.Moves{glass.ShutterFirst, glass.ISOFirst} {
		r := pointed(13, moves)
		a, err := Camera(r)
		if err != nil {
			t.Fatal(err)
		}
		shutter, err1 := stop.ParseShutter(a.Shutter, 25)
		iso, err2 := stop.ParseISO(a.ISO)
		if err1 != nil || err2 != nil {
			t.Fatal(err1, err2)
		}
		back := stop.Setting{Aperture: 2.8, Shutter: shutter, ISO: iso}.EV().Plus(3)
		if off := back.Above(13); off.Abs() > 0.01 || !a.Simulated || a.Moves != moves {
			t.Errorf("%s first: %+v reads as %v", moves, a, back)
		}
	}
	r := pointed(13, glass.ShutterFirst)
	r.Profile = nil
	if a, err := Camera(r); err != nil || a.Moves != glass.ShutterFirst {
		t.Errorf("without a profile: %+v, %v", a, err)
	}
	r.FPS = "often"
	if _, err := Camera(r); err == nil {
		t.Error("a frame rate of often was taken")
	}
}

func TestTestFrameComesOutAsExposed(t *testing.T) {
	mean := func(ev stop.EV) int {
		file, err := TestFrame(pointed(ev, glass.ShutterFirst))
		if err != nil {
			t.Fatal(err)
		}
		frame, err := png.Decode(bytes.NewReader(file))
		if err != nil {
			t.Fatal(err)
		}
		sum, n := 0, 0
		for y := 0; y < frame.Bounds().Dy(); y += 5 {
			for x := 0; x < frame.Bounds().Dx(); x += 5 {
				_, g, _, _ := frame.At(x, y).RGBA()
				sum += int(g >> 8)
				n++
			}
		}
		return sum / n
	}
	// In reach of the automatic two lights look alike; far beyond it they do not.
	bright, dim, night := mean(15), mean(12), mean(-3)
	if bright-dim > 12 || dim-bright > 12 || night > dim/2 {
		t.Errorf("test frames of mean %d, %d and %d", bright, dim, night)
	}
}
