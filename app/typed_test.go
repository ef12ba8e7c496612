package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/core/dialect"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
)

// A heading stands as its words in the dialect of a source with another vocabulary, until somebody takes a counterpart; that
// is remembered for the next review. A dialect of one's own is kept, refused and taken away with a reason each.
func TestAStrategyIsTypedForASourceWithAnotherVocabulary(t *testing.T) {
	a, id := start(t)
	ctx := t.Context()
	other, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "another"})
	require.NoError(t, err)
	cutters := concept("9", "Cutting gangs", "field hands")
	cutters.Exact = []string{"https://v.example/1"}
	_, err = bring(t, a, other.ID, "vocabulary", "Surco Thesaurus.nt", vocabulary(t, cutters, concept("8", "Shade")))
	require.NoError(t, err)
	_, err = bring(t, a, id, "vocabulary", "Fields.nt", vocabulary(t, concept("1", "Field Hands", "pickers"), concept("2", "Awnings", "shade"), concept("3", "Water")))
	require.NoError(t, err)
	_, err = bring(t, a, id, "sample", "s.ris", strings.NewReader("TY  - JOUR\nTI  - Field hands and water\nKW  - *Field Hands\nER  - \nTY  - JOUR\nTI  - Pickers\nKW  - *Field Hands\nER  - \n"))
	require.NoError(t, err)
	mine := state(t, a, id)
	d := mine.Document
	heading := func(label string) desk.Term {
		return desk.Term{ID: label, Term: strategy.Term{Kind: strategy.HeadingTerm, Heading: label, On: true}}
	}
	d.Blocks = []desk.Block{block("a", "A", heading("Field Hands"), heading("Water"), desk.Term{ID: "t", Term: strategy.Term{Kind: strategy.TextTerm, Text: "picker*", Field: "text", On: true}})}
	_, err = a.Change(ctx, id, mine.Revision, change{What: reviews.What{Key: "addTerm"}, Document: &d})
	require.NoError(t, err)
	surco, _ := dialect.Named("surco")
	typed := func() *figures.TypedStrategy {
		v, err := a.Figures.TypedIn(ctx, a.at(ctx, id), surco)
		require.NoError(t, err)
		return v
	}

	v := typed()
	assert.Equal(t, "1\twords{field hands}\n2\twords{water}\n3\twords{picker…}\n4\teither of lines 1 to 3", v.Text)
	require.NotNil(t, v.Carry)
	require.Len(t, v.Carry.Headings, 2)
	assert.Equal(t, []figures.CarryCandidate{{Heading: "Cutting gangs", Via: string(thesaurus.ByExact)}}, v.Carry.Headings[0].Proposals)
	assert.Empty(t, v.Carry.Headings[1].Proposals)
	note := v.Lines[0].Notes[0]
	assert.Equal(t, "no-counterpart", note.Kind)
	assert.Equal(t, 1, *note.Fewer, "of two records with the heading one says its words")

	require.NoError(t, a.Figures.TakeCounterpart(ctx, id, figures.Counterpart{Heading: "Field Hands", Vocabulary: "Surco Thesaurus", Stands: "Cutting gangs"}))
	v = typed()
	assert.Contains(t, v.Text, "1\ttopic{Cutting gangs}\n")
	assert.Equal(t, "carried", v.Lines[0].Notes[0].Kind)
	assert.Nil(t, v.More, "the sample says nothing of what it finds")
	require.NoError(t, a.Figures.TakeCounterpart(ctx, id, figures.Counterpart{Heading: "Field Hands", Vocabulary: "Surco Thesaurus", Forget: true}))
	assert.Contains(t, typed().Text, "words{field hands}")
	require.NoError(t, a.Figures.TakeCounterpart(ctx, id, figures.Counterpart{Heading: "Field Hands", Vocabulary: "Surco Thesaurus"}))
	assert.True(t, typed().Carry.Headings[0].Declined)

	// The same query comes back as it was.
	among, err := a.Dialects.Choice(ctx, "")
	require.NoError(t, err)
	e, err := a.Figures.Explain(ctx, a.at(ctx, id), "words{picker…} or topic{Shade} or topic{Field Hands}", among)
	require.NoError(t, err)
	require.Len(t, e.Findings, 1, "Shade is a heading of the source, though not of the review")
	assert.Equal(t, "heading-renamed", e.Findings[0].Code, "Field Hands is an entry term there")
	assert.Equal(t, "surco", e.Dialect)
	assert.Len(t, e.Blocks, 1)
	assert.Equal(t, 2, *e.Lines[0].Records)
	_, err = a.Figures.Explain(ctx, a.at(ctx, id), "  ", among)
	assert.Equal(t, "invalid", problem(t, err).Type)

	body, err := dialect.Source("vilano")
	require.NoError(t, err)
	own := strings.Replace(string(body), `"name": "vilano"`, `"name": "ours"`, 1)
	_, err = a.Dialects.Save(ctx, own)
	require.NoError(t, err)
	all, err := a.Dialects.All(ctx)
	require.NoError(t, err)
	assert.Equal(t, "ours", all[len(all)-1].Name)
	for _, bad := range []string{string(body), "{", strings.Replace(own, `"with"`, `"else"`, 1)} {
		_, err = a.Dialects.Save(ctx, bad)
		assert.Equal(t, "invalid", problem(t, err).Type)
	}
	require.NoError(t, a.Dialects.Delete(ctx, "ours"))
	assert.Equal(t, "dialect-gone", problem(t, a.Dialects.Delete(ctx, "ours")).Type)
	_, err = a.Dialects.Find(ctx, "ours", "")
	assert.Equal(t, "dialect-gone", problem(t, err).Type)
}
