package desk

import (
	"context"
	"fmt"
	"math"
	"sync"
	"sync/atomic"
	"time"

	"github.com/hashicorp/golang-lru/v2/simplelru"
)

// A Cache keeps what was worked out and can be worked out again: what was used last the longest, within so many
// bytes. What a request is using stays (see ForRequest), and so does the last thing, however large.
type Cache struct {
	Mu    sync.Mutex
	room  *Room // of which it is a part; nil in none
	most  int64
	Bytes int64
	Kept  *simplelru.LRU[string, *kept]
	under map[string]*flight
	ended bool // nobody will ask any more
}

type kept struct {
	value any
	Bytes int64
	users int   // requests that use it
	used  int64 // when last; see Room.use
}

// What is kept may have things of its own that are kept: it lets go of them when it goes.
type keeper interface{ letGo() }

// A flight is something that is being worked out, for all who wait for it.
type flight struct {
	done    chan struct{}
	value   any
	err     error
	entry   *kept
	waiting int
	cancel  context.CancelFunc
}

func newCache(room *Room, most int64) *Cache {
	lru, _ := simplelru.NewLRU[string, *kept](math.MaxInt, nil) // it never fails: the bound is that of bytes
	c := &Cache{room: room, most: most, Kept: lru, under: map[string]*flight{}}
	room.holds(c, true)
	return c
}

// Linger is how long something is worked out on when everyone who waited for it has left: most of them come back.
const Linger = 10 * time.Second

// Cached returns what is kept under a key, or has it made. Many who ask at once wait for one to make it, each as
// long as they like; when all have left, the making ends.
func Cached[T any](ctx context.Context, c *Cache, key string, make func(context.Context) (T, int64, error)) (T, error) {
	return CachedWithin(ctx, c, key, func() int64 { return 0 }, make)
}

// CachedWithin does the same, with room for so many bytes while it is made.
func CachedWithin[T any](
	ctx context.Context,
	c *Cache,
	key string,
	need func() int64,
	make func(context.Context) (T, int64, error),
) (T, error) {
	var zero T
	c.Mu.Lock()
	if e, ok := c.Kept.Get(key); ok {
		c.begin(e)
		c.Mu.Unlock()
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
			back, err := c.room.Take(working, need())
			var value T
			var bytes int64
			if err == nil {
				defer back()
				value, bytes, err = recovered(working, make)
			}
			c.Mu.Lock()
			m.value, m.err = value, err
			if err == nil {
				m.entry = c.put(key, value, bytes)
			}
			if c.under[key] == m { // one that everyone left, and that ends late, takes nothing from a newer
				delete(c.under, key)
			}
			c.Mu.Unlock()
			close(m.done)
		}()
	}
	m.waiting++
	c.Mu.Unlock()
	select {
	case <-m.done:
	case <-ctx.Done():
		c.leave(key, m)
		return zero, ctx.Err()
	}
	if m.err != nil {
		return zero, m.err
	}
	c.Mu.Lock()
	c.begin(m.entry)
	c.Mu.Unlock()
	c.use(ctx, m.entry)
	return m.value.(T), nil
}

func begun() chan struct{} { return make(chan struct{}) }

func recovered[T any](
	ctx context.Context,
	make func(context.Context) (T, int64, error),
) (value T, bytes int64, err error) {
	defer func() {
		if r := recover(); r != nil {
			err = fmt.Errorf("panic: %v", r)
		}
	}()
	return make(ctx)
}

// leave says that one who waited does so no more.
func (c *Cache) leave(key string, m *flight) {
	c.Mu.Lock()
	defer c.Mu.Unlock()
	if m.waiting--; m.waiting > 0 {
		return
	}
	time.AfterFunc(Linger, func() {
		c.Mu.Lock()
		defer c.Mu.Unlock()
		if m.waiting == 0 && c.under[key] == m {
			m.cancel()
			delete(c.under, key) // who comes now begins anew
		}
	})
}

// put keeps a value and lets go of others that nobody uses, those first that were not used for the longest.
func (c *Cache) put(key string, value any, bytes int64) *kept {
	c.remove(key)
	e := &kept{value: value, Bytes: bytes, used: c.room.use()}
	if c.ended { // it is made for who has asked, and goes with them
		return e
	}
	c.Kept.Add(key, e)
	c.Bytes += bytes
	c.room.keep(bytes)
	for _, k := range c.Kept.Keys() { // the oldest first
		if c.Bytes <= c.most || c.Kept.Len() == 1 {
			break
		}
		if old, _ := c.Kept.Peek(k); old.users == 0 && k != key {
			c.remove(k)
		}
	}
	return e
}

// remove lets go of what is kept under a key.
func (c *Cache) remove(key string) {
	old, ok := c.Kept.Peek(key)
	if !ok {
		return
	}
	c.Kept.Remove(key)
	c.Bytes -= old.Bytes
	c.room.keep(-old.Bytes)
	if k, ok := old.value.(keeper); ok {
		k.letGo()
	}
}

// idle returns when what nobody uses was used last, of what was not used for the longest.
func (c *Cache) idle() (used int64, any bool) {
	c.Mu.Lock()
	defer c.Mu.Unlock()
	for _, k := range c.Kept.Keys() {
		if e, _ := c.Kept.Peek(k); e.users == 0 {
			return e.used, true
		}
	}
	return 0, false
}

// evict lets go of what nobody uses and was used last at some time.
func (c *Cache) evict(used int64) bool {
	c.Mu.Lock()
	defer c.Mu.Unlock()
	for _, k := range c.Kept.Keys() {
		if e, _ := c.Kept.Peek(k); e.users == 0 && e.used == used {
			c.remove(k)
			return true
		}
	}
	return false
}

// end lets go of all: nobody will ask for it again.
func (c *Cache) end() {
	c.Mu.Lock()
	defer c.Mu.Unlock()
	for _, k := range c.Kept.Keys() {
		c.remove(k)
	}
	c.room.holds(c, false)
	c.ended = true
}

// Has returns what is kept under a key.
func (c *Cache) Has(key string) (any, bool) {
	c.Mu.Lock()
	defer c.Mu.Unlock()
	e, ok := c.Kept.Peek(key)
	if !ok {
		return nil, false
	}
	return e.value, true
}

// bound changes within how many bytes a cache keeps things.
func (c *Cache) bound(most int64) {
	c.Mu.Lock()
	defer c.Mu.Unlock()
	c.most = most
}

// begin says that something is used.
func (c *Cache) begin(e *kept) {
	e.users++
	e.used = c.room.use()
}

// use has something that is used be used no more at the end of the request of a context; where there is none, at
// once.
func (c *Cache) use(ctx context.Context, e *kept) {
	end := func() {
		c.Mu.Lock()
		defer c.Mu.Unlock()
		if e.users--; e.users == 0 {
			c.room.freed()
		}
	}
	if h, ok := ctx.Value(holderKey{}).(*holder); ok {
		h.bytes.Add(e.Bytes)
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
	turn  atomic.Bool  // it has its turn
	bytes atomic.Int64 // of what is kept that it uses
}

// heldBy returns how many bytes of what is kept the request of a context uses: they make no room for it, however
// long it waits.
func heldBy(ctx context.Context) int64 {
	if h, ok := ctx.Value(holderKey{}).(*holder); ok {
		return h.bytes.Load()
	}
	return 0
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
