package runs

import (
	"context"
	"errors"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/problems"
	"tamiz/store"
)

// Limits of what is written down by hand.
const (
	maxPlace = 200
	maxTyped = 1 << 20
	maxNote  = 4000
)

// A HandRun is a search somewhere that cannot be asked by protocol, as somebody writes it down; or what puts right
// one that was written down before.
type HandRun struct {
	Way      string    `json:"way,omitempty"` // one of Ways; a search, where none is said
	Place    string    `json:"place"`
	Query    string    `json:"query"`
	Records  *int64    `json:"records,omitempty"` // as many as its sample has, where none is said
	At       time.Time `json:"at"`
	Note     string    `json:"note,omitempty"`
	Sample   *int64    `json:"sample,omitempty"`   // the records that were found, as a file of them was brought in
	Corrects *int64    `json:"corrects,omitempty"` // the run that this puts right
	Void     bool      `json:"void,omitempty"`     // that one was never made: nothing else is said, but why in the note
}

// WriteDown keeps a search that somebody made by hand, or puts one right that was kept before.
func (a *Service) WriteDown(ctx context.Context, review int64, h HandRun) error {
	saved, err := a.documents.Document(ctx, review, 0)
	if err != nil {
		return problems.Gone(err, "review")
	}
	r := logbook.Run{
		Review:   review,
		Kind:     "hand",
		Revision: saved.Revision,
		Corrects: h.Corrects,
		Void:     h.Void,
		Note:     strings.TrimSpace(store.Plain(h.Note)),
		Who:      store.AuthorOf(ctx).Name,
		At:       h.At,
	}
	if utf8.RuneCountInString(r.Note) > maxNote {
		return problems.Invalid("note", "A note has at most %d characters.", maxNote)
	}
	if h.Corrects != nil {
		was, err := a.logbook.Run(ctx, *h.Corrects)
		if err == nil && (was.Review != review || was.Kind != "hand" || was.Void) {
			err = store.ErrNone
		}
		if err != nil {
			return problems.Gone(err, "run")
		}
		r.Revision = was.Revision // it was made when it was made
		if h.Void {
			r.Way, r.Place, r.Query, r.At = was.Way, was.Place, was.Query, was.At
		}
	}
	if h.Void {
		if h.Corrects == nil {
			return problems.Invalid("void", "A search that was never made is one that was written down before.")
		}
	} else if err := a.handwritten(ctx, h, &r); err != nil {
		return err
	}
	err = a.logbook.PutRun(ctx, r, nil, a.jobs.Wake)
	if errors.Is(err, store.ErrInUse) {
		return &problems.Problem{
			Type:   "corrected",
			Status: 409,
			Title:  "This search was corrected meanwhile. Correct what stands in its place.",
		}
	}
	a.jobs.Tell(ctx, review, jobs.News{Kind: "runs"})
	return problems.Gone(err, "run")
}

// handwritten puts what was written down into a run, where it is good.
func (a *Service) handwritten(ctx context.Context, h HandRun, r *logbook.Run) error {
	r.Way, r.Place, r.Query, r.Records, r.Sample = h.Way, strings.TrimSpace(
		store.Plain(h.Place),
	), strings.TrimSpace(
		store.Plain(h.Query),
	), h.Records, h.Sample
	if r.Way == "" {
		r.Way = logbook.BySearch
	}
	switch {
	case !slices.Contains(logbook.Ways, r.Way):
		return problems.Invalid("way", "There is no way of looking %q.", h.Way)
	case r.Place == "" || utf8.RuneCountInString(r.Place) > maxPlace:
		return problems.Invalid("place", "Where it was searched has 1 to %d characters.", maxPlace)
	case len(r.Query) > maxTyped:
		return problems.Invalid("query", "What was typed has at most 1 MB.")
	case h.Records != nil && (*h.Records < 0 || *h.Records > 1e12):
		return problems.Invalid("records", "A number of records is 0 or more.")
	case h.At.IsZero() || h.At.After(a.now().Add(24*time.Hour)):
		return problems.Invalid("at", "A search was made on a day that has been.")
	}
	if h.Sample == nil {
		return nil
	}
	samples, err := a.library.Samples(ctx, r.Review)
	if err != nil {
		return err
	}
	i := slices.IndexFunc(samples, func(s library.Sample) bool { return s.ID == *h.Sample })
	if i < 0 {
		return problems.Invalid("sample", "This sample is not there, or was deleted.")
	}
	inFile := int64(samples[i].Records)
	switch {
	case h.Records == nil:
		r.Records = &inFile
	case *h.Records < inFile:
		return problems.Invalid("records", "Its file has %d records, more than were found.", inFile)
	}
	return nil
}
