package desk

import (
	"context"
	"slices"

	"tamiz/app/vocabularies"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Carrier takes headings of a review's vocabulary over to another: by what people took to stand for each there.
type Carrier struct {
	Own    string               // the name of the review's
	Terms  *thesaurus.Thesaurus // the other; nil where the program does not have it
	ID     *int64               // of the other
	Stands map[string][]string  // by the heading, as text.Label writes it: what stands for it and is there
	Said   map[string]bool      // headings of which somebody said what stands for them, or that nothing does
}

// Carrier returns what takes headings of a vocabulary over to another, which is known by its name; nil where both
// are the same, or one is none.
func (a *Service) Carrier(ctx context.Context, own *int64, other string) (*Carrier, error) {
	if own == nil || text.Label(other) == "" {
		return nil, nil
	}
	mine, err := a.vocabularyRows.One(ctx, *own)
	if err != nil || text.Label(mine.Name) == text.Label(other) {
		return nil, err
	}
	all, err := a.vocabularyRows.All(ctx)
	if err != nil {
		return nil, err
	}
	c := &Carrier{Own: mine.Name, Stands: map[string][]string{}, Said: map[string]bool{}}
	named := func(v vocabularies.Vocabulary) bool { return text.Label(v.Name) == text.Label(other) }
	if i := slices.IndexFunc(all, named); i >= 0 {
		c.ID = &all[i].ID
		if c.Terms, err = a.Pools.Thesaurus(ctx, c.ID); err != nil {
			return nil, err
		}
	}
	taken, err := a.vocabularyRows.Counterparts(ctx, c.Own, other)
	if err != nil {
		return nil, err
	}
	for _, t := range taken {
		c.Said[t.Heading] = true
		for _, label := range t.Stands {
			if c.Terms != nil {
				if _, is := c.Terms.Find(label); !is {
					continue // a later edition has it no more
				}
			}
			c.Stands[t.Heading] = append(c.Stands[t.Heading], label)
		}
	}
	return c, nil
}
