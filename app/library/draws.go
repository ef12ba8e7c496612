package library

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/jackc/pgx/v5"

	"tamiz/app/jobs"
	"tamiz/core/bib"
	"tamiz/source"
	"tamiz/store"
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

// Draw returns one draw.
func (r *Rows) Draw(ctx context.Context, id int64) (Draw, error) {
	return store.One[Draw](ctx, r.db, sql["Draw"], id)
}

// Draws returns the draws of a review that are under way, were stopped or failed, or whose sample is live.
func (r *Rows) Draws(ctx context.Context, review int64) ([]Draw, error) {
	return store.All[Draw](ctx, r.db, sql["Draws"], review)
}

// DrawTask is the task of a draw.
func DrawTask(d Draw) jobs.Task { return jobs.NewTask("draw", d.ID, &d.Review, &d.Source) }

// NewDraws keeps draws that wait to be begun, all or none, asks for their tasks, and calls then for each in the
// same transaction.
func (r *Rows) NewDraws(
	ctx context.Context,
	draws []Draw,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) (ids []int64, err error) {
	err = r.db.Once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		for _, d := range draws {
			id, err := NewDrawIn(ctx, tx, d, then)
			if err != nil {
				return err
			}
			ids = append(ids, id)
		}
		return nil
	})
	return ids, err
}

func NewDrawIn(
	ctx context.Context,
	tx pgx.Tx,
	d Draw,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) (int64, error) {
	err := tx.QueryRow(ctx, sql["NewDrawIn"],
		d.Review, d.Source, d.Name, d.Concepts, d.How, d.AtMost, d.Seed, d.Query, d.Notes, d.Apart, d.Parts).Scan(&d.ID)
	if err != nil {
		return 0, err
	}
	t, err := jobs.AskIn(ctx, tx, DrawTask(d))
	if err != nil {
		return 0, err
	}
	return d.ID, then(ctx, tx, t)
}

// GoOn makes a draw that has come to rest wait to be gone on with, for as many records.
func (r *Rows) GoOn(
	ctx context.Context,
	d Draw,
	atMost int,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) error {
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, sql["GoOn"], d.ID, atMost)
		if err == nil && tag.RowsAffected() == 0 {
			return store.ErrNone
		}
		if err != nil {
			return err
		}
		t, err := jobs.AskIn(ctx, tx, DrawTask(d))
		if err != nil {
			return err
		}
		return then(ctx, tx, t)
	})
}

// StopDraw says that a draw is to stop.
func (r *Rows) StopDraw(ctx context.Context, id int64) error {
	_, err := r.db.Write.Exec(ctx, sql["StopDraw"], id)
	return err
}

// BeginDraw keeps the plan of a draw, and of its parts what each finds. What could not be fetched the last time is
// to be tried again.
func (r *Rows) BeginDraw(ctx context.Context, id int64, plan, parts json.RawMessage, total, wanted int) error {
	return r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, sql["BeginDraw delete draw_trouble"], id); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, sql["BeginDraw update draw"],
			id, plan, total, wanted, parts)
		return err
	})
}

// PauseDraw keeps until when a draw waits, because the source asked for it; nil for no longer.
func (r *Rows) PauseDraw(ctx context.Context, id int64, until *time.Time) error {
	_, err := r.db.Bulk.Exec(ctx, sql["PauseDraw"], id, until)
	return err
}

// Drawn returns, by part, the positions of a draw that need not be fetched again.
func (r *Rows) Drawn(ctx context.Context, id int64) (map[int]*roaring.Bitmap, error) {
	rows, err := r.db.Bulk.Query(ctx, sql["Drawn"], id)
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
func (r *Rows) DrawnIdentities(ctx context.Context, id int64, visit func(part int, r *bib.Record)) error {
	rows, err := r.db.Bulk.Query(ctx, sql["DrawnIdentities"], id, PartSize)
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

// PartIDs returns which records each part of a draw brought, by its place.
func (r *Rows) PartIDs(ctx context.Context, draw int64) (map[int][]int64, error) {
	rows, err := r.db.Bulk.Query(ctx, sql["PartIDs"], draw, PartSize)
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
func (r *Rows) KeepDrawn(
	ctx context.Context,
	d Draw,
	part int,
	got []source.Got,
	none []int,
	troubles []source.Trouble,
) error {
	stopped := false
	err := r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		var state string
		if err := tx.QueryRow(ctx, sql["KeepDrawn select draw"], d.ID).Scan(&state); err != nil {
			return err
		}
		stopped = state == "stopping"
		records := make([]*bib.Record, len(got))
		for i, g := range got {
			records[i] = g.Record
		}
		ids, err := PutIn(ctx, tx, SourceName(d.Source), records)
		if err != nil {
			return err
		}
		batch := &pgx.Batch{}
		positions, numbers := make([]int, 0, len(got)), make([]int64, 0, len(got))
		for i, g := range got {
			positions, numbers = append(positions, g.Position), append(numbers, ids[i])
		}
		batch.Queue(sql["KeepDrawn with new"], d.ID, part, positions, numbers)
		if len(none) > 0 {
			batch.Queue(sql["KeepDrawn insert draw_position"], d.ID, part, none)
		}
		for _, t := range troubles {
			batch.Queue(sql["KeepDrawn insert draw_trouble"], d.ID, part, t.From, t.To, t.Kind, t.Detail)
		}
		return tx.SendBatch(ctx, batch).Close()
	})
	if err == nil && stopped {
		err = ErrStopped
	}
	return err
}

// Troubles returns what a draw could not get, the first of them.
func (r *Rows) Troubles(ctx context.Context, id int64, most int) ([]source.Trouble, error) {
	rows, err := r.db.Query(ctx, sql["Troubles"], id, most)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, func(row pgx.CollectableRow) (t source.Trouble, err error) {
		return t, row.Scan(&t.Part, &t.From, &t.To, &t.Kind, &t.Detail)
	})
}

// FillDrawn puts what a draw got into its sample, a new one that nobody sees yet where there is none. It returns the
// sample, 0 where nothing was got. Doing it twice does no harm.
func (r *Rows) FillDrawn(ctx context.Context, d Draw) (sample int64, err error) {
	err = r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		var got int
		if err := tx.QueryRow(ctx, sql["FillDrawn select draw_position"], d.ID).Scan(&got); err != nil || got == 0 {
			return err
		}
		err := tx.QueryRow(ctx, sql["FillDrawn select sample"], d.ID).Scan(&sample)
		if errors.Is(err, pgx.ErrNoRows) {
			err = tx.QueryRow(ctx, sql["FillDrawn insert sample"],
				d.Review, d.ID, d.Name).Scan(&sample)
		}
		if err != nil {
			return err
		}
		_, err = tx.Exec(ctx, sql["FillDrawn insert sample_record"], sample, d.ID, PartSize)
		return err
	})
	if err != nil || sample == 0 {
		return 0, err
	}
	return sample, r.recount(ctx, sample)
}

// EndDraw says how a draw ended, and shows its sample, 0 for none. fresh is whether the sample was not shown before.
func EndDraw(ctx context.Context, tx *store.Tx, d Draw, sample int64, state, problem string) (fresh bool, err error) {
	var of *int64
	if sample > 0 {
		of = &sample
		if fresh, err = show(ctx, tx, sample); err != nil {
			return false, err
		}
	}
	_, err = tx.Exec(ctx, sql["EndDraw"], d.ID, state, problem, of)
	return fresh, err
}

// RestDraw says how a draw ended of which no sample is made.
func (r *Rows) RestDraw(ctx context.Context, d Draw, state, problem string) error {
	_, err := r.db.Bulk.Exec(ctx, sql["RestDraw"], d.ID, state, problem)
	return err
}

// DrawnIDs returns the records that a draw got, in their order.
func (r *Rows) DrawnIDs(ctx context.Context, draw int64) ([]int64, error) {
	rows, err := r.db.Bulk.Query(ctx, sql["DrawnIDs"], draw)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// DrawsByID returns draws by their numbers.
func (r *Rows) DrawsByID(ctx context.Context, ids []int64) (map[int64]Draw, error) {
	found, err := store.All[Draw](ctx, r.db, sql["DrawsByID"], ids)
	out := map[int64]Draw{}
	for _, d := range found {
		out[d.ID] = d
	}
	return out, err
}
