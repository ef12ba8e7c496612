package store

import (
	"context"
	"errors"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
)

// Work on a task is fenced by who is at it: each of its changes is made only while that still holds. A process that stood still,
// and goes on without knowing that another has taken over, changes nothing any more.

type fenceKey struct{}

type fence struct {
	task   string
	holder uuid.UUID
}

// Fenced returns the context in which somebody works on a task: with it, whatever the store changes it changes only while the
// task is held so, and ErrTakenOver is the answer where it is not.
func Fenced(ctx context.Context, task string, holder uuid.UUID) context.Context {
	return context.WithValue(ctx, fenceKey{}, fence{task, holder})
}

func fenceOf(ctx context.Context) (fence, bool) {
	f, ok := ctx.Value(fenceKey{}).(fence)
	return f, ok
}

// hold makes sure that the task is held, until the transaction ends: whoever claims it waits for that. Saying that one is still at
// it, and asking for it again, go on meanwhile.
func (f fence) hold(ctx context.Context, tx pgx.Tx) error {
	var held int
	err := tx.QueryRow(ctx, "select 1 from task where name = $1 and holder = $2 for key share", f.task, f.holder).Scan(&held)
	if errors.Is(err, pgx.ErrNoRows) {
		return ErrTakenOver
	}
	return err
}

// fencedRow is one row that is asked for within a transaction that holds the fence.
type fencedRow struct {
	lane *lane
	ctx  context.Context
	sql  string
	args []any
}

func (r fencedRow) Scan(into ...any) error {
	return r.lane.tx(r.ctx, func(ctx context.Context, tx pgx.Tx) error {
		return tx.QueryRow(ctx, r.sql, r.args...).Scan(into...)
	})
}

func (l *lane) fencedExec(ctx context.Context, sql string, args []any) (tag pgconn.CommandTag, err error) {
	err = l.tx(ctx, func(ctx context.Context, tx pgx.Tx) (err error) {
		tag, err = tx.Exec(ctx, sql, args...)
		return err
	})
	return tag, err
}
