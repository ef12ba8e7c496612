package runs

import (
	"context"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/reviews"
	"tamiz/core/bib"
)

// documentRows are the calls by which this room asks of documents.
type documentRows interface {
	Document(ctx context.Context, review int64, revision int) (desk.Saved, error)
}

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Head(ctx context.Context, id int64) (reviews.Head, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	Draw(ctx context.Context, id int64) (library.Draw, error)
	DrawnIDs(ctx context.Context, draw int64) ([]int64, error)
	DrawnWorks(ctx context.Context, draw int64, visit func(bib.Identity)) error
	DrawsByID(ctx context.Context, ids []int64) (map[int64]library.Draw, error)
	Holdings(ctx context.Context, review int64) ([]library.Holding, error)
	Judgements(ctx context.Context, review int64) ([]library.Judgement, error)
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	RecordsByID(ctx context.Context, ids []int64) ([]library.StoredRecord, error)
	SampleIDs(ctx context.Context, samples ...int64) ([]int64, error)
	SampleWorks(ctx context.Context, sample int64, visit func(bib.Identity)) error
	Samples(ctx context.Context, review int64) ([]library.Sample, error)
}

// logRows are the calls by which this room asks of the logbook.
type logRows interface {
	Asking(ctx context.Context, id int64) (logbook.Asking, error)
	CountedInPassing(ctx context.Context, review int64) (n int, err error)
	HandRuns(ctx context.Context, review int64) ([]logbook.Run, error)
	LastAsking(ctx context.Context, review int64) (logbook.Asking, error)
	LastRuns(ctx context.Context, review int64) ([]logbook.Run, error)
	LinesOfRun(ctx context.Context, id int64) (json.RawMessage, error)
	NewAsking(
		ctx context.Context,
		a logbook.Asking,
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) (id int64, err error)
	PutRun(
		ctx context.Context,
		run logbook.Run,
		draw *library.Draw,
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) error
	Run(ctx context.Context, id int64) (logbook.Run, error)
	Runs(ctx context.Context, review int64, before int64, passing bool, most int) ([]logbook.Run, error)
	RunsOf(ctx context.Context, asking int64) ([]logbook.Run, error)
	TwoRuns(ctx context.Context, review int64) ([]logbook.Run, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Dismiss(ctx context.Context, review int64, records []int64, on bool) error
	Dismissed(ctx context.Context, review int64) (map[int64]bool, error)
	DropWatch(ctx context.Context, review int64) error
	DueWatches(
		ctx context.Context,
		now time.Time,
		next func(WatchRow) (after *time.Time, missed int),
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) (reviews []int64, err error)
	PutWatch(ctx context.Context, w WatchRow) error
	Watch(ctx context.Context, review int64) (WatchRow, error)
}
