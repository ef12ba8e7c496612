package figures

import (
	"context"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/store"
)

// A Pruning is the terms of a block that can go, in the order in which they do, over the sample.
type Pruning struct {
	// by which it is told; absent where the block's own words chose all there are
	Over    *Over        `json:"over,omitempty"`
	Records int          `json:"records"` // that the whole block finds
	Terms   int          `json:"terms"`   // that are switched on
	Keys    int          `json:"keys"`    // key studies that the block catches, and that none of it loses
	Steps   []PrunedTerm `json:"steps"`
}

// A PrunedTerm is a term that can go after those before it.
type PrunedTerm struct {
	ID    string `json:"id"`
	Text  string `json:"text"`
	Loses int    `json:"loses"` // records that no other term left finds
	Left  int    `json:"left"`  // records that the block then finds
	// AtMost is the upper end of the 95 % interval of the share that it and those before it lose together (Wilson).
	AtMost float64 `json:"atMost"`
}

// Prune works out which terms of a block can go as long as a share of its records stays found, of 1.
func (a *Service) Prune(ctx context.Context, at desk.At, block string, share float64) (*Pruning, error) {
	if !(share >= 0 && share <= 1) {
		return nil, problems.Invalid("share", "The share of the records that stay found is from 0 to 1.")
	}
	d, err := a.sampled(ctx, at, a.desk.Quick)
	if err != nil {
		return nil, err
	}
	i := d.Document.Block(block)
	if i < 0 {
		return nil, problems.Gone(store.ErrNone, "block")
	}
	free := d.Free(block)
	if free == nil {
		return &Pruning{Steps: []PrunedTerm{}}, nil
	}
	reach, err := coverage.Find(ctx, free.Set, d.Strategy)
	if err != nil {
		return nil, err
	}
	inKeys, err := coverage.Find(ctx, d.Keys.Set, d.Strategy)
	if err != nil {
		return nil, err
	}
	if d.Keys.Absent != nil {
		setAside(inKeys, d.Keys.Absent)
	}
	gone, err := coverage.Prune(ctx, reach, inKeys, i, share)
	if err != nil {
		return nil, err
	}
	out := &Pruning{
		Over:    &free.Over,
		Records: *number(reach.Blocks[i]),
		Keys:    *number(inKeys.Blocks[i]),
		Steps:   []PrunedTerm{},
	}
	for _, t := range d.Strategy.Blocks[i].Terms {
		if t.On {
			out.Terms++
		}
	}
	for _, p := range gone {
		term := d.Document.Blocks[i].Terms[p.Term]
		_, high := coverage.Wilson(out.Records-p.Left, out.Records)
		out.Steps = append(out.Steps, PrunedTerm{term.ID, term.String(), p.Loses, p.Left, high})
	}
	return out, nil
}
