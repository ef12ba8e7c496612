// Package rounds looks for more key studies where words do not lead: along references and citing works, through the
// works of a person, a journal, the most cited. It says what each way brought, what the strategy does with it, and
// what that tells of how much is still missed.
package rounds

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/source"
	"tamiz/store"
)

// A Service makes rounds and tells what they brought.
type Service struct {
	rows       *Rows
	library    *library.Rows
	documents  *desk.Rows
	reviewRows *reviews.Rows
	runs       *sources.Rows
	desk       *desk.Service
	outside    *sources.Service
	work       *jobs.Service
	now        func() time.Time
}

// New returns the room on a database.
func New(s *store.Store, d *desk.Service, o *sources.Service, w *jobs.Service) *Service {
	return &Service{
		rows:       NewRows(s),
		library:    library.NewRows(s),
		documents:  desk.NewRows(s),
		reviewRows: reviews.NewRows(s),
		runs:       sources.NewRows(s),
		desk:       d,
		outside:    o,
		work:       w,
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
	sources, err := a.outside.Sources(ctx)
	if err != nil {
		return nil, err
	}
	names := map[int64]string{}
	for _, s := range sources {
		names[s.ID] = s.Name
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
	r, start, works, err := a.order(ctx, at, n)
	if err != nil {
		return err
	}
	b := Begin{RoundRow: r, Start: start, Works: works}
	if r.State == "done" {
		if b.Entry, err = a.entry(ctx, r, len(works), 0); err != nil {
			return err
		}
	}
	err = a.rows.NewRound(ctx, b, a.work.Wake)
	a.tell(ctx, at.Review)
	return err
}

func (a *Service) tell(ctx context.Context, review int64) {
	a.work.Tell(ctx, review, jobs.News{Kind: "rounds"})
}

// order checks what is asked for and lays it out.
func (a *Service) order(
	ctx context.Context,
	at desk.At,
	n Asked,
) (r RoundRow, start []int64, works []WorkRow, err error) {
	all, err := a.rows.Rounds(ctx, at.Review)
	if err != nil {
		return r, nil, nil, err
	}
	if _, err := a.reviewRows.Head(ctx, at.Review); err != nil {
		return r, nil, nil, problems.Gone(err, "review")
	}
	if len(all) >= mostRounds {
		return r, nil, nil, problems.Invalid("way", "A review has at most %d rounds.", mostRounds)
	}
	r = RoundRow{Review: at.Review, Way: n.Way, State: "waiting"}
	n.Sources = slices.Compact(slices.Sorted(slices.Values(n.Sources)))
	linked := false
	for _, id := range n.Sources {
		s, c, err := a.outside.Named(ctx, id)
		if err != nil {
			return r, nil, nil, err
		}
		linked = linked || source.CitingOf(c, s.Map) != nil
	}
	ofSample := n.Way == Cited && n.From == "sample"
	local := n.Way == Alike // nothing is asked
	if len(n.Sources) == 0 && !local && !ofSample || len(n.Sources) > 20 {
		return r, nil, nil, problems.Invalid("sources", "1 to 20 sources are asked.")
	}
	if n.Most == 0 {
		n.Most = 200
	}
	if n.Most < 1 || n.Most > mostNamed {
		return r, nil, nil, problems.Invalid("most", "1 to %d works of each source are brought.", mostNamed)
	}
	switch n.Way {
	case Backward, Forward, Both:
		if n.Way == Forward && !linked {
			return r, nil, nil, &problems.Problem{
				Type:   "no-links",
				Status: 422,
				Field:  "sources",
				Title:  "None of these sources says who cites whom.",
			}
		}
		if start, r.After, err = a.start(ctx, at, n, all); err != nil {
			return r, nil, nil, err
		}
		r.Name, n.Of = startName(n, len(start)), nil // they are kept as what it begins from
		if n.Twice {
			r.More = 1
		}
	case Author, Journal:
		if n.Name = strings.Join(strings.Fields(strings.ReplaceAll(n.Name, "\x00", "")), " "); n.Name == "" ||
			len([]rune(n.Name)) > 200 {
			return r, nil, nil, problems.Invalid("name", "A name has 1 to 200 characters.")
		}
		if n.Parted = nil; n.Way == Author {
			d, err := a.desk.Desk(ctx, at)
			if err != nil {
				return r, nil, nil, err
			}
			n.Parted = d.Document.Parted
		}
		if _, err := named(n); err != nil {
			return r, nil, nil, err
		}
		r.Name = n.Name
		if len(n.Years) == 2 {
			r.Name += fmt.Sprintf(", %d to %d", n.Years[0], n.Years[1])
		}
	case Cited:
		r.Name = "what the strategy finds"
		if !ofSample {
			break
		}
		elsewhere := 0
		if works, elsewhere, start, err = a.citedInSample(ctx, at, n.Most); err != nil {
			return r, nil, nil, err
		}
		if r.Name = "the sample"; elsewhere == 0 || len(n.Sources) == 0 {
			local, start, r.State = true, nil, "done"
		}
		if elsewhere > 0 && local {
			if r.Notes, err = json.Marshal([]Note{{Kind: "elsewhere", Total: elsewhere}}); err != nil {
				return r, nil, nil, err
			}
		}
	case Alike:
		r.State, r.Name = "done", "the sample"
		if works, err = a.alike(ctx, at, n.Most); err != nil {
			return r, nil, nil, err
		}
	default:
		return r, nil, nil, problems.Invalid("way", "There is no way of looking %q.", n.Way)
	}
	if r.Sources = n.Sources; local {
		r.Sources = nil
	}
	if r.Sources == nil {
		r.Sources = []int64{}
	}
	r.Asked, err = json.Marshal(n)
	return r, start, works, err
}

func startName(n Asked, many int) string {
	what := map[string][2]string{"keys": {"key study", "key studies"}, "relevant": {"work that belongs",
		"works that belong"}, "shelf": {"record of the shelf", "records of the shelf"},
		"last": {"work of the round before", "works of the round before"}, "reviews": {"earlier review",
			"earlier reviews"}, "records": {"record", "records"}}[n.From]
	if many == 1 {
		return "1 " + what[0]
	}
	return fmt.Sprintf("%d %s", many, what[1])
}

// Stop stops a round. What it brought stays, and it can be gone on with.
func (a *Service) Stop(ctx context.Context, review, id int64) error {
	r, err := a.round(ctx, review, id)
	if err != nil {
		return err
	}
	err = a.work.StopTask(ctx, RoundTask(r))
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
	err = a.rows.ResumeRound(ctx, r, a.work.Wake)
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
