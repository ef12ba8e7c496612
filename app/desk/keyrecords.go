package desk

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"io"

	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/index"
)

// A KeysBy is by which records of key studies figures go. A key study is its reference as it was brought in, and
// one record for each source that holds it. Of a source figures go by its own record; without one, by all that is
// known put together. The zero KeysBy goes by references alone.
type KeysBy struct {
	Source   *int64            // whose counts are shown, and the sample is drawn from
	Holdings []library.Holding // what is known
	foreign  map[int64]bool
}

// keysBy returns by which records figures go of a look at a review.
func (a *Service) keysBy(ctx context.Context, review int64, l Look) (r KeysBy, err error) {
	r = KeysBy{Source: l.Source, foreign: map[int64]bool{}}
	if r.Holdings, err = a.library.Holdings(ctx, review); err != nil || l.Vocabulary == nil {
		return r, err
	}
	own, err := a.vocabularyRows.One(ctx, *l.Vocabulary)
	if err != nil {
		return r, problems.Gone(err, "vocabulary")
	}
	sources, err := a.library.Sources(ctx)
	for _, s := range sources {
		r.foreign[s.ID] = s.Vocabulary != "" && !s.Tied(own.Name)
	}
	return r, err
}

// KeysAt returns the key studies of a review by their records at a source, under its own vocabulary, which may be nil.
func (a *Service) KeysAt(ctx context.Context, review int64, vocabulary *int64, source int64) (*Keys, error) {
	all, err := a.library.Holdings(ctx, review)
	if err != nil {
		return nil, err
	}
	return a.Pools.Keys(ctx, review, vocabulary, KeysBy{Source: &source, Holdings: all})
}

// key tells records of key studies apart that figures went by.
func (r KeysBy) key() string {
	sum := sha256.New()
	if r.Source != nil {
		fmt.Fprint(sum, "at ", *r.Source)
	}
	for _, h := range r.Holdings {
		if h.State == library.Held {
			fmt.Fprint(sum, " ", h.KeyStudy, h.Source, r.foreign[h.Source], h.At.UnixNano())
		}
	}
	return fmt.Sprintf(" %x", sum.Sum(nil)[:8])
}

// Keys returns the key studies of a review under a vocabulary, which may be nil.
func (p *Pools) Keys(ctx context.Context, review int64, vocabulary *int64, by KeysBy) (*Keys, error) {
	t, err := p.Thesaurus(ctx, vocabulary)
	if err != nil {
		return nil, err
	}
	studies, err := p.library.KeyStudies(ctx, review)
	if err != nil {
		return nil, err
	}
	sum := sha256.New()
	for _, s := range studies {
		fmt.Fprint(sum, s.ID, " ")
	}
	if len(by.Holdings) > 0 {
		_, _ = io.WriteString(sum, by.key())
	}
	key := fmt.Sprintf("keys %d %x", review, sum.Sum(nil)[:16]) + vocabularyKey(vocabulary)
	return Cached(ctx, p.keyStudies, key, func(ctx context.Context) (*Keys, int64, error) {
		k := &Keys{Key: key, Studies: studies, By: make([]int64, len(studies))}
		var known []library.KeyRecord
		if len(by.Holdings) > 0 {
			if known, err = p.library.KeyRecords(ctx, review, 0); err != nil {
				return nil, 0, err
			}
		}
		records, err := by.records(studies, known, k.By)
		if err != nil {
			return nil, 0, err
		}
		for i := range records {
			records[i] = Figured(t, records[i])
		}
		ix, err := index.BuildWithin(ctx, records)
		if err != nil {
			return nil, 0, err
		}
		k.Set = coverage.Set{Records: records, Index: ix, Thesaurus: t}
		return k, recordBytes(records) + ix.Bytes(), nil
	})
}

// records returns the record of each key study that figures go by, and puts down whose it is.
func (r KeysBy) records(studies []library.Key, known []library.KeyRecord, by []int64) ([]*bib.Record, error) {
	of := map[int64][]library.KeyRecord{}
	for _, k := range known {
		of[k.KeyStudy] = append(of[k.KeyStudy], k)
	}
	out := make([]*bib.Record, len(studies))
	for i, s := range studies {
		all := s.Record
		var there *bib.Record
		for _, k := range of[s.ID] {
			var found bib.Record
			if err := json.Unmarshal(k.Body, &found); err != nil {
				return nil, err
			}
			if r.Source != nil && k.Source == *r.Source {
				there = &found
				by[i] = k.Source
			}
			if r.foreign[k.Source] { // headings of another vocabulary say nothing here
				found.Headings = nil
			}
			all = bib.Join(all, &found)
		}
		switch {
		case there == nil:
			out[i] = all
		case r.foreign[by[i]]: // the source has other headings: those that the strategy means are known from elsewhere
			there.Headings = all.Headings
			out[i] = there
		default:
			out[i] = there
		}
	}
	return out, nil
}
