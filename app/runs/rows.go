package runs

import (
	"context"
	_ "embed"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/app/jobs"
	"tamiz/app/logbook"
	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the watches, and the news that were dismissed, of a database.
type Rows struct{ db *store.Store }

// NewRows returns the watches, and the news that were dismissed, of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A WatchRow is a search that is run again by itself.
type WatchRow struct {
	Review  int64
	Sources []int64
	Every   string // week, month or once
	Records int
	Next    *time.Time
	Missed  int // times that passed while no program ran
	Who     string
	Last    *int64 // the last order that came of it
}

// Watch returns how a review's search is run again.
func (r *Rows) Watch(ctx context.Context, review int64) (WatchRow, error) {
	return store.One[WatchRow](ctx, r.db, sql["Watch"], review)
}

// PutWatch says how a review's search is run again.
func (r *Rows) PutWatch(ctx context.Context, w WatchRow) error {
	_, err := r.db.Write.Exec(ctx, sql["PutWatch"],
		w.Review, w.Sources, w.Every, w.Records, w.Next, store.AuthorOf(ctx).Name)
	return err
}

// DropWatch ends it.
func (r *Rows) DropWatch(ctx context.Context, review int64) error {
	_, err := r.db.Write.Exec(ctx, sql["DropWatch"], review)
	return err
}

// DueWatches runs what is due: for each, next says when it is due after that and how many times were missed, and
// then is called with the task at each source, in one transaction. Of several processes one alone has each.
func (r *Rows) DueWatches(
	ctx context.Context,
	now time.Time,
	next func(WatchRow) (after *time.Time, missed int),
	then func(context.Context, pgx.Tx, jobs.Task) error,
) (reviews []int64, err error) {
	err = r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		reviews = nil
		due, err := store.All[WatchRow](ctx, tx, sql["DueWatches select watch"], now)
		if err != nil {
			return err
		}
		for _, w := range due {
			after, missed := next(w)
			by := store.By(ctx, store.Author{Name: w.Who})
			id, err := logbook.NewAskingIn(
				by,
				tx,
				logbook.Asking{Review: w.Review, Sources: w.Sources, Records: w.Records},
				then,
			)
			if err != nil {
				return err
			}
			if _, err := tx.Exec(ctx, sql["DueWatches update watch"], w.Review, after, missed, id); err != nil {
				return err
			}
			reviews = append(reviews, w.Review)
		}
		return nil
	})
	return reviews, err
}

// Dismiss says of records that were new that they are not told of again, or that they are.
func (r *Rows) Dismiss(ctx context.Context, review int64, records []int64, on bool) error {
	if !on {
		_, err := r.db.Write.Exec(ctx, sql["Dismiss delete dismissed"], review, records)
		return err
	}
	_, err := r.db.Write.Exec(ctx, sql["Dismiss insert dismissed"], review, records, store.AuthorOf(ctx).Name)
	return err
}

// Dismissed returns the records of a review that were dismissed.
func (r *Rows) Dismissed(ctx context.Context, review int64) (map[int64]bool, error) {
	rows, err := r.db.Query(ctx, sql["Dismissed"], review)
	if err != nil {
		return nil, err
	}
	ids, err := pgx.CollectRows(rows, pgx.RowTo[int64])
	out := map[int64]bool{}
	for _, id := range ids {
		out[id] = true
	}
	return out, err
}
