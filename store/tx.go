package store

import (
	"context"
	"errors"

	"github.com/jackc/pgx/v5"
)

// A Tx is a transaction in which a review is changed; no other change of it runs beside it.
type Tx struct {
	pgx.Tx
	Review int64
}

// InReview runs do in a transaction that has the review for itself: other changes of it wait, records that come in
// for it do not. A request that was done before (see AsRequest) is not done again. What do needs of the database
// it gets from the InReview: with the context that it is given it cannot ask for another connection.
func (s *Store) InReview(ctx context.Context, review int64, do func(context.Context, *Tx) error) error {
	return s.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		var deleted bool
		err := tx.QueryRow(ctx, "select deleted from review where id = $1 for no key update", review).Scan(&deleted)
		if errors.Is(err, pgx.ErrNoRows) || err == nil && deleted {
			return ErrNone
		}
		if err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, "update review set touched = now() where id = $1", review); err != nil {
			return err
		}
		if again, err := Repeated(ctx, tx, review); again || err != nil {
			return err
		}
		return do(ctx, &Tx{tx, review})
	})
}

// Notify tells all processes, when the transaction is done, that something happened.
func (w *Tx) Notify(ctx context.Context, payload string) error { return notify(ctx, w.Tx, payload) }
