package coverage

import (
	"cmp"
	"context"
	"math"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/tally"
)

// A Step of a rescue plan is one candidate added to its block, and how the strategy then stands.
type Step struct {
	Block     int
	Candidate     // with its rescues and price at this step
	Caught    int // key studies
	Hits      int // of the whole strategy
}

// Plan returns, one after the other, the candidates that are the best bargain at each step: rescues and
// price are worked out anew, with what was added before, until none of any worth rescues anything more.
func (r *Rescuer) Plan(ctx context.Context, blocks []BlockRescue) ([]Step, error) {
	records, keys := r.reach.copy(), r.inKeys.copy()
	priced := make([]*Reach, len(r.priced))
	for i, reach := range r.priced {
		if priced[i] = records; reach != r.reach {
			priced[i] = reach.copy()
		}
	}
	var left [][]Candidate
	for _, b := range blocks {
		left = append(left, b.Candidates)
	}
	var out []Step
	for {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		best, at, where := Candidate{}, -1, -1
		for i, b := range blocks {
			missed := r.keys.All()
			missed.AndNot(keys.Blocks[b.Block])
			if missed.IsEmpty() {
				continue
			}
			open := priced[b.Block].Open(b.Block)
			rest := left[i][:0:0]
			for _, c := range left[i] {
				if tally.Round(c.Suit) == 0 {
					continue // it will never be of any worth
				}
				if c.Rescues = int(c.found.keys.AndCardinality(missed)); c.Rescues == 0 {
					continue // nor will one that rescues nothing any more
				}
				// What cannot be the best even for nothing is not priced in this round.
				if at >= 0 && tally.Round(c.most()) < tally.Round(best.Worth) {
					rest = append(rest, c)
					continue
				}
				c = c.at(missed, open)
				rest = append(rest, c)
				if tally.Round(c.Worth) > 0 &&
					(at < 0 || cmp.Or(better(c, best), cmp.Compare(r.s.Blocks[b.Block].Name, r.s.Blocks[blocks[at].Block].Name)) < 0) {
					best, at, where = c, i, len(rest)-1
				}
			}
			left[i] = rest
		}
		if at < 0 {
			return out, nil
		}
		left[at] = append(left[at][:where:where], left[at][where+1:]...)
		block := blocks[at].Block
		records.add(block, best.found.records)
		for _, reach := range priced {
			if reach != records {
				reach.add(block, best.found.records)
			}
		}
		keys.add(block, best.found.keys)
		out = append(out, Step{Block: block, Candidate: best, Caught: count(keys.Whole), Hits: count(records.Whole)})
	}
}

// most returns the worth that a candidate would have if it cost nothing.
func (c Candidate) most() float64 { return float64(c.Rescues) * c.Suit / math.Sqrt(5) }

// copy returns a reach whose blocks can grow.
func (r *Reach) copy() *Reach {
	out := *r
	out.Blocks = make([]*roaring.Bitmap, len(r.Blocks))
	for i, b := range r.Blocks {
		out.Blocks[i] = b.Clone()
	}
	return &out
}

// add puts records into what a block finds.
func (r *Reach) add(block int, records *roaring.Bitmap) {
	r.Blocks[block].Or(records)
	if r.set.Within != nil {
		r.Blocks[block].And(r.set.Within)
	}
	r.Whole = r.without(none, none)
}

// Left returns the key studies that the strategy misses and no step of a plan brings back, by place.
func (r *Rescuer) Left(steps []Step) []int {
	keys := r.inKeys.copy()
	for _, s := range steps {
		keys.add(s.Block, s.found.keys)
	}
	left := r.keys.All()
	left.AndNot(keys.Whole)
	out := []int{}
	for _, k := range left.ToArray() {
		out = append(out, int(k))
	}
	return out
}
