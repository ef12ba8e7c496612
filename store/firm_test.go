package store_test

import (
	"context"
	"errors"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/store"
	"tamiz/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func newReview(t *testing.T, s *store.Store) int64 {
	t.Helper()
	id, err := s.NewReview(t.Context(), "Heat", []byte(`{}`))
	require.NoError(t, err)
	return id
}

// Whoever holds a transaction and asks for another connection is refused, so that it is found by the first test
// that comes by, not by the first crowd.
func TestWhoHoldsATransactionGetsNoOtherConnection(t *testing.T) {
	s := storetest.Open(t)
	review := newReview(t, s)
	err := s.InReview(t.Context(), review, func(ctx context.Context, w *store.Tx) error {
		_, err := s.Reviews(ctx)
		require.Error(t, err)
		assert.Contains(t, err.Error(), "while a transaction is held")
		require.Error(t, s.PatchReview(ctx, review, nil, nil))
		require.Error(t, s.InReview(ctx, review, func(context.Context, *store.Tx) error { return nil }))
		_, err = w.KeyStudies(ctx)
		return err
	})
	require.NoError(t, err)
}

// A hundred who change one review while another holds it: reading goes on, and who waits too long is told so.
func TestReadingNeverWaitsBehindWriting(t *testing.T) {
	s := storetest.Open(t)
	review := newReview(t, s)
	entered, leave := make(chan struct{}), make(chan struct{})
	var wait sync.WaitGroup
	wait.Go(func() {
		assert.NoError(t, s.InReview(context.Background(), review, func(context.Context, *store.Tx) error {
			close(entered)
			<-leave
			return nil
		}))
	})
	<-entered
	ctx, cancel := context.WithCancel(t.Context())
	var waiters sync.WaitGroup
	for range 100 {
		waiters.Go(func() { _ = s.InReview(ctx, review, func(context.Context, *store.Tx) error { return nil }) })
	}
	reading, done := context.WithTimeout(t.Context(), 5*time.Second)
	defer done()
	for range 200 {
		require.NoError(t, s.Ping(reading))
		_, err := s.Review(reading, review)
		require.NoError(t, err)
	}
	cancel()
	waiters.Wait()
	// Who comes when all connections are taken by those who wait for the lock is told that it was too long.
	close(leave)
	wait.Wait()
	require.NoError(t, s.InReview(t.Context(), review, func(context.Context, *store.Tx) error { return nil }))
}

func TestAWaitForALockHasAnEnd(t *testing.T) {
	s := storetest.Open(t)
	review := newReview(t, s)
	entered, leave := make(chan struct{}), make(chan struct{})
	var wait sync.WaitGroup
	wait.Go(func() {
		_ = s.InReview(context.Background(), review, func(context.Context, *store.Tx) error {
			close(entered)
			<-leave
			return nil
		})
	})
	<-entered
	err := s.InReview(t.Context(), review, func(context.Context, *store.Tx) error { return errors.New("never") })
	assert.True(t, store.Busy(err), "%v", err)
	assert.False(t, store.Unreachable(err))
	close(leave)
	wait.Wait()
}

// The connection is cut at the very moment of the commit: it is not said that nothing was changed.
func TestACommitThatIsNotConfirmedIsUnknown(t *testing.T) {
	url := storetest.URL(t)
	s, err := store.Open(t.Context(), url)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	review := newReview(t, s)
	other, err := pgx.Connect(t.Context(), url)
	require.NoError(t, err)
	defer other.Close(context.Background())
	err = s.InReview(t.Context(), review, func(ctx context.Context, w *store.Tx) error {
		_, err := other.Exec(ctx, `select pg_terminate_backend(pid) from pg_stat_activity
			where datname = current_database() and pid <> pg_backend_pid() and state = 'idle in transaction'`)
		return err
	})
	require.ErrorIs(t, err, store.ErrUnknown)
	// Within the transaction it is known: nothing is kept.
	err = s.InReview(t.Context(), review, func(ctx context.Context, w *store.Tx) error {
		_, err := other.Exec(ctx, `select pg_terminate_backend(pid) from pg_stat_activity
			where datname = current_database() and pid <> pg_backend_pid() and state = 'idle in transaction'`)
		require.NoError(t, err)
		return w.Notify(ctx, "x")
	})
	require.Error(t, err)
	assert.NotErrorIs(t, err, store.ErrUnknown)
	assert.True(t, store.Unreachable(err), "%v", err)
}

// A statement of its own is confirmed or it is not, just as a transaction.
func TestAStatementThatIsNotConfirmedIsUnknown(t *testing.T) {
	url := storetest.URL(t)
	s, err := store.Open(t.Context(), url)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	other, err := pgx.Connect(t.Context(), url)
	require.NoError(t, err)
	defer other.Close(context.Background())
	almagre := store.Source{Name: "Almagre", Address: "http://almagre.example/", Map: []byte("{}"), Described: []byte("{}")}
	almagre.ID, err = s.PutSource(t.Context(), almagre)
	require.NoError(t, err)
	tx, err := other.Begin(t.Context())
	require.NoError(t, err)
	_, err = tx.Exec(t.Context(), "lock table source in access exclusive mode")
	require.NoError(t, err)
	got := make(chan error, 1)
	go func() {
		_, err := s.PutSource(context.Background(), almagre)
		got <- err
	}()
	for ended := 0; ended == 0; {
		require.NoError(t, tx.QueryRow(t.Context(), `select count(pg_terminate_backend(pid)) from pg_stat_activity
			where datname = current_database() and pid <> pg_backend_pid() and wait_event_type = 'Lock'`).Scan(&ended))
	}
	require.ErrorIs(t, <-got, store.ErrUnknown)
}

func TestARequestThatIsRepeatedIsDoneOnce(t *testing.T) {
	s := storetest.Open(t)
	review := newReview(t, s)
	ctx := store.AsRequest(t.Context(), uuid.New())
	times := 0
	count := func(context.Context, *store.Tx) error {
		times++
		return nil
	}
	failed := errors.New("it came to nothing")
	require.ErrorIs(t, s.InReview(ctx, review, func(context.Context, *store.Tx) error { return failed }), failed)
	require.NoError(t, s.InReview(ctx, review, count), "what came to nothing is done when it is asked for again")
	require.NoError(t, s.InReview(ctx, review, count))
	assert.Equal(t, 1, times)
	require.NoError(t, s.InReview(store.AsRequest(t.Context(), uuid.New()), review, count))
	assert.Equal(t, 2, times)
}

func TestAnOlderProgramSaysThatItIs(t *testing.T) {
	url := storetest.URL(t)
	s, err := store.Open(t.Context(), url)
	require.NoError(t, err)
	s.Close()
	conn, err := pgx.Connect(t.Context(), url)
	require.NoError(t, err)
	defer conn.Close(context.Background())
	_, err = conn.Exec(t.Context(), "insert into goose_db_version (version_id, is_applied) values (99999, true)")
	require.NoError(t, err)
	_, err = store.Open(t.Context(), url)
	require.ErrorIs(t, err, store.ErrNewer)
}

func TestProgramsThatBeginAtOnceBringTheTablesUpToDateOnce(t *testing.T) {
	url := storetest.URL(t)
	var wait sync.WaitGroup
	for range 4 {
		wait.Go(func() {
			s, err := store.Open(context.Background(), url)
			if assert.NoError(t, err) {
				s.Close()
			}
		})
	}
	wait.Wait()
}

func TestATaskIsDoneByOneAndTakenOverFromTheDead(t *testing.T) {
	s := storetest.Open(t)
	review := newReview(t, s)
	task := store.NewTask("holding", review, &review, nil)
	var told []store.Task
	tell := func(_ context.Context, _ pgx.Tx, t store.Task) error {
		told = append(told, t)
		return nil
	}
	require.NoError(t, s.AskTask(t.Context(), task, tell))
	require.NoError(t, s.AskTask(t.Context(), task, tell))
	assert.True(t, told[0].Fresh)
	assert.False(t, told[1].Fresh, "someone was asked already")
	one, two := uuid.New(), uuid.New()
	mine, err := s.ClaimTask(t.Context(), task.Name, one, store.Most{})
	require.NoError(t, err)
	_, err = s.ClaimTask(t.Context(), task.Name, two, store.Most{})
	require.ErrorIs(t, err, store.ErrNone, "another is at it")
	stop, err := s.BeatTask(t.Context(), task.Name, one)
	require.NoError(t, err)
	assert.False(t, stop)
	running, err := s.StopTask(t.Context(), task.Name)
	require.NoError(t, err)
	assert.True(t, running)
	stop, err = s.BeatTask(t.Context(), task.Name, one)
	require.NoError(t, err)
	assert.True(t, stop)
	require.NoError(t, s.AskTask(t.Context(), task, tell))
	again, err := s.EndTask(t.Context(), mine, one, nil)
	require.NoError(t, err)
	assert.True(t, again, "it was asked for meanwhile")
	_, err = s.ClaimTask(t.Context(), task.Name, two, store.Most{})
	require.NoError(t, err)
	_, err = s.BeatTask(t.Context(), task.Name, one)
	require.ErrorIs(t, err, store.ErrTakenOver)
	// The second dies: it says nothing any more.
	require.Eventually(t, func() bool {
		orphans, err := s.OrphanTasks(t.Context())
		require.NoError(t, err)
		return len(orphans) == 1 && orphans[0].Takes == 1
	}, 10*time.Second, 200*time.Millisecond, "within ten seconds another may take over")
}

func TestTasksOfOneSourceWaitForEachOtherAndForNoOthers(t *testing.T) {
	s := storetest.Open(t)
	review := newReview(t, s)
	var sources []int64
	for range 2 {
		id, err := s.PutSource(t.Context(), store.Source{Name: "A", Address: "http://a.example", Map: []byte(`{}`), Described: []byte(`{}`)})
		require.NoError(t, err)
		sources = append(sources, id)
	}
	claim := func(number int64, source int64) string {
		task := store.NewTask("draw", number, &review, &source)
		require.NoError(t, s.AskTask(t.Context(), task, func(context.Context, pgx.Tx, store.Task) error { return nil }))
		got, err := s.ClaimTask(t.Context(), task.Name, uuid.New(), store.Most{OfSource: 2, OfReview: 3})
		require.NoError(t, err)
		now, err := s.Task(t.Context(), task.Name)
		require.NoError(t, err)
		assert.Equal(t, got.Waits, now.Waits)
		return got.Waits
	}
	assert.Equal(t, []string{"", "", "source", "", "review"}, []string{claim(1, sources[0]), claim(2, sources[0]), claim(3, sources[0]), claim(4, sources[1]), claim(5, sources[1])})
}
