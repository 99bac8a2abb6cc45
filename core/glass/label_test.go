package glass

import (
	"errors"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"pinhole/core/stop"
)

func TestParseLabel(t *testing.T) {
	const log2of10 = 3.321928094887362
	tests := []struct {
		text  string
		kind  Kind
		stops float64
		ways  int // further readings
	}{
		// factors
		{"ND16", ND, 4, 0},
		{"nd 16", ND, 4, 0},
		{"16x", ND, 4, 0},
		{"ND1000", ND, 3 * log2of10, 0},
		// stops
		{"4 stop", ND, 4, 0},
		{"4-stop", ND, 4, 0},
		{"-4EV", ND, 4, 0},
		{"ND 6 stops", ND, 6, 0},
		{"10 stop ND", ND, 10, 0},
		{"10-stop ND filter", ND, 10, 0},
		// densities
		{"ND0.9", ND, 0.9 * log2of10, 0},
		{"ND 1.2", ND, 1.2 * log2of10, 0},
		{"OD 1.8", ND, 1.8 * log2of10, 0},
		{"0.9", ND, 0.9 * log2of10, 0},
		{"0.9 ND", ND, 0.9 * log2of10, 0},
		// more than one reading
		{"ND 2.0", ND, 2 * log2of10, 1},
		{"OD 2.0", ND, 2 * log2of10, 0}, // says what it is
		{"8", ND, 3, 1},
		{"ND6", ND, 2.584962500721156, 1},
		// two languages on one ring
		{"ND16 (1.2)", ND, 4, 0},
		{"ND64 (6 stops)", ND, 6, 0},
		{"ND8 (1.2)", ND, 3, 1},
		{"8 (0.9)", ND, 3, 0},
		{"ND64 6 stop", ND, 6, 0},
		{"ND 64 / 6-stop", ND, 6, 0},
		{"ND8 6 stops", ND, 3, 1},
		// with a polariser
		{"ND8/PL", NDPolariser, 3, 0},
		{"ND8-CPL", NDPolariser, 3, 0},
		{"8PL", NDPolariser, 3, 0},
		{"CPL", Polariser, 1.5, 0},
		// variable
		{"VND 1-6", Variable, 1, 0},
		{"ND2-64 VND", Variable, 1, 0},
		{"VND 2-400", Variable, 1, 0},
		{"VND ND8-ND128", Variable, 3, 0},
		{"variable ND2-ND32", Variable, 1, 0},
		{"VND 2-8", Variable, 2, 1},
		// effects
		{"UV", Clear, 0, 0},
		{"clear", Clear, 0, 0},
		{"mist 1/4", Mist, 0.2, 0},
		{"night", Night, 0.6, 0},
		{"GND8", Graduated, 3, 0},
		{"1/4 black mist", Mist, 0.2, 0},
		{"CPL ND64", NDPolariser, 6, 0},
		{"2-5 stops", Variable, 2, 0},
		{"ND2-5", Variable, 2, 1},
		{"gradient ND8", Graduated, 3, 0},
		{"light pollution", Night, 0.6, 0},
		{"ND0,9", ND, 0.9 * log2of10, 0},
		{"ND-4", ND, 2, 1},
		{"GND 0.9", Graduated, 0.9 * log2of10, 0},
		{"soft GND 0.9", Graduated, 0.9 * log2of10, 0},
		{"GND8 hard", Graduated, 3, 0},
	}
	for _, test := range tests {
		l, err := ParseLabel(test.text)
		if err != nil || l.Kind != test.kind || math.Abs(float64(l.Stops)-test.stops) > 1e-9 || len(l.Others) != test.ways {
			t.Errorf("ParseLabel(%q) = %v %v and %d more, %v; want %v %v and %d more", test.text, l.Kind, float64(l.Stops), len(l.Others), err, test.kind, test.stops, test.ways)
		}
	}
}

func TestAmbiguousLabelOffersTheOtherReading(t *testing.T) {
	l, err := ParseLabel("ND 2.0")
	if err != nil || !l.Ambiguous() || l.Others[0].Stops != 1 || l.Others[0].As != "factor 2" {
		t.Errorf("ND 2.0 offers %+v, %v", l.Others, err)
	}
}

func TestTotals(t *testing.T) {
	for text, want := range map[string]stop.Stops{"ND8/PL": 4.5, "GND8": 0, "VND 1-6": 1, "ND8": 3} {
		if l, err := ParseLabel(text); err != nil || l.Total() != want {
			t.Errorf("%q counts %v, %v, want %v", text, l.Total(), err, want)
		}
	}
}

func TestParseLabelRefuses(t *testing.T) {
	tests := map[string]error{
		"": ErrLabel, "dark": ErrLabel, "ND": ErrLabel, "ND-": ErrLabel, "1/60": ErrLabel, "ND 1.2.3": ErrLabel, strings.Repeat("ND8", 30): ErrLabel,
		"21 stop": ErrStrength, "ND0": ErrStrength, "VND 6-1": ErrStrength, "ND 9.5": ErrStrength, "ND99999999999": ErrStrength,
	}
	for text, want := range tests {
		if _, err := ParseLabel(text); !errors.Is(err, want) {
			t.Errorf("ParseLabel(%q) gives %v, want %v", text, err, want)
		}
	}
}

// sameReading is how near two readings of the same text must be, in stops.
const sameReading = 1e-9

func roundTrips(t *testing.T, r Reading) {
	t.Helper()
	l, err := ParseLabel(r.String())
	if err != nil || l.Ambiguous() || l.Kind != r.Kind ||
		math.Abs(float64(l.Stops-r.Stops)) > sameReading || math.Abs(float64(l.Most-r.Most)) > sameReading {
		t.Fatalf("%+v is written %q, which reads as %+v, %v", r, r.String(), l, err)
	}
}

func TestLabelTextRoundTrips(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 4))
	for range 3000 {
		s := stop.Stops(math.Round(random.Float64()*20000) / 1000)
		if random.IntN(2) == 0 {
			s = stop.Stops(random.IntN(11))
		}
		roundTrips(t, Reading{Kind: ND, Stops: s})
		roundTrips(t, Reading{Kind: NDPolariser, Stops: s})
		roundTrips(t, Reading{Kind: Graduated, Stops: s})
		roundTrips(t, Reading{Kind: Variable, Stops: s / 4, Most: s/4 + 3})
	}
	for _, text := range []string{"CPL", "UV", "mist 1/8", "night"} {
		l, err := ParseLabel(text)
		if err != nil {
			t.Fatal(err)
		}
		roundTrips(t, l.Reading)
	}
}

func FuzzParseLabel(f *testing.F) {
	for _, text := range []string{"ND16", "4 stop", "ND 2.0", "ND8/PL", "VND 1-6", "ND2-64 VND", "mist 1/4", "GND 0.9", "ND16 (1.2)", "((", "8PL"} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		l, err := ParseLabel(text)
		if err != nil {
			var parse *stop.ParseError
			if !errors.As(err, &parse) {
				t.Fatalf("ParseLabel(%q) gives %T", text, err)
			}
			return
		}
		for _, r := range append([]Reading{l.Reading}, l.Others...) {
			if !(r.Stops >= 0 && r.Stops <= darkest) {
				t.Fatalf("%q takes %v stops", text, float64(r.Stops))
			}
			roundTrips(t, r)
		}
	})
}

// A kind that no label is read as could be stored by nobody.
func TestEveryKindHasALabel(t *testing.T) {
	labels := map[Kind]string{ND: "ND8", NDPolariser: "ND8/PL", Polariser: "CPL", Variable: "VND 1-6", Graduated: "GND8", Clear: "UV", Mist: "mist 1/4", Night: "night"}
	for _, kind := range Kind("").Values() {
		label, err := ParseLabel(labels[kind])
		if err != nil || label.Kind != kind {
			t.Errorf("%s: the label %q is read as %s, %v", kind, labels[kind], label.Kind, err)
		}
	}
}
