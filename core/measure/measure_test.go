package measure

import (
	"bytes"
	"fmt"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"gonum.org/v1/gonum/dsp/fourier"

	"pinhole/core/exif"
	"pinhole/core/stop"
)

// drawn returns a PNG of 16 bits whose light at each pixel is given.
func drawn(t testing.TB, width, height int, light func(x, y int) float64) File {
	t.Helper()
	m := image.NewNRGBA64(image.Rect(0, 0, width, height))
	for y := range height {
		for x := range width {
			v := light(x, y)
			code := 1.055*math.Pow(v, 1/2.4) - 0.055 // the other way than decoded
			if v <= 0.0031308 {
				code = 12.92 * v
			}
			c := uint16(math.Round(65535 * min(max(code, 0), 1)))
			m.SetNRGBA64(x, y, color.NRGBA64{c, c, c, 65535})
		}
	}
	var out bytes.Buffer
	if err := png.Encode(&out, m); err != nil {
		t.Fatal(err)
	}
	return File{Name: "drawn.png", Bytes: out.Bytes()}
}

func run[T any](t testing.TB, name string, in Input) T {
	t.Helper()
	o, _ := Named(name)
	answer, err := o.Run(in)
	if err != nil {
		t.Fatal(err)
	}
	return answer.(T)
}

func files(option string, all ...File) map[string][]File { return map[string][]File{option: all} }

// Percentiles are those of sorted numbers.
func TestPercentilesAreThoseOfSortedLight(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for range 50 {
		n := 1 + random.IntN(400)
		l := newLights(n)
		var all []float64
		for range n {
			v := float64(float32(random.ExpFloat64()))
			if random.IntN(5) == 0 {
				v = 0
			}
			all = append(all, v)
			l.add(v)
		}
		slices.Sort(all)
		for _, q := range []float64{0.01, 0.3, 0.5, 0.99, 1} {
			want := all[int(math.Ceil(q*float64(n)))-1]
			if got := l.percentile(q); got != want {
				t.Fatalf("the %v of %d is %v, want %v", q, n, got, want)
			}
		}
	}
}

// A frame that is a stop brighter everywhere is advised a stop darker.
func TestAStopMoreIsAStopLessAdvised(t *testing.T) {
	frame := func(factor float64) *FrameAnswer {
		file := drawn(t, 96, 64, func(x, y int) float64 { return factor * (0.02 + 0.2*float64(x)/96) })
		return run[*FrameAnswer](t, "frame", Input{Files: files("file", file)})
	}
	a, b := frame(1), frame(2)
	if got := float64(*a.AdviceStops - *b.AdviceStops); math.Abs(got-1) > 1e-3 {
		t.Errorf("twice the light changes the advice by %v", got)
	}
	sum := 0
	for _, n := range a.Histogram.Luma {
		sum += n
	}
	if sum != 96*64 || a.Bars != nil || a.Zebra.Rows != 11 {
		t.Errorf("%d pixels are counted, bars %v, %d rows", sum, a.Bars, a.Zebra.Rows)
	}
}

// Every orientation shows the same picture the way up it was taken.
func TestATurnedPictureIsTheSame(t *testing.T) {
	upright := &picture{orientation: 1, width: 3, height: 2, rgb: make([]uint16, 18)}
	for i := range upright.rgb {
		upright.rgb[i] = uint16(i / 3)
	}
	// Where each pixel of the file is shown (Exif 2.32): rows, then columns, of the file.
	want := map[int][]uint16{
		1: {0, 1, 2, 3, 4, 5}, 2: {2, 1, 0, 5, 4, 3}, 3: {5, 4, 3, 2, 1, 0}, 4: {3, 4, 5, 0, 1, 2},
		5: {0, 3, 1, 4, 2, 5}, 6: {3, 0, 4, 1, 5, 2}, 7: {5, 2, 4, 1, 3, 0}, 8: {2, 5, 1, 4, 0, 3},
	}
	for orientation, shown := range want {
		p := &picture{orientation: 1, width: 3, height: 2, rgb: slices.Clone(upright.rgb)}
		p.turn(orientation)
		var got []uint16
		for i := 0; i < len(p.rgb); i += 3 {
			got = append(got, p.rgb[i])
		}
		if !slices.Equal(got, shown) {
			t.Errorf("orientation %d shows %v, want %v", orientation, got, shown)
		}
	}
}

// A filter of any strength is found, however the camera made up for it; swapped exposures are
// seen through, and a closing frame halves what drifting light does.
func TestAFilterIsFound(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 4))
	for range 12 {
		cuts := random.Float64() * 8
		grain := func(level float64) File {
			return drawn(t, 96, 64, func(_, _ int) float64 { return level * (1 + 0.02*random.NormFloat64()) })
		}
		made := math.Round(cuts)
		in := Input{
			Files: map[string][]File{"without": {grain(0.2)}, "with": {grain(0.2 * math.Exp2(made-cuts))}},
			Texts: map[string][]string{"without-exposure": {"1/8000 iso100"}, "with-exposure": {fmt.Sprintf("%.9fs iso100", math.Exp2(made)/8000)}},
		}
		a := run[*FilterAnswer](t, "filter", in)
		if len(a.Refused) > 0 || math.Abs(float64(*a.Stops)-cuts) > 0.02 || len(a.Cast) > 0 {
			t.Errorf("a filter of %.3f stops: %v, cast %v, refused %v", cuts, a.Stops, a.Cast, a.Refused)
		}
	}
}

// Light that drifts steadily costs nothing where it is known when each frame was taken.
func TestASessionsDriftIsTakenOff(t *testing.T) {
	const cuts, drift = 3.0, -0.36 // stops, over the whole session
	level := func(at, filter float64) File {
		return drawn(t, 96, 64, func(x, _ int) float64 { return 0.3 * math.Exp2(at*drift-filter) * (1 + 0.001*float64(x%7)) })
	}
	for _, at := range []float64{0, 0.2, 0.5, 0.9, 1} {
		in := Input{
			Files: map[string][]File{"without": {level(0, 0), level(1, 0)}, "with": {level(at, cuts)}},
			Texts: map[string][]string{"without-exposure": {"1/500 iso100"}, "with-exposure": {"1/500 iso100"}, "share": {fmt.Sprint(at)}},
		}
		a := run[*FilterAnswer](t, "filter", in)
		if a.Stops == nil || math.Abs(float64(*a.Stops)-cuts) > 0.005 || math.Abs(float64(*a.DriftStops)+drift) > 0.01 {
			t.Errorf("at %v: %+v", at, a)
		}
		delete(in.Texts, "share")
		if off := float64(*run[*FilterAnswer](t, "filter", in).Stops) - cuts; math.Abs(off-(0.5-at)*drift) > 0.005 {
			t.Errorf("at %v, not told: off by %v, want %v", at, off, (0.5-at)*drift)
		}
	}
}

// A picture that was decoded elsewhere is read as the file it came from.
func TestDecodedPixelsAreReadAsTheirFile(t *testing.T) {
	file := drawn(t, 64, 48, func(x, y int) float64 { return float64(x+y) / 112 })
	shown, _ := png.Decode(bytes.NewReader(file.Bytes))
	pixels := &Pixels{Width: 64, Height: 48}
	for y := range 48 {
		for x := range 64 {
			r, g, b, _ := shown.At(x, y).RGBA()
			pixels.RGBA = append(pixels.RGBA, byte(r/257), byte(g/257), byte(b/257), 255)
		}
	}
	set := stop.Setting{Aperture: 2.8, Shutter: 0.01, ISO: 200}
	direct := run[*FrameAnswer](t, "frame", Input{Files: files("file", file)})
	decoded := run[*FrameAnswer](t, "frame", Input{Files: files("file", File{Name: "x.heic", Bytes: exif.Block(set), Pixels: pixels})})
	if math.Abs(float64(*direct.MeanStops-*decoded.MeanStops)) > 0.02 || decoded.File.Exposure == nil || decoded.File.Exposure.ISO != 200 {
		t.Errorf("%v against %v, exposed %+v", *decoded.MeanStops, *direct.MeanStops, decoded.File.Exposure)
	}
	for _, p := range []*Pixels{{}, {Width: 64, Height: 48}, {Width: -64, Height: -48, RGBA: pixels.RGBA}, {Width: 1 << 40, Height: 1 << 40}} {
		o, _ := Named("frame")
		if _, err := o.Run(Input{Files: files("file", File{Name: "x", Pixels: p})}); err == nil {
			t.Errorf("%d × %d of %d bytes are read", p.Width, p.Height, len(p.RGBA))
		}
	}
}

func TestPeaksAreNamedByTheMotor(t *testing.T) {
	for _, test := range []struct {
		rpm, hz float64
		blades  int
		want    PeakOf
	}{
		{6000, 100, 2, OfMotor}, {6000, 109, 2, OfMotor}, {6000, 112, 2, ""}, {6000, 300, 3, OfBlades}, {6000, 200, 3, OfMotorDouble},
		{6000, 200, 1, OfMotorDouble}, {6000, 610, 3, OfBladesTwice}, {6000, 2, 3, ""}, {0, 100, 3, ""},
	} {
		if got := (motor{test.rpm, test.blades}).named(test.hz); got != test.want {
			t.Errorf("%+v is %q", test, got)
		}
	}
	a := run[*GyroAnswer](t, "gyro", Input{Files: files("file", shakes(1000, 10, "s", map[float64]float64{122: 5})), Texts: map[string][]string{"motor-rpm": {"3660"}, "blades": {"2"}}})
	if len(a.Peaks) == 0 || a.Peaks[0].Of != OfBlades {
		t.Errorf("%+v", a.Peaks)
	}
}

// The more veil, the higher its grade, and none below what is told apart.
func TestVeilIsGraded(t *testing.T) {
	last := 0.0
	for v := -0.2; v < 0.3; v += 0.001 {
		g := grade(v)
		if g < last || g > 3 {
			t.Fatalf("a veil of %v is graded %v after %v", v, g, last)
		}
		last = g
	}
	if grade(0.004) != 0 || grade(0.01) != 1 || grade(0.03) != 2 || last != 3 {
		t.Errorf("%v %v %v %v", grade(0.004), grade(0.01), grade(0.03), last)
	}
}

// Two readings of the automatic are worth what their ranges leave open.
func TestReadingsAddTheirRanges(t *testing.T) {
	a := run[*FilterAnswer](t, "filter", Input{Texts: map[string][]string{
		"without-reading": {"1/1000 iso100", "1/500..1/250 iso100"}, "with-reading": {"1/125 iso100", "1/60 iso100"},
	}})
	if want := (3 + math.Log2(500/math.Sqrt2/60)) / 2; math.Abs(float64(*a.Stops)-want) > 1e-9 {
		t.Errorf("%v stops, want %v", *a.Stops, want)
	}
	third, half := 1./6, 0.5
	if want := math.Sqrt((3*third*third+half*half)/3) / 2; math.Abs(float64(*a.StdErrorStops)-want) > 1e-9 {
		t.Errorf("±%v, want %v", *a.StdErrorStops, want)
	}
}

// An even filter darkens no corner; a ring that does is found where it begins.
func TestAnEvenFilterHasNoCorners(t *testing.T) {
	even := drawn(t, 160, 90, func(_, _ int) float64 { return 0.3 })
	darker := drawn(t, 160, 90, func(_, _ int) float64 { return 0.1 })
	a := run[*CornersAnswer](t, "corners", Input{Files: map[string][]File{"without": {even}, "with": {darker}}})
	if len(a.Refused) > 0 || math.Abs(float64(*a.CornerStops)) > 0.01 || *a.Crooked {
		t.Errorf("%+v", a)
	}
	half := math.Hypot(80, 45)
	ring := drawn(t, 160, 90, func(x, y int) float64 {
		r := math.Hypot(float64(x)+0.5-80, float64(y)+0.5-45) / half
		return 0.3 * math.Exp2(-4*max(0, r-0.7))
	})
	a = run[*CornersAnswer](t, "corners", Input{Files: map[string][]File{"without": {even}, "with": {ring}}})
	if got := float64(a.StopsAt["90"]); math.Abs(got-0.8) > 0.05 {
		t.Errorf("%v stops at nine tenths, want 0.8", got)
	}
}

// The MTF of an edge blurred by a Gaussian is that of the Gaussian.
func TestTheMTFOfAGaussianEdge(t *testing.T) {
	for _, sigma := range []float64{0.7, 1.2, 2} {
		for _, level := range []bool{false, true} {
			edge := func(sigma float64) File {
				return drawn(t, 240, 240, func(x, y int) float64 {
					if level {
						x, y = y, x
					}
					d := (float64(x) - 120 - (float64(y)-120)*0.09) / math.Sqrt(1+0.09*0.09)
					return 0.05 + 0.4*0.5*(1+math.Erf(d/(sigma*math.Sqrt2)))
				})
			}
			a := run[*SharpnessAnswer](t, "sharpness", Input{Files: map[string][]File{"without": {edge(0.6)}, "with": {edge(sigma)}}})
			if len(a.Refused) > 0 {
				t.Fatalf("σ %v: %v", sigma, a.Refused)
			}
			if want := gaussianPerMTF / sigma; math.Abs(a.With.MTF50Cpp/want-1) > 0.04 {
				t.Errorf("σ %v, level %v: MTF50 %v, want %v", sigma, level, a.With.MTF50Cpp, want)
			}
		}
	}
}

// shakes writes a log of sinusoids, after a second at rest.
func shakes(hz float64, seconds float64, unit string, of map[float64]float64) File {
	per := map[string]float64{"s": 1, "ms": 1e3, "us": 1e6}[unit]
	var out strings.Builder
	fmt.Fprintf(&out, "time (%s),gyro_x (deg/s),gyro_y (deg/s),gyro_z (deg/s)\n", unit)
	for i := range int(seconds * hz) {
		t := float64(i) / hz
		v := 0.3
		if t > 1 {
			for f, amplitude := range of {
				v += amplitude * math.Sin(2*math.Pi*f*t)
			}
		}
		fmt.Fprintf(&out, "%.4f,%.5f,%.5f,%.5f\n", t*per, v, 0.1, -0.2)
	}
	return File{Name: "gyro.csv", Bytes: []byte(out.String())}
}

// What swings at known frequencies is found, apart from what was intended, in any unit.
func TestAShakeIsFound(t *testing.T) {
	for _, unit := range []string{"s", "ms", "us"} {
		a := run[*GyroAnswer](t, "gyro", Input{Files: files("file", shakes(500, 21, unit, map[float64]float64{0.2: 30, 12: 20, 90: 5}))})
		if len(a.Refused) > 0 || !a.BiasKnown || math.Abs(a.BiasDegS.X-0.3) > 0.01 {
			t.Fatalf("in %s: %+v", unit, a.Findings)
		}
		if len(a.Peaks) < 2 || math.Abs(a.Peaks[0].Hz-12) > 0.1 || math.Abs(float64(a.Peaks[0].DegS)-20) > 1 || math.Abs(a.Peaks[1].Hz-90) > 0.1 {
			t.Errorf("in %s the peaks are %v", unit, a.Peaks)
		}
		var fast []float64 // counted out; a second of 21 is at rest
		for i := range 20 * 500 {
			at := 2 * math.Pi * float64(i) / 500
			fast = append(fast, math.Abs(20*math.Sin(12*at)+5*math.Sin(90*at)))
		}
		fast = append(fast, make([]float64, 500)...)
		slices.Sort(fast)
		if want := quantile(fast, 0.9); math.Abs(float64(*a.ShakeDegS)-want) > 0.03*want {
			t.Errorf("in %s it shakes by %v, want about %v", unit, *a.ShakeDegS, want)
		}
		if want := 30 * math.Sin(81*math.Pi/180); math.Abs(float64(*a.IntendedDegS)-want) > 3 {
			t.Errorf("in %s %v are intended, want about %v", unit, *a.IntendedDegS, want)
		}
	}
}

// The power of a spectrum is the variance of what it is of (Parseval).
func TestTheSpectrumHoldsAllOfTheShake(t *testing.T) {
	random := rand.New(rand.NewPCG(5, 6))
	e := &evenLog{step: 1. / 200, inGap: make([]bool, 8000)}
	variance := 0.0
	for k := range e.axes {
		for range 8000 {
			v := random.NormFloat64() * float64(k+1)
			e.axes[k] = append(e.axes[k], v)
			variance += v * v / 8000
		}
	}
	power, _ := welch(e, 800)
	sum := 0.0
	for _, p := range power {
		sum += p * 200 / 800
	}
	if math.Abs(sum/variance-1) > 0.05 {
		t.Errorf("the spectrum holds %v of %v", sum, variance)
	}
}

// A log says the same in subtitles and in a table, with a comma or a point.
func TestALogSaysTheSameInEveryForm(t *testing.T) {
	var srt, csv, semicolons strings.Builder
	csv.WriteString("time (ms),shutter,iso,aperture,ev\n")
	semicolons.WriteString("t_s;exposure time (ms);gain;f;bias\n")
	comma := func(v float64) string { return strings.Replace(fmt.Sprintf("%.4f", v), ".", ",", 1) }
	for i := range 90 {
		shutter := 100 + 8*i
		fmt.Fprintf(&srt, "%d\n00:00:%02d,%03d --> 00:00:%02d,%03d\n<font>[iso: 100] [shutter: 1/%d.0] [fnum: 280] [ev: 0.3] [latitude: 38.4] [longitude: -20.5]</font>\n\n", i+1, i/2, i%2*500, (i+1)/2, (i+1)%2*500, shutter)
		fmt.Fprintf(&csv, "%d,%d,100,2.8,0.3\n", i*500, shutter)
		fmt.Fprintf(&semicolons, "%s;%s;100;2,8;0,3\n", comma(float64(i)/2), comma(1000/float64(shutter)))
	}
	var first *TelemetryAnswer
	for _, body := range []string{srt.String(), csv.String(), "\uFEFF" + semicolons.String()} {
		a := run[*TelemetryAnswer](t, "telemetry", Input{Files: files("file", File{Name: "log", Bytes: []byte(body)}), Texts: map[string][]string{"target": {"1/200"}}})
		if first == nil {
			first = a
		}
		if a.Used != 90 || math.Abs(*a.WithinShare-*first.WithinShare) > 1e-6 || math.Abs(float64(a.EV100.P50-first.EV100.P50)) > 1e-3 ||
			a.Shutter.Mode != ModeAutomatic || a.ISO.Mode != ModeLocked || len(a.Excursions) != len(first.Excursions) {
			t.Errorf("%s says %+v", a.Format, a)
		}
	}
	if first.Bounds == nil || first.Bounds.West != -20.5 {
		t.Errorf("it was at %+v", first.Bounds)
	}
}

// What cannot be read is refused by the option it was given as, whatever it is.
func TestHostileFilesAreRefused(t *testing.T) {
	huge := []byte("\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR\x7f\xff\xff\xff\x7f\xff\xff\xff\x08\x02\x00\x00\x00\x00\x00\x00\x00")
	whole := sampleFile(t, "soft.jpg").Bytes
	for _, o := range Operations() {
		for name, body := range map[string][]byte{
			"nothing": {}, "zeros": make([]byte, 4000), "a size that lies": huge, "cut short": whole[:len(whole)/2],
			"one line": []byte("time,x,y,z"), "text": []byte("good evening"), "quotes": []byte(`a,"b` + strings.Repeat("x", 1000)),
		} {
			in := Input{Files: map[string][]File{}, Texts: map[string][]string{}}
			for _, p := range o.Options {
				if p.IsFile && (p.Required || p.Name == "without" || p.Name == "with") {
					in.Files[p.Name] = []File{{Name: "x", Bytes: body}, {Name: "y", Bytes: body}, {Name: "z", Bytes: body}}[:map[bool]int{true: 3, false: 1}[p.Many]]
				}
			}
			if o.Name == "filter" || o.Name == "curve" {
				for _, side := range []string{"without", "with", "frame"} {
					if len(in.Files[side]) > 0 {
						in.Texts[side+"-exposure"] = []string{"1/100 iso100"}
					}
				}
			}
			if answer, err := o.Run(in); err == nil {
				t.Errorf("%s of %s is answered: %+v", o.Name, name, answer)
			}
		}
	}
}

// Turns that no gyro says are skipped, and do not swallow the rest.
func TestImpossibleTurnsAreSkipped(t *testing.T) {
	file := shakes(200, 8, "s", map[float64]float64{5: 10})
	file.Bytes = append(file.Bytes, "8.0,1e308,-1e308,0\n8.005,1e300,0,0\n"...)
	a := run[*GyroAnswer](t, "gyro", Input{Files: files("file", file)})
	if a.Skipped != 2 || a.ShakeDegS == nil || *a.ShakeDegS > 12 {
		t.Errorf("%d skipped, shake %v", a.Skipped, a.ShakeDegS)
	}
}

func FuzzTelemetry(f *testing.F) {
	for _, name := range []string{"log-locked.srt", "log-limit.csv", "talk.srt"} {
		f.Add(sampleFile(f, name).Bytes[:400])
	}
	f.Fuzz(func(t *testing.T, body []byte) {
		o, _ := Named("telemetry")
		answer, err := o.Run(Input{Files: files("file", File{Name: "x", Bytes: body})})
		if a, ok := answer.(*TelemetryAnswer); err == nil && ok && a.Used > a.Rows {
			t.Errorf("%d of %d rows are used", a.Used, a.Rows)
		}
	})
}

func FuzzGyro(f *testing.F) {
	for _, name := range []string{"gyro0.csv", "gyro1.csv", "gyro2.csv"} {
		f.Add(sampleFile(f, name).Bytes[:400])
	}
	f.Fuzz(func(t *testing.T, body []byte) {
		o, _ := Named("gyro")
		answer, err := o.Run(Input{Files: files("file", File{Name: "x", Bytes: body}), Texts: map[string][]string{"rate-unit": {"deg/s"}}})
		if a, ok := answer.(*GyroAnswer); err == nil && ok && len(a.Refused) == 0 && a.ShakeDegS == nil {
			t.Error("neither measured nor refused")
		}
	})
}

func FuzzFrame(f *testing.F) {
	for _, name := range []string{"grey.png", "soft.jpg", "turned6.jpg"} {
		f.Add(sampleFile(f, name).Bytes)
	}
	f.Fuzz(func(t *testing.T, body []byte) {
		o, _ := Named("frame")
		answer, err := o.Run(Input{Files: files("file", File{Name: "x", Bytes: body})})
		if a, ok := answer.(*FrameAnswer); err == nil && ok && len(a.Refused) == 0 && a.AdviceStops == nil {
			t.Error("neither measured nor refused")
		}
	})
}

// A frame of twelve megapixels, beside its decoding alone.
func BenchmarkFrame12MP(b *testing.B) {
	m := image.NewNRGBA(image.Rect(0, 0, 4000, 3000))
	random := rand.New(rand.NewPCG(7, 8))
	for i := range m.Pix {
		m.Pix[i] = uint8(128 + 40*random.NormFloat64())
	}
	var out bytes.Buffer
	if err := jpeg.Encode(&out, m, nil); err != nil {
		b.Fatal(err)
	}
	b.Run("frame", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			run[*FrameAnswer](b, "frame", Input{Files: files("file", File{Name: "x", Bytes: out.Bytes()})})
		}
	})
	b.Run("baseline-decode", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			if _, err := jpeg.Decode(bytes.NewReader(out.Bytes())); err != nil {
				b.Fatal(err)
			}
		}
	})
}

// Ten minutes at a kilohertz, beside the FFT alone.
func BenchmarkGyro10Min(b *testing.B) {
	file := shakes(1000, 600, "ms", map[float64]float64{3: 20, 40: 5})
	b.Run("gyro", func(b *testing.B) {
		b.ReportAllocs()
		for b.Loop() {
			run[*GyroAnswer](b, "gyro", Input{Files: files("file", file)})
		}
	})
	b.Run("baseline-fft", func(b *testing.B) {
		fft, values := fourier.NewFFT(4000), make([]float64, 4000)
		var bins []complex128
		for b.Loop() {
			for range 3 * 299 {
				bins = fft.Coefficients(bins, values)
			}
		}
	})
}
