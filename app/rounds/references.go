package rounds

import (
	"cmp"
	"context"
	"maps"
	"slices"

	"tamiz/app/library"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/source"
)

// A wanted is a reference that no record is known for, with the works that have it.
type wanted struct {
	bib.Reference
	leads []int64
}

// open returns the references of the works that the round begins from which mean none of the works that it brought
// so far nor any that it began from, each once.
func (j *journey) open(ctx context.Context) (out []wanted, err error) {
	finder := cite.NewFinder(nil)
	if err := j.each(ctx, slices.Collect(maps.Keys(j.works)),
		func(s library.StoredRecord) { finder.Add(s.Record) }); err != nil {
		return nil, err
	}
	for _, s := range j.starts {
		for _, r := range s.forms {
			finder.Add(r)
		}
	}
	at := map[string]int{}
	for _, s := range j.starts {
		for _, f := range s.references() {
			if _, how := finder.Find(f); how != cite.None {
				continue
			}
			key := cmp.Or(cite.Key(f), f.Line())
			n, ok := at[key]
			if !ok {
				n = len(out)
				at[key] = n
				out = append(out, wanted{Reference: cite.Whole(f)})
			}
			if !slices.Contains(out[n].leads, s.id) {
				out[n].leads = append(out[n].leads, s.id)
			}
		}
	}
	if j.asked.Way == Cited { // of a sample: those that most of it cite
		out = slices.DeleteFunc(out, func(w wanted) bool { return len(w.leads) < 2 })
		slices.SortStableFunc(out, func(a, b wanted) int { return cmp.Compare(len(b.leads), len(a.leads)) })
		out = out[:min(len(out), j.asked.Most)]
	}
	return out, nil
}

// references looks the references that are still open up by their identifiers, at every source in turn.
func (j *journey) references(ctx context.Context) error {
	return j.eachSource(ctx, func(ctx context.Context, c *asker) error {
		if c.s.Map.Indexes["identifier"] == "" {
			return nil
		}
		// What was found meanwhile is no longer open; so a place within the list means nothing, and it is begun anew.
		all, err := j.open(ctx)
		if err != nil {
			return err
		}
		all = slices.DeleteFunc(all, func(w wanted) bool { return w.DOI == "" })
		for part := range slices.Chunk(all, mostIdentified) {
			finder := cite.NewFinder(nil)
			var ids []string
			for _, w := range part {
				ids = append(ids, bib.DOIKey(w.DOI))
				finder.Add(&bib.Record{DOI: w.DOI})
			}
			found, err := c.identified(ctx, ids)
			if err != nil {
				return err
			}
			var step StepRow
			for _, r := range found {
				if n, how := finder.Find(bib.Reference{DOI: r.DOI}); how == cite.ByIdentifier {
					step.Records, step.Leads = append(step.Records, r), append(step.Leads, part[n].leads)
				}
			}
			if err := j.keep(ctx, c, step); err != nil {
				return err
			}
			if len(j.works) >= mostBring {
				return nil
			}
		}
		return nil
	})
}

// titles looks up by their titles what has no identifier that anybody knows; what led nowhere is kept as lost, and
// what merely resembles something is offered with it. Gone on with, it goes past what was looked up before.
func (j *journey) titles(ctx context.Context) error {
	all, err := j.open(ctx)
	if err != nil {
		return err
	}
	before, err := j.rows.RoundLosts(ctx, j.round.ID, maxOpen)
	if err != nil {
		return err
	}
	looked := map[string]bool{}
	for _, l := range before {
		looked[l.Line] = true
	}
	unasked := 0
	for _, w := range all {
		line := cut(w.Line())
		if looked[line] {
			continue
		}
		var step StepRow
		var from *asker
		lost := LostRow{Line: line, Why: "none"}
		switch {
		case w.Title == "": // an identifier alone, which every source was asked for
		case j.place.At >= mostTitles:
			lost.Why = "unasked"
			unasked++
		default:
			j.place.At++
			found, at, err := j.lookUp(ctx, w.Reference)
			if err != nil {
				return err
			}
			from = at
			switch {
			case found == nil:
			case sameWork(w.Reference, found):
				step.Records, step.Leads = []*bib.Record{found}, [][]int64{w.leads}
			default:
				ids, err := j.library.Put(ctx, library.SourceName(from.s.ID), []*bib.Record{found})
				if err != nil {
					return err
				}
				lost.Near, lost.Why = &ids[0], "near"
			}
		}
		if len(step.Records) == 0 {
			for _, id := range w.leads {
				lost.Start = id
				step.Lost = append(step.Lost, lost)
			}
		}
		if err := j.keep(ctx, from, step); err != nil {
			return err
		}
	}
	if unasked > 0 {
		j.note(Note{Kind: "unasked", Total: unasked, Taken: mostTitles})
	}
	return nil
}

// maxOpen is how many references that led nowhere are read to go past them: more than any round has.
const maxOpen = 1 << 30

// lookUp looks for the work of a reference at each source: the work itself, else the first record that resembles
// it, else nil.
func (j *journey) lookUp(ctx context.Context, f bib.Reference) (found *bib.Record, from *asker, err error) {
	for _, c := range j.sources {
		if c == nil {
			continue
		}
		matches, err := j.Service.holdings.Matches(ctx, c, c.s, cite.Record(f))
		if ctx.Err() != nil {
			return nil, nil, ctx.Err()
		}
		if err != nil {
			return nil, nil, sources.Unanswered(c.s.Name, err)
		}
		for _, m := range matches {
			if sameWork(f, m.Record) {
				return m.Record, c, nil
			}
			if found == nil {
				found, from = m.Record, c
			}
		}
	}
	return found, from, nil
}

// sameWork reports whether a record is the work of a reference: by title, first author and year, where the
// reference says them.
func sameWork(f bib.Reference, r *bib.Record) bool {
	_, how := cite.NewFinder([]*bib.Record{r}).Find(f)
	return how != cite.None
}

const maxLine = 1000 // characters of a reference that is kept as text

func cut(s string) string {
	if r := []rune(s); len(r) > maxLine {
		return string(r[:maxLine]) + "…"
	}
	return s
}

// byName asks a source for the works of a person or a journal, or for what the strategy finds, the most cited first.
func (j *journey) byName(ctx context.Context, c *asker) error {
	var cql string
	var notes []source.Note
	var err error
	if j.asked.Way == Cited {
		if cql, notes, err = j.Service.sources.AskedNow(ctx, j.round.Review, c.s); err != nil {
			return err
		}
	} else {
		q, err := named(j.asked)
		if err != nil {
			return err
		}
		cql, notes = source.Render(q, c.s.Map)
	}
	for _, n := range notes {
		j.note(Note{Kind: "said", What: c.s.Name + ": " + n.String()})
	}
	if cql == "" {
		j.note(Note{Kind: "source", What: c.s.Name})
		return nil
	}
	switch {
	case j.asked.Way == Cited:
		if cql = c.s.Map.MostCited(cql); cql == "" {
			j.note(Note{Kind: "no-links", What: c.s.Name})
			return nil
		}
	case c.s.Map.Sort:
		cql = c.s.Map.NewestFirst(cql)
	}
	who, others := peopleOf(j.asked), 0
	defer func() {
		if others > 0 {
			j.note(Note{Kind: "others", What: c.s.Name, Total: others})
		}
	}()
	for j.place.At < j.asked.Most {
		page, err := c.Search(
			ctx,
			source.Search{Query: cql, Start: j.place.At + 1, Max: min(c.s.Map.AtMost, j.asked.Most-j.place.At)},
		)
		if err != nil {
			return err
		}
		var step StepRow
		for _, g := range page.Records {
			if g.Record == nil {
				j.note(Note{Kind: "unread", What: c.s.Name, Total: g.Position})
				continue
			}
			if j.asked.Way == Author && !who.wrote(g.Record) {
				others++
				continue
			}
			step.Records, step.Leads = append(step.Records, g.Record), append(step.Leads, nil)
		}
		j.place.At += len(page.Records)
		if page.Total > j.asked.Most {
			j.note(Note{Kind: "many", What: c.s.Name, Total: page.Total, Taken: j.asked.Most})
		}
		if err := j.keep(ctx, c, step); err != nil {
			return err
		}
		if len(page.Records) == 0 || j.place.At >= page.Total {
			return nil
		}
	}
	return nil
}
