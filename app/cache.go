package app

import (
	"context"
	"fmt"
	"math"
	"sync"
	"time"

	"github.com/hashicorp/golang-lru/v2/simplelru"
)

// A cache keeps what was worked out and can be worked out again: what was used last the longest, within so many
// bytes. What a request is using stays (see ForRequest), and so does the last thing, however large.
type cache struct {
	mu    sync.Mutex
	most  int64
	bytes int64
	kept  *simplelru.LRU[string, *kept]
	under map[string]*flight
}

type kept struct {
	value any
	bytes int64
	users int // requests that use it
}

// A flight is something that is being worked out, for all who wait for it.
type flight struct {
	done    chan struct{}
	value   any
	err     error
	entry   *kept
	waiting int
	cancel  context.CancelFunc
}

func newCache(most int64) *cache {
	lru, _ := simplelru.NewLRU[string, *kept](math.MaxInt, nil) // it never fails: the bound is that of bytes
	return &cache{most: most, kept: lru, under: map[string]*flight{}}
}

// linger is how long something is worked out on when everyone who waited for it has left: most of them come back.
const linger = 10 * time.Second

// cached returns what is kept under a key, or has it made. Many who ask at once wait for one to make it, each as
// long as they like; when all have left, the making ends.
func cached[T any](ctx context.Context, c *cache, key string, make func(context.Context) (T, int64, error)) (T, error) {
	var zero T
	c.mu.Lock()
	if e, ok := c.kept.Get(key); ok {
		e.users++
		c.mu.Unlock()
		c.use(ctx, e)
		return e.value.(T), nil
	}
	m := c.under[key]
	if m == nil {
		working, cancel := context.WithCancel(context.WithoutCancel(ctx))
		m = &flight{done: begun(), cancel: cancel}
		c.under[key] = m
		go func() {
			defer cancel()
			value, bytes, err := recovered(working, make)
			c.mu.Lock()
			m.value, m.err = value, err
			if err == nil {
				m.entry = c.put(key, value, bytes)
			}
			delete(c.under, key)
			c.mu.Unlock()
			close(m.done)
		}()
	}
	m.waiting++
	c.mu.Unlock()
	select {
	case <-m.done:
	case <-ctx.Done():
		c.leave(key, m)
		return zero, ctx.Err()
	}
	if m.err != nil {
		return zero, m.err
	}
	c.mu.Lock()
	m.entry.users++
	c.mu.Unlock()
	c.use(ctx, m.entry)
	return m.value.(T), nil
}

func begun() chan struct{} { return make(chan struct{}) }

func recovered[T any](ctx context.Context, make func(context.Context) (T, int64, error)) (value T, bytes int64, err error) {
	defer func() {
		if r := recover(); r != nil {
			err = fmt.Errorf("panic: %v", r)
		}
	}()
	return make(ctx)
}

// leave says that one who waited does so no more.
func (c *cache) leave(key string, m *flight) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if m.waiting--; m.waiting > 0 {
		return
	}
	time.AfterFunc(linger, func() {
		c.mu.Lock()
		defer c.mu.Unlock()
		if m.waiting == 0 && c.under[key] == m {
			m.cancel()
			delete(c.under, key) // who comes now begins anew
		}
	})
}

// put keeps a value and lets go of others that nobody uses, those first that were not used for the longest.
func (c *cache) put(key string, value any, bytes int64) *kept {
	if old, ok := c.kept.Peek(key); ok {
		c.bytes -= old.bytes
	}
	e := &kept{value: value, bytes: bytes}
	c.kept.Add(key, e)
	c.bytes += bytes
	for _, k := range c.kept.Keys() { // the oldest first
		if c.bytes <= c.most || c.kept.Len() == 1 {
			break
		}
		if old, _ := c.kept.Peek(k); old.users == 0 && k != key {
			c.bytes -= old.bytes
			c.kept.Remove(k)
		}
	}
	return e
}

// has returns what is kept under a key.
func (c *cache) has(key string) (any, bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	e, ok := c.kept.Peek(key)
	if !ok {
		return nil, false
	}
	return e.value, true
}

// bound changes within how many bytes a cache keeps things.
func (c *cache) bound(most int64) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.most = most
}

// use has something that is used be used no more at the end of the request of a context; where there is none, at
// once.
func (c *cache) use(ctx context.Context, e *kept) {
	end := func() {
		c.mu.Lock()
		defer c.mu.Unlock()
		e.users--
	}
	if h, ok := ctx.Value(holderKey{}).(*holder); ok {
		h.add(end)
		return
	}
	end()
}

type holderKey struct{}

// A holder is what a request has taken and gives back at its end.
type holder struct {
	mu    sync.Mutex
	back  []func()
	ended bool
}

func (h *holder) add(back func()) {
	h.mu.Lock()
	ended := h.ended
	if !ended {
		h.back = append(h.back, back)
	}
	h.mu.Unlock()
	if ended { // what goes on beside a request may end after it
		back()
	}
}

// ForRequest returns a context for one request: what it uses of what is kept stays kept until done is called.
func ForRequest(ctx context.Context) (holding context.Context, done func()) {
	h := &holder{}
	return context.WithValue(ctx, holderKey{}, h), func() {
		h.mu.Lock()
		all := h.back
		h.back, h.ended = nil, true
		h.mu.Unlock()
		for _, back := range all {
			back()
		}
	}
}
