package app_test

import (
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app"
	"tamiz/app/logbook"
	"tamiz/store/storetest"
)

// undated are times that a review does not move back with: of what is yet to be done, of what belongs to no review,
// of what is under way, and when a review was last worked on.
var undated = []string{
	"review.touched",
	"watch.next",
	"mail.next",
	"draw.pause",
	"task.beat",
	"task.ended",
	"request.made",
	"look.made",
	"reading.made",
	"count.at",
	"source.made",
	"dialect.saved",
	"counterpart.saved",
	"kept_block.at",
	"answer.made",
}

// Every time that the database keeps is one of either: who adds a table says which.
func TestEveryTimeIsMovedBackOrSaidNotToBe(t *testing.T) {
	s := storetest.Open(t)
	rows, err := s.Query(t.Context(), `select table_name || '.' || column_name from information_schema.columns
		where table_schema = 'public' and data_type = 'timestamp with time zone' and table_name not like 'river%' and table_name <> 'goose_db_version'`)
	require.NoError(t, err)
	all, err := pgx.CollectRows(rows, pgx.RowTo[string])
	require.NoError(t, err)
	assert.ElementsMatch(t, all, append(app.Dated(), undated...))
}

func TestAHistoryIsMovedBackWholeAndThatOfOthersStays(t *testing.T) {
	s := storetest.Open(t)
	one, other := storetest.Review(t, s), storetest.Review(t, s)
	for _, id := range []int64{one, other} {
		require.NoError(
			t,
			logbook.NewRows(s).
				PutRun(t.Context(), logbook.Run{Review: id, Kind: "hand", Revision: 1, Place: "Card box"}, nil, nil),
		)
	}
	at := func(id int64) time.Time {
		entries, err := logbook.NewRows(s).Runs(t.Context(), id, 0, true, 10)
		require.NoError(t, err)
		require.Len(t, entries, 1)
		return entries[0].At
	}
	before, beside := at(one), at(other)
	require.NoError(t, app.MoveBack(t.Context(), s, one, 10))
	require.NoError(t, app.MoveBack(t.Context(), s, one, 3))
	assert.Equal(t, 13*24*time.Hour, before.Sub(at(one)))
	assert.True(t, beside.Equal(at(other)))
}
