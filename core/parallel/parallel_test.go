package parallel_test

import (
	"cmp"
	"context"
	"errors"
	"slices"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/parallel"
)

func TestEachDoesAllOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(0, 300).Draw(t, "n")
		times := make([]atomic.Int32, n)
		assert.NoError(t, parallel.Each(context.Background(), n, func(i int) error {
			times[i].Add(1)
			return nil
		}))
		for i := range times {
			assert.EqualValues(t, 1, times[i].Load())
		}
	})
}

func TestEachEndsWithTheFirstError(t *testing.T) {
	wrong := errors.New("wrong")
	var done atomic.Int64
	err := parallel.Each(context.Background(), 1_000_000, func(i int) error {
		done.Add(1)
		if i == 3 {
			return wrong
		}
		return nil
	})
	assert.ErrorIs(t, err, wrong)
	assert.Less(t, done.Load(), int64(1_000_000))

	ended, end := context.WithCancel(context.Background())
	end()
	assert.ErrorIs(t, parallel.Each(ended, 5, func(int) error { return nil }), context.Canceled)
}

func TestSortIsTheSameAsByOneCore(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		all := rapid.SliceOfN(rapid.IntRange(0, 50), 0, 20_000).Draw(t, "all")
		want := slices.Sorted(slices.Values(all))
		parallel.Sort(all, cmp.Compare[int])
		assert.True(t, slices.Equal(want, all))
	})
}

// What falls over on one core falls over for whoever asked, and for nobody else.
func TestAPanicReachesWhoeverAsked(t *testing.T) {
	for _, n := range []int{1, 7, 10_000} {
		func() {
			defer func() {
				p, ok := recover().(*parallel.Panic)
				if assert.True(t, ok) {
					assert.Equal(t, "odd", p.Value)
					assert.Contains(t, p.Error(), "TestAPanicReachesWhoeverAsked")
				}
			}()
			_ = parallel.Each(context.Background(), n, func(i int) error {
				if i == n/2 {
					panic("odd")
				}
				return nil
			})
		}()
	}
	assert.Panics(t, func() { parallel.Sort(make([]int, 20_000), func(a, b int) int { panic("odd") }) })
}
