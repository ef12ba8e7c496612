package explain_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/dialect"
	"tamiz/core/explain"
)

func outline(p explain.Part) string {
	if len(p.Parts) == 0 {
		return p.Query
	}
	parts := make([]string, len(p.Parts))
	for i, x := range p.Parts {
		parts[i] = outline(x)
	}
	return p.Op + "(" + strings.Join(parts, ", ") + ")"
}

func TestAQueryIsShownAsTheTreeThatItIs(t *testing.T) {
	e := explained(
		t,
		"cql",
		`(farmworker* or "cane cutter*" or heading = "Seasonal Employment") and (shade prox/unit=word/distance<=3 tent* or "rest break*") not child*`,
	)
	require.Len(t, e.Trees, 1)
	assert.Equal(
		t,
		`not(and(or(farmworker*, "cane cutter*", heading = "Seasonal Employment"), or(shade prox/unit=word/distance<=3 tent*, "rest break*")), child*)`,
		outline(e.Trees[0]),
	)
	assert.Equal(t, e.Lines[0].Records, e.Trees[0].Records)
	e = explained(t, "cql", "1. farmworker*\n2. shade\n3. 1 and 2")
	require.Len(t, e.Trees, 3)
	assert.Equal(t, "line", e.Trees[2].Parts[0].Op)
	assert.Equal(t, e.Lines[2].Records, e.Trees[2].Records)
	e = explained(t, "cql", `farmworker* or (`)
	assert.NotPanics(t, func() { outline(e.Trees[0]) })
}

// Whatever was planted in a query: each part stands where it says, inside the one that holds it, finds no more than
// any of what it joins, and the whole finds what its line does.
func TestEachPartOfATreeStandsWhereItSays(t *testing.T) {
	for _, p := range planted {
		e := explained(t, p.dialect, p.query)
		runes := []rune(e.Text)
		var look func(x explain.Part)
		look = func(x explain.Part) {
			require.True(t, 0 <= x.From && x.From <= x.To && x.To <= len(runes), p.query)
			if len(x.Parts) == 0 {
				assert.Equal(t, string(runes[x.From:x.To]), x.Query, p.query)
			}
			for _, y := range x.Parts {
				assert.True(t, x.From <= y.From && y.To <= x.To, "%s: %s", p.query, outline(y))
				if x.Records != nil && y.Records != nil {
					switch x.Op {
					case "or":
						assert.GreaterOrEqual(t, *x.Records, *y.Records, p.query)
					case "and":
						assert.LessOrEqual(t, *x.Records, *y.Records, p.query)
					}
				}
				look(y)
			}
		}
		require.Len(t, e.Trees, len(e.Lines), p.query)
		for i, x := range e.Trees {
			look(x)
			if e.Lines[i].Records != nil && x.Records != nil {
				assert.Equal(t, *e.Lines[i].Records, *x.Records, p.query)
			}
		}
	}
}

func TestATreeOfVeryManyPartsIsCutAndSaysSo(t *testing.T) {
	terms := make([]string, 4000)
	for i := range terms {
		terms[i] = fmt.Sprintf("word%d", i)
	}
	e := explained(t, "cql", strings.Join(terms, " or "))
	x := e.Trees[0]
	assert.Equal(t, 4000, len(x.Parts)+x.More)
	assert.Positive(t, x.More)
}

// What shows a query draws what stands in each other inside each other: it is told no deeper than that goes.
func TestTreesAreNoDeeperThanCanBeShown(t *testing.T) {
	typed := "heat"
	for i := range 300 {
		typed = fmt.Sprintf("(%s) %s farm%d", typed, [2]string{"or", "and"}[i%2], i)
	}
	e := explained(t, "cql", typed)
	depth, more := 0, 0
	var walk func(p explain.Part, at int)
	walk = func(p explain.Part, at int) {
		depth, more = max(depth, at), more+p.More
		for _, inner := range p.Parts {
			walk(inner, at+1)
		}
	}
	walk(e.Trees[0], 1)
	assert.Less(t, depth, 70)
	assert.NotZero(t, more, "what is left out is said")
}

// Of a kind that stands there again and again a few hundred are told, and that there are more.
func TestThatThereIsMoreIsSaid(t *testing.T) {
	e := explained(t, "cql", strings.Repeat("farmers or ", 600)+"heat")
	codes := map[string]int{}
	for _, f := range e.Findings {
		codes[f.Code]++
	}
	assert.Equal(t, 200, codes[explain.Duplicate])
	assert.Equal(t, 1, codes[explain.MoreOf])
}

// What may be kept of what parts find is bounded; of what is left nothing is told, and that is said.
func TestNoMoreIsKeptThanMayBe(t *testing.T) {
	more := 0
	for _, p := range planted {
		for _, most := range []uint64{1, 100, 2000} {
			d, ok := dialect.Named(p.dialect)
			require.True(t, ok)
			records := over()
			records.Most = most
			read, err := d.Read(p.query, records.Set.Thesaurus)
			require.NoError(t, err)
			e, err := explain.Explain(t.Context(), read, records)
			require.NoError(t, err)
			if most == 1 && slices.ContainsFunc(e.Findings, func(f explain.Finding) bool { return f.Code == explain.MoreOf }) {
				more++
			}
		}
	}
	assert.Greater(t, more, len(planted)/2)
}
