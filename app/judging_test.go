package app_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/core/strategy"
)

func TestAFewAreJudgedOnceAndAddUp(t *testing.T) {
	a, review, state := harvesting(t)
	ctx := context.Background()
	at := looking(t, a, review, state)
	q := figures.JudgingQuestion{Of: of(`{"kind":"any"}`), N: 8}
	drawn, err := a.Figures.Judging(ctx, at, q)
	require.NoError(t, err)
	assert.Equal(t, 19, drawn.Total)
	require.Len(t, drawn.Records, 8)
	assert.Nil(t, drawn.Share)
	for i, verdict := range []string{"relevant", "not", "not", "unsure", "relevant"} {
		require.NoError(t, a.Figures.Judge(ctx, review, drawn.Records[i].ID, verdict))
	}
	require.NoError(t, a.Figures.Judge(ctx, review, drawn.Records[4].ID, "open"))
	again, err := a.Figures.Judging(ctx, at, q)
	require.NoError(t, err)
	for i, r := range again.Records {
		assert.Equal(t, drawn.Records[i].ID, r.ID, "the same set is the same draw")
	}
	assert.Equal(t, [3]int{1, 2, 1}, [3]int{again.Relevant, again.Not, again.Unsure})
	assert.InDelta(t, 1.0/3, again.Share.Value, 1e-9)
	assert.InDelta(t, 3, again.ToRead.Value, 1e-9)
	// In another set it is known what was said.
	all, err := a.Figures.Judging(ctx, at, figures.JudgingQuestion{Of: of(`{"kind":"all"}`), N: 500})
	require.NoError(t, err)
	assert.Len(t, all.Records, 40)
	assert.Equal(t, [3]int{1, 2, 1}, [3]int{all.Relevant, all.Not, all.Unsure})

	for name, err := range map[string]error{
		"none":          second(a.Figures.Judging(ctx, at, figures.JudgingQuestion{Of: q.Of})),
		"too many":      second(a.Figures.Judging(ctx, at, figures.JudgingQuestion{Of: q.Of, N: 501})),
		"no set":        second(a.Figures.Judging(ctx, at, figures.JudgingQuestion{N: 3})),
		"no verdict":    a.Figures.Judge(ctx, review, drawn.Records[0].ID, "good"),
		"no record":     a.Figures.Judge(ctx, review, 1<<40, "not"),
		"no block":      second(a.Figures.Prune(ctx, at, "zz", 0.9)),
		"no share":      second(a.Figures.Prune(ctx, at, "a", 1.5)),
		"nothing said":  second(a.Figures.Remarks(ctx, at, "zz")),
		"no list":       second(a.Figures.TryTerms(ctx, at, figures.TermList{Block: "a"})),
		"a list of 501": second(a.Figures.TryTerms(ctx, at, figures.TermList{Block: "a", Typed: make([]string, 501)})),
		"no such block": second(a.Figures.TryTerms(ctx, at, figures.TermList{Block: "zz", Typed: []string{"x"}})),
		"no ways":       second(a.Figures.Estimate(ctx, at, figures.Ways{})),
	} {
		problem(t, err)
		assert.Error(t, err, name)
	}
}

// looking returns where figures are asked of the first sample.
func looking(t *testing.T, a *trial, review int64, state after) desk.At {
	_, err := a.SetView(context.Background(), review, desk.NewLook{Sample: &state.Samples[0].ID, Rest: true})
	require.NoError(t, err)
	return a.at(context.Background(), review)
}

func second[T any](_ T, err error) error { return err }

func TestAPastedListTellsWhatEachWouldFind(t *testing.T) {
	a, review, state := harvesting(t)
	at := looking(t, a, review, state)
	got, err := a.Figures.TryTerms(
		context.Background(),
		at,
		figures.TermList{
			Block: "a",
			Typed: []string{"cane cutters", "shade tents", "*", "cane ~3 cutters", "[No Such Heading]"},
		},
	)
	require.NoError(t, err)
	require.Len(t, got, 5)
	assert.True(t, got[0].There)
	assert.Equal(t, [2]int{10, 0}, [2]int{*got[0].Records, *got[0].Adds})
	assert.False(t, got[1].There)
	assert.Equal(t, *got[1].Records, *got[1].Adds+overlap(t, a, at))
	assert.NotNil(t, got[2].Refused)
	assert.Nil(t, got[2].Term)
	assert.Equal(t, strategy.NearTerm, got[3].Term.Kind)
	assert.Zero(t, *got[4].Records)
}

// overlap returns how many records both blocks find.
func overlap(t *testing.T, a *trial, at desk.At) int {
	b, err := a.Figures.Bench(context.Background(), at, desk.Proposal{})
	require.NoError(t, err)
	return *b.Records
}

func TestTwoThousandTermsArePrunedAndRemarkedOn(t *testing.T) {
	a, review, state := harvesting(t)
	ctx := context.Background()
	at := looking(t, a, review, state)
	d := state.Document
	for i := range 1999 {
		d.Blocks[0].Terms = append(d.Blocks[0].Terms, text(fmt.Sprint("n", i), fmt.Sprint("cane cutters ", i)))
	}
	_, err := a.Change(
		ctx,
		review,
		state.Revision,
		change{What: reviews.What{Key: "other", Params: map[string]string{}}, Document: &d},
	)
	require.NoError(t, err)
	got, err := a.Figures.Prune(ctx, at, "a", 1)
	require.NoError(t, err)
	assert.Equal(t, 2000, got.Terms)
	assert.Len(t, got.Steps, 1999)
	_, err = a.Figures.Remarks(ctx, at, "a")
	require.NoError(t, err)
}

func TestWhatTwoWaysFoundIsEstimated(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	var samples []int64
	for _, titles := range [][]string{{"Heat one", "Heat two", "Heat three"}, {"Heat two", "Heat three", "Heat four",
		"Heat five"}} {
		in, err := bring(t, a, review, "sample", titles[0]+".ris", strings.NewReader(file(titles...)))
		require.NoError(t, err)
		samples = append(samples, *in.Sample)
	}
	_, err := bring(
		t,
		a,
		review,
		"keys",
		"keys.ris",
		strings.NewReader(file("Heat one", "Heat two", "Heat three", "Heat four", "Heat nine")),
	)
	require.NoError(t, err)
	way := func(i int) desk.RecordSet { return of(fmt.Sprintf(`{"kind":"sample","sample":%d}`, samples[i])) }
	got, err := a.Figures.Estimate(ctx, desk.At{Review: review}, figures.Ways{First: way(0), Second: way(1)})
	require.NoError(t, err)
	assert.Equal(t, []int{5, 3, 3, 2, 1}, []int{got.Known, got.First.Relevant, got.Second.Relevant, got.Both, got.Neither})
	assert.Equal(t, []string{"Heat one"}, got.First.Only)
	assert.InDelta(t, 5, got.Total.Value, 1e-9, "by itself 4·4/3 − 1, which is less than is known")
	assert.GreaterOrEqual(t, got.Total.Low, 5.0, "no less than what is known")
}
