package set

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/tally"
)

func init() { kind[Item]("item") }

// An Item is the records with an item of a facet.
type Item struct {
	Facet tally.Facet `json:"facet"`
	Item  string      `json:"item"`
}

// Check implements Set.
func (s *Item) Check() error { return checkFacet(s.Facet) }

// Records implements Set.
func (s *Item) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	found, err := in.Item(ctx, s.Facet, s.Item)
	if err != nil {
		return nil, err
	}
	return roaring.And(found, in.All()), nil
}

func checkFacet(f tally.Facet) error {
	if !slices.Contains(tally.Facets, f) {
		return &Fault{Field: "facet", Message: "There is no facet " + string(f) + "."}
	}
	return nil
}
