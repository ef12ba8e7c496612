package intake

import (
	"context"
	"encoding/json"

	"github.com/jackc/pgx/v5"

	"tamiz/app/library"
	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/store"
)

// A Filing puts the records of an import into the store, batch by batch, each in a transaction of its own. Nobody
// sees them until Show does.
type Filing struct {
	store   *store.Store
	library *library.Rows
	id      int64
	review  int64
	sample  int64
	n       int
	notices int
}

// File begins to put the records of an import into a review. What an earlier attempt left behind is dropped.
func (r *Rows) File(ctx context.Context, i Import) (*Filing, error) {
	return &Filing{store: r.db, library: library.NewRows(r.db), id: i.ID, review: i.Review}, r.dropFiled(ctx, i.ID)
}

// NewSample begins the sample that the records belong to.
func (f *Filing) NewSample(ctx context.Context, name, fileName string) (int64, error) {
	var err error
	f.sample, err = f.library.BeginSample(ctx, f.review, f.id, name, fileName)
	return f.sample, err
}

// AddToSample stores records and puts them at the end of the sample.
func (f *Filing) AddToSample(ctx context.Context, records []*bib.Record) error {
	err := f.library.AddToSample(ctx, f.sample, f.n, records)
	if err == nil {
		f.n += len(records)
	}
	return err
}

// AddNotices keeps what the reader reported.
func (f *Filing) AddNotices(ctx context.Context, notices []exchange.Notice) error {
	if len(notices) == 0 {
		return nil
	}
	return f.store.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		_, err := tx.CopyFrom(
			ctx,
			pgx.Identifier{"notice"},
			[]string{"import", "n", "line", "record", "kind", "detail", "skipped"},
			pgx.CopyFromSlice(len(notices), func(i int) ([]any, error) {
				n := notices[i]
				return []any{f.id, f.notices + i, n.Line, n.Record, string(n.Kind), n.Detail, n.Skipped}, nil
			}),
		)
		if err == nil {
			f.notices += len(notices)
		}
		return err
	})
}

// Show ends an import: its sample, where it has one, is seen from now on. Its file is no longer needed.
func (f *Filing) Show(
	ctx context.Context,
	w *store.Tx,
	format string,
	records, skipped, notices int,
	years json.RawMessage,
) error {
	var sample *int64
	if f.sample > 0 {
		sample = &f.sample
		if err := library.ShowFiled(ctx, w, f.sample, records, years); err != nil {
			return err
		}
	}
	tag, err := w.Exec(ctx, sql["Show"],
		f.id, records, skipped, notices, sample, format)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone // it was given up meanwhile
	}
	return err
}

// A Notice is one line of an import's report.
type Notice struct {
	Line    int    `json:"line"`
	Record  int    `json:"record"`
	Kind    string `json:"kind"`
	Detail  string `json:"detail"`
	Skipped bool   `json:"skipped"`
}

// Notices returns the report of an import.
func (r *Rows) Notices(ctx context.Context, id int64) ([]Notice, error) {
	return store.All[Notice](ctx, r.db, sql["Notices"], id)
}
