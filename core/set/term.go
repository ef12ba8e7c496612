package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/review"
)

func init() { kind[Term]("term") }

// A Term is what a term finds; Only, with its block, what no other term of the block does.
type Term struct {
	Term  review.Term `json:"term"`
	Block string      `json:"block,omitempty"`
	Only  bool        `json:"only,omitempty"`
}

// Check implements Set.
func (s *Term) Check() error {
	if _, err := s.Term.Query(); err != nil {
		return &Fault{Field: "term", Message: err.Error(), Err: err}
	}
	return nil
}

// Records implements Set.
func (s *Term) Records(_ context.Context, in Pool) (*roaring.Bitmap, error) {
	if s.Only {
		in = in.Free(s.Block)
	}
	found, err := in.Hits(s.Term.Term)
	if err != nil {
		return nil, &Fault{Field: "term", Message: err.Error(), Err: err}
	}
	if !s.Only {
		return found, nil
	}
	doc := in.Document()
	i := doc.Block(s.Block)
	if i < 0 {
		return nil, ErrNoBlock
	}
	others := roaring.New()
	for _, t := range doc.Blocks[i].Terms {
		if !t.On || t.ID == s.Term.ID {
			continue
		}
		more, err := in.Hits(t.Term)
		if err != nil {
			continue // a term that cannot be searched finds nothing
		}
		others.Or(more)
	}
	return roaring.AndNot(found, others), nil
}
