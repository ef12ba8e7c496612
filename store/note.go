package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5/pgconn"
)

// A Note is what somebody noted on something of a review.
type Note struct {
	ID        int64
	Kind      string // what it is on
	About     string // its id
	Name      string // what it was called
	Words     string
	Who       string
	At        time.Time
	Settled   *time.Time
	SettledBy string
}

// Notes returns the notes of a review, the newest first, at most so many.
func (s *Store) Notes(ctx context.Context, review int64, most int) ([]Note, error) {
	return all[Note](ctx, s, "select id, kind, about, name, words, who, at, settled, settled_by from note where review = $1 and not gone order by id desc limit $2", review, most)
}

// PutNote keeps a note, and says how many there are now.
func (w *Tx) PutNote(ctx context.Context, n Note) (many int, err error) {
	_, err = w.tx.Exec(ctx, "insert into note (review, kind, about, name, words, who) values ($1, $2, $3, $4, $5, $6)", w.review, n.Kind, n.About, n.Name, n.Words, AuthorOf(ctx).Name)
	if err != nil {
		return 0, err
	}
	err = w.tx.QueryRow(ctx, "select count(*) from note where review = $1 and not gone", w.review).Scan(&many)
	return many, err
}

// SettleNote says that a note is settled, or open again.
func (w *Tx) SettleNote(ctx context.Context, id int64, settled bool) error {
	return touched(w.tx.Exec(ctx, `update note set settled = case when $3 then coalesce(settled, now()) end, settled_by = case when not $3 then '' when settled is null then $4 else settled_by end
		where review = $1 and id = $2 and not gone`, w.review, id, settled, AuthorOf(ctx).Name))
}

// DropNote takes a note away, or puts it back.
func (w *Tx) DropNote(ctx context.Context, id int64, gone bool) error {
	return touched(w.tx.Exec(ctx, "update note set gone = $3 where review = $1 and id = $2", w.review, id, gone))
}

// touched is ErrNone where nothing was there to be changed.
func touched(tag pgconn.CommandTag, err error) error {
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}
