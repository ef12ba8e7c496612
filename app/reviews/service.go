// Package reviews is what people make of a review: changes of its document and of what is decided in it, told to all who
// look on, taken back by those who made them; samples put together, and the shelf.
package reviews

import (
	"tamiz/app/desk"
	"tamiz/store"
)

// A Service keeps reviews.
type Service struct {
	store *store.Store
	desk  *desk.Service
}

// New returns the reviews of a database.
func New(s *store.Store, d *desk.Service) *Service { return &Service{store: s, desk: d} }
