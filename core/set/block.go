package set

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
)

func init() { kind[Block]("block") }

// A Block is what a block finds.
type Block struct {
	Block string `json:"block"`
}

// Check implements Set.
func (s *Block) Check() error { return nil }

// Records implements Set.
func (s *Block) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	reach, i, err := reachOf(ctx, in, s.Block)
	if err != nil {
		return nil, err
	}
	return reach.Blocks[i], nil
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
