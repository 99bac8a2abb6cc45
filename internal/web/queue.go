package web

import (
	"context"
	"errors"
	"sync/atomic"
)

// errTooMany is what is told to whoever finds a queue full.
var errTooMany = errors.New("too many are waiting")

// queue lets a few at a time do what takes much, and some more wait for their turn.
type queue struct {
	turns   chan struct{}
	waiting atomic.Int32
	most    int32
}

// newQueue returns a queue of so many at work and so many behind them.
func newQueue(atWork, behind int) *queue {
	return &queue{turns: make(chan struct{}, atWork), most: int32(atWork + behind)}
}

// do runs work when it is its turn, or fails with errTooMany, or with the context's error
// where its asker leaves first.
func (q *queue) do(ctx context.Context, work func() error) error {
	defer q.waiting.Add(-1)
	if q.waiting.Add(1) > q.most {
		return errTooMany
	}
	select {
	case q.turns <- struct{}{}:
		defer func() { <-q.turns }()
		return work()
	case <-ctx.Done():
		return ctx.Err()
	}
}
