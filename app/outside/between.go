package outside

import (
	"context"

	"tamiz/app/problems"
	"tamiz/core/query"
)

// Between is what a source finds that only one of two versions of the strategy does.
type Between struct {
	Gained *SourceCount `json:"gained,omitempty"` // new NOT old; nothing where it cannot be asked
	Lost   *SourceCount `json:"lost,omitempty"`   // old NOT new
}

// BetweenVersions asks a source for what one version finds and the other does not.
func (a *Service) BetweenVersions(ctx context.Context, review, id int64, older, newer int) (*Between, error) {
	s, err := a.source(ctx, id)
	if err != nil {
		return nil, err
	}
	c, err := a.client(s)
	if err != nil {
		return nil, err
	}
	var q [2]query.Expr
	for i, n := range []int{older, newer} {
		if q[i], err = a.queryAt(ctx, review, n); err != nil {
			return nil, err
		}
		if q[i] == nil {
			return nil, &problems.Problem{Type: "no-query", Status: 409, Title: "One of the versions finds nothing: there is nothing to compare."}
		}
	}
	ctx, cancel := context.WithTimeout(ctx, askTime)
	defer cancel()
	out := &Between{}
	for i, to := range []**SourceCount{&out.Gained, &out.Lost} {
		w := wanted{}
		if w.query, w.notes = rendered(query.Not([]query.Expr{q[1-i], q[i]}), s.Map); w.query == "" {
			continue
		}
		k, err := a.counted(ctx, s, c, w.query)
		if err != nil {
			return nil, unanswered(s.Name, err)
		}
		n, err := countOf(k, w)
		if err != nil {
			return nil, err
		}
		*to = &n
	}
	return out, nil
}
