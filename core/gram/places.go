package gram

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
)

// Places are items of some records and where each stands in their text.
type Places struct {
	Stream index.Stream
	Items  []Item
	places [][]uint32 // where in the stream each begins, ascending
}

// An Item is one with its figures.
type Item struct {
	Name        string
	Words       int // tokens
	Records     int
	Occurrences int
	Family      string // the item that labels it
	Absorbed    bool   // it never stands without a longer one
}

// Of returns where in the stream an item begins, ascending.
func (p *Places) Of(item int) []uint32 { return p.places[item] }

// FindPlaces finds the items of a set of records that are in enough of them and that keep admits, and where they stand.
func FindPlaces(ctx context.Context, ix *index.Index, set *roaring.Bitmap, fields bib.Field, maxWords, least int, keep func(Item) bool) (*Places, error) {
	p := &Places{Stream: ix.Stream(set, fields)}
	found, err := Find(ctx, ix, p.Stream, maxWords, least, nil)
	if err != nil {
		return nil, err
	}
	items, place := found.Items(ix, p.Stream)
	counts := found.Counts(items, place)
	of := func(i int32) Count { return counts[i] }
	label := items.Labels(of, 0)
	number := make([]int32, items.Len())
	for i, c := range counts {
		i := int32(i)
		number[i] = None
		item := Item{Name: items.Name(i), Words: items.Words(i), Records: int(c.Records), Occurrences: int(c.Occurrences), Family: items.Name(label[items.Family(i)]),
			Absorbed: items.Absorber(i, of) != None}
		if keep(item) {
			number[i] = int32(len(p.Items))
			p.Items = append(p.Items, item)
			p.places = append(p.places, make([]uint32, 0, item.Occurrences))
		}
	}
	found.walk(p.Stream, func(n int, at []int32) {
		for i, gram := range at {
			if gram == None || place[n][gram] == None {
				continue
			}
			if item := number[place[n][gram]]; item != None {
				p.places[item] = append(p.places[item], uint32(i))
			}
		}
	})
	return p, ctx.Err()
}
