package coverage

import (
	"github.com/RoaringBitmap/roaring/v2"
)

// A Pruned is a term that can go: what goes with it, and what the block then still finds.
type Pruned struct {
	Term  int
	Loses int // records that no other term that is left finds
	Left  int // records that the block finds without it
}

// Prune returns the terms of a block that can go, in the order in which they do: over and over that whose loss is smallest
// (then that which finds fewest, then the later), as long as every key study that the block catches stays caught, at
// least a share of the records that the whole block found stay found, and one term is left. inKeys may be nil. Terms that
// are switched off have no part in it.
func Prune(reach, inKeys *Reach, block int, share float64) []Pruned {
	left := map[int]bool{}
	for i, found := range reach.Terms[block] {
		if found != nil {
			left[i] = true
		}
	}
	whole := count(reach.Blocks[block])
	var out []Pruned
	for len(left) > 1 {
		best, loses := -1, 0
		for i := range reach.Terms[block] {
			if !left[i] || lostBy(inKeys, block, i, left) > 0 {
				continue
			}
			n := lostBy(reach, block, i, left)
			if best < 0 || n < loses || n == loses && count(reach.Terms[block][i]) <= count(reach.Terms[block][best]) {
				best, loses = i, n
			}
		}
		if best < 0 {
			return out
		}
		now := whole
		if len(out) > 0 {
			now = out[len(out)-1].Left
		}
		if float64(now-loses) < share*float64(whole) {
			return out
		}
		delete(left, best)
		out = append(out, Pruned{best, loses, now - loses})
	}
	return out
}

// lostBy returns how many records a term alone finds of those that are left.
func lostBy(r *Reach, block, term int, left map[int]bool) int {
	if r == nil {
		return 0
	}
	others := roaring.New()
	for i, found := range r.Terms[block] {
		if i != term && left[i] {
			others.Or(found)
		}
	}
	return int(r.Terms[block][term].GetCardinality() - r.Terms[block][term].AndCardinality(others))
}
