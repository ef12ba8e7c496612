package sources

import (
	"context"
	"encoding/json"

	"github.com/jackc/pgx/v5"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/reviews"
)

// documentRows are the calls by which this room asks of documents.
type documentRows interface {
	Document(ctx context.Context, review int64, revision int) (desk.Saved, error)
}

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Versions(ctx context.Context, review int64, most int) ([]reviews.Version, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	DeleteSource(ctx context.Context, id int64) error
	PutSource(ctx context.Context, x library.Source) (int64, error)
	Source(ctx context.Context, id int64) (library.Source, error)
	Sources(ctx context.Context) ([]library.Source, error)
}

// logRows are the calls by which this room asks of the logbook.
type logRows interface {
	PutRun(
		ctx context.Context,
		run logbook.Run,
		draw *library.Draw,
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) error
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Counts(ctx context.Context, source int64, cql []string) (map[string]Count, error)
	ForgetCounts(ctx context.Context, source int64, cql []string) error
	PutCount(ctx context.Context, source int64, cql string, records int, exchange json.RawMessage) error
}

// taskRows are the calls by which this room asks of tasks.
type taskRows interface {
	Task(ctx context.Context, name string) (jobs.Task, error)
}
