// Package figures is every figure that is shown: each is asked of a look (see desk) and worked out by the core.
package figures

import (
	"time"

	"tamiz/app/desk"
	"tamiz/store"
)

// A Service works out figures.
type Service struct {
	store *store.Store
	desk  *desk.Service
	now   func() time.Time
}

// New returns the figures of what lies on a desk.
func New(s *store.Store, d *desk.Service) *Service {
	return &Service{store: s, desk: d, now: time.Now}
}
