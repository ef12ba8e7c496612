// Package vocabularies is the controlled vocabularies of the program: which there are, what became of one from edition
// to edition, and when one can go.
package vocabularies

import (
	"context"
	"errors"

	"tamiz/app/problems"
	"tamiz/core/thesaurus"
	"tamiz/store"
)

// A Service keeps vocabularies.
type Service struct {
	rows  ownRows
	pools Pools
}

// Pools keeps vocabularies that were read.
type Pools interface {
	Thesaurus(ctx context.Context, vocabulary *int64) (*thesaurus.Thesaurus, error)
}

// New returns the vocabularies of a database.
func New(s *store.Store, pools Pools) *Service { return &Service{NewRows(s), pools} }

// All returns the vocabularies there are, by name, of one name the latest edition first.
func (a *Service) All(ctx context.Context) ([]Vocabulary, error) {
	return a.rows.All(ctx)
}

// Changes tells what an edition says otherwise than an earlier one; than the one before, where since is nil.
func (a *Service) Changes(ctx context.Context, id int64, since *int64) (*thesaurus.Changes, error) {
	v, err := a.rows.One(ctx, id)
	if err != nil {
		return nil, problems.Gone(err, "vocabulary")
	}
	if since == nil {
		since = v.Earlier
	}
	if since == nil {
		return nil, &problems.Problem{
			Type:   "no-edition",
			Status: 409,
			Title:  "There is no earlier edition of this vocabulary to compare with.",
		}
	}
	later, err := a.pools.Thesaurus(ctx, &id)
	if err != nil {
		return nil, err
	}
	earlier, err := a.pools.Thesaurus(ctx, since)
	if err != nil {
		return nil, err
	}
	out := thesaurus.Compare(earlier, later)
	return &out, nil
}

// Delete takes a vocabulary away, unless a review goes by it. What was made with it stays readable.
func (a *Service) Delete(ctx context.Context, id int64) error {
	err := a.rows.Delete(ctx, id)
	if errors.Is(err, store.ErrInUse) {
		return &problems.Problem{
			Type:   "in-use",
			Status: 409,
			Title:  "A review goes by this vocabulary. Nothing was taken away: choose another there first.",
		}
	}
	return problems.Gone(err, "vocabulary")
}
