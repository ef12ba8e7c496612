package reviews

import (
	"context"
	"encoding/json"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/store"
)

// Compare says how two samples stand to each other.
func (a *Service) Compare(ctx context.Context, review int64, p desk.Pair) (desk.Compared, error) {
	c, _, _, _, _, err := a.desk.Compared(ctx, review, p)
	return c, err
}

// Joining makes a sample of two: their union, their overlap, or what only the first holds.
type Joining struct {
	desk.Pair
	How  string `json:"how"`
	Name string `json:"name"`
}

// Join puts two samples together as a new one.
func (a *Service) Join(ctx context.Context, review int64, j Joining) (Step, error) {
	name, err := GoodName(j.Name)
	if err != nil {
		return Step{}, err
	}
	_, both, onlyA, onlyB, names, err := a.desk.Compared(ctx, review, j.Pair)
	if err != nil {
		return Step{}, err
	}
	records, err := desk.JoinedBy(j.How, both, onlyA, onlyB)
	if err != nil {
		return Step{}, err
	}
	if len(records) == 0 {
		return Step{}, problems.Invalid("how", "No record is left. Nothing was made.")
	}
	saying, err := json.Marshal(library.Joined{How: j.How, A: names[0], B: names[1]})
	if err != nil {
		return Step{}, err
	}
	id, err := a.library.FillJoined(ctx, review, name, saying, records)
	if err != nil {
		return Step{}, err
	}
	var step Step
	err = a.store.InReview(ctx, review, func(ctx context.Context, w *store.Tx) error {
		if err := library.ShowSample(ctx, w, id); err != nil {
			return err
		}
		step, err = LogSample(ctx, w, review, id, What{Key: "joinSamples", Params: map[string]string{"name": name}})
		return err
	})
	return a.Told(ctx, review, step, err)
}
