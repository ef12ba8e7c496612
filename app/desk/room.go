package desk

import (
	"context"
	"fmt"
	"net/http"
	"sync"
	"time"

	"tamiz/app/problems"
)

// A Room is the memory that may be taken by what is kept and by what is being worked out, together. Heavy work asks
// for its share before it begins. What nobody uses is let go of for it, what was not used for the longest first;
// where that is not enough it waits, and is refused in the end.
type Room struct {
	mu      sync.Mutex
	most    int64
	kept    int64
	working int64
	caches  map[*Cache]bool
	given   chan struct{} // closed, and made anew, whenever some is given back
	uses    int64         // counts what is used, so that it is known what was used last
}

// bound says how much there is.
func (r *Room) bound(bytes int64) {
	r.mu.Lock()
	defer r.mu.Unlock()
	r.most = bytes
}

func newRoom() *Room { return &Room{caches: map[*Cache]bool{}, given: make(chan struct{})} }

// roomWait is how long work waits for its share.
const roomWait = 20 * time.Second

// Take takes a share, or waits for it, and returns what gives it back. Where there can never be as much, it says so
// at once. A nil room has room for all.
func (r *Room) Take(ctx context.Context, bytes int64) (back func(), err error) {
	if r == nil || bytes <= 0 {
		return func() {}, nil
	}
	wait := time.NewTimer(roomWait)
	defer wait.Stop()
	for {
		given, ok := r.taken(bytes)
		if ok {
			return sync.OnceFunc(func() { r.add(&r.working, -bytes) }), nil
		}
		// What can never fit takes nothing from others.
		if left := r.most - heldBy(ctx); bytes > left {
			return nil, tooLarge(bytes, left)
		}
		if r.evict() {
			continue
		}
		select {
		case <-given:
		case <-ctx.Done():
			return nil, ctx.Err()
		case <-wait.C:
			r.mu.Lock()
			alone := r.working == 0 // what is kept is in use, perhaps by who asks
			left := r.most - r.kept
			r.mu.Unlock()
			if alone {
				return nil, tooLarge(bytes, left)
			}
			return nil, &problems.Problem{Type: "no-memory", Status: http.StatusServiceUnavailable,
				Title: fmt.Sprintf(
					"Others are using the memory that this takes, about %s. Nothing was changed; try again in a moment.",
					megabytes(bytes),
				)}
		}
	}
}

// Part returns a part of all there is, at most so many bytes, for work that can do with less.
func (r *Room) Part(most int64) int64 {
	r.mu.Lock()
	defer r.mu.Unlock()
	return min(most, r.most/8)
}

func tooLarge(bytes, left int64) error {
	return &problems.Problem{Type: "too-large", Status: http.StatusUnprocessableEntity,
		Title: fmt.Sprintf(
			"This takes about %s of memory, and there is room for %s. Look at a smaller sample, or have the memory of "+
				"Tamiz raised (TAMIZ_MEMORY_MB).",
			megabytes(bytes),
			megabytes(max(0, left)),
		)}
}

func megabytes(bytes int64) string { return fmt.Sprintf("%d MB", (bytes+1<<20-1)>>20) }

// taken takes a share if there is one; else it returns what is closed when some is given back.
func (r *Room) taken(bytes int64) (given chan struct{}, ok bool) {
	r.mu.Lock()
	defer r.mu.Unlock()
	if r.kept+r.working+bytes > r.most {
		return r.given, false
	}
	r.working += bytes
	return nil, true
}

func (r *Room) add(to *int64, bytes int64) {
	r.mu.Lock()
	defer r.mu.Unlock()
	*to += bytes
	if bytes <= 0 {
		close(r.given)
		r.given = make(chan struct{})
	}
}

// keep counts what is kept from now on, or for negative bytes no more. A nil room counts nothing.
func (r *Room) keep(bytes int64) {
	if r != nil {
		r.add(&r.kept, bytes)
	}
}

// freed tells who waits that something is not in use any more.
func (r *Room) freed() { r.keep(0) }

// use returns a number that is higher than all before.
func (r *Room) use() int64 {
	if r == nil {
		return 0
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	r.uses++
	return r.uses
}

// evict lets go of what nobody uses and was not used for the longest; false is that there is nothing.
func (r *Room) evict() bool {
	r.mu.Lock()
	all := make([]*Cache, 0, len(r.caches))
	for c := range r.caches {
		all = append(all, c)
	}
	r.mu.Unlock()
	var of *Cache
	oldest := int64(0)
	for _, c := range all {
		if at, any := c.idle(); any && (of == nil || at < oldest) {
			of, oldest = c, at
		}
	}
	return of != nil && of.evict(oldest)
}

// holds has a cache be counted, or no more.
func (r *Room) holds(c *Cache, held bool) {
	if r == nil {
		return
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	if held {
		r.caches[c] = true
	} else {
		delete(r.caches, c)
	}
}
