package intake

import (
	"context"
	"encoding/json"
	"io"

	"github.com/jackc/pgx/v5"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/reviews"
)

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Head(ctx context.Context, id int64) (reviews.Head, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	SameFile(ctx context.Context, review int64, hash []byte) (library.Sample, error)
	SweepHidden(ctx context.Context) error
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	AnswerImport(
		ctx context.Context,
		i Import,
		settings json.RawMessage,
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) (bool, error)
	AskImport(ctx context.Context, id int64, format string, asked json.RawMessage) error
	DropFile(ctx context.Context, id int64) error
	DropImport(ctx context.Context, id int64) (bool, error)
	DropReading(ctx context.Context, id int64) error
	FailImport(ctx context.Context, id int64, problem json.RawMessage) error
	File(ctx context.Context, i Import) (*Filing, error)
	Import(ctx context.Context, id int64) (Import, error)
	ImportFile(ctx context.Context, i Import) io.ReadSeeker
	ImportProgress(ctx context.Context, id int64, bytesRead int64, records int, skipped int) error
	KeepReading(ctx context.Context, kind string, key string, body json.RawMessage) error
	Notices(ctx context.Context, id int64) ([]Notice, error)
	Reading(ctx context.Context, kind string, key string) (Reading, error)
	Readings(ctx context.Context, kind string) ([]Reading, error)
	Receive(ctx context.Context, review int64, kind string, name string, body io.Reader) (id int64, total int64, err error)
	Received(ctx context.Context, i Import, hash []byte, then func(context.Context, pgx.Tx, jobs.Task) error) error
	SweepImports(ctx context.Context) error
}
