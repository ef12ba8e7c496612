package desk

import (
	"context"
	_ "embed"

	"github.com/jackc/pgx/v5"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the documents and looks of a database.
type Rows struct{ db *store.Store }

// NewRows returns the documents and looks of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// PutLook keeps a look at a review by its name, and where last says so as the one that was taken last. A name
// always stands for the same.
func (r *Rows) PutLook(ctx context.Context, review int64, name string, body []byte, last bool) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		_, err := tx.Exec(ctx, sql["PutLook insert look"], review, name, body)
		if err != nil || !last {
			return err
		}
		_, err = tx.Exec(ctx, sql["PutLook update review"], review, name)
		return err
	})
}

// Look returns a look by its name, or the one that was taken last for "".
func (r *Rows) Look(ctx context.Context, review int64, name string) (body []byte, err error) {
	l, err := store.One[struct{ Body []byte }](ctx, r.db, sql["Look"], review, name)
	return l.Body, err
}

// A Saved is the saved state of a review's question, blocks and limits.
type Saved struct {
	Revision int
	Body     []byte
	Who      string // made it, as they call themselves
}

// Document returns a revision of the document, or the newest for 0.
func (r *Rows) Document(ctx context.Context, review int64, revision int) (Saved, error) {
	return documentOf(ctx, r.db, review, revision)
}

func documentOf(ctx context.Context, q store.Asker, review int64, revision int) (Saved, error) {
	return store.One[Saved](ctx, q, sql["documentOf"], review, revision)
}

// DocumentIn returns a revision of the document, or the newest for 0.
func DocumentIn(ctx context.Context, tx *store.Tx, revision int) (Saved, error) {
	return documentOf(ctx, tx, tx.Review, revision)
}

// AddDocument keeps a new revision of the document of a review.
func AddDocument(ctx context.Context, tx store.Doer, review int64, d Saved) error {
	_, err := tx.Exec(ctx, sql["AddDocument"], review, d.Revision, d.Body, d.Who)
	return err
}
