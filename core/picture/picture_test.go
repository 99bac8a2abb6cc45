package picture

import (
	"bytes"
	"image"
	"math"
	"runtime"
	"sync"
	"testing"

	"pinhole/core/angle"
	"pinhole/core/motion"
	"pinhole/core/stop"
)

func lane() View {
	return View{
		Width: 640, Height: 360, Lens: motion.Lens{WidthPx: 3840, HFOV: 72, Projection: motion.Rectilinear},
		Movement: motion.Movement{SpeedMps: 4, DistanceM: 3, OffAxis: 90}, Rate: 25, Seed: 7,
	}
}

func draw(v View, i int, e Exposure) *image.RGBA {
	dst := image.NewRGBA(image.Rect(0, 0, v.Width, v.Height))
	NewLoop(v).Frame(i, e, dst)
	return dst
}

func TestTheSameSeedDrawsTheSamePicture(t *testing.T) {
	e := Exposure{Shutter: 1. / 50, Gain: 2}
	a, b := draw(lane(), 3, e), draw(lane(), 3, e)
	if !bytes.Equal(a.Pix, b.Pix) {
		t.Error("two drawings of one view differ")
	}
	other := lane()
	other.Seed++
	if bytes.Equal(a.Pix, draw(other, 3, e).Pix) {
		t.Error("another seed draws the same picture")
	}
}

// coverage returns how much of each pixel of one row the stems cover.
func coverage(v View, s stop.Shutter) []float64 {
	l := NewLoop(v)
	row := make([]rgb, v.Width)
	below := eyeHeight - stemHeight/2 // in the middle of the stems
	l.vine(row, line{y: l.horizon + below/l.view.subjectMetres*l.fPx, t: s})
	covered := make([]float64, v.Width)
	for x := range row {
		covered[x] = row[x][0] / stemTint[0]
	}
	return covered
}

// The blur in the drawing, measured at the edges of the stems, is that of the
// model: an edge blurred by b pixels rises over b pixels.
func TestBlurInThePictureIsThatOfTheModel(t *testing.T) {
	const within = 0.1
	for _, speed := range []float64{1.5, 3, 5} {
		for _, s := range []stop.Shutter{1. / 60, 1. / 100, 1. / 200} {
			v := lane()
			v.Width, v.Lens.WidthPx, v.Movement.SpeedMps = 3840, 3840, speed
			rising := 0.0
			edges := 0
			covered := coverage(v, s)
			for x, c := range covered[1:] {
				if c > 0.001 && c < 0.999 {
					rising++
				}
				if before := covered[x]; (before < 0.5) != (c < 0.5) {
					edges++
				}
			}
			want := motion.BlurPx(v.Lens, v.Movement, s)
			if got := rising / float64(edges); edges == 0 || math.Abs(got/want-1) > within {
				t.Errorf("at %v m/s and %v: %d edges of %.1f px, want %.1f", speed, s, edges, got, want)
			}
		}
	}
}

// Blur moves light, it neither makes nor takes any.
func TestBlurKeepsTheLight(t *testing.T) {
	total := func(s stop.Shutter) float64 {
		sum := 0.0
		for _, v := range exposed(NewLoop(lane()), 0, s).light {
			sum += float64(v)
		}
		return sum
	}
	sharp, blurred := total(1e-5), total(1./50)
	if math.Abs(blurred/sharp-1) > 0.02 { // what slides into the frame is not what slides out
		t.Errorf("light goes from %v to %v", sharp, blurred)
	}
}

// plain gathers the same light the long way: many moments of no duration.
func plain(l *Loop, from float64, s stop.Shutter, moments int) *film {
	sum := newFilm(l.view.Width, l.view.Height)
	for m := range moments {
		at := from + s.Seconds()*(float64(m)+0.5)/float64(moments)
		for i, v := range exposed(l, at, 1e-9).light {
			sum.light[i] += v / float32(moments)
		}
	}
	return sum
}

func TestTheIntegralAgreesWithManyMoments(t *testing.T) {
	v := lane()
	v.Width, v.Height = 320, 180
	l := NewLoop(v)
	s := stop.Shutter(1. / 50)
	fast, slow := exposed(l, 0, s), plain(l, 0, s, 64)
	off := 0.0
	for i := range fast.light {
		off += math.Abs(float64(fast.light[i] - slow.light[i]))
	}
	// They differ where a blurred layer covers another that moves, and nowhere else.
	if off /= float64(len(fast.light)); off > 0.01 {
		t.Errorf("the mean difference is %.4f of light", off)
	}
}

func TestExposureDoublesLightAStop(t *testing.T) {
	v := lane()
	linear := func(e stop.Stops) float64 {
		code := float64(draw(v, 0, Exposure{Shutter: 1e-4, Error: e}).RGBAAt(320, 350).R) / 255
		return math.Pow((code+0.055)/1.055, 2.4)
	}
	if ratio := linear(0) / linear(-1); math.Abs(ratio-2) > 0.15 { // noise, and 256 codes
		t.Errorf("a stop more light comes out %.2f times as bright", ratio)
	}
	bright := draw(v, 0, Exposure{Shutter: 1e-4, Error: 4})
	if c := bright.RGBAAt(320, 20); c.R != 255 || c.G != 255 || c.B != 255 {
		t.Errorf("four stops over the sky is %v, not clipped", c)
	}
}

func TestNoiseGrowsWithISO(t *testing.T) {
	spread := func(gain stop.Stops) float64 {
		clean, noisy := draw(lane(), 0, Exposure{Shutter: 1e-4, Gain: -60}), draw(lane(), 0, Exposure{Shutter: 1e-4, Gain: gain})
		sum := 0.0
		for i := range clean.Pix {
			d := float64(clean.Pix[i]) - float64(noisy.Pix[i])
			sum += d * d
		}
		return math.Sqrt(sum / float64(len(clean.Pix)))
	}
	if low, high := spread(0), spread(4); high < 2.5*low {
		t.Errorf("four stops of ISO take noise from %.2f to %.2f codes", low, high)
	}
}

// A box of length b spreads one bright pixel over what it reaches of each other.
func TestSmoothingByABox(t *testing.T) {
	const within = 1e-5
	for _, length := range []float64{0, 0.4, 1, 2.5, 7.3} {
		for _, turned := range []bool{false, true} {
			f := newFilm(41, 41)
			f.light[3*(20*41+20)] = 1
			if turned {
				out := newFilm(f.width, f.height)
				f.smoothColumns(newBox(length), out)
				f = out
			} else {
				f.smoothRows(newBox(length))
			}
			for i := range 41 {
				at := 20*41 + i
				if turned {
					at = i*41 + 20
				}
				half, x := (1+length)/2, float64(i-20)
				want := max(0, min(half, x+0.5)-max(-half, x-0.5)) / (2 * half)
				if got := float64(f.light[3*at]); math.Abs(got-want) > within {
					t.Errorf("a box of %v, turned %v: %v at %v, want %v", length, turned, got, x, want)
				}
			}
		}
	}
}

func TestWobbleRippleAndGhostingFollowTheModel(t *testing.T) {
	v := lane()
	v.Vibration = &motion.Vibration{Hz: 200, Peak: 0.2, ReadoutS: 0.012}
	v.Lamp, v.ReadoutS = &motion.Lamp{PulseHz: 100, Depth: 1}, 0.012
	v.Shake = angle.DegPerS(40)
	const s = stop.Shutter(1. / 300)
	px, _ := v.wobble(s)
	if want := v.Vibration.WobblePx(v.Lens, s) / 2 / 6; math.Abs(px-want) > 1e-9 {
		t.Errorf("wobble of %v px in the drawing, want %v", px, want)
	}
	if got, want := v.shakeBlurPx(s), (motion.Shake{Stabiliser: motion.Electronic, Rate: 40}).BlurPx(v.Lens, s)/6; math.Abs(got-want) > 1e-9 {
		t.Errorf("shake of %v px, want %v", got, want)
	}
	most := 0.0
	for y := range v.Height {
		most = max(most, v.ripple(s, 3, float64(y))-1)
	}
	if want := v.Lamp.Ripple(s); math.Abs(most-want) > 0.02 {
		t.Errorf("ripple of %v, want %v", most, want)
	}
	if v.ripple(1./100, 3, 17) > 1+1e-9 {
		t.Error("a whole pulse ripples")
	}
}

// A loop ends where it began: what passes has moved by whole periods.
func TestTheLoopCloses(t *testing.T) {
	l := NewLoop(lane())
	s := l.slideOf(3, vineSpacing, 0, Frames/25.0, 1./50)
	if turns := s.shift / s.period; math.Abs(turns-math.Round(turns)) > 1e-9 || turns < 1 {
		t.Errorf("a loop moves the vines by %v periods", turns)
	}
}

// exposed is the film of the first frame, opened at an instant.
func exposed(l *Loop, from float64, t stop.Shutter) *film {
	f := l.film()
	l.expose(f, 0, from, t)
	return f
}

func BenchmarkLoop640x360x16(b *testing.B) {
	v := lane()
	v.Shake, v.ShiftsFrames = 30, true
	e := Exposure{Shutter: 1. / 50, Gain: 2}
	dst := image.NewRGBA(image.Rect(0, 0, v.Width, v.Height))
	b.Run("loop", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			l := NewLoop(v)
			for i := range Frames {
				l.Frame(i, e, dst)
			}
		}
	})
	b.Run("loop-on-all-cores", func(b *testing.B) {
		for b.Loop() {
			l := NewLoop(v)
			var cores sync.WaitGroup
			for core := range runtime.GOMAXPROCS(0) {
				cores.Go(func() {
					frame := image.NewRGBA(dst.Rect)
					for i := core; i < Frames; i += runtime.GOMAXPROCS(0) {
						l.Frame(i, e, frame)
					}
				})
			}
			cores.Wait()
		}
	})
	// The baseline: one frame of the sixteen, light gathered moment by moment.
	b.Run("baseline-one-frame-in-16-moments", func(b *testing.B) {
		b.ReportAllocs()
		l := NewLoop(v)
		for b.Loop() {
			plain(l, 0, e.Shutter, 16)
		}
	})
}

// Every ground and the hands are seen, each otherwise than the field; hands that ride along do
// not blur however fast the scene passes.
func TestGroundsAndHandsAreSeen(t *testing.T) {
	mean := func(f *film, from, to int) (sum float64) {
		for _, v := range f.light[3*from*f.width : 3*to*f.width] {
			sum += float64(v) / float64(3*(to-from)*f.width)
		}
		return sum
	}
	v := lane()
	seen := map[float64]Ground{}
	for _, g := range []Ground{Field, Road, Water, Pale, Snow} {
		v.Ground = g
		f := exposed(NewLoop(v), 0, 1./50)
		light := math.Round(1e4 * mean(f, v.Height*3/4, v.Height))
		if other, twice := seen[light]; twice {
			t.Errorf("the grounds %v and %v look alike", other, g)
		}
		seen[light] = g
	}
	v.Ground, v.HasHands = Road, true
	v.Movement.SpeedMps = 30
	slow, fast := exposed(NewLoop(v), 0, 1./2000), exposed(NewLoop(v), 0, 1./30)
	y := int(barAt * float64(v.Height))
	for i, dark := range slow.row(y)[3*v.Width/2-9 : 3*v.Width/2] {
		if other := fast.row(y)[3*v.Width/2-9+i]; math.Abs(float64(dark-other)) > 1e-3 || dark > 0.05 {
			t.Fatalf("the bar is %v at 1/2000 and %v at 1/30", dark, other)
		}
	}
}
