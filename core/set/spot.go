package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Spot]("spot") }

// A Spot is the blind spot of a block: what all other searched blocks find and it does not.
type Spot struct {
	Block string `json:"block"`
}

// Check implements Set.
func (s *Spot) Check() error { return nil }

// Records implements Set.
func (s *Spot) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	reach, i, err := reachOf(ctx, in.Free(s.Block), s.Block)
	if err != nil {
		return nil, err
	}
	return reach.BlindSpot(i), nil
}
