package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/tally"
)

func init() { kind[Aspect]("aspect") }

// An Aspect is records around an item of a facet, where not those that hold it; without an item, around the whole
// facet.
type Aspect struct {
	Facet  tally.Facet  `json:"facet"`
	Aspect tally.Aspect `json:"aspect"`
	Item   string       `json:"item,omitempty"`
}

// Check implements Set.
func (s *Aspect) Check() error { return checkFacet(s.Facet) }

// Records implements Set.
func (s *Aspect) Records(_ context.Context, in Pool) (*roaring.Bitmap, error) {
	return roaring.And(in.Around(s.Facet, s.Item, s.Aspect), in.All()), nil
}
