package figures

import (
	"context"
	"slices"

	"tamiz/app/desk"
	"tamiz/core/bib"
	"tamiz/core/coverage"
)

// Ways are two ways in which relevant records were found, as sets of records.
type Ways struct {
	First  desk.RecordSet `json:"first"`
	Second desk.RecordSet `json:"second"`
}

// An Estimate is how many relevant records there may be, from those that two ways found: known are key studies and
// records that were judged relevant, by identity.
type Estimate struct {
	Known   int     `json:"known"` // relevant records, each work once
	First   FoundBy `json:"first"`
	Second  FoundBy `json:"second"`
	Both    int     `json:"both"`
	Neither int     `json:"neither"`
	Few     bool    `json:"few,omitempty"` // so few in both that the figure says little
	// all records of one way are among those of the other: nothing can be estimated from the two
	Inside bool `json:"inside,omitempty"`

	Total *Interval `json:"total,omitempty"` // never below what is known; absent where nothing can be estimated
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
	in := func(s desk.RecordSet) (found []bool, ids []int64, err error) {
		ids, err = a.desk.SetIDs(ctx, at, s.Set)
		if err != nil {
			return nil, nil, err
		}
		found = make([]bool, len(works))
		for from := 0; from < len(ids); from += readAtOnce {
			some, err := a.library.RecordsByID(ctx, ids[from:min(from+readAtOnce, len(ids))])
			if err != nil {
				return nil, nil, err
			}
			for _, r := range some {
				if i, ok := known.Find(r.Record); ok {
					found[i] = true
				}
			}
		}
		return found, ids, nil
	}
	first, one, err := in(w.First)
	if err != nil {
		return nil, err
	}
	second, other, err := in(w.Second)
	if err != nil {
		return nil, err
	}
	out := &Estimate{
		Known:  len(works),
		First:  FoundBy{Records: len(one), Only: []string{}},
		Second: FoundBy{Records: len(other), Only: []string{}},
	}
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
	out.Few = coverage.FewBoth(out.Both)
	if out.Inside = holdsAll(one, other) || holdsAll(other, one); out.Inside || out.Both == 0 {
		return out, nil
	}
	e := coverage.Chapman(out.First.Relevant, out.Second.Relevant, out.Both).AtLeast(len(works))
	out.Total = &Interval{e.Total, e.Low, &e.High}
	if len(out.First.Only) == 0 && len(out.Second.Only) == 0 {
		out.Total.High = nil // both found the same: nothing bounds what neither did
	}
	return out, nil
}

// holdsAll reports whether all of some records are among others.
func holdsAll(all, some []int64) bool {
	in := make(map[int64]bool, len(all))
	for _, id := range all {
		in[id] = true
	}
	return !slices.ContainsFunc(some, func(id int64) bool { return !in[id] })
}

// relevantWorks returns the key studies of a review and the records that were judged relevant, each work once.
func (a *Service) relevantWorks(ctx context.Context, review int64) (out []*bib.Record, err error) {
	keys, err := a.library.KeyStudies(ctx, review)
	if err != nil {
		return nil, err
	}
	said, err := a.library.Judgements(ctx, review)
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
	judged, err := a.library.RecordsByID(ctx, ids)
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
