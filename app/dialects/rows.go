package dialects

import (
	"context"
	_ "embed"

	"github.com/jackc/pgx/v5"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the dialects that somebody wrote of a database.
type Rows struct{ db *store.Store }

// NewRows returns the dialects that somebody wrote of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A Dialect is the file of one that somebody wrote.
type Dialect struct{ Name, Body string }

// Dialects returns those that were written, by name.
func (r *Rows) Dialects(ctx context.Context) ([]Dialect, error) {
	return store.All[Dialect](ctx, r.db, sql["Dialects"])
}

// PutDialect keeps a dialect under its name.
func (r *Rows) PutDialect(ctx context.Context, d Dialect) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		_, err := tx.Exec(ctx, sql["PutDialect"], d.Name, d.Body)
		return err
	})
}

// DeleteDialect takes one away; ErrNone where it is not there.
func (r *Rows) DeleteDialect(ctx context.Context, name string) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		done, err := tx.Exec(ctx, sql["DeleteDialect"], name)
		if err == nil && done.RowsAffected() == 0 {
			return store.ErrNone
		}
		return err
	})
}
