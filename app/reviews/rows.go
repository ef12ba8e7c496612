package reviews

import (
	"context"
	_ "embed"
	"encoding/json"
	"errors"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/app/desk"
	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the reviews of a database.
type Rows struct{ db *store.Store }

// NewRows returns the reviews of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A Head is a review as it stands in the list.
type Head struct {
	ID         int64     `json:"id"`
	Name       string    `json:"name"`
	Touched    time.Time `json:"touched"`
	Samples    int       `json:"samples"`
	KeyStudies int       `json:"keyStudies"`
	Deleted    bool      `json:"deleted"`
}

// Heads returns the reviews that are not deleted, last touched first.
func (r *Rows) Heads(ctx context.Context) ([]Head, error) {
	return store.All[Head](ctx, r.db, sql["Heads"])
}

// Head returns one review, deleted or not.
func (r *Rows) Head(ctx context.Context, id int64) (Head, error) {
	return store.One[Head](ctx, r.db, sql["Head"], id)
}

// New begins a review with its first document.
func (r *Rows) New(ctx context.Context, name string, document []byte) (id int64, err error) {
	err = r.db.Once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if err := tx.QueryRow(ctx, sql["New"], name).Scan(&id); err != nil {
			return err
		}
		return desk.AddDocument(ctx, tx, id, desk.Saved{Revision: 1, Body: document})
	})
	return id, err
}

// Patch renames a review, deletes it or takes it back; nil leaves as it is.
func (r *Rows) Patch(ctx context.Context, id int64, name *string, deleted *bool) error {
	tag, err := r.db.Write.Exec(ctx, sql["Patch"], id, name, deleted)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone
	}
	return err
}

// A Decision is what was decided about a candidate: parked or dropped.
type Decision struct {
	Facet  string    `json:"facet"`
	Item   string    `json:"item"`
	State  string    `json:"state"`
	Reason string    `json:"reason"`
	At     time.Time `json:"at"`
	Who    string    `json:"who,omitempty"`    // made it, as they call themselves
	Sample *int64    `json:"sample,omitempty"` // that was looked at
}

// Decisions returns the decisions of a review.
func (r *Rows) Decisions(ctx context.Context, review int64) ([]Decision, error) {
	return store.All[Decision](ctx, r.db, sql["Decisions"], review)
}

// Steps returns what the author of a context can undo and what they can make again, nil where nothing can be.
func (r *Rows) Steps(ctx context.Context, review int64) (undo, redo json.RawMessage, err error) {
	err = r.db.QueryRow(ctx, sql["Steps"], review, store.AuthorOf(ctx).Self).Scan(&undo, &redo)
	return undo, redo, err
}

// Number returns the number of the last that was done to a review.
func (r *Rows) Number(ctx context.Context, review int64) (number int64, err error) {
	err = r.db.QueryRow(ctx, sql["Number"], review).Scan(&number)
	if errors.Is(err, pgx.ErrNoRows) {
		err = store.ErrNone
	}
	return number, err
}

// ForgetChanges makes what a review is now its beginning: nothing before it can be undone.
func (r *Rows) ForgetChanges(ctx context.Context, review int64) error {
	_, err := r.db.Write.Exec(ctx, sql["ForgetChanges"], review)
	return err
}
