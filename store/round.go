package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
)

// A Round is a round of looking beside the strategy, and how far it is.
type Round struct {
	ID       int64
	Review   int64
	Way      string
	Asked    json.RawMessage
	Name     string
	Sources  []int64
	After    *int64
	More     int
	State    string
	Place    json.RawMessage
	Requests int
	Notes    json.RawMessage
	Problem  json.RawMessage
	Who      string
	At       time.Time
	Ended    *time.Time
}

// A RoundWork is a work that a round brought: its record, the source that holds it, and what led there.
type RoundWork struct {
	Round  int64
	Record int64
	Source *int64
	Leads  []int64

	Likeness *float64 // to what belongs, of a round that looked for it
}

// A RoundStart is a work that a round began from, in one of its records.
type RoundStart struct {
	Start  int64
	Record int64
}

// A RoundLost is a reference that led nowhere.
type RoundLost struct {
	Round int64
	Start int64
	Line  string
	Near  *int64
	Why   string
}

const roundColumns = "select id, review, way, asked, name, sources, after, more, state, place, requests, notes, problem, who, at, ended from round "

// RoundTask is the work of a round.
func RoundTask(r Round) Task { return NewTask("round", r.ID, &r.Review, nil) }

// A Begin is a round that is to be made: with the works that it begins from or, where nothing is to be asked for, those that it
// brings, and then its entry in the logbook.
type Begin struct {
	Round
	Start []int64
	Works []RoundWork
	Entry *Run
}

type waker = func(context.Context, pgx.Tx, Task) error

// NewRound keeps a round that is to be made, and asks for its task. One whose works are known already is at rest at once. A
// request that was made before is not made again.
func (s *Store) NewRound(ctx context.Context, b Begin, then waker) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if again, err := repeated(ctx, tx, b.Review); again || err != nil {
			return err
		}
		return newRound(ctx, tx, b, then)
	})
}

func newRound(ctx context.Context, tx pgx.Tx, b Begin, then waker) error {
	err := tx.QueryRow(ctx, `insert into round (review, way, asked, name, sources, after, more, state, who, notes, ended)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, coalesce($10::jsonb, '[]'), case when $8 = 'done' then now() end) returning id`,
		b.Review, b.Way, b.Asked, b.Name, b.Sources, b.After, b.More, b.State, AuthorOf(ctx).Name, b.Notes).Scan(&b.ID)
	if err != nil {
		return err
	}
	if _, err := tx.Exec(ctx, "insert into round_start (round, start, record) select $1, x, x from unnest($2::bigint[]) x on conflict do nothing", b.ID, b.Start); err != nil {
		return err
	}
	if err := putRoundWorks(ctx, tx, b.ID, b.Works); err != nil {
		return err
	}
	if b.State == "done" {
		return addRun(ctx, tx, *b.Entry)
	}
	t, err := askTask(ctx, tx, RoundTask(b.Round))
	if err != nil {
		return err
	}
	return then(ctx, tx, t)
}

// Rounds returns the rounds of a review in the order in which they were asked for.
func (s *Store) Rounds(ctx context.Context, review int64) ([]Round, error) {
	return all[Round](ctx, s, roundColumns+"where review = $1 order by id", review)
}

// Round returns one round.
func (s *Store) Round(ctx context.Context, id int64) (Round, error) {
	return one[Round](ctx, s, roundColumns+"where id = $1", id)
}

// RoundStarts returns the works that a round began from, in all of their records.
func (s *Store) RoundStarts(ctx context.Context, round int64) ([]RoundStart, error) {
	return all[RoundStart](ctx, s, "select start, record from round_start where round = $1 order by start, record", round)
}

// RoundWorks returns what the rounds of a review brought, the last rounds first, at most so many.
func (s *Store) RoundWorks(ctx context.Context, review int64, most int) ([]RoundWork, error) {
	return all[RoundWork](ctx, s, "select w.round, w.record, w.source, w.leads, w.likeness from round_work w join round r on r.id = w.round where r.review = $1 order by w.round desc, w.record limit $2", review, most)
}

// RoundForms returns the records that sources hold of the works that rounds of a review began from.
func (s *Store) RoundForms(ctx context.Context, review int64) ([]int64, error) {
	rows, err := s.Query(ctx, "select distinct f.record from round_start f join round r on r.id = f.round where r.review = $1 and f.record <> f.start order by 1", review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// WorksOfRound returns what one round brought.
func (s *Store) WorksOfRound(ctx context.Context, round int64) ([]RoundWork, error) {
	return all[RoundWork](ctx, s, "select round, record, source, leads, likeness from round_work where round = $1 order by record", round)
}

// RoundLosts returns the references of a round that led nowhere, at most so many.
func (s *Store) RoundLosts(ctx context.Context, round int64, most int) ([]RoundLost, error) {
	return all[RoundLost](ctx, s, "select round, start, line, near, why from round_lost where round = $1 order by id limit $2", round, most)
}

// RoundsBrought returns how many works each round of a review brought, and how many references led nowhere.
func (s *Store) RoundsBrought(ctx context.Context, review int64) (works, lost map[int64]int, err error) {
	type row struct {
		Round int64
		Works int
		Lost  int
	}
	rows, err := all[row](ctx, s, `select r.id as round, (select count(*) from round_work w where w.round = r.id)::int as works,
		(select count(*) from round_lost l where l.round = r.id)::int as lost from round r where r.review = $1`, review)
	works, lost = map[int64]int{}, map[int64]int{}
	for _, r := range rows {
		works[r.Round], lost[r.Round] = r.Works, r.Lost
	}
	return works, lost, err
}

// A RoundStep is what a part of a round brought, and where it is now.
type RoundStep struct {
	Place    json.RawMessage
	Requests int // so many more
	Notes    json.RawMessage
	Source   *int64
	Records  []*bib.Record // of works that it brought
	Leads    [][]int64     // to each
	Known    []*bib.Record // of works that it began from
	Starts   []int64       // which each of those is
	Lost     []RoundLost
}

// PutRoundStep keeps what a part of a round brought, and returns the numbers of its records. Doing it twice does no harm. ErrNone
// is the answer where the round is not going any more.
func (s *Store) PutRoundStep(ctx context.Context, id int64, step RoundStep) (brought []int64, err error) {
	source := "round"
	if step.Source != nil {
		source = SourceName(*step.Source)
	}
	err = s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		err := touched(tx.Exec(ctx, "update round set place = $2, requests = requests + $3, notes = $4, state = case when state = 'waiting' then 'going' else state end where id = $1 and state in ('waiting', 'going', 'stopping')",
			id, step.Place, step.Requests, step.Notes))
		if err != nil {
			return err
		}
		if brought, err = putRecords(ctx, tx, source, step.Records); err != nil {
			return err
		}
		works := make([]RoundWork, len(brought))
		for i, record := range brought {
			works[i] = RoundWork{Record: record, Source: step.Source, Leads: step.Leads[i]}
		}
		if err := putRoundWorks(ctx, tx, id, works); err != nil {
			return err
		}
		ids, err := putRecords(ctx, tx, source, step.Known)
		if err != nil {
			return err
		}
		for i, record := range ids {
			if _, err := tx.Exec(ctx, "insert into round_start (round, start, record) values ($1, $2, $3) on conflict do nothing", id, step.Starts[i], record); err != nil {
				return err
			}
		}
		for _, l := range step.Lost {
			_, err := tx.Exec(ctx, `insert into round_lost (round, start, line, near, why) select $1, $2, $3, $4, $5
				where not exists (select from round_lost where round = $1 and start = $2 and line = $3)`, id, l.Start, l.Line, l.Near, l.Why)
			if err != nil {
				return err
			}
		}
		return nil
	})
	return brought, err
}

func putRoundWorks(ctx context.Context, tx pgx.Tx, round int64, works []RoundWork) error {
	batch := &pgx.Batch{}
	for _, w := range works {
		if w.Leads == nil {
			w.Leads = []int64{}
		}
		batch.Queue(`insert into round_work (round, record, source, leads, likeness) values ($1, $2, $3, $4, $5) on conflict (round, record) do update
			set leads = (select coalesce(array_agg(distinct x order by x), '{}') from unnest(round_work.leads || excluded.leads) x)`, round, w.Record, w.Source, w.Leads, w.Likeness)
	}
	if batch.Len() == 0 {
		return nil
	}
	return tx.SendBatch(ctx, batch).Close()
}

// RestRound brings a round to rest that was stopped, or failed with a problem.
func (s *Store) RestRound(ctx context.Context, id int64, state string, problem json.RawMessage) error {
	_, err := s.bulk.Exec(ctx, "update round set state = $2, problem = $3, ended = now() where id = $1 and state in ('waiting', 'going', 'stopping')", id, state, problem)
	return err
}

// EndRound says that a round is done, with its entry in the logbook, and begins the one that is to follow it, where there is one.
func (s *Store) EndRound(ctx context.Context, id int64, entry Run, next *Begin, then waker) error {
	return s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		done, err := tx.Exec(ctx, "update round set state = 'done', ended = now() where id = $1 and state in ('waiting', 'going', 'stopping')", id)
		if err != nil || done.RowsAffected() == 0 {
			return err
		}
		if err := addRun(ctx, tx, entry); err != nil || next == nil {
			return err
		}
		return newRound(ctx, tx, *next, then)
	})
}

// ResumeRound lets a round that was stopped or failed go on from where it was.
func (s *Store) ResumeRound(ctx context.Context, r Round, then waker) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if err := touched(tx.Exec(ctx, "update round set state = 'waiting', problem = null, ended = null where id = $1 and state in ('stopped', 'failed')", r.ID)); err != nil {
			return err
		}
		t, err := askTask(ctx, tx, RoundTask(r))
		if err != nil {
			return err
		}
		return then(ctx, tx, t)
	})
}

// A KeyOrigin is where a key study came from.
type KeyOrigin struct {
	ID     int64
	Way    string
	Origin string
}

// KeyOrigins returns where the key studies of a review came from, in the order in which they came.
func (s *Store) KeyOrigins(ctx context.Context, review int64) ([]KeyOrigin, error) {
	return all[KeyOrigin](ctx, s, "select id, way, origin from key_study where review = $1 and not deleted order by id", review)
}
