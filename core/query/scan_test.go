package query_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
)

// scanned tells whether a record matches by looking at the record alone, as the rules say it.
func scanned(q query.Expr, r *bib.Record) bool {
	anyValue := func(fields bib.Field, matches func(tokens []string) bool) bool {
		found := false
		r.Values(fields, func(_ bib.Field, v string) { found = found || matches(text.Tokens(v)) })
		return found
	}
	words := func(p text.Pattern, all bool, has func(text.TokenPattern) bool) bool {
		if all {
			return !slices.ContainsFunc(p, func(w text.TokenPattern) bool { return !has(w) })
		}
		return slices.ContainsFunc(p, has)
	}
	switch q := q.(type) {
	case query.Or:
		return slices.ContainsFunc(q, func(part query.Expr) bool { return scanned(part, r) })
	case query.And:
		return !slices.ContainsFunc(q, func(part query.Expr) bool { return !scanned(part, r) })
	case query.Not:
		return scanned(q[0], r) && !slices.ContainsFunc(q[1:], func(part query.Expr) bool { return scanned(part, r) })
	case query.Phrase:
		return anyValue(q.Fields, q.MatchesValue)
	case query.Words:
		return words(q.Pattern, q.All, func(w text.TokenPattern) bool {
			return anyValue(q.Fields, func(tokens []string) bool { return slices.ContainsFunc(tokens, w.Match) })
		})
	case query.Near:
		return anyValue(q.Fields, func(tokens []string) bool { return near(q, tokens) })
	case query.Heading:
		return slices.ContainsFunc(r.Headings, q.MatchesAssignment)
	case query.Author:
		if q.Any || q.All {
			return words(q.Pattern, q.All, func(w text.TokenPattern) bool {
				return slices.ContainsFunc(r.Authors, func(p bib.Person) bool {
					return slices.ContainsFunc(text.Tokens(p.Family+", "+p.Given), w.Match)
				})
			})
		}
		return slices.ContainsFunc(r.Authors, func(p bib.Person) bool {
			family, given := text.Tokens(p.Family), text.Tokens(p.Given)
			if len(family) == 0 || len(family) > len(q.Pattern) || len(q.Pattern) > len(family)+len(given) {
				return false
			}
			for i, w := range q.Pattern {
				if i < len(family) && !w.Match(family[i]) || i >= len(family) && !w.Begins(given[i-len(family)]) {
					return false
				}
			}
			return true
		})
	case query.Years:
		return r.Year != 0 && r.Year >= q.From && r.Year <= q.To
	case query.Listed:
		has := map[index.List][]string{index.Types: r.Types, index.Languages: r.Languages,
			index.Countries: r.Countries}[q.List]
		if q.List == index.Identifiers {
			return slices.ContainsFunc([]string{r.Accession, r.LocalID, r.DOI}, func(id string) bool {
				return id != "" &&
					bib.DOIKey(id) == bib.DOIKey(q.Value)
			})
		}
		return slices.ContainsFunc(has, func(v string) bool { return text.Label(v) == text.Label(q.Value) })
	}
	panic("no such expression")
}

// near looks at every pair of matches.
func near(q query.Near, tokens []string) bool {
	for _, l := range q.Left.Find(tokens) {
		for _, r := range q.Right.Find(tokens) {
			after, before := r-(l+len(q.Left)-1), l-(r+len(q.Right)-1)
			for i, d := range []int{after, before} {
				if d >= 1 && d <= q.Within && (!q.Exactly || d == q.Within) && (i == 0 || !q.Ordered) {
					return true
				}
			}
		}
	}
	return false
}

func TestTheIndexFindsWhatAScanFinds(t *testing.T) {
	ix, records := corpus(t, nil)
	for _, e := range examples(t) {
		if e.Refused || e.Vocabulary != nil {
			continue
		}
		q, err := query.Parse(e.Query, nil)
		if !assert.NoError(t, err) {
			continue
		}
		compare(t, q.Expr, ix, records)
	}
	rapid.Check(t, func(t *rapid.T) {
		compare(t, drawn(3).Draw(t, "query"), ix, records)
	})
}

func compare(t assert.TestingT, q query.Expr, ix *index.Index, records []*bib.Record) {
	want := []string{}
	for _, r := range records {
		if scanned(q, r) {
			want = append(want, r.ID)
		}
	}
	got := []string{}
	for _, n := range q.Match(ix).ToArray() {
		got = append(got, records[n].ID)
	}
	assert.Equal(t, strings.Join(want, " "), strings.Join(got, " "), query.Write(q))
}
