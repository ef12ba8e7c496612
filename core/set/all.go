package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[All]("all") }

// An All is all records of the sample that is looked at.
type All struct{}

// Check implements Set.
func (s *All) Check() error { return nil }

// Records implements Set.
func (s *All) Records(_ context.Context, in Pool) (*roaring.Bitmap, error) { return in.Sample(), nil }
