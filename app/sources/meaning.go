package sources

import (
	"context"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/query"
	"tamiz/core/thesaurus"
	"tamiz/source"
)

// A Meaning is what a revision of a review asks for.
type Meaning struct {
	Doc   desk.Document
	Terms *thesaurus.Thesaurus // of the vocabulary that it goes by; nil for none
	Query query.Expr           // nil where it finds nothing
}

// MeaningAt returns what a revision asks for, the latest where it is 0.
func (a *Service) MeaningAt(ctx context.Context, review int64, revision int) (m Meaning, err error) {
	saved, err := a.documents.Document(ctx, review, revision)
	if err != nil {
		return m, problems.Gone(err, "revision")
	}
	if m.Doc, err = desk.Parse(saved.Body); err != nil {
		return m, err
	}
	if m.Terms, err = a.desk.Pools.Thesaurus(ctx, m.Doc.Vocabulary); err != nil {
		return m, err
	}
	if m.Query, err = m.Doc.Strategy("").Query(m.Terms); err != nil {
		m.Query = nil // a block without a term, or none at all
	}
	return m, nil
}

// AskedOf returns what a source is asked for the strategy of a revision, the whole and line by line; the whole is
// "" where that finds nothing, or it cannot be asked.
func (a *Service) AskedOf(ctx context.Context, review int64, revision int, s Source) (*Written, error) {
	m, err := a.MeaningAt(ctx, review, revision)
	if err != nil {
		return nil, err
	}
	as, err := a.Speech(ctx, s, m.Doc.Vocabulary)
	if err != nil {
		return nil, err
	}
	return as.written(s.Name, m)
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
