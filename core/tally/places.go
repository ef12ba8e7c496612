package tally

import (
	"context"
	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/index"
)

// Places are the items of some records and where each stands in their text.
type Places struct {
	Stream index.Stream
	Items  []Row
	places [][]uint32 // where in the stream each begins, ascending
}

// Of returns where in the stream an item begins, ascending.
func (p *Places) Of(item int) []uint32 { return p.places[item] }

// Words returns of how many tokens an item is.
func (p *Places) Words(item int) int { return p.Items[item].words }

// FindPlaces finds the kept n-grams of a set of records that keep admits, and where they stand.
func FindPlaces(ctx context.Context, ix *index.Index, set *roaring.Bitmap, o WordOptions, keep func(item Row, words int) bool) (*Places, error) {
	p := &Places{Stream: ix.Stream(set, o.Fields)}
	found, err := newGrams(ctx, ix, p.Stream, o.MaxWords, o.MinRecords)
	if err != nil {
		return nil, err
	}
	rows, place := found.items(ix, p.Stream)
	number := make([]int32, len(rows))
	for i, r := range rows {
		number[i] = none
		if keep(r, r.words) {
			number[i] = int32(len(p.Items))
			p.Items = append(p.Items, r)
			p.places = append(p.places, make([]uint32, 0, r.Occurrences))
		}
	}
	found.walk(p.Stream, func(n int, at []int32) {
		for i, gram := range at {
			if gram == none || place[n][gram] == none {
				continue
			}
			if item := number[place[n][gram]]; item != none {
				p.places[item] = append(p.places[item], uint32(i))
			}
		}
	})
	return p, ctx.Err()
}
