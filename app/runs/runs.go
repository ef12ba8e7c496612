package runs

import (
	"context"
	"encoding/json"
	"errors"
	"slices"
	"time"

	"tamiz/app/draws"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/problems"
	"tamiz/app/sources"
	"tamiz/source"
	"tamiz/store"
)

// A Run is a strategy that was asked of a source, or typed somewhere by hand, with what came of it.
type Run struct {
	ID       int64             `json:"id"`
	Review   int64             `json:"-"`
	Kind     string            `json:"kind"`          // asked, counted (in passing), hand, round or draw
	Way      string            `json:"way,omitempty"` // of one that was written down by hand: one of Ways
	Revision int               `json:"revision"`
	Source   *int64            `json:"source,omitempty"` // none where it was written down by hand
	Place    string            `json:"place"`
	Query    string            `json:"query"`
	Records  *int64            `json:"records,omitempty"` // none where there was no answer
	Sent     string            `json:"sent,omitempty"`
	Echoed   string            `json:"echoed,omitempty"`
	Said     []source.Saying   `json:"said"`
	Notes    []source.Note     `json:"notes"`
	Problem  *problems.Problem `json:"problem,omitempty"` // why there was none
	Note     string            `json:"note,omitempty"`
	Who      string            `json:"who,omitempty"`
	At       time.Time         `json:"at"`

	Corrects    *int64 `json:"corrects,omitempty"`    // of one that was written down: the one that it puts right
	Void        bool   `json:"void,omitempty"`        // and it says that that one was never made
	CorrectedBy *int64 `json:"correctedBy,omitempty"` // the one that puts it right: it counts no more
	Sample      *int64 `json:"sample,omitempty"`      // the records that were found by hand
}

// Holds reports whether a run counts: it is not put right by another, and does not say that there was none.
func (r Run) Holds() bool { return r.CorrectedBy == nil && !r.Void }

func runOf(r logbook.Run) (Run, error) {
	out := Run{
		ID:          r.ID,
		Review:      r.Review,
		Kind:        r.Kind,
		Way:         r.Way,
		Revision:    r.Revision,
		Source:      r.Source,
		Place:       r.Place,
		Query:       r.Query,
		Records:     r.Records,
		Note:        r.Note,
		Who:         r.Who,
		At:          r.At,
		Corrects:    r.Corrects,
		Void:        r.Void,
		CorrectedBy: r.CorrectedBy,
		Sample:      r.Sample,
		Said:        []source.Saying{},
		Notes:       []source.Note{},
	}
	if err := json.Unmarshal(r.Notes, &out.Notes); err != nil {
		return out, err
	}
	if r.Exchange != nil {
		var x sources.KeptExchange
		if err := json.Unmarshal(r.Exchange, &x); err != nil {
			return out, err
		}
		out.Sent, out.Echoed = x.Sent, x.Echoed
		if x.Said != nil {
			out.Said = x.Said
		}
	}
	if r.Problem != nil {
		return out, json.Unmarshal(r.Problem, &out.Problem)
	}
	return out, nil
}

// NewRuns is an order to run the whole strategy at some sources, and to draw records of each answer at random, at
// most so many: 0 draws none.
type NewRuns struct {
	Sources []int64 `json:"sources"`
	Records int     `json:"records"`
}

// Run asks for the strategy of a review to be run at some sources. Each goes on by itself, whoever looks.
func (a *Service) Run(ctx context.Context, review int64, n NewRuns) error {
	saved, err := a.documents.Document(ctx, review, 0)
	if err != nil {
		return problems.Gone(err, "review")
	}
	if len(n.Sources) == 0 || len(n.Sources) > sources.MaxSources {
		return problems.Invalid("sources", "A strategy is run at 1 to %d sources.", sources.MaxSources)
	}
	if n.Records < 0 || n.Records > draws.MaxDraw {
		return problems.Invalid("records", "At most %d records are drawn.", draws.MaxDraw)
	}
	n.Sources = slices.Compact(slices.Sorted(slices.Values(n.Sources)))
	for _, id := range n.Sources {
		if _, _, err := a.sources.Named(ctx, id); err != nil {
			return err
		}
	}
	m, err := a.sources.MeaningAt(ctx, review, saved.Revision)
	if err != nil {
		return err
	}
	if m.Query == nil {
		return &problems.Problem{Type: "no-query", Status: 409, Title: "There is no strategy to run yet."}
	}
	_, err = a.logbook.NewAsking(
		ctx,
		logbook.Asking{Review: review, Revision: saved.Revision, Sources: n.Sources, Records: n.Records},
		a.jobs.Wake,
	)
	a.jobs.Tell(ctx, review, jobs.News{Kind: "runs"})
	return err
}

// RunAt runs a strategy at one source: the work of a task. What the source did not answer is kept as a run as well.
func (a *Service) RunAt(ctx context.Context, t jobs.Task) error {
	asking, err := a.logbook.Asking(ctx, t.Number)
	if errors.Is(err, store.ErrNone) {
		return nil
	}
	if err != nil {
		return err
	}
	done, err := a.logbook.RunsOf(ctx, asking.ID)
	if err != nil ||
		slices.ContainsFunc(done, func(r logbook.Run) bool { return r.Source != nil && *r.Source == *t.Source }) {
		return err
	}
	defer a.jobs.Tell(ctx, asking.Review, jobs.News{Kind: "runs"})
	s, err := a.sources.Source(ctx, *t.Source)
	if err != nil {
		return err
	}
	as, err := a.sources.AskedOf(ctx, asking.Review, asking.Revision, s)
	if err != nil {
		return err
	}
	cql := as.Whole
	r := logbook.Run{
		Review:   asking.Review,
		Kind:     "asked",
		Asking:   &asking.ID,
		Revision: asking.Revision,
		Source:   &s.ID,
		Place:    s.Name,
		Query:    cql,
		Who:      asking.Who,
		At:       a.now(),
	}
	if r.Notes, err = json.Marshal(as.Notes); err != nil {
		return err
	}
	if r.Lines, err = json.Marshal(as.Lines); err != nil {
		return err
	}
	if cql == "" {
		return a.unrun(
			ctx,
			r,
			&problems.Problem{Type: "no-query", Status: 409, Title: "This strategy cannot be asked at the source."},
		)
	}
	c, err := a.sources.Client(s)
	if err != nil {
		return a.unrun(ctx, r, err)
	}
	k, err := a.sources.CountNow(ctx, s, c, cql)
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if err != nil {
		return a.unrun(ctx, r, sources.Unanswered(s.Name, err))
	}
	found := int64(k.Records)
	r.Records, r.Exchange = &found, k.Exchange
	var refused sources.KeptExchange
	if err := json.Unmarshal(k.Exchange, &refused); err != nil {
		return err
	}
	if refused.Refused {
		r.Records = nil
		return a.unrun(
			ctx,
			r,
			&problems.Problem{
				Type:   "source-refused",
				Status: 422,
				Title:  s.Name + " refuses the question.",
				Params: map[string]string{"source": s.Name},
			},
		)
	}
	var draw *library.Draw
	if asking.Records > 0 && found > 0 {
		draw = &library.Draw{
			Review:   asking.Review,
			Source:   s.ID,
			Name:     "Whole strategy, " + s.Name,
			Concepts: json.RawMessage("[]"),
			How:      string(source.Random),
			AtMost:   asking.Records,
			Seed:     asking.ID,
			Query:    cql,
			Notes:    r.Notes,
			Apart:    true,
		}
	}
	return a.logbook.PutRun(ctx, r, draw, a.jobs.Wake)
}

// unrun keeps that there was no answer, and why, where people can be told.
func (a *Service) unrun(ctx context.Context, r logbook.Run, why error) error {
	var p *problems.Problem
	if !errors.As(why, &p) {
		return why
	}
	var err error
	if r.Problem, err = json.Marshal(p); err != nil {
		return err
	}
	return a.logbook.PutRun(ctx, r, nil, a.jobs.Wake)
}

// FailRun keeps that a run came to nothing, and why.
func (a *Service) FailRun(ctx context.Context, t jobs.Task, p *problems.Problem) error {
	asking, err := a.logbook.Asking(ctx, t.Number)
	if err != nil {
		return nil // the review is gone
	}
	defer a.jobs.Tell(ctx, asking.Review, jobs.News{Kind: "runs"})
	r := logbook.Run{
		Review:   asking.Review,
		Kind:     "asked",
		Asking:   &asking.ID,
		Revision: asking.Revision,
		Source:   t.Source,
		Place:    library.SourceName(*t.Source),
		Who:      asking.Who,
		At:       a.now(),
	}
	if names, err := a.sources.Names(ctx); err == nil && names[*t.Source] != "" {
		r.Place = names[*t.Source]
	}
	return a.unrun(ctx, r, p)
}

// AsRun returns a run that was asked of a source as its lines were asked. Of one that kept none they are written
// anew, where that still makes the very query that was sent; nil where it does not.
func (a *Service) AsRun(ctx context.Context, r Run) (*sources.Written, error) {
	kept, err := a.logbook.LinesOfRun(ctx, r.ID)
	if err != nil {
		return nil, problems.Gone(err, "run")
	}
	out := &sources.Written{Source: r.Place, Whole: r.Query, Notes: r.Notes}
	if kept != nil {
		return out, json.Unmarshal(kept, &out.Lines)
	}
	if r.Source == nil {
		return nil, nil
	}
	s, err := a.sources.Source(ctx, *r.Source)
	if err != nil {
		return nil, nil // the source is gone
	}
	as, err := a.sources.AskedOf(ctx, r.Review, r.Revision, s)
	if err != nil || as.Whole != r.Query {
		return nil, err
	}
	out.Lines = as.Lines
	return out, nil
}

// RunsOnPage is how many runs are told of at once.
const RunsOnPage = 200

// Runs is some runs of a review, and how many more were counted in passing.
type Runs struct {
	Runs    []Run `json:"runs"`
	Passing int   `json:"passing"`
}

// Runs returns the runs of a review, the newest first, of those before one where one is given; those that were
// counted in passing too, where they are asked for.
func (a *Service) Runs(ctx context.Context, review, before int64, passing bool) (*Runs, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	all, err := a.logbook.Runs(ctx, review, before, passing, RunsOnPage)
	if err != nil {
		return nil, err
	}
	out := &Runs{Runs: make([]Run, len(all))}
	for i, r := range all {
		if out.Runs[i], err = runOf(r); err != nil {
			return nil, err
		}
	}
	out.Passing, err = a.logbook.CountedInPassing(ctx, review)
	return out, err
}

// EachRun calls visit with each run of a review, the newest first.
func (a *Service) EachRun(ctx context.Context, review int64, passing bool, visit func(Run)) error {
	for before := int64(0); ; {
		page, err := a.Runs(ctx, review, before, passing)
		if err != nil {
			return err
		}
		for _, r := range page.Runs {
			visit(r)
			before = r.ID
		}
		if len(page.Runs) < RunsOnPage {
			return nil
		}
	}
}

// SampleOfRun makes the records that were fetched for a run a sample of the review.
func (a *Service) SampleOfRun(ctx context.Context, review, id int64) error {
	r, err := a.logbook.Run(ctx, id)
	if err == nil && (r.Review != review || r.Draw == nil) {
		err = store.ErrNone
	}
	if err != nil {
		return problems.Gone(err, "run")
	}
	d, err := a.library.Draw(ctx, *r.Draw)
	if err != nil {
		return problems.Gone(err, "draw")
	}
	if d.State != "done" && d.State != "stopped" {
		return &problems.Problem{Type: "under-way", Status: 409, Title: "Its records are still being fetched."}
	}
	return a.draws.ShowDrawn(ctx, d, d.State, d.Problem)
}
