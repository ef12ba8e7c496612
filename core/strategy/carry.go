package strategy

import (
	"slices"
	"strings"

	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Carried is a heading of a strategy and what stands for it in the vocabulary of a source; where that is nothing,
// its words do. One that lets in somewhere and takes away elsewhere is told of twice.
type Carried struct {
	Heading string
	To      []string
	Away    bool // it takes away: its words, which more records say than are about it, may take away too much
}

// A carrier tells what stands for headings, and remembers what was asked for.
type carrier struct {
	counterparts map[string][]string
	all          []Carried
	seen         map[meantHeading]bool
}

// A meantHeading is a heading by its key, and whether it takes away.
type meantHeading struct {
	key  string
	away bool
}

func (c *carrier) of(heading string, away bool) []string {
	key := text.Label(heading)
	if meant := (meantHeading{key, away}); !c.seen[meant] {
		c.seen[meant] = true
		c.all = append(c.all, Carried{heading, c.counterparts[key], away})
	}
	return c.counterparts[key]
}

// Carry returns the strategy with its headings in another vocabulary: each by what stands for it there (by its
// label, as text.Label writes it), any of several, or, where nothing does, by its own words. Terms keep their
// places. What was left out below a heading is of the old vocabulary, and is not carried.
func (s Strategy) Carry(counterparts map[string][]string) (Strategy, []Carried) {
	out := s
	out.Blocks = make([]Block, len(s.Blocks))
	by := carrier{counterparts: counterparts, seen: map[meantHeading]bool{}}
	for i, b := range s.Blocks {
		out.Blocks[i] = b
		out.Blocks[i].Terms = make([]Term, len(b.Terms))
		for j, t := range b.Terms {
			if t.Kind == HeadingTerm {
				t = carried(t, by.of(t.Heading, b.Negated))
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
		for k, h := range l.Headings() {
			out.Limits[i].carried[text.Label(h)] = by.of(h, l.Away(k))
		}
	}
	return out, by.all
}

// CarryQuery does the same for an expression, whose headings were found in their own vocabulary; other is the new
// one, nil where it is not there. away says that what the expression finds will be taken away, as where it is the
// line of a limit that keeps out.
func CarryQuery(
	q query.Expr,
	counterparts map[string][]string,
	other *thesaurus.Thesaurus,
	away bool,
) (query.Expr, []Carried, error) {
	by := carrier{counterparts: counterparts, seen: map[meantHeading]bool{}}
	var carry func(q query.Expr, away bool) (query.Expr, error)
	each := func(parts []query.Expr, away, not bool) ([]query.Expr, error) {
		out := make([]query.Expr, len(parts))
		for i, p := range parts {
			var err error
			if out[i], err = carry(p, away != (not && i > 0)); err != nil {
				return nil, err
			}
		}
		return out, nil
	}
	carry = func(q query.Expr, away bool) (query.Expr, error) {
		switch q := q.(type) {
		case query.Or:
			parts, err := each(q, away, false)
			return query.Or(parts), err
		case query.And:
			parts, err := each(q, away, false)
			return query.And(parts), err
		case query.Not:
			parts, err := each(q, away, true)
			return query.Not(parts), err
		case query.Heading:
			t := Term{Kind: HeadingTerm, Heading: q.Label, Narrower: q.Narrower, Central: q.Central, Qualifiers: q.Qualifiers,
				Until: q.Until, On: true}
			return carried(t, by.of(q.Label, away)).QueryIn(other)
		}
		return q, nil
	}
	out, err := carry(q, away)
	return out, by.all, err
}

func carried(t Term, to []string) Term {
	if len(to) > 0 {
		t.Heading, t.also, t.Without = to[0], to[1:], nil
		return t
	}
	words := strings.NewReplacer("*", " ", "?", " ").Replace(t.Heading)
	return Term{Kind: TextTerm, Text: words, Field: "text", On: t.On}
}
