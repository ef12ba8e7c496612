package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

type requestKey struct{}

// AsRequest returns a context whose changes are those of a request. Asked for again under the same id they are
// not made again, and count as made.
func AsRequest(ctx context.Context, id uuid.UUID) context.Context {
	return context.WithValue(ctx, requestKey{}, &request{id: id})
}

// A request is what a change is made for.
type request struct {
	id   uuid.UUID
	made bool // something whose answer is kept
}

// remembered is how long a request is known again.
const remembered = 48 * time.Hour

// Repeated notes the request that a change is made for, and reports whether it was made before.
func Repeated(ctx context.Context, tx pgx.Tx, review int64) (bool, error) {
	r, ok := ctx.Value(requestKey{}).(*request)
	if !ok {
		return false, nil
	}
	tag, err := tx.Exec(ctx, "insert into request (review, id) values ($1, $2) on conflict do nothing", review, r.id)
	return tag.RowsAffected() == 0, err
}

// Once runs do in a transaction that makes something: once under the request of a context. The second time it is
// ErrMade.
func (s *Store) Once(ctx context.Context, do func(context.Context, pgx.Tx) error) error {
	return s.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if r, ok := ctx.Value(requestKey{}).(*request); ok {
			tag, err := tx.Exec(ctx, "insert into answer (request) values ($1) on conflict do nothing", r.id)
			if err == nil && tag.RowsAffected() == 0 {
				err = ErrMade
			}
			if err != nil {
				return err
			}
			r.made = true
		}
		return do(ctx, tx)
	})
}

// ErrMade is what a request that made something comes to when it is sent again, and what it was answered is not known.
var ErrMade = errors.New("this request made what it asked for before")

// Made is what a request was answered that made something.
type Made struct {
	Status int
	Type   string // of its body
	Body   []byte
}

// AnswerOf returns what the request of a context was answered before: ErrNone where it made nothing, ErrMade where
// its answer is not known.
func (s *Store) AnswerOf(ctx context.Context) (Made, error) {
	r, ok := ctx.Value(requestKey{}).(*request)
	if !ok {
		return Made{}, ErrNone
	}
	row, err := One[struct {
		Status *int
		Type   string
		Body   []byte
	}](ctx, s, "select status, type, body from answer where request = $1", r.id)
	if err == nil && row.Status == nil {
		err = ErrMade
	}
	if err != nil {
		return Made{}, err
	}
	return Made{*row.Status, row.Type, row.Body}, nil
}

// KeepAnswer keeps what the request of a context was answered, where it made something.
func (s *Store) KeepAnswer(ctx context.Context, m Made) error {
	r, ok := ctx.Value(requestKey{}).(*request)
	if !ok || !r.made {
		return nil
	}
	_, err := s.Write.Exec(
		ctx,
		"update answer set status = $2, type = $3, body = $4 where request = $1 and status is null",
		r.id,
		m.Status,
		m.Type,
		m.Body,
	)
	return err
}

// ForgetRequests forgets those that nobody will repeat any more.
func (s *Store) ForgetRequests(ctx context.Context) error {
	for _, table := range []string{"request", "answer"} {
		if _, err := s.Bulk.Exec(ctx, "delete from "+table+" where made < now() - $1::interval", remembered); err != nil {
			return err
		}
	}
	return nil
}
