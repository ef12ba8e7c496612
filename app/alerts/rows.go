package alerts

import (
	"context"
	_ "embed"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the alerts, and to whom they go of a database.
type Rows struct{ db *store.Store }

// NewRows returns the alerts, and to whom they go of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A Telling is what a search brought that ran again by itself. Titles is JSON.
type Telling struct {
	ID      int64
	Review  int64
	Asking  int64
	At      time.Time
	Fresh   int
	Likely  int
	Titles  []byte
	Trouble string
}

// Tellings returns what was told of a review, the newest first, at most so many.
func (r *Rows) Tellings(ctx context.Context, review int64, most int) ([]Telling, error) {
	return store.All[Telling](ctx, r.db, sql["Tellings"], review, most)
}

// An Untold is a search that ran again by itself, whose answers are all in and were not told of.
type Untold struct {
	Review int64
	Asking int64
	Name   string // of the review
}

// Untold returns some of them: those at which no source is waited for, and of whose answers nothing is being fetched.
func (r *Rows) Untold(ctx context.Context) ([]Untold, error) {
	return store.All[Untold](ctx, r.db, sql["Untold"])
}

// Tell keeps a notice and puts what is to be mailed of it on its way: to each address at most one a day; one that
// waits tells of the newest. It reports whether it was the first: of several programs one tells.
func (r *Rows) Tell(ctx context.Context, n Telling, now time.Time) (first bool, err error) {
	err = r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		id, err := store.One[struct{ ID int64 }](
			ctx,
			tx,
			sql["Tell insert told"],
			n.Review,
			n.Asking,
			now,
			n.Fresh,
			n.Likely,
			n.Titles,
			n.Trouble,
		)
		if err != nil {
			if err == store.ErrNone {
				return nil
			}
			return err
		}
		first = true
		if n.Fresh == 0 {
			return nil
		}
		if _, err := tx.Exec(ctx, sql["Tell update mail"], n.Review, id.ID); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, sql["Tell insert mail"], n.Review, id.ID, now)
		return err
	})
	return first, err
}

// A MailTo is somebody who is told by mail.
type MailTo struct {
	ID      int64
	Address string
	Secret  string
	Who     string
	At      time.Time
	Stopped *time.Time
	Trouble string
	Last    *time.Time // when a mail went there
	Waits   string     // why the one that is to go has not gone yet
	Next    *time.Time // when it is tried again
}

// MailTo returns whom a review is told to.
func (r *Rows) MailTo(ctx context.Context, review int64) ([]MailTo, error) {
	return store.All[MailTo](ctx, r.db, sql["MailTo"], review)
}

// PutMailTo tells a review to somebody, also where they had it stopped or it could not be brought there.
func (r *Rows) PutMailTo(ctx context.Context, review int64, address, secret string, most int) (kept bool, err error) {
	tag, err := r.db.Write.Exec(ctx, sql["PutMailTo"], review, address, secret, store.AuthorOf(ctx).Name, most)
	return err == nil && tag.RowsAffected() > 0, err
}

// StopMailTo tells a review to somebody no more.
func (r *Rows) StopMailTo(ctx context.Context, review, id int64) error {
	return store.Touched(r.db.Write.Exec(ctx, sql["StopMailTo"], review, id))
}

// StopMail does the same by the secret of the link, and returns of which review; ErrNone where there is none.
func (r *Rows) StopMail(ctx context.Context, secret string) error {
	return store.Touched(r.db.Write.Exec(ctx, sql["StopMail"], secret))
}

// MailOf returns of which review a link stops the mail; ErrNone where there is none.
func (r *Rows) MailOf(ctx context.Context, secret string) (string, error) {
	review, err := store.One[struct{ Name string }](ctx, r.db, sql["MailOf"], secret)
	return review.Name, err
}

// A Letter is a mail that is to go now.
type Letter struct {
	ID       int64
	Attempts int
	Address  string
	Secret   string
	Review   int64
	Name     string // of the review
	MailTo   int64
	At       time.Time // of the notice
	Fresh    int
	Likely   int
	Titles   []byte
}

// Letters takes some of the mails that are to go now, for the one who asks: until then nobody else is given them.
func (r *Rows) Letters(ctx context.Context, now, until time.Time, most int) ([]Letter, error) {
	var out []Letter
	err := r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) (err error) {
		out, err = store.All[Letter](ctx, tx, sql["Letters"], now, until, most)
		return err
	})
	return out, err
}

// Sent says that a mail went.
func (r *Rows) Sent(ctx context.Context, id int64, now time.Time) error {
	_, err := r.db.Write.Exec(ctx, sql["Sent"], id, now)
	return err
}

// NotSent says why a mail did not go, and when it is tried again; never, where that is nil: then nothing is sent to the
// address any more, where it is at fault.
func (r *Rows) NotSent(
	ctx context.Context,
	l Letter,
	problem string,
	again *time.Time,
	address bool,
	now time.Time,
) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, sql["NotSent update mail"], l.ID, problem, again, now); err != nil {
			return err
		}
		if !address {
			return nil
		}
		_, err := tx.Exec(ctx, sql["NotSent update mail_to"], l.MailTo, problem)
		return err
	})
}

// A Feed is the secret address of a review.
type Feed struct {
	Review int64
	Secret string
	Who    string
	At     time.Time
}

// Feed returns the secret address of a review.
func (r *Rows) Feed(ctx context.Context, review int64) (Feed, error) {
	return store.One[Feed](ctx, r.db, sql["Feed"], review)
}

// FeedAt returns whose address it is.
func (r *Rows) FeedAt(ctx context.Context, secret string) (Feed, error) {
	return store.One[Feed](ctx, r.db, sql["FeedAt"], secret)
}

// PutFeed gives a review a secret address, in place of the one it had; none, where it is "".
func (r *Rows) PutFeed(ctx context.Context, review int64, secret string) error {
	if secret == "" {
		_, err := r.db.Write.Exec(ctx, sql["PutFeed delete feed"], review)
		return err
	}
	_, err := r.db.Write.Exec(ctx, sql["PutFeed insert feed"],
		review, secret, store.AuthorOf(ctx).Name)
	return err
}
