package coverage

import (
	"context"
	"slices"
)

// A Pruned is a term that can go: what goes with it, and what the block then still finds.
type Pruned struct {
	Term  int
	Loses int // records that no other term that is left finds
	Left  int // records that the block finds without it
}

// Prune returns the terms of a block that can go, in the order in which they do: over and over that whose loss is
// smallest (then that which finds fewest, then the later), as long as every key study that the block catches stays
// caught, at least a share of the records that the whole block found stay found, and one term is left. inKeys may
// be nil. Terms that are switched off have no part in it.
func Prune(ctx context.Context, reach, inKeys *Reach, block int, share float64) ([]Pruned, error) {
	records, keys := newCover(reach, block), newCover(inKeys, block)
	whole := count(reach.Blocks[block])
	now := whole
	var out []Pruned
	for len(records.left) > 1 {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		best := -1
		for _, i := range records.left {
			if keys != nil && keys.alone[i] > 0 {
				continue
			}
			if best < 0 || records.alone[i] < records.alone[best] ||
				records.alone[i] == records.alone[best] && records.finds[i] <= records.finds[best] {
				best = i
			}
		}
		if best < 0 || float64(now-records.alone[best]) < share*float64(whole) {
			break
		}
		now -= records.alone[best]
		out = append(out, Pruned{best, records.alone[best], now})
		records.drop(best)
		keys.drop(best)
	}
	return out, nil
}

// A cover is which terms of a block find each record, while terms are taken away.
type cover struct {
	left  []int     // the terms that are
	finds []int     // records of each term
	alone []int     // of them, those that no other term left finds
	hits  [][]int32 // records of each term, by number from 0 among those that the block finds
	terms [][]int32 // terms of each record
	many  []int32   // how many of them are left
}

func newCover(r *Reach, block int) *cover {
	if r == nil {
		return nil
	}
	found := r.Blocks[block].Clone()
	for _, hits := range r.Terms[block] {
		if hits != nil {
			found.Or(hits)
		}
	}
	n := len(r.Terms[block])
	c := &cover{finds: make([]int, n), alone: make([]int, n), hits: make([][]int32, n),
		terms: make([][]int32, count(found)), many: make([]int32, count(found))}
	for i, hits := range r.Terms[block] {
		if hits == nil {
			continue
		}
		c.left = append(c.left, i)
		c.finds[i] = count(hits)
		place := 0 // both are ascending
		all := found.Iterator()
		for it := hits.Iterator(); it.HasNext(); {
			for k := it.Next(); all.Next() != k; {
				place++
			}
			c.hits[i] = append(c.hits[i], int32(place))
			c.terms[place] = append(c.terms[place], int32(i))
			c.many[place]++
			place++
		}
	}
	for k, many := range c.many {
		if many == 1 {
			c.alone[c.terms[k][0]]++
		}
	}
	return c
}

// drop takes a term away; what one other alone then finds is its own.
func (c *cover) drop(term int) {
	if c == nil {
		return
	}
	c.left = slices.DeleteFunc(c.left, func(i int) bool { return i == term })
	for _, k := range c.hits[term] {
		if c.many[k]--; c.many[k] == 1 {
			for _, other := range c.terms[k] {
				if slices.Contains(c.left, int(other)) {
					c.alone[other]++
				}
			}
		}
	}
}
