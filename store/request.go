package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

type requestKey struct{}

// AsRequest returns a context whose changes are those of a request. Asked for again under the same id they are
// not made again, and count as made.
func AsRequest(ctx context.Context, id uuid.UUID) context.Context {
	return context.WithValue(ctx, requestKey{}, id)
}

// remembered is how long a request is known again.
const remembered = 48 * time.Hour

// repeated notes the request that a change is made for, and reports whether it was made before.
func repeated(ctx context.Context, tx pgx.Tx, review int64) (bool, error) {
	id, ok := ctx.Value(requestKey{}).(uuid.UUID)
	if !ok {
		return false, nil
	}
	tag, err := tx.Exec(ctx, "insert into request (review, id) values ($1, $2) on conflict do nothing", review, id)
	return tag.RowsAffected() == 0, err
}

// ForgetRequests forgets those that nobody will repeat any more.
func (s *Store) ForgetRequests(ctx context.Context) error {
	_, err := s.bulk.Exec(ctx, "delete from request where made < now() - $1::interval", remembered)
	return err
}
