// Package runs is the strategy run everywhere: asked of sources and written down by hand, what came of it, what is
// new since the last time, and searches that are run again by themselves.
package runs

import (
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"tamiz/app/desk"
	"tamiz/app/draws"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/overlap"
	"tamiz/store"
)

// A Service runs strategies.
type Service struct {
	rows       ownRows
	logbook    logRows
	library    libraryRows
	documents  documentRows
	reviewRows headRows
	sources    *sources.Service
	draws      *draws.Service
	desk       *desk.Service
	jobs       *jobs.Service
	now        func() time.Time

	overlaps *lru.Cache[string, overlap.Overlap] // by the draws that were set against each other
}

// New returns the runs of a database.
func New(s *store.Store, d *desk.Service, o *sources.Service, drawn *draws.Service, w *jobs.Service) *Service {
	overlaps, err := lru.New[string, overlap.Overlap](64)
	if err != nil {
		panic(err) // 64 is a size
	}
	return &Service{
		rows:       NewRows(s),
		logbook:    logbook.NewRows(s),
		library:    library.NewRows(s),
		documents:  desk.NewRows(s),
		reviewRows: reviews.NewRows(s),
		sources:    o,
		draws:      drawn,
		desk:       d,
		jobs:       w,
		now:        time.Now,
		overlaps:   overlaps,
	}
}
