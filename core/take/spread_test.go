package take

import "testing"

// Each of n is done once, with room of its own; the test command runs this with the race detector.
func TestSpread(t *testing.T) {
	blank := &Clip{Width: 128, Height: 72, Frames: [][]byte{make([]byte, 128*72), make([]byte, 128*72)}}
	all := newTracker(reduced(blank))
	for _, n := range []int{0, 1, 2, 300} {
		done := make([]int, n)
		all.spread(n, func(own *tracker, i int) {
			own.cutBlock(own.spectra[0], own.frames[i%2].encoded, 0, 0)
			done[i]++
		})
		for i, times := range done {
			if times != 1 {
				t.Errorf("%d of %d is done %d times", i, n, times)
			}
		}
	}
}
