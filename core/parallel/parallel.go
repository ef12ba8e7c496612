// Package parallel does work on all cores.
package parallel

import (
	"context"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"golang.org/x/sync/errgroup"
)

// few is how much is done faster by one core alone.
const few = 8192

// Sort sorts in two halves at once, where that is worth it.
func Sort[T any](all []T, compare func(a, b T) int) {
	if len(all) < few || runtime.GOMAXPROCS(0) < 2 {
		slices.SortFunc(all, compare)
		return
	}
	first, second := slices.Clone(all[:len(all)/2]), all[len(all)/2:]
	var wait sync.WaitGroup
	wait.Go(func() { Sort(first, compare) })
	Sort(second, compare)
	wait.Wait()
	// What was read of the second half is never written over before: the first holds as much as the gap.
	n, i, k := 0, 0, 0
	for i < len(first) {
		if k < len(second) && compare(second[k], first[i]) < 0 {
			all[n] = second[k]
			k++
		} else {
			all[n] = first[i]
			i++
		}
		n++
	}
}

// InParts does work on parts of n things, on all cores.
func InParts(n int, work func(from, to int)) {
	if n < few {
		work(0, n)
		return
	}
	const part = few / 2
	var wait sync.WaitGroup
	var begun atomic.Int64
	for range runtime.GOMAXPROCS(0) {
		wait.Go(func() {
			for {
				from := int(begun.Add(part)) - part
				if from >= n {
					return
				}
				work(from, min(from+part, n))
			}
		})
	}
	wait.Wait()
}

// Each does work for each of n things that know nothing of each other, on all cores. It ends early with the first error, or
// where the context ends.
func Each(ctx context.Context, n int, work func(i int) error) error {
	var all errgroup.Group
	var begun atomic.Int64
	for range min(runtime.GOMAXPROCS(0), n) {
		all.Go(func() error {
			for i := int(begun.Add(1)) - 1; i < n; i = int(begun.Add(1)) - 1 {
				if err := ctx.Err(); err != nil {
					return err
				}
				if err := work(i); err != nil {
					begun.Store(int64(n))
					return err
				}
			}
			return nil
		})
	}
	return all.Wait()
}
