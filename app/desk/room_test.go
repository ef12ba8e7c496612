package desk

import (
	"context"
	"errors"
	"fmt"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/app/problems"
)

func roomOf(bytes int64) *Room {
	r := newRoom()
	r.bound(bytes)
	return r
}

func problemType(err error) string {
	var p *problems.Problem
	if errors.As(err, &p) {
		return p.Type
	}
	return ""
}

func TestWorkIsRefusedThatNeverHasRoomAndSaysWhatWouldHelp(t *testing.T) {
	_, err := roomOf(100<<20).Take(t.Context(), 900<<20)
	assert.Equal(t, "too-large", problemType(err))
	assert.ErrorContains(t, err, "900 MB")
	assert.ErrorContains(t, err, "100 MB")
}

func TestWorkWaitsForItsShare(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		r := roomOf(100)
		back, err := r.Take(t.Context(), 60)
		require.NoError(t, err)
		got := make(chan error, 1)
		go func() {
			_, err := r.Take(t.Context(), 50)
			got <- err
		}()
		synctest.Wait()
		require.Empty(t, got, "it waits")
		back()
		require.NoError(t, <-got)
		// Who waits too long is told so; who leaves waits no more.
		begun := time.Now()
		_, err = r.Take(t.Context(), 60)
		assert.Equal(t, "no-memory", problemType(err))
		assert.Equal(t, roomWait, time.Since(begun))
		leaving, leave := context.WithCancel(t.Context())
		go func() {
			_, err := r.Take(leaving, 60)
			got <- err
		}()
		synctest.Wait()
		leave()
		require.ErrorIs(t, <-got, context.Canceled)
	})
}

// What a request uses itself makes no room for it: it is told so at once.
func TestNobodyWaitsForWhatTheyUseThemselves(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		r := roomOf(100)
		holding, done := ForRequest(t.Context())
		defer done()
		c := newCache(r, 1000)
		_, err := Cached(holding, c, "pool", of("pool", 70))
		require.NoError(t, err)
		begun := time.Now()
		_, err = CachedWithin(holding, c, "company", func() int64 { return 40 }, of("company", 20))
		assert.Equal(t, "too-large", problemType(err))
		assert.Zero(t, time.Since(begun))
		_, err = Cached(t.Context(), c, "of others", of("tally", 20))
		require.NoError(t, err)
		_, err = r.Take(holding, 40)
		assert.Equal(t, "too-large", problemType(err))
		_, kept := c.Has("of others")
		assert.True(t, kept, "what can never fit takes nothing from others")
	})
}

// What nobody uses makes room, what was not used for the longest first; what is used stays, and what is refused for
// it says so.
func TestWhatNobodyUsesMakesRoom(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		r := roomOf(100)
		c, other := newCache(r, 1000), newCache(r, 1000)
		made := func(ctx context.Context, c *Cache, key string) {
			_, err := Cached(ctx, c, key, of(key, 30))
			require.NoError(t, err)
		}
		holding, done := ForRequest(t.Context())
		made(holding, c, "held")
		made(t.Context(), c, "old")
		made(t.Context(), other, "new")
		back, err := r.Take(t.Context(), 40)
		require.NoError(t, err)
		_, old := c.Has("old")
		_, newer := other.Has("new")
		assert.False(t, old)
		assert.True(t, newer)
		back()
		_, err = r.Take(t.Context(), 80)
		assert.Equal(t, "too-large", problemType(err), "what is held is not let go of, and nothing else would give any back")
		done()
		_, err = r.Take(t.Context(), 80)
		require.NoError(t, err)
	})
}

// A keeping keeps things of its own.
type keeping struct{ c *Cache }

func (k keeping) letGo() { k.c.end() }

func TestWhatIsKeptOfWhatGoesGoesWithIt(t *testing.T) {
	r := roomOf(100)
	c := newCache(r, 1000)
	inner := newCache(r, 1000)
	_, err := Cached(
		t.Context(),
		c,
		"pool",
		func(context.Context) (keeping, int64, error) { return keeping{inner}, 10, nil },
	)
	require.NoError(t, err)
	_, err = Cached(t.Context(), inner, "tally", of("tally", 50))
	require.NoError(t, err)
	for r.evict() { // the pool was used before its tally, and goes first
	}
	assert.Zero(t, r.kept)
	assert.Len(t, r.caches, 1)
	// What is made for who asked before goes with them.
	v, err := Cached(t.Context(), inner, "late", of("late", 50))
	require.NoError(t, err)
	assert.Equal(t, "late", v)
	assert.Zero(t, r.kept)
}

// Whatever is kept, held, worked out and let go of: all is counted, and never more is given than there is.
func TestARoomIsNeverFuller(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := roomOf(100)
		caches := []*Cache{newCache(r, 40), newCache(r, 60)}
		var backs []func()
		var ends []func()
		for range rapid.IntRange(1, 50).Draw(t, "steps") {
			switch rapid.IntRange(0, 3).Draw(t, "what") {
			case 0:
				ctx, done := ForRequest(context.Background())
				key := fmt.Sprint(rapid.IntRange(0, 9).Draw(t, "key"))
				bytes := rapid.Int64Range(1, 20).Draw(t, "bytes")
				_, err := CachedWithin(
					ctx,
					rapid.SampledFrom(caches).Draw(t, "cache"),
					key,
					func() int64 { return 0 },
					of(key, bytes),
				)
				require.NoError(t, err)
				ends = append(ends, done)
			case 1:
				if len(ends) > 0 {
					ends[0]()
					ends = ends[1:]
				}
			case 2:
				bytes := rapid.Int64Range(1, 50).Draw(t, "work")
				if _, ok := r.taken(bytes); ok {
					require.LessOrEqual(t, r.kept+r.working, r.most)
					backs = append(backs, func() { r.add(&r.working, -bytes) })
				}
			case 3:
				if len(backs) > 0 {
					backs[0]()
					backs = backs[1:]
				}
			}
			var kept int64
			for _, c := range caches {
				kept += c.Bytes
			}
			require.Equal(t, kept, r.kept)
		}
		for _, end := range append(ends, backs...) {
			end()
		}
		for r.evict() {
		}
		assert.Zero(t, r.kept)
		assert.Zero(t, r.working)
	})
}
