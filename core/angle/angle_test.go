package angle

import (
	"math"
	"testing"
)

func TestHeadingAndTurn(t *testing.T) {
	tests := []struct{ in, heading, turn Deg }{
		{0, 0, 0}, {360, 0, 0}, {-10, 350, -10}, {190, 190, -170}, {180, 180, -180}, {-180, 180, -180}, {725, 5, 5}, {-1e-300, 0, 0},
	}
	for _, test := range tests {
		if got := test.in.Heading(); math.Abs(float64(got-test.heading)) > 1e-9 || got >= 360 {
			t.Errorf("%v.Heading() = %v, want %v", test.in, got, test.heading)
		}
		if got := test.in.Turn(); math.Abs(float64(got-test.turn)) > 1e-9 {
			t.Errorf("%v.Turn() = %v, want %v", test.in, got, test.turn)
		}
	}
	if got := FromRadians(Deg(77).Radians()); math.Abs(float64(got-77)) > 1e-12 {
		t.Errorf("77° to radians and back is %v", got)
	}
}
