package stop

import (
	"errors"
	"math"
	"strings"
	"testing"
)

// exact is the relative difference allowed between two ways to one number.
const exact = 1e-12

func near(got, want, tolerance float64) bool {
	return math.Abs(got-want) <= tolerance*math.Max(1, math.Abs(want))
}

func TestParseShutter(t *testing.T) {
	tests := []struct {
		text string
		fps  FrameRate
		want float64
	}{
		// fractions
		{"1/60", 0, 1.0 / 60},
		{" 1 / 60 ", 0, 1.0 / 60},
		{"1/59.94", 0, 1 / 59.94},
		{"1/60s", 0, 1.0 / 60},
		{"1/8000", 0, 1.0 / 8000},
		// bare numbers: the number under the fraction bar from 1, seconds below
		{"60", 0, 1.0 / 60},
		{"1", 0, 1},
		{"0.5", 0, 0.5},
		{"0,5", 0, 0.5},
		// seconds
		{"0.5s", 0, 0.5},
		{`2"`, 0, 2},
		{"30 sec", 0, 30},
		{"2''", 0, 2},
		{"1/60th", 0, 1.0 / 60},
		{"1/50 second", 0, 1.0 / 50},
		{"20 ms", 0, 1.0 / 50},
		// angles
		{"180°", 25, 1.0 / 50},
		{"172.8deg", 24, 1.0 / 50},
		{"360°", 24, 1.0 / 24},
	}
	for _, test := range tests {
		got, err := ParseShutter(test.text, test.fps)
		if err != nil || !near(got.Seconds(), test.want, exact) {
			t.Errorf("ParseShutter(%q, %v) = %v, %v, want %v", test.text, test.fps, got.Seconds(), err, test.want)
		}
	}
}

func TestParseShutterRefuses(t *testing.T) {
	tests := []struct {
		text string
		fps  FrameRate
		want error
	}{
		{"", 0, ErrSyntax},
		{"fast", 0, ErrSyntax},
		{"1/", 0, ErrSyntax},
		{"1/2/3", 0, ErrSyntax},
		{"-1/60", 0, ErrSyntax},
		{"1e3", 0, ErrSyntax},
		{"NaN", 0, ErrSyntax},
		{strings.Repeat("9", 400), 0, ErrSyntax},
		{"180°", 0, ErrNeedsRate},
		{"0°", 25, ErrRange},
		{"1/0", 0, ErrRange},
		{"0/1", 0, ErrRange},
		{"0/0", 0, ErrRange},
		{"0", 0, ErrRange},
		{"100000s", 0, ErrRange},
	}
	for _, test := range tests {
		_, err := ParseShutter(test.text, test.fps)
		var parse *ParseError
		if !errors.As(err, &parse) || !errors.Is(err, test.want) || parse.Input != test.text {
			t.Errorf("ParseShutter(%q, %v) gives %v, want a ParseError of that input with cause %v", test.text, test.fps, err, test.want)
		}
	}
}

func TestParseOtherQuantities(t *testing.T) {
	if got, err := ParseFNumber(" f/2.8"); got != 2.8 || err != nil {
		t.Errorf("ParseFNumber = %v, %v", got, err)
	}
	if got, err := ParseISO("ISO 400"); got != 400 || err != nil {
		t.Errorf("ParseISO = %v, %v", got, err)
	}
	for _, text := range []string{"T2.8", "f 2.8", "ƒ/2,8", "1:2.8"} {
		if got, err := ParseFNumber(text); got != 2.8 || err != nil {
			t.Errorf("ParseFNumber(%q) = %v, %v", text, got, err)
		}
	}
	for _, text := range []string{"12,800", "12.800", "iso 12 800", "12800"} {
		if got, err := ParseISO(text); got != 12800 || err != nil {
			t.Errorf("ParseISO(%q) = %v, %v", text, got, err)
		}
	}
	if got, err := ParseRate("30000/1001"); !near(float64(got), 30000.0/1001, exact) || err != nil {
		t.Errorf("ParseRate of a file = %v, %v", got, err)
	}
	for text, want := range map[string]float64{"+0.7": 2. / 3, "2/3": 2. / 3, "-1 1/3": -4. / 3, "−1/2 EV": -0.5, "+1ev": 1} {
		if got, err := ParseBias(text); !near(float64(got), want, exact) || err != nil {
			t.Errorf("ParseBias(%q) = %v, %v, want %v", text, float64(got), err, want)
		}
	}
	if got, err := ParseRate("23.98fps"); !near(float64(got), 24000.0/1001, exact) || err != nil {
		t.Errorf("ParseRate = %v, %v", got, err)
	}
	if got, err := ParseRate("still"); got != 0 || err != nil {
		t.Errorf("ParseRate(still) = %v, %v", got, err)
	}
	if got, err := ParseSigned("−0,7"); got != -0.7 || err != nil {
		t.Errorf("ParseSigned = %v, %v", got, err)
	}
	for _, text := range []string{"f0.4", "f65", "", "f"} {
		if _, err := ParseFNumber(text); !errors.Is(err, ErrFNumber) {
			t.Errorf("ParseFNumber(%q) gives %v", text, err)
		}
	}
	for _, text := range []string{"iso0", "iso", "99999999"} {
		if _, err := ParseISO(text); !errors.Is(err, ErrISO) {
			t.Errorf("ParseISO(%q) gives %v", text, err)
		}
	}
	for _, text := range []string{"0", "10001", "fast", "-25"} {
		if _, err := ParseRate(text); !errors.Is(err, ErrRate) {
			t.Errorf("ParseRate(%q) gives %v", text, err)
		}
	}
	for _, text := range []string{"+-1", "--1", "", "x"} {
		if _, err := ParseSigned(text); !errors.Is(err, ErrNumber) {
			t.Errorf("ParseSigned(%q) gives %v", text, err)
		}
	}
}

// promised is what String says of reading its text back.
const promised = 1e-4

func FuzzParseShutter(f *testing.F) {
	for _, text := range []string{"1/60", "60", "1/59.94", "0.5s", `2"`, "180°", "", "1/0", "0.0001"} {
		f.Add(text, 25.0)
	}
	f.Fuzz(func(t *testing.T, text string, fps float64) {
		got, err := ParseShutter(text, FrameRate(fps))
		if err != nil {
			return
		}
		if !(got >= shortest && got <= longest) {
			t.Fatalf("ParseShutter(%q, %v) = %v s, out of reach", text, fps, got.Seconds())
		}
		again, err := ParseShutter(got.String(), 0)
		if err != nil || !near(again.Seconds()/got.Seconds(), 1, promised) {
			t.Fatalf("%q is %v s, written %q, which reads back as %v s, %v", text, got.Seconds(), got.String(), again.Seconds(), err)
		}
	})
}
