package light

import (
	"math"
	"testing"

	"pinhole/core/stop"
)

// Glass darkens all parts of a frame alike, so what is lost stays lost.
func TestNDDoesNotChangeContrast(t *testing.T) {
	c := Contrast{Subject: 9, Bright: 14, Dark: 3, Headroom: DefaultHeadroom, Depth: DefaultDepth}
	behind := Contrast{Subject: 5, Bright: 10, Dark: -1, Headroom: DefaultHeadroom, Depth: DefaultDepth}
	for _, e := range []ExposeFor{ForSubject, ForBright, Between} {
		if c.LostHighlights(e) != behind.LostHighlights(e) || c.LostShadows(e) != behind.LostShadows(e) {
			t.Errorf("exposed for %s, four stops of glass change what is lost", e)
		}
	}
	if c.Graduated() != behind.Graduated() {
		t.Error("four stops of glass change what graduated glass is wanted")
	}
}

// With graduated glass of that strength over the bright part, exposing for the
// subject loses no highlights.
func TestGraduatedGlassCloses(t *testing.T) {
	c := Contrast{Subject: 9, Bright: 14, Dark: 8, Headroom: DefaultHeadroom, Depth: DefaultDepth}
	c.Bright = c.Bright.Plus(-c.Graduated())
	if lost := c.LostHighlights(ForSubject); lost != 0 {
		t.Errorf("still %v stops lost", lost)
	}
	if aim := c.Aim(Between); math.Abs(float64(aim.Above(stop.EV((9+11.5)/2)))) > 1e-12 {
		t.Errorf("between aims at %v", aim)
	}
}
