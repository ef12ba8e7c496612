package set

import (
	"context"
	"fmt"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Within]("within") }

// A Within is the records of one set that are of another, which it is set against the rest of.
type Within struct {
	Of Of `json:"of"`
	In Of `json:"in"`
}

// Check implements Set.
func (s *Within) Check() error {
	depth := 0
	for in := Set(s); in != nil; depth++ {
		w, ok := in.(*Within)
		if !ok {
			break
		}
		if w.Of.Set == nil || w.In.Set == nil {
			return &Fault{Field: "within", Message: "It is not said which records are meant."}
		}
		if err := w.Of.Check(); err != nil {
			return err
		}
		in = w.In.Set
		if _, deeper := in.(*Within); !deeper {
			if err := in.Check(); err != nil {
				return err
			}
		}
	}
	if depth > MostWithin {
		return &Fault{
			Field:   "within",
			Message: fmt.Sprintf("At most %d selections are looked at within one another.", MostWithin),
		}
	}
	return nil
}

// Records implements Set.
func (s *Within) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	of, err := s.Of.Records(ctx, in)
	if err != nil {
		return nil, err
	}
	within, err := s.In.Records(ctx, in)
	if err != nil {
		return nil, err
	}
	return roaring.And(of, within), nil
}
