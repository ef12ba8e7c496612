package store

import (
	"context"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
)

// Work on a task is fenced by who is at it: each of its changes is made only while that still holds. A process that
// stood still, and goes on without knowing that another has taken over, changes nothing any more.

type fenceKey struct{}

// Hold makes sure, within a transaction and until that ends, that work may go on: ErrTakenOver where it may not.
type Hold func(context.Context, pgx.Tx) error

// Fenced returns the context of somebody's work: whatever the store changes with it, it changes only while hold
// says so.
func Fenced(ctx context.Context, hold Hold) context.Context {
	return context.WithValue(ctx, fenceKey{}, hold)
}

func fenceOf(ctx context.Context) (Hold, bool) {
	hold, ok := ctx.Value(fenceKey{}).(Hold)
	return hold, ok
}

// fencedRow is one row that is asked for within a transaction that holds the fence.
type fencedRow struct {
	lane *Lane
	ctx  context.Context
	sql  string
	args []any
}

func (r fencedRow) Scan(into ...any) error {
	return r.lane.Tx(r.ctx, func(ctx context.Context, tx pgx.Tx) error {
		return tx.QueryRow(ctx, r.sql, r.args...).Scan(into...)
	})
}

func (l *Lane) fencedExec(ctx context.Context, sql string, args []any) (tag pgconn.CommandTag, err error) {
	err = l.Tx(ctx, func(ctx context.Context, tx pgx.Tx) (err error) {
		tag, err = tx.Exec(ctx, sql, args...)
		return err
	})
	return tag, err
}
