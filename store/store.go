// Package store keeps everything in PostgreSQL: migrations and queries. It knows no rule of the job.
package store

import (
	"context"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net"

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

//go:embed migrations/*.sql
var migrations embed.FS

// A Store is the database.
type Store struct{ *pgxpool.Pool }

// Open connects to a database and brings its tables up to date.
func Open(ctx context.Context, url string) (*Store, error) {
	config, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, fmt.Errorf("the address of the database: %w", err)
	}
	// A job holds a connection for as long as it works alone, beside those that answer people.
	config.MaxConns = max(config.MaxConns, 24)
	pool, err := pgxpool.NewWithConfig(ctx, config)
	if err != nil {
		return nil, err
	}
	s := &Store{pool}
	if err := s.migrate(ctx); err != nil {
		pool.Close()
		return nil, fmt.Errorf("bringing the database up to date: %w", err)
	}
	return s, nil
}

func (s *Store) migrate(ctx context.Context) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	db := stdlib.OpenDBFromPool(s.Pool)
	defer db.Close()
	provider, err := goose.NewProvider(goose.DialectPostgres, db, files)
	if err != nil {
		return err
	}
	if _, err := provider.Up(ctx); err != nil {
		return err
	}
	jobs, err := rivermigrate.New(riverpgxv5.New(s.Pool), nil)
	if err != nil {
		return err
	}
	_, err = jobs.Migrate(ctx, rivermigrate.DirectionUp, nil)
	return err
}

// Unreachable reports whether an error means that the database does not answer, so that the same
// call may work later.
func Unreachable(err error) bool {
	var connect *pgconn.ConnectError
	var server *pgconn.PgError
	var network net.Error
	switch {
	case errors.As(err, &server):
		// Class 57 is the operator stopping the server, 08 a broken connection, 53 a full house.
		return server.Code[:2] == "57" && server.Code != "57014" || server.Code[:2] == "08" || server.Code[:2] == "53"
	case errors.As(err, &connect), errors.As(err, &network):
		return true
	}
	return pgconn.SafeToRetry(err)
}

// querier is a pool or a transaction.
type querier interface {
	Query(ctx context.Context, sql string, args ...any) (pgx.Rows, error)
	QueryRow(ctx context.Context, sql string, args ...any) pgx.Row
	Exec(ctx context.Context, sql string, args ...any) (pgconn.CommandTag, error)
}

// one returns the only row of a query, or ErrNone.
func one[T any](ctx context.Context, q querier, sql string, args ...any) (T, error) {
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

// all returns the rows of a query; none is an empty list.
func all[T any](ctx context.Context, q querier, sql string, args ...any) ([]T, error) {
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

// Notify tells all processes that something happened.
func Notify(ctx context.Context, q querier, payload string) error {
	_, err := q.Exec(ctx, "select pg_notify('tamiz', $1)", payload)
	return err
}
