package figures

import (
	"context"
	_ "embed"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the kept blocks of a database.
type Rows struct{ db *store.Store }

// NewRows returns the kept blocks of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A KeptBlockRow is a block that is kept for reuse.
type KeptBlockRow struct {
	Name    string
	Version int
	Body    json.RawMessage
	Note    string
	Tested  string // on what, and how it fared
	Review  string // the name of the one it comes from
	Who     string
	At      time.Time
	Gone    bool // it is not offered any more
}

// KeptBlocks returns the blocks that were kept, those too that are not any more, the newest version of each first.
func (r *Rows) KeptBlocks(ctx context.Context, most int) ([]KeptBlockRow, error) {
	return store.All[KeptBlockRow](ctx, r.db, sql["KeptBlocks"], most)
}

// KeepBlock keeps a block, as the next version of its name.
func (r *Rows) KeepBlock(ctx context.Context, b KeptBlockRow) (kept KeptBlockRow, err error) {
	err = r.db.Once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		kept, err = store.One[KeptBlockRow](ctx, tx, sql["KeepBlock"],
			b.Name, b.Body, b.Note, b.Tested, b.Review, store.AuthorOf(ctx).Name)
		return err
	})
	return kept, err
}

// ForgetBlock keeps a block no more, in any version, or again.
func (r *Rows) ForgetBlock(ctx context.Context, name string, gone bool) error {
	tag, err := r.db.Write.Exec(ctx, sql["ForgetBlock"], name, gone)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone
	}
	return err
}
