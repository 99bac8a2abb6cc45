package measure

import (
	"math"
	"testing"
)

func TestChannelsOfAJPEGAreNotRounded(t *testing.T) {
	tests := []struct {
		y, cb, cr uint8
		r, g, b   float64 // codes
	}{
		{0, 128, 128, 0, 0, 0},
		{100, 128, 128, 100, 100, 100},
		{255, 128, 128, 255, 255, 255},
		{100, 129, 128, 100, 99.655864, 101.772},
		{100, 128, 127, 98.598, 100.714136, 100},
		{250, 128, 255, 255, 159.304728, 250}, // red is more than there is
		{3, 0, 128, 3, 47.049408, 0},
	}
	for _, test := range tests {
		r, g, b := channels(test.y, test.cb, test.cr)
		for i, got := range []uint16{r, g, b} {
			if want := []float64{test.r, test.g, test.b}[i]; math.Abs(float64(got)/perCode-want) > 0.5/perCode+1e-9 {
				t.Errorf("%d %d %d: channel %d is %v codes, want %v", test.y, test.cb, test.cr, i, float64(got)/perCode, want)
			}
		}
	}
}

// Codes whose luma lies half-way go up, each of them.
func TestLumaHalfWayGoesUp(t *testing.T) {
	halves := 0
	for r := range uint16(256) {
		for g := range uint16(256) {
			b := 224
			parts := 2126*int(r) + 7152*int(g) + 722*b
			if parts%10000 != 5000 {
				continue
			}
			halves++
			if got, want := lumaCode(r*perCode, g*perCode, uint16(b)*perCode), (parts+5000)/10000; got != want {
				t.Errorf("%d %d %d lies in bin %d, want %d", r, g, b, got, want)
			}
		}
	}
	if halves == 0 {
		t.Fatal("none of them lies half-way")
	}
	if got := lumaCode(math.MaxUint16, math.MaxUint16, math.MaxUint16); got != 255 {
		t.Errorf("white lies in bin %d", got)
	}
}
