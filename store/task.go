package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

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

const taskColumns = "name, kind, number, review, source, who, author, asked, takes, waits, problem, ended, asked > done as wanted, asked - 1 = done as fresh"

// NewTask returns a task of a kind. Review and source are whose it is, where it is anyone's.
func NewTask(kind string, number int64, review, source *int64) Task {
	return Task{Name: fmt.Sprint(kind, " ", number), Kind: kind, Number: number, Review: review, Source: source}
}

// Silent is after what time who was at a task and says nothing has died.
const Silent = 6 * time.Second

// AskTask notes that a task is wanted (again) and calls then in the same transaction, with the task.
func (s *Store) AskTask(ctx context.Context, t Task, then func(context.Context, pgx.Tx, Task) error) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		asked, err := askTask(ctx, tx, t)
		if err != nil {
			return err
		}
		return then(ctx, tx, asked)
	})
}

func askTask(ctx context.Context, tx pgx.Tx, t Task) (Task, error) {
	return one[Task](ctx, tx, `insert into task (name, kind, number, review, source, who, author) values ($1, $2, $3, $4, $5, $6, $7)
		on conflict (name) do update set asked = task.asked + 1, stop = false, source = excluded.source, who = excluded.who, author = excluded.author returning `+taskColumns,
		t.Name, t.Kind, t.Number, t.Review, t.Source, AuthorOf(ctx).Name, AuthorOf(ctx).Self)
}

// Task returns a task, wanted or not.
func (s *Store) Task(ctx context.Context, name string) (Task, error) {
	return one[Task](ctx, s, "select "+taskColumns+" from task where name = $1", name)
}

// Most says how many tasks of a kind go on at once for one source and for one review; 0 is any number.
type Most struct{ OfSource, OfReview int }

// ClaimTask makes a process the one who is at a task. ErrNone is the answer where nothing is to be done, or
// another is at it. With Waits set, it is not its turn yet.
func (s *Store) ClaimTask(ctx context.Context, name string, holder uuid.UUID, most Most) (t Task, err error) {
	err = s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		// Of one kind one claims at a time, so that no two take the last free place.
		if _, err := tx.Exec(ctx, "select pg_advisory_xact_lock($1, hashtext(split_part($2, ' ', 1)))", taskLock, name); err != nil {
			return err
		}
		t, err = one[Task](ctx, tx, "select "+taskColumns+` from task where name = $1 and asked > done and (holder is null or beat < now() - $2::interval) for update`, name, Silent)
		if err != nil {
			return err
		}
		var ofSource, ofReview int
		if err := tx.QueryRow(ctx, `select count(*) filter (where source = $3), count(*) filter (where review = $4) from task
			where kind = $1 and name <> $2 and holder is not null and beat >= now() - $5::interval and asked > done`, t.Kind, name, t.Source, t.Review, Silent).Scan(&ofSource, &ofReview); err != nil {
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
			_, err = tx.Exec(ctx, "update task set waits = $2, beat = now() where name = $1", name, t.Waits)
			return err
		}
		_, err = tx.Exec(ctx, "update task set holder = $2, beat = now(), waits = '' where name = $1", name, holder)
		return err
	})
	return t, err
}

const taskLock = 0x7a6d

// ErrTakenOver is the answer to who is at a task and has been silent for so long that another took over.
var ErrTakenOver = errors.New("another process has taken this over")

// BeatTask says that a process is still at a task, and reports whether it is to stop.
func (s *Store) BeatTask(ctx context.Context, name string, holder uuid.UUID) (stop bool, err error) {
	err = s.bulk.QueryRow(ctx, "update task set beat = now() where name = $1 and holder = $2 returning stop", name, holder).Scan(&stop)
	if errors.Is(err, pgx.ErrNoRows) {
		err = ErrTakenOver
	}
	return stop, err
}

// EndTask says that what was asked of a task is done or, with a problem, why it came to nothing. It reports
// whether it was asked for again meanwhile.
func (s *Store) EndTask(ctx context.Context, t Task, holder uuid.UUID, problem json.RawMessage) (again bool, err error) {
	err = s.bulk.QueryRow(ctx, `update task set done = greatest(done, $3), holder = null, waits = '', stop = false, problem = $4, ended = now()
		where name = $1 and holder = $2 returning asked > $3`, t.Name, holder, t.Asked, problem).Scan(&again)
	if errors.Is(err, pgx.ErrNoRows) {
		err = nil
	}
	return again, err
}

// LeaveTask lets go of a task that is not done: another may take it.
func (s *Store) LeaveTask(ctx context.Context, name string, holder uuid.UUID) error {
	_, err := s.bulk.Exec(ctx, "update task set holder = null where name = $1 and holder = $2", name, holder)
	return err
}

// StopTask asks who is at a task to stop. It reports whether anyone is.
func (s *Store) StopTask(ctx context.Context, name string) (bool, error) {
	tag, err := s.write.Exec(ctx, "update task set stop = true where name = $1 and asked > done and holder is not null and beat >= now() - $2::interval", name, Silent)
	return tag.RowsAffected() > 0, err
}

// unasked is after what time a task that nobody is at, and whose turn nobody asks for, has been left.
const unasked = 4 * time.Second

// OrphanTasks lets the dead go of their tasks, and returns those and the ones that nobody is at and nobody will be: no job of the
// queue that can still be fetched is for them. A job that the queue believes to run is none, since who runs one is at its task or
// asks for its turn; nor is one that should have been fetched long ago. Each is returned under a number of its own, so that a new
// job is not taken for the one that was left.
func (s *Store) OrphanTasks(ctx context.Context) ([]Task, error) {
	return all[Task](ctx, s.bulk, `update task set holder = null, beat = now(), takes = takes + 1
		where asked > done and (holder is not null and beat < now() - $1::interval
			or holder is null and beat < now() - $2::interval and not exists (
				select from river_job j where j.kind = 'task' and j.args @> jsonb_build_object('name', task.name) and (j.state = 'available'
					or j.state in ('scheduled', 'retryable', 'pending') and j.scheduled_at > now() - $2::interval)))
		returning `+taskColumns, Silent, unasked)
}
