package app_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/core/set"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

// crews is a sample of forty records: people of two kinds, what is done for them, years, authors, journals.
func crews() string {
	var b strings.Builder
	people := []string{"cane cutters", "field hands", "nurses", "teachers"}
	relief := []string{"shade tents", "rest breaks", "night lights", "quiet rooms"}
	verbs := []string{"slept", "worked", "rested"}
	for i := range 40 {
		who, what, did := people[i%4], relief[i/4%4], verbs[i%3]
		fmt.Fprintf(
			&b,
			"TY  - JOUR\nAN  - L%d\nTI  - %s for %s %d: a trial\nAB  - %s. %s %s well.\nPY  - %d\nT2  - Annals of %s\nAU  "+
				"- Velkana, Temi\nAU  - Osolana, Ida\nM3  - %s\n",
			i,
			what,
			who,
			i,
			what,
			who,
			did,
			2000+i%10,
			who,
			[]string{"Trial Report", "Journal Article"}[i%2],
		)
		if i%2 == 0 {
			b.WriteString("KW  - *Warm Work\n")
		}
		b.WriteString("ER  - \n\n")
	}
	return b.String()
}

func text(id, s string) desk.Term {
	return desk.Term{ID: id, Term: strategy.Term{Kind: strategy.TextTerm, Text: s, Field: "text", On: true}}
}

// harvesting returns a review with crews as its sample and two blocks begun.
func harvesting(t *testing.T) (*trial, int64, after) {
	a, review := start(t)
	ctx := context.Background()
	_, err := bring(t, a, review, "sample", "crews.ris", strings.NewReader(crews()))
	require.NoError(t, err)
	r, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	d := r.Document
	d.Blocks = []desk.Block{block("a", "A", text("t1", "cane cutters")), block("b", "B", text("t2", "shade tents"))}
	state, err := a.Change(
		ctx,
		review,
		r.Revision,
		change{What: reviews.What{Key: "other", Params: map[string]string{}}, Document: &d},
	)
	require.NoError(t, err)
	return a, review, state
}

func TestAnySetOfRecordsIsLookedAtFromAbove(t *testing.T) {
	a, review, state := harvesting(t)
	ctx := context.Background()
	sample := state.Samples[0].ID
	look := func(set string) (*figures.Tally, error) {
		v := desk.NewLook{Sample: &sample, Rest: true}
		if set != "" {
			s := of(set)
			v.Set = &s
		}
		if _, err := a.SetView(ctx, review, v); err != nil {
			return nil, err
		}
		return a.Tally(ctx, review, tally.Words)
	}
	for set, want := range map[string][2]int{
		"":                             {40, 0},
		`{"kind":"any"}`:               {19, 21},
		`{"kind":"block","block":"a"}`: {10, 30},
		`{"kind":"spot","block":"a"}`:  {9, 31}, // what B finds and A does not
		`{"kind":"item","facet":"years","item":"2003"}`:       {4, 36},
		`{"kind":"team","authors":["velkana|t","osolana|i"]}`: {40, 0},
		`{"kind":"item","facet":"languages","item":"x"}`:      {0, 40},
	} {
		got, err := look(set)
		require.NoError(t, err, set)
		assert.Equal(t, want, [2]int{got.Looked, got.Contrast}, set)
		assert.Equal(t, set == `{"kind":"any"}`, got.BySuit, set)
		for _, r := range got.Rows {
			assert.LessOrEqual(t, r.Records, got.Looked, "%s %s", set, r.Item)
		}
	}

	// What the blocks find is taken from the revision at which it was chosen; it does not change by itself.
	got, err := look(`{"kind":"any"}`)
	require.NoError(t, err)
	require.Equal(t, 19, got.Looked)
	d := state.Document
	d.Blocks[0].Terms = append(d.Blocks[0].Terms, text("t3", "field hands"))
	_, err = a.Change(
		ctx,
		review,
		state.Revision,
		change{What: reviews.What{Key: "other", Params: map[string]string{}}, Document: &d},
	)
	require.NoError(t, err)
	got, err = a.Tally(ctx, review, tally.Words)
	require.NoError(t, err)
	assert.Equal(t, 19, got.Looked)
	got, err = look(`{"kind":"any"}`) // chosen again
	require.NoError(t, err)
	assert.Equal(t, 26, got.Looked)

	// What it was taken from can go: the sample is looked at instead.
	other, err := bring(t, a, review, "sample", "other.ris", strings.NewReader(file("Heat in crews")))
	require.NoError(t, err)
	got, err = look(fmt.Sprintf(`{"kind":"sample","sample":%d}`, *other.Sample))
	require.NoError(t, err)
	assert.Equal(t, 1, got.Looked)
	r, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	yes := true
	_, err = a.Change(
		ctx,
		review,
		r.Revision,
		change{What: what, Samples: []reviews.SamplePatch{{ID: *other.Sample, Deleted: &yes}}},
	)
	require.NoError(t, err)
	got, err = a.Tally(ctx, review, tally.Words)
	require.NoError(t, err)
	assert.Equal(t, 40, got.Looked)

	term, nowhere, many := of(
		`{"kind":"term","term":{"id":"x","kind":"text","text":"*","field":"text","on":true}}`,
	), of(
		`{"kind":"block","block":"zz"}`,
	), desk.RecordSet{
		Set: &set.Picked{IDs: make([]int64, 40_000)},
	}
	for name, v := range map[string]desk.NewLook{
		"a term that cannot be searched": {Sample: &sample, Set: &term},
		"a block that is not there":      {Sample: &sample, Set: &nowhere},
		"too much":                       {Sample: &sample, Set: &many},
	} {
		_, err := a.SetView(ctx, review, v)
		var p *problems.Problem
		assert.ErrorAs(t, err, &p, name)
	}
}

func TestItIsToldWhichBlocksFindAnItemAlready(t *testing.T) {
	a, review, _ := harvesting(t)
	suits, err := a.Suits(context.Background(), review, tally.Words)
	require.NoError(t, err)
	inside := map[string][]string{}
	for _, s := range suits.Items {
		if len(s.Inside) > 0 {
			inside[s.Item] = s.Inside
		}
	}
	assert.Equal(t, []string{"a"}, inside["cane cutters"])
	assert.Equal(t, []string{"b"}, inside["shade tents"])
	assert.NotContains(t, inside, "field hands")

	alike, err := a.Alike(context.Background(), review, figures.AlikeQuestion{Item: "cane cutters"})
	require.NoError(t, err)
	require.True(t, alike.Kept)
	assert.NotEmpty(t, alike.Words)
	none, err := a.Alike(context.Background(), review, figures.AlikeQuestion{Item: "nowhere"})
	require.NoError(t, err)
	assert.False(t, none.Kept)
	_, err = a.Alike(context.Background(), review, figures.AlikeQuestion{})
	assert.Error(t, err)
}

func TestTypesTeamsAndWhatIsNotSaid(t *testing.T) {
	a, review, _ := harvesting(t)
	ctx := context.Background()
	types, err := a.Tally(ctx, review, tally.Types)
	require.NoError(t, err)
	trial := types.Said[0]
	assert.Equal(t, []string{"Trial Report"}, trial.Indexed)
	assert.Contains(t, trial.Words, "randomi?ed")
	trial.Indexed, trial.Words = nil, nil
	assert.Equal(t, figures.Said{Kind: "trial", Typed: 20, Titled: 40, Both: 20, Either: 40}, trial)
	languages, err := a.Tally(ctx, review, tally.Languages)
	require.NoError(t, err)
	assert.Equal(t, 40, languages.Missing)
	years, err := a.Tally(ctx, review, tally.Years)
	require.NoError(t, err)
	for _, r := range years.Rows {
		assert.Equal(t, 4, r.Records, r.Item)
		assert.Contains(t, []int{0, 4}, r.Unindexed, r.Item)
	}
	teams, err := a.Teams(ctx, review)
	require.NoError(t, err)
	require.Len(t, teams.Teams, 1)
	assert.Len(t, titles(t, a, review, desk.RecordSet{Set: &set.Team{Authors: teams.Teams[0].Keys}}), 40)
	assert.Equal(
		t,
		figures.Team{
			Authors: []string{"Osolana, Ida", "Velkana, Temi"},
			Keys:    []string{"osolana|i", "velkana|t"},
			Records: 40,
			From:    2000,
			To:      2009,
		},
		teams.Teams[0],
	)

	item, err := a.Item(ctx, review, tally.Words, "cane cutters")
	require.NoError(t, err)
	assert.Equal(
		t,
		[]figures.Way{{How: "phrase", Records: 10}, {How: "near", Records: 10}, {How: "words", Records: 10}},
		item.Ways,
	)
	assert.Equal(t, 0, *item.TitleOnly)
	tree, err := a.HeadingTree(ctx, review)
	require.NoError(t, err)
	assert.Empty(t, tree.Nodes, "without a vocabulary there is no tree")
}

func TestATallyIsSavedAsAFile(t *testing.T) {
	a, review, _ := harvesting(t)
	read := func(format string) []byte {
		file, name, err := a.TallyFile(context.Background(), review, tally.Words, format, "", false)
		require.NoError(t, err)
		assert.True(t, strings.HasSuffix(name, "words."+format), name)
		b, err := io.ReadAll(file)
		require.NoError(t, err)
		return b
	}
	rows, err := csv.NewReader(bytes.NewReader(read("csv"))).ReadAll()
	require.NoError(t, err)
	shown, err := a.Tally(context.Background(), review, tally.Words)
	require.NoError(t, err)
	require.Len(t, rows, len(shown.Rows)+1)
	for i, r := range shown.Rows {
		assert.Equal(t, r.Item, rows[i+1][0])
		assert.Equal(t, fmt.Sprint(r.Records), rows[i+1][1])
	}
	book, err := excelize.OpenReader(bytes.NewReader(read("xlsx")))
	require.NoError(t, err)
	defer book.Close()
	sheet, err := book.GetRows("Tally")
	require.NoError(t, err)
	assert.Len(t, sheet, len(shown.Rows)+1)
}
