package vocabularies

import (
	"context"
)

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	All(ctx context.Context) ([]Vocabulary, error)
	Delete(ctx context.Context, id int64) error
	One(ctx context.Context, id int64) (Vocabulary, error)
}
