// Package parallel does work on all cores.
package parallel

import (
	"context"
	"fmt"
	"runtime"
	"runtime/debug"
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
	All(2, func(i int) { Sort([][]T{first, second}[i], compare) })
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
	All((n+part-1)/part, func(i int) { work(i*part, min((i+1)*part, n)) })
}

// All does work for each of n things that know nothing of each other, on all cores. Where the work panics, All
// does, once all cores have ended, with what the first panicked with: on a core of its own nobody could hear it,
// and the program would end.
func All(n int, work func(i int)) {
	var wait sync.WaitGroup
	var begun atomic.Int64
	var fallen atomic.Pointer[Panic]
	for range min(runtime.GOMAXPROCS(0), n) {
		wait.Go(func() {
			defer func() {
				if p := panicOf(recover()); p != nil {
					fallen.CompareAndSwap(nil, p)
				}
			}()
			for i := int(begun.Add(1)) - 1; i < n && fallen.Load() == nil; i = int(begun.Add(1)) - 1 {
				work(i)
			}
		})
	}
	wait.Wait()
	if p := fallen.Load(); p != nil {
		panic(p)
	}
}

// A Panic is what work panicked with on a core of its own, and where.
type Panic struct {
	Value any
	Stack []byte
}

// Error says both.
func (p *Panic) Error() string { return fmt.Sprintf("%v\n%s", p.Value, p.Stack) }

// Each does the same with work that can fail: it returns the first error, or that of the context where that ends
// before, and does no more from then on.
func Each(ctx context.Context, n int, work func(i int) error) error {
	ctx, end := context.WithCancelCause(ctx)
	defer end(nil)
	All(n, func(i int) {
		if ctx.Err() != nil {
			return
		}
		if err := work(i); err != nil {
			end(err)
		}
	})
	return context.Cause(ctx)
}

func panicOf(r any) *Panic {
	switch r := r.(type) {
	case nil:
		return nil
	case *Panic: // of work within
		return r
	}
	return &Panic{r, debug.Stack()}
}

// Safely does work beside what others do, and returns as an error what it panicked with.
func Safely(work func() error) (err error) {
	defer func() {
		if p := panicOf(recover()); p != nil {
			err = p
		}
	}()
	return work()
}
