package store

import (
	"context"
	"errors"
	"fmt"
	"net"
	"strconv"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/puddle/v2"
)

// A lane is connections for one kind of work. Work of one kind never waits behind another's: reading goes on
// while all that is written waits for a lock. Every wait has a bound.
type Lane struct {
	pool    *pgxpool.Pool
	wait    time.Duration // for a connection
	changes bool          // what is asked here changes something
	fences  bool          // it is changed only while a task is held, where somebody works on one
}

// bounds are how long things may take in a lane.
type bounds struct {
	connections     int32
	wait            time.Duration // for a connection
	lock, statement time.Duration
	idle            time.Duration // within a transaction, between two statements
}

// The lanes: answers to people, what they change, and long work. Their connections are far below what a
// PostgreSQL takes as it comes, so that several programs can share one.
var (
	reading = bounds{
		connections: 8,
		wait:        5 * time.Second,
		lock:        5 * time.Second,
		statement:   30 * time.Second,
		idle:        30 * time.Second,
	}
	writing = bounds{
		connections: 8,
		wait:        10 * time.Second,
		lock:        10 * time.Second,
		statement:   60 * time.Second,
		idle:        30 * time.Second,
	}
	bulk = bounds{
		connections: 14,
		wait:        time.Minute,
		lock:        30 * time.Second,
		statement:   20 * time.Minute,
		idle:        2 * time.Minute,
	}
)

func openLane(ctx context.Context, url string, b bounds) (*Lane, error) {
	config, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, fmt.Errorf("the address of the database: %w", err)
	}
	config.MaxConns = b.connections
	config.ConnConfig.ConnectTimeout = 5 * time.Second
	for name, d := range map[string]time.Duration{"lock_timeout": b.lock, "statement_timeout": b.statement,
		"idle_in_transaction_session_timeout": b.idle} {
		config.ConnConfig.RuntimeParams[name] = strconv.FormatInt(d.Milliseconds(), 10)
	}
	config.ConnConfig.RuntimeParams["application_name"] = "tamiz"
	config.PrepareConn = func(ctx context.Context, _ *pgx.Conn) (bool, error) { return true, holds(ctx) }
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return nil, err
	}
	return &Lane{pool: pool, wait: b.wait}, nil
}

type holding struct{}

// errHolding is the answer to code that holds a connection and asks for another. Many who did so at once would
// wait for each other for ever, so nobody may; the fault is in the program.
var errHolding = errors.New("a connection was asked for while a transaction is held")

func holds(ctx context.Context) error {
	if ctx.Value(holding{}) != nil {
		return errHolding
	}
	return nil
}

// ErrWait is the answer when no connection came free in time: nothing was done.
var ErrWait = errors.New("the database is busy: no connection came free in time")

func (l *Lane) acquire(ctx context.Context) (*pgxpool.Conn, error) {
	if err := holds(ctx); err != nil {
		return nil, err
	}
	waiting, cancel := context.WithTimeoutCause(ctx, l.wait, ErrWait)
	defer cancel()
	conn, err := l.pool.Acquire(waiting)
	var connect *pgconn.ConnectError
	if err != nil && ctx.Err() == nil && waiting.Err() != nil && !errors.As(err, &connect) {
		return nil, ErrWait
	}
	return conn, err
}

// Query asks, waiting no longer than the lane does for a connection.
func (l *Lane) Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error) {
	conn, err := l.acquire(ctx)
	if err != nil {
		return nil, err
	}
	rows, err := conn.Query(ctx, sql, args...)
	if err != nil {
		conn.Release()
		return nil, err
	}
	return &leased{rows, conn}, nil
}

// leased gives its connection back when its rows are read.
type leased struct {
	pgx.Rows
	conn *pgxpool.Conn
}

func (r *leased) Next() bool {
	more := r.Rows.Next()
	if !more {
		r.Close()
	}
	return more
}

func (r *leased) Close() {
	r.Rows.Close()
	if r.conn != nil {
		r.conn.Release()
		r.conn = nil
	}
}

// QueryRow asks for one row. Where it may have changed something and the connection is lost before the answer,
// ErrUnknown is in the error.
func (l *Lane) QueryRow(ctx context.Context, sql string, args ...any) pgx.Row {
	if _, fenced := fenceOf(ctx); fenced && l.fences {
		return fencedRow{l, ctx, sql, args}
	}
	conn, err := l.acquire(ctx)
	if err != nil {
		return failed{err}
	}
	return leasedRow{conn.QueryRow(ctx, sql, args...), conn, ctx, l.changes}
}

type leasedRow struct {
	pgx.Row
	conn    *pgxpool.Conn
	ctx     context.Context
	changes bool
}

func (r leasedRow) Scan(into ...any) error {
	defer r.conn.Release()
	err := r.Row.Scan(into...)
	if r.changes {
		err = unconfirmed(r.ctx, err)
	}
	return err
}

type failed struct{ error }

func (f failed) Scan(...any) error { return f.error }

// Exec does one statement. Where the connection is lost before the answer, ErrUnknown is in the error.
func (l *Lane) Exec(ctx context.Context, sql string, args ...any) (pgconn.CommandTag, error) {
	if _, fenced := fenceOf(ctx); fenced && l.fences {
		return l.fencedExec(ctx, sql, args)
	}
	conn, err := l.acquire(ctx)
	if err != nil {
		return pgconn.CommandTag{}, err
	}
	defer conn.Release()
	tag, err := conn.Exec(ctx, sql, args...)
	return tag, unconfirmed(ctx, err)
}

// unconfirmed adds ErrUnknown to the error of a statement of its own that leaves open whether it was done.
func unconfirmed(ctx context.Context, err error) error {
	if err == nil || ctx.Err() != nil || errors.Is(err, pgx.ErrNoRows) || pgconn.SafeToRetry(err) || !undecided(err) {
		return err
	}
	return fmt.Errorf("%w: %w", ErrUnknown, err)
}

// ErrUnknown is in the error of a change that the database did not confirm: it may have been kept or not.
var ErrUnknown = errors.New("the database went away before it said whether this was kept")

// undecided reports whether an error at the end of a change leaves open what became of it.
func undecided(err error) bool {
	var server *pgconn.PgError
	if errors.As(err, &server) {
		return server.Severity == "FATAL" || server.Severity == "PANIC"
	}
	return !errors.Is(err, pgx.ErrTxCommitRollback)
}

// commitTime is how long a commit is waited for, whatever became of whoever asked for it.
const commitTime = 20 * time.Second

// Tx runs do in a transaction. The context that do gets tells of it: who asks for a connection with that is
// refused. Where the commit is not confirmed, ErrUnknown is in the error; with any other, nothing was changed.
func (l *Lane) Tx(ctx context.Context, do func(ctx context.Context, tx pgx.Tx) error) error {
	conn, tx, err := l.begin(ctx)
	if err != nil {
		return err
	}
	defer conn.Release()
	ending, cancel := context.WithTimeout(context.WithoutCancel(ctx), commitTime)
	defer cancel()
	defer func() { _ = tx.Rollback(ending) }() // after a commit it does nothing
	if hold, fenced := fenceOf(ctx); fenced && l.fences {
		if err := hold(ctx, tx); err != nil {
			return err
		}
	}
	if err := do(context.WithValue(ctx, holding{}, true), tx); err != nil {
		return err
	}
	if err := ctx.Err(); err != nil {
		return err // nobody waits any more, and nothing is done yet
	}
	ending, cancel = context.WithTimeout(context.WithoutCancel(ctx), commitTime)
	defer cancel()
	if err := tx.Commit(ending); err != nil {
		if undecided(err) {
			err = fmt.Errorf("%w: %w", ErrUnknown, err)
		}
		return err
	}
	return nil
}

// begin begins a transaction. Connections that died with the server they led to are passed over: nothing is lost
// with them.
func (l *Lane) begin(ctx context.Context) (conn *pgxpool.Conn, tx pgx.Tx, err error) {
	for range l.pool.Config().MaxConns + 1 {
		if conn, err = l.acquire(ctx); err != nil {
			return nil, nil, err
		}
		if tx, err = conn.Begin(ctx); err == nil {
			return conn, tx, nil
		}
		conn.Release()
		if ctx.Err() != nil || !Unreachable(err) {
			break
		}
	}
	return nil, nil, err
}

// Unreachable reports whether an error means that the database does not answer, so that the same call may work
// later.
func Unreachable(err error) bool {
	var connect *pgconn.ConnectError
	var server *pgconn.PgError
	var network net.Error
	switch {
	case errors.Is(err, ErrUnknown), errors.Is(err, puddle.ErrClosedPool):
		return true
	case errors.As(err, &server):
		// Class 57 is the operator stopping the server, 08 a broken connection, 53 a full house.
		return server.Code[:2] == "57" && server.Code != "57014" || server.Code[:2] == "08" || server.Code[:2] == "53" ||
			server.Severity == "FATAL"
	case errors.As(err, &connect), errors.As(err, &network), lost(err):
		return true
	}
	return pgconn.SafeToRetry(err)
}

// Busy reports whether an error means that something was waited for too long: a connection, a lock, a statement.
// Nothing was done.
func Busy(err error) bool {
	var server *pgconn.PgError
	if errors.As(err, &server) {
		return server.Code == "55P03" || server.Code == "57014" || server.Code == "25P03" || server.Code == "53300" ||
			server.Code == "40P01"
	}
	return errors.Is(err, ErrWait)
}

// Odd reports whether an error means that a value cannot be kept at all, such as a number that is beyond all
// numbers there are. Nothing was done.
func Odd(err error) bool {
	var server *pgconn.PgError
	if errors.As(err, &server) {
		return server.Code[:2] == "22"
	}
	return err != nil && strings.Contains(err.Error(), "failed to encode args[") &&
		strings.Contains(err.Error(), "value for int")
}

// Missing reports whether an error means that what a change is about is not there.
func Missing(err error) bool {
	var server *pgconn.PgError
	return errors.As(err, &server) && server.Code == "23503"
}

// Full reports whether the database has no room left on its disk.
func Full(err error) bool {
	var server *pgconn.PgError
	return errors.As(err, &server) && (server.Code == "53100" || server.Code == "58030")
}
