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

// Whoever holds a transaction and asks for another connection is refused, so that it is found by the first test
// that comes by, not by the first crowd.
func TestWhoHoldsATransactionGetsNoOtherConnection(t *testing.T) {
	s := storetest.Open(t)
	review := storetest.Review(t, s)
	err := s.InReview(t.Context(), review, func(ctx context.Context, w *store.Tx) error {
		err := s.Ping(ctx)
		require.Error(t, err)
		assert.Contains(t, err.Error(), "while a transaction is held")
		_, err = s.Write.Exec(ctx, "update review set name = '' where id = $1", review)
		require.Error(t, err)
		require.Error(t, s.InReview(ctx, review, func(context.Context, *store.Tx) error { return nil }))
		_, err = w.Exec(ctx, "select 1")
		return err
	})
	require.NoError(t, err)
}

// A hundred who change one review while another holds it: reading goes on, and who waits too long is told so.
func TestReadingNeverWaitsBehindWriting(t *testing.T) {
	s := storetest.Open(t)
	review := storetest.Review(t, s)
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
	review := storetest.Review(t, s)
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
	review := storetest.Review(t, s)
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
	tx, err := other.Begin(t.Context())
	require.NoError(t, err)
	_, err = tx.Exec(t.Context(), "lock table source in access exclusive mode")
	require.NoError(t, err)
	got := make(chan error, 1)
	go func() {
		_, err := s.Write.Exec(context.Background(), "update source set name = 'Almagre'")
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
	review := storetest.Review(t, s)
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
