package rounds

import (
	"context"
	"maps"
	"slices"

	"tamiz/app/library"
	"tamiz/core/bib"
)

// What a person said of a work.
const (
	isKey    = "key"
	relevant = "relevant"
	isNot    = "not"
	unsure   = "unsure"
)

// known is what is known of works in a review: key studies, what was judged, what stands on the shelf. It goes by
// the work, not by the record: what was judged in one source's record is not asked of another's.
type known struct {
	works    bib.Known
	verdicts []string
	said     []library.Judgement // by whom and when, where it was judged
	shelf    bib.Known
	belong   []*bib.Record // key studies first, then what was judged to be relevant
	not      []*bib.Record
}

func (k *known) verdict(r *bib.Record) string { return k.verdictOf(bib.IdentityOf(r)) }

func (k *known) verdictOf(self bib.Identity) string {
	if n, ok := k.works.Get(self); ok {
		return k.verdicts[n]
	}
	return ""
}

func (k *known) put(r *bib.Record, verdict string, said library.Judgement) {
	if _, twice := k.works.Find(r); twice {
		return
	}
	k.works.Add(r, len(k.verdicts))
	k.verdicts, k.said = append(k.verdicts, verdict), append(k.said, said)
	switch verdict {
	case isKey, relevant:
		k.belong = append(k.belong, r)
	case isNot:
		k.not = append(k.not, r)
	}
}

// known returns what is known in a review.
func (a *Service) known(ctx context.Context, review int64) (*known, error) {
	k := &known{}
	keys, err := a.library.KeyStudies(ctx, review)
	if err != nil {
		return nil, err
	}
	for _, s := range keys {
		k.put(s.Record, isKey, library.Judgement{})
	}
	judged, err := a.library.Judgements(ctx, review)
	if err != nil {
		return nil, err
	}
	dismissed, err := a.watches.Dismissed(ctx, review)
	if err != nil {
		return nil, err
	}
	shelf, err := a.library.ShelvedIDs(ctx, review)
	if err != nil {
		return nil, err
	}
	ids := slices.AppendSeq(slices.Clone(shelf), maps.Keys(dismissed))
	for _, j := range judged {
		ids = append(ids, j.Record)
	}
	records := map[int64]*bib.Record{}
	if err := a.each(ctx, ids, func(s library.StoredRecord) { records[s.ID] = s.Record }); err != nil {
		return nil, err
	}
	// Of what was said of two records of one work the last counts.
	slices.SortStableFunc(judged, func(a, b library.Judgement) int { return b.Made.Compare(a.Made) })
	for _, j := range judged {
		if r := records[j.Record]; r != nil {
			k.put(r, j.Verdict, j)
		}
	}
	for _, id := range slices.Sorted(maps.Keys(dismissed)) {
		if r := records[id]; r != nil {
			k.put(r, isNot, library.Judgement{})
		}
	}
	for _, id := range shelf {
		if r := records[id]; r != nil {
			k.shelf.Add(r, 0)
		}
	}
	return k, nil
}

// each reads records, a few at a time, in the order of their numbers.
func (a *Service) each(ctx context.Context, ids []int64, visit func(library.StoredRecord)) error {
	ids = slices.Compact(slices.Sorted(slices.Values(ids)))
	for part := range slices.Chunk(ids, atOnce) {
		stored, err := a.library.RecordsByID(ctx, part)
		if err != nil {
			return err
		}
		for _, s := range stored {
			visit(s)
		}
	}
	return nil
}
