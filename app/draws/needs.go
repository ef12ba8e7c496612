package draws

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
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	BeginDraw(ctx context.Context, id int64, plan json.RawMessage, parts json.RawMessage, total int, wanted int) error
	Draw(ctx context.Context, id int64) (library.Draw, error)
	Drawn(ctx context.Context, id int64) (map[int]*roaring.Bitmap, error)
	DrawnIdentities(ctx context.Context, id int64, visit func(part int, r *bib.Record)) error
	Draws(ctx context.Context, review int64) ([]library.Draw, error)
	FillDrawn(ctx context.Context, d library.Draw) (sample int64, err error)
	GoOn(ctx context.Context, d library.Draw, atMost int, then func(context.Context, pgx.Tx, jobs.Task) error) error
	KeepDrawn(
		ctx context.Context,
		d library.Draw,
		part int,
		got []source.Got,
		none []int,
		troubles []source.Trouble,
	) error
	NewDraws(
		ctx context.Context,
		draws []library.Draw,
		then func(context.Context, pgx.Tx, jobs.Task) error,
	) (ids []int64, err error)
	PauseDraw(ctx context.Context, id int64, until *time.Time) error
	RestDraw(ctx context.Context, d library.Draw, state string, problem string) error
	StopDraw(ctx context.Context, id int64) error
	Troubles(ctx context.Context, id int64, most int) ([]source.Trouble, error)
}
