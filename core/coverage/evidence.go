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
	All     int     // that carry it, whether they say the word or not
	Share   float64 // of those that say the word and carry any heading
	Pull    float64 // against the others that carry any
}

// HeadingsOf returns the headings that the records of a set carry which a free-text term matches, those most
// typical of them first, and how many records match and carry none.
func HeadingsOf(ctx context.Context, set Set, term strategy.Term) (found []Evidence, without int, err error) {
	said, err := Hits(set, term)
	if err != nil {
		return nil, 0, err
	}
	return HeadingsOfRecords(
		ctx,
		&tally.Pool{
			Records:   set.Records,
			Index:     set.Index,
			Sample:    set.All(),
			Contrast:  roaring.New(),
			Thesaurus: set.Thesaurus,
		},
		said,
	)
}

// HeadingsOfRecords does the same for some records of a pool's sample.
func HeadingsOfRecords(
	ctx context.Context,
	of *tally.Pool,
	said *roaring.Bitmap,
) (found []Evidence, without int, err error) {
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
			found = append(
				found,
				Evidence{
					r.Item,
					r.Records,
					r.Records + r.ContrastRecords,
					float64(r.Records) / float64(in.GetCardinality()),
					r.Pull,
				},
			)
		}
	}
	slices.SortStableFunc(found, func(a, b Evidence) int {
		return cmp.Or(
			cmp.Compare(tally.Round(b.Pull), tally.Round(a.Pull)),
			cmp.Compare(b.Records, a.Records),
			strings.Compare(a.Heading, b.Heading),
		)
	})
	return found, int(said.GetCardinality() - in.GetCardinality()), nil
}

// StandIns puts headings that records carry which say the words of another in the order in which they are likely to
// mean the same: by pull times the share of their own records that say those words. A heading that is about more,
// or about something that goes along with it, carries many records that do not.
//
// To those that carry it some are laid that say none of the words, so that one or two records do not put a heading
// first.
func StandIns(of []Evidence) []Evidence {
	worth := func(e Evidence) float64 { return e.Pull * float64(e.Records) / float64(e.All+chanceCarriers) }
	out := slices.Clone(of)
	slices.SortStableFunc(out, func(a, b Evidence) int {
		return cmp.Or(
			cmp.Compare(tally.Round(worth(b)), tally.Round(worth(a))),
			cmp.Compare(b.Records, a.Records),
			strings.Compare(a.Heading, b.Heading),
		)
	})
	return out
}

const chanceCarriers = 5
