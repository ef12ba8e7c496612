package logbook

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/store"
	"tamiz/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func byHand(review int64, place string) Run {
	return Run{Review: review, Kind: "hand", Revision: 1, Place: place}
}

// What was written down is never changed: another entry puts it right, once.
func TestAnEntryIsPutRightOnce(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	require.NoError(t, rows.PutRun(t.Context(), byHand(review, "Card box"), nil, nil))
	first, err := rows.HandRuns(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, first, 1)
	right := byHand(review, "The card box of the cellar")
	right.Corrects = &first[0].ID
	require.NoError(t, rows.PutRun(t.Context(), right, nil, nil))
	require.ErrorIs(t, rows.PutRun(t.Context(), right, nil, nil), store.ErrInUse, "the second is told")
	now, err := rows.HandRuns(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, now, 1)
	assert.Equal(t, right.Place, now[0].Place)
	void := byHand(review, right.Place)
	void.Corrects, void.Void = &now[0].ID, true
	require.NoError(t, rows.PutRun(t.Context(), void, nil, nil))
	now, err = rows.HandRuns(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, now)
	all, err := rows.Runs(t.Context(), review, 0, false, 10)
	require.NoError(t, err)
	assert.Len(t, all, 3, "what was wrong stays to be read")
}
