package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
	"tamiz/source"
)

// A Draw is a sample that is being drawn, or was.
type Draw struct {
	ID       int64
	Review   int64
	Source   int64
	Name     string
	Concepts json.RawMessage
	How      string
	AtMost   int
	Seed     int64
	Query    string
	Notes    json.RawMessage
	Plan     json.RawMessage
	Parts    json.RawMessage // of a sample that is drawn in several
	State    string
	Total    int
	Wanted   int
	Got      int
	Pause    *time.Time
	Problem  string
	Sample   *int64
	Made     time.Time
	Troubles int
	Waits    string // source or review: whose other draws it waits for
	Apart    bool   // for a run: its records do not become a sample by themselves
	Missing  int    // positions that were wanted and could not be got
	Moved    bool   // the source's count changed while it was fetched: a record may have been passed over, or come twice
}

// Whole reports whether all records of the answer were fetched: those that there are.
func (d Draw) Whole() bool { return d.State == "done" && d.Wanted >= d.Total && d.Missing == 0 }

// lasting are the troubles for which a record is not there: others are no record, or one that is there already.
const lasting = "kind not in ('no-record', 'repeated', 'total-moved')"

const drawColumns = `select id, review, source, name, concepts, how, at_most, seed, query, notes, plan, parts, state, total, wanted, got, pause, problem, sample, made, apart,
	(select count(*) from draw_trouble t where t.draw = d.id)::int as troubles,
	(select coalesce(sum(last - first + 1), 0) from draw_trouble t where t.draw = d.id and ` + lasting + `)::int as missing,
	exists (select from draw_trouble t where t.draw = d.id and t.kind = 'total-moved') as moved,
	coalesce((select waits from task where name = 'draw ' || d.id), '') as waits from draw d `

// Draw returns one draw.
func (s *Store) Draw(ctx context.Context, id int64) (Draw, error) {
	return one[Draw](ctx, s, drawColumns+"where id = $1", id)
}

// Draws returns the draws of a review that are under way, were stopped or failed, or whose sample is live.
func (s *Store) Draws(ctx context.Context, review int64) ([]Draw, error) {
	return all[Draw](ctx, s, drawColumns+`where review = $1 and not (apart and sample is null) and (sample is null and state <> 'done' and (state <> 'failed' or made > now() - interval '1 day')
		or exists (select from sample x where x.id = d.sample and not x.deleted)) order by id desc`, review)
}

// DrawTask is the task of a draw.
func DrawTask(d Draw) Task { return NewTask("draw", d.ID, &d.Review, &d.Source) }

// NewDraws keeps draws that wait to be begun, all or none, asks for their tasks, and calls then for each in the same transaction.
func (s *Store) NewDraws(ctx context.Context, draws []Draw, then func(context.Context, pgx.Tx, Task) error) (ids []int64, err error) {
	err = s.once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		for _, d := range draws {
			id, err := newDraw(ctx, tx, d, then)
			if err != nil {
				return err
			}
			ids = append(ids, id)
		}
		return nil
	})
	return ids, err
}

func newDraw(ctx context.Context, tx pgx.Tx, d Draw, then func(context.Context, pgx.Tx, Task) error) (int64, error) {
	err := tx.QueryRow(ctx, `insert into draw (review, source, name, concepts, how, at_most, seed, query, notes, apart, parts, state)
		values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, coalesce($11::jsonb, '[]'), 'waiting') returning id`,
		d.Review, d.Source, d.Name, d.Concepts, d.How, d.AtMost, d.Seed, d.Query, d.Notes, d.Apart, d.Parts).Scan(&d.ID)
	if err != nil {
		return 0, err
	}
	t, err := askTask(ctx, tx, DrawTask(d))
	if err != nil {
		return 0, err
	}
	return d.ID, then(ctx, tx, t)
}

// GoOn makes a draw that has come to rest wait to be gone on with, for as many records.
func (s *Store) GoOn(ctx context.Context, d Draw, atMost int, then func(context.Context, pgx.Tx, Task) error) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, `update draw set plan = case when at_most = $2 then plan end, at_most = $2, state = 'waiting', problem = ''
			where id = $1 and state in ('stopped', 'done', 'failed')`, d.ID, atMost)
		if err == nil && tag.RowsAffected() == 0 {
			return ErrNone
		}
		if err != nil {
			return err
		}
		t, err := askTask(ctx, tx, DrawTask(d))
		if err != nil {
			return err
		}
		return then(ctx, tx, t)
	})
}

// StopDraw says that a draw is to stop.
func (s *Store) StopDraw(ctx context.Context, id int64) error {
	_, err := s.write.Exec(ctx, "update draw set state = 'stopping' where id = $1 and state in ('waiting', 'drawing')", id)
	return err
}

// BeginDraw keeps the plan of a draw, and of its parts what each finds. What could not be fetched the last time is to be tried
// again.
func (s *Store) BeginDraw(ctx context.Context, id int64, plan, parts json.RawMessage, total, wanted int) error {
	return s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, "delete from draw_trouble where draw = $1 and "+lasting, id); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `update draw set plan = $2, total = $3, wanted = $4, parts = coalesce($5::jsonb, parts), state = case when state = 'waiting' then 'drawing' else state end where id = $1`,
			id, plan, total, wanted, parts)
		return err
	})
}

// PauseDraw keeps until when a draw waits, because the source asked for it; nil for no longer.
func (s *Store) PauseDraw(ctx context.Context, id int64, until *time.Time) error {
	_, err := s.bulk.Exec(ctx, "update draw set pause = $2 where id = $1", id, until)
	return err
}

// Drawn returns, by part, the positions of a draw that need not be fetched again.
func (s *Store) Drawn(ctx context.Context, id int64) (map[int]*roaring.Bitmap, error) {
	rows, err := s.bulk.Query(ctx, "select part, position from draw_position where draw = $1", id)
	if err != nil {
		return nil, err
	}
	out := map[int]*roaring.Bitmap{}
	var part, position int
	_, err = pgx.ForEachRow(rows, []any{&part, &position}, func() error {
		if out[part] == nil {
			out[part] = roaring.New()
		}
		out[part].Add(uint32(position))
		return nil
	})
	return out, err
}

// PartSize is how far apart the numbers of the parts of a draw are: within one, its years are told apart.
const PartSize = 10_000

// DrawnIdentities calls visit with what makes each record of a draw itself, and of which part it is.
func (s *Store) DrawnIdentities(ctx context.Context, id int64, visit func(part int, r *bib.Record)) error {
	rows, err := s.bulk.Query(ctx, "select p.part / $2, r.body from draw_position p join record r on r.id = p.record where p.draw = $1", id, PartSize)
	if err != nil {
		return err
	}
	var part int
	var body []byte
	_, err = pgx.ForEachRow(rows, []any{&part, &body}, func() error {
		var r bib.Record
		if err := json.Unmarshal(body, &r); err != nil {
			return err
		}
		visit(part, &r)
		return nil
	})
	return err
}

// An Origin is how the records of a sample came about: read from a file, put together, or drawn, for some concepts.
type Origin struct {
	Sample   int64
	Name     string
	Records  int
	Import   *int64
	Joined   *Joined
	Draw     *int64
	Source   *int64
	How      string
	Concepts json.RawMessage
	Parts    json.RawMessage
	Apart    bool // drawn for a run: by the whole strategy
}

// Origins returns how the samples of a review came about, the newest first.
func (s *Store) Origins(ctx context.Context, review int64) ([]Origin, error) {
	return all[Origin](ctx, s, `select s.id as sample, s.name, s.records, s.import, s.joined, s.draw, d.source, coalesce(d.how, '') as how, coalesce(d.concepts, '[]') as concepts,
		coalesce(d.parts, '[]') as parts, coalesce(d.apart, false) as apart from sample s left join draw d on d.id = s.draw
		where s.review = $1 and not s.deleted and not s.hidden order by s.id desc`, review)
}

// PartIDs returns which records each part of a draw brought, by its place.
func (s *Store) PartIDs(ctx context.Context, draw int64) (map[int][]int64, error) {
	rows, err := s.bulk.Query(ctx, "select distinct part / $2, record from draw_position where draw = $1 and record is not null", draw, PartSize)
	if err != nil {
		return nil, err
	}
	out := map[int][]int64{}
	var part int
	var record int64
	_, err = pgx.ForEachRow(rows, []any{&part, &record}, func() error {
		out[part] = append(out[part], record)
		return nil
	})
	return out, err
}

// ErrStopped is the answer to a draw that has been told to stop.
var ErrStopped = fmt.Errorf("the draw was stopped")

// KeepDrawn keeps what a page brought: records at their positions, positions that hold none, and troubles.
// A page that was kept already changes nothing.
func (s *Store) KeepDrawn(ctx context.Context, d Draw, part int, got []source.Got, none []int, troubles []source.Trouble) error {
	stopped := false
	err := s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		var state string
		if err := tx.QueryRow(ctx, "select state from draw where id = $1 for update", d.ID).Scan(&state); err != nil {
			return err
		}
		stopped = state == "stopping"
		records := make([]*bib.Record, len(got))
		for i, g := range got {
			records[i] = g.Record
		}
		ids, err := putRecords(ctx, tx, SourceName(d.Source), records)
		if err != nil {
			return err
		}
		batch := &pgx.Batch{}
		positions, numbers := make([]int, 0, len(got)), make([]int64, 0, len(got))
		for i, g := range got {
			positions, numbers = append(positions, g.Position), append(numbers, ids[i])
		}
		batch.Queue(`with new as (insert into draw_position (draw, part, position, record) select $1, $2, p, r from unnest($3::int[], $4::bigint[]) as u(p, r)
			on conflict do nothing returning 1) update draw set got = got + (select count(*) from new), pause = null where id = $1`, d.ID, part, positions, numbers)
		if len(none) > 0 {
			batch.Queue("insert into draw_position (draw, part, position) select $1, $2, p from unnest($3::int[]) as u(p) on conflict do nothing", d.ID, part, none)
		}
		for _, t := range troubles {
			batch.Queue("insert into draw_trouble (draw, part, first, last, kind, detail) values ($1, $2, $3, $4, $5, $6)", d.ID, part, t.From, t.To, t.Kind, t.Detail)
		}
		return tx.SendBatch(ctx, batch).Close()
	})
	if err == nil && stopped {
		err = ErrStopped
	}
	return err
}

// SourceName is the name under which the records of a source are stored.
func SourceName(source int64) string { return fmt.Sprintf("source %d", source) }

// Troubles returns what a draw could not get, the first of them.
func (s *Store) Troubles(ctx context.Context, id int64, most int) ([]source.Trouble, error) {
	rows, err := s.Query(ctx, "select part, first, last, kind, detail from draw_trouble where draw = $1 order by id limit $2", id, most)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, func(row pgx.CollectableRow) (t source.Trouble, err error) {
		return t, row.Scan(&t.Part, &t.From, &t.To, &t.Kind, &t.Detail)
	})
}

// FillDrawn puts what a draw got into its sample, a new one that nobody sees yet where there is none. It returns the
// sample, 0 where nothing was got. Doing it twice does no harm.
func (s *Store) FillDrawn(ctx context.Context, d Draw) (sample int64, err error) {
	err = s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		var got int
		if err := tx.QueryRow(ctx, "select count(*) from draw_position where draw = $1 and record is not null", d.ID).Scan(&got); err != nil || got == 0 {
			return err
		}
		err := tx.QueryRow(ctx, "select id from sample where draw = $1 order by hidden limit 1", d.ID).Scan(&sample)
		if errors.Is(err, pgx.ErrNoRows) {
			err = tx.QueryRow(ctx, "insert into sample (review, draw, name, file_name, records, years, hidden) values ($1, $2, $3, '', 0, '[]', true) returning id",
				d.Review, d.ID, d.Name).Scan(&sample)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, `insert into sample_record (sample, position, record)
			select $1, (select coalesce(max(position) + 1, 0) from sample_record where sample = $1) + row_number() over (order by part / $3, part desc, position) - 1, record
			from (select distinct on (record) part, position, record from draw_position where draw = $2 and record is not null order by record, part / $3, part desc, position) p
			where not exists (select from sample_record s where s.sample = $1 and s.record = p.record)`, sample, d.ID, PartSize)
		return err
	})
	if err != nil || sample == 0 {
		return 0, err
	}
	return sample, s.recount(ctx, sample)
}

// EndDraw says how a draw ended, and shows its sample, 0 for none; entry, where there is one, goes into the logbook
// with it. fresh is whether the sample was not seen before.
func (w *Tx) EndDraw(ctx context.Context, d Draw, sample int64, state, problem string, entry *Run) (fresh bool, err error) {
	var of *int64
	if sample > 0 {
		of = &sample
		if fresh, err = w.show(ctx, sample); err != nil {
			return false, err
		}
	}
	_, err = w.tx.Exec(ctx, "update draw set state = $2, problem = $3, pause = null, sample = coalesce($4, sample) where id = $1", d.ID, state, problem, of)
	if err == nil && entry != nil {
		entry.Sample = of
		err = addRun(ctx, w.tx, *entry)
	}
	return fresh, err
}

// RestDraw says how a draw ended of which no sample is made.
func (s *Store) RestDraw(ctx context.Context, d Draw, state, problem string) error {
	_, err := s.bulk.Exec(ctx, "update draw set state = $2, problem = $3, pause = null where id = $1", d.ID, state, problem)
	return err
}

// show makes a sample seen, and reports whether it was not before.
func (w *Tx) show(ctx context.Context, sample int64) (fresh bool, err error) {
	tag, err := w.tx.Exec(ctx, "update sample set hidden = false where id = $1 and hidden", sample)
	return tag.RowsAffected() > 0, err
}

// recount works out how many records a sample has, and of which years.
func (s *Store) recount(ctx context.Context, sample int64) error {
	_, err := s.bulk.Exec(ctx, `update sample set records = (select count(*) from sample_record where sample = $1),
		years = (select coalesce(jsonb_agg(jsonb_build_object('year', year, 'records', n) order by year), '[]') from
			(select r.year, count(*) as n from sample_record s join record r on r.id = s.record where s.sample = $1 group by r.year) y)
		where id = $1`, sample)
	return err
}

// FillJoined makes a sample of records of two others. Nobody sees it until ShowSample does.
func (s *Store) FillJoined(ctx context.Context, review int64, name string, joined json.RawMessage, records []int64) (sample int64, err error) {
	err = s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if err := tx.QueryRow(ctx, "insert into sample (review, name, file_name, records, years, joined, hidden) values ($1, $2, '', 0, '[]', $3, true) returning id",
			review, name, joined).Scan(&sample); err != nil {
			return err
		}
		_, err := tx.CopyFrom(ctx, pgx.Identifier{"sample_record"}, []string{"sample", "position", "record"},
			pgx.CopyFromSlice(len(records), func(i int) ([]any, error) { return []any{sample, i, records[i]}, nil }))
		return err
	})
	if err != nil {
		return 0, err
	}
	return sample, s.recount(ctx, sample)
}

// ShowSample makes a sample seen.
func (w *Tx) ShowSample(ctx context.Context, sample int64) error {
	_, err := w.show(ctx, sample)
	return err
}
