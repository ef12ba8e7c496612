package explain_test

import (
	"context"
	"fmt"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/dialect"
	"tamiz/core/explain"
	"tamiz/core/thesaurus"
	"tamiz/demo"
)

// over is a literature of 6,000 records with its vocabulary.
var over = sync.OnceValue(func() explain.Over {
	headings, _ := demo.Vocabularies()
	v, _ := thesaurus.Build(headings, "")
	var records []*bib.Record
	for _, r := range demo.NewLiterature(demo.Seed, 6000).Almagre {
		records = append(records, v.Assign(r))
	}
	set := coverage.NewSet(records)
	set.Thesaurus = v
	kept := sync.OnceValues(
		func() (*company.Company, error) { return company.Build(context.Background(), set.Index, set.All()) },
	)
	return explain.Over{Set: set, Company: kept}
})

func explained(t testing.TB, name, typed string) *explain.Explained {
	d, ok := dialect.Named(name)
	require.True(t, ok, name)
	r, err := d.Read(typed, over().Set.Thesaurus)
	require.NoError(t, err)
	e, err := explain.Explain(t.Context(), r, over())
	require.NoError(t, err)
	return e
}

// planted are queries as people write them, each with mistakes put in.
var planted = []struct {
	dialect, query string
	codes          string
}{
	{"cql", `("cane cutter*" or farmworker* and ("rest break*" or shade)`, "bracket"},
	{"cql", `"cane cutter*" or farmworker*) and ("rest break*" or shade)`, "bracket"},
	{"cql", `"cane cutter*" or farmworker* and shade`, "mixed-operators"},
	{"cql", `("cane cutter*" and farmworker*) and ("rest break*" or shade)`, "and-among-synonyms"},
	{"cql", `farmworker* or "cane cutter*" or "rest break*" or "work rest schedule*"`, "or-among-concepts"},
	{"cql", `farmworker* or "cane cutters of tomorrow"`, "finds-nothing"},
	{"cql", `(farmwroker* or "cane cutter*") and shade`, "misspelt"},
	{"cql", `"agricultural worker*" or "agricultural worker" or farmworker*`, "inside-another"},
	{"cql", `"agricultural labourer*" or farmworker*`, "one-spelling"},
	{"cql", `heading = "Agricultural Labour Crews" or farmworker*`, "heading-unknown"},
	{"cql", `heading = "Farmworkers" or farmworker*`, "heading-renamed"},
	{
		"cql",
		`heading =/narrower "Agricultural Labor Force" or heading = "Crop Harvesters" or farmworker*`,
		"heading-below-another",
	},
	{"cql", `(ca* or farmworker*) and "rest break*"`, "stem-too-short"},
	{"cql", `(heading = "Agricultural Lab*" or farmworker*) and shade`, "exact-with-truncation heading-unknown"},
	{"cql", `(cane cutter* or farmworker*) and shade`, "phrase-split"},
	{"cql", "1. farmworker*\n2. shade\n3. 1 and 4", "line-unknown"},
	{"cql", "1. farmworker*\n2. shade or 3\n3. 1 and 2", "line-circle"},
	{"cql", `titel = heat and farmworker*`, "field-unknown"},
	{"cql", `(farmworker* or "cane cutter*") and heading = "Heat Illness"`, "limit-on-indexing"},
	{"cql", `(farmworker* or "cane cutter*") not (sugarcane or migrant*)`, "not-drops"},
	{"cql", `farmworker* or "cane cutter*" or farmworker*`, "duplicate"},
	{
		"vilano",
		"(farmworker* else \"cane cutters\" else \"field hands\" else \"seasonal workers\" else \"migrant workers\" " +
			"else \"agricultural workers\" else \"plantation workers\" else \"sugarcane workers\" else \"fruit pickers\" " +
			"else \"farm workers\" else \"day labourers\") with shade",
		"too-long-for-source",
	},
	{"almagre", `("cane cutter^" @title OR farmworker^ AND shade @title`, "bracket"},
	{"almagre", `farmworker^ @titel AND shade`, "field-unknown"},
	{"almagre", `(farmworker* OR "cane cutter^") AND shade`, "unreadable"},
	{"almagre", `<Agricultural Labor Force; below> OR <Crop Harvesters> OR farmworker^`, "heading-below-another"},
	{
		"surco",
		"words{farmworker…}\nwords{cane cutter…}\neither of lines 1 to 2\nwords{shade}\nline 3 and line 9",
		"line-unknown",
	},
	{"surco", "words{farmworker…} or words{cane cutter…} and words{shade}", "mixed-operators"},
	{"surco", `wrods{shade} and words{farmworker…}`, "field-unknown"},
	{"vilano", `(farmworker* else cane cutters) with shade`, "phrase-split"},
	{"vilano", `farmworker* else "cane cutter*"`, "exact-with-truncation"},
	{"words", `(farmworker* OR farmwrokers) AND shade`, "misspelt"},
	{"words", `farmworker* OR OR shade`, "operator or-among-concepts"},
	{"cql", "(farm-\nworker* or farmworkers) and shade", "phrase-split inside-another"},
	{"cql", "（farmworker* or “cane cutter*”） and shade)", "bracket"},
}

// clean are queries without a mistake: nothing is to be found in them.
var clean = []struct{ dialect, query string }{
	{"cql", `farmworker*`},
	{"cql", `kidney and heat`},
	{"cql", `"heat stress" and farmworker*`},
	{"cql", `("cane cutter*" or farmworker*) and ("rest break*" or shade)`},
	{"cql", `("cane cutter*" or farmworker*) and ("rest break*" or shade) not rats`},
	{
		"cql",
		`(farmworker* or "farm worker*" or "agricultural worker*" or "seasonal worker*" or "migrant worker*") and ("rest break*" or "work rest schedule*")`,
	},
	{"cql", `title = heat and abstract = kidney`},
	{"cql", `(shade prox/unit=word/distance<=3 tent*) or "rest break*"`},
	{"cql", `heading =/narrower "Agricultural Labor Force" or farmworker*`},
	{"cql", `heading =/central/qualifier="prevention" "Heat Illness" or "heat stroke*" or "heat illness*"`},
	{"cql", `farmworker* and year >= 2000`},
	{"cql", `(farmworker* and shade) and (year within "2000 2020")`},
	{"cql", "1. farmworker*\n2. \"cane cutter*\"\n3. 1 or 2\n4. shade or \"rest break*\"\n5. 3 and 4"},
	{"cql", "1\tfarmworker*\n2\t\"cane cutter*\"\n3\tany of 1-2\n4\tshade\n5\t3 and 4"},
	{"cql", "#1 farmworker*\n#2 shade\n#3 #1 and #2"},
	{"cql", `(“cane cutter*” or farmworker*) and shade`},
	{"dc", `dc.title = heat and dc.description = kidney`},
	{"dc", `(dc.title = "cane cutter*" or dc.title = farmworker*) and dc.date >= 2000`},
	{"words", `(farmworker* OR "cane cutters") AND (shade OR "rest breaks")`},
	{"words", `heat AND kidney`},
	{"almagre", `("cane cutter^" OR farmworker^) AND (shade OR "rest break^")`},
	{"almagre", `<Agricultural Labor Force; below> OR farmworker^ @title+summary`},
	{"almagre", `shade &3& tent^`},
	{"almagre", `("cane cutter^" @title OR farmworker^ @title) AND since:2000`},
	{"surco", "words{farmworker…}\nwords{cane cutter…}\neither of lines 1 to 2\nwords{shade}\nline 3 and line 4"},
	{"surco", `[words{farmworker…} or words{cane cutter…}] and words{shade}`},
	{"surco", `words{kidney} and years{from 2000}`},
	{"vilano", `(farmworker* else "cane cutters") with (shade else "rest breaks")`},
	{"vilano", `kidney with heat`},
	{"vilano", `farmworker* with shade without rats`},
	{"cql", `("serum creatinine" or "renal function" or "kidney function") and heat`},
	{"cql", `"drinking water" or hydration or dehydration`},
}

func TestPlantedMistakesAreFound(t *testing.T) {
	for _, p := range planted {
		e := explained(t, p.dialect, p.query)
		var codes []string
		for _, f := range e.Findings {
			codes = append(codes, f.Code)
		}
		for _, code := range strings.Fields(p.codes) {
			assert.Contains(t, codes, code, "%s: %s", p.dialect, p.query)
		}
		assert.Subset(
			t,
			strings.Fields(p.codes),
			codes,
			"%s: %s has findings that nobody planted: %s",
			p.dialect,
			p.query,
			told(e),
		)
	}
}

func TestNothingIsFoundInCleanQueries(t *testing.T) {
	for _, c := range clean {
		e := explained(t, c.dialect, c.query)
		assert.Empty(t, e.Findings, "%s: %s: %s", c.dialect, c.query, told(e))
		assert.NotEmpty(t, e.Blocks, c.query)
	}
}

func told(e *explain.Explained) string {
	var b strings.Builder
	for _, f := range e.Findings {
		fmt.Fprintf(&b, "%s (%s) ", f.Code, f.Why)
	}
	return b.String()
}

// Another spelling is proposed as such, not as a shorter stem that finds more; two readings that find the same are
// no finding; what would change nothing is not offered as a mend.
func TestWhatIsProposedIsWhatIsMeant(t *testing.T) {
	e := explained(t, "cql", `labor* or farmworker*`)
	require.Len(t, e.Findings, 1)
	require.NotNil(t, e.Findings[0].Mend)
	assert.Equal(t, "(labor* or labour*)", *e.Findings[0].Mend)
	e = explained(t, "cql", `"agricultural labourer*" or farmworker*`)
	require.Len(t, e.Findings, 1)
	require.NotNil(t, e.Findings[0].Mend)
	assert.Contains(t, *e.Findings[0].Mend, `"agricultural laborer*"`)
	for _, same := range []string{"farmworker* or farmworker* and farmworker*", "shade and shade or shade"} {
		for _, f := range explained(t, "cql", same).Findings {
			assert.NotEqual(t, "mixed-operators", f.Code, same)
		}
	}
	for _, p := range planted {
		for _, f := range explained(t, p.dialect, p.query).Findings {
			if f.Mend != nil {
				assert.NotEqual(t, string([]rune(p.query)[f.From:f.To]), *f.Mend, p.query)
			}
		}
	}
}

// Lines that lead back to themselves are explained, and many terms are each set against those alone that may cover
// them.
func TestLinesInACircleAndManyTermsAreExplained(t *testing.T) {
	for _, q := range []string{"1 a\n2 1 or 2 or 2", "1 2 or 3 or 4\n2 1 or 3 or 4\n3 1 or 2 or 4\n4 1 or 2 or 3",
		"1 heat\n2 1 or 1\n3 2 or 2\n4 3 or 3\n5 4 and 5 and 5"} {
		assert.NotEmpty(t, explained(t, "cql", q).Lines, q)
	}
	var many, chained []string
	for i := range 600 {
		many = append(many, fmt.Sprintf("word%d", i))
		chained = append(chained, fmt.Sprintf("%d %d or word%d", i+2, i+1, i))
	}
	e := explained(t, "cql", strings.Join(append(many, "word7", `"word9 again"`), " or "))
	codes := map[string]int{}
	for _, f := range e.Findings {
		codes[f.Code]++
	}
	assert.Equal(t, 1, codes[explain.Duplicate])
	assert.Equal(t, 1, codes[explain.InsideAnother])
	assert.Len(t, explained(t, "cql", "1 heat\n"+strings.Join(chained, "\n")).Lines, 601)
}
