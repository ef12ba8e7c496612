package rounds

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/source"
	"tamiz/store"
)

// A round along citations goes in parts: what sources hold of the works that it begins from; those linked to them
// at sources that say who cites whom; references that led nowhere there, by their identifiers and then by their
// titles at any source. Each answer is kept at once, so that a process that dies loses at most one question;
// whoever comes next goes on from there.

// place is where a round is.
type place struct {
	Part   string `json:"part,omitempty"` // held, backward, forward, references, titles or named
	Source int    `json:"source"`         // which of its sources
	At     int    `json:"at"`             // which of the works or references
}

// journey is a round that is being made.
type journey struct {
	*Service
	round   RoundRow
	asked   Asked
	sources []*asker // nil for one that cannot be asked any more
	notes   []Note
	place   place
	told    time.Time

	starts  []start
	numbers map[int64]int  // of starts, by the numbers of their records
	works   map[int64]bool // that it brought, by the numbers of their records
}

// start is a work that a round begins from, in all records of it that are known.
type start struct {
	id    int64
	forms []*bib.Record
}

func (s start) references() (out []bib.Reference) {
	for _, r := range s.forms {
		if len(r.References) > len(out) {
			out = r.References
		}
	}
	return out
}

// name returns by what a start is asked for at a source: its identifiers there.
func (s start) name() string {
	for _, r := range s.forms {
		if r.DOI != "" {
			return bib.DOIKey(r.DOI)
		}
	}
	for _, r := range slices.Backward(s.forms) { // the last is what a source holds
		if r.Accession != "" {
			return r.Accession
		}
	}
	return ""
}

// Make makes a round: the work of a task.
func (a *Service) Make(ctx context.Context, t jobs.Task) error {
	r, err := a.rows.Round(ctx, t.Number)
	if errors.Is(err, store.ErrNone) || err == nil && r.State != "waiting" && r.State != "going" {
		return nil
	}
	if err != nil {
		return err
	}
	j := &journey{Service: a, round: r, numbers: map[int64]int{}, works: map[int64]bool{}}
	for _, part := range []struct {
		body json.RawMessage
		to   any
	}{{r.Asked, &j.asked}, {r.Notes, &j.notes}, {r.Place, &j.place}} {
		if err := json.Unmarshal(part.body, part.to); err != nil {
			return err
		}
	}
	if err := j.prepare(ctx); err != nil {
		return err
	}
	defer a.tell(ctx, r.Review)
	if err := j.travel(ctx); err != nil {
		return err
	}
	works, lost, err := a.rows.RoundsBrought(ctx, r.Review)
	if err != nil {
		return err
	}
	entry, err := a.entry(ctx, r, works[r.ID], lost[r.ID])
	if err != nil {
		return err
	}
	next, err := j.next(ctx)
	if err != nil {
		return err
	}
	return a.rows.EndRound(ctx, r.ID, *entry, next, a.jobs.Wake)
}

// prepare reads what the round begins from and makes clients of its sources. A source that was removed or switched off
// meanwhile is left out, and that is noted.
func (j *journey) prepare(ctx context.Context) error {
	for _, id := range j.round.Sources {
		s, c, err := j.Service.sources.Named(ctx, id)
		var p *problems.Problem
		if errors.As(err, &p) {
			j.note(Note{Kind: "source", What: p.Title})
			j.sources = append(j.sources, nil) // the place of each is by what was asked for
			continue
		}
		if err != nil {
			return err
		}
		k := &asker{Source: c, s: s}
		k.links = source.CitingOf(k, s.Map)
		j.sources = append(j.sources, k)
	}
	rows, err := j.rows.RoundStarts(ctx, j.round.ID)
	if err != nil {
		return err
	}
	ids := []int64{}
	for _, row := range rows {
		ids = append(ids, row.Record)
	}
	records := map[int64]*bib.Record{}
	if err := j.each(ctx, ids, func(s library.StoredRecord) { records[s.ID] = s.Record }); err != nil {
		return err
	}
	for _, row := range rows {
		n, ok := j.numbers[row.Start]
		if !ok {
			n = len(j.starts)
			j.numbers[row.Start] = n
			j.starts = append(j.starts, start{id: row.Start})
			if r := records[row.Start]; r != nil {
				j.starts[n].forms = append(j.starts[n].forms, r)
			}
		}
		if r := records[row.Record]; r != nil && row.Record != row.Start {
			j.starts[n].forms = append(j.starts[n].forms, r)
		}
	}
	works, err := j.rows.WorksOfRound(ctx, j.round.ID)
	for _, w := range works {
		j.works[w.Record] = true
	}
	return err
}

// note keeps what could not be had in full, once.
func (j *journey) note(n Note) {
	if !slices.Contains(j.notes, n) && len(j.notes) < 200 {
		j.notes = append(j.notes, n)
	}
}

// keep keeps what a question brought, and where the round is now.
func (j *journey) keep(ctx context.Context, c *asker, step StepRow) error {
	var err error
	if step.Place, err = json.Marshal(j.place); err != nil {
		return err
	}
	if step.Notes, err = json.Marshal(j.notes); err != nil {
		return err
	}
	if c != nil {
		step.Source = &c.s.ID
	}
	for _, s := range j.sources {
		if s != nil {
			step.Requests += s.asked
			s.asked = 0
		}
	}
	ids, err := j.rows.PutRoundStep(ctx, j.round.ID, step)
	if err != nil {
		return err
	}
	for _, id := range ids {
		j.works[id] = true
	}
	if j.now().Sub(j.told) > 300*time.Millisecond {
		j.told = j.now()
		j.tell(ctx, j.round.Review)
	}
	return nil
}

// parts are those of a way, in their order.
func (j *journey) parts() []string {
	switch j.asked.Way {
	case Backward:
		return []string{"held", Backward, "references", "titles"}
	case Forward:
		return []string{"held", Forward}
	case Both:
		return []string{"held", Backward, Forward, "references", "titles"}
	case Cited:
		if j.asked.From == "sample" {
			return []string{"references", "titles"}
		}
	}
	return []string{"named"}
}

// travel does the parts from where the round is on.
func (j *journey) travel(ctx context.Context) error {
	parts := j.parts()
	from := max(0, slices.Index(parts, j.place.Part))
	for i, part := range parts[from:] {
		if i > 0 || j.place.Part == "" {
			j.place = place{Part: part}
		}
		var err error
		switch part {
		case "held":
			err = j.eachSource(ctx, j.held)
		case Backward, Forward:
			err = j.linked(ctx, source.Way(part))
		case "references":
			err = j.references(ctx)
		case "titles":
			err = j.titles(ctx)
		case "named":
			err = j.eachSource(ctx, j.byName)
		}
		if err != nil {
			return err
		}
		if len(j.works) >= mostBring {
			j.note(Note{Kind: "full", Taken: len(j.works)})
			break
		}
	}
	if j.round.More > 0 && len(j.works) > mostStart {
		j.note(Note{Kind: "next", Total: len(j.works), Taken: mostStart})
	}
	return j.keep(ctx, nil, StepRow{})
}

func (j *journey) eachSource(ctx context.Context, do func(context.Context, *asker) error) error {
	for ; j.place.Source < len(j.sources); j.place.Source, j.place.At = j.place.Source+1, 0 {
		c := j.sources[j.place.Source]
		if c == nil {
			continue
		}
		if err := do(ctx, c); err != nil {
			if ctx.Err() != nil {
				return ctx.Err()
			}
			return sources.Unanswered(c.s.Name, err)
		}
		if len(j.works) >= mostBring {
			return nil
		}
	}
	return nil
}

// next is the round that is to follow this one from what it brought; nil for none.
func (j *journey) next(ctx context.Context) (*Begin, error) {
	if j.round.More < 1 {
		return nil, nil
	}
	works, err := j.rows.WorksOfRound(ctx, j.round.ID)
	if err != nil {
		return nil, err
	}
	var start []int64
	for _, w := range works {
		if _, known := j.numbers[w.Record]; !known && len(start) < mostStart {
			start = append(start, w.Record)
		}
	}
	if len(start) == 0 {
		return nil, nil
	}
	asked := j.asked
	asked.From, asked.Twice = "last", false
	out := &Begin{
		Start: start,
		RoundRow: RoundRow{
			Review:  j.round.Review,
			Way:     j.round.Way,
			Sources: j.round.Sources,
			After:   &j.round.ID,
			More:    j.round.More - 1,
			State:   "waiting",
			Name:    startName(asked, len(start)),
		},
	}
	out.Asked, err = json.Marshal(asked)
	return out, err
}

// Stopped brings a round that was stopped to rest.
func (a *Service) Stopped(ctx context.Context, t jobs.Task) error {
	return a.rest(ctx, t, "stopped", nil)
}

// Failed keeps why a round came to nothing. What it brought stays.
func (a *Service) Failed(ctx context.Context, t jobs.Task, p *problems.Problem) error {
	body, err := json.Marshal(p)
	if err != nil {
		return err
	}
	return a.rest(ctx, t, "failed", body)
}

func (a *Service) rest(ctx context.Context, t jobs.Task, state string, problem json.RawMessage) error {
	r, err := a.rows.Round(ctx, t.Number)
	if err != nil {
		return nil // the review is gone
	}
	defer a.tell(ctx, r.Review)
	if err := a.rows.RestRound(ctx, r.ID, state, problem); err != nil {
		return fmt.Errorf("round %d: %w", r.ID, err)
	}
	return nil
}
