package library

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
	"tamiz/store"
)

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
func (r *Rows) Origins(ctx context.Context, review int64) ([]Origin, error) {
	return store.All[Origin](ctx, r.db, sql["Origins"], review)
}

// show makes a sample seen, and reports whether it was not before.
func show(ctx context.Context, tx *store.Tx, sample int64) (fresh bool, err error) {
	tag, err := tx.Exec(ctx, sql["show"], sample)
	return tag.RowsAffected() > 0, err
}

// recount works out how many records a sample has, and of which years.
func (r *Rows) recount(ctx context.Context, sample int64) error {
	_, err := r.db.Bulk.Exec(ctx, sql["recount"], sample)
	return err
}

// FillJoined makes a sample of records of two others. Nobody sees it until ShowSample does.
func (r *Rows) FillJoined(
	ctx context.Context,
	review int64,
	name string,
	joined json.RawMessage,
	records []int64,
) (sample int64, err error) {
	err = r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if err := tx.QueryRow(ctx, sql["FillJoined"],
			review, name, joined).Scan(&sample); err != nil {
			return err
		}
		return fill(ctx, tx, sample, 0, records)
	})
	if err != nil {
		return 0, err
	}
	return sample, r.recount(ctx, sample)
}

// ShowSample makes a sample seen.
func ShowSample(ctx context.Context, tx *store.Tx, sample int64) error {
	_, err := show(ctx, tx, sample)
	return err
}

// SameFile returns the live sample of the review that came from a file of the same content.
func (r *Rows) SameFile(ctx context.Context, review int64, hash []byte) (Sample, error) {
	return store.One[Sample](ctx, r.db, sql["SameFile"], review, hash)
}

// A Sample is a sample of a review, without its records.
type Sample struct {
	ID       int64           `json:"id"`
	Import   *int64          `json:"import,omitempty"` // the file it was read from
	Draw     *int64          `json:"draw,omitempty"`   // how it was drawn from a source
	Joined   *Joined         `json:"joined,omitempty"` // the two it was put together from
	Name     string          `json:"name"`
	FileName string          `json:"fileName"`
	Records  int             `json:"records"`
	Skipped  int             `json:"skipped"`
	Notices  int             `json:"notices"`
	Drawn    time.Time       `json:"drawn"`
	Years    json.RawMessage `json:"years"`
}

// Joined says of which two samples one is the union, the overlap or the difference.
type Joined struct {
	How string `json:"how"`
	A   string `json:"a"`
	B   string `json:"b"`
}

// Samples returns the samples of a review that are not deleted, newest first.
func (r *Rows) Samples(ctx context.Context, review int64) ([]Sample, error) {
	return store.All[Sample](ctx, r.db, sql["Samples"], review)
}

// A SampleState is the name of a sample, and whether it is deleted.
type SampleState struct {
	ID      int64  `json:"id"`
	Name    string `json:"name"`
	Deleted bool   `json:"deleted"`
}

// SampleStateIn returns the state of a sample of the review.
func SampleStateIn(ctx context.Context, tx *store.Tx, id int64) (SampleState, error) {
	return store.One[SampleState](ctx, tx, sql["SampleStateIn"], tx.Review, id)
}

// SetSample makes the state of a sample of the review be as it is said.
func SetSample(ctx context.Context, tx *store.Tx, s SampleState) error {
	_, err := tx.Exec(ctx, sql["SetSample"], tx.Review, s.ID, s.Name, s.Deleted)
	return err
}

// BeginSample begins the sample that the records of a file belong to. Nobody sees it until ShowFiled says so.
func (r *Rows) BeginSample(ctx context.Context, review, file int64, name, fileName string) (sample int64, err error) {
	err = r.db.Bulk.QueryRow(ctx, sql["BeginSample"], review, file, name, fileName).Scan(&sample)
	return sample, err
}

// AddToSample stores records, and puts them into a sample from a position on.
func (r *Rows) AddToSample(ctx context.Context, sample int64, from int, records []*bib.Record) error {
	return r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		ids, err := PutIn(ctx, tx, "file", records)
		if err != nil {
			return err
		}
		return fill(ctx, tx, sample, from, ids)
	})
}

// fill puts records into a sample from a position on.
func fill(ctx context.Context, tx pgx.Tx, sample int64, from int, records []int64) error {
	_, err := tx.CopyFrom(ctx, pgx.Identifier{"sample_record"}, []string{"sample", "position", "record"},
		pgx.CopyFromSlice(len(records), func(i int) ([]any, error) { return []any{sample, from + i, records[i]}, nil }))
	return err
}

// ShowFiled makes the sample of a file seen, with how many records it has and of which years.
func ShowFiled(ctx context.Context, tx *store.Tx, sample int64, records int, years json.RawMessage) error {
	_, err := tx.Exec(ctx, sql["ShowFiled"], sample, records, years)
	return err
}

// DropHidden drops the samples of a file that nobody saw.
func DropHidden(ctx context.Context, tx pgx.Tx, file int64) error {
	_, err := tx.Exec(ctx, sql["DropHidden"], file)
	return err
}

// hiddenFor is after what time a sample that nobody saw, and that nothing works on, counts as left behind.
const hiddenFor = 10 * time.Minute

// SweepHidden drops samples that were begun and never shown, a few at a time.
func (r *Rows) SweepHidden(ctx context.Context) error {
	_, err := r.db.Bulk.Exec(ctx, sql["SweepHidden"], hiddenFor)
	return err
}
