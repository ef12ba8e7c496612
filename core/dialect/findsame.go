package dialect

import (
	"slices"

	"tamiz/core/query"
)

const (
	mostLeaves  = 16      // that FindSame looks at: twice the work for each
	mostWritten = 200     // terms as they are written, the same again and again
	mostLooks   = 1 << 20 // at a part
)

// FindSame reports whether two expressions find the same whatever their terms do: what is parted into several
// queries is put together otherwise. It looks at every way in which their terms can find a record or not; of more
// terms than it looks at, or of a few that stand there hundreds of times, it reports that they do not.
func FindSame(a, b query.Expr) bool {
	leaves := map[string]int{}
	left := mostWritten
	one, other := truthOf(a, leaves, &left), truthOf(b, leaves, &left)
	if len(leaves) > mostLeaves || left < 0 || (mostWritten-left)<<len(leaves) > mostLooks {
		return false
	}
	for which := range 1 << len(leaves) {
		if one(which) != other(which) {
			return false
		}
	}
	return true
}

// truthOf returns whether an expression finds a record that the terms find whose bits are set.
// It stops where there are more terms than left.
func truthOf(q query.Expr, leaves map[string]int, left *int) func(which int) bool {
	op, parts := operatorOf(q)
	if op == "" {
		if *left--; *left < 0 {
			return func(int) bool { return false }
		}
		written := query.Write(q)
		if _, seen := leaves[written]; !seen {
			leaves[written] = len(leaves)
		}
		bit := leaves[written]
		return func(which int) bool { return which>>bit&1 == 1 }
	}
	of := make([]func(int) bool, len(parts))
	for i, p := range parts {
		if of[i] = truthOf(p, leaves, left); *left < 0 {
			return func(int) bool { return false }
		}
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
