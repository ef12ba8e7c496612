package coverage

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/strategy"
	"tamiz/core/tally"
)

// An Evidence is a heading that records carry which say a word more often than others do.
type Evidence struct {
	Heading string
	Records int     // that say the word
	Share   float64 // of those that say the word and carry any heading
	Pull    float64 // against the others that carry any
}

// HeadingsOf returns the headings that the records of a set carry which a free-text term matches, those most typical of them
// first, and how many records match and carry none.
func HeadingsOf(ctx context.Context, set Set, term strategy.Term) (found []Evidence, without int, err error) {
	said, err := Hits(set, term)
	if err != nil {
		return nil, 0, err
	}
	return HeadingsOfRecords(ctx, &tally.Pool{Records: set.Records, Index: set.Index, Sample: set.All(), Contrast: roaring.New(), Thesaurus: set.Thesaurus}, said)
}

// HeadingsOfRecords does the same for some records of a pool's sample.
func HeadingsOfRecords(ctx context.Context, of *tally.Pool, said *roaring.Bitmap) (found []Evidence, without int, err error) {
	carrying := of.Sample.Clone()
	for it := of.Sample.Iterator(); it.HasNext(); {
		if i := it.Next(); len(of.Records[i].Headings) == 0 {
			carrying.Remove(i)
		}
	}
	in := roaring.And(said, carrying)
	counted, err := tally.CountList(ctx, of.Over(in, carrying), tally.Headings, nil)
	if err != nil {
		return nil, 0, err
	}
	found = []Evidence{}
	for _, r := range counted.Rows {
		if r.Records > 0 && tally.Round(r.Pull) > 0 {
			found = append(found, Evidence{r.Item, r.Records, float64(r.Records) / float64(in.GetCardinality()), r.Pull})
		}
	}
	slices.SortStableFunc(found, func(a, b Evidence) int {
		return cmp.Or(cmp.Compare(tally.Round(b.Pull), tally.Round(a.Pull)), cmp.Compare(b.Records, a.Records), strings.Compare(a.Heading, b.Heading))
	})
	return found, int(said.GetCardinality() - in.GetCardinality()), nil
}
