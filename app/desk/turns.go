package desk

import (
	"context"
	"net/http"
	"runtime"
	"sync/atomic"

	"golang.org/x/sync/semaphore"

	"tamiz/app/problems"
)

// Turns lets so many requests of one kind work at once; a few more wait, and the rest are sent away at once.
type Turns struct {
	free    *semaphore.Weighted
	waiting atomic.Int64
}

// maxWaiting is how many requests wait for their turn.
const maxWaiting = 100

func newTurns(n int) *Turns { return &Turns{free: semaphore.NewWeighted(int64(n))} }

// cores is how many things are worked on at once.
func cores() int { return max(2, runtime.GOMAXPROCS(0)) }

// Take waits for a turn, which ends with the request of the context (see ForRequest). A request has one turn, of
// whatever kind: what asks for another has it, since two that each hold one and wait for the other's would wait for
// ever. What is no request has its turn at once.
func (t *Turns) Take(ctx context.Context) error {
	h, ok := ctx.Value(holderKey{}).(*holder)
	if !ok {
		return nil
	}
	if h.turn.Swap(true) {
		return nil
	}
	if t.waiting.Add(1) > maxWaiting {
		h.turn.Store(false)
		t.waiting.Add(-1)
		return &problems.Problem{
			Type:   "busy",
			Status: http.StatusServiceUnavailable,
			Title:  "Too much is being worked out at once. Nothing was changed; try again in a moment.",
		}
	}
	err := t.free.Acquire(ctx, 1)
	t.waiting.Add(-1)
	if err != nil {
		h.turn.Store(false)
	} else {
		h.add(func() { t.free.Release(1) })
	}
	return err
}
