package app_test

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

const harm = `<v:1> <http://www.w3.org/2004/02/skos/core#prefLabel> "Body Harm"@en .
<v:2> <http://www.w3.org/2004/02/skos/core#prefLabel> "Heat Illness"@en .
<v:2> <http://www.w3.org/2004/02/skos/core#altLabel> "heat stroke"@en .
<v:2> <http://www.w3.org/2004/02/skos/core#broader> <v:1> .
<v:2> <http://www.w3.org/2004/02/skos/core#broader> <v:9> .
`

// ofKeywords returns a file of records that carry one keyword each.
func ofKeywords(keywords ...string) string {
	var b strings.Builder
	for i, k := range keywords {
		fmt.Fprintf(&b, "TY  - JOUR\nAN  - K%d\nTI  - Heat %d\nKW  - %s\nER  - \n\n", i+1, i+1, k)
	}
	return b.String()
}

func TestAVocabularyTellsHeadingsFromKeywordsAndIsUndone(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	_, err := bring(
		t,
		a,
		review,
		"sample",
		"heat.ris",
		strings.NewReader(ofKeywords("heat stroke", "heat stroke", "Body Harm", "Lintan")),
	)
	require.NoError(t, err)
	records := func(f tally.Facet) map[string]int {
		tallied, err := a.Tally(ctx, review, f)
		require.NoError(t, err)
		out := map[string]int{}
		for _, r := range tallied.Rows {
			out[r.Item] = r.Records
		}
		return out
	}
	assert.Equal(t, map[string]int{"heat stroke": 2, "Body Harm": 1, "Lintan": 1}, records(tally.Keywords))

	i, err := bring(t, a, review, "vocabulary", "harm.nt", strings.NewReader(harm))
	require.NoError(t, err)
	assert.Equal(t, 2, i.Records)
	assert.Equal(t, 1, i.Notices, "a parent that is not there")
	assert.Equal(t, map[string]int{"Body Harm": 1}, records(tally.Headings))
	assert.Equal(
		t,
		map[string]int{"heat stroke": 2, "Lintan": 1},
		records(tally.Keywords),
		"an author's word stays one, and leads to the heading",
	)
	keywords, err := a.Tally(ctx, review, tally.Keywords)
	require.NoError(t, err)
	assert.Equal(t, "Heat Illness", keywords.Rows[0].Heading)
	headings, err := a.Tally(ctx, review, tally.Headings)
	require.NoError(t, err)
	for _, r := range headings.Rows {
		if r.Item == "Body Harm" {
			assert.Equal(t, 1, *r.WithNarrower)
		}
	}

	state, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	require.NotNil(t, state.Vocabulary)
	d := state.Document
	d.Blocks = []desk.Block{
		block(
			"a",
			"A",
			desk.Term{ID: "h", Term: strategy.Term{Kind: strategy.HeadingTerm, Heading: "body harm", Narrower: true, On: true}},
			desk.Term{ID: "u", Term: strategy.Term{Kind: strategy.HeadingTerm, Heading: "Sunshine", On: true}},
		),
	}
	bench, err := a.Bench(ctx, review, a.proposal(ctx, review, d))
	require.NoError(t, err)
	assert.Equal(t, 1, *bench.Blocks[0].Records)
	assert.Equal(t, 1, *bench.Blocks[0].Terms[0].Narrower)
	assert.True(t, bench.Blocks[0].Terms[1].Unknown)
	tried, err := a.TryTerm(ctx, review, figures.Typed{Typed: "heat str"})
	require.NoError(t, err)
	require.Len(t, tried.Headings, 1)
	assert.Equal(
		t,
		figures.HeadingHit{Label: "Heat Illness", Records: 0, Via: "entryTerm", Matched: "heat stroke"},
		tried.Headings[0],
	)

	_, err = a.Undo(ctx, review)
	require.NoError(t, err)
	assert.Equal(t, map[string]int{"heat stroke": 2, "Body Harm": 1, "Lintan": 1}, records(tally.Keywords))
}

func TestAFileThatIsNoVocabularySaysSo(t *testing.T) {
	a, review := start(t)
	for _, file := range []string{"prose\n", `{"@graph": [`, "<html xmlns='x'></html>"} {
		_, err := bring(t, a, review, "vocabulary", "no.nt", strings.NewReader(file))
		assert.Equal(t, "no-vocabulary", problem(t, err).Type, file)
	}
	r, err := a.Reviews.Review(context.Background(), review)
	require.NoError(t, err)
	assert.Nil(t, r.Vocabulary)
}

func TestAVocabularyThatIsNotThereIsNotTaken(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	mine, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	d := mine.Document
	nowhere := int64(99)
	d.Vocabulary = &nowhere
	_, err = a.Change(ctx, review, mine.Revision, change{What: reviews.What{Key: "vocabulary"}, Document: &d})
	assert.Equal(t, "vocabulary-gone", problem(t, err).Type)
	_, err = a.Bench(ctx, review, a.proposal(ctx, review, d))
	assert.Equal(t, "vocabulary-gone", problem(t, err).Type)
	_, err = a.Reviews.Review(ctx, review)
	assert.NoError(t, err)
}

func TestAFamilyIsOneRowAndOpensAllItsRecords(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	_, err := bring(
		t,
		a,
		review,
		"sample",
		"crews.ris",
		strings.NewReader(
			file(
				"Farm workers, rest",
				"Farmworkers; shade",
				"Farmworkers, farm worker",
				"Farm worker. Water",
				"Labourers of the field",
			),
		),
	)
	require.NoError(t, err)
	words, err := a.Tally(ctx, review, tally.Words)
	require.NoError(t, err)
	at := slices.IndexFunc(words.Rows, func(r figures.TallyRow) bool { return r.Item == "farm worker" })
	require.GreaterOrEqual(t, at, 0, "%+v", words.Rows)
	row := words.Rows[at]
	assert.Equal(t, 3, row.Records)
	assert.Equal(t, []figures.Form{{Item: "farm worker", Records: 2}, {Item: "farmworkers", Records: 2}}, row.Forms)
	facet, item := tally.Words, "farm worker"
	list, err := a.Records(ctx, review, figures.RecordsQuestion{Of: itemSet(facet, item), Limit: 10})
	require.NoError(t, err)
	assert.Equal(t, row.Records, list.Total, "the figure opens just what it counts")
	one, err := a.Item(ctx, review, tally.Words, item)
	require.NoError(t, err)
	require.NotEmpty(t, one.Stems)
	assert.Len(t, one.Context, 4)
}

func TestOfTheTestHalfNoWordIsMined(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	_, err := bring(
		t,
		a,
		review,
		"sample",
		"rough.ris",
		strings.NewReader(file("Heat in crews", "Heat in mills", "Rest for crews")),
	)
	require.NoError(t, err)
	titles := []string{"Heat one", "Heat two", "Heat three", "Heat four", "Heat five"}
	_, err = bring(t, a, review, "keys", "keys.ris", strings.NewReader(file(titles...)))
	require.NoError(t, err)
	r, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	d := r.Document
	d.Blocks = []desk.Block{block("a", "A", term("t", "crews"))}
	_, err = a.Change(ctx, review, r.Revision, change{What: reviews.What{Key: "addTerm"}, Document: &d})
	require.NoError(t, err)
	state, err := a.Split(ctx, review, true)
	require.NoError(t, err)
	require.NotNil(t, state.Document.Halves)
	assert.Len(t, state.Document.Halves.Test, 2)

	words, err := a.Tally(ctx, review, tally.Words)
	require.NoError(t, err)
	for _, row := range words.Rows {
		if row.Item == "heat" {
			assert.Equal(t, 3, *row.Keys, "the build half alone")
		}
	}
	c, err := a.Coverage(ctx, review)
	require.NoError(t, err)
	assert.Equal(t, [3]int{5, 3, 2}, [3]int{c.Recall.Of, c.Build.Of, c.Test.Of})
	for _, s := range c.Studies {
		assert.Equal(t, slices.Contains(state.Document.Halves.Test, s.ID), s.Half == "test")
		rescue, err := a.Rescue(ctx, review, s.ID)
		require.NoError(t, err)
		assert.Equal(t, s.Half == "test", len(rescue.Blocks[0].Candidates) == 0, "%s: %+v", s.Half, rescue.Blocks)
		for _, x := range rescue.Blocks[0].Candidates {
			assert.LessOrEqual(t, x.Rescues, 3)
		}
	}
	plan, err := a.Plan(ctx, review)
	require.NoError(t, err)
	assert.Equal(t, 3, plan.Of)
	_, err = a.Undo(ctx, review)
	require.NoError(t, err)
	c, err = a.Coverage(ctx, review)
	require.NoError(t, err)
	assert.Nil(t, c.Test)
}

func TestAPlanNeedsASample(t *testing.T) {
	a, review := start(t)
	_, err := a.Plan(context.Background(), review)
	assert.Equal(t, "no-sample", problem(t, err).Type)
}
