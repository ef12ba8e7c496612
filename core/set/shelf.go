package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Shelf]("shelf") }

// A Shelf is the records on the shelf of the review.
type Shelf struct{}

// Check implements Set.
func (s *Shelf) Check() error { return nil }

// Records implements Set.
func (s *Shelf) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	return in.Stored(ctx, s)
}

func (s *Shelf) stored() {}
