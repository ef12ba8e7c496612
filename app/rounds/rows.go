package rounds

import (
	"context"
	_ "embed"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/core/bib"
	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the rounds of a database.
type Rows struct{ db *store.Store }

// NewRows returns the rounds of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A RoundRow is a round of looking beside the strategy, and how far it is.
type RoundRow struct {
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

// A WorkRow is a work that a round brought: its record, the source that holds it, and what led there.
type WorkRow struct {
	Round  int64
	Record int64
	Source *int64
	Leads  []int64

	Likeness *float64 // to what belongs, of a round that looked for it
}

// A StartRow is a work that a round began from, in one of its records.
type StartRow struct {
	Start  int64
	Record int64
}

// A LostRow is a reference that led nowhere.
type LostRow struct {
	Round int64
	Start int64
	Line  string
	Near  *int64
	Why   string
}

// RoundTask is the work of a round.
func RoundTask(r RoundRow) jobs.Task { return jobs.NewTask("round", r.ID, &r.Review, nil) }

// A Begin is a round that is to be made: with the works that it begins from or, where nothing is to be asked for,
// those that it brings, and then its entry in the logbook.
type Begin struct {
	RoundRow
	Start []int64
	Works []WorkRow
	Entry *logbook.Run
}

type waker = func(context.Context, pgx.Tx, jobs.Task) error

// NewRound keeps a round that is to be made, and asks for its task. One whose works are known already is at rest at
// once. A request that was made before is not made again.
func (r *Rows) NewRound(ctx context.Context, b Begin, then waker) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if again, err := store.Repeated(ctx, tx, b.Review); again || err != nil {
			return err
		}
		return newRound(ctx, tx, b, then)
	})
}

func newRound(ctx context.Context, tx pgx.Tx, b Begin, then waker) error {
	err := tx.QueryRow(ctx, sql["newRound insert round"],
		b.Review, b.Way, b.Asked, b.Name, b.Sources, b.After, b.More, b.State, store.AuthorOf(ctx).Name, b.Notes).Scan(&b.ID)
	if err != nil {
		return err
	}
	if _, err := tx.Exec(ctx, sql["newRound insert round_start"], b.ID, b.Start); err != nil {
		return err
	}
	if err := putRoundWorks(ctx, tx, b.ID, b.Works); err != nil {
		return err
	}
	if b.State == "done" {
		return logbook.Add(ctx, tx, *b.Entry)
	}
	t, err := jobs.AskIn(ctx, tx, RoundTask(b.RoundRow))
	if err != nil {
		return err
	}
	return then(ctx, tx, t)
}

// Rounds returns the rounds of a review in the order in which they were asked for.
func (r *Rows) Rounds(ctx context.Context, review int64) ([]RoundRow, error) {
	return store.All[RoundRow](ctx, r.db, sql["Rounds"], review)
}

// Round returns one round.
func (r *Rows) Round(ctx context.Context, id int64) (RoundRow, error) {
	return store.One[RoundRow](ctx, r.db, sql["Round"], id)
}

// RoundStarts returns the works that a round began from, in all of their records.
func (r *Rows) RoundStarts(ctx context.Context, round int64) ([]StartRow, error) {
	return store.All[StartRow](ctx, r.db, sql["RoundStarts"], round)
}

// RoundWorks returns what the rounds of a review brought, the last rounds first, at most so many.
func (r *Rows) RoundWorks(ctx context.Context, review int64, most int) ([]WorkRow, error) {
	return store.All[WorkRow](ctx, r.db, sql["RoundWorks"], review, most)
}

// RoundForms returns the records that sources hold of the works that rounds of a review began from.
func (r *Rows) RoundForms(ctx context.Context, review int64) ([]int64, error) {
	rows, err := r.db.Query(ctx, sql["RoundForms"], review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// WorksOfRound returns what one round brought.
func (r *Rows) WorksOfRound(ctx context.Context, round int64) ([]WorkRow, error) {
	return store.All[WorkRow](ctx, r.db, sql["WorksOfRound"], round)
}

// RoundLosts returns the references of a round that led nowhere, at most so many.
func (r *Rows) RoundLosts(ctx context.Context, round int64, most int) ([]LostRow, error) {
	return store.All[LostRow](ctx, r.db, sql["RoundLosts"], round, most)
}

// RoundsBrought returns how many works each round of a review brought, and how many references led nowhere.
func (r *Rows) RoundsBrought(ctx context.Context, review int64) (works, lost map[int64]int, err error) {
	type row struct {
		Round int64
		Works int
		Lost  int
	}
	rows, err := store.All[row](ctx, r.db, sql["RoundsBrought"], review)
	works, lost = map[int64]int{}, map[int64]int{}
	for _, r := range rows {
		works[r.Round], lost[r.Round] = r.Works, r.Lost
	}
	return works, lost, err
}

// A StepRow is what a part of a round brought, and where it is now.
type StepRow struct {
	Place    json.RawMessage
	Requests int // so many more
	Notes    json.RawMessage
	Source   *int64
	Records  []*bib.Record // of works that it brought
	Leads    [][]int64     // to each
	Known    []*bib.Record // of works that it began from
	Starts   []int64       // which each of those is
	Lost     []LostRow
}

// PutRoundStep keeps what a part of a round brought, and returns the numbers of its records. Doing it twice does no
// harm. ErrNone is the answer where the round is not going any more.
func (r *Rows) PutRoundStep(ctx context.Context, id int64, step StepRow) (brought []int64, err error) {
	source := "round"
	if step.Source != nil {
		source = library.SourceName(*step.Source)
	}
	err = r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		err := store.Touched(tx.Exec(ctx, sql["PutRoundStep update round"],
			id, step.Place, step.Requests, step.Notes))
		if err != nil {
			return err
		}
		if brought, err = library.PutIn(ctx, tx, source, step.Records); err != nil {
			return err
		}
		works := make([]WorkRow, len(brought))
		for i, record := range brought {
			works[i] = WorkRow{Record: record, Source: step.Source, Leads: step.Leads[i]}
		}
		if err := putRoundWorks(ctx, tx, id, works); err != nil {
			return err
		}
		ids, err := library.PutIn(ctx, tx, source, step.Known)
		if err != nil {
			return err
		}
		for i, record := range ids {
			if _, err := tx.Exec(ctx, sql["PutRoundStep insert round_start"], id, step.Starts[i], record); err != nil {
				return err
			}
		}
		for _, l := range step.Lost {
			_, err := tx.Exec(ctx, sql["PutRoundStep insert round_lost"], id, l.Start, l.Line, l.Near, l.Why)
			if err != nil {
				return err
			}
		}
		return nil
	})
	return brought, err
}

func putRoundWorks(ctx context.Context, tx pgx.Tx, round int64, works []WorkRow) error {
	batch := &pgx.Batch{}
	for _, w := range works {
		if w.Leads == nil {
			w.Leads = []int64{}
		}
		batch.Queue(sql["putRoundWorks"], round, w.Record, w.Source, w.Leads, w.Likeness)
	}
	if batch.Len() == 0 {
		return nil
	}
	return tx.SendBatch(ctx, batch).Close()
}

// RestRound brings a round to rest that was stopped, or failed with a problem.
func (r *Rows) RestRound(ctx context.Context, id int64, state string, problem json.RawMessage) error {
	_, err := r.db.Bulk.Exec(ctx, sql["RestRound"], id, state, problem)
	return err
}

// EndRound says that a round is done, with its entry in the logbook, and begins the one that is to follow it, where
// there is one.
func (r *Rows) EndRound(ctx context.Context, id int64, entry logbook.Run, next *Begin, then waker) error {
	return r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		done, err := tx.Exec(ctx, sql["EndRound"], id)
		if err != nil || done.RowsAffected() == 0 {
			return err
		}
		if err := logbook.Add(ctx, tx, entry); err != nil || next == nil {
			return err
		}
		return newRound(ctx, tx, *next, then)
	})
}

// ResumeRound lets a round that was stopped or failed go on from where it was.
func (r *Rows) ResumeRound(ctx context.Context, round RoundRow, then waker) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if err := store.Touched(tx.Exec(ctx, sql["ResumeRound"], round.ID)); err != nil {
			return err
		}
		t, err := jobs.AskIn(ctx, tx, RoundTask(round))
		if err != nil {
			return err
		}
		return then(ctx, tx, t)
	})
}
