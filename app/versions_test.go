package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/app/runs"
	"tamiz/core/review"
	"tamiz/core/set"
)

func TestVersionsAreKeptComparedAndGoneBackTo(t *testing.T) {
	a, id := start(t)
	at := desk.At{Review: id}
	_, err := bring(
		t,
		a,
		id,
		"sample",
		"all.ris",
		strings.NewReader(file("Heat in crews", "Heat in farmworkers", "Rest of farmworkers", "Shade")),
	)
	require.NoError(t, err)
	_, err = bring(t, a, id, "keys", "keys.ris", strings.NewReader(file("Heat in farmworkers", "Heat among pickers")))
	require.NoError(t, err)
	crewsStrategy(t, a, id)
	require.NoError(
		t,
		a.Reviews.Keep(t.Context(), id, reviews.VersionEdit{Name: " First draft ", Note: "before anything was harvested"}),
	)
	assert.Equal(t, "name", problem(t, a.Reviews.Keep(t.Context(), id, reviews.VersionEdit{})).Field)

	// A large step keeps what was before it by itself; a small one does not.
	change1 := func(key string, edits ...review.Edit) {
		t.Helper()
		now, err := a.Reviews.Review(t.Context(), id)
		require.NoError(t, err)
		_, err = a.Reviews.Change(
			t.Context(),
			id,
			now.Revision,
			reviews.Change{What: reviews.What{Key: key, Params: map[string]string{}}, Edits: edits},
		)
		require.NoError(t, err)
	}
	change1("addTerm", &review.AddTerm{Block: "a", Term: term("5", "picker*")})
	change1("plan", &review.AddTerm{Block: "b", Term: term("6", "shade")}, &review.RemoveTerm{Block: "a", ID: "2"})
	all, err := a.Figures.Versions(t.Context(), at)
	require.NoError(t, err)
	require.Len(t, all, 3)
	assert.Equal(t, []string{"First draft", "", ""}, []string{all[0].Name, all[1].Name, all[2].Name})
	assert.Equal(t, "plan", all[1].Why)
	assert.Zero(t, all[2].ID, "what holds now")
	assert.Equal(t, []int{4, 5, 5}, []int{all[0].Lines, all[1].Lines, all[2].Lines})
	assert.Equal(t, []int{3, 3, 2}, []int{*all[0].Records, *all[1].Records, *all[2].Records})
	assert.Equal(t, []int{1, 2, 2}, []int{all[0].Caught, all[1].Caught, all[2].Caught})

	c, err := a.Figures.CompareVersions(t.Context(), at, all[0].Revision, all[2].Revision)
	require.NoError(t, err)
	assert.Equal(t, [5]int{3, 2, 2, 0, 1}, [5]int{c.Old, c.New, c.Kept, c.Gained, c.Lost})
	require.Len(t, c.Brought, 1)
	assert.Equal(t, "Heat among pickers", c.Brought[0].Title)
	assert.Empty(t, c.Dropped)
	assert.Len(t, c.Lines, 3)
	assert.Contains(t, c.Words, "Lines added: picker* (A); shade (B).")
	assert.Contains(t, c.Words, "0 gained, 1 lost, 2 kept")
	back, err := a.Figures.CompareVersions(t.Context(), at, all[2].Revision, all[0].Revision)
	require.NoError(t, err)
	assert.Equal(t, [2]int{c.Gained, c.Lost}, [2]int{back.Lost, back.Gained}, "turned round")
	same, err := a.Figures.CompareVersions(t.Context(), at, all[0].Revision, all[0].Revision)
	require.NoError(t, err)
	assert.Empty(t, same.Lines)
	assert.Zero(t, same.Gained+same.Lost)
	_, err = a.Figures.CompareVersions(t.Context(), at, 1, 999)
	assert.Equal(t, 404, problem(t, err).Status)

	// What was lost opens.
	lost, err := a.Desk.SetIDs(
		t.Context(),
		at,
		&set.Less{
			Of:   set.Of{Set: &set.Strategy{Revision: all[0].Revision}},
			Less: set.Of{Set: &set.Strategy{Revision: all[2].Revision}},
		},
	)
	require.NoError(t, err)
	assert.Len(t, lost, 1)

	// Back to the first, and nothing newer is lost; then that is taken back too.
	step, err := a.Reviews.GoBack(t.Context(), id, all[0].ID)
	require.NoError(t, err)
	assert.NotEmpty(t, step.Edits)
	now, err := a.Figures.Versions(t.Context(), at)
	require.NoError(t, err)
	require.Len(t, now, 4)
	assert.Equal(t, "goBack", now[2].Why)
	assert.Equal(t, 4, now[3].Lines)
	c, err = a.Figures.CompareVersions(t.Context(), at, all[0].Revision, now[3].Revision)
	require.NoError(t, err)
	assert.Empty(t, c.Lines)
	_, err = a.Reviews.Undo(t.Context(), id)
	require.NoError(t, err)
	again, err := a.Figures.Versions(t.Context(), at)
	require.NoError(t, err)
	assert.Equal(t, 5, again[len(again)-1].Lines)
	_, err = a.Reviews.GoBack(t.Context(), id, 999)
	assert.Equal(t, 404, problem(t, err).Status)

	// A second line from the first, in a review of its own, with the same key studies.
	line, err := a.Reviews.BeginFrom(t.Context(), id, all[0].ID, reviews.NewLine{Name: "A narrower one"})
	require.NoError(t, err)
	begun, err := a.Reviews.Review(t.Context(), line.ID)
	require.NoError(t, err)
	assert.Len(t, begun.Document.Blocks, 2)
	assert.Len(t, begun.Document.Blocks[0].Terms, 2, "as the first draft had them")
	assert.Len(t, begun.KeyStudies, 2)
	assert.Empty(t, begun.Samples)
	own, err := a.Figures.Versions(t.Context(), desk.At{Review: line.ID})
	require.NoError(t, err)
	require.Len(t, own, 1)
	assert.Equal(t, "First draft", own[0].Name)
	assert.Contains(t, own[0].Note, "from ")
	_, err = a.Reviews.BeginFrom(t.Context(), id, 999, reviews.NewLine{Name: "x"})
	assert.Equal(t, 404, problem(t, err).Status)
	_, err = a.Reviews.BeginFrom(t.Context(), id, all[0].ID, reviews.NewLine{})
	assert.Equal(t, "name", problem(t, err).Field)

	// Named by somebody, and forgotten; the revision stays.
	require.NoError(t, a.Reviews.NameVersion(t.Context(), id, all[1].ID, reviews.VersionEdit{Name: "Before the plan"}))
	require.NoError(t, a.Reviews.ForgetVersion(t.Context(), id, all[0].ID, true))
	assert.Equal(t, 404, problem(t, a.Reviews.ForgetVersion(t.Context(), id, all[0].ID, true)).Status)
	left, err := a.Figures.Versions(t.Context(), at)
	require.NoError(t, err)
	assert.Equal(t, "Before the plan", left[0].Name)
	require.NoError(t, a.Reviews.ForgetVersion(t.Context(), id, all[0].ID, false))
	left, err = a.Figures.Versions(t.Context(), at)
	require.NoError(t, err)
	assert.Equal(t, "First draft", left[0].Name, "that can be taken back")
}

func TestASourceIsAskedForWhatOnlyOneVersionFinds(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, id)
	now, err := a.Reviews.Review(t.Context(), id)
	require.NoError(t, err)
	_, err = a.Reviews.Change(
		t.Context(),
		id,
		now.Revision,
		reviews.Change{What: what, Edits: desk.Edits{&review.RemoveTerm{Block: "a", ID: "2"}}},
	)
	require.NoError(t, err)
	b, err := a.Sources.BetweenVersions(t.Context(), id, w.ids["almagre"], now.Revision, now.Revision+1)
	require.NoError(t, err)
	assert.Zero(t, b.Gained.Records)
	assert.Positive(t, b.Lost.Records)
	_, err = a.Sources.BetweenVersions(t.Context(), id, w.ids["almagre"], 1, now.Revision)
	assert.Equal(t, "no-query", problem(t, err).Type, "the first revision has no block")
	w.shut.Store(true)
	_, err = a.Sources.BetweenVersions(t.Context(), id, w.ids["surco"], now.Revision, now.Revision+1)
	assert.Contains(t, problem(t, err).Title, "Surco")
}

func TestWhatSourcesSaidStandsBesideTheVersion(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, id)
	require.NoError(t, a.Reviews.Keep(t.Context(), id, reviews.VersionEdit{Name: "Draft"}))
	counts := func() (out [][]figures.VersionCount) {
		all, err := a.Figures.Versions(t.Context(), desk.At{Review: id})
		require.NoError(t, err)
		for _, v := range all {
			out = append(out, v.Counts)
		}
		return out
	}
	require.Len(t, counts(), 1)
	assert.Empty(t, counts()[0])
	require.NoError(t, a.Runs.Run(t.Context(), id, runs.NewRuns{Sources: []int64{w.ids["surco"]}}))
	everywhere(t, a, id)
	require.Len(t, counts()[0], 1)
	assert.Equal(t, "Surco", counts()[0][0].Name)

	// What changes nothing that is found is the same version still; what does is another.
	edit := func(e review.Edit) {
		now, err := a.Reviews.Review(t.Context(), id)
		require.NoError(t, err)
		_, err = a.Reviews.Change(
			t.Context(),
			id,
			now.Revision,
			reviews.Change{What: reviews.What{Key: "x", Params: map[string]string{}}, Edits: review.Edits{e}},
		)
		require.NoError(t, err)
	}
	edit(&review.SetQuestion{Text: "Does shade help?"})
	require.NoError(t, a.Runs.Run(t.Context(), id, runs.NewRuns{Sources: []int64{w.ids["almagre"]}}))
	everywhere(t, a, id)
	require.Len(t, counts()[0], 2)
	assert.Equal(t, "Almagre", counts()[0][0].Name)
	all, err := a.Figures.Versions(t.Context(), desk.At{Review: id})
	require.NoError(t, err)
	assert.Equal(
		t,
		[]int{logged(t, a, id)[0].Revision},
		all[0].Same,
		"the run is of the version, though the question changed",
	)
	assert.NotEqual(t, all[0].Revision, all[0].Same[0])
	edit(&review.AddTerm{Block: "a", Term: term("9", "picker*")})
	require.Len(t, counts(), 2)
	assert.Len(t, counts()[0], 2)
	assert.Empty(t, counts()[1], "what holds now was not asked")

	// A version is asked by itself, whatever holds now.
	require.NoError(t, a.Sources.CountVersion(t.Context(), id, all[0].ID, w.ids["vilano"]))
	require.Len(t, counts()[0], 3)
	assert.Empty(t, counts()[1])
	assert.Equal(t, "version-gone", problem(t, a.Sources.CountVersion(t.Context(), id, 999, w.ids["vilano"])).Type)
	require.NoError(t, a.Reviews.Keep(t.Context(), id, reviews.VersionEdit{Name: "With pickers"}))
	all, err = a.Figures.Versions(t.Context(), desk.At{Review: id})
	require.NoError(t, err)
	w.shut.Store(true)
	assert.Contains(t, problem(t, a.Sources.CountVersion(t.Context(), id, all[1].ID, w.ids["surco"])).Title, "Surco")
	assert.Empty(t, counts()[1], "what was not answered is not written down")
}
