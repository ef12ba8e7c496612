package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Sample]("sample") }

// A Sample is the records of a sample.
type Sample struct {
	Sample int64 `json:"sample"`
}

// Check implements Set.
func (s *Sample) Check() error { return nil }

// Records implements Set.
func (s *Sample) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	return in.Stored(ctx, s)
}

func (s *Sample) stored() {}
