// Package library is what the program holds of records: the sources they come from, the samples they came in and
// how those were drawn, key studies and which sources hold them, the shelf, and what people said of records.
package library

import (
	_ "embed"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are what is held of records of a database.
type Rows struct{ db *store.Store }

// NewRows returns what is held of records of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }
