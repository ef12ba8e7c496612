package app_test

import (
	"io"
	"strings"
	"tamiz/app/logbook"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/sync/errgroup"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/app/runs"
	"tamiz/core/bib"
	"tamiz/exchange/records"
	"tamiz/exchange/ris"
	"tamiz/store"
)

var march = time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)

func TestASearchMadeByHandIsPutRightAndStays(t *testing.T) {
	a, id := start(t)
	found := int64(12)
	require.NoError(
		t,
		a.Runs.WriteDown(
			t.Context(),
			id,
			runs.HandRun{Way: logbook.ByRegister, Place: "Card box", Query: "heat", Records: &found, At: march},
		),
	)
	first := logged(t, a, id)[0]
	right := int64(21)
	bo := store.By(t.Context(), store.Author{Name: "Bo"})
	require.NoError(
		t,
		a.Runs.WriteDown(
			bo,
			id,
			runs.HandRun{
				Way:      logbook.ByRegister,
				Place:    "Card box",
				Query:    "heat*",
				Records:  &right,
				At:       march,
				Corrects: &first.ID,
			},
		),
	)

	entries := logged(t, a, id)
	require.Len(t, entries, 2, "nothing is taken out")
	now, was := entries[0], entries[1]
	assert.Equal(t, first.ID, *now.Corrects)
	assert.Equal(t, now.ID, *was.CorrectedBy)
	assert.Equal(t, "heat", was.Query, "and it says what it said")
	assert.Equal(t, "Bo", now.Who)
	assert.True(t, now.Holds())
	assert.False(t, was.Holds())
	flow := func() []int64 {
		r, err := a.Written.Record(t.Context(), desk.At{Review: id})
		require.NoError(t, err)
		out := []int64{}
		for _, s := range r.Flow.Sources {
			out = append(out, s.Records)
		}
		return out
	}
	assert.Equal(t, []int64{21}, flow(), "what was put right counts no more")

	// Of two who put the same right the second is told, and what was never said cannot be put right.
	other := runs.HandRun{Place: "Card box", At: march, Corrects: &first.ID}
	assert.Equal(t, "corrected", problem(t, a.Runs.WriteDown(t.Context(), id, other)).Type)
	none := int64(999)
	other.Corrects = &none
	assert.Equal(t, 404, problem(t, a.Runs.WriteDown(t.Context(), id, other)).Status)
	elsewhere := secondReview(t, a)
	other.Corrects = &now.ID
	assert.Equal(t, 404, problem(t, a.Runs.WriteDown(t.Context(), elsewhere, other)).Status, "of another review")
	assert.Equal(t, "void", problem(t, a.Runs.WriteDown(t.Context(), id, runs.HandRun{Void: true})).Field)

	// One that was never made counts no more, and neither does what says so.
	require.NoError(
		t,
		a.Runs.WriteDown(
			t.Context(),
			id,
			runs.HandRun{Void: true, Corrects: &now.ID, Note: "written down for another review"},
		),
	)
	entries = logged(t, a, id)
	require.Len(t, entries, 3)
	assert.True(t, entries[0].Void)
	assert.Equal(t, "Card box", entries[0].Place)
	assert.Nil(t, entries[0].Records)
	assert.Empty(t, flow())
	again := runs.HandRun{Place: "Card box", At: march, Corrects: &entries[0].ID}
	assert.Equal(
		t,
		404,
		problem(t, a.Runs.WriteDown(t.Context(), id, again)).Status,
		"what was never made is not corrected, but written down anew",
	)
}

func secondReview(t *testing.T, a *trial) int64 {
	t.Helper()
	r, err := a.Reviews.CreateReview(t.Context(), reviews.NewReview{Name: "Another"})
	require.NoError(t, err)
	return r.ID
}

func TestTheFileOfASearchMadeByHandCountsAmongTheWorks(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, id)
	ids := []int64{w.ids["almagre"], w.ids["surco"]}
	require.NoError(t, a.Runs.Run(t.Context(), id, runs.NewRuns{Sources: ids, Records: 5000}))
	before := everywhere(t, a, id)
	require.True(t, before.Exact)
	almagre := before.Sources[0]
	require.Greater(t, almagre.Fetched, 5)

	// Five of what Almagre brought, and one that nobody else has.
	fetched, err := a.Runs.Fetched(t.Context(), id)
	require.NoError(t, err)
	var file strings.Builder
	n := 0
	for _, f := range fetched {
		if f.Run.Place != "Almagre" {
			continue
		}
		require.NoError(t, a.Runs.Each(t.Context(), f, func(r *bib.Record) error {
			if n++; n > 5 {
				return nil
			}
			return ris.Write(&file, r)
		}))
	}
	require.NoError(t, ris.Write(&file, &bib.Record{Title: "A card that nobody else has", Year: 2001}))
	i, err := bring(t, a, id, "sample", "cards.ris", strings.NewReader(file.String()))
	require.NoError(t, err)

	few, many := int64(5), int64(8)
	h := runs.HandRun{Place: "Card box", Query: "heat", At: march, Sample: i.Sample, Records: &few}
	assert.Equal(
		t,
		"records",
		problem(t, a.Runs.WriteDown(t.Context(), id, h)).Field,
		"a file of six is not of five that were found",
	)
	gone := int64(999)
	assert.Equal(
		t,
		"sample",
		problem(t, a.Runs.WriteDown(t.Context(), id, runs.HandRun{Place: "x", At: march, Sample: &gone})).Field,
	)
	h.Records = nil
	require.NoError(t, a.Runs.WriteDown(t.Context(), id, h))
	first := logged(t, a, id)[0]
	assert.Equal(t, int64(6), *first.Records, "as many as the file has, where nothing else is said")
	h.Records, h.Corrects = &many, &first.ID
	require.NoError(t, a.Runs.WriteDown(t.Context(), id, h))

	now := everywhere(t, a, id)
	require.Len(t, now.ByHand, 1, "what was corrected is not counted twice")
	assert.Equal(t, 6, now.ByHand[0].Fetched)
	assert.Equal(t, many, now.ByHand[0].Records)
	assert.Equal(t, 1, now.ByHand[0].Only.Works)
	assert.Equal(t, before.Together.Works+1, now.Together.Works)
	assert.Equal(t, before.Among+6, now.Among)
	assert.Less(
		t,
		now.Sources[0].Only.Works,
		before.Sources[0].Only.Works,
		"what stands in the file too is not in Almagre alone",
	)
	assert.GreaterOrEqual(t, now.Sources[0].Only.Works, before.Sources[0].Only.Works-5)
	assert.Equal(t, before.Sources[1].Only, now.Sources[1].Only)
	assert.Len(t, now.Pairs, len(before.Pairs))

	r, err := a.Written.Record(t.Context(), desk.At{Review: id})
	require.NoError(t, err)
	assert.Equal(t, before.Records+many, r.Flow.Found)
	assert.Equal(t, now.Among-int64(now.Together.Works), *r.Flow.Removed)
	assert.Equal(t, r.Flow.Found-*r.Flow.Removed, *r.Flow.Left)

	packed, _, err := a.Written.Bundle(t.Context(), desk.At{Review: id}, []records.Format{records.RIS})
	require.NoError(t, err)
	body, err := io.ReadAll(packed)
	require.NoError(t, err)
	files := unpacked(t, body)
	assert.Equal(t, 6, strings.Count(files["records/Card box.ris"], "TY  - "))
	assert.Contains(t, files["README.txt"], "6 of the 8 records that Card box found on 2 March 2026.")
}

func TestALogbookOfFiveThousandRunsIsReadInPagesAndWrittenWhole(t *testing.T) {
	a, id := start(t)
	const many = 5000
	var several errgroup.Group
	several.SetLimit(8)
	for n := range int64(many) {
		several.Go(func() error {
			return a.Runs.WriteDown(
				t.Context(),
				id,
				runs.HandRun{Way: logbook.ByBrowsing, Place: "Drawer", Records: &n, At: march},
			)
		})
	}
	require.NoError(t, several.Wait())
	page, err := a.Runs.Runs(t.Context(), id, 0, false)
	require.NoError(t, err)
	assert.Len(t, page.Runs, runs.RunsOnPage)
	seen := map[int64]bool{}
	require.NoError(t, a.Runs.EachRun(t.Context(), id, true, func(r runs.Run) { seen[*r.Records] = true }))
	assert.Len(t, seen, many)
	r, err := a.Written.Record(t.Context(), desk.At{Review: id})
	require.NoError(t, err)
	assert.Len(t, r.Flow.Sources, many)
	assert.Equal(t, int64(many*(many-1)/2), r.Flow.ByHand)
	assert.Len(t, section(t, r, "browsed").Parts[0].Table.Rows, many)
}
