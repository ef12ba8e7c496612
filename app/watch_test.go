package app_test

import (
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/app/runs"
	"tamiz/core/bib"
	"tamiz/exchange/ris"
)

func TestASearchIsDueAgain(t *testing.T) {
	day := func(y int, m time.Month, d int) time.Time { return time.Date(y, m, d, 6, 30, 0, 0, time.UTC) }
	for name, c := range map[string]struct {
		every    string
		due, now time.Time
		next     time.Time
		missed   int
	}{
		"a week on":                {"week", day(2026, 3, 2), day(2026, 3, 2), day(2026, 3, 9), 0},
		"three weeks late":         {"week", day(2026, 3, 2), day(2026, 3, 24), day(2026, 3, 30), 3},
		"a month on":               {"month", day(2026, 3, 2), day(2026, 3, 2), day(2026, 4, 2), 0},
		"the last of a month":      {"month", day(2026, 1, 31), day(2026, 1, 31), day(2026, 2, 28), 0},
		"over the end of the year": {"month", day(2025, 11, 15), day(2026, 2, 20), day(2026, 3, 15), 3},
	} {
		next, missed := runs.After(c.every, c.due, c.now)
		require.NotNil(t, next, name)
		assert.Equal(t, c.next, *next, name)
		assert.Equal(t, c.missed, missed, name)
	}
	next, _ := runs.After("once", day(2026, 3, 2), day(2026, 3, 2))
	assert.Nil(t, next)
	rapid.Check(t, func(t *rapid.T) {
		due := day(2026, 1, 1).AddDate(0, 0, rapid.IntRange(0, 400).Draw(t, "due"))
		now := due.Add(time.Duration(rapid.IntRange(0, 24*400).Draw(t, "late")) * time.Hour)
		next, missed := runs.After(rapid.SampledFrom([]string{"week", "month"}).Draw(t, "every"), due, now)
		assert.True(t, next.After(now), "it is due once, however late the program is")
		assert.True(t, next.Before(now.AddDate(0, 0, 32)))
		assert.GreaterOrEqual(t, missed, 0)
	})
}

func TestASearchRunsAgainByItselfAndSaysWhatIsNew(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, id)
	var keys strings.Builder
	for _, k := range w.Keys {
		require.NoError(t, ris.Write(&keys, k))
	}
	_, err := bring(t, a, id, "keys", "keys.ris", strings.NewReader(keys.String()))
	require.NoError(t, err)
	off, err := a.Runs.Watched(t.Context(), id)
	require.NoError(t, err)
	assert.False(t, off.On)
	ids := []int64{w.ids["almagre"], w.ids["surco"]}
	nothing, err := a.Runs.Since(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, nothing.Sources)

	// The first time; the sources hold what they did not before.
	w.hold("almagre", w.Almagre, func(r *bib.Record) bool { return r.Year < 2020 || len(r.Title)%3 > 0 })
	w.hold("surco", w.Surco, func(r *bib.Record) bool { return r.Year < 2020 || len(r.Title)%3 > 0 })
	due := time.Now().Add(-time.Minute)
	watch := runs.Watch{On: true, Sources: ids, Every: "week", Next: &due}
	require.NoError(t, a.Runs.SetWatch(t.Context(), id, watch))
	var several sync.WaitGroup
	for range 4 { // several programs at the same hour
		several.Add(1)
		go func() { defer several.Done(); assert.NoError(t, a.Runs.RunDue(t.Context())) }()
	}
	several.Wait()
	everywhere(t, a, id)
	entries := logged(t, a, id)
	require.Len(t, entries, 2, "once at each source")
	on, err := a.Runs.Watched(t.Context(), id)
	require.NoError(t, err)
	assert.True(t, on.On)
	assert.True(t, on.Next.After(time.Now().AddDate(0, 0, 6)))

	w.hold("almagre", indexedLater(w.Almagre), nil)
	w.hold("surco", w.Surco, nil)
	late := time.Now().AddDate(0, 0, -1).Add(time.Hour)
	watch.Next = &late
	require.NoError(t, a.Runs.SetWatch(t.Context(), id, watch))
	require.NoError(t, a.Runs.RunDue(t.Context()))
	require.NoError(t, a.Runs.RunDue(t.Context()), "it is not due twice")
	everywhere(t, a, id)
	entries = logged(t, a, id)
	require.Len(t, entries, 4)
	since, err := a.Runs.Since(t.Context(), id)
	require.NoError(t, err)
	require.Len(t, since.Sources, 2)
	fresh := 0
	assert.Equal(t, since.Sources[0].Changed, since.Sources[0].Indexed)
	assert.Positive(t, since.Sources[0].Changed, "some carry headings now")
	for _, s := range since.Sources {
		assert.Zero(t, s.Gone)
		assert.False(t, s.Other)
		fresh += s.New
	}
	require.NotEmpty(t, since.Records)
	assert.LessOrEqual(t, len(since.Records), fresh)
	require.NotNil(t, since.Right)
	assert.True(t, since.Right.Assumed, "nothing was judged")
	assert.Greater(t, since.Right.Share, 0.5)
	for i, r := range since.Records {
		assert.GreaterOrEqual(t, r.Record.Year, 2020)
		assert.True(t, i == 0 || since.Records[i-1].Score >= r.Score)
	}

	// What was dismissed is not told of again.
	first := since.Records[0].Record.ID
	require.NoError(t, a.Runs.Dismiss(t.Context(), id, []int64{first}, true))
	again, err := a.Runs.Since(t.Context(), id)
	require.NoError(t, err)
	assert.Len(t, again.Records, len(since.Records)-1)
	require.NoError(t, a.Runs.Dismiss(t.Context(), id, []int64{first}, false))
	back, err := a.Runs.Since(t.Context(), id)
	require.NoError(t, err)
	assert.Len(t, back.Records, len(since.Records), "that can be taken back")

	for field, bad := range map[string]runs.Watch{
		"every": {On: true, Sources: ids, Every: "day", Next: &due}, "next": {On: true, Sources: ids, Every: "week"},
		"sources": {On: true, Every: "week", Next: &due},
	} {
		assert.Equal(t, field, problem(t, a.Runs.SetWatch(t.Context(), id, bad)).Field)
	}
	require.NoError(t, a.Runs.SetWatch(t.Context(), id, runs.Watch{}))
	ended, err := a.Runs.Watched(t.Context(), id)
	require.NoError(t, err)
	assert.False(t, ended.On)
}

// indexedLater gives records headings that had none.
func indexedLater(records []*bib.Record) []*bib.Record {
	out := make([]*bib.Record, len(records))
	for i, r := range records {
		out[i] = r
		if !r.Indexed() && r.Year < 2020 {
			c := *r
			c.Headings = []bib.Assignment{{Label: "Agricultural Labor Force"}}
			out[i] = &c
		}
	}
	return out
}

func TestARunWhoseSourceChangesMeanwhileSaysSo(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, id)
	almagre := []int64{w.ids["almagre"]}
	again := func() {
		due := time.Now().Add(-time.Minute)
		require.NoError(
			t,
			a.Runs.SetWatch(t.Context(), id, runs.Watch{On: true, Sources: almagre, Every: "week", Next: &due}),
		)
		require.NoError(t, a.Runs.RunDue(t.Context()))
		everywhere(t, a, id)
	}
	w.hold("almagre", w.Almagre, func(r *bib.Record) bool { return r.Year < 2020 || len(r.Title)%2 > 0 })
	again()
	// In the middle of the answer the rest comes in; what is told is what was found, and that the count moved.
	var once sync.Once
	first := w.asked.Load()
	w.each = func(n int32) {
		if n == first+2 {
			once.Do(func() { w.hold("almagre", w.Almagre, nil) })
		}
	}
	again()
	w.each = nil
	since, err := a.Runs.Since(t.Context(), id)
	require.NoError(t, err)
	require.Len(t, since.Sources, 1)
	assert.True(t, since.Sources[0].Moved)
	entries := logged(t, a, id)
	assert.Equal(t, *entries[0].Records, *entries[1].Records, "what it said when it was asked")
	again()
	again()
	calm, err := a.Runs.Since(t.Context(), id)
	require.NoError(t, err)
	assert.False(t, calm.Sources[0].Moved)
	assert.Zero(t, calm.Sources[0].New+calm.Sources[0].Gone)

	// It answers with fewer than before: they are gone, and nothing is new.
	w.hold("almagre", w.Almagre, func(r *bib.Record) bool { return r.Year < 2020 })
	again()
	fewer, err := a.Runs.Since(t.Context(), id)
	require.NoError(t, err)
	assert.Positive(t, fewer.Sources[0].Gone)
	assert.Zero(t, fewer.Sources[0].New)
	assert.Empty(t, fewer.Records)
}
