package coverage

import (
	"context"
	"tamiz/core/strategy"
)

// A Study is how a strategy fares with one key study.
type Study struct {
	Caught     bool
	HeldBackBy []string         // blocks by name, limits as limit:kind
	CaughtBy   map[string][]int // by block name, the places of the terms that match, in block order
}

// A Check is how a strategy fares with the key studies. Studies are named by their place.
type Check struct {
	Studies []Study
	Caught  int   // studies
	Blocks  []int // studies caught by each block
}

// CheckKeys finds out which key studies a strategy catches and what holds back the rest.
func CheckKeys(ctx context.Context, keys Set, s strategy.Strategy) (*Check, error) {
	reach, err := Find(ctx, keys, s)
	if err != nil {
		return nil, err
	}
	c := &Check{Studies: make([]Study, len(keys.Records)), Blocks: make([]int, len(s.Blocks))}
	for n := range keys.Records {
		k := uint32(n)
		study := Study{Caught: reach.Whole.Contains(k), HeldBackBy: []string{}, CaughtBy: map[string][]int{}}
		for i, b := range s.Blocks {
			hit := reach.Blocks[i].Contains(k)
			if b.Searched && hit == b.Negated {
				study.HeldBackBy = append(study.HeldBackBy, b.Name)
			}
			if !hit {
				continue
			}
			c.Blocks[i]++
			for j, terms := range reach.Terms[i] {
				if terms != nil && terms.Contains(k) {
					study.CaughtBy[b.Name] = append(study.CaughtBy[b.Name], j)
				}
			}
		}
		for i, l := range s.Limits {
			if !reach.Limits[i].Contains(k) {
				study.HeldBackBy = append(study.HeldBackBy, "limit:"+l.Kind)
			}
		}
		if study.Caught {
			c.Caught++
		}
		c.Studies[n] = study
	}
	return c, nil
}
