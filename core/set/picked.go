package set

import (
	"context"
	"fmt"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Picked]("picked") }

// A Picked is records that were picked one by one, by their numbers in the store.
type Picked struct {
	IDs []int64 `json:"ids"`
}

// Check implements Set.
func (s *Picked) Check() error {
	if len(s.IDs) > MostIDs {
		return &Fault{Field: "ids", Message: fmt.Sprintf("At most %d records are selected at once.", MostIDs)}
	}
	return nil
}

// Records implements Set.
func (s *Picked) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	return in.Stored(ctx, s)
}

func (s *Picked) stored() {}
