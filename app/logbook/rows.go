// Package logbook is what was asked where, when and with what: the runs of a review, in rows that are never changed.
package logbook

import (
	"context"
	_ "embed"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the runs and the orders of them of a database.
type Rows struct{ db *store.Store }

// NewRows returns the runs and the orders of them of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// An Asking is an order to run the whole strategy at some sources.
type Asking struct {
	ID       int64
	Review   int64
	Revision int
	Sources  []int64
	Records  int // to be drawn of each at most; 0 for none
	Who      string
	At       time.Time
}

// A Run is what came of a strategy at one place, as its row; the room of runs tells it.
type Run struct {
	ID       int64
	Review   int64
	Kind     string // asked, counted, hand, round or draw
	Way      string // of one that was written down, and of a round
	Asking   *int64
	Revision int
	Source   *int64 // none where it was written down by hand
	Place    string
	Query    string
	Records  *int64 // none where there was no answer
	Exchange json.RawMessage
	Notes    json.RawMessage
	Lines    json.RawMessage `db:"-"` // of one that was asked, as they were; see LinesOfRun
	Problem  json.RawMessage
	Draw     *int64
	Note     string
	Who      string
	At       time.Time
	Corrects *int64 // of one that was written down: the one that it puts right
	Void     bool   // and it says that that one was never made
	Sample   *int64 // the records that were found by hand

	CorrectedBy *int64 // the one that puts it right
}

// RunTask is the running of a strategy at one source.
func RunTask(a Asking, source int64) jobs.Task {
	t := jobs.NewTask("run", a.ID, &a.Review, &source)
	t.Name += " at " + library.SourceName(source)
	return t
}

// NewAsking keeps an order, asks for a task at each source, and calls then with each in the same transaction. A
// request that was made before is not made again.
func (r *Rows) NewAsking(
	ctx context.Context,
	a Asking,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) (id int64, err error) {
	err = r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if again, err := store.Repeated(ctx, tx, a.Review); again || err != nil {
			return err
		}
		id, err = NewAskingIn(ctx, tx, a, then)
		return err
	})
	return id, err
}

// NewAskingIn keeps an order; of the newest revision, where none is said.
func NewAskingIn(
	ctx context.Context,
	tx pgx.Tx,
	a Asking,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) (int64, error) {
	err := tx.QueryRow(ctx, sql["NewAskingIn"],
		a.Review, a.Revision, a.Sources, a.Records, store.AuthorOf(ctx).Name).Scan(&a.ID)
	if err != nil {
		return 0, err
	}
	for _, id := range a.Sources {
		t, err := jobs.AskIn(ctx, tx, RunTask(a, id))
		if err != nil {
			return 0, err
		}
		if err := then(ctx, tx, t); err != nil {
			return 0, err
		}
	}
	return a.ID, nil
}

// Asking returns one order.
func (r *Rows) Asking(ctx context.Context, id int64) (Asking, error) {
	return store.One[Asking](ctx, r.db, sql["Asking"], id)
}

// LastAsking returns the last order of a review.
func (r *Rows) LastAsking(ctx context.Context, review int64) (Asking, error) {
	return store.One[Asking](ctx, r.db, sql["LastAsking"], review)
}

// Runs returns the runs of a review, the newest first, before one where a number is given; those that were counted
// in passing too, where they are asked for.
func (r *Rows) Runs(ctx context.Context, review, before int64, passing bool, most int) ([]Run, error) {
	return store.All[Run](ctx, r.db, sql["Runs"], review, before, passing, most)
}

// CountedInPassing returns how many runs of a review were.
func (r *Rows) CountedInPassing(ctx context.Context, review int64) (n int, err error) {
	err = r.db.QueryRow(ctx, sql["CountedInPassing"], review).Scan(&n)
	return n, err
}

// LastRuns returns the last run of a review at each source that somebody asked.
func (r *Rows) LastRuns(ctx context.Context, review int64) ([]Run, error) {
	return store.All[Run](ctx, r.db, sql["LastRuns"], review)
}

// Counted returns what each source said last of each revision of a review that somebody asked it for, or that is
// one of those named; at most so many, those of the newest revisions first.
func (r *Rows) Counted(ctx context.Context, review int64, revisions []int, most int) ([]Run, error) {
	return store.All[Run](ctx, r.db, sql["Counted"], review, most, revisions)
}

// HandRuns returns what was written down by hand and holds: what nothing corrects, in the order in which it was made.
func (r *Rows) HandRuns(ctx context.Context, review int64) ([]Run, error) {
	return store.All[Run](ctx, r.db, sql["HandRuns"], review)
}

// RunsOf returns what came of an order so far.
func (r *Rows) RunsOf(ctx context.Context, asking int64) ([]Run, error) {
	return store.All[Run](ctx, r.db, sql["RunsOf"], asking)
}

// PutRun adds a run and, where one is given, the draw of its records, with its task. A run that was added already
// is not added again.
func (r *Rows) PutRun(
	ctx context.Context,
	run Run,
	draw *library.Draw,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if again, err := store.Repeated(ctx, tx, run.Review); again || err != nil {
			return err
		}
		if run.Asking != nil {
			// Another that is at the same waits, and then finds it done.
			if _, err := tx.Exec(ctx, sql["PutRun select asking"], *run.Asking); err != nil {
				return err
			}
			there, err := store.One[struct{ There bool }](ctx, tx, sql["PutRun select run"], run.Asking, run.Source)
			if err != nil || there.There {
				return err
			}
		}
		if run.Corrects != nil {
			// Of two who put the same one right at once, the second is told.
			was, err := store.One[struct{ Done bool }](ctx, tx, sql["PutRun select run 2"], *run.Corrects, run.Review)
			if err == nil && was.Done {
				err = store.ErrInUse
			}
			if err != nil {
				return err
			}
		}
		if draw != nil {
			id, err := library.NewDrawIn(ctx, tx, *draw, then)
			if err != nil {
				return err
			}
			run.Draw = &id
		}
		if run.Notes == nil {
			run.Notes = json.RawMessage("[]")
		}
		if run.At.IsZero() {
			run.At = time.Now()
		}
		return Add(ctx, tx, run)
	})
}

// Add adds a run within a transaction.
func Add(ctx context.Context, tx pgx.Tx, r Run) error {
	_, err := tx.Exec(
		ctx,
		sql["AddRun"],
		r.Review,
		r.Kind,
		r.Way,
		r.Asking,
		r.Revision,
		r.Source,
		r.Place,
		r.Query,
		r.Records,
		r.Exchange,
		r.Notes,
		r.Problem,
		r.Draw,
		r.Note,
		r.Who,
		r.At,
		r.Corrects,
		r.Void,
		r.Sample,
		r.Lines,
	)
	return err
}

// Run returns one run.
func (r *Rows) Run(ctx context.Context, id int64) (Run, error) {
	return store.One[Run](ctx, r.db, sql["Run"], id)
}

// LinesOfRun returns the lines of a run as they were asked; nil where they were not kept.
func (r *Rows) LinesOfRun(ctx context.Context, id int64) (json.RawMessage, error) {
	run, err := store.One[struct{ Lines json.RawMessage }](ctx, r.db, sql["LinesOfRun"], id)
	return run.Lines, err
}

// TwoRuns returns, for each source, the last two runs whose records were fetched whole, the newest first. An answer
// of none is whole.
func (r *Rows) TwoRuns(ctx context.Context, review int64) ([]Run, error) {
	return store.All[Run](ctx, r.db, sql["TwoRuns"], review)
}
