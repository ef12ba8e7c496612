package store

import (
	"context"

	"github.com/jackc/pgx/v5"
)

// PutLook keeps a look at a review by its name, and where last says so as the one that was taken last. A name always stands
// for the same.
func (s *Store) PutLook(ctx context.Context, review int64, name string, body []byte, last bool) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		_, err := tx.Exec(ctx, "insert into look (review, name, body) select id, $2, $3 from review where id = $1 on conflict do nothing", review, name, body)
		if err != nil || !last {
			return err
		}
		_, err = tx.Exec(ctx, "update review set look = $2 where id = $1 and look is distinct from $2", review, name)
		return err
	})
}

// Look returns a look by its name, or the one that was taken last for "".
func (s *Store) Look(ctx context.Context, review int64, name string) (body []byte, err error) {
	l, err := one[struct{ Body []byte }](ctx, s, "select l.body from look l join review r on r.id = l.review where r.id = $1 and l.name = coalesce(nullif($2, ''), r.look)", review, name)
	return l.Body, err
}
