package store

import (
	"context"
	"errors"

	"github.com/jackc/pgx/v5"

	"tamiz/core/text"
)

// A Dialect is the file of one that somebody wrote.
type Dialect struct{ Name, Body string }

// Dialects returns those that were written, by name.
func (s *Store) Dialects(ctx context.Context) ([]Dialect, error) {
	return all[Dialect](ctx, s, "select name, body from dialect order by name")
}

// PutDialect keeps a dialect under its name.
func (s *Store) PutDialect(ctx context.Context, d Dialect) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		_, err := tx.Exec(ctx, "insert into dialect (name, body) values ($1, $2) on conflict (name) do update set body = excluded.body, saved = now()", d.Name, d.Body)
		return err
	})
}

// DeleteDialect takes one away; ErrNone where it is not there.
func (s *Store) DeleteDialect(ctx context.Context, name string) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		done, err := tx.Exec(ctx, "delete from dialect where name = $1", name)
		if err == nil && done.RowsAffected() == 0 {
			return ErrNone
		}
		return err
	})
}

// A Counterpart is what somebody took to stand for a heading in another vocabulary: any of some headings, or none.
type Counterpart struct {
	Heading string
	Stands  []string
}

// Counterparts returns those of a vocabulary in another, by their names, whatever their capitals.
func (s *Store) Counterparts(ctx context.Context, vocabulary, other string) ([]Counterpart, error) {
	vocabulary, other = text.Label(vocabulary), text.Label(other)
	return all[Counterpart](ctx, s, "select heading, stands from counterpart where vocabulary = $1 and other = $2 order by heading", vocabulary, other)
}

// ChangeCounterpart changes what stands for a heading in another vocabulary; change is given what does now, nil where nobody
// said, and returns what will, nil where that is forgotten.
func (s *Store) ChangeCounterpart(ctx context.Context, vocabulary, heading, other string, change func(now []string) []string) error {
	vocabulary, other = text.Label(vocabulary), text.Label(other)
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		// Who comes second waits for the first, whether the row is there yet or not.
		if _, err := tx.Exec(ctx, "select pg_advisory_xact_lock(hashtext('counterpart' || $1 || ' ' || $2 || ' ' || $3))", vocabulary, heading, other); err != nil {
			return err
		}
		var now []string
		err := tx.QueryRow(ctx, "select stands from counterpart where vocabulary = $1 and heading = $2 and other = $3", vocabulary, heading, other).Scan(&now)
		if err != nil && !errors.Is(err, pgx.ErrNoRows) {
			return err
		}
		stands := change(now)
		if stands == nil {
			_, err := tx.Exec(ctx, "delete from counterpart where vocabulary = $1 and heading = $2 and other = $3", vocabulary, heading, other)
			return err
		}
		_, err = tx.Exec(ctx, "insert into counterpart (vocabulary, heading, other, stands) values ($1, $2, $3, $4) on conflict (vocabulary, heading, other) do update set stands = excluded.stands, saved = now()", vocabulary, heading, other, stands)
		return err
	})
}
