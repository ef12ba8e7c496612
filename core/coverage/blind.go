package coverage

import (
	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/tally"
)

// BlindSpot returns the records that all other searched blocks find and this one does not. Limits and
// NOT blocks are left aside. Without another searched block that is every record the block misses.
func (r *Reach) BlindSpot(block int) *roaring.Bitmap {
	spot := r.set.All()
	for i, b := range r.s.Blocks {
		if i != block && b.Searched && !b.Negated {
			spot.And(r.Blocks[i])
		}
	}
	spot.AndNot(r.Blocks[block])
	return spot
}

// BlindSpots returns the blind spots of all blocks that are searched, nil for each of the others.
func (r *Reach) BlindSpots() []*roaring.Bitmap {
	out := make([]*roaring.Bitmap, len(r.s.Blocks))
	for i, b := range r.s.Blocks {
		if b.Searched && !b.Negated {
			out[i] = r.BlindSpot(i)
		}
	}
	return out
}

// Typical returns the blind spot of a block, set against all other records, as what can be counted: what
// is typical there is what the block may lack.
func (r *Reach) Typical(block int) *tally.Pool {
	spot, rest := r.BlindSpot(block), r.set.All()
	rest.AndNot(spot)
	return &tally.Pool{
		Records:   r.set.Records,
		Index:     r.set.Index,
		Sample:    spot,
		Contrast:  rest,
		Thesaurus: r.set.Thesaurus,
	}
}
