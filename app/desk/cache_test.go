package desk

import (
	"context"
	"errors"
	"fmt"
	"sync/atomic"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/app/problems"
)

func of(value string, bytes int64) func(context.Context) (string, int64, error) {
	return func(context.Context) (string, int64, error) { return value, bytes, nil }
}

// Whatever is asked for and whoever holds on to what, no more is kept than the bound allows, save what is held and
// the last; and nothing that is held is made twice.
func TestWhatIsKeptIsBoundedInBytesAndWhatIsHeldStays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		const most = 100
		c := newCache(nil, most)
		type request struct {
			done func()
			keys map[string]bool
		}
		var open []request
		made := map[string]int{}
		for range rapid.IntRange(1, 60).Draw(t, "steps") {
			if len(open) > 0 && rapid.Bool().Draw(t, "ends") {
				i := rapid.IntRange(0, len(open)-1).Draw(t, "which")
				open[i].done()
				open = append(open[:i], open[i+1:]...)
			} else {
				ctx, done := ForRequest(context.Background())
				r := request{done, map[string]bool{}}
				for range rapid.IntRange(1, 3).Draw(t, "asks") {
					key := fmt.Sprint(rapid.IntRange(0, 9).Draw(t, "key"))
					held := r.keys[key]
					for _, o := range open {
						held = held || o.keys[key]
					}
					before := made[key]
					got, err := Cached(ctx, c, key, func(context.Context) (string, int64, error) {
						made[key]++
						return key, int64(len(key)) * 30, nil
					})
					require.NoError(t, err)
					require.Equal(t, key, got)
					if held {
						require.Equal(t, before, made[key], "what is held is kept")
					}
					r.keys[key] = true
				}
				open = append(open, r)
			}
			held := map[string]bool{}
			for _, r := range open {
				for key := range r.keys {
					held[key] = true
				}
			}
			c.Mu.Lock()
			var sum int64
			for _, key := range c.Kept.Keys() {
				e, _ := c.Kept.Peek(key)
				sum += e.Bytes
			}
			require.Equal(t, sum, c.Bytes)
			c.Mu.Unlock()
		}
		for _, r := range open {
			r.done()
		}
		_, err := Cached(context.Background(), c, "last", of("last", 30))
		require.NoError(t, err)
		require.LessOrEqual(t, c.Bytes, int64(most), "when nothing is held")
	})
}

func TestTheLastThingIsKeptHoweverLarge(t *testing.T) {
	c := newCache(nil, 10)
	for _, key := range []string{"a", "b"} {
		_, err := Cached(context.Background(), c, key, of(key, 1000))
		require.NoError(t, err)
	}
	_, a := c.Has("a")
	_, b := c.Has("b")
	assert.False(t, a)
	assert.True(t, b)
}

func TestWhatManyAskIsWorkedOutOnce(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		c := newCache(nil, 1000)
		var made atomic.Int64
		got := make(chan string, 50)
		for range 50 {
			go func() {
				v, err := Cached(t.Context(), c, "key", func(context.Context) (string, int64, error) {
					made.Add(1)
					time.Sleep(time.Minute) // of the bubble's clock
					return "value", 1, nil
				})
				assert.NoError(t, err)
				got <- v
			}()
		}
		for range 50 {
			assert.Equal(t, "value", <-got)
		}
		assert.EqualValues(t, 1, made.Load())
	})
}

func TestWhatNobodyWaitsForEnds(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		c := newCache(nil, 1000)
		ended := make(chan error, 1)
		ask := func(ctx context.Context) error {
			_, err := Cached(ctx, c, "key", func(ctx context.Context) (string, int64, error) {
				select {
				case <-ctx.Done():
					ended <- ctx.Err()
					return "", 0, ctx.Err()
				case <-time.After(time.Hour):
					return "value", 1, nil
				}
			})
			return err
		}
		// One of two leaves: it goes on.
		first, leave := context.WithCancel(t.Context())
		second, leaveToo := context.WithCancel(t.Context())
		errs := make(chan error, 2)
		go func() { errs <- ask(first) }()
		go func() { errs <- ask(second) }()
		synctest.Wait()
		leave()
		require.ErrorIs(t, <-errs, context.Canceled)
		time.Sleep(2 * Linger)
		synctest.Wait()
		require.Empty(t, ended)
		// The other leaves as well and comes back in time: it goes on still.
		leaveToo()
		require.ErrorIs(t, <-errs, context.Canceled)
		time.Sleep(Linger / 2)
		third, leaveLast := context.WithCancel(t.Context())
		go func() { errs <- ask(third) }()
		synctest.Wait()
		time.Sleep(2 * Linger)
		synctest.Wait()
		require.Empty(t, ended)
		// All have left.
		leaveLast()
		require.ErrorIs(t, <-errs, context.Canceled)
		time.Sleep(Linger + time.Second)
		require.ErrorIs(t, <-ended, context.Canceled)
	})
}

func TestWhatPanicsIsAnErrorForAllWhoWait(t *testing.T) {
	c := newCache(nil, 10)
	_, err := Cached(context.Background(), c, "key", func(context.Context) (string, int64, error) { panic("odd") })
	require.ErrorContains(t, err, "odd")
	v, err := Cached(context.Background(), c, "key", of("even", 1))
	require.NoError(t, err)
	assert.Equal(t, "even", v)
}

// So many work at once, a hundred more wait, the rest are sent away at once; whoever leaves gives up the place.
func TestRequestsWaitTheirTurn(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		turns := newTurns(1)
		ctx, done := ForRequest(t.Context())
		require.NoError(t, turns.Take(ctx))
		leaving, leave := context.WithCancel(t.Context())
		var waiting []chan error
		for range maxWaiting {
			got := make(chan error, 1)
			waiting = append(waiting, got)
			go func() {
				ctx, done := ForRequest(leaving)
				defer done()
				got <- turns.Take(ctx)
			}()
		}
		synctest.Wait()
		more, doneToo := ForRequest(t.Context())
		defer doneToo()
		var p *problems.Problem
		require.True(t, errors.As(turns.Take(more), &p))
		assert.Equal(t, "busy", p.Type)
		leave()
		for _, got := range waiting {
			require.ErrorIs(t, <-got, context.Canceled)
		}
		done()
		require.NoError(t, turns.Take(more))
	})
}

// Somebody asks and leaves for good; the next two ask while the first making still has not ended: it is made once
// more for both, and the first, when it ends at last, takes nothing from them.
func TestAMakingThatEndsLateTakesNothingFromANewer(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		c := newCache(nil, 1000)
		var made atomic.Int64
		ask := func(ctx context.Context) (string, error) {
			return Cached(ctx, c, "key", func(context.Context) (string, int64, error) {
				n := made.Add(1)
				time.Sleep(time.Minute) // it looks at no context
				return fmt.Sprint("value ", n), 1, nil
			})
		}
		leaving, leave := context.WithCancel(t.Context())
		left := make(chan error, 1)
		go func() { _, err := ask(leaving); left <- err }()
		synctest.Wait()
		leave()
		require.ErrorIs(t, <-left, context.Canceled)
		time.Sleep(Linger + time.Second)
		got := make(chan string, 2)
		for range 2 {
			go func() {
				v, err := ask(t.Context())
				assert.NoError(t, err)
				got <- v
			}()
			time.Sleep(35 * time.Second) // the second asks before, and waits beyond, the late end of the first
		}
		assert.Equal(t, []string{"value 2", "value 2"}, []string{<-got, <-got})
		assert.EqualValues(t, 2, made.Load())
		last, err := ask(t.Context())
		require.NoError(t, err)
		assert.Equal(t, "value 2", last)
	})
}
