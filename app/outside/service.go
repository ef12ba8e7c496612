// Package outside is the sources: asked for counts and titles, drawn from, looked up what they hold.
package outside

import (
	"time"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/app/work"
	"tamiz/source/sru"
	"tamiz/store"
)

// A Service asks sources.
type Service struct {
	store   *store.Store
	desk    *desk.Service
	reviews *reviews.Service
	work    *work.Service
	sources *sru.Settings
	now     func() time.Time
}

// New returns the sources of a database; guard says which private addresses may be asked.
func New(s *store.Store, d *desk.Service, r *reviews.Service, w *work.Service, guard sru.Guard) *Service {
	return &Service{store: s, desk: d, reviews: r, work: w, sources: &sru.Settings{Guard: guard}, now: time.Now}
}
