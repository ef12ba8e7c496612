package holdings

import (
	"context"

	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/core/bib"
)

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Head(ctx context.Context, id int64) (reviews.Head, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	Holdings(ctx context.Context, review int64) ([]library.Holding, error)
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	Put(ctx context.Context, source string, records []*bib.Record) (ids []int64, err error)
	PutHolding(ctx context.Context, h library.Holding, record *bib.Record) error
	SettleHolding(ctx context.Context, h library.Holding) error
}
