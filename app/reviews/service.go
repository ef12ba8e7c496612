// Package reviews is what people make of a review: changes of its document and of what is decided in it, told to
// all who look on, taken back by those who made them; samples put together, and the shelf.
package reviews

import (
	"context"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/vocabularies"
	"tamiz/store"
)

// A Service keeps reviews.
type Service struct {
	store          *store.Store
	rows           ownRows
	library        libraryRows
	documents      documentRows
	vocabularyRows vocabularyRows
	imports        Imports
	desk           *desk.Service
}

// Imports tells of files that are being brought in.
type Imports interface {
	// Open returns those of a review that are not read yet, and those that failed in the last hour.
	Open(ctx context.Context, review int64) ([]Import, error)
}

// New returns the reviews of a database.
func New(s *store.Store, d *desk.Service, imports Imports) *Service {
	return &Service{store: s, rows: NewRows(s), library: library.NewRows(s), documents: desk.NewRows(s),
		vocabularyRows: vocabularies.NewRows(s), imports: imports, desk: d}
}
