package dialect

import (
	"slices"

	"tamiz/core/query"
)

// mostLeaves is how many terms FindSame looks at: twice the work for each.
const mostLeaves = 16

// FindSame reports whether two expressions find the same whatever their terms do: what is parted into several queries is put
// together otherwise. It looks at every way in which their terms can find a record or not; of more terms than it looks at, it
// reports that they do not.
func FindSame(a, b query.Expr) bool {
	leaves := map[string]int{}
	left, right := truthOf(a, leaves), truthOf(b, leaves)
	if len(leaves) > mostLeaves {
		return false
	}
	for which := range 1 << len(leaves) {
		if left(which) != right(which) {
			return false
		}
	}
	return true
}

// truthOf returns whether an expression finds a record that the terms find whose bits are set.
func truthOf(q query.Expr, leaves map[string]int) func(which int) bool {
	op, parts := operatorOf(q)
	if op == "" {
		written := query.Write(q)
		if _, seen := leaves[written]; !seen {
			leaves[written] = len(leaves)
		}
		bit := leaves[written]
		return func(which int) bool { return which>>bit&1 == 1 }
	}
	of := make([]func(int) bool, len(parts))
	for i, p := range parts {
		of[i] = truthOf(p, leaves)
	}
	return func(which int) bool {
		finds := func(f func(int) bool) bool { return f(which) }
		misses := func(f func(int) bool) bool { return !f(which) }
		switch op {
		case opOr:
			return slices.ContainsFunc(of, finds)
		case opAnd:
			return !slices.ContainsFunc(of, misses)
		}
		return of[0](which) && !slices.ContainsFunc(of[1:], finds)
	}
}
