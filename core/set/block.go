package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
	"tamiz/core/strategy"
)

func init() { kind[Block]("block") }

// A Block is what a block finds; Words, what its words do, without its headings; Away, what it takes away from what
// would be found without it.
type Block struct {
	Block string `json:"block"`
	Words bool   `json:"words,omitempty"`
	Away  bool   `json:"away,omitempty"`
}

// Check implements Set.
func (s *Block) Check() error { return nil }

// Records implements Set.
func (s *Block) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	reach, i, err := reachOf(ctx, in, s.Block)
	if err != nil {
		return nil, err
	}
	if s.Away {
		return roaring.AndNot(reach.WithoutBlock(i), reach.Whole), nil
	}
	if !s.Words {
		return reach.Blocks[i], nil
	}
	found := roaring.New()
	for k, t := range in.Document().Blocks[i].Terms {
		if hits := reach.Terms[i][k]; hits != nil && t.Kind != strategy.HeadingTerm {
			found.Or(hits)
		}
	}
	return found, nil
}

// reachOf returns what the document finds, and the place of a block in it.
func reachOf(ctx context.Context, in Pool, block string) (*coverage.Reach, int, error) {
	i := in.Document().Block(block)
	if i < 0 {
		return nil, 0, ErrNoBlock
	}
	reach, err := in.Reach(ctx)
	return reach, i, err
}
