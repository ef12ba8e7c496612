package figures

import (
	"context"

	"tamiz/app/desk"
	"tamiz/core/company"
	"tamiz/core/dialect"
	"tamiz/core/explain"
)

// Explained is what a query says that somebody wrote, its blocks with what each term finds.
type Explained struct {
	explain.Explained
	Title   string           `json:"title"` // of the dialect
	Blocks  []ExplainedBlock `json:"blocks"`
	Sampled bool             `json:"sampled"` // it was looked at over records
	Trees   []explain.Part   `json:"trees"`   // the lines, each as a tree
}

// An ExplainedBlock is a concept of the query, as a block would hold it.
type ExplainedBlock struct {
	Name    string          `json:"name"`
	Concept string          `json:"concept"`
	Negated bool            `json:"negated"`
	Terms   []ExplainedTerm `json:"terms"`
}

// An ExplainedTerm is a term with what it finds.
type ExplainedTerm struct {
	Term    desk.Term `json:"term"`
	Records *int      `json:"records,omitempty"`
	Keys    *int      `json:"keys,omitempty"`
}

// shortQuery is how many bytes of a query find so little that no memory is asked for.
const shortQuery = 4096

// Explain reads a query in one of some dialects and tells what it says and what is wrong with it, over the sample
// where one is looked at.
func (a *Service) Explain(ctx context.Context, at desk.At, text string, among []*dialect.Dialect) (*Explained, error) {
	if err := tooLong(text); err != nil {
		return nil, err
	}
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	lay, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	d := dialect.Tell(text, among)
	o, err := a.otherVocabulary(ctx, lay, d)
	if err != nil {
		return nil, err
	}
	terms := thesaurusOf(lay)
	if o != nil { // its headings are looked up where they stand
		terms = o.Terms
	}
	read, err := d.Read(text, terms)
	if err != nil {
		return nil, err
	}
	over := explain.Over{Elsewhere: o != nil}
	over.Set.Thesaurus = terms
	if lay.Pool != nil {
		over.Set = lay.Pool.Set()
		over.Set.Thesaurus = terms
		over.Company = func() (*company.Company, error) { return lay.Pool.Befriended(ctx) }
	}
	if len(lay.Keys.Studies) > 0 {
		over.Keys = lay.Keys.Set
	}
	if over.Set.Thesaurus != nil && o == nil {
		if over.Earlier, err = a.editions(ctx, lay.Document.Vocabulary); err != nil {
			return nil, err
		}
	}
	if len(text) > shortQuery {
		part := a.desk.Pools.Room.Part(explain.MostKept)
		over.Most = uint64(part)
		back, err := a.desk.Pools.Room.Take(ctx, part)
		if err != nil {
			return nil, err
		}
		defer back()
	}
	e, err := explain.Explain(ctx, read, over)
	if err != nil {
		return nil, err
	}
	return a.explained(lay, d, e, over), nil
}

func (a *Service) explained(lay *desk.Desk, d *dialect.Dialect, e *explain.Explained, over explain.Over) *Explained {
	out := &Explained{
		Explained: *e,
		Title:     d.Title,
		Blocks:    []ExplainedBlock{},
		Sampled:   over.Set.Index != nil,
		Trees:     e.Trees,
	}
	for _, b := range e.Blocks {
		block := ExplainedBlock{Name: b.Name, Concept: b.Concept, Negated: b.Negated, Terms: []ExplainedTerm{}}
		for _, t := range b.Terms {
			term := ExplainedTerm{Term: desk.Term{Term: t}}
			if q, err := t.QueryIn(over.Set.Thesaurus); err == nil {
				if over.Set.Index != nil {
					found := q.Match(over.Set.Index)
					found.And(over.Set.All())
					term.Records = number(found)
				}
				if over.Keys.Index != nil {
					term.Keys = number(q.Match(over.Keys.Index))
				}
			}
			block.Terms = append(block.Terms, term)
		}
		out.Blocks = append(out.Blocks, block)
	}
	return out
}
