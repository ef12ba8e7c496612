package app

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
	"tamiz/core/tally"
	"tamiz/store"
)

// A RecordSet is the records behind a figure: those of the sample with an item, those a term or a block
// finds, those only a term finds, those the strategy finds, or all of the sample; or records that need not
// be in the sample: of any sample, of two put together, the shelf, or a selection.
type RecordSet struct {
	Facet    *tally.Facet  `json:"facet,omitempty"`
	Item     *string       `json:"item,omitempty"`
	Term     *Term         `json:"term,omitempty"`
	Only     *bool         `json:"only,omitempty"` // with a term and its block: what no other term of the block finds
	Block    *string       `json:"block,omitempty"`
	Strategy *bool         `json:"strategy,omitempty"`
	Any      *bool         `json:"any,omitempty"`    // what any searched block finds
	Spot     *bool         `json:"spot,omitempty"`   // with a block: its blind spot
	Team     []string      `json:"team,omitempty"`   // authors, by their keys: records with two of them
	Within   *RecordSet    `json:"within,omitempty"` // with an item: of these alone
	Aspect   *tally.Aspect `json:"aspect,omitempty"` // with a facet: which records around the item, where not those that hold it

	Sample *int64      `json:"sample,omitempty"`
	Joined *JoinedSets `json:"joined,omitempty"`
	Shelf  *bool       `json:"shelf,omitempty"`
	IDs    []int64     `json:"ids,omitempty"`
}

// JoinedSets is two samples put together.
type JoinedSets struct {
	Pair
	How string `json:"how"` // union, overlap or difference
}

func yes(b *bool) bool { return b != nil && *b }

const maxSelected = 100_000 // records of a selection

// beside returns the records of a set that need not be in the sample that is looked at; ok is false for one
// that is.
func (a *App) beside(ctx context.Context, review int64, s RecordSet) (ids []int64, ok bool, err error) {
	switch {
	case len(s.IDs) > maxSelected:
		return nil, true, invalid("ids", "At most %d records are selected at once.", maxSelected)
	case s.IDs != nil:
		return s.IDs, true, nil
	case yes(s.Shelf):
		ids, err = a.store.ShelvedIDs(ctx, review)
		return ids, true, err
	case s.Sample != nil:
		samples, err := a.store.Samples(ctx, review)
		if err != nil {
			return nil, true, err
		}
		if !slices.ContainsFunc(samples, func(x Sample) bool { return x.ID == *s.Sample }) {
			return nil, true, gone(store.ErrNone, "sample")
		}
		ids, err = a.store.SampleIDs(ctx, *s.Sample)
		return ids, true, err
	case s.Joined != nil:
		_, both, onlyA, onlyB, _, err := a.compared(ctx, review, s.Joined.Pair)
		if err != nil {
			return nil, true, err
		}
		ids, err = joinedBy(s.Joined.How, both, onlyA, onlyB)
		return ids, true, err
	}
	return nil, false, nil
}

// setIDs returns the records of any set, by their numbers in the store.
func (a *App) setIDs(ctx context.Context, review int64, s RecordSet) ([]int64, error) {
	if ids, ok, err := a.beside(ctx, review, s); ok || err != nil {
		return ids, err
	}
	d, err := a.desk(ctx, review)
	if err != nil {
		return nil, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	found, err := d.behind(ctx, s)
	if err != nil {
		return nil, err
	}
	ids := make([]int64, 0, found.GetCardinality())
	for it := found.Iterator(); it.HasNext(); {
		ids = append(ids, d.pool.ids[it.Next()])
	}
	return ids, nil
}

// Records returns some of the records of a set, in its order: that of the sample, where they are of it.
func (a *App) Records(ctx context.Context, review int64, q RecordsQuestion) (*RecordList, error) {
	if q.At < 0 || q.Limit < 1 || q.Limit > recordPage {
		return nil, invalid("limit", "1 to %d records are told at once.", recordPage)
	}
	d, err := a.desk(ctx, review)
	if err != nil {
		return nil, err
	}
	out := &RecordList{Records: []RecordHead{}}
	ids, ok, err := a.beside(ctx, review, q.Of)
	if err != nil {
		return nil, err
	}
	if ok {
		out.Total = len(ids)
		from := min(q.At, len(ids))
		stored, err := a.store.RecordsByID(ctx, ids[from:min(from+q.Limit, len(ids))])
		for _, s := range stored {
			out.Records = append(out.Records, d.head(s))
		}
		return out, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	found, err := d.behind(ctx, q.Of)
	if err != nil {
		return nil, err
	}
	out.Total = int(found.GetCardinality())
	it := found.Iterator()
	for n := 0; it.HasNext() && len(out.Records) < q.Limit; n++ {
		if i := it.Next(); n >= q.At {
			out.Records = append(out.Records, d.head(store.StoredRecord{ID: d.pool.ids[i], Record: d.pool.Records[i]}))
		}
	}
	return out, nil
}

// behind returns the records of a set: of an item or a team, within what is looked at; of anything else, within the
// sample.
func (d *desk) behind(ctx context.Context, s RecordSet) (*roaring.Bitmap, error) {
	told, err := d.pool.told(s, func(f tally.Facet, item string) ([]string, error) { return d.pool.forms(ctx, d.look, f, item, d.keys) })
	if err != nil {
		return nil, err
	}
	if told != nil {
		return roaring.And(told, d.look.Sample), nil
	}
	these, err := found(ctx, d.document, d.pool.set(), s)
	if err == nil && these == nil {
		return d.pool.Sample, nil
	}
	return these, err
}

// told returns the records of the pool that an item, an aspect of one or of a whole facet, or a team stands for; nil for
// a set that is told otherwise. variants are those of an item that is a word or phrase.
func (p *pool) told(s RecordSet, variants func(f tally.Facet, item string) ([]string, error)) (*roaring.Bitmap, error) {
	if s.Facet != nil {
		if err := checkFacet(*s.Facet); err != nil {
			return nil, err
		}
	}
	switch {
	case len(s.Team) > 0:
		return p.Together(s.Team), nil
	case s.Facet != nil && s.Aspect != nil:
		key := ""
		if s.Item != nil {
			key = itemKey(*s.Facet, *s.Item, p.parted)
		}
		return p.Around(*s.Facet, key, *s.Aspect), nil
	case s.Facet != nil && s.Item != nil:
		forms, err := variants(*s.Facet, *s.Item)
		if err != nil {
			return nil, err
		}
		return p.having(*s.Facet, *s.Item, forms), nil
	}
	return nil, nil
}

// found returns the records of a set that the blocks or terms of a document find in some records; nil for a
// set that is told by neither.
func found(ctx context.Context, doc Document, set coverage.Set, s RecordSet) (*roaring.Bitmap, error) {
	if s.Term != nil {
		return foundByTerm(doc, set, s)
	}
	if s.Block == nil && !yes(s.Strategy) && !yes(s.Any) {
		return nil, nil
	}
	reach, err := coverage.Find(ctx, set, doc.Strategy(""))
	if err != nil {
		return nil, err
	}
	if yes(s.Any) {
		found := roaring.New()
		for i, b := range doc.Blocks {
			if b.Searched && !b.Negated {
				found.Or(reach.Blocks[i])
			}
		}
		return found, nil
	}
	if s.Block == nil {
		return reach.Whole, nil
	}
	i := doc.Block(*s.Block)
	if i < 0 {
		return nil, gone(store.ErrNone, "block")
	}
	if yes(s.Spot) {
		return reach.BlindSpot(i), nil
	}
	return reach.Blocks[i], nil
}

// foundByTerm returns what a term finds, or what only it finds in its block.
func foundByTerm(doc Document, set coverage.Set, s RecordSet) (*roaring.Bitmap, error) {
	found, err := coverage.Hits(set, s.Term.Term)
	if err != nil {
		r := refusal(err)
		return nil, &Problem{Type: "refused", Status: 422, Field: "term", Title: sentence(r.Message), Detail: r.Reason}
	}
	if !yes(s.Only) || s.Block == nil {
		return found, nil
	}
	i := doc.Block(*s.Block)
	if i < 0 {
		return nil, gone(store.ErrNone, "block")
	}
	others := roaring.New()
	for _, t := range doc.Blocks[i].Terms {
		if !t.On || t.ID == s.Term.ID {
			continue
		}
		more, err := coverage.Hits(set, t.Term)
		if err != nil {
			continue // a term that cannot be searched finds nothing
		}
		others.Or(more)
	}
	return roaring.AndNot(found, others), nil
}
