// Package figures is every figure that is shown: each is asked of a look (see desk) and worked out by the core.
package figures

import (
	"context"
	"time"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/reviews"
	"tamiz/app/vocabularies"
	"tamiz/store"
)

// A Service works out figures.
type Service struct {
	rows           ownRows
	library        libraryRows
	documents      documentRows
	reviewRows     headRows
	vocabularyRows vocabularyRows
	runs           runRows
	desk           *desk.Service
	now            func() time.Time
}

// New returns the figures of what lies on a desk.
func New(s *store.Store, d *desk.Service) *Service {
	return &Service{
		rows:           NewRows(s),
		library:        library.NewRows(s),
		documents:      desk.NewRows(s),
		reviewRows:     reviews.NewRows(s),
		vocabularyRows: vocabularies.NewRows(s),
		runs:           logbook.NewRows(s),
		desk:           d,
		now:            time.Now,
	}
}

// sampled waits for a turn and lays out a review with its sample; where none is looked at, it says so.
func (a *Service) sampled(ctx context.Context, at desk.At, turns *desk.Turns) (*desk.Desk, error) {
	if err := turns.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err == nil && d.Pool == nil {
		err = desk.ErrNoSample
	}
	return d, err
}
