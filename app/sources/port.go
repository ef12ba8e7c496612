package sources

import (
	"context"
	"errors"

	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/source"
	"tamiz/source/sru"
)

// What other rooms ask sources by.

// Named returns a source that is not switched off, and a client of it.
func (a *Service) Named(ctx context.Context, id int64) (Source, *sru.Client, error) {
	s, err := a.Source(ctx, id)
	if err != nil {
		return s, nil, err
	}
	c, err := a.Client(s)
	return s, c, err
}

// AskedNow returns what a source is asked for the strategy of a review as it stands, "" where it cannot be; it says
// so where there is none.
func (a *Service) AskedNow(ctx context.Context, review int64, s Source) (cql string, notes []source.Note, err error) {
	m, err := a.MeaningAt(ctx, review, 0)
	if err == nil && m.Query == nil {
		err = &problems.Problem{Type: "no-query", Status: 409, Title: "There is no strategy to ask for yet."}
	}
	if err != nil {
		return "", nil, err
	}
	as, err := a.Speech(ctx, s, m.Doc.Vocabulary)
	if err != nil {
		return "", nil, err
	}
	cql, notes = as.Whole(m.Doc.Strategy(""), m.Terms)
	return cql, notes, nil
}

// First returns the first records that a source finds for a query; none where it cannot be asked that, or refuses
// to be.
func First(ctx context.Context, c source.Source, m source.Map, q query.Expr, most int) ([]*bib.Record, error) {
	cql, _ := source.Render(q, m)
	if cql == "" {
		return nil, nil
	}
	page, err := c.Search(ctx, source.Search{Query: cql, Start: 1, Max: most})
	var refused *source.Refusal
	if errors.As(err, &refused) {
		return nil, nil
	}
	var out []*bib.Record
	if page != nil {
		for _, g := range page.Records {
			if g.Record != nil {
				out = append(out, g.Record)
			}
		}
	}
	return out, err
}
