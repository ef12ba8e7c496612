package figures

import (
	"context"

	"tamiz/app/desk"
	"tamiz/core/bib"
	"tamiz/core/coverage"
)

// Ways are two ways in which relevant records were found, as sets of records.
type Ways struct {
	First  desk.RecordSet `json:"first"`
	Second desk.RecordSet `json:"second"`
}

// An Estimate is how many relevant records there may be, from those that two ways found: known are key studies and records
// that were judged relevant, by identity.
type Estimate struct {
	Known   int      `json:"known"` // relevant records, each work once
	First   FoundBy  `json:"first"`
	Second  FoundBy  `json:"second"`
	Both    int      `json:"both"`
	Neither int      `json:"neither"`
	Total   Interval `json:"total"`
}

// A FoundBy is what one way found: records, and relevant ones among them.
type FoundBy struct {
	Records  int      `json:"records"`
	Relevant int      `json:"relevant"`
	Only     []string `json:"only"` // titles of relevant ones that the other did not find
}

const readAtOnce = 2000 // records of a set, while works are looked for among them

// Estimate works out how many relevant records there may be in all.
func (a *Service) Estimate(ctx context.Context, at desk.At, w Ways) (*Estimate, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	works, err := a.relevantWorks(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	var known bib.Known
	for i, r := range works {
		known.Add(r, i)
	}
	in := func(s desk.RecordSet) (found []bool, records int, err error) {
		ids, err := a.desk.SetIDs(ctx, at, s.Set)
		if err != nil {
			return nil, 0, err
		}
		found = make([]bool, len(works))
		for from := 0; from < len(ids); from += readAtOnce {
			some, err := a.store.RecordsByID(ctx, ids[from:min(from+readAtOnce, len(ids))])
			if err != nil {
				return nil, 0, err
			}
			for _, r := range some {
				if i, ok := known.Find(r.Record); ok {
					found[i] = true
				}
			}
		}
		return found, len(ids), nil
	}
	first, n, err := in(w.First)
	if err != nil {
		return nil, err
	}
	second, m, err := in(w.Second)
	if err != nil {
		return nil, err
	}
	out := &Estimate{Known: len(works), First: FoundBy{Records: n, Only: []string{}}, Second: FoundBy{Records: m, Only: []string{}}}
	for i, work := range works {
		switch {
		case first[i] && second[i]:
			out.Both++
		case first[i]:
			out.First.Only = append(out.First.Only, work.Title)
		case second[i]:
			out.Second.Only = append(out.Second.Only, work.Title)
		default:
			out.Neither++
		}
	}
	out.First.Relevant, out.Second.Relevant = out.Both+len(out.First.Only), out.Both+len(out.Second.Only)
	e := coverage.Chapman(out.First.Relevant, out.Second.Relevant, out.Both)
	out.Total = Interval{e.Total, e.Low, &e.High}
	return out, nil
}

// relevantWorks returns the key studies of a review and the records that were judged relevant, each work once.
func (a *Service) relevantWorks(ctx context.Context, review int64) (out []*bib.Record, err error) {
	keys, err := a.store.KeyStudies(ctx, review)
	if err != nil {
		return nil, err
	}
	said, err := a.store.Judgements(ctx, review)
	if err != nil {
		return nil, err
	}
	not := map[int64]bool{}
	var ids []int64
	for _, j := range said {
		switch j.Verdict {
		case relevant:
			ids = append(ids, j.Record)
		case "not":
			not[j.Record] = true
		}
	}
	judged, err := a.store.RecordsByID(ctx, ids)
	if err != nil {
		return nil, err
	}
	var known bib.Known
	add := func(r *bib.Record) {
		if _, ok := known.Find(r); !ok {
			known.Add(r, len(out))
			out = append(out, r)
		}
	}
	for _, k := range keys {
		if !not[k.StoredRecord.ID] {
			add(k.StoredRecord.Record)
		}
	}
	for _, r := range judged {
		add(r.Record)
	}
	return out, nil
}
