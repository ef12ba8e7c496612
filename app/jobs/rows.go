package jobs

import (
	"context"
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the tasks of a database.
type Rows struct{ db *store.Store }

// NewRows returns the tasks of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A Task is work that goes on beside what people do: a file that is read, a sample that is drawn, counts that
// are asked for. That it is wanted, who is at it and how it ended last stand in the database, so that any
// process can do it and any process can tell of it.
type Task struct {
	Name    string // kind and number
	Kind    string
	Number  int64 // of the import, the draw or the review
	Review  *int64
	Source  *int64
	Who     string // asked for it, as they call themselves
	Author  string // and as their browser does
	Asked   int64
	Takes   int             // how often it was taken up because who was at it had died
	Waits   string          // source or review: whose other tasks it waits for
	Problem json.RawMessage // why it came to nothing the last time
	Ended   *time.Time
	Wanted  bool
	Fresh   bool // all that was asked for before is done: nobody is at it or waits to be
}

// NewTask returns a task of a kind. Review and source are whose it is, where it is anyone's.
func NewTask(kind string, number int64, review, source *int64) Task {
	return Task{Name: fmt.Sprint(kind, " ", number), Kind: kind, Number: number, Review: review, Source: source}
}

// Silent is after what time who was at a task and says nothing has died.
const Silent = 6 * time.Second

// Ask notes that a task is wanted (again) and calls then in the same transaction, with the task.
func (r *Rows) Ask(ctx context.Context, t Task, then func(context.Context, pgx.Tx, Task) error) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		asked, err := AskIn(ctx, tx, t)
		if err != nil {
			return err
		}
		return then(ctx, tx, asked)
	})
}

func AskIn(ctx context.Context, tx pgx.Tx, t Task) (Task, error) {
	return store.One[Task](ctx, tx, sql["AskIn"],
		t.Name, t.Kind, t.Number, t.Review, t.Source, store.AuthorOf(ctx).Name, store.AuthorOf(ctx).Self)
}

// Task returns a task, wanted or not.
func (r *Rows) Task(ctx context.Context, name string) (Task, error) {
	return store.One[Task](ctx, r.db, sql["Task"], name)
}

// Most says how many tasks of a kind go on at once for one source and for one review; 0 is any number.
type Most struct{ OfSource, OfReview int }

// Claim makes a process the one who is at a task. ErrNone is the answer where nothing is to be done, or
// another is at it. With Waits set, it is not its turn yet.
func (r *Rows) Claim(ctx context.Context, name string, holder uuid.UUID, most Most) (t Task, err error) {
	err = r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		// Of one kind one claims at a time, so that no two take the last free place.
		if _, err := tx.Exec(ctx, sql["Claim select"], taskLock, name); err != nil {
			return err
		}
		t, err = store.One[Task](ctx, tx, sql["Claim select task"], name, Silent)
		if err != nil {
			return err
		}
		var ofSource, ofReview int
		if err := tx.QueryRow(ctx, sql["Claim select task 2"], t.Kind, name, t.Source, t.Review, Silent).Scan(&ofSource,
			&ofReview); err != nil {
			return err
		}
		t.Waits = ""
		switch {
		case most.OfSource > 0 && ofSource >= most.OfSource:
			t.Waits = "source"
		case most.OfReview > 0 && ofReview >= most.OfReview:
			t.Waits = "review"
		}
		if t.Waits != "" { // that its turn was asked for is said, so that it is seen when nobody asks any more
			_, err = tx.Exec(ctx, sql["Claim update task"], name, t.Waits)
			return err
		}
		_, err = tx.Exec(ctx, sql["Claim update task 2"], name, holder)
		return err
	})
	return t, err
}

const taskLock = 0x7a6d

// Beat says that a process is still at a task, and reports whether it is to stop.
func (r *Rows) Beat(ctx context.Context, name string, holder uuid.UUID) (stop bool, err error) {
	err = r.db.Bulk.QueryRow(ctx, sql["Beat"], name, holder).Scan(&stop)
	if errors.Is(err, pgx.ErrNoRows) {
		err = store.ErrTakenOver
	}
	return stop, err
}

// End says that what was asked of a task is done or, with a problem, why it came to nothing. It reports
// whether it was asked for again meanwhile.
func (r *Rows) End(ctx context.Context, t Task, holder uuid.UUID, problem json.RawMessage) (again bool, err error) {
	err = r.db.Bulk.QueryRow(ctx, sql["End"], t.Name, holder, t.Asked, problem).Scan(&again)
	if errors.Is(err, pgx.ErrNoRows) {
		err = nil
	}
	return again, err
}

// Leave lets go of a task that is not done: another may take it.
func (r *Rows) Leave(ctx context.Context, name string, holder uuid.UUID) error {
	_, err := r.db.Bulk.Exec(ctx, sql["Leave"], name, holder)
	return err
}

// Stop asks who is at a task to stop. It reports whether anyone is.
func (r *Rows) Stop(ctx context.Context, name string) (bool, error) {
	tag, err := r.db.Write.Exec(ctx, sql["Stop"], name, Silent)
	return tag.RowsAffected() > 0, err
}

// unasked is after what time a task that nobody is at, and whose turn nobody asks for, has been left.
const unasked = 4 * time.Second

// Orphans lets the dead go of their tasks, and returns those and the ones that nobody is at and nobody will be: no
// job of the queue that can still be fetched is for them. A job that the queue believes to run is none, since who
// runs one is at its task or asks for its turn; nor is one that should have been fetched long ago. Each is returned
// under a number of its own, so that a new job is not taken for the one that was left.
func (r *Rows) Orphans(ctx context.Context) ([]Task, error) {
	return store.All[Task](ctx, r.db.Bulk, sql["Orphans"], Silent, unasked)
}

// HeldBy makes sure that a task is held by somebody, until the transaction ends: whoever claims it waits for that.
// Saying that one is still at it, and asking for it again, go on meanwhile.
func HeldBy(task string, holder uuid.UUID) store.Hold {
	return func(ctx context.Context, tx pgx.Tx) error {
		var held int
		err := tx.QueryRow(ctx, sql["HeldBy"], task, holder).Scan(&held)
		if errors.Is(err, pgx.ErrNoRows) {
			return store.ErrTakenOver
		}
		return err
	}
}

// DropIn says that nothing is wanted of a task any more.
func DropIn(ctx context.Context, tx pgx.Tx, name string) error {
	_, err := tx.Exec(ctx, sql["DropIn"], name)
	return err
}
