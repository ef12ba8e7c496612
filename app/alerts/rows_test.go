package alerts

import (
	"testing"
	"time"

	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

// Of several programs one tells; an address gets one mail a day, of the newest.
func TestItIsToldOnceAndMailedOnceADay(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	asking := func() (id int64) {
		require.NoError(t, s.Write.QueryRow(t.Context(), `insert into asking (review, revision, sources, records, who)
			values ($1, 1, '{}', 0, '') returning id`, review).Scan(&id))
		return id
	}
	kept, err := rows.PutMailTo(t.Context(), review, "sol@olmo.example", "SECRET", 1)
	require.NoError(t, err)
	require.True(t, kept)
	kept, err = rows.PutMailTo(t.Context(), review, "bo@olmo.example", "OTHER", 1)
	require.NoError(t, err)
	assert.False(t, kept, "there are as many addresses as there may be")

	now := time.Date(2026, 3, 1, 9, 0, 0, 0, time.UTC)
	n := Telling{Review: review, Asking: asking(), Fresh: 2, Titles: []byte(`[]`)}
	first, err := rows.Tell(t.Context(), n, now)
	require.NoError(t, err)
	assert.True(t, first)
	first, err = rows.Tell(t.Context(), n, now)
	require.NoError(t, err)
	assert.False(t, first, "another told it")
	letters := func(at time.Time) []Letter {
		out, err := rows.Letters(t.Context(), at, at.Add(time.Minute), 10)
		require.NoError(t, err)
		return out
	}
	got := letters(now)
	require.Len(t, got, 1)
	assert.Empty(t, letters(now), "who was given it has a minute for it")
	require.NoError(t, rows.Sent(t.Context(), got[0].ID, now))

	n.Asking, n.Fresh = asking(), 3
	_, err = rows.Tell(t.Context(), n, now.Add(time.Hour))
	require.NoError(t, err)
	assert.Empty(t, letters(now.Add(2*time.Hour)), "one a day")
	got = letters(now.Add(25 * time.Hour))
	require.Len(t, got, 1)
	assert.Equal(t, 3, got[0].Fresh)

	require.NoError(t, rows.StopMail(t.Context(), "SECRET"))
	require.ErrorIs(t, rows.StopMail(t.Context(), "NOBODY"), store.ErrNone)
	assert.Empty(t, letters(now.Add(48*time.Hour)), "whoever stopped it gets no more")
}
