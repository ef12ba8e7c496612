package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Any]("any") }

// An Any is what any searched block finds that is not kept out.
type Any struct{}

// Check implements Set.
func (s *Any) Check() error { return nil }

// Records implements Set.
func (s *Any) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	reach, err := in.Reach(ctx)
	if err != nil {
		return nil, err
	}
	found := roaring.New()
	for i, b := range in.Document().Blocks {
		if b.Searched && !b.Negated {
			found.Or(reach.Blocks[i])
		}
	}
	return found, nil
}
