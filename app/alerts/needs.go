package alerts

import (
	"context"
	"time"

	"tamiz/app/reviews"
)

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Head(ctx context.Context, id int64) (reviews.Head, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Feed(ctx context.Context, review int64) (Feed, error)
	FeedAt(ctx context.Context, secret string) (Feed, error)
	Letters(ctx context.Context, now time.Time, until time.Time, most int) ([]Letter, error)
	MailOf(ctx context.Context, secret string) (string, error)
	MailTo(ctx context.Context, review int64) ([]MailTo, error)
	NotSent(ctx context.Context, l Letter, problem string, again *time.Time, address bool, now time.Time) error
	PutFeed(ctx context.Context, review int64, secret string) error
	PutMailTo(ctx context.Context, review int64, address string, secret string, most int) (kept bool, err error)
	Sent(ctx context.Context, id int64, now time.Time) error
	StopMail(ctx context.Context, secret string) error
	StopMailTo(ctx context.Context, review int64, id int64) error
	Tell(ctx context.Context, n Telling, now time.Time) (first bool, err error)
	Tellings(ctx context.Context, review int64, most int) ([]Telling, error)
	Untold(ctx context.Context) ([]Untold, error)
}
