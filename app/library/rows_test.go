package library

import (
	"context"
	"testing"

	"tamiz/core/bib"
	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func record(title string, year int) *bib.Record { return &bib.Record{Title: title, Year: year} }

func TestARecordOfOneContentAndSourceIsStoredOnce(t *testing.T) {
	rows := NewRows(storetest.Open(t))
	heat, shade := record("Heat", 2010), record("Shade", 2011)
	ids, err := rows.Put(t.Context(), "file", []*bib.Record{heat, shade, heat})
	require.NoError(t, err)
	assert.Equal(t, ids[0], ids[2])
	assert.NotEqual(t, ids[0], ids[1])
	again, err := rows.Put(t.Context(), "file", []*bib.Record{shade})
	require.NoError(t, err)
	assert.Equal(t, ids[1:2], again)
	other, err := rows.Put(t.Context(), "source 1", []*bib.Record{shade})
	require.NoError(t, err)
	assert.NotEqual(t, again, other, "what another source says is another record")
	stored, err := rows.RecordsByID(t.Context(), []int64{ids[1], 1 << 40, ids[0]})
	require.NoError(t, err)
	require.Len(t, stored, 2, "what is not there is left out")
	assert.Equal(t, []string{"Shade", "Heat"}, []string{stored[0].Record.Title, stored[1].Record.Title})
	_, err = rows.Record(t.Context(), 1<<40)
	require.ErrorIs(t, err, store.ErrNone)
}

// Nobody sees a sample before it is shown, however much of it is there.
func TestASampleIsSeenOnceItIsShown(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	ids, err := rows.Put(t.Context(), "file", []*bib.Record{record("Heat", 2010), record("Shade", 2011)})
	require.NoError(t, err)
	sample, err := rows.FillJoined(t.Context(), review, "Both", []byte(`{"how": "or", "a": "A", "b": "B"}`), ids)
	require.NoError(t, err)
	samples, err := rows.Samples(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, samples)
	in := func(do func(ctx context.Context, tx *store.Tx) error) {
		require.NoError(t, s.InReview(t.Context(), review, do))
	}
	in(func(ctx context.Context, tx *store.Tx) error { return ShowSample(ctx, tx, sample) })
	samples, err = rows.Samples(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, samples, 1)
	assert.Equal(t, 2, samples[0].Records)
	assert.JSONEq(t, `[{"year": 2010, "records": 1}, {"year": 2011, "records": 1}]`, string(samples[0].Years))
	assert.Equal(t, &Joined{How: "or", A: "A", B: "B"}, samples[0].Joined)
	got, err := rows.SampleIDs(t.Context(), sample)
	require.NoError(t, err)
	assert.Equal(t, ids, got)

	// What was deleted is left out, and can come back under another name.
	in(func(ctx context.Context, tx *store.Tx) error {
		state, err := SampleStateIn(ctx, tx, sample)
		require.NoError(t, err)
		assert.Equal(t, SampleState{ID: sample, Name: "Both"}, state)
		state.Deleted = true
		return SetSample(ctx, tx, state)
	})
	samples, err = rows.Samples(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, samples)
	in(func(ctx context.Context, tx *store.Tx) error {
		return SetSample(ctx, tx, SampleState{ID: sample, Name: "Heat or shade"})
	})
	samples, err = rows.Samples(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, samples, 1)
	assert.Equal(t, "Heat or shade", samples[0].Name)
}

func TestTheShelfIsTheReviewsAndCanBeUndone(t *testing.T) {
	s := storetest.Open(t)
	rows, review, other := NewRows(s), storetest.Review(t, s), storetest.Review(t, s)
	ids, err := rows.Put(t.Context(), "file", []*bib.Record{record("Heat", 2010)})
	require.NoError(t, err)
	require.NoError(t, s.InReview(t.Context(), review, func(ctx context.Context, tx *store.Tx) error {
		before, err := ShelvedIn(ctx, tx, ids[0])
		require.NoError(t, err)
		assert.Equal(t, ShelfState{Record: ids[0]}, before)
		require.NoError(t, Shelve(ctx, tx, ShelfState{Record: ids[0], On: true, Note: "read", Tags: []string{"shade"}}))
		n, err := ShelfSize(ctx, tx)
		assert.Equal(t, 1, n)
		return err
	}))
	shelf, err := rows.Shelf(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, shelf, 1)
	assert.Equal(t, "read", shelf[0].Note)
	elsewhere, err := rows.ShelvedIDs(t.Context(), other)
	require.NoError(t, err)
	assert.Empty(t, elsewhere)
	require.NoError(t, s.InReview(t.Context(), review, func(ctx context.Context, tx *store.Tx) error {
		return Shelve(ctx, tx, ShelfState{Record: ids[0]})
	}))
	shelf, err = rows.Shelf(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, shelf)
}

func TestTheLastJudgementOfARecordCounts(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	ids, err := rows.Put(t.Context(), "file", []*bib.Record{record("Heat", 2010)})
	require.NoError(t, err)
	require.NoError(t, rows.Judge(t.Context(), review, ids[0], "unsure", "Sol"))
	require.NoError(t, rows.Judge(t.Context(), review, ids[0], "relevant", "Bo"))
	said, err := rows.Judgements(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, said, 1)
	assert.Equal(t, "relevant Bo", said[0].Verdict+" "+said[0].Who)
	require.NoError(t, rows.Judge(t.Context(), review, ids[0], "", "Bo"))
	said, err = rows.Judgements(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, said)
	require.ErrorIs(t, rows.Judge(t.Context(), review, 1<<40, "relevant", "Bo"), store.ErrNone)
}
