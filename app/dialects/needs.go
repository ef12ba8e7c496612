package dialects

import (
	"context"
)

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	DeleteDialect(ctx context.Context, name string) error
	Dialects(ctx context.Context) ([]Dialect, error)
	PutDialect(ctx context.Context, d Dialect) error
}
