package bench

import (
	"context"
	"fmt"
	"io"
	"log/slog"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app"
	"tamiz/app/reviews"
	"tamiz/core/bib"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/source/sru"
	"tamiz/store"
	"tamiz/store/cluster"
)

// savings times a decision saved while many records come into the same review, and one saved without.
func savings(t *testing.T, _ sizes) []row {
	const records = 200_000
	const pause = 20 * time.Millisecond // as people do, not one after the other
	a, dir, ctx := application(t)
	r, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Heat and kidneys"})
	require.NoError(t, err)

	state, err := a.Reviews.Review(ctx, r.ID)
	require.NoError(t, err)
	revision := state.Revision
	decide := func(n int) time.Duration {
		began := time.Now()
		d := reviews.NewDecision{
			Facet:  "words",
			Item:   fmt.Sprintf("word %d", n%200),
			State:  "dropped",
			Reason: []string{"too-broad", "other-meaning"}[n/200%2],
		}
		state, err := a.Reviews.Change(
			ctx,
			r.ID,
			revision,
			reviews.Change{What: reviews.What{Key: "dropped"}, Decisions: []reviews.NewDecision{d}},
		)
		require.NoError(t, err)
		revision = state.Revision
		return time.Since(began)
	}
	n := 0
	for range 300 { // all words have been decided on, and the program is warm
		decide(n)
		n++
	}
	var without, during []time.Duration
	for range 1000 {
		without = append(without, decide(n))
		n++
		time.Sleep(pause)
	}

	in, err := os.Create(filepath.Join(dir, "many.ris"))
	require.NoError(t, err)
	defer in.Close()
	w := ris.NewWriter(in)
	require.NoError(t, demo.Each(1, records, func(r *bib.Record, _ bool) error { return w.Write(r) }))
	require.NoError(t, w.Close())
	_, err = in.Seek(0, io.SeekStart)
	require.NoError(t, err)
	ended := make(chan error, 1)
	began := time.Now()
	go func() {
		i, err := a.Intake.ImportFile(ctx, r.ID, "sample", "many.ris", false, in)
		for err == nil && i.State != "done" {
			if i.State == "failed" {
				err = i.Error
				break
			}
			time.Sleep(50 * time.Millisecond)
			i, err = a.Intake.Import(ctx, i.ID)
		}
		ended <- err
	}()
	for reading := true; reading; {
		select {
		case err := <-ended:
			require.NoError(t, err)
			reading = false
		default:
			during = append(during, decide(n))
			n++
			time.Sleep(pause)
		}
	}
	took := time.Since(began)
	state, err = a.Reviews.Review(ctx, r.ID)
	require.NoError(t, err)
	require.Len(t, state.Samples, 1)
	require.Equal(t, records, state.Samples[0].Records)
	work := fmt.Sprintf("a decision saved while %d records come in (%s)", records, took.Round(time.Second))
	return []row{
		{work + ", median", "one saved without", ratio(percentile(during, 50), percentile(without, 50)), "≤ 1.5"},
		{work + ", 95th percentile", "the same", ratio(percentile(during, 95), percentile(without, 95)), "printed"},
		{
			work + ", longest",
			"the longest saved without",
			ratio(percentile(during, 100), percentile(without, 100)),
			"printed",
		},
	}
}

// application returns the program on a database of its own, both of which end with the test, and a folder.
func application(t *testing.T) (*app.App, string, context.Context) {
	a, dir, _, ctx := applicationAt(t)
	return a, dir, ctx
}

// applicationAt does the same, and tells where the database is.
func applicationAt(t *testing.T) (a *app.App, dir, url string, ctx context.Context) {
	ctx, cancel := context.WithCancel(context.Background())
	t.Cleanup(cancel)
	dir, err := os.MkdirTemp("", "tamiz-bench-")
	require.NoError(t, err)
	t.Cleanup(func() { _ = os.RemoveAll(dir) })
	require.NoError(t, os.Chmod(dir, 0o755)) // whom the database runs as has to pass
	server, err := cluster.Start(ctx, dir, false)
	require.NoError(t, err)
	t.Cleanup(server.Stop)
	s, err := store.Open(ctx, server.URL)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	a, err = app.New(s, sru.Guard{Everywhere: true}, nil, slog.New(slog.DiscardHandler))
	require.NoError(t, err)
	require.NoError(t, a.Start(ctx))
	t.Cleanup(func() { _ = a.Stop(context.Background()) })
	return a, dir, server.URL, ctx
}
