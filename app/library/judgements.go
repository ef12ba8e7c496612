package library

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/store"
)

// A Judgement is what a person said of a record: relevant, not, or unsure.
type Judgement struct {
	Record  int64
	Verdict string
	Who     string
	Made    time.Time
}

// Judge keeps what is said of a record; "" takes it back. Of a record that is not there nothing is kept: ErrNone.
func (r *Rows) Judge(ctx context.Context, review, record int64, verdict, who string) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if verdict == "" {
			_, err := tx.Exec(ctx, sql["Judge delete judgement"], review, record)
			return err
		}
		done, err := tx.Exec(ctx, sql["Judge insert judgement"], review, record, verdict, who)
		if err == nil && done.RowsAffected() == 0 {
			err = store.ErrNone
		}
		return err
	})
}

// Judgements returns what was said of the records of a review.
func (r *Rows) Judgements(ctx context.Context, review int64) ([]Judgement, error) {
	rows, err := r.db.Query(ctx, sql["Judgements"], review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowToStructByPos[Judgement])
}
