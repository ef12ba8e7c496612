package set

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/review"
	"tamiz/core/strategy"
)

func init() { kind[Limit]("limit") }

// A Limit is what a limit of the document asks for; Away, what it takes away from what would be found without it.
type Limit struct {
	Limit string `json:"limit"` // its kind
	Away  bool   `json:"away,omitempty"`
}

var errNoLimit = &Fault{Field: "limit", Message: "There is no such limit any more."}

// of returns the place of the limit in a document, or -1.
func (s *Limit) of(d review.Document) int {
	return slices.IndexFunc(d.Limits, func(l strategy.Limit) bool { return l.Kind == s.Limit })
}

// Check implements Set.
func (s *Limit) Check() error { return nil }

// Records implements Set.
func (s *Limit) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	i := s.of(in.Document())
	if i < 0 {
		return nil, errNoLimit
	}
	reach, err := in.Reach(ctx)
	if err != nil {
		return nil, err
	}
	if s.Away {
		return roaring.AndNot(reach.WithoutLimit(i), reach.Whole), nil
	}
	return reach.LimitFinds(i), nil
}
