// Package rounds looks for more key studies where words do not lead: along references and citing works, through the
// works of a person, a journal, the most cited. It says what each way brought, what the strategy does with it, and
// what that tells of how much is still missed.
package rounds

import (
	"context"
	"encoding/json"
	"time"

	"tamiz/app/desk"
	"tamiz/app/holdings"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/runs"
	"tamiz/app/sources"
	"tamiz/store"
)

// A Service makes rounds and tells what they brought.
type Service struct {
	rows       ownRows
	library    libraryRows
	documents  documentRows
	reviewRows headRows
	watches    watchRows
	desk       *desk.Service
	sources    sourceRoom
	holdings   holdingRoom
	jobs       *jobs.Service
	now        func() time.Time
}

// New returns the room on a database.
func New(
	s *store.Store,
	d *desk.Service,
	o *sources.Service,
	h *holdings.Service,
	w *jobs.Service,
) *Service {
	return &Service{
		rows:       NewRows(s),
		library:    library.NewRows(s),
		documents:  desk.NewRows(s),
		reviewRows: reviews.NewRows(s),
		watches:    runs.NewRows(s),
		desk:       d,
		sources:    o,
		holdings:   h,
		jobs:       w,
		now:        time.Now,
	}
}

// The ways of looking.
const (
	Backward = "backward" // the works that some cite
	Forward  = "forward"  // the works that cite some
	Both     = "both"
	Author   = "author"  // the works of a person
	Journal  = "journal" // what a journal holds, of some years
	Cited    = "cited"   // of what the strategy finds, the most cited
	Alike    = "alike"   // of the sample that is looked at, the works most like those that belong
)

// Limits of a round.
const (
	mostStart  = 2000 // works that it begins from
	mostBring  = 5000 // works that it brings
	mostOfOne  = 500  // of what is linked to one work, where that is more
	mostNamed  = 1000 // works of a person, a journal, or the most cited of one source
	mostTitles = 150  // references without an identifier that are looked up by their title
	mostLosts  = 5000 // references that led nowhere, told at once
	mostRounds = 500  // of a review
	RoundTime  = 2 * time.Hour
)

// Asked is an order for a round.
type Asked struct {
	Way string `json:"way"`
	// what it begins from: keys, relevant, shelf, last, reviews or records; of the most cited, the sample itself
	From string          `json:"from,omitempty"`
	Of   *desk.RecordSet `json:"of,omitempty"`   // which records; what they are is worked out when it is asked for
	Name string          `json:"name,omitempty"` // of the person or the journal
	// writings of people that are not folded with others, as they were when it was asked for
	Parted  []string `json:"parted,omitempty"`
	Years   []int    `json:"years,omitempty"` // first and last, of a journal
	Most    int      `json:"most,omitempty"`  // works of each source, of ways that would bring any number
	Sources []int64  `json:"sources"`
	Twice   bool     `json:"twice,omitempty"` // once more from what it brings
}

// A Round is one, with how far it is.
type Round struct {
	ID       int64             `json:"id"`
	Number   int               `json:"number"` // within the review, from 1 on
	Way      string            `json:"way"`
	Asked    Asked             `json:"asked"`
	Name     string            `json:"name"`
	Sources  []string          `json:"sources"`
	State    string            `json:"state"`
	Works    int               `json:"works"`
	Lost     int               `json:"lost"` // references that led nowhere
	Requests int               `json:"requests"`
	Notes    []Note            `json:"notes"`
	Problem  *problems.Problem `json:"problem,omitempty"`
	Who      string            `json:"who,omitempty"`
	At       time.Time         `json:"at"`
	Ended    *time.Time        `json:"ended,omitempty"`
}

// A Note says what could not be had in full.
type Note struct {
	// many, full, others, next, elsewhere, no-links, half, unnamed, unread, unasked, said or source
	Kind  string `json:"kind"`
	What  string `json:"what,omitempty"`
	Total int    `json:"total,omitempty"`
	Taken int    `json:"taken,omitempty"`
}

// Rounds returns the rounds of a review.
func (a *Service) Rounds(ctx context.Context, review int64) ([]Round, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	all, err := a.rows.Rounds(ctx, review)
	if err != nil {
		return nil, err
	}
	works, lost, err := a.rows.RoundsBrought(ctx, review)
	if err != nil {
		return nil, err
	}
	names, err := a.sources.Names(ctx)
	if err != nil {
		return nil, err
	}
	out := []Round{}
	for i, r := range all {
		x := Round{
			ID:       r.ID,
			Number:   i + 1,
			Way:      r.Way,
			Name:     r.Name,
			Sources:  []string{},
			State:    r.State,
			Works:    works[r.ID],
			Lost:     lost[r.ID],
			Requests: r.Requests,
			Notes:    []Note{},
			Who:      r.Who,
			At:       r.At,
			Ended:    r.Ended,
		}
		for _, id := range r.Sources {
			if names[id] != "" {
				x.Sources = append(x.Sources, names[id])
			}
		}
		if err := json.Unmarshal(r.Asked, &x.Asked); err != nil {
			return nil, err
		}
		if err := json.Unmarshal(r.Notes, &x.Notes); err != nil {
			return nil, err
		}
		if r.Problem != nil {
			if err := json.Unmarshal(r.Problem, &x.Problem); err != nil {
				return nil, err
			}
		}
		out = append(out, x)
	}
	return out, nil
}

// Begin has a round be made.
func (a *Service) Begin(ctx context.Context, at desk.At, n Asked) error {
	o, err := a.order(ctx, at, n)
	if err != nil {
		return err
	}
	b := Begin{RoundRow: o.RoundRow, Start: o.start, Works: o.works}
	if b.State == "done" {
		if b.Entry, err = a.entry(ctx, b.RoundRow, len(b.Works), 0); err != nil {
			return err
		}
	}
	err = a.rows.NewRound(ctx, b, a.jobs.Wake)
	a.tell(ctx, at.Review)
	return err
}

func (a *Service) tell(ctx context.Context, review int64) {
	a.jobs.Tell(ctx, review, jobs.News{Kind: "rounds"})
}

// Stop stops a round. What it brought stays, and it can be gone on with.
func (a *Service) Stop(ctx context.Context, review, id int64) error {
	r, err := a.round(ctx, review, id)
	if err != nil {
		return err
	}
	err = a.jobs.StopTask(ctx, RoundTask(r))
	a.tell(ctx, review)
	return err
}

// GoOn goes on with a round that was stopped, or that failed.
func (a *Service) GoOn(ctx context.Context, review, id int64) error {
	r, err := a.round(ctx, review, id)
	if err != nil {
		return err
	}
	if r.State != "stopped" && r.State != "failed" {
		return &problems.Problem{Type: "under-way", Status: 409, Title: "This round is under way, or done."}
	}
	err = a.rows.ResumeRound(ctx, r, a.jobs.Wake)
	a.tell(ctx, review)
	return problems.Gone(err, "round")
}

func (a *Service) round(ctx context.Context, review, id int64) (RoundRow, error) {
	r, err := a.rows.Round(ctx, id)
	if err == nil && r.Review != review {
		err = store.ErrNone
	}
	return r, problems.Gone(err, "round")
}

const atOnce = 500 // records that are read at once

// heads returns records as they stand in a list, by their numbers.
func (a *Service) heads(ctx context.Context, ids []int64) (map[int64]desk.RecordHead, error) {
	out := map[int64]desk.RecordHead{}
	err := a.each(ctx, ids, func(s library.StoredRecord) { out[s.ID] = headOf(s) })
	return out, err
}

func headOf(s library.StoredRecord) desk.RecordHead {
	r := s.Record
	return desk.RecordHead{
		ID:      s.ID,
		Title:   r.Title,
		Byline:  desk.Byline(r),
		Year:    r.Year,
		Journal: r.Journal,
		Indexed: r.Indexed(),
	}
}
