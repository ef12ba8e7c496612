package rounds

import (
	"context"

	"tamiz/app/desk"
)

// A Lost is a reference that led nowhere, or to something that merely resembles it.
type Lost struct {
	Line string           `json:"line"`
	In   desk.RecordHead  `json:"in"` // which record has it
	Why  string           `json:"why"`
	Near *desk.RecordHead `json:"near,omitempty"`
}

// Losts returns the references of a round that led nowhere.
func (a *Service) Losts(ctx context.Context, review, id int64) ([]Lost, error) {
	if _, err := a.round(ctx, review, id); err != nil {
		return nil, err
	}
	all, err := a.rows.RoundLosts(ctx, id, mostLosts)
	if err != nil {
		return nil, err
	}
	var ids []int64
	for _, l := range all {
		ids = append(ids, l.Start)
		if l.Near != nil {
			ids = append(ids, *l.Near)
		}
	}
	heads, err := a.heads(ctx, ids)
	if err != nil {
		return nil, err
	}
	out := []Lost{}
	for _, l := range all {
		x := Lost{Line: l.Line, Why: l.Why, In: heads[l.Start]}
		if l.Near != nil {
			h := heads[*l.Near]
			x.Near = &h
		}
		out = append(out, x)
	}
	return out, nil
}
