package glass

import (
	"testing"

	"pinhole/core/stop"
)

func TestWhereToTurnTheRing(t *testing.T) {
	ring, ok := NewRing([]RingMark{{"5", 5.6}, {"min", 1.1}, {"3", 2.9}})
	if !ok || ring[0].Mark != "min" {
		t.Fatalf("marks in order: %+v, %t", ring, ok)
	}
	for want, words := range map[stop.Stops]string{
		0: "at min", 1.1: "at min", 1.15: "at min", 1.25: "just past min", 1.6: "a quarter of the way from min to 3", 2: "half way from min to 3",
		2.4: "three quarters of the way from min to 3", 2.75: "just before 3", 2.9: "at 3", 4.25: "half way from 3 to 5", 5.6: "at 5", 9: "at 5",
	} {
		if got := ring.Words(want); got != words {
			t.Errorf("%v stops: %q, want %q", want, got, words)
		}
	}
	if none, ok := NewRing(nil); !ok || none.Words(3) != "" {
		t.Error("a ring without marks has words")
	}
	for _, marks := range [][]RingMark{{{"1", 1}}, {{"1", 1}, {"2", 1}}} {
		if _, ok := NewRing(marks); ok {
			t.Errorf("%+v makes a ring", marks)
		}
	}
}
