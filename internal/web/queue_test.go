package web

import (
	"context"
	"errors"
	"sync"
	"testing"
)

// Of many who come at once a few are at work, some wait, the rest are told so at once; who
// leaves makes room, and when all is done the queue is empty again.
func TestAQueueIsBounded(t *testing.T) {
	q := newQueue(2, 3)
	begun, end := make(chan struct{}), make(chan struct{})
	work := func() error { begun <- struct{}{}; <-end; return nil }
	var all sync.WaitGroup
	failures := make(chan error, 5)
	come := func(ctx context.Context) { all.Go(func() { failures <- q.do(ctx, work) }) }
	come(t.Context())
	come(t.Context())
	<-begun
	<-begun
	leaving, leave := context.WithCancel(t.Context())
	for range 3 {
		come(leaving)
	}
	for q.waiting.Load() < 5 {
	}
	if err := q.do(t.Context(), func() error { t.Error("one too many is at work"); return nil }); !errors.Is(err, errTooMany) {
		t.Errorf("the sixth is told %v", err)
	}
	leave()
	for range 3 {
		if err := <-failures; !errors.Is(err, context.Canceled) {
			t.Errorf("one who left is told %v", err)
		}
	}
	close(end)
	all.Wait()
	if err := errors.Join(<-failures, <-failures, q.do(t.Context(), func() error { return nil })); err != nil {
		t.Errorf("with room, it fails: %v", err)
	}
}
