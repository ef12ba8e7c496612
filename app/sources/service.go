// Package sources is the sources: asked for counts and titles, drawn from, looked up what they hold.
package sources

import (
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/core/overlap"
	"tamiz/source/sru"
	"tamiz/store"
)

// A Service asks sources.
type Service struct {
	store      *store.Store
	rows       ownRows
	library    libraryRows
	documents  documentRows
	reviewRows headRows
	tasks      taskRows
	desk       *desk.Service
	reviews    *reviews.Service
	jobs       *jobs.Service
	sources    *sru.Settings
	now        func() time.Time

	overlaps *lru.Cache[string, overlap.Overlap] // by the draws that were set against each other
}

// New returns the sources of a database; guard says which private addresses may be asked.
func New(s *store.Store, d *desk.Service, r *reviews.Service, w *jobs.Service, guard sru.Guard) *Service {
	overlaps, err := lru.New[string, overlap.Overlap](64)
	if err != nil {
		panic(err) // 64 is a size
	}
	return &Service{
		overlaps:   overlaps,
		store:      s,
		rows:       NewRows(s),
		library:    library.NewRows(s),
		documents:  desk.NewRows(s),
		reviewRows: reviews.NewRows(s),
		tasks:      jobs.NewRows(s),
		desk:       d,
		reviews:    r,
		jobs:       w,
		sources:    &sru.Settings{Guard: guard},
		now:        time.Now,
	}
}
