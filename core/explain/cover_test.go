package explain

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/coverage"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/thesaurus"
	"tamiz/demo"
)

// Whatever another term finds all of is among those that it is set against.
func TestEveryCoverIsLookedAt(t *testing.T) {
	v, _ := thesaurus.Build(demo.Headings(), "")
	var labels []string
	for h := range v.Len() {
		labels = append(labels, v.Label(h))
	}
	term := rapid.OneOf(
		rapid.StringMatching(`"[ab]{1,3}[*?]?( [ab?]{1,2}[abc]{2}[*?]?){0,2}"`),
		rapid.StringMatching(`[?*][ab]{3}[?*]?`),
		rapid.Custom(func(t *rapid.T) string {
			return rapid.SampledFrom([]string{"heading = ", "heading =/narrower ", "heading =/central "}).
				Draw(t, "relation") +
				`"` + rapid.SampledFrom(labels).
				Draw(t, "label") +
				`"`
		}),
	)
	rapid.Check(t, func(t *rapid.T) {
		var parts []*dialect.Node
		for _, typed := range rapid.SliceOfN(term, 2, 30).Draw(t, "terms") {
			if q, err := query.Parse(typed, v); err == nil {
				parts = append(parts, &dialect.Node{Expr: q.Expr, To: 1})
			}
		}
		e := &explainer{r: &dialect.Reading{Text: []rune("?")}}
		all := newCovers(parts, v)
		for i, p := range parts {
			may := all.may(p)
			for j, other := range parts {
				first := slices.IndexFunc(parts, func(n *dialect.Node) bool { return keyOf(n.Expr) == keyOf(other.Expr) })
				if code, _ := e.covered(p, other, j < i); code != "" && first == j {
					assert.Contains(t, may, j, "%s inside %s", query.Write(p.Expr), query.Write(other.Expr))
				}
			}
		}
	})
}

// A query explained over records says of each part what the whole expression finds, whether parts are released or not.
func TestPartsFindWhatTheirExpressionsDo(t *testing.T) {
	cql, _ := dialect.Named("cql")
	w := demo.NewWorld(3, 300)
	over := Over{Set: coverage.NewSet(w.Records)}
	rapid.Check(t, func(t *rapid.T) {
		word := rapid.SampledFrom([]string{"heat", "farm*", "work*", "kidney", "rest", "sleep", "nurse*", "shift"})
		typed := word.Draw(t, "first")
		for range rapid.IntRange(1, 12).Draw(t, "more") {
			typed = "(" + typed + ") " + rapid.SampledFrom([]string{"or", "and", "not"}).
				Draw(t, "op") +
				" " + word.Draw(
				t,
				"word",
			)
		}
		r, err := cql.Read(typed, nil)
		require.NoError(t, err)
		e, err := Explain(t.Context(), r, over)
		require.NoError(t, err)
		assert.EqualValues(t, r.Expr().Match(over.Set.Index).GetCardinality(), *e.Lines[0].Records, typed)
		var check func(p Part)
		check = func(p Part) {
			q, err := cql.Read(string([]rune(typed)[p.From:p.To]), nil)
			require.NoError(t, err)
			if len(p.Parts) > 0 || p.Op == "" {
				assert.EqualValues(t, q.Expr().Match(over.Set.Index).GetCardinality(), *p.Records, p.Query)
			}
			for _, inner := range p.Parts {
				check(inner)
			}
		}
		check(e.Trees[0])
	})
}
