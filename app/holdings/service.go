// Package holdings is which source holds which key study: works looked up, found again, and settled by a person.
package holdings

import (
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/store"
)

// A Service looks works up at sources.
type Service struct {
	store      *store.Store
	library    libraryRows
	reviewRows headRows
	reviews    *reviews.Service
	sources    *sources.Service
	jobs       *jobs.Service
}

// New returns the holdings of a database.
func New(s *store.Store, r *reviews.Service, o *sources.Service, w *jobs.Service) *Service {
	return &Service{
		store:      s,
		library:    library.NewRows(s),
		reviewRows: reviews.NewRows(s),
		reviews:    r,
		sources:    o,
		jobs:       w,
	}
}
