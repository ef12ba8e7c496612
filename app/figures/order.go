package figures

import (
	"context"
	"encoding/json"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/core/coverage"
	"tamiz/core/set"
	"tamiz/core/tally"
)

const leastOrdered = 2 // records of a candidate

// ordered returns the rows of a tally of words or keywords of what the blocks find now in the order in which they are
// decided with the least work: by pull, and by what suits a block and is new there. What is decided, or what a term
// finds already, comes after; all else stays as it is. It reports whether it did.
func (a *Service) ordered(ctx context.Context, at desk.At, t *counting) ([]int, bool, error) {
	if _, any := t.desk.Set.(*set.Any); !any || !desk.Textual(t.Facet) || t.Contrast == 0 {
		return nil, false, nil
	}
	words, err := a.droppedWords(ctx, at)
	if err != nil {
		return nil, false, err
	}
	offers, err := offersOf(ctx, t.desk, words)
	if err != nil {
		return nil, false, err
	}
	decided, err := a.decided(ctx, at, t.Facet)
	if err != nil {
		return nil, false, err
	}
	found, err := t.foundAlready(ctx)
	if err != nil {
		return nil, false, err
	}
	var open, rest []int
	var all []coverage.Ordered
	for i := range t.Len() {
		if i&1023 == 0 && ctx.Err() != nil {
			return nil, false, ctx.Err()
		}
		r := t.Row(i)
		if r.Records < leastOrdered || found.Contains(uint32(i)) || decided[desk.ItemKey(t.Facet, r.Item, nil)] {
			rest = append(rest, i)
			continue
		}
		open = append(open, i)
		all = append(
			all,
			coverage.Ordered{Item: r.Item, Records: r.Records, Pull: tally.Round(r.Pull), Fresh: offers.Fresh(r.Item)},
		)
	}
	out := coverage.Order(all)
	for i, k := range out {
		out[i] = open[k]
	}
	return append(out, rest...), true, nil
}

// decided returns the items of a facet that are parked or dropped.
func (a *Service) decided(ctx context.Context, at desk.At, f tally.Facet) (map[string]bool, error) {
	all, err := a.reviewRows.Decisions(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	out := map[string]bool{}
	for _, d := range all {
		if tally.Facet(d.Facet) == f {
			out[d.Item] = true
		}
	}
	return out, nil
}

// offersOf returns what all items of a pool offer to the blocks, kept with the pool. Of a block that the samples
// tell nothing of nothing is new. What was dropped, where that is given, pushes away what is like it.
func offersOf(ctx context.Context, d *desk.Desk, dropped []string) (*coverage.Offers, error) {
	kept, suits, err := suitsOf(ctx, d)
	if err != nil {
		return nil, err
	}
	said, err := json.Marshal([]any{d.Strategy, d.Document.Seeded(d.Strategy), dropped})
	if err != nil {
		return nil, err
	}
	return desk.Cached(
		ctx,
		d.Pool.Suited,
		"offers "+string(said),
		func(ctx context.Context) (*coverage.Offers, int64, error) {
			spots := make([]*roaring.Bitmap, len(d.Document.Blocks))
			for i, b := range d.Document.Blocks {
				free := d.Free(b.ID)
				if !b.Searched || b.Negated || free == nil {
					continue
				}
				reach, err := coverage.Find(ctx, free.Set, d.Strategy)
				if err != nil {
					return nil, 0, err
				}
				spots[i] = reach.BlindSpot(i)
			}
			offers, err := coverage.Offered(ctx, suits, kept, spots, dropped)
			return offers, bytesOfFits(kept.Len(), len(spots)), err
		},
	)
}
