// Package intake is files that come in: received, asked about where they do not say enough, read and filed.
package intake

import (
	"context"
	"errors"
	"log/slog"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/store"
)

// A Service takes files in. KeysCame is called when key studies have come in, once they are filed.
type Service struct {
	store      *store.Store
	rows       ownRows
	library    libraryRows
	reviewRows headRows
	jobs       *jobs.Service
	log        *slog.Logger
	KeysCame   func(ctx context.Context, review int64) error
}

// New returns the intake of a database.
func New(s *store.Store, w *jobs.Service, log *slog.Logger, keysCame func(context.Context, int64) error) *Service {
	return &Service{
		store:      s,
		rows:       NewRows(s),
		library:    library.NewRows(s),
		reviewRows: reviews.NewRows(s),
		jobs:       w,
		log:        log,
		KeysCame:   keysCame,
	}
}

// Sweep forgets what was left behind.
func (a *Service) Sweep(ctx context.Context) error {
	return errors.Join(a.rows.SweepImports(ctx), a.library.SweepHidden(ctx))
}
