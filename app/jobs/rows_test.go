package jobs

import (
	"context"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/store"
	"tamiz/store/storetest"
)

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func TestATaskIsDoneByOneAndTakenOverFromTheDead(t *testing.T) {
	s := storetest.Open(t)
	rows := NewRows(s)
	review := storetest.Review(t, s)
	task := NewTask("holding", review, &review, nil)
	var told []Task
	tell := func(_ context.Context, _ pgx.Tx, t Task) error {
		told = append(told, t)
		return nil
	}
	require.NoError(t, rows.Ask(t.Context(), task, tell))
	require.NoError(t, rows.Ask(t.Context(), task, tell))
	assert.True(t, told[0].Fresh)
	assert.False(t, told[1].Fresh, "someone was asked already")
	one, two := uuid.New(), uuid.New()
	mine, err := rows.Claim(t.Context(), task.Name, one, Most{})
	require.NoError(t, err)
	_, err = rows.Claim(t.Context(), task.Name, two, Most{})
	require.ErrorIs(t, err, store.ErrNone, "another is at it")
	stop, err := rows.Beat(t.Context(), task.Name, one)
	require.NoError(t, err)
	assert.False(t, stop)
	running, err := rows.Stop(t.Context(), task.Name)
	require.NoError(t, err)
	assert.True(t, running)
	stop, err = rows.Beat(t.Context(), task.Name, one)
	require.NoError(t, err)
	assert.True(t, stop)
	require.NoError(t, rows.Ask(t.Context(), task, tell))
	again, err := rows.End(t.Context(), mine, one, nil)
	require.NoError(t, err)
	assert.True(t, again, "it was asked for meanwhile")
	_, err = rows.Claim(t.Context(), task.Name, two, Most{})
	require.NoError(t, err)
	_, err = rows.Beat(t.Context(), task.Name, one)
	require.ErrorIs(t, err, store.ErrTakenOver)
	// The second dies: it says nothing any more.
	require.Eventually(t, func() bool {
		orphans, err := rows.Orphans(t.Context())
		require.NoError(t, err)
		return len(orphans) == 1 && orphans[0].Takes == 1
	}, 10*time.Second, 200*time.Millisecond, "within ten seconds another may take over")
}

func TestTasksOfOneSourceWaitForEachOtherAndForNoOthers(t *testing.T) {
	s := storetest.Open(t)
	rows := NewRows(s)
	review := storetest.Review(t, s)
	var sources []int64
	for range 2 {
		var id int64
		require.NoError(
			t,
			s.Write.QueryRow(t.Context(), "insert into source (name, address, version, vocabulary, map, described) values "+
				"('A', 'http://a.example', '', '', '{}', '{}') returning id").
				Scan(&id),
		)
		sources = append(sources, id)
	}
	claim := func(number int64, source int64) string {
		task := NewTask("draw", number, &review, &source)
		require.NoError(t, rows.Ask(t.Context(), task, func(context.Context, pgx.Tx, Task) error { return nil }))
		got, err := rows.Claim(t.Context(), task.Name, uuid.New(), Most{OfSource: 2, OfReview: 3})
		require.NoError(t, err)
		now, err := rows.Task(t.Context(), task.Name)
		require.NoError(t, err)
		assert.Equal(t, got.Waits, now.Waits)
		return got.Waits
	}
	assert.Equal(
		t,
		[]string{"", "", "source", "", "review"},
		[]string{
			claim(1, sources[0]),
			claim(2, sources[0]),
			claim(3, sources[0]),
			claim(4, sources[1]),
			claim(5, sources[1]),
		},
	)
}
