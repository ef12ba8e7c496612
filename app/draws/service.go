// Package draws is the drawing of samples at sources: planned, fetched in parts, carried on after a stop.
package draws

import (
	"time"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/store"
)

// A Service draws samples.
type Service struct {
	store      *store.Store
	library    libraryRows
	documents  documentRows
	reviewRows headRows
	sources    *sources.Service
	jobs       *jobs.Service
	now        func() time.Time
}

// New returns the draws of a database.
func New(s *store.Store, o *sources.Service, w *jobs.Service) *Service {
	return &Service{
		store:      s,
		library:    library.NewRows(s),
		documents:  desk.NewRows(s),
		reviewRows: reviews.NewRows(s),
		sources:    o,
		jobs:       w,
		now:        time.Now,
	}
}
