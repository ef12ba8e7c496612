package rounds

import (
	"context"
	"slices"

	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/source"
)

// asker is a source that a round asks, which counts what it is asked.
type asker struct {
	source.Source
	s     sources.Source
	links source.Citing
	asked int
}

// Search implements source.Source.
func (c *asker) Search(ctx context.Context, s source.Search) (*source.Page, error) {
	c.asked++
	return c.Source.Search(ctx, s)
}

// batches calls do with so many of some starts at a time, from where the round is.
func (j *journey) batches(
	ctx context.Context,
	of []int,
	most int,
	do func(ctx context.Context, starts []int) error,
) error {
	for j.place.At < len(of) {
		end := min(len(of), j.place.At+most)
		if err := do(ctx, of[j.place.At:end]); err != nil {
			return err
		}
		j.place.At = end
	}
	return nil
}

// named returns the starts that a source can be asked about; how many cannot, since nothing says by which
// identifier, is noted.
func (j *journey) named() (out []int) {
	for n, s := range j.starts {
		if s.name() != "" {
			out = append(out, n)
		}
	}
	if rest := len(j.starts) - len(out); rest > 0 {
		j.note(Note{Kind: "unnamed", Total: rest})
	}
	return out
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

// titled asks a source for the first records with a title.
func (c *asker) titled(ctx context.Context, title string) ([]*bib.Record, error) {
	tokens := text.Tokens(title)
	if len(tokens) < 2 {
		return nil, nil
	}
	return sources.First(ctx, c, c.s.Map, query.Phrase{Pattern: text.Literal(tokens...), Fields: bib.Title}, mostTitled)
}

const mostTitled = 5 // records of one title that are looked at

// mostIdentified is how many identifiers are asked for in one question.
const mostIdentified = 25

// held asks a source that says who cites whom what it holds of the works that the round begins from: its records
// carry their references.
func (j *journey) held(ctx context.Context, c *asker) error {
	if c.links == nil {
		return nil
	}
	for _, way := range j.parts() {
		if (way == Backward || way == Forward) && !c.links.Can(source.Way(way)) {
			j.note(Note{Kind: "half", What: c.s.Name + " " + way})
		}
	}
	all := make([]int, len(j.starts))
	for n := range all {
		all[n] = n
	}
	return j.batches(ctx, all, mostIdentified, func(ctx context.Context, starts []int) error {
		var ids []string
		finder := cite.NewFinder(nil)
		for _, n := range starts {
			if name := j.starts[n].name(); name != "" {
				ids = append(ids, name)
			}
			finder.Add(j.starts[n].forms[0])
		}
		found, err := c.identified(ctx, ids)
		if err != nil {
			return err
		}
		var step StepRow
		there := map[int]bool{}
		take := func(at int, r *bib.Record) {
			there[at] = true
			j.starts[at].forms = append(j.starts[at].forms, r)
			step.Known, step.Starts = append(step.Known, r), append(step.Starts, j.starts[at].id)
		}
		for _, r := range found {
			// What a server answers is only taken for a work where it is that work.
			if n, how := finder.Find(bib.Reference{DOI: r.DOI, Local: r.Accession}); how == cite.ByIdentifier {
				take(starts[n], r)
			}
		}
		// A few are looked up by their titles too: the source may hold them under another identifier, or they have none.
		for _, n := range starts {
			if there[n] || len(j.starts) > mostTitles {
				continue
			}
			titled, err := c.titled(ctx, j.starts[n].forms[0].Title)
			if err != nil {
				return err
			}
			var self bib.Known
			self.Add(j.starts[n].forms[0], 0)
			for _, r := range titled {
				if _, same := self.Find(r); same && !there[n] {
					take(n, r)
				}
			}
		}
		return j.keep(ctx, c, step)
	})
}

// linked asks the sources that say who cites whom for the works that are linked to those that the round begins from.
func (j *journey) linked(ctx context.Context, way source.Way) error {
	able, named := false, j.named()
	err := j.eachSource(ctx, func(ctx context.Context, c *asker) error {
		if c.links == nil || !c.links.Can(way) {
			return nil
		}
		able = true
		return j.batches(
			ctx,
			named,
			c.links.Most(),
			func(ctx context.Context, starts []int) error { return j.ask(ctx, c, way, starts) },
		)
	})
	if !able && err == nil {
		j.note(Note{Kind: "no-links", What: string(way)})
	}
	return err
}

// ask asks a source for what is linked to some works. An answer of which it cannot be told which work leads where,
// or that is too large, is asked for again, work by work.
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
		var step StepRow
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

// A teller tells which of some works lead to a record: by the record's own references, or by theirs.
type teller struct {
	ids     []int64
	starts  *cite.Finder // for references of what comes, forward
	owners  []int        // of the records in starts
	wanted  [][]bib.Reference
	forward bool
}

func newTeller(j *journey, way source.Way, starts []int) *teller {
	t := &teller{forward: way == source.Forward, starts: cite.NewFinder(nil)}
	for i, n := range starts {
		s := j.starts[n]
		t.ids = append(t.ids, s.id)
		t.wanted = append(t.wanted, s.references())
		for _, r := range s.forms {
			t.starts.Add(r)
			t.owners = append(t.owners, i)
		}
	}
	return t
}

// leads returns which of the works lead to each of some records.
func (t *teller) leads(records []*bib.Record) [][]int64 {
	out := make([][]int64, len(records))
	add := func(r, work int) {
		if !slices.Contains(out[r], t.ids[work]) {
			out[r] = append(out[r], t.ids[work])
		}
	}
	if t.forward {
		for n, r := range records {
			for _, f := range r.References {
				if at, how := t.starts.Find(f); how != cite.None {
					add(n, t.owners[at])
				}
			}
		}
		return out
	}
	came := cite.NewFinder(records)
	for work, list := range t.wanted {
		for _, f := range list {
			if n, how := came.Find(f); how != cite.None {
				add(n, work)
			}
		}
	}
	return out
}
