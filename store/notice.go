package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
)

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

const tellingColumns = "select id, review, asking, at, fresh, likely, titles, trouble from told "

// Tellings returns what was told of a review, the newest first, at most so many.
func (s *Store) Tellings(ctx context.Context, review int64, most int) ([]Telling, error) {
	return all[Telling](ctx, s, tellingColumns+"where review = $1 order by id desc limit $2", review, most)
}

// An Untold is a search that ran again by itself, whose answers are all in and were not told of.
type Untold struct {
	Review int64
	Asking int64
	Name   string // of the review
}

// Untold returns some of them: those at which no source is waited for, and of whose answers nothing is being fetched.
func (s *Store) Untold(ctx context.Context) ([]Untold, error) {
	return all[Untold](ctx, s, `select w.review, a.id as asking, r.name from watch w join asking a on a.id = w.last join review r on r.id = w.review
		where not r.deleted and not exists (select from told n where n.asking = a.id)
		and not exists (select from unnest(a.sources) x where not exists (select from run where run.asking = a.id and run.source = x))
		and not exists (select from run join draw d on d.id = run.draw where run.asking = a.id and d.state in ('waiting', 'drawing'))
		order by a.id limit 20`)
}

// Tell keeps a notice and puts what is to be mailed of it on its way: to each address at most one a day; one that
// waits tells of the newest. It reports whether it was the first: of several programs one tells.
func (s *Store) Tell(ctx context.Context, n Telling, now time.Time) (first bool, err error) {
	err = s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		id, err := one[struct{ ID int64 }](ctx, tx, `insert into told (review, asking, at, fresh, likely, titles, trouble) values ($1, $2, $3, $4, $5, $6, $7)
			on conflict (asking) do nothing returning id`, n.Review, n.Asking, now, n.Fresh, n.Likely, n.Titles, n.Trouble)
		if err != nil {
			if err == ErrNone {
				return nil
			}
			return err
		}
		first = true
		if n.Fresh == 0 {
			return nil
		}
		if _, err := tx.Exec(ctx, `update mail set notice = $2 from mail_to t where mail.mail_to = t.id and t.review = $1 and sent is null and given_up is null`, n.Review, id.ID); err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into mail (mail_to, notice, next) select t.id, $2, greatest($3, coalesce((select max(sent) from mail where mail_to = t.id), '-infinity') + interval '1 day')
			from mail_to t where t.review = $1 and t.stopped is null and t.trouble = ''
			and not exists (select from mail m where m.mail_to = t.id and m.sent is null and m.given_up is null)`, n.Review, id.ID, now)
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
func (s *Store) MailTo(ctx context.Context, review int64) ([]MailTo, error) {
	return all[MailTo](ctx, s, `select id, address, secret, who, at, stopped, trouble, (select max(sent) from mail where mail_to = t.id) as last,
		coalesce(m.problem, '') as waits, m.next from mail_to t
		left join lateral (select problem, next from mail where mail_to = t.id and sent is null and given_up is null and problem <> '' order by id desc limit 1) m on true where review = $1 order by id`, review)
}

// PutMailTo tells a review to somebody, also where they had it stopped or it could not be brought there.
func (s *Store) PutMailTo(ctx context.Context, review int64, address, secret string, most int) (kept bool, err error) {
	tag, err := s.write.Exec(ctx, `insert into mail_to (review, address, secret, who) select $1, $2, $3, $4 where (select count(*) from mail_to where review = $1 and address <> $2) < $5
		on conflict (review, address) do update set secret = excluded.secret, who = excluded.who, at = now(), stopped = null, trouble = ''`, review, address, secret, AuthorOf(ctx).Name, most)
	return err == nil && tag.RowsAffected() > 0, err
}

// StopMailTo tells a review to somebody no more.
func (s *Store) StopMailTo(ctx context.Context, review, id int64) error {
	return touched(s.write.Exec(ctx, "update mail_to set stopped = coalesce(stopped, now()) where review = $1 and id = $2", review, id))
}

// StopMail does the same by the secret of the link, and returns of which review; ErrNone where there is none.
func (s *Store) StopMail(ctx context.Context, secret string) error {
	return touched(s.write.Exec(ctx, "update mail_to set stopped = coalesce(stopped, now()) where secret = $1", secret))
}

// MailOf returns of which review a link stops the mail; ErrNone where there is none.
func (s *Store) MailOf(ctx context.Context, secret string) (string, error) {
	r, err := one[struct{ Name string }](ctx, s, "select r.name from mail_to t join review r on r.id = t.review where t.secret = $1", secret)
	return r.Name, err
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
func (s *Store) Letters(ctx context.Context, now, until time.Time, most int) ([]Letter, error) {
	var out []Letter
	err := s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) (err error) {
		out, err = all[Letter](ctx, tx, `with due as (select m.id from mail m join mail_to t on t.id = m.mail_to join review r on r.id = t.review
				where m.sent is null and m.given_up is null and m.next <= $1 and t.stopped is null and t.trouble = '' and not r.deleted order by m.next limit $3 for update of m skip locked),
			taken as (update mail m set next = $2, attempts = m.attempts + 1 from due where m.id = due.id returning m.id, m.attempts, m.mail_to, m.notice)
			select k.id, k.attempts, t.address, t.secret, t.review, r.name, t.id as mail_to, n.at, n.fresh, n.likely, n.titles
			from taken k join mail_to t on t.id = k.mail_to join review r on r.id = t.review join told n on n.id = k.notice`, now, until, most)
		return err
	})
	return out, err
}

// Sent says that a mail went.
func (s *Store) Sent(ctx context.Context, id int64, now time.Time) error {
	_, err := s.write.Exec(ctx, "update mail set sent = $2, problem = '' where id = $1", id, now)
	return err
}

// NotSent says why a mail did not go, and when it is tried again; never, where that is nil: then nothing is sent to the
// address any more, where it is at fault.
func (s *Store) NotSent(ctx context.Context, l Letter, problem string, again *time.Time, address bool, now time.Time) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, "update mail set problem = $2, next = coalesce($3, next), given_up = case when $3::timestamptz is null then $4::timestamptz end where id = $1", l.ID, problem, again, now); err != nil {
			return err
		}
		if !address {
			return nil
		}
		_, err := tx.Exec(ctx, "update mail_to set trouble = $2 where id = $1", l.MailTo, problem)
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

const feedColumns = "select f.review, f.secret, f.who, f.at from feed f join review r on r.id = f.review and not r.deleted "

// Feed returns the secret address of a review.
func (s *Store) Feed(ctx context.Context, review int64) (Feed, error) {
	return one[Feed](ctx, s, feedColumns+"where f.review = $1", review)
}

// FeedAt returns whose address it is.
func (s *Store) FeedAt(ctx context.Context, secret string) (Feed, error) {
	return one[Feed](ctx, s, feedColumns+"where f.secret = $1", secret)
}

// PutFeed gives a review a secret address, in place of the one it had; none, where it is "".
func (s *Store) PutFeed(ctx context.Context, review int64, secret string) error {
	if secret == "" {
		_, err := s.write.Exec(ctx, "delete from feed where review = $1", review)
		return err
	}
	_, err := s.write.Exec(ctx, "insert into feed (review, secret, who) values ($1, $2, $3) on conflict (review) do update set secret = excluded.secret, who = excluded.who, at = now()",
		review, secret, AuthorOf(ctx).Name)
	return err
}
