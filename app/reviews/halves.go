package reviews

import (
	"context"
	"math/rand/v2"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/core/review"
)

// Split splits the key studies at random into a build and a test half, or puts them together again.
func (a *Service) Split(ctx context.Context, review int64, split bool) (Step, error) {
	saved, err := a.documents.Document(ctx, review, 0)
	if err != nil {
		return Step{}, problems.Gone(err, "review")
	}
	d, err := desk.Parse(saved.Body)
	if err != nil {
		return Step{}, err
	}
	change := Change{What: What{Key: "join", Params: map[string]string{}}}
	var halves *desk.Halves
	if split {
		keys, err := a.desk.Pools.Keys(ctx, review, d.Vocabulary, desk.KeysBy{})
		if err != nil {
			return Step{}, err
		}
		halves = &desk.Halves{Seed: rand.Uint32(), Test: []int64{}}
		_, test := coverage.Halves(len(keys.Studies), uint64(halves.Seed))
		for _, i := range test.ToArray() {
			halves.Test = append(halves.Test, keys.Studies[i].ID)
		}
		change.What.Key = "split"
	}
	change.Edits = halvesEdit(halves)
	return a.Change(ctx, review, saved.Revision, change)
}

// halvesEdit returns the edit that splits the key studies.
func halvesEdit(h *desk.Halves) desk.Edits { return desk.Edits{&review.SetHalves{Halves: h}} }
