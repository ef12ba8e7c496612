package jobs_test

import (
	"context"
	"fmt"
	"log/slog"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/store"
	"tamiz/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// a copy of the program that does tasks of one kind; what it did is told.
func copyOf(t *testing.T, url string, k jobs.Kind) (*jobs.Service, *store.Store) {
	t.Helper()
	s, err := store.Open(context.Background(), url)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	if k.Stop == nil {
		k.Stop = func(context.Context, jobs.Task) error { return nil }
	}
	k.Fail = func(_ context.Context, _ jobs.Task, p *problems.Problem) error { return fmt.Errorf("%s", p.Title) }
	w := jobs.New(s, slog.New(slog.DiscardHandler))
	require.NoError(t, w.Know(map[string]jobs.Kind{"count": k}))
	return w, s
}

func begin(t *testing.T, w *jobs.Service) {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	require.NoError(t, w.Start(ctx))
	t.Cleanup(func() {
		_ = w.Stop(context.Background())
		cancel()
	})
}

func connected(t *testing.T, url string) *pgx.Conn {
	t.Helper()
	c, err := pgx.Connect(context.Background(), url)
	require.NoError(t, err)
	t.Cleanup(func() { _ = c.Close(context.Background()) })
	return c
}

// TestWorkOfTheDeadIsTakenUp: a process may die at any moment: while its task waits for its turn, while it works,
// before it says that it failed. Whatever the queue believes of two hundred such tasks, another copy does each of
// them, and does it once.
func TestWorkOfTheDeadIsTakenUp(t *testing.T) {
	url := storetest.URL(t)
	asks, s := copyOf(
		t,
		url,
		jobs.Kind{Workers: 1, Time: time.Minute, Work: func(context.Context, jobs.Task) error { return nil }},
	)
	review := storetest.Review(t, s)
	const many = 200
	for i := range many {
		require.NoError(t, asks.Ask(t.Context(), named(i, review)))
	}
	c := connected(t, url)
	exec := func(sql string, args ...any) {
		t.Helper()
		_, err := c.Exec(t.Context(), sql, args...)
		require.NoError(t, err)
	}
	// The copy that had them is dead: its jobs are left as they were.
	for i, left := range []string{
		"state = 'running', attempt = 1, attempted_at = now(), attempted_by = '{dead}'",
		"state = 'retryable', scheduled_at = now() - interval '1 minute', attempt = 1",
		"state = 'scheduled', scheduled_at = now() - interval '1 minute'",
		"state = 'completed', finalized_at = now()",
	} {
		exec("update river_job set "+left+" where id % 5 = $1", i)
	}
	exec("update task set beat = now() - interval '1 minute'")
	exec("update task set holder = $1 where number % 3 = 0", uuid.New())

	var mu sync.Mutex
	done := map[int64]int{}
	two, _ := copyOf(t, url, jobs.Kind{Workers: 20, Time: time.Minute, Work: func(_ context.Context, x jobs.Task) error {
		mu.Lock()
		defer mu.Unlock()
		done[x.Number]++
		return nil
	}})
	begin(t, two)
	require.Eventually(t, func() bool {
		mu.Lock()
		defer mu.Unlock()
		return len(done) == many
	}, 10*time.Second, 50*time.Millisecond, "each within ten seconds")
	for n, times := range done {
		assert.Equal(t, 1, times, n)
	}
}

// TestATaskThatWaitsForItsTurnIsNotLeftWithTheDead: the copy that asked for its turn dies between two askings.
func TestATaskThatWaitsForItsTurnIsNotLeftWithTheDead(t *testing.T) {
	url := storetest.URL(t)
	_, s := copyOf(
		t,
		url,
		jobs.Kind{Workers: 1, Time: time.Minute, Work: func(context.Context, jobs.Task) error { return nil }},
	)
	review := storetest.Review(t, s)
	task := named(1, review)
	require.NoError(
		t,
		jobs.NewRows(s).Ask(t.Context(), task, func(context.Context, pgx.Tx, jobs.Task) error { return nil }),
	)
	orphans := func() int {
		all, err := jobs.NewRows(s).Orphans(t.Context())
		require.NoError(t, err)
		return len(all)
	}
	assert.Zero(t, orphans(), "it was asked for just now")
	c := connected(t, url)
	_, err := c.Exec(t.Context(), "update task set beat = now() - interval '5 seconds'")
	require.NoError(t, err)
	assert.Equal(t, 1, orphans(), "nobody asks for its turn")
	assert.Zero(t, orphans(), "it is told of once")
}

// TestWhoWasTakenOverFromChangesNothing: a process stands still in the middle of a task, another takes it over, and
// the first goes on without knowing.
func TestWhoWasTakenOverFromChangesNothing(t *testing.T) {
	url := storetest.URL(t)
	begun, goOn := make(chan struct{}), make(chan struct{})
	wrote := make(chan error, 1)
	var s *store.Store
	var review int64
	one, s := copyOf(t, url, jobs.Kind{Workers: 1, Time: time.Minute, Work: func(ctx context.Context, _ jobs.Task) error {
		close(begun)
		<-goOn
		_, err := s.Write.Exec(context.WithoutCancel(ctx), "delete from dismissed where review = $1", review)
		wrote <- err
		return err
	}})
	review = storetest.Review(t, s)
	require.NoError(t, one.Ask(t.Context(), named(1, review)))
	begin(t, one)
	<-begun
	c := connected(t, url)
	_, err := c.Exec(t.Context(), "update task set holder = null, beat = now() - interval '1 minute'")
	require.NoError(t, err)
	other := uuid.New()
	_, err = jobs.NewRows(s).Claim(t.Context(), named(1, review).Name, other, jobs.Most{})
	require.NoError(t, err)
	close(goOn)
	require.ErrorIs(t, <-wrote, store.ErrTakenOver)
	// Whoever holds it changes what it wants; and nobody takes over in the middle of a change.
	held := store.Fenced(t.Context(), jobs.HeldBy(named(1, review).Name, other))
	_, err = s.Write.Exec(held, "delete from dismissed where review = $1", review)
	require.NoError(t, err)
}

func named(n int, review int64) jobs.Task { return jobs.NewTask("count", int64(n), &review, nil) }
