package sources

import (
	"context"
	"slices"

	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/store"
)

// Between is what a source finds that only one of two versions of the strategy does.
type Between struct {
	Gained *SourceCount `json:"gained,omitempty"` // new NOT old; nothing where it cannot be asked
	Lost   *SourceCount `json:"lost,omitempty"`   // old NOT new
}

// BetweenVersions asks a source for what one version finds and the other does not.
func (a *Service) BetweenVersions(ctx context.Context, review, id int64, older, newer int) (*Between, error) {
	s, c, err := a.Named(ctx, id)
	if err != nil {
		return nil, err
	}
	var said [2]dialect.Written
	var as Speech
	for i, n := range []int{older, newer} {
		m, err := a.MeaningAt(ctx, review, n)
		if err != nil {
			return nil, err
		}
		if m.Query == nil {
			return nil, &problems.Problem{
				Type:   "no-query",
				Status: 409,
				Title:  "One of the versions finds nothing: there is nothing to compare.",
			}
		}
		if as, err = a.Speech(ctx, s, m.Doc.Vocabulary); err != nil {
			return nil, err
		}
		typed, err := as.Typed(m.Doc.Strategy(""), m.Terms)
		if err != nil {
			return nil, err
		}
		said[i] = typed.Whole
	}
	ctx, cancel := context.WithTimeout(ctx, AskTime)
	defer cancel()
	out := &Between{}
	for i, to := range []**SourceCount{&out.Gained, &out.Lost} {
		// Each as it is asked: what the source cannot be asked of one is left out on that side alone.
		found, taken := said[1-i], said[i]
		if found.Said == nil || taken.Said == nil {
			continue
		}
		cql, notes := as.asked(query.Not{found.Said, taken.Said}, slices.Concat(found.Notes, taken.Notes))
		if *to, err = a.Counted(ctx, s, c, cql, notes); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// CountVersion asks a source how many records a version finds there. What it says is a run, of that version.
func (a *Service) CountVersion(ctx context.Context, review, version, id int64) error {
	s, c, err := a.Named(ctx, id)
	if err != nil {
		return err
	}
	kept, err := a.reviewRows.Versions(ctx, review, mostVersions)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(kept, func(v reviews.Version) bool { return v.ID == version })
	if i < 0 {
		return problems.Gone(store.ErrNone, "version")
	}
	w := wanted{kind: "whole"}
	as, err := a.AskedOf(ctx, review, kept[i].Revision, s)
	if err != nil {
		return err
	}
	w.query, w.notes = as.Whole, as.Notes
	if w.query == "" {
		return &problems.Problem{Type: "no-query", Status: 409, Title: "This version cannot be asked at " + s.Name + "."}
	}
	ctx, cancel := context.WithTimeout(ctx, AskTime)
	defer cancel()
	k, err := a.countToday(ctx, s, c, w.query)
	if err != nil {
		return Unanswered(s.Name, err)
	}
	defer a.jobs.Tell(ctx, review, jobs.News{Kind: "versions"})
	return a.logCount(ctx, jobs.Task{Number: review, Who: store.AuthorOf(ctx).Name}, s, kept[i].Revision, w, k)
}

// mostVersions is how many of the newest versions are looked through.
const mostVersions = 200
