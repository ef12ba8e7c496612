package app_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/library"
	"tamiz/core/bib"
	"tamiz/core/strategy"
	"tamiz/exchange/ris"
)

// lookedUp waits until every key study was looked up at every source once more.
func lookedUp(t *testing.T, a *trial, review int64) []library.Holding {
	t.Helper()
	before, err := a.Holdings.Holdings(t.Context(), review)
	require.NoError(t, err)
	require.NoError(t, a.Holdings.FindHoldings(t.Context(), review))
	var out []library.Holding
	until(t, a, review, func() bool {
		out, err = a.Holdings.Holdings(t.Context(), review)
		require.NoError(t, err)
		return len(out) == len(before) && !slices.ContainsFunc(out, func(h library.Holding) bool {
			i := slices.IndexFunc(
				before,
				func(b library.Holding) bool { return b.KeyStudy == h.KeyStudy && b.Source == h.Source },
			)
			return !h.At.After(before[i].At)
		})
	})
	return out
}

// references are key studies as a reference list has them: without abstracts, keywords and headings.
func references(of []*bib.Record) (out []*bib.Record) {
	for _, k := range of {
		out = append(out, &bib.Record{Title: k.Title, Authors: k.Authors, Year: k.Year, Journal: k.Journal, DOI: k.DOI})
	}
	return out
}

// TestAKeyStudyIsAllThatIsKnownOfIt: a reference without headings goes by its record at the source once that was
// found there.
func TestAKeyStudyIsAllThatIsKnownOfIt(t *testing.T) {
	a, id := start(t)
	ctx := t.Context()
	w := standInSources(t, a)
	keyStudies(t, a, id, references(w.Keys))
	heading := func(id, label string) desk.Term {
		return desk.Term{ID: id, Term: strategy.Term{Kind: strategy.HeadingTerm, Heading: label, On: true}}
	}
	// The heading that most of the key studies carry at Almagre is all that is searched.
	count := map[string]int{}
	for _, k := range w.Keys {
		for _, h := range k.Headings {
			count[h.Label]++
		}
	}
	most := ""
	for label, n := range count {
		if n > count[most] || n == count[most] && label < most {
			most = label
		}
	}
	require.Greater(t, count[most], 5)
	doc := desk.Document{
		Blocks: []desk.Block{{ID: "a", Name: "A", Searched: true, Terms: []desk.Term{heading("1", most)}}},
	}
	_, err := a.Change(ctx, id, state(t, a, id).Revision, change{What: what, Document: &doc})
	require.NoError(t, err)
	almagre := w.ids["almagre"]
	look := func(source *int64) *figures.Coverage {
		_, err = a.SetView(ctx, id, desk.NewLook{Source: source, Rest: true})
		require.NoError(t, err)
		c, err := a.Figures.Coverage(ctx, a.at(ctx, id))
		require.NoError(t, err)
		return c
	}
	at := look(&almagre)
	want := 0
	for i, k := range w.Keys {
		carries := slices.ContainsFunc(k.Headings, func(h bib.Assignment) bool { return h.Label == most }) &&
			!at.Studies[i].NotHere
		if carries {
			want++
		}
		assert.Equal(t, carries, at.Studies[i].Caught, k.Title)
		if !at.Studies[i].NotHere {
			assert.Equal(t, almagre, at.Studies[i].By)
			assert.Equal(t, k.Indexed(), at.Studies[i].Indexed, "not indexed there, or it is")
		} else {
			assert.Zero(t, at.Studies[i].By)
		}
	}
	require.Positive(t, want)
	assert.Equal(t, want, at.Recall.Caught)
	all := look(nil)
	assert.GreaterOrEqual(t, all.Recall.Caught, want, "without a source all that is known is gone by")
	assert.Equal(t, len(w.Keys), all.Recall.Of)

	// Everywhere tells the same of the source, and of one without headings what its own records say.
	of := everywhere(t, a, id)
	assert.Equal(t, at.Recall.Of, of.Sources[0].Held)
	assert.Equal(t, want, of.Sources[0].Caught)

	// What was found where, and by which record figures go, can be seen at the study.
	look(&almagre)
	i := slices.IndexFunc(at.Studies, func(s figures.CoverageStudy) bool { return s.By == almagre && s.Indexed })
	study, err := a.Figures.Rescue(ctx, a.at(ctx, id), at.Studies[i].ID)
	require.NoError(t, err)
	assert.Equal(t, almagre, study.Known.By)
	assert.Empty(t, study.Known.Brought.Headings)
	assert.Len(t, study.Known.Sources, 3)
	assert.NotEmpty(t, study.Record.Headings, "its record there is what is shown")
	assert.Equal(t, len(w.Keys[i].Headings), len(study.Known.Sources[0].Record.Headings))
	assert.Empty(t, study.Known.Sources[0].Changes)

	// A press fetches the records anew, and says what is otherwise than it was.
	a.exec(
		t,
		"update holding set body = convert_to(replace(convert_from(body, 'UTF8'), '\"Headings\":', '\"Once\":'), "+
			"'UTF8') where key_study = $1",
		at.Studies[i].ID,
	)
	lookedUp(t, a, id)
	study, err = a.Figures.Rescue(ctx, a.at(ctx, id), at.Studies[i].ID)
	require.NoError(t, err)
	require.NotEmpty(t, study.Known.Sources[0].Changes)
	assert.NotNil(t, study.Known.Sources[0].Changed)
	assert.Equal(t, "headings", study.Known.Sources[0].Changes[0].Field)
	assert.Empty(t, study.Known.Sources[0].Changes[0].A)
	assert.Contains(t, study.Known.Sources[0].Changes[0].B, w.Keys[i].Headings[0].Label)
	assert.Equal(t, want, look(&almagre).Recall.Caught)

	// A source that does not answer takes nothing back.
	w.shut.Store(true)
	require.NoError(t, a.Holdings.FindHoldings(ctx, id))
	until(t, a, id, func() bool {
		tasks, err := a.Holdings.Holdings(ctx, id)
		require.NoError(t, err)
		return len(tasks) > 0
	})
	assert.Equal(t, want, look(&almagre).Recall.Caught)
}

// What somebody said of a record that resembles a key study goes on to hold when it is looked up again.
func TestWhatWasSettledStaysSo(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	var file strings.Builder
	k := *w.Keys[8]
	k.DOI, k.Title = "", k.Title+" and what else was seen"
	require.NoError(t, ris.Write(&file, &k))
	_, err := bring(t, a, id, "keys", "keys.ris", strings.NewReader(file.String()))
	require.NoError(t, err)
	var near library.Holding
	until(t, a, id, func() bool {
		all, err := a.Holdings.Holdings(t.Context(), id)
		require.NoError(t, err)
		i := slices.IndexFunc(all, func(h library.Holding) bool { return h.State == library.Near })
		if i >= 0 {
			near = all[i]
		}
		return len(all) == 3
	})
	require.NotZero(t, near.Source, "something like it is found")
	near.State = library.Held
	require.NoError(t, a.Holdings.Settle(t.Context(), id, near))
	again := lookedUp(t, a, id)
	i := slices.IndexFunc(again, func(h library.Holding) bool { return h.Source == near.Source })
	assert.Equal(t, library.Held, again[i].State)
	assert.Equal(t, "settled", again[i].How)
}
