// Package sources is the sources: how each is asked, what a strategy is in its own syntax, and how much it finds.
package sources

import (
	"time"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/reviews"
	"tamiz/source/sru"
	"tamiz/store"
)

// A Service asks sources.
type Service struct {
	rows       ownRows
	logbook    logRows
	library    libraryRows
	documents  documentRows
	reviewRows headRows
	tasks      taskRows
	desk       *desk.Service
	jobs       *jobs.Service
	sources    *sru.Settings
	now        func() time.Time
}

// New returns the sources of a database; guard says which private addresses may be asked.
func New(s *store.Store, d *desk.Service, w *jobs.Service, guard sru.Guard) *Service {
	return &Service{
		rows:       NewRows(s),
		logbook:    logbook.NewRows(s),
		library:    library.NewRows(s),
		documents:  desk.NewRows(s),
		reviewRows: reviews.NewRows(s),
		tasks:      jobs.NewRows(s),
		desk:       d,
		jobs:       w,
		sources:    &sru.Settings{Guard: guard},
		now:        time.Now,
	}
}
