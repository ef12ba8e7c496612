package library

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/text"
	"tamiz/store"
)

// SourceName is the name under which the records of a source are stored.
func SourceName(source int64) string { return fmt.Sprintf("source %d", source) }

// A Source is a literature source that can be asked.
type Source struct {
	ID         int64
	Name       string
	Address    string
	Version    string
	Map        json.RawMessage
	Described  json.RawMessage
	Vocabulary string
	Off        bool
	Made       time.Time
}

// Tied reports whether the records of the source carry headings of a vocabulary, by its name, whatever capitals it
// is written in.
func (s Source) Tied(vocabulary string) bool {
	return text.Label(s.Vocabulary) == text.Label(vocabulary)
}

// Sources returns the sources that are not deleted, in the order in which they came.
func (r *Rows) Sources(ctx context.Context) ([]Source, error) {
	return store.All[Source](ctx, r.db, sql["Sources"])
}

// Source returns one source.
func (r *Rows) Source(ctx context.Context, id int64) (Source, error) {
	return store.One[Source](ctx, r.db, sql["Source"], id)
}

// PutSource keeps a source, a new one where it has no number, and returns the number.
func (r *Rows) PutSource(ctx context.Context, x Source) (int64, error) {
	if x.ID == 0 {
		err := r.db.Once(ctx, func(ctx context.Context, tx pgx.Tx) error {
			return tx.QueryRow(ctx, sql["PutSource insert source"],
				x.Name, x.Address, x.Version, x.Map, x.Described, x.Vocabulary, x.Off).Scan(&x.ID)
		})
		return x.ID, err
	}
	tag, err := r.db.Write.Exec(ctx, sql["PutSource update source"],
		x.ID, x.Name, x.Address, x.Version, x.Map, x.Described, x.Vocabulary, x.Off)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone
	}
	return x.ID, err
}

// DeleteSource takes a source away. What was drawn from it stays.
func (r *Rows) DeleteSource(ctx context.Context, id int64) error {
	tag, err := r.db.Write.Exec(ctx, sql["DeleteSource"], id)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone
	}
	return err
}
