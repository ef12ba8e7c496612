// Package desk is what figures are worked out from: looks, and what is kept in memory for them (vocabularies, key
// studies, pools and what terms find in them), each kind within its bound.
package desk

import (
	"tamiz/app/library"
	"tamiz/app/vocabularies"
	"tamiz/store"
)

// A Service lays out reviews as they are looked at.
type Service struct {
	documents      ownRows
	library        libraryRows
	vocabularyRows vocabularyRows
	Pools          *Pools
	Heavy          *Turns // requests that take a while
	Quick          *Turns // and those that take a moment
}

// New returns a desk on a database.
func New(s *store.Store) *Service {
	return &Service{
		documents:      NewRows(s),
		library:        library.NewRows(s),
		vocabularyRows: vocabularies.NewRows(s),
		Pools:          newPools(s),
		Heavy:          newTurns(cores()),
		Quick:          newTurns(2 * cores()),
	}
}
