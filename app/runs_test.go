package app_test

import (
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/runs"
	"tamiz/core/bib"
	"tamiz/exchange/ris"
	"tamiz/store"
)

// crewsStrategy gives a review a strategy of two blocks.
func crewsStrategy(t *testing.T, a *trial, review int64) {
	t.Helper()
	doc := desk.Document{
		Blocks: []desk.Block{
			block("a", "A", term("1", "farmworker*"), term("2", "crew*")),
			block("b", "B", term("3", "heat"), term("4", "rest")),
		},
	}
	_, err := a.Change(t.Context(), review, 1, change{What: what, Document: &doc})
	require.NoError(t, err)
}

// everywhere waits until all that was asked for is there.
func everywhere(t testing.TB, a *trial, review int64) (out *runs.Everywhere) {
	t.Helper()
	until(t, a, review, func() bool {
		var err error
		out, err = a.Runs.Everywhere(t.Context(), desk.At{Review: review})
		require.NoError(t, err)
		for _, s := range out.Sources {
			if s.Waiting || s.Fetch == "waiting" || s.Fetch == "drawing" {
				return false
			}
		}
		return true
	})
	return out
}

// logged returns the entries of a review but those that were counted in passing.
func logged(t *testing.T, a *trial, review int64) []runs.Run {
	t.Helper()
	out, err := a.Runs.Runs(t.Context(), review, 0, false)
	require.NoError(t, err)
	return out.Runs
}

func TestAStrategyIsRunEverywhereAndItsAnswersAreSetAgainstEachOther(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	var keys strings.Builder
	for _, k := range w.Keys {
		require.NoError(t, ris.Write(&keys, k))
	}
	_, err := bring(t, a, review, "keys", "keys.ris", strings.NewReader(keys.String()))
	require.NoError(t, err)
	before := everywhere(t, a, review)
	assert.Nil(t, before.Together)
	assert.Nil(t, before.Sources[0].Run)
	assert.NotEmpty(t, before.Sources[0].Query, "how it would be asked is known before it is")

	ids := []int64{w.ids["vilano"], w.ids["almagre"], w.ids["surco"]}
	require.NoError(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: ids, Records: 5000}))
	out := everywhere(t, a, review)
	require.True(t, out.Exact)
	all := map[string][]*bib.Record{"Almagre": w.Almagre, "Surco": w.Surco, "Vilano": w.Vilano}
	sum := int64(0)
	for _, s := range out.Sources {
		require.NotNil(t, s.Run, s.Name)
		require.NotNil(t, s.Run.Records, s.Name)
		assert.False(t, s.Stale)
		assert.Equal(t, int(*s.Run.Records), s.Fetched)
		assert.Less(t, *s.Run.Records, int64(len(all[s.Name])))
		assert.Equal(t, s.Only.Low, s.Only.High, "it was counted")
		assert.LessOrEqual(t, s.Caught, s.Held)
		sum += *s.Run.Records
	}
	assert.Equal(t, sum, out.Records)
	assert.Less(t, out.Together.Works, int(sum), "some are in two of them")
	only, shared := 0, 0
	for _, s := range out.Sources {
		only += s.Only.Works
	}
	for _, p := range out.Pairs {
		shared += p.Works.Works
	}
	assert.Len(t, out.Pairs, 3)
	assert.Positive(t, shared)
	assert.GreaterOrEqual(t, out.Together.Works, only)
	samples, err := a.Draws.Draws(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, samples, "what was fetched for a run is no sample by itself")

	// Part of each: an estimate whose interval is honest.
	require.NoError(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: ids, Records: 60}))
	part := everywhere(t, a, review)
	assert.False(t, part.Exact)
	assert.LessOrEqual(t, part.Together.Low, out.Together.Works)
	assert.GreaterOrEqual(t, part.Together.High, out.Together.Works)
	assert.Less(t, part.Together.Low, part.Together.High)

	// Its records become a sample when somebody says so.
	entries := logged(t, a, review)
	require.Len(t, entries, 6)
	require.NoError(t, a.Runs.SampleOfRun(t.Context(), review, entries[0].ID))
	made, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, made.Samples, 1)
	assert.Equal(t, 60, made.Samples[0].Records)
	later, err := a.Runs.Runs(t.Context(), review, entries[2].ID, false)
	require.NoError(t, err)
	assert.Len(t, later.Runs, 3)

	// Of one nothing is fetched: it is no part of what is set against each other, and that is said.
	require.NoError(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: ids[:1]}))
	less := everywhere(t, a, review)
	assert.Equal(t, less.Records-less.Among, *less.Sources[2].Run.Records)
	assert.Nil(t, less.Sources[2].Only)
	assert.Len(t, less.Pairs, 1)
	record, err := a.Written.Record(t.Context(), desk.At{Review: review})
	require.NoError(t, err)
	assert.Nil(t, record.Flow.Left, "how many are left is not known")
	assert.Len(t, section(t, record, "sameWorks").Parts, 2)

	// What was changed since is said.
	doc := made.Document
	doc.Blocks[0].Terms = append(doc.Blocks[0].Terms, term("5", "field hand*"))
	_, err = a.Change(t.Context(), review, made.Revision, change{What: what, Document: &doc})
	require.NoError(t, err)
	assert.True(t, everywhere(t, a, review).Sources[0].Stale)
}

func TestASourceThatDoesNotAnswerIsLoggedAsSuch(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	assert.Equal(
		t,
		"no-query",
		problem(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: []int64{w.ids["surco"]}})).Type,
	)
	crewsStrategy(t, a, review)
	w.shut.Store(true)
	require.NoError(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: []int64{w.ids["surco"]}, Records: 10}))
	out := everywhere(t, a, review)
	for _, s := range out.Sources {
		if s.Name != "Surco" {
			assert.Nil(t, s.Run)
			continue
		}
		require.NotNil(t, s.Run)
		assert.Nil(t, s.Run.Records)
		assert.Contains(t, s.Run.Problem.Title, "Surco")
	}
	w.shut.Store(false)
	require.NoError(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: []int64{w.ids["surco"]}}))
	everywhere(t, a, review)
	entries := logged(t, a, review)
	require.Len(t, entries, 2, "what was logged stays")
	assert.NotNil(t, entries[0].Records)

	for name, n := range map[string]runs.NewRuns{"none": {}, "too many records": {Sources: []int64{1},
		Records: 1 << 30}, "fewer than none": {Sources: []int64{1}, Records: -1}} {
		assert.Equal(t, 422, problem(t, a.Runs.Run(t.Context(), review, n)).Status, name)
	}
	assert.Equal(t, 404, problem(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: []int64{999}})).Status)
	assert.Equal(t, 404, problem(t, a.Runs.Run(t.Context(), 999, runs.NewRuns{Sources: []int64{1}})).Status)
	assert.Equal(t, 404, problem(t, a.Runs.SampleOfRun(t.Context(), review, entries[0].ID)).Status, "nothing was fetched")
}

func TestASearchMadeByHandIsWrittenDown(t *testing.T) {
	a, review := start(t)
	found := int64(41)
	at := time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)
	require.NoError(
		t,
		a.Runs.WriteDown(
			t.Context(),
			review,
			runs.HandRun{
				Place:   " The card box of the Olmo library ",
				Query:   "heat AND crews",
				Records: &found,
				At:      at,
				Note:    "drawer 4",
			},
		),
	)
	entries := logged(t, a, review)
	require.Len(t, entries, 1)
	assert.Equal(t, "The card box of the Olmo library", entries[0].Place)
	assert.Equal(t, found, *entries[0].Records)
	assert.True(t, at.Equal(entries[0].At))
	few := int64(-1)
	for field, h := range map[string]runs.HandRun{
		"way": {Place: "x", At: at, Way: "guess"}, "place": {At: at}, "at": {Place: "x"}, "records": {Place: "x", At: at,
			Records: &few}, "note": {Place: "x", At: at, Note: strings.Repeat("x", 5000)},
		"query": {Place: "x", At: at, Query: strings.Repeat("x", 1<<21)},
	} {
		assert.Equal(t, field, problem(t, a.Runs.WriteDown(t.Context(), review, h)).Field)
	}
	assert.Equal(
		t,
		"at",
		problem(
			t,
			a.Runs.WriteDown(t.Context(), review, runs.HandRun{Place: "x", At: time.Now().Add(72 * time.Hour)}),
		).Field,
	)
}

func TestWhatIsCountedInPassingIsLoggedApart(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	almagre := w.ids["almagre"]
	_, err := a.SetView(t.Context(), review, desk.NewLook{Source: &almagre, Rest: true})
	require.NoError(t, err)
	c := counted(t, a, review)
	all, err := a.Runs.Runs(t.Context(), review, 0, true)
	require.NoError(t, err)
	require.Len(t, all.Runs, 1)
	assert.EqualValues(t, c.Whole.Records, *all.Runs[0].Records)
	few, err := a.Runs.Runs(t.Context(), review, 0, false)
	require.NoError(t, err)
	assert.Empty(t, few.Runs)
	assert.Equal(t, 1, few.Passing)
}

func TestARunThatIsAskedForTwiceUnderOneNameIsMadeOnce(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	ctx := store.AsRequest(t.Context(), uuid.New())
	h := runs.HandRun{Place: "Card box", At: time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)}
	require.NoError(t, a.Runs.WriteDown(ctx, review, h))
	require.NoError(t, a.Runs.WriteDown(ctx, review, h), "its answer was lost")
	assert.Len(t, logged(t, a, review), 1)
	ctx = store.AsRequest(t.Context(), uuid.New())
	for range 2 {
		require.NoError(t, a.Runs.Run(ctx, review, runs.NewRuns{Sources: []int64{w.ids["surco"]}}))
	}
	everywhere(t, a, review)
	assert.Len(t, logged(t, a, review), 2)
}

func TestAnAnswerThatWasNotFetchedWholeIsNotTakenForWhole(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	ids := []int64{w.ids["almagre"], w.ids["surco"]}
	require.NoError(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: ids, Records: 5000}))
	whole := everywhere(t, a, review)
	require.True(t, whole.Exact)
	// A source that counts records and then does not give them.
	w.lose = "surco"
	require.NoError(t, a.Runs.Run(t.Context(), review, runs.NewRuns{Sources: ids, Records: 5000}))
	part := everywhere(t, a, review)
	assert.False(t, part.Exact)
	assert.Less(t, part.Sources[1].Fetched, whole.Sources[1].Fetched)
	since, err := a.Runs.Since(t.Context(), review)
	require.NoError(t, err)
	for _, s := range since.Sources {
		assert.NotEqual(t, "Surco", s.Name, "what is missing is not gone")
	}
}
