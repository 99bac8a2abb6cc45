package stop

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
)

func TestThreeLanguagesOfGlass(t *testing.T) {
	tests := []struct {
		stops           Stops
		factor, density float64
	}{
		{FromFactor(16), 16, 1.2041199826559248},
		{FromDensity(0.9), 7.943282347242816, 0.9},
		{FromFactor(1000), 1000, 3},
		{0, 1, 0},
	}
	for _, test := range tests {
		if !near(test.stops.Factor(), test.factor, exact) || !near(test.stops.Density(), test.density, exact) {
			t.Errorf("%v stops is factor %v, density %v, want %v and %v", float64(test.stops), test.stops.Factor(), test.stops.Density(), test.factor, test.density)
		}
	}
}

// Bright sun is f/16 at the reciprocal of the film speed, a rule older than
// meters; as an exposure value it is EV 14.6 to 15.
func TestSunnySixteen(t *testing.T) {
	ev := Setting{Aperture: 16, Shutter: 1.0 / 100, ISO: 100}.EV()
	if ev < 14.6 || ev > 15 {
		t.Errorf("f/16, 1/100, ISO 100 is %v", ev)
	}
	if lux := ev.Lux(); lux < 60_000 || lux > 80_000 {
		t.Errorf("that is %v lux, not what the sun gives", lux)
	}
}

func TestSettingAndItsShutterAgree(t *testing.T) {
	s := Setting{Aperture: 2.8, Shutter: 1.0 / 50, ISO: 200}
	if got := ShutterFor(s.Aperture, s.ISO, s.EV()); !near(got.Seconds(), s.Shutter.Seconds(), exact) {
		t.Errorf("ShutterFor(EV of %v) = %v", s, got.Seconds())
	}
}

func TestExactRate(t *testing.T) {
	tests := map[float64]float64{
		23.976: 24000.0 / 1001, 23.98: 24000.0 / 1001, 29.97: 30000.0 / 1001, 59.94: 60000.0 / 1001, 119.88: 120000.0 / 1001,
		24: 24, 25: 25, 30: 30, 60: 60, 12.5: 12.5,
	}
	for given, want := range tests {
		if got := ExactRate(given); float64(got) != want {
			t.Errorf("ExactRate(%v) = %v, want %v", given, float64(got), want)
		}
	}
	for text, rate := range map[string]FrameRate{"23.976": ExactRate(23.976), "59.94": ExactRate(59.94), "25": 25, "12.5": 12.5} {
		if rate.String() != text {
			t.Errorf("%v is written %q, want %q", float64(rate), rate.String(), text)
		}
	}
}

func TestSnap(t *testing.T) {
	steps := []Shutter{1.0 / 24, 1.0 / 25, 1.0 / 30, 1.0 / 50, 1.0 / 60, 1.0 / 100}
	tests := []struct {
		name  string
		ideal Shutter
		fps   FrameRate
		want  Shutter
		off   Stops
	}{
		{"1/48 is missing, 1/50 stands in and is darker", 1.0 / 48, 24, 1.0 / 50, -0.0588936890535686},
		{"a step is itself", 1.0 / 60, 24, 1.0 / 60, 0},
		{"steps longer than a frame are passed over", 1.0 / 30, 60, 1.0 / 60, -1},
		{"a still may use every step", 1.0 / 20, 0, 1.0 / 24, -0.2630344058337938},
	}
	for _, test := range tests {
		got, ok := Snap(test.ideal, steps, test.fps)
		if !ok || got.Offered != test.want || !near(float64(got.Off), float64(test.off), 1e-9) {
			t.Errorf("%s: Snap = %+v, %v", test.name, got, ok)
		}
	}
	if _, ok := Snap(1.0/100, []Shutter{1.0 / 25}, 50); ok {
		t.Error("Snap found a possible step where there is none")
	}
	if got, ok := Snap(1.0/48, nil, 24); !ok || got.Offered != 1.0/48 {
		t.Error("without steps the camera offers any time")
	}
}

func TestSnapIsIdempotent(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	for range 2000 {
		steps := make([]Shutter, 1+random.IntN(12))
		for i := range steps {
			steps[i] = Shutter(math.Exp2(-15 * random.Float64()))
		}
		once, ok := Snap(Shutter(math.Exp2(-15*random.Float64())), steps, 0)
		twice, _ := Snap(once.Offered, steps, 0)
		if !ok || twice.Offered != once.Offered || twice.Off != 0 {
			t.Fatalf("Snap to %v gives %v, then %v", steps, once.Offered, twice.Offered)
		}
	}
}

func TestSpoken(t *testing.T) {
	for given, want := range map[Shutter]string{1.0 / 625: "1/640", 1.0 / 312.5: "1/320", 1.0 / 50: "1/50", 1.3: "1.3s", 0.3469: "0.4s", 0.693: "0.8s", 1.0 / 78: "1/80", 600: "600s"} {
		if got := given.Spoken(); got != want {
			t.Errorf("%v s is spoken %q, want %q", given.Seconds(), got, want)
		}
	}
}

// What is there is never said to be nothing.
func TestAnAmountIsNotNothing(t *testing.T) {
	for s, want := range map[Stops]string{0: "0.0 stops", 0.001: "less than 0.1 stops", 0.049: "less than 0.1 stops", 0.05: "0.1 stops", 1.25: "1.2 stops"} {
		if got := s.Amount(); got != want {
			t.Errorf("%g is %q, want %q", float64(s), got, want)
		}
	}
}

func TestWordsForStops(t *testing.T) {
	for s, want := range map[Stops]string{1.0 / 3: "third of a stop", 0.5: "half stop", 2.0 / 3: "two thirds of a stop", 1: "stop", 1.5: "1.5 stops"} {
		if got := s.Fraction(); got != want {
			t.Errorf("Fraction(%v) = %q, want %q", float64(s), got, want)
		}
	}
	for s, want := range map[Stops]string{0.31: "+0.3", -0.04: "0.0", -1.25: "−1.2"} {
		if got := s.Signed(); got != want {
			t.Errorf("Signed(%v) = %q, want %q", float64(s), got, want)
		}
	}
}

func ExampleSnap() {
	fps := ExactRate(24)
	s, _ := Snap(Angle(180).At(fps), []Shutter{1.0 / 30, 1.0 / 50, 1.0 / 60}, fps)
	fmt.Printf("wanted %v, offered %v (%v), %.3f stops\n", s.Ideal, s.Offered, s.Offered.Angle(fps), float64(s.Off))
	// Output: wanted 1/48, offered 1/50 (173°), -0.059 stops
}

func TestISOInThirds(t *testing.T) {
	for i, want := range map[ISO]ISO{100: 100, 171: 160, 141: 125, 1250: 1250, 1280: 1250, 51: 50, 30: 32, 25: 25, 12800: 12800, 26000: 25600, 1e6: 1024000} {
		if got := i.Third(); got.Over(want).Abs() > 0.2 {
			t.Errorf("%v in thirds is %v, want about %v", i, got, want)
		}
	}
	for i := ISO(1); i < 1e7; i *= 1.07 {
		if got := i.Third(); got.Over(i).Abs() > 0.23 || got.Third() != got {
			t.Errorf("%v in thirds is %v, and that %v", i, got, got.Third())
		}
	}
}

// Camera scales run in thirds and print one decimal.
func TestBiasIsInThirds(t *testing.T) {
	for text, want := range map[string]float64{"+0.7": 2.0 / 3, "−0,3": -1.0 / 3, "-1.3": -4.0 / 3, "2.7": 8.0 / 3, "+1": 1, "0.5": 0.5, "0": 0, "-2": -2, "0.67": 0.67} {
		if got, err := ParseBias(text); err != nil || math.Abs(float64(got)-want) > 1e-9 {
			t.Errorf("a bias of %s is %v, %v, want %v", text, float64(got), err, want)
		}
	}
}
