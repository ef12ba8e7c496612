package store

import (
	"context"
	"time"

	"github.com/jackc/pgx/v5"
)

// A Watch is a search that is run again by itself.
type Watch struct {
	Review  int64
	Sources []int64
	Every   string // week, month or once
	Records int
	Next    *time.Time
	Missed  int // times that passed while no program ran
	Who     string
	Last    *int64 // the last order that came of it
}

const watchColumns = "select review, sources, every, records, next, missed, who, last from watch "

// Watch returns how a review's search is run again.
func (s *Store) Watch(ctx context.Context, review int64) (Watch, error) {
	return one[Watch](ctx, s, watchColumns+"where review = $1", review)
}

// PutWatch says how a review's search is run again.
func (s *Store) PutWatch(ctx context.Context, w Watch) error {
	_, err := s.write.Exec(ctx, `insert into watch (review, sources, every, records, next, who) values ($1, $2, $3, $4, $5, $6)
		on conflict (review) do update set sources = excluded.sources, every = excluded.every, records = excluded.records, next = excluded.next, missed = 0, who = excluded.who`,
		w.Review, w.Sources, w.Every, w.Records, w.Next, AuthorOf(ctx).Name)
	return err
}

// DropWatch ends it.
func (s *Store) DropWatch(ctx context.Context, review int64) error {
	_, err := s.write.Exec(ctx, "delete from watch where review = $1", review)
	return err
}

// DueWatches runs what is due: for each, next says when it is due after that and how many times were missed, and then is called
// with the task at each source, in one transaction. Of several processes one alone has each.
func (s *Store) DueWatches(ctx context.Context, now time.Time, next func(Watch) (after *time.Time, missed int), then func(context.Context, pgx.Tx, Task) error) (reviews []int64, err error) {
	err = s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		reviews = nil
		due, err := all[Watch](ctx, tx, watchColumns+`w where next <= $1 and exists (select from review r where r.id = w.review and not r.deleted)
			order by next limit 20 for update skip locked`, now)
		if err != nil {
			return err
		}
		for _, w := range due {
			after, missed := next(w)
			by := By(ctx, Author{Name: w.Who})
			id, err := newAsking(by, tx, Asking{Review: w.Review, Sources: w.Sources, Records: w.Records}, then)
			if err != nil {
				return err
			}
			if _, err := tx.Exec(ctx, "update watch set next = $2, missed = $3, last = $4 where review = $1", w.Review, after, missed, id); err != nil {
				return err
			}
			reviews = append(reviews, w.Review)
		}
		return nil
	})
	return reviews, err
}

// Dismiss says of records that were new that they are not told of again, or that they are.
func (s *Store) Dismiss(ctx context.Context, review int64, records []int64, on bool) error {
	if !on {
		_, err := s.write.Exec(ctx, "delete from dismissed where review = $1 and record = any($2)", review, records)
		return err
	}
	_, err := s.write.Exec(ctx, `insert into dismissed (review, record, who) select $1, x, $3 from unnest($2::bigint[]) x
		where exists (select from record where id = x) on conflict do nothing`, review, records, AuthorOf(ctx).Name)
	return err
}

// Dismissed returns the records of a review that were dismissed.
func (s *Store) Dismissed(ctx context.Context, review int64) (map[int64]bool, error) {
	rows, err := s.Query(ctx, "select record from dismissed where review = $1", review)
	if err != nil {
		return nil, err
	}
	ids, err := pgx.CollectRows(rows, pgx.RowTo[int64])
	out := map[int64]bool{}
	for _, id := range ids {
		out[id] = true
	}
	return out, err
}

// TwoRuns returns, for each source, the last two runs whose records were fetched whole, the newest first. An answer of none is
// whole.
func (s *Store) TwoRuns(ctx context.Context, review int64) ([]Run, error) {
	return all[Run](ctx, s, runColumns+`where id in (select id from (
		select r.id, row_number() over (partition by r.source order by r.id desc) as n from run r left join draw d on d.id = r.draw
		where r.review = $1 and r.kind = 'asked' and (r.records = 0 or d.state = 'done' and d.wanted >= d.total
			and not exists (select from draw_trouble t where t.draw = d.id and t.`+lasting+`))) x where n <= 2) order by source, id desc`, review)
}
