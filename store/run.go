package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
)

// An Asking is an order to run the whole strategy at some sources.
type Asking struct {
	ID       int64
	Review   int64
	Revision int
	Sources  []int64
	Records  int // to be drawn of each at most; 0 for none
	Who      string
	At       time.Time
}

// A Run is what came of a strategy at one place.
type Run struct {
	ID       int64
	Review   int64
	Kind     string // asked, counted, hand, round or draw
	Way      string // of one that was written down, and of a round
	Asking   *int64
	Revision int
	Source   *int64 // none where it was written down by hand
	Place    string
	Query    string
	Records  *int64 // none where there was no answer
	Exchange json.RawMessage
	Notes    json.RawMessage
	Lines    json.RawMessage `db:"-"` // of one that was asked, as they were; see LinesOfRun
	Problem  json.RawMessage
	Draw     *int64
	Note     string
	Who      string
	At       time.Time
	Corrects *int64 // of one that was written down: the one that it puts right
	Void     bool   // and it says that that one was never made
	Sample   *int64 // the records that were found by hand

	CorrectedBy *int64 // the one that puts it right
}

const (
	askingColumns = "select id, review, revision, sources, records, who, at from asking "
	runColumns    = `select id, review, kind, way, asking, revision, source, place, query, records, exchange, notes, problem, draw, note, who, at, corrects, void, sample,
		(select c.id from run c where c.corrects = run.id) as corrected_by from run `
)

// RunTask is the running of a strategy at one source.
func RunTask(a Asking, source int64) Task {
	t := NewTask("run", a.ID, &a.Review, &source)
	t.Name += " at " + SourceName(source)
	return t
}

// NewAsking keeps an order, asks for a task at each source, and calls then with each in the same transaction. A request that
// was made before is not made again.
func (s *Store) NewAsking(ctx context.Context, a Asking, then func(context.Context, pgx.Tx, Task) error) (id int64, err error) {
	err = s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if again, err := repeated(ctx, tx, a.Review); again || err != nil {
			return err
		}
		id, err = newAsking(ctx, tx, a, then)
		return err
	})
	return id, err
}

// newAsking keeps an order; of the newest revision, where none is said.
func newAsking(ctx context.Context, tx pgx.Tx, a Asking, then func(context.Context, pgx.Tx, Task) error) (int64, error) {
	err := tx.QueryRow(ctx, `insert into asking (review, revision, sources, records, who)
		values ($1, case when $2 > 0 then $2 else (select max(revision) from document where review = $1) end, $3, $4, $5) returning id`,
		a.Review, a.Revision, a.Sources, a.Records, AuthorOf(ctx).Name).Scan(&a.ID)
	if err != nil {
		return 0, err
	}
	for _, id := range a.Sources {
		t, err := askTask(ctx, tx, RunTask(a, id))
		if err != nil {
			return 0, err
		}
		if err := then(ctx, tx, t); err != nil {
			return 0, err
		}
	}
	return a.ID, nil
}

// Asking returns one order.
func (s *Store) Asking(ctx context.Context, id int64) (Asking, error) {
	return one[Asking](ctx, s, askingColumns+"where id = $1", id)
}

// LastAsking returns the last order of a review.
func (s *Store) LastAsking(ctx context.Context, review int64) (Asking, error) {
	return one[Asking](ctx, s, askingColumns+"where review = $1 order by id desc limit 1", review)
}

// Runs returns the runs of a review, the newest first, before one where a number is given; those that were counted in passing
// too, where they are asked for.
func (s *Store) Runs(ctx context.Context, review, before int64, passing bool, most int) ([]Run, error) {
	return all[Run](ctx, s, runColumns+"where review = $1 and ($2::bigint = 0 or id < $2::bigint) and ($3 or kind <> 'counted') order by id desc limit $4", review, before, passing, most)
}

// CountedInPassing returns how many runs of a review were.
func (s *Store) CountedInPassing(ctx context.Context, review int64) (n int, err error) {
	err = s.QueryRow(ctx, "select count(*) from run where review = $1 and kind = 'counted'", review).Scan(&n)
	return n, err
}

// LastRuns returns the last run of a review at each source that somebody asked.
func (s *Store) LastRuns(ctx context.Context, review int64) ([]Run, error) {
	return all[Run](ctx, s, "select distinct on (source) * from ("+runColumns+"where review = $1 and kind = 'asked') x order by source, id desc", review)
}

// Counted returns what each source said last of each revision of a review that somebody asked it for, or that is one of those
// named; at most so many, those of the newest revisions first.
func (s *Store) Counted(ctx context.Context, review int64, revisions []int, most int) ([]Run, error) {
	return all[Run](ctx, s, "select distinct on (revision, source) * from ("+runColumns+"where review = $1 and source is not null and records is not null and (kind = 'asked' or kind = 'counted' and revision = any($3))) x order by revision desc, source, id desc limit $2", review, most, revisions)
}

// HandRuns returns what was written down by hand and holds: what nothing corrects, in the order in which it was made.
func (s *Store) HandRuns(ctx context.Context, review int64) ([]Run, error) {
	return all[Run](ctx, s, runColumns+"where review = $1 and kind = 'hand' and not void and not exists (select from run c where c.corrects = run.id) order by at, id", review)
}

// RunsOf returns what came of an order so far.
func (s *Store) RunsOf(ctx context.Context, asking int64) ([]Run, error) {
	return all[Run](ctx, s, runColumns+"where asking = $1 order by id", asking)
}

// PutRun adds a run and, where one is given, the draw of its records, with its task. A run that was added already is not
// added again.
func (s *Store) PutRun(ctx context.Context, r Run, draw *Draw, then func(context.Context, pgx.Tx, Task) error) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if again, err := repeated(ctx, tx, r.Review); again || err != nil {
			return err
		}
		if r.Asking != nil {
			// Another that is at the same waits, and then finds it done.
			if _, err := tx.Exec(ctx, "select from asking where id = $1 for update", *r.Asking); err != nil {
				return err
			}
			there, err := one[struct{ There bool }](ctx, tx, "select exists (select from run where asking = $1 and source = $2) as there", r.Asking, r.Source)
			if err != nil || there.There {
				return err
			}
		}
		if r.Corrects != nil {
			// Of two who put the same one right at once, the second is told.
			was, err := one[struct{ Done bool }](ctx, tx, `select exists (select from run c where c.corrects = run.id) as done
				from run where id = $1 and review = $2 and kind = 'hand' and not void for update`, *r.Corrects, r.Review)
			if err == nil && was.Done {
				err = ErrInUse
			}
			if err != nil {
				return err
			}
		}
		if draw != nil {
			id, err := newDraw(ctx, tx, *draw, then)
			if err != nil {
				return err
			}
			r.Draw = &id
		}
		if r.Notes == nil {
			r.Notes = json.RawMessage("[]")
		}
		if r.At.IsZero() {
			r.At = time.Now()
		}
		return addRun(ctx, tx, r)
	})
}

func addRun(ctx context.Context, tx pgx.Tx, r Run) error {
	_, err := tx.Exec(ctx, `insert into run (review, kind, way, asking, revision, source, place, query, records, exchange, notes, problem, draw, note, who, at, corrects, void, sample, lines)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20)`,
		r.Review, r.Kind, r.Way, r.Asking, r.Revision, r.Source, r.Place, r.Query, r.Records, r.Exchange, r.Notes, r.Problem, r.Draw, r.Note, r.Who, r.At, r.Corrects, r.Void, r.Sample, r.Lines)
	return err
}

// Run returns one run.
func (s *Store) Run(ctx context.Context, id int64) (Run, error) {
	return one[Run](ctx, s, runColumns+"where id = $1", id)
}

// LinesOfRun returns the lines of a run as they were asked; nil where they were not kept.
func (s *Store) LinesOfRun(ctx context.Context, id int64) (json.RawMessage, error) {
	r, err := one[struct{ Lines json.RawMessage }](ctx, s, "select lines from run where id = $1", id)
	return r.Lines, err
}

const workColumns = "select r.body "

// A self is what makes a record itself: text and headings, which are most of it, are passed over.
type self struct {
	Title, DOI, Accession, Journal, Volume, FirstPage string
	Authors                                           []bib.Person
	Year                                              int
}

// DrawnWorks calls visit with what makes each record of a draw itself.
func (s *Store) DrawnWorks(ctx context.Context, draw int64, visit func(bib.Identity)) error {
	return s.works(ctx, visit, workColumns+"from draw_position p join record r on r.id = p.record where p.draw = $1 order by p.part desc, p.position", draw)
}

// SampleWorks calls visit with what makes each record of a sample itself.
func (s *Store) SampleWorks(ctx context.Context, sample int64, visit func(bib.Identity)) error {
	return s.works(ctx, visit, workColumns+"from sample_record p join record r on r.id = p.record where p.sample = $1 order by p.position", sample)
}

func (s *Store) works(ctx context.Context, visit func(bib.Identity), sql string, of int64) error {
	rows, err := s.bulk.Query(ctx, sql, of)
	if err != nil {
		return err
	}
	var body []byte
	_, err = pgx.ForEachRow(rows, []any{&body}, func() error {
		var r self
		if err := json.Unmarshal(body, &r); err != nil {
			return err
		}
		visit(bib.IdentityOf(&bib.Record{Title: r.Title, DOI: r.DOI, Accession: r.Accession, Journal: r.Journal, Volume: r.Volume, FirstPage: r.FirstPage, Authors: r.Authors, Year: r.Year}))
		return nil
	})
	return err
}

// DrawnIDs returns the records that a draw got, in their order.
func (s *Store) DrawnIDs(ctx context.Context, draw int64) ([]int64, error) {
	rows, err := s.bulk.Query(ctx, "select record from draw_position where draw = $1 and record is not null order by part desc, position", draw)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// DrawsByID returns draws by their numbers.
func (s *Store) DrawsByID(ctx context.Context, ids []int64) (map[int64]Draw, error) {
	found, err := all[Draw](ctx, s, drawColumns+"where id = any($1)", ids)
	out := map[int64]Draw{}
	for _, d := range found {
		out[d.ID] = d
	}
	return out, err
}
