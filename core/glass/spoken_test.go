package glass

import (
	"testing"

	"pinhole/core/stop"
)

// What is said of ISO is what the camera is set to: its own base and ceiling, and thirds
// between them.
func TestISOIsSaidAsItIsSet(t *testing.T) {
	q := &Question{Setting: stop.Setting{ISO: 110}, Ceiling: 720}
	for _, test := range []struct {
		o    Option
		want string
	}{
		{Option{ISO: 110}, "ISO 110"},
		{Option{ISO: 171}, "ISO 160"},
		{Option{ISO: 112}, "ISO 125"},
		{Option{ISO: 719}, "ISO 720"},
		{Option{ISO: 720}, "ISO 720"},
		{Option{ISO: 110, Mode: &Mode{Kind: Lock, ISOLow: 110, ISOHigh: 110}}, "ISO 110"},
		{Option{ISO: 191, Mode: &Mode{Kind: FloatISO, ISOLow: 191, ISOHigh: 239}}, "ISO 200 to 250"},
		{Option{ISO: 191, Mode: &Mode{Kind: FloatISO, ISOLow: 191, ISOHigh: 210}}, "ISO 200"},
		{Option{ISO: 110, Mode: &Mode{Kind: FloatShutter, ISOLow: 110, ISOHigh: 720}}, "ISO up to 720"},
	} {
		if got := test.o.SpokenISO(q); got != test.want {
			t.Errorf("ISO %v, riding %+v: %q, want %q", test.o.ISO, test.o.Mode, got, test.want)
		}
	}
}
