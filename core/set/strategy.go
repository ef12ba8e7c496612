package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Strategy]("strategy") }

// A Strategy is what the whole strategy finds: as it is, or as it was at a revision of the document; BeforeNot,
// what it finds before NOT takes away.
type Strategy struct {
	Revision  int  `json:"revision,omitempty"`
	BeforeNot bool `json:"beforeNot,omitempty"`
}

// Check implements Set.
func (s *Strategy) Check() error {
	if s.Revision < 0 {
		return &Fault{Field: "revision", Message: "A revision has a number above 0."}
	}
	return nil
}

// Records implements Set.
func (s *Strategy) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	reach, err := in.ReachOf(ctx, s.Revision)
	if err != nil {
		return nil, err
	}
	if s.BeforeNot {
		return reach.BeforeNot(), nil
	}
	return reach.Whole, nil
}
