package draws

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"strings"
	"time"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/source"
	"tamiz/store"
)

// Limits of a draw.
const (
	MaxDraw  = 1_000_000 // records
	DrawTime = 12 * time.Hour
)

// NewDraw is an order for samples: of all concepts together or of each by itself, from one source or
// several.
type NewDraw struct {
	Name     string         `json:"name"`
	Sources  []int64        `json:"sources"`
	Concepts []RoughConcept `json:"concepts"`
	Each     bool           `json:"each"`
	// all together, each concept by itself and some of anything, as one sample in parts
	Parts  bool       `json:"parts,omitempty"`
	How    source.How `json:"how"`
	AtMost int        `json:"atMost"`
	Seed   int64      `json:"seed"`
}

// A Draw is a sample that is being drawn, or was, with what it could not get.
type Draw struct {
	ID       int64          `json:"id"`
	Name     string         `json:"name"`
	Source   int64          `json:"source"`
	From     string         `json:"from"` // the name of the source
	Concepts []RoughConcept `json:"concepts"`
	How      source.How     `json:"how"`
	AtMost   int            `json:"atMost"`
	Seed     int64          `json:"seed"`
	Query    string         `json:"query"`
	Notes    []source.Note  `json:"notes"`
	Parts    []DrawPart     `json:"parts"`
	State    string         `json:"state"`
	Total    int            `json:"total"`
	Wanted   int            `json:"wanted"`
	Got      int            `json:"got"`
	Troubles int            `json:"troubles"`
	Waits    string         `json:"waits,omitempty"` // source or review: whose other draws it waits for
	Pause    *time.Time     `json:"pause,omitempty"` // until when it waits because the source asked for it
	Problem  string         `json:"problem,omitempty"`
	Sample   *int64         `json:"sample,omitempty"`
	Made     time.Time      `json:"made"`
}

func (a *Service) drawOf(d library.Draw, names map[int64]string) (Draw, error) {
	out := Draw{
		ID:       d.ID,
		Name:     d.Name,
		Source:   d.Source,
		From:     names[d.Source],
		How:      source.How(d.How),
		AtMost:   d.AtMost,
		Seed:     d.Seed,
		Query:    d.Query,
		State:    d.State,
		Total:    d.Total,
		Wanted:   d.Wanted,
		Got:      d.Got,
		Troubles: d.Troubles,
		Problem:  d.Problem,
		Sample:   d.Sample,
		Made:     d.Made,
		Pause:    d.Pause,
		Waits:    d.Waits,
	}
	if err := json.Unmarshal(d.Concepts, &out.Concepts); err != nil {
		return out, err
	}
	if err := json.Unmarshal(d.Parts, &out.Parts); err != nil {
		return out, err
	}
	return out, json.Unmarshal(d.Notes, &out.Notes)
}

// Draws returns the draws of a review: those under way, and those that live samples came from.
func (a *Service) Draws(ctx context.Context, review int64) ([]Draw, error) {
	all, err := a.library.Draws(ctx, review)
	if err != nil {
		return nil, err
	}
	names, err := a.sources.Names(ctx)
	if err != nil {
		return nil, err
	}
	out := []Draw{}
	for _, d := range all {
		x, err := a.drawOf(d, names)
		if err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, nil
}

// BeginDraw begins to draw samples, one for each source and, where each concept is drawn by itself, for
// each concept.
func (a *Service) BeginDraw(ctx context.Context, review int64, n NewDraw) ([]Draw, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	switch n.How {
	case source.All, source.Newest, source.Years, source.Random:
	default:
		return nil, problems.Invalid("how", "A sample is drawn whole, newest first, over the years or at random.")
	}
	if n.AtMost < 1 || n.AtMost > MaxDraw {
		return nil, problems.Invalid("atMost", "A sample has 1 to %d records.", MaxDraw)
	}
	if n.Seed < 0 || n.Seed > math.MaxInt32 {
		return nil, problems.Invalid("seed", "A seed is a number from 0 to %d.", math.MaxInt32)
	}
	if len(n.Sources) == 0 || len(n.Sources) > sources.MaxSources {
		return nil, problems.Invalid("sources", "A sample is drawn from a source.")
	}
	name, err := reviews.GoodName(n.Name)
	if err != nil {
		return nil, err
	}
	var orders [][]RoughConcept
	var names []string
	var full []RoughConcept
	for _, c := range n.Concepts {
		kept := RoughConcept{Name: store.Plain(c.Name), Block: store.Plain(c.Block)}
		for _, w := range c.Words {
			if w = strings.TrimSpace(store.Plain(w)); w != "" {
				kept.Words = append(kept.Words, w)
			}
		}
		if len(kept.Words) > 0 {
			full = append(full, kept)
		}
	}
	if n.Each && !n.Parts && len(full) > 1 {
		for _, c := range full {
			orders, names = append(orders, []RoughConcept{c}), append(names, name+", "+c.Name+" alone")
		}
	} else {
		orders, names = [][]RoughConcept{full}, []string{name}
	}
	var begun []library.Draw
	for i, concepts := range orders {
		q, err := roughQuery(concepts)
		if err != nil {
			return nil, err
		}
		for _, id := range n.Sources {
			s, _, err := a.sources.Named(ctx, id)
			if err != nil {
				return nil, err
			}
			cql, notes := sources.Rendered(q, s.Map)
			d := library.Draw{
				Review: review,
				Source: id,
				Name:   names[i],
				How:    string(n.How),
				AtMost: n.AtMost,
				Seed:   n.Seed,
				Query:  cql,
			}
			if len(n.Sources) > 1 {
				d.Name += ", " + s.Name
			}
			if d.Concepts, err = json.Marshal(concepts); err != nil {
				return nil, err
			}
			if n.Parts && len(concepts) > 0 {
				parts, more, err := inParts(concepts, s.Map)
				if err != nil {
					return nil, err
				}
				if d.Parts, err = json.Marshal(parts); err != nil {
					return nil, err
				}
				notes = append(notes, more...)
			}
			if d.Notes, err = json.Marshal(notes); err != nil {
				return nil, err
			}
			begun = append(begun, d)
		}
	}
	return a.beginDraws(ctx, review, begun)
}

// beginDraws keeps draws, all or none, and returns them as they are then.
func (a *Service) beginDraws(ctx context.Context, review int64, begun []library.Draw) ([]Draw, error) {
	ids, err := a.library.NewDraws(ctx, begun, a.jobs.Wake)
	if err != nil {
		return nil, err
	}
	called, err := a.sources.Names(ctx)
	if err != nil {
		return nil, err
	}
	var out []Draw
	for _, id := range ids {
		made, err := a.library.Draw(ctx, id)
		if err != nil {
			return nil, err
		}
		x, err := a.drawOf(made, called)
		if err != nil {
			return nil, err
		}
		out = append(out, x)
		a.jobs.Tell(ctx, review, jobs.News{Kind: "draw"})
	}
	return out, nil
}

// StopDraw stops a draw at once, whatever its source does. What it got stays, and it can be gone on with.
func (a *Service) StopDraw(ctx context.Context, review, id int64) error {
	d, err := a.draw(ctx, review, id)
	if err != nil {
		return err
	}
	if err := a.library.StopDraw(ctx, id); err != nil {
		return err
	}
	a.jobs.Tell(ctx, review, jobs.News{Kind: "draw"})
	return a.jobs.StopTask(ctx, library.DrawTask(d))
}

// GoOn goes on with a draw that came to rest, for as many records as are wanted now. Only what is missing
// is fetched.
func (a *Service) GoOn(ctx context.Context, review, id int64, atMost int) error {
	d, err := a.draw(ctx, review, id)
	if err != nil {
		return err
	}
	if atMost < d.AtMost || atMost > MaxDraw {
		return problems.Invalid("atMost", "The number can be raised, to at most %d.", MaxDraw)
	}
	if d.State != "stopped" && d.State != "done" && d.State != "failed" {
		return &problems.Problem{Type: "under-way", Status: 409, Title: "This draw is under way."}
	}
	err = a.library.GoOn(ctx, d, atMost, a.jobs.Wake)
	if err == nil {
		a.jobs.Tell(ctx, review, jobs.News{Kind: "draw"})
	}
	return problems.Gone(err, "draw")
}

func (a *Service) draw(ctx context.Context, review, id int64) (library.Draw, error) {
	d, err := a.library.Draw(ctx, id)
	if err == nil && d.Review != review {
		err = store.ErrNone
	}
	return d, problems.Gone(err, "draw")
}

const maxTroubles = 20_000 // lines of a report

// Troubles returns what a draw could not get.
func (a *Service) Troubles(ctx context.Context, review, id int64) ([]source.Trouble, error) {
	if _, err := a.draw(ctx, review, id); err != nil {
		return nil, err
	}
	out, err := a.library.Troubles(ctx, id, maxTroubles)
	if out == nil {
		out = []source.Trouble{}
	}
	return out, err
}

// Fetch fetches what is missing of a draw, page by page. Each page is kept in one step, so a process that dies
// loses at most the page it was at; whoever comes next goes on from there.
func (a *Service) Fetch(ctx context.Context, t jobs.Task) error {
	id := t.Number
	d, err := a.library.Draw(ctx, id)
	if errors.Is(err, store.ErrNone) {
		return nil
	}
	if err != nil || d.State == "stopped" || d.State == "done" || d.State == "failed" {
		return err
	}
	if d.State == "stopping" {
		return a.endDraw(ctx, d, "stopped", "")
	}
	s, c, err := a.sources.Named(ctx, d.Source)
	if err != nil {
		return err
	}
	news := "draw"
	if d.Apart {
		news = "runs"
	}
	told := time.Time{}
	tell := func(always bool) {
		if always || time.Since(told) > 250*time.Millisecond {
			told = time.Now()
			a.jobs.Tell(ctx, d.Review, jobs.News{Kind: news})
		}
	}
	c.Waiting = func(wait time.Duration, _ error) {
		if wait < time.Second {
			return
		}
		until := a.now().Add(wait)
		if a.library.PauseDraw(ctx, id, &until) == nil { // a pause that cannot be told is waited for all the same
			tell(true)
		}
	}
	plan, err := a.plan(ctx, s, c, d)
	if ctx.Err() != nil {
		return ctx.Err()
	}
	if err != nil {
		return sources.Unanswered(s.Name, err)
	}
	known := drawnKnown{} // by part: each is a set of its own, whatever the others hold
	if err := a.library.DrawnIdentities(ctx, id, func(part int, r *bib.Record) { known.of(part).add(r) }); err != nil {
		return err
	}
	there, err := a.library.Drawn(ctx, id)
	if err != nil {
		return err
	}
	run := source.Draw{Source: c, Plan: plan, Page: s.Map.AtMost, Keep: func(b source.Batch) error {
		key := plan.Parts[b.Part].Key
		var got []source.Got
		var none []int
		for _, g := range b.Got {
			if known.of(key / library.PartSize).has(g.Record) {
				none = append(none, g.Position)
				b.Troubles = append(
					b.Troubles,
					source.Trouble{From: g.Position, To: g.Position, Kind: source.Repeated, Detail: g.Record.ID},
				)
				continue
			}
			known.of(key / library.PartSize).add(g.Record)
			got = append(got, g)
		}
		for _, t := range b.Troubles {
			if t.Kind == source.NoRecord {
				none = append(none, t.From)
			}
		}
		err := a.library.KeepDrawn(ctx, d, key, got, none, b.Troubles)
		tell(false)
		return err
	}}
	for _, part := range plan.Parts {
		done := there[part.Key]
		if done == nil {
			done = roaring.New()
		}
		run.Done = append(run.Done, done)
	}
	switch err := run.Run(ctx); {
	case errors.Is(err, library.ErrStopped) && ctx.Err() == nil:
		return a.endDraw(ctx, d, "stopped", "")
	case ctx.Err() != nil:
		return ctx.Err()
	case source.GivenUp(err):
		return a.endDraw(ctx, d, "stopped", err.Error())
	case err != nil:
		return err
	}
	return a.endDraw(ctx, d, "done", "")
}

// slim returns what makes a record itself, without its text, of which many are kept in memory.
func slim(r *bib.Record) *bib.Record {
	out := &bib.Record{
		Title:     strings.Clone(r.Title),
		Year:      r.Year,
		DOI:       strings.Clone(r.DOI),
		Accession: strings.Clone(r.Accession),
		Journal:   strings.Clone(r.Journal),
		Volume:    strings.Clone(r.Volume),
		FirstPage: strings.Clone(r.FirstPage),
	}
	for _, p := range r.Authors {
		out.Authors = append(out.Authors, bib.Person{Family: strings.Clone(p.Family), Given: strings.Clone(p.Given)})
	}
	return out
}

// plan returns which positions a draw is to fetch, as it was laid out before or, the first time, now.
func (a *Service) plan(ctx context.Context, s sources.Source, c source.Source, d library.Draw) (source.Plan, error) {
	var plan source.Plan
	var parts json.RawMessage
	if d.Plan != nil {
		if err := json.Unmarshal(d.Plan, &plan); err != nil {
			return plan, err
		}
	} else {
		var err error
		order := source.Order{How: source.How(d.How), AtMost: d.AtMost, Seed: uint64(d.Seed), Now: a.now().Year()}
		if string(d.Parts) == "[]" {
			plan, err = source.PlanOf(ctx, c, s.Map, d.Query, order)
		} else {
			plan, parts, err = planInParts(ctx, c, s.Map, d.Parts, order)
		}
		if err != nil {
			return plan, err
		}
	}
	saved, err := json.Marshal(plan)
	if err != nil {
		return plan, err
	}
	return plan, a.library.BeginDraw(ctx, d.ID, saved, parts, plan.Total, plan.Wanted())
}

// StopDrawn brings a draw that was stopped to rest.
func (a *Service) StopDrawn(ctx context.Context, t jobs.Task) error {
	return a.restDraw(ctx, t, "stopped", "")
}

// FailDraw brings a draw to rest that came to nothing more.
func (a *Service) FailDraw(ctx context.Context, t jobs.Task, p *problems.Problem) error {
	return a.restDraw(ctx, t, "failed", p.Title)
}

func (a *Service) restDraw(ctx context.Context, t jobs.Task, state, problem string) error {
	d, err := a.library.Draw(ctx, t.Number)
	if errors.Is(err, store.ErrNone) {
		return nil
	}
	if err != nil {
		return err
	}
	return a.endDraw(ctx, d, state, problem)
}

// endDraw brings a draw to rest: what it got becomes its sample, as a change that can be undone.
func (a *Service) endDraw(ctx context.Context, d library.Draw, state, problem string) error {
	if d.Apart && d.Sample == nil {
		err := a.library.RestDraw(ctx, d, state, problem)
		a.jobs.Tell(ctx, d.Review, jobs.News{Kind: "runs"})
		return err
	}
	return a.ShowDrawn(ctx, d, state, problem)
}

// ShowDrawn makes what a draw got its sample.
func (a *Service) ShowDrawn(ctx context.Context, d library.Draw, state, problem string) error {
	sample, err := a.library.FillDrawn(ctx, d)
	if err != nil {
		return err
	}
	entry, err := a.drawEntry(ctx, d, state)
	if err != nil {
		return err
	}
	err = a.store.InReview(ctx, d.Review, func(ctx context.Context, w *store.Tx) error {
		fresh, err := library.EndDraw(ctx, w, d, sample, state, problem)
		if err != nil {
			return err
		}
		if entry != nil {
			if sample > 0 {
				entry.Sample = &sample
			}
			if err := logbook.Add(ctx, w, *entry); err != nil {
				return err
			}
		}
		if fresh {
			_, err = reviews.LogSample(
				ctx,
				w,
				d.Review,
				sample,
				reviews.What{Key: "draw", Params: map[string]string{"name": d.Name}},
			)
			return err
		}
		_, err = (&reviews.Done{Whole: true}).Tell(ctx, w, d.Review, nil)
		return err
	})
	if errors.Is(err, store.ErrNone) {
		return nil // the review was deleted
	}
	if err == nil {
		a.jobs.Tell(ctx, d.Review, jobs.News{Kind: "draw"})
	}
	return err
}

// drawEntry is what the logbook says of a draw; nil where it said so already: what was drawn for a run was a run.
func (a *Service) drawEntry(ctx context.Context, d library.Draw, state string) (*logbook.Run, error) {
	if d.Apart {
		return nil, nil
	}
	saved, err := a.documents.Document(ctx, d.Review, 0)
	if errors.Is(err, store.ErrNone) {
		return nil, nil // the review was deleted
	}
	if err != nil {
		return nil, err
	}
	names, err := a.sources.Names(ctx)
	if err != nil {
		return nil, err
	}
	if d, err = a.library.Draw(ctx, d.ID); err != nil { // how far it came
		return nil, err
	}
	out := &logbook.Run{
		Review:   d.Review,
		Kind:     "draw",
		Revision: saved.Revision,
		Source:   &d.Source,
		Place:    names[d.Source],
		Query:    d.Query,
		Notes:    d.Notes,
		Draw:     &d.ID,
		At:       a.now(),
		Note: fmt.Sprintf(
			"Sample “%s”: %d of %d records that were wanted, %s; %s.",
			d.Name,
			d.Got,
			d.Wanted,
			howDrawn[source.How(d.How)],
			howEnded[state],
		),
	}
	if total := int64(d.Total); total > 0 || state == "done" {
		out.Records = &total
	}
	return out, nil
}

var (
	howDrawn = map[source.How]string{
		source.All:    "as the source gives them",
		source.Newest: "the newest first",
		source.Years:  "as many of each year",
		source.Random: "at random",
	}
	howEnded = map[string]string{"done": "ended", "stopped": "stopped before its end", "failed": "given up"}
)

// HowMany is how many records are wanted.
type HowMany struct {
	AtMost int `json:"atMost"`
}
