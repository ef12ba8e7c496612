// Package parallel does work on all cores.
package parallel

import (
	"runtime"
	"slices"
	"sync"
	"sync/atomic"
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
