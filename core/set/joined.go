package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Joined]("joined") }

// A Joined is two samples put together.
type Joined struct {
	A   int64  `json:"a"`
	B   int64  `json:"b"`
	How string `json:"how"` // union, overlap or difference
}

// Check implements Set.
func (s *Joined) Check() error { return nil }

// Records implements Set.
func (s *Joined) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	return in.Stored(ctx, s)
}

func (s *Joined) stored() {}
