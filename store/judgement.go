package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
)

// A Judgement is what a person said of a record: relevant, not, or unsure.
type Judgement struct {
	Record  int64
	Verdict string
	Who     string
	Made    time.Time
}

// Judge keeps what is said of a record; "" takes it back. Of a record that is not there nothing is kept: ErrNone.
func (s *Store) Judge(ctx context.Context, review, record int64, verdict, who string) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if verdict == "" {
			_, err := tx.Exec(ctx, "delete from judgement where review = $1 and record = $2", review, record)
			return err
		}
		done, err := tx.Exec(ctx, `insert into judgement (review, record, verdict, who)
			select v.id, r.id, $3, $4 from review v, record r where v.id = $1 and r.id = $2
			on conflict (review, record) do update set verdict = excluded.verdict, who = excluded.who, made = now()`, review, record, verdict, who)
		if err == nil && done.RowsAffected() == 0 {
			err = ErrNone
		}
		return err
	})
}

// Judgements returns what was said of the records of a review.
func (s *Store) Judgements(ctx context.Context, review int64) ([]Judgement, error) {
	rows, err := s.Query(ctx, "select record, verdict, who, made from judgement where review = $1 order by record", review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Judgement])
}
