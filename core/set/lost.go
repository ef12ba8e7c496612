package set

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Lost]("lost") }

// A Lost is what a block would lose without some of its terms: what it finds by them alone.
type Lost struct {
	Block string   `json:"block"`
	Terms []string `json:"terms"` // their ids
}

// mostLost is how many terms can be taken away at once: more than a block has.
const mostLost = 10_000

// Check implements Set.
func (s *Lost) Check() error {
	if len(s.Terms) > mostLost {
		return &Fault{Field: "terms", Message: "These are more terms than a block can have."}
	}
	return nil
}

// Records implements Set.
func (s *Lost) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	reach, i, err := reachOf(ctx, in.Free(s.Block), s.Block)
	if err != nil {
		return nil, err
	}
	left := roaring.New()
	for k, t := range in.Document().Blocks[i].Terms {
		if found := reach.Terms[i][k]; found != nil && !slices.Contains(s.Terms, t.ID) {
			left.Or(found)
		}
	}
	return roaring.AndNot(reach.Blocks[i], left), nil
}
