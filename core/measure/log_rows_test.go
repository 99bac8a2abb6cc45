package measure

import (
	"math"
	"testing"
)

func TestWordsOfACue(t *testing.T) {
	tests := []struct {
		text         string
		shutter, iso float64 // NaN where nothing is read
	}{
		{"[iso : 100] [shutter : 1/500.0]", 1. / 500, 100},
		{"ISO: 200, Shutter: 500, F: 2.8", 1. / 500, 200},
		{"Gain = 400; exposure-time = 0.002s", 1. / 500, 400},
		{"Gain: 400 Exposure Time: 12.5 ms F: 2.8", 1. / 80, 400},
		{"exposure time: 12,5 ms iso: 100", 1. / 80, 100},
		{"tv: 250us iso: 100", 1. / 4000, 100},
		{"shutter: 2 s ISO: 100", 2, 100},
		{`ss: 2" iso: 100`, 2, 100},
		{"ss: 2 sec. iso: 100", 2, 100},
		{"iso: 100 ss: 1/50", 1. / 50, 100},
		{"iso: 100 shutter speed: 1/50", 1. / 50, 100},
		{"shutter: 180° iso: 100", math.NaN(), 100},
		{"tv: 172.8 deg iso: 100", math.NaN(), 100},
		{"tv: 172.8deg iso: 100", math.NaN(), 100},
		{"shutter: auto iso: auto", math.NaN(), math.NaN()},
	}
	same := func(a, b float64) bool { return math.Abs(a-b) < 1e-9 || math.IsNaN(a) && math.IsNaN(b) }
	for _, test := range tests {
		r := emptyRow()
		r.takeWords(test.text)
		if !same(r.shutter, test.shutter) || !same(r.iso, test.iso) {
			t.Errorf("%s: %v s at ISO %v, want %v at %v", test.text, r.shutter, r.iso, test.shutter, test.iso)
		}
	}
}
