package sources

import (
	"context"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/query"
	"tamiz/core/thesaurus"
)

// A meant is what a revision of a review asks for.
type meant struct {
	doc   desk.Document
	terms *thesaurus.Thesaurus // of the vocabulary that it goes by; nil for none
	query query.Expr           // nil where it finds nothing
}

// meantAt returns what a revision asks for, the latest where it is 0.
func (a *Service) meantAt(ctx context.Context, review int64, revision int) (m meant, err error) {
	saved, err := a.documents.Document(ctx, review, revision)
	if err != nil {
		return m, problems.Gone(err, "revision")
	}
	if m.doc, err = desk.Parse(saved.Body); err != nil {
		return m, err
	}
	if m.terms, err = a.desk.Pools.Thesaurus(ctx, m.doc.Vocabulary); err != nil {
		return m, err
	}
	if m.query, err = m.doc.Strategy("").Query(m.terms); err != nil {
		m.query = nil // a block without a term, or none at all
	}
	return m, nil
}

// askedOf returns what a source is asked for the strategy of a revision, the whole and line by line; the whole is
// "" where that finds nothing, or it cannot be asked.
func (a *Service) askedOf(ctx context.Context, review int64, revision int, s Source) (*Written, error) {
	m, err := a.meantAt(ctx, review, revision)
	if err != nil {
		return nil, err
	}
	as, err := a.speech(ctx, s, m.doc.Vocabulary)
	if err != nil {
		return nil, err
	}
	return as.written(s.Name, m)
}
