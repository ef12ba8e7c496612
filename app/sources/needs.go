package sources

import (
	"context"
	"encoding/json"
	"time"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/jackc/pgx/v5"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/core/bib"
	"tamiz/source"
)

// documentRows are the calls by which this room asks of documents.
type documentRows interface {
	Document(ctx context.Context, review int64, revision int) (desk.Saved, error)
}

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Head(ctx context.Context, id int64) (reviews.Head, error)
	Versions(ctx context.Context, review int64, most int) ([]reviews.Version, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	BeginDraw(ctx context.Context, id int64, plan json.RawMessage, parts json.RawMessage, total int, wanted int) error
	DeleteSource(ctx context.Context, id int64) error
	Draw(ctx context.Context, id int64) (library.Draw, error)
	Drawn(ctx context.Context, id int64) (map[int]*roaring.Bitmap, error)
	DrawnIDs(ctx context.Context, draw int64) ([]int64, error)
	DrawnIdentities(ctx context.Context, id int64, visit func(part int, r *bib.Record)) error
	DrawnWorks(ctx context.Context, draw int64, visit func(bib.Identity)) error
	Draws(ctx context.Context, review int64) ([]library.Draw, error)
	DrawsByID(ctx context.Context, ids []int64) (map[int64]library.Draw, error)
	FillDrawn(ctx context.Context, d library.Draw) (sample int64, err error)
	GoOn(ctx context.Context, d library.Draw, atMost int, then func(context.Context, pgx.Tx, jobs.Task) error) error
	Holdings(ctx context.Context, review int64) ([]library.Holding, error)
	Judgements(ctx context.Context, review int64) ([]library.Judgement, error)
	KeepDrawn(ctx context.Context, d library.Draw, part int, got []source.Got, none []int, troubles []source.Trouble) error
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	NewDraws(
		ctx context.Context,
		draws []library.Draw,
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) (ids []int64, err error)
	PauseDraw(ctx context.Context, id int64, until *time.Time) error
	Put(ctx context.Context, source string, records []*bib.Record) (ids []int64, err error)
	PutHolding(ctx context.Context, h library.Holding, record *bib.Record) error
	PutSource(ctx context.Context, x library.Source) (int64, error)
	RecordsByID(ctx context.Context, ids []int64) ([]library.StoredRecord, error)
	RestDraw(ctx context.Context, d library.Draw, state string, problem string) error
	SampleIDs(ctx context.Context, samples ...int64) ([]int64, error)
	SampleWorks(ctx context.Context, sample int64, visit func(bib.Identity)) error
	Samples(ctx context.Context, review int64) ([]library.Sample, error)
	SettleHolding(ctx context.Context, h library.Holding) error
	Source(ctx context.Context, id int64) (library.Source, error)
	Sources(ctx context.Context) ([]library.Source, error)
	StopDraw(ctx context.Context, id int64) error
	Troubles(ctx context.Context, id int64, most int) ([]source.Trouble, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Asking(ctx context.Context, id int64) (Asking, error)
	CountedInPassing(ctx context.Context, review int64) (n int, err error)
	Counts(ctx context.Context, source int64, cql []string) (map[string]Count, error)
	Dismiss(ctx context.Context, review int64, records []int64, on bool) error
	Dismissed(ctx context.Context, review int64) (map[int64]bool, error)
	DropWatch(ctx context.Context, review int64) error
	DueWatches(
		ctx context.Context,
		now time.Time,
		next func(WatchRow) (after *time.Time, missed int),
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) (reviews []int64, err error)
	ForgetCounts(ctx context.Context, source int64, cql []string) error
	HandRuns(ctx context.Context, review int64) ([]RunRow, error)
	LastAsking(ctx context.Context, review int64) (Asking, error)
	LastRuns(ctx context.Context, review int64) ([]RunRow, error)
	LinesOfRun(ctx context.Context, id int64) (json.RawMessage, error)
	NewAsking(ctx context.Context, a Asking, then func(context.Context, pgx.Tx, jobs.Task) error) (id int64, err error)
	PutCount(ctx context.Context, source int64, cql string, records int, exchange json.RawMessage) error
	PutRun(ctx context.Context, run RunRow, draw *library.Draw, then func(context.Context, pgx.Tx, jobs.Task) error) error
	PutWatch(ctx context.Context, w WatchRow) error
	Run(ctx context.Context, id int64) (RunRow, error)
	Runs(ctx context.Context, review int64, before int64, passing bool, most int) ([]RunRow, error)
	RunsOf(ctx context.Context, asking int64) ([]RunRow, error)
	TwoRuns(ctx context.Context, review int64) ([]RunRow, error)
	Watch(ctx context.Context, review int64) (WatchRow, error)
}

// taskRows are the calls by which this room asks of tasks.
type taskRows interface {
	Task(ctx context.Context, name string) (jobs.Task, error)
}
