// Package store keeps everything in PostgreSQL: migrations and queries. It knows no rule of the job.
package store

import (
	"context"
	"embed"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net"
	"syscall"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"
	"github.com/riverqueue/river/rivermigrate"
)

// ErrNone is the answer when what was asked for is not there.
var ErrNone = errors.New("not there")

// ErrInUse is the answer where something is to be taken away that something else needs.
var ErrInUse = errors.New("it is in use")

// ErrTakenOver is the answer to who works on something and has been silent for so long that another took over.
var ErrTakenOver = errors.New("another process has taken this over")

//go:embed migrations/*.sql
var migrations embed.FS

// A Store is the database. What is asked of it by itself is reading; changes go by InReview and the like.
type Store struct {
	read        *Lane
	Write, Bulk *Lane
}

// Open connects to a database and brings its tables up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	s := &Store{}
	for _, l := range []struct {
		lane **Lane
		bounds
	}{{&s.read, reading}, {&s.Write, writing}, {&s.Bulk, bulk}} {
		var err error
		if *l.lane, err = openLane(ctx, url, l.bounds); err != nil {
			s.Close()
			return nil, err
		}
	}
	s.Write.changes = true
	s.Write.fences, s.Bulk.fences = true, true
	if err := s.migrate(ctx); err != nil {
		s.Close()
		return nil, fmt.Errorf("bringing the database up to date: %w", err)
	}
	return s, nil
}

// Close lets go of all connections.
func (s *Store) Close() {
	for _, l := range []*Lane{s.read, s.Write, s.Bulk} {
		if l != nil {
			l.pool.Close()
		}
	}
}

// Jobs returns the connections that long work goes by.
func (s *Store) Jobs() *pgxpool.Pool { return s.Bulk.pool }

// Query implements Asker: it reads.
func (s *Store) Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error) {
	return s.read.Query(ctx, sql, args...)
}

// QueryRow reads one row.
func (s *Store) QueryRow(ctx context.Context, sql string, args ...any) pgx.Row {
	return s.read.QueryRow(ctx, sql, args...)
}

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error {
	var one int
	return s.QueryRow(ctx, "select 1").Scan(&one)
}

// migrationLock is by what programs that begin at once know that one of them brings the tables up to date.
const migrationLock = 0x7a6d0001

func (s *Store) migrate(ctx context.Context) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	conn, err := s.Write.acquire(ctx)
	if err != nil {
		return err
	}
	defer conn.Release()
	// Others wait; a process that dies lets go of the lock with its connection.
	if _, err := conn.Exec(ctx, "set lock_timeout = '120s'"); err != nil {
		return err
	}
	defer func() { _, _ = conn.Exec(context.WithoutCancel(ctx), "reset lock_timeout") }()
	if _, err := conn.Exec(ctx, "select pg_advisory_lock($1)", migrationLock); err != nil {
		return fmt.Errorf("another program is at it: %w", err)
	}
	defer func() { _, _ = conn.Exec(context.WithoutCancel(ctx), "select pg_advisory_unlock($1)", migrationLock) }()
	db := stdlib.OpenDBFromPool(s.Bulk.pool)
	defer db.Close()
	provider, err := goose.NewProvider(goose.DialectPostgres, db, files)
	if err != nil {
		return err
	}
	sources := provider.ListSources()
	known := sources[len(sources)-1].Version
	if has, err := provider.GetDBVersion(ctx); err != nil {
		return err
	} else if has > known {
		return fmt.Errorf("%w: its tables are those of step %d, this program knows %d steps", ErrNewer, has, known)
	}
	if _, err := provider.Up(ctx); err != nil {
		return err
	}
	jobs, err := rivermigrate.New(riverpgxv5.New(s.Bulk.pool), nil)
	if err != nil {
		return err
	}
	_, err = jobs.Migrate(ctx, rivermigrate.DirectionUp, nil)
	return err
}

// ErrNewer is the answer to a program that is older than its database.
var ErrNewer = errors.New("this database was made by a newer Tamiz than this one; use that")

// An Asker answers questions: a lane or a transaction.
type Asker interface {
	Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error)
}

// A Doer changes things: a lane or a transaction.
type Doer interface {
	Exec(ctx context.Context, sql string, args ...any) (pgconn.CommandTag, error)
}

// One returns the only row of a query, or ErrNone.
func One[T any](ctx context.Context, q Asker, sql string, args ...any) (T, error) {
	rows, err := q.Query(ctx, sql, args...)
	if err != nil {
		var zero T
		return zero, err
	}
	v, err := pgx.CollectExactlyOneRow(rows, pgx.RowToStructByName[T])
	if errors.Is(err, pgx.ErrNoRows) {
		err = ErrNone
	}
	return v, err
}

// All returns the rows of a query; none is an empty list.
func All[T any](ctx context.Context, q Asker, sql string, args ...any) ([]T, error) {
	rows, err := q.Query(ctx, sql, args...)
	if err != nil {
		return nil, err
	}
	out, err := pgx.CollectRows(rows, pgx.RowToStructByName[T])
	if out == nil {
		out = []T{}
	}
	return out, err
}

// Touched is ErrNone where nothing was there to be changed.
func Touched(tag pgconn.CommandTag, err error) error {
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}

// Notify tells all processes that something happened.
func (s *Store) Notify(ctx context.Context, payload string) error {
	return notify(ctx, s.Write, payload)
}

func notify(ctx context.Context, q Doer, payload string) error {
	_, err := q.Exec(ctx, "select pg_notify('tamiz', $1)", payload)
	return err
}

// Listen calls hear with what any process notifies of, after ready, until the connection breaks or the context
// ends. It has a connection of its own.
func (s *Store) Listen(ctx context.Context, ready func(), hear func(payload string)) error {
	conn, err := pgx.ConnectConfig(ctx, s.read.pool.Config().ConnConfig)
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx))
	if _, err := conn.Exec(ctx, "listen tamiz"); err != nil {
		return err
	}
	ready()
	for {
		got, err := conn.WaitForNotification(ctx)
		if err != nil {
			return err
		}
		hear(got.Payload)
	}
}

// lost reports whether a connection broke without anyone saying why.
func lost(err error) bool {
	return errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, net.ErrClosed) ||
		errors.Is(err, syscall.ECONNRESET) ||
		errors.Is(err, syscall.EPIPE)
}
