package query_test

import (
	"encoding/json"
	"errors"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/core/thesaurus/thesaurustest"
	"tamiz/exchange"
	"tamiz/exchange/ris"
)

// An example is a query over the small corpus, computed independently of this program.
type example struct {
	Query          string
	IDs            []string
	Refused, Warns bool
	Vocabulary     map[string][]string
}

func examples(t testing.TB) []example {
	data, err := os.ReadFile("../../testdata/vectors/cql.json")
	require.NoError(t, err)
	var out []example
	require.NoError(t, json.Unmarshal(data, &out))
	require.NotEmpty(t, out)
	return out
}

func corpus(t testing.TB, vocabulary *thesaurus.Thesaurus) (*index.Index, []*bib.Record) {
	file, err := os.Open("../../testdata/vectors/tiny.ris")
	require.NoError(t, err)
	defer file.Close()
	r := ris.NewReader(file, exchange.Sorter{Vocabulary: vocabulary}, nil)
	var records []*bib.Record
	for {
		record, err := r.Read()
		if err != nil {
			break
		}
		records = append(records, record)
	}
	return index.Build(records), records
}

func TestQueriesAgreeWithWorkedExamples(t *testing.T) {
	for _, e := range examples(t) {
		var vocabulary *thesaurus.Thesaurus
		if e.Vocabulary != nil {
			vocabulary = thesaurustest.Tree(e.Vocabulary)
		}
		ix, records := corpus(t, vocabulary)
		q, err := query.Parse(e.Query, vocabulary)
		if e.Refused {
			assert.Error(t, err, "%q", e.Query)
			continue
		}
		if !assert.NoError(t, err, "%q", e.Query) {
			continue
		}
		ids := []string{}
		for _, n := range q.Expr.Match(ix).ToArray() {
			ids = append(ids, records[n].ID)
		}
		assert.Equal(t, e.IDs, ids, "%q", e.Query)
		assert.Equal(t, e.Warns, len(q.Warnings) > 0, "%q warns", e.Query)
		again, err := query.Parse(query.Write(q.Expr), vocabulary)
		if assert.NoError(t, err, "%q is written as %q", e.Query, query.Write(q.Expr)) {
			assert.Equal(t, q.Expr, again.Expr, "%q is written as %q", e.Query, query.Write(q.Expr))
			assert.Empty(t, again.Warnings, "%q", query.Write(q.Expr))
		}
	}
}

func TestEveryTruncatedQueryIsReadOrRefused(t *testing.T) {
	for _, e := range examples(t) {
		for i := range e.Query {
			_, err := query.Parse(e.Query[:i], nil)
			var bad *query.Error
			if errors.As(err, &bad) {
				assert.GreaterOrEqual(t, bad.At, 1)
				assert.LessOrEqual(t, bad.At, i+1)
			}
		}
	}
}

func TestAnErrorPointsAtItsPlace(t *testing.T) {
	for cql, want := range map[string]struct {
		at       int
		expected string
	}{
		`kidney and`:                          {11, "expected a term, not the end"},
		`(kidney or heat`:                     {1, "this bracket has no partner"},
		`kidney)`:                             {7, "this bracket closes none"},
		`kidney heat`:                         {8, "expected and, or, not, prox or the end"},
		`flavour = kidney`:                    {1, "there is no index"},
		`nephro and a*`:                       {12, "matches too much"},
		`"kidney`:                             {1, "quotation mark has no partner"},
		`year = soon`:                         {8, "expected a year"},
		`title < kidney`:                      {7, "title takes = == any all, not <"},
		`kidney prox/unit=sentence heat`:      {18, "prox counts words"},
		`heading =/upward "Kidney Harm"`:      {11, "heading takes /narrower"},
		`title = kidney prox abstract = heat`: {16, "both sides of prox search the same index"},
		`ñandú and and kidney`:                {11, "expected a term; and joins two"},
		`title = heat and/unit=word kidney`:   {18, "and takes no modifiers"},
		`> dc = "http://purl.org/dc" dc.title = kidney`:    {1, "prefixes are not set in a query"},
		`kidney sortBy colour`:                             {15, "there is no index"},
		`kidney prox/unit=word/distance<=3 (heat or rest)`: {8, "each side of prox is one clause"},
	} {
		_, err := query.Parse(cql, nil)
		var bad *query.Error
		if assert.ErrorAs(t, err, &bad, cql) {
			assert.Equal(t, want.at, bad.At, "%q: %v", cql, err)
			assert.Contains(t, bad.Expected, want.expected, cql)
			assert.Contains(t, err.Error(), "^")
		}
	}
	_, err := query.Parse("*", nil)
	var refusal *text.Refusal
	assert.True(t, errors.As(err, &refusal), "the reason of the term is behind it")
}

func TestLargeQueriesAreReadOrRefused(t *testing.T) {
	_, err := query.Parse(strings.Repeat("x", query.MaxQuery+1), nil)
	assert.ErrorContains(t, err, "at most")
	_, err = query.Parse(strings.Repeat("(", 10_000)+"heat"+strings.Repeat(")", 10_000), nil)
	assert.ErrorContains(t, err, "deep in each other")
	_, err = query.Parse(strings.Repeat("heat or ", 100_000)+"heat", nil)
	assert.ErrorContains(t, err, "at most 20000 clauses")
	q, err := query.Parse(strings.Repeat("heat or ", 10_000)+"kidney", nil)
	require.NoError(t, err)
	ix, _ := corpus(t, nil)
	one, err := query.Parse("heat or kidney", nil)
	require.NoError(t, err)
	assert.Equal(t, one.Expr.Match(ix).ToArray(), q.Expr.Match(ix).ToArray())
}

func TestAWarningNamesBothReadings(t *testing.T) {
	q, err := query.Parse(`kidney or renal and creatinine`, nil)
	require.NoError(t, err)
	require.Len(t, q.Warnings, 1)
	assert.Equal(
		t,
		query.Mixed{At: 17, Taken: "(kidney or renal) and creatinine", Other: "kidney or (renal and creatinine)"},
		q.Warnings[0],
	)
	q, err = query.Parse(`shade and "rest break" not kidney`, nil)
	require.NoError(t, err)
	require.Len(t, q.Warnings, 1)
	assert.Equal(t, `shade and ("rest break" not kidney)`, q.Warnings[0].Other)
}

func TestSortKeysAreRead(t *testing.T) {
	q, err := query.Parse(`kidney sortBy dc.date/sort.descending title`, nil)
	require.NoError(t, err)
	assert.Equal(t, []query.SortKey{{Index: "year", Descending: true}, {Index: "title"}}, q.Sort)
}

// drawn draws an expression of the kind that people write.
func drawn(depth int) *rapid.Generator[query.Expr] {
	return rapid.Custom(func(t *rapid.T) query.Expr {
		kinds := 9
		if depth > 0 {
			kinds = 12
		}
		pattern := func() text.Pattern {
			typed := rapid.StringMatching(`(heat|kid\?ey|cane cutt\*|rest|"and|shade\*|腎 \*work|o'brendo t)`).Draw(t, "term")
			p, err := text.ParsePattern(typed)
			if err != nil {
				p = text.Literal("heat")
			}
			return p
		}
		field := rapid.SampledFrom(
			[]bib.Field{
				bib.Text,
				bib.Title,
				bib.Abstract,
				bib.TitleAbstract,
				bib.Keyword,
				bib.Any,
				bib.Journal,
				bib.Keyword | bib.HeadingLabel,
			},
		)
		parts := func() []query.Expr { return rapid.SliceOfN(drawn(depth-1), 2, 4).Draw(t, "parts") }
		switch rapid.IntRange(0, kinds-1).Draw(t, "kind") {
		case 0, 1, 2:
			return query.Phrase{Pattern: pattern(), Fields: field.Draw(t, "field"), Whole: rapid.Bool().Draw(t, "whole")}
		case 3:
			return query.Words{Pattern: pattern(), Fields: field.Draw(t, "field"), All: rapid.Bool().Draw(t, "all")}
		case 4:
			return query.Near{
				Left:    pattern(),
				Right:   pattern(),
				Within:  rapid.IntRange(1, 9).Draw(t, "within"),
				Exactly: rapid.Bool().Draw(t, "exactly"),
				Ordered: rapid.Bool().Draw(t, "ordered"),
				Fields:  field.Draw(t, "field"),
			}
		case 5:
			label := rapid.SampledFrom([]string{"Kidney Harm", `The "best" of/it`, `a\b`, "Outdoor  Work*"}).Draw(t, "label")
			h := query.Heading{
				Label:    label,
				Central:  rapid.Bool().Draw(t, "central"),
				Narrower: rapid.Bool().Draw(t, "narrower"),
				Which:    thesaurus.Labelled(label),
			}
			if rapid.Bool().Draw(t, "qualified") {
				h.Qualifiers = []string{"prevention", `x"y`}
			}
			return h
		case 6:
			which := rapid.IntRange(0, 2).Draw(t, "relation")
			return query.Author{Pattern: pattern(), Any: which == 1, All: which == 2}
		case 7:
			from := rapid.IntRange(query.FirstYear, query.LastYear).Draw(t, "from")
			return query.Years{From: from, To: rapid.IntRange(from, query.LastYear).Draw(t, "to")}
		case 8:
			return query.Listed{
				List: rapid.SampledFrom([]index.List{index.Types, index.Languages, index.Countries, index.Identifiers}).
					Draw(t, "list"),
				Value: `Trial "Report"`,
			}
		case 9:
			return query.Or(parts())
		case 10:
			return query.And(parts())
		default:
			return query.Not(parts())
		}
	})
}

func TestWhatIsWrittenIsReadBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		q := drawn(3).Draw(t, "query")
		written := query.Write(q)
		again, err := query.Parse(written, nil)
		require.NoError(t, err, written)
		assert.Equal(t, q, again.Expr, written)
		assert.Empty(t, again.Warnings, written)
	})
}

func TestOperatorsAreThoseOfSets(t *testing.T) {
	ix, _ := corpus(t, nil)
	rapid.Check(t, func(t *rapid.T) {
		a, b := drawn(2).Draw(t, "a"), drawn(2).Draw(t, "b")
		both, either, less := a.Match(ix), a.Match(ix), a.Match(ix)
		both.And(b.Match(ix))
		either.Or(b.Match(ix))
		less.AndNot(b.Match(ix))
		assert.True(t, both.Equals(query.And{a, b}.Match(ix)))
		assert.True(t, either.Equals(query.Or{a, b}.Match(ix)))
		assert.True(t, less.Equals(query.Not{a, b}.Match(ix)))
	})
}

func FuzzParse(f *testing.F) {
	for _, e := range examples(f) {
		f.Add(e.Query)
	}
	ix, _ := corpus(f, nil)
	f.Fuzz(func(t *testing.T, cql string) {
		q, err := query.Parse(cql, nil)
		if err != nil {
			_ = err.Error()
			return
		}
		again, err := query.Parse(query.Write(q.Expr), nil)
		if err != nil {
			t.Fatalf("%q is written as %q: %v", cql, query.Write(q.Expr), err)
		}
		if !q.Expr.Match(ix).Equals(again.Expr.Match(ix)) {
			t.Fatalf("%q and %q find different records", cql, query.Write(q.Expr))
		}
	})
}
