package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Sample]("sample") }

// A Sample is the records of a sample, or of one of the parts that it was drawn in.
type Sample struct {
	Sample int64 `json:"sample"`
	Part   *int  `json:"part,omitempty"` // its place; nil for the whole sample
}

// Check implements Set.
func (s *Sample) Check() error {
	if s.Part != nil && *s.Part < 0 {
		return &Fault{Field: "part", Message: "A sample has no such part."}
	}
	return nil
}

// Records implements Set.
func (s *Sample) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	return in.Stored(ctx, s)
}

func (s *Sample) stored() {}
