package light

import (
	"math"
	"testing"

	"pinhole/core/stop"
)

// The old rule of thumb, f/16 at one over the film speed in bright sun and a stop more for
// each step of cloud, is met by the model to within its own spread and half a stop.
func TestByEyeAgreesWithTheRuleOfThumb(t *testing.T) {
	for _, test := range []struct {
		sight Sight
		want  stop.EV
	}{
		{Sight{Sky: SeenClear, Facing: FromFront}, 15},
		{Sight{Sky: SeenClear, Facing: FromFront, Ground: SnowGround}, 16},
		{Sight{Sky: SeenHazy, Facing: FromFront}, 14},
		{Sight{Sky: SeenOvercast}, 12},
		{Sight{Sky: SeenHeavy}, 11},
		{Sight{Sky: SeenClear, Facing: InShade}, 12},
	} {
		if got := test.sight.Scene(); math.Abs(float64(got.EV-test.want)) > float64(got.Spread)+0.5 {
			t.Errorf("%+v is EV %.1f ±%.1f, by the rule of thumb %.0f", test.sight, float64(got.EV), float64(got.Spread), float64(test.want))
		}
	}
}

// More cloud, less sun on the subject, darker ground and a lower sun are each darker; what is
// said makes the answer surer than what is not.
func TestByEyeIsInOrder(t *testing.T) {
	for _, height := range append(Height("").Values(), "") {
		last := math.Inf(1)
		for _, sky := range Seen("").Values() {
			s := Sight{Sky: sky, Facing: FromFront, Height: height}
			if ev := float64(s.Scene().EV); ev >= last {
				t.Errorf("%+v is EV %.2f, no darker than the sky before it", s, ev)
			} else {
				last = ev
			}
			if said, unsaid := s.Scene().Spread, (Sight{Sky: sky}).Scene().Spread; height != LowSun && said > unsaid {
				t.Errorf("%+v is less sure (%.2f) than without its words (%.2f)", s, float64(said), float64(unsaid))
			}
		}
		front, side, behind := Sight{SeenClear, FromFront, "", height}.Scene().EV, Sight{SeenClear, FromSide, "", height}.Scene().EV, Sight{SeenClear, FromBehind, "", height}.Scene().EV
		if front <= side || side <= behind {
			t.Errorf("with a %s sun from the front %.2f, the side %.2f, behind %.2f", height, float64(front), float64(side), float64(behind))
		}
	}
	if high, low := (Sight{Sky: SeenOvercast, Height: HighSun}).Scene(), (Sight{Sky: SeenOvercast, Height: LowSun}).Scene(); high.EV <= low.EV {
		t.Errorf("a high sun behind cloud gives EV %.2f, a low one %.2f", float64(high.EV), float64(low.EV))
	}
}
