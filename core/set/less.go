package set

import (
	"context"
	"fmt"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Less]("less") }

// A Less is what one set has and another has not.
type Less struct {
	Of   Of `json:"of"`
	Less Of `json:"less"`
}

// Check implements Set.
func (s *Less) Check() error {
	if deep(s) > MostWithin {
		return &Fault{
			Field:   "set",
			Message: fmt.Sprintf("At most %d selections are looked at within one another.", MostWithin),
		}
	}
	for _, part := range []Of{s.Of, s.Less} {
		if part.Set == nil {
			return &Fault{Field: "set", Message: "It is not said what is taken away from what."}
		}
		if err := part.Check(); err != nil {
			return err
		}
	}
	return nil
}

// deep returns how many sets stand within one another.
func deep(s Set) int {
	switch s := s.(type) {
	case *Within:
		return 1 + max(deep(s.Of.Set), deep(s.In.Set))
	case *Less:
		return 1 + max(deep(s.Of.Set), deep(s.Less.Set))
	}
	return 0
}

// Records implements Set.
func (s *Less) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	of, err := s.Of.Records(ctx, in)
	if err != nil {
		return nil, err
	}
	less, err := s.Less.Records(ctx, in)
	if err != nil {
		return nil, err
	}
	return roaring.AndNot(of, less), nil
}
