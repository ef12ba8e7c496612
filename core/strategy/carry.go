package strategy

import (
	"slices"
	"strings"

	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Carried is a heading of a strategy and what stands for it in the vocabulary of a source; where that is nothing, its words
// do.
type Carried struct {
	Heading string
	To      []string
}

// Carry returns the strategy with its headings in another vocabulary: each by what stands for it there (by its label, as
// text.Label writes it), any of several, or, where nothing does, by its own words. Terms keep their places. What was left out
// below a heading is of the old vocabulary, and is not carried.
func (s Strategy) Carry(counterparts map[string][]string) (Strategy, []Carried) {
	out := s
	out.Blocks = make([]Block, len(s.Blocks))
	var all []Carried
	seen := map[string]bool{}
	tell := func(heading string) []string {
		key := text.Label(heading)
		if !seen[key] {
			seen[key] = true
			all = append(all, Carried{heading, counterparts[key]})
		}
		return counterparts[key]
	}
	for i, b := range s.Blocks {
		out.Blocks[i] = b
		out.Blocks[i].Terms = make([]Term, len(b.Terms))
		for j, t := range b.Terms {
			if t.Kind == HeadingTerm {
				t = carried(t, tell(t.Heading))
			}
			out.Blocks[i].Terms[j] = t
		}
	}
	out.Limits = slices.Clone(s.Limits)
	for i, l := range s.Limits {
		if !Headed(l.Kind) {
			continue
		}
		out.Limits[i].carried = map[string][]string{}
		for _, h := range l.Headings() {
			out.Limits[i].carried[text.Label(h)] = tell(h)
		}
	}
	return out, all
}

// CarryQuery does the same for an expression, whose headings were found in their own vocabulary; other is the new one, nil where
// it is not there.
func CarryQuery(q query.Expr, counterparts map[string][]string, other *thesaurus.Thesaurus) (query.Expr, []Carried, error) {
	var all []Carried
	seen := map[string]bool{}
	var carry func(query.Expr) (query.Expr, error)
	each := func(parts []query.Expr) ([]query.Expr, error) {
		out := make([]query.Expr, len(parts))
		for i, p := range parts {
			var err error
			if out[i], err = carry(p); err != nil {
				return nil, err
			}
		}
		return out, nil
	}
	carry = func(q query.Expr) (query.Expr, error) {
		switch q := q.(type) {
		case query.Or:
			parts, err := each(q)
			return query.Or(parts), err
		case query.And:
			parts, err := each(q)
			return query.And(parts), err
		case query.Not:
			parts, err := each(q)
			return query.Not(parts), err
		case query.Heading:
			key := text.Label(q.Label)
			if !seen[key] {
				seen[key] = true
				all = append(all, Carried{q.Label, counterparts[key]})
			}
			t := Term{Kind: HeadingTerm, Heading: q.Label, Narrower: q.Narrower, Central: q.Central, Qualifiers: q.Qualifiers, Until: q.Until, On: true}
			return carried(t, counterparts[key]).QueryIn(other)
		}
		return q, nil
	}
	out, err := carry(q)
	return out, all, err
}

func carried(t Term, to []string) Term {
	if len(to) > 0 {
		t.Heading, t.also, t.Without = to[0], to[1:], nil
		return t
	}
	words := strings.NewReplacer("*", " ", "?", " ").Replace(t.Heading)
	return Term{Kind: TextTerm, Text: words, Field: "text", On: t.On}
}
