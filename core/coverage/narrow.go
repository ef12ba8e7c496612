package coverage

import (
	"cmp"
	"slices"
)

// A Narrow is a part of a strategy that leaves nothing or very little: a block or a pair of blocks that find so little
// together, or a NOT block or a limit without which there would be more. What it is not is -1.
type Narrow struct {
	Block, With, Limit int
	Leaves             int // records that the block, or both together, find
	Without            int // records that the strategy would find without the NOT block or the limit
}

// Narrowest returns the parts that are to blame where a strategy finds at most so many records: blocks that find no
// more by themselves, else pairs of blocks, those that find least together first; else NOT blocks and limits, those
// that take most first. It is empty where the strategy finds more, or where only more than two blocks together do
// it.
func (r *Reach) Narrowest(most int) (out []Narrow) {
	if count(r.Whole) > most {
		return nil
	}
	var searched []int
	for i, b := range r.s.Blocks {
		if !b.Searched || b.Negated {
			continue
		}
		searched = append(searched, i)
		if n := count(r.Blocks[i]); n <= most {
			out = append(out, Narrow{i, none, none, n, 0})
		}
	}
	if len(out) == 0 {
		for k, i := range searched {
			for _, j := range searched[:k] {
				if n := int(r.Blocks[i].AndCardinality(r.Blocks[j])); n <= most {
					out = append(out, Narrow{j, i, none, n, 0})
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b Narrow) int { return cmp.Compare(a.Leaves, b.Leaves) })
	if len(out) > 0 {
		return out
	}
	whole := count(r.Whole)
	for i, b := range r.s.Blocks {
		if b.Searched && b.Negated {
			if n := whole + r.TakenAwayByBlock(i); n > most {
				out = append(out, Narrow{i, none, none, 0, n})
			}
		}
	}
	for i := range r.Limits {
		if n := whole + r.TakenAwayByLimit(i); n > most {
			out = append(out, Narrow{none, none, i, 0, n})
		}
	}
	slices.SortStableFunc(out, func(a, b Narrow) int { return cmp.Compare(b.Without, a.Without) })
	return out
}
