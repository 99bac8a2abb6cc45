package take

import (
	"runtime"
	"sync"
	"sync/atomic"
)

// hands returns trackers of the same work, each with room of its own to work in.
func (t *tracker) hands(n int) []*tracker {
	for len(t.others) < n {
		t.others = append(t.others, newTracker(t.work))
	}
	return t.others[:n]
}

// spread does something for each of n on all cores, each with a tracker of its own. What is done
// may write to its own place of a list alone, so that the order in which it is done is not seen.
func (t *tracker) spread(n int, do func(t *tracker, i int)) {
	cores := min(runtime.GOMAXPROCS(0), n)
	if cores <= 1 {
		for i := range n {
			do(t, i)
		}
		return
	}
	var next atomic.Int64
	var all sync.WaitGroup
	for _, own := range t.hands(cores) {
		all.Go(func() {
			for i := int(next.Add(1)) - 1; i < n; i = int(next.Add(1)) - 1 {
				do(own, i)
			}
		})
	}
	all.Wait()
}
