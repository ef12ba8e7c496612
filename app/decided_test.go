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
	"tamiz/core/tally"
)

func TestADecisionSaysWhoMadeItAndInWhichSample(t *testing.T) {
	a, review, state := harvesting(t)
	sample := state.Samples[0].ID
	ines, bo := reviews.As(context.Background(), "In%C3%A9s%20Olivar"), reviews.As(context.Background(), "  Bo\x00 \t ")
	decide := func(ctx context.Context, as string) after {
		s, err := a.Change(
			ctx,
			review,
			state.Revision,
			change{
				What:      what,
				Decisions: []reviews.NewDecision{{Facet: tally.Words, Item: "field hands", State: as, Sample: &sample}},
			},
		)
		require.NoError(t, err)
		return s
	}
	first := decide(ines, "parked").Decisions
	require.Len(t, first, 1)
	assert.Equal(t, "Inés Olivar", first[0].Who)
	assert.Equal(t, sample, *first[0].Sample)

	// Someone else decides the same item: the last holds, and says so; undone, the first holds as it was.
	second := decide(bo, "dropped")
	assert.Equal(t, "dropped", second.Decisions[0].State)
	assert.Equal(t, "Bo", second.Decisions[0].Who)
	assert.Equal(t, "Bo", second.Undo.Who)
	back, err := a.Undo(ines, review)
	require.NoError(t, err)
	assert.Equal(t, first, back.Decisions)

	// Who says nothing is no one; a name that is too long is cut.
	decide(reviews.As(context.Background(), "%zz"), "open")
	assert.Empty(t, decide(context.Background(), "parked").Decisions[0].Who)
	long := decide(reviews.As(context.Background(), strings.Repeat("o", 500)), "dropped").Decisions[0].Who
	assert.Len(t, []rune(long), 81)
}

// A heading is one candidate, whichever screen it is decided on and however it is written there; all else is what
// was sent.
func TestADecisionIsAboutTheSameCandidateHoweverItIsWritten(t *testing.T) {
	a, review, state := harvesting(t)
	ctx := context.Background()
	decide := func(facet tally.Facet, item, as string) after {
		s, err := a.Change(
			ctx,
			review,
			state.Revision,
			change{What: what, Decisions: []reviews.NewDecision{{Facet: facet, Item: item, State: as}}},
		)
		require.NoError(t, err)
		return s
	}
	decide(tally.Headings, "Rural Life", "dropped")
	decide(tally.Headings, " rural  LIFE", "parked")
	decide(tally.Headings, "Población Rural", "dropped")
	decide(tally.Keywords, "rest breaks", "parked")
	decide(tally.Headings, "\u200b", "parked") // nothing to go by
	s := decide(tally.Words, "ʼn", "parked")   // an item of ŉ, which would lose its apostrophe if it were read again
	var made [][3]string
	for _, d := range s.Decisions {
		made = append(made, [3]string{d.Facet, d.Item, d.State})
	}
	assert.ElementsMatch(
		t,
		[][3]string{
			{"headings", "rural life", "parked"},
			{"headings", "poblacion rural", "dropped"},
			{"keywords", "rest breaks", "parked"},
			{"headings", "\u200b", "parked"},
			{"words", "ʼn", "parked"},
		},
		made,
	)
}

func TestWhoTookATermIsKeptWithIt(t *testing.T) {
	a, review, state := harvesting(t)
	d := state.Document
	term := text("t9", "field hands")
	term.From = &desk.Origin{Facet: tally.Words, Item: "field hands", Who: "Inés", At: "2026-01-02T10:00:00Z"}
	d.Blocks[0].Terms = append(d.Blocks[0].Terms, term)
	s, err := a.Change(context.Background(), review, state.Revision, change{What: what, Document: &d})
	require.NoError(t, err)
	assert.Equal(t, term.From, s.Document.Blocks[0].Terms[1].From)

	term.From.Who = strings.Repeat("o", 500)
	d.Blocks[0].Terms[1] = term
	_, err = a.Change(context.Background(), review, s.Revision, change{What: what, Document: &d})
	assert.Equal(t, "from", problem(t, err).Field)
}

func TestAuthorsArePartedForTheWholeReview(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	_, err := bring(t, a, review, "sample", "names.ris", strings.NewReader(strings.Join([]string{
		"TY  - JOUR", "TI  - One", "AU  - Olmo, Marta", "AU  - Ruz, P.", "ER  - ", "TY  - JOUR", "TI  - Two",
		"AU  - Olmo, Mario", "AU  - Ruz, P.", "ER  - ", "TY  - JOUR", "TI  - Three", "AU  - Olmo, M.", "ER  - ", "",
	}, "\n")))
	require.NoError(t, err)
	authors := func() map[string]int {
		found, err := a.Tally(ctx, review, tally.Authors)
		require.NoError(t, err)
		out := map[string]int{}
		for _, r := range found.Rows {
			out[r.Item] = r.Records
		}
		return out
	}
	assert.Equal(t, map[string]int{"Olmo, M.": 3, "Ruz, P.": 2}, authors())

	r, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	d := r.Document
	d.Parted = []string{"Olmo, Mario"}
	s, err := a.Change(ctx, review, r.Revision, change{What: what, Document: &d})
	require.NoError(t, err)
	assert.Equal(t, map[string]int{"Olmo, M.": 2, "Olmo, Mario": 1, "Ruz, P.": 2}, authors())
	facet, name := tally.Authors, "Olmo, Mario"
	assert.Equal(t, []string{"Two"}, titles(t, a, review, itemSet(facet, name)))
	teams, err := a.Teams(ctx, review)
	require.NoError(t, err)
	assert.Empty(t, teams.Teams, "no two of them signed two records")

	_, err = a.Undo(ctx, review)
	require.NoError(t, err)
	assert.Len(t, authors(), 2)

	for i := range 2001 {
		d.Parted = append(d.Parted, fmt.Sprint("Olmo, M. ", i))
	}
	_, err = a.Change(ctx, review, s.Revision, change{What: what, Document: &d})
	assert.Equal(t, "parted", problem(t, err).Field)
}

func TestWhatALimitWouldLoseAndHowFarDownTheListHalfIs(t *testing.T) {
	a, review, _ := harvesting(t)
	ctx := context.Background()
	years, err := a.Tally(ctx, review, tally.Years)
	require.NoError(t, err)
	for _, r := range years.Rows {
		before := int(r.Item[3]-'0') * 4 // four of each year from 2000 on
		assert.Equal(t, &figures.Loss{Records: before, Share: float64(before) / 40}, r.Loses, r.Item)
		assert.Equal(t, float64(r.Unindexed)/4, *r.Bare, r.Item)
	}
	languages, err := a.Tally(ctx, review, tally.Languages)
	require.NoError(t, err)
	assert.Equal(t, 1.0, languages.MissingShare)
	types, err := a.Tally(ctx, review, tally.Types)
	require.NoError(t, err)
	lost := map[string]figures.Loss{}
	for _, r := range types.Rows {
		lost[r.Item] = *r.Loses
	}
	assert.Equal(
		t,
		map[string]figures.Loss{"Journal Article": {Records: 20, Share: 0.5}, "Trial Report": {Records: 20, Share: 0.5}},
		lost,
		"the code of the file format is no type",
	)
	journals, err := a.Tally(ctx, review, tally.Journals)
	require.NoError(t, err)
	assert.Equal(t, 2, journals.Half) // of four that hold ten each
	for _, r := range journals.Rows {
		assert.Contains(t, []float64{0.25, 0.5, 0.75, 1}, *r.UpTo)
		assert.Contains(t, []float64{0, 0.5}, *r.Bare, "two of the four journals hold all records without headings")
	}
}

func TestAnItemOfWhatIsLookedAtIsLookedAtInItsTurn(t *testing.T) {
	a, review, state := harvesting(t)
	ctx := context.Background()
	look := func(set string) (*figures.Tally, error) {
		s := of(set)
		_, err := a.SetView(ctx, review, desk.NewLook{Sample: &state.Samples[0].ID, Rest: true, Set: &s})
		require.NoError(t, err)
		return a.Tally(ctx, review, tally.Words)
	}
	// Of the ten records of block A, those of 2004: one in four has that year.
	whole, err := look(`{"kind":"item","facet":"years","item":"2004"}`)
	require.NoError(t, err)
	assert.Equal(t, [2]int{4, 36}, [2]int{whole.Looked, whole.Contrast})
	within, err := look(
		`{"kind":"within","of":{"kind":"item","facet":"years","item":"2004"},"in":{"kind":"block","block":"a"}}`,
	)
	require.NoError(t, err)
	assert.Equal(t, 10, within.Looked+within.Contrast, "against the rest of that block's records alone")
	assert.Equal(t, 2, within.Looked)
	third, err := look(
		`{"kind":"within","of":{"kind":"item","facet":"types","item":"Trial Report"},"in":{"kind":"within","of":{"kind":"item","facet":"years","item":"2004"},"in":{"kind":"block","block":"a"}}}`,
	)
	require.NoError(t, err)
	assert.Equal(t, 2, third.Looked+third.Contrast)
	deep := of(
		strings.Repeat(
			`{"kind":"within","of":{"kind":"all"},"in":`,
			9,
		) + `{"kind":"block","block":"a"}` + strings.Repeat(
			"}",
			9,
		),
	)
	_, err = a.SetView(ctx, review, desk.NewLook{Sample: &state.Samples[0].ID, Set: &deep})
	assert.Equal(t, "within", problem(t, err).Field)
}

func TestSubstancesAreCountedWhereRecordsSayThem(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	_, err := bring(t, a, review, "sample", "salts.json", strings.NewReader(`[
		{"id":"1","type":"article-journal","title":"Salt for crews","custom":{"substances":["Velkanide","Common Salt"]}},
		{"id":"2","type":"article-journal","title":"Salt again","custom":{"substances":["velkanide"]}},
		{"id":"3","type":"article-journal","title":"Shade alone"}]`))
	require.NoError(t, err)
	found, err := a.Tally(ctx, review, tally.Substances)
	require.NoError(t, err)
	counts := map[string]int{}
	for _, r := range found.Rows {
		counts[r.Key+"/"+r.Item] = r.Records
	}
	assert.Equal(t, map[string]int{"velkanide/Velkanide": 2, "common salt/Common Salt": 1}, counts)
	assert.Equal(t, 1, found.Missing)
	facet, item := tally.Substances, "Velkanide"
	assert.Equal(t, []string{"Salt for crews", "Salt again"}, titles(t, a, review, itemSet(facet, item)))
	_, err = a.Suits(ctx, review, tally.Substances)
	require.NoError(t, err)
}

func TestItIsToldHowFarWhatIsLookedAtIs(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	m, err := a.Making(ctx, review)
	require.NoError(t, err)
	assert.Equal(t, "ready", m.Stage, "there is nothing to wait for")
	_, err = bring(t, a, review, "sample", "crews.ris", strings.NewReader(crews()))
	require.NoError(t, err)
	_, err = a.Tally(ctx, review, tally.Words)
	require.NoError(t, err)
	m, err = a.Making(ctx, review)
	require.NoError(t, err)
	assert.Equal(t, &desk.Making{Stage: "ready", Records: 40, Part: 1}, m)
	_, err = a.Making(ctx, 99999)
	assert.Equal(t, 404, problem(t, err).Status)
}
