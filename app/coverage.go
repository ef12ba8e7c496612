package app

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/store"
)

// A Coverage is the key studies against blocks and limits.
type Coverage struct {
	Studies  []CoverageStudy `json:"studies"`
	HeldBack []HeldBack      `json:"heldBack"`
	Recall   *Recall         `json:"recall,omitempty"`
}

// A CoverageStudy is how the strategy fares with one key study. Blocks are how many terms of each
// block match, in the order of the document.
type CoverageStudy struct {
	ID         int64    `json:"id"`
	Caught     bool     `json:"caught"`
	HeldBackBy []string `json:"heldBackBy"`
	Blocks     []int    `json:"blocks"`
	Limits     bool     `json:"limits"` // inside all of them
}

// HeldBack is how many studies just these parts hold back together.
type HeldBack struct {
	By      []string `json:"by"`
	Studies int      `json:"studies"`
}

// Coverage tells which key studies the strategy catches, and what holds back the rest.
func (a *App) Coverage(ctx context.Context, review int64) (*Coverage, error) {
	d, err := a.desk(ctx, review, nil)
	if err != nil {
		return nil, err
	}
	check, err := coverage.CheckKeys(d.keys.set, d.strategy)
	if err != nil {
		return nil, err
	}
	out := &Coverage{Studies: []CoverageStudy{}, HeldBack: []HeldBack{}, Recall: recall(check.Caught, len(check.Studies))}
	groups := map[string]int{}
	for i, s := range check.Studies {
		row := CoverageStudy{ID: d.keys.studies[i].ID, Caught: s.Caught, HeldBackBy: s.HeldBackBy, Blocks: []int{}, Limits: true}
		for _, b := range d.strategy.Blocks {
			row.Blocks = append(row.Blocks, len(s.CaughtBy[b.Name]))
		}
		for _, h := range s.HeldBackBy {
			row.Limits = row.Limits && !strings.HasPrefix(h, "limit:")
		}
		if len(s.HeldBackBy) > 0 {
			groups[strings.Join(s.HeldBackBy, " ")]++
		}
		out.Studies = append(out.Studies, row)
	}
	for by, n := range groups {
		out.HeldBack = append(out.HeldBack, HeldBack{strings.Split(by, " "), n})
	}
	slices.SortFunc(out.HeldBack, func(a, b HeldBack) int {
		return cmp.Or(cmp.Compare(b.Studies, a.Studies), slices.Compare(a.By, b.By))
	})
	return out, nil
}

// A StudyRescue is a key study with its words marked, and what would bring it back into each block.
type StudyRescue struct {
	Record MarkedRecord  `json:"record"`
	Blocks []BlockRescue `json:"blocks"`
}

// A BlockRescue is how one block fares with the study.
type BlockRescue struct {
	Block      string            `json:"block"` // its id
	Terms      []string          `json:"terms"` // that match
	Missed     bool              `json:"missed"`
	Candidates []RescueCandidate `json:"candidates"`
}

// A RescueCandidate is a word, phrase or heading of the study that no block matches. Its price is
// absent without a sample.
type RescueCandidate struct {
	Item    string   `json:"item"`
	Kind    string   `json:"kind"`
	Rescues int      `json:"rescues"`
	Price   *int     `json:"price,omitempty"`
	Pull    *float64 `json:"pull,omitempty"`
}

const (
	rescueCandidates = 200
	rescueMarked     = 6 // candidates marked in the text
)

// Rescue tells what would bring a key study back.
func (a *App) Rescue(ctx context.Context, review, study int64) (*StudyRescue, error) {
	d, err := a.desk(ctx, review, nil)
	if err != nil {
		return nil, err
	}
	n := slices.IndexFunc(d.keys.studies, func(s store.StoredKey) bool { return s.ID == study })
	if n < 0 {
		return nil, gone(store.ErrNone, "study")
	}
	check, err := coverage.CheckKeys(d.keys.set, d.strategy)
	if err != nil {
		return nil, err
	}
	set := coverage.NewSet(nil)
	if d.pool != nil {
		set = d.pool.set()
	}
	rescuer, err := coverage.NewRescuer(set, d.keys.set, d.strategy)
	if err != nil {
		return nil, err
	}
	out := &StudyRescue{Blocks: []BlockRescue{}}
	var marked []text.Pattern
	for i, b := range d.document.Blocks {
		row := BlockRescue{Block: b.ID, Terms: []string{}, Candidates: []RescueCandidate{}}
		for _, t := range check.Studies[n].CaughtBy[b.Name] {
			row.Terms = append(row.Terms, b.Terms[t].String())
		}
		row.Missed = b.Searched && !b.Negated && len(row.Terms) == 0
		if row.Missed {
			candidates := rescuer.Study(i, n)
			for _, c := range candidates[:min(len(candidates), rescueCandidates)] {
				r := RescueCandidate{Item: c.Item, Kind: c.Kind, Rescues: c.Rescues}
				if d.pool != nil {
					r.Price, r.Pull = &c.Price, &c.Pull
				}
				if p, ok := literal(c.Item); ok && c.Kind == strategy.TextTerm && len(row.Candidates) < rescueMarked {
					marked = append(marked, p)
				}
				row.Candidates = append(row.Candidates, r)
			}
		}
		out.Blocks = append(out.Blocks, row)
	}
	out.Record, err = d.marked(d.keys.studies[n].StoredRecord, marked...)
	return out, err
}
