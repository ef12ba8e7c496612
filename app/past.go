package app

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/store"
)

// dated are the times at which something of a review was done, by the table they stand in and how its rows belong
// to one. Times at which something is yet to be done are not among them.
var dated = []struct {
	table, of string
	columns   []string
}{
	{"review", "id = $1", []string{"created"}},
	{"document", "review = $1", []string{"made"}},
	{"vocabulary", "review = $1", []string{"made"}},
	{"import", "review = $1", []string{"made", "touched"}},
	{"sample", "review = $1", []string{"drawn"}},
	{"draw", "review = $1", []string{"made"}},
	{"decision", "review = $1", []string{"made"}},
	{"change", "review = $1", []string{"made"}},
	{"shelved", "review = $1", []string{"made"}},
	{"judgement", "review = $1", []string{"made"}},
	{"holding", "key_study in (select id from key_study where review = $1)", []string{"at", "changed"}},
	{"asking", "review = $1", []string{"at"}},
	{"run", "review = $1", []string{"at"}},
	{"version", "review = $1", []string{"at"}},
	{"dismissed", "review = $1", []string{"at"}},
	{"review_check", "review = $1", []string{"at", "done", "withdrawn"}},
	{"check_answer", "checked in (select id from review_check where review = $1)", []string{"at"}},
	{"check_suggestion", "checked in (select id from review_check where review = $1)", []string{"at", "decided"}},
	{"note", "review = $1", []string{"at", "settled"}},
	{"told", "review = $1", []string{"at"}},
	{"mail_to", "review = $1", []string{"at", "stopped"}},
	{"mail", "mail_to in (select id from mail_to where review = $1)", []string{"sent", "given_up"}},
	{"feed", "review = $1", []string{"at"}},
	{"round", "review = $1", []string{"at", "ended"}},
}

// MoveBack makes all that was done to a review so far earlier by some days. It is for an invented history: what a
// demo review shows of months was laid out in a minute.
func MoveBack(ctx context.Context, s *store.Store, review int64, days int) error {
	by := time.Duration(days) * 24 * time.Hour
	return s.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		for _, d := range dated {
			for _, c := range d.columns {
				if _, err := tx.Exec(ctx, "update "+d.table+" set "+c+" = "+c+" - $2::interval where "+d.of, review,
					by); err != nil {
					return err
				}
			}
		}
		return nil
	})
}
