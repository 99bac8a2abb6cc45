package light

import (
	"errors"
	"math"
	"strings"
	"testing"

	"pinhole/core/stop"
)

func TestParseWritten(t *testing.T) {
	f2 := stop.Setting{Aperture: 2, Shutter: 1.0 / 1250, ISO: 50}
	tests := []struct {
		text string
		want Written
	}{
		{"f2 1/1250 iso50", Written{Form: AsSetting, Setting: f2}},
		{"ISO 50  1/1250  F/2", Written{Form: AsSetting, Setting: f2}},
		{"f/ 2 1250 iso 50", Written{Form: AsSetting, Setting: f2}},
		{"1/1250 iso50", Written{Form: AsSetting, Setting: stop.Setting{Shutter: 1.0 / 1250, ISO: 50}}},
		{"EV 14.3", Written{Form: AsEV, EV: 14.3}},
		{"2 1/1250 50", Written{Form: AsSetting, Setting: f2}},
		{"f2 iso50 1250", Written{Form: AsSetting, Setting: f2}},
		{"f2 1250 50", Written{Form: AsSetting, Setting: f2}},
		{"f 2, 1/1250, ISO 50", Written{Form: AsSetting, Setting: f2}},
		{"1/1250 @ f/2 iso50", Written{Form: AsSetting, Setting: f2}},
		{"1250", Written{Form: AsSetting, Setting: stop.Setting{Shutter: 1.0 / 1250}}},
		{"14,3", Written{Form: AsEV, EV: 14.3}},
		{"-2", Written{Form: AsEV, EV: -2}},
		{"LV 14.3", Written{Form: AsEV, EV: 14.3}},
		{"EV 14.3 at ISO 100", Written{Form: AsEV, EV: 14.3}},
		{"90 000 lux", Written{Form: AsLux, Lux: 90000}},
		{"14,3 ev", Written{Form: AsEV, EV: 14.3}},
		{"EV -2", Written{Form: AsEV, EV: -2}},
		{"6400 lux", Written{Form: AsLux, Lux: 6400}},
		{"6.4klx", Written{Form: AsLux, Lux: 6400}},
		{"120lx", Written{Form: AsLux, Lux: 120}},
		{"bias +0.7", Written{Form: AsBias, Bias: 0.7}},
		{"bias −1", Written{Form: AsBias, Bias: -1}},
	}
	for _, test := range tests {
		if got, err := ParseWritten(test.text); err != nil || got != test.want {
			t.Errorf("ParseWritten(%q) = %+v, %v, want %+v", test.text, got, err, test.want)
		}
	}
}

func TestParseWrittenRefuses(t *testing.T) {
	tests := map[string]error{
		"": ErrReading, "sunny": ErrReading, "f2 1/": ErrReading, "f0.1 1/50": ErrReading, strings.Repeat("1", 200): ErrReading, "ev": ErrReading, "lux": ErrReading,
		"f2 f4 1/50": ErrTwice, "EV 14 1/50": ErrTwice, "EV 14 iso400": ErrTwice, "2 1/50 1/60": ErrTwice, "1/50 1/60": ErrTwice,
		"EV 41": ErrReach, "0 lux": ErrReach, "-5 lux": ErrReach, "bias 11": ErrReach,
	}
	for text, want := range tests {
		_, err := ParseWritten(text)
		var parse *stop.ParseError
		if !errors.Is(err, want) || !errors.As(err, &parse) {
			t.Errorf("ParseWritten(%q) gives %v, want a ParseError with cause %v", text, err, want)
		}
	}
}

// A locked camera that shows no bias has found what a meter finds.
func TestBiasAndSettingAgree(t *testing.T) {
	s := stop.Setting{Aperture: 2.8, Shutter: 1.0 / 100, ISO: 200}
	if a, b := FromBias(s, 3, 0), FromSetting(s, 3); a != b {
		t.Errorf("%+v and %+v", a, b)
	}
	if brighter := FromBias(s, 3, 1); brighter.EV-FromBias(s, 3, 0).EV != 1 {
		t.Error("a picture one stop too bright is not one stop more light")
	}
}

func FuzzParseWritten(f *testing.F) {
	for _, text := range []string{"f2 1/1250 iso50", "EV 14.3", "6.4 klx", "bias +0.7", "1/50", "ev ev", "f2 iso", "0 lux"} {
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		w, err := ParseWritten(text)
		if err != nil {
			return
		}
		for _, v := range []float64{float64(w.EV), w.Lux, float64(w.Bias), float64(w.Setting.Shutter), float64(w.Setting.Aperture), float64(w.Setting.ISO)} {
			if math.IsNaN(v) || math.IsInf(v, 0) {
				t.Fatalf("ParseWritten(%q) = %+v", text, w)
			}
		}
		if w.Form == "" {
			t.Fatalf("ParseWritten(%q) has no form", text)
		}
	})
}
