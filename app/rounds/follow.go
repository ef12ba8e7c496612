package rounds

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"time"

	"tamiz/app/outside"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/source"
	"tamiz/store"
)

// A round along citations goes in parts: what sources hold of the works that it begins from; those linked to them at sources that
// say who cites whom; references that led nowhere there, by their identifiers and then by their titles at any source. Each
// answer is kept at once, so that a process that dies loses at most one question; whoever comes next goes on from there.

// place is where a round is.
type place struct {
	Part   string `json:"part,omitempty"` // held, backward, forward, references, titles or named
	Source int    `json:"source"`         // which of its sources
	At     int    `json:"at"`             // which of the works or references
}

// asker is a source that a round asks, which counts what it is asked.
type asker struct {
	source.Source
	s     outside.Source
	links source.Citing
	asked int
}

// Search implements source.Source.
func (c *asker) Search(ctx context.Context, s source.Search) (*source.Page, error) {
	c.asked++
	return c.Source.Search(ctx, s)
}

// journey is a round that is being made.
type journey struct {
	*Service
	round   store.Round
	asked   Asked
	sources []*asker
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
func (a *Service) Make(ctx context.Context, t store.Task) error {
	r, err := a.store.Round(ctx, t.Number)
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
	works, lost, err := a.store.RoundsBrought(ctx, r.Review)
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
	return a.store.EndRound(ctx, r.ID, *entry, next, a.work.Wake)
}

// prepare reads what the round begins from and makes clients of its sources. A source that was removed or switched off
// meanwhile is left out, and that is noted.
func (j *journey) prepare(ctx context.Context) error {
	for _, id := range j.round.Sources {
		s, c, err := j.outside.Named(ctx, id)
		var p *problems.Problem
		if errors.As(err, &p) {
			j.note(Note{Kind: "source", What: p.Title})
			continue
		}
		if err != nil {
			return err
		}
		k := &asker{Source: c, s: s}
		k.links = source.CitingOf(k, s.Map)
		j.sources = append(j.sources, k)
	}
	rows, err := j.store.RoundStarts(ctx, j.round.ID)
	if err != nil {
		return err
	}
	ids := []int64{}
	for _, row := range rows {
		ids = append(ids, row.Record)
	}
	records := map[int64]*bib.Record{}
	if err := j.each(ctx, ids, func(s store.StoredRecord) { records[s.ID] = s.Record }); err != nil {
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
	works, err := j.store.WorksOfRound(ctx, j.round.ID)
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
func (j *journey) keep(ctx context.Context, c *asker, step store.RoundStep) error {
	var err error
	if step.Place, err = json.Marshal(j.place); err != nil {
		return err
	}
	if step.Notes, err = json.Marshal(j.notes); err != nil {
		return err
	}
	if c != nil {
		step.Source, step.Requests, c.asked = &c.s.ID, c.asked, 0
	}
	ids, err := j.store.PutRoundStep(ctx, j.round.ID, step)
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
			err = j.eachSource(ctx, j.named)
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
	return j.keep(ctx, nil, store.RoundStep{})
}

func (j *journey) eachSource(ctx context.Context, do func(context.Context, *asker) error) error {
	for ; j.place.Source < len(j.sources); j.place.Source, j.place.At = j.place.Source+1, 0 {
		c := j.sources[j.place.Source]
		if err := do(ctx, c); err != nil {
			if ctx.Err() != nil {
				return ctx.Err()
			}
			return outside.Unanswered(c.s.Name, err)
		}
		if len(j.works) >= mostBring {
			return nil
		}
	}
	return nil
}

// batches calls do with so many starts at a time, from where the round is.
func (j *journey) batches(ctx context.Context, most int, do func(ctx context.Context, starts []int) error) error {
	var asked []int
	for n, s := range j.starts {
		if s.name() != "" {
			asked = append(asked, n)
		}
	}
	for j.place.At < len(asked) {
		end := min(len(asked), j.place.At+most)
		if err := do(ctx, asked[j.place.At:end]); err != nil {
			return err
		}
		j.place.At = end
	}
	return nil
}

// identified asks a source for the records that go by identifiers.
func (c *asker) identified(ctx context.Context, ids []string) ([]*bib.Record, error) {
	cql := c.s.Map.Identified(ids)
	if cql == "" {
		return nil, nil
	}
	var out []*bib.Record
	// One work has at most a few records at a source: more than four answers for each is none to be read.
	for first := 1; first <= 4*len(ids); {
		page, err := c.Search(ctx, source.Search{Query: cql, Start: first, Max: c.s.Map.AtMost})
		if err != nil {
			return out, err
		}
		for _, g := range page.Records {
			if g.Record != nil {
				out = append(out, g.Record)
			}
		}
		first += max(1, len(page.Records))
		if first > page.Total || len(page.Records) == 0 {
			break
		}
	}
	return out, nil
}

// mostIdentified is how many identifiers are asked for in one question.
const mostIdentified = 25

// held asks a source that says who cites whom what it holds of the works that the round begins from: its records carry their
// references.
func (j *journey) held(ctx context.Context, c *asker) error {
	if c.links == nil {
		return nil
	}
	for _, way := range j.parts() {
		if (way == Backward || way == Forward) && !c.links.Can(source.Way(way)) {
			j.note(Note{Kind: "half", What: c.s.Name + " " + way})
		}
	}
	return j.batches(ctx, mostIdentified, func(ctx context.Context, starts []int) error {
		var ids []string
		finder := cite.NewFinder(nil)
		for _, n := range starts {
			ids = append(ids, j.starts[n].name())
			finder.Add(j.starts[n].forms[0])
		}
		found, err := c.identified(ctx, ids)
		if err != nil {
			return err
		}
		var step store.RoundStep
		for _, r := range found {
			// What a server answers is only taken for a work where it is that work.
			n, how := finder.Same(bib.Reference{DOI: r.DOI, Local: r.Accession})
			if how != cite.ByIdentifier {
				continue
			}
			at := starts[n]
			j.starts[at].forms = append(j.starts[at].forms, r)
			step.Known, step.Starts = append(step.Known, r), append(step.Starts, j.starts[at].id)
		}
		return j.keep(ctx, c, step)
	})
}

// linked asks the sources that say who cites whom for the works that are linked to those that the round begins from.
func (j *journey) linked(ctx context.Context, way source.Way) error {
	able := false
	err := j.eachSource(ctx, func(ctx context.Context, c *asker) error {
		if c.links == nil || !c.links.Can(way) {
			return nil
		}
		able = true
		return j.batches(ctx, c.links.Most(), func(ctx context.Context, starts []int) error { return j.ask(ctx, c, way, starts) })
	})
	if !able && err == nil {
		j.note(Note{Kind: "no-links", What: string(way)})
	}
	return err
}

// ask asks a source for what is linked to some works. An answer of which it cannot be told which work leads where, or that is
// too large, is asked for again, work by work.
func (j *journey) ask(ctx context.Context, c *asker, way source.Way, starts []int) error {
	ids := make([]string, len(starts))
	for i, n := range starts {
		ids[i] = j.starts[n].name()
	}
	first, err := c.links.Linked(ctx, way, ids, 1, c.s.Map.AtMost)
	if err != nil {
		return err
	}
	most := mostOfOne * len(starts)
	if len(starts) > 1 && first.Total > min(most, 4*mostOfOne) {
		return j.oneByOne(ctx, c, way, starts)
	}
	if len(starts) == 1 && first.Total > mostOfOne {
		j.note(Note{Kind: "many", What: j.starts[starts[0]].forms[0].Title, Total: first.Total, Taken: mostOfOne})
	}
	t := newTeller(j, way, starts)
	page, seen := first, 0
	for {
		var step store.RoundStep
		var came []*bib.Record
		for _, g := range page.Records {
			if seen++; g.Record == nil {
				j.note(Note{Kind: "unread", What: c.s.Name, Total: g.Position})
				continue
			}
			came = append(came, g.Record)
		}
		for i, leads := range t.leads(came) {
			if len(leads) == 0 && len(starts) > 1 {
				return j.oneByOne(ctx, c, way, starts)
			}
			if len(leads) == 0 {
				leads = []int64{j.starts[starts[0]].id}
			}
			// A work that cites itself does not lead to itself.
			if leads = slices.DeleteFunc(leads, func(id int64) bool { return j.same(id, came[i]) }); len(leads) == 0 {
				continue
			}
			step.Records, step.Leads = append(step.Records, came[i]), append(step.Leads, leads)
		}
		if err := j.keep(ctx, c, step); err != nil {
			return err
		}
		if len(page.Records) == 0 || seen >= page.Total || seen >= most || len(j.works) >= mostBring {
			return nil
		}
		if page, err = c.links.Linked(ctx, way, ids, seen+1, c.s.Map.AtMost); err != nil {
			return err
		}
	}
}

func (j *journey) oneByOne(ctx context.Context, c *asker, way source.Way, starts []int) error {
	for _, n := range starts {
		if err := j.ask(ctx, c, way, []int{n}); err != nil {
			return err
		}
	}
	return nil
}

// same reports whether a record is a work that the round begins from.
func (j *journey) same(id int64, r *bib.Record) bool {
	var k bib.Known
	for _, f := range j.starts[j.numbers[id]].forms {
		k.Add(f, 0)
	}
	_, same := k.Find(r)
	return same
}

// next is the round that is to follow this one from what it brought; nil for none.
func (j *journey) next(ctx context.Context) (*store.Begin, error) {
	if j.round.More < 1 {
		return nil, nil
	}
	works, err := j.store.WorksOfRound(ctx, j.round.ID)
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
	asked.From, asked.Twice, asked.Records = "last", false, nil
	out := &store.Begin{Start: start, Round: store.Round{Review: j.round.Review, Way: j.round.Way, Sources: j.round.Sources, After: &j.round.ID, More: j.round.More - 1, State: "waiting", Name: startName(asked, len(start))}}
	out.Asked, err = json.Marshal(asked)
	return out, err
}

// Stopped brings a round that was stopped to rest.
func (a *Service) Stopped(ctx context.Context, t store.Task) error {
	return a.rest(ctx, t, "stopped", nil)
}

// Failed keeps why a round came to nothing. What it brought stays.
func (a *Service) Failed(ctx context.Context, t store.Task, p *problems.Problem) error {
	body, err := json.Marshal(p)
	if err != nil {
		return err
	}
	return a.rest(ctx, t, "failed", body)
}

func (a *Service) rest(ctx context.Context, t store.Task, state string, problem json.RawMessage) error {
	r, err := a.store.Round(ctx, t.Number)
	if err != nil {
		return nil // the review is gone
	}
	defer a.tell(ctx, r.Review)
	if err := a.store.RestRound(ctx, r.ID, state, problem); err != nil {
		return fmt.Errorf("round %d: %w", r.ID, err)
	}
	return nil
}
