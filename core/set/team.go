package set

import (
	"context"
	"fmt"

	"github.com/RoaringBitmap/roaring/v2"
)

func init() { kind[Team]("team") }

// A Team is the records that two of some authors signed.
type Team struct {
	Authors []string `json:"authors"` // by their keys
}

// Check implements Set.
func (s *Team) Check() error {
	if len(s.Authors) == 0 || len(s.Authors) > MostTeam {
		return &Fault{Field: "authors", Message: fmt.Sprintf("A team has 1 to %d authors.", MostTeam)}
	}
	return nil
}

// Records implements Set.
func (s *Team) Records(_ context.Context, in Pool) (*roaring.Bitmap, error) {
	return roaring.And(in.Together(s.Authors), in.All()), nil
}
