package bench

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app"
	"tamiz/app/desk"
	"tamiz/app/intake"
	"tamiz/app/reviews"
	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/index"
	"tamiz/core/review"
	"tamiz/core/strategy"
	"tamiz/demo"
	"tamiz/exchange/ris"
)

// decisions measures what travels for one decision in a review like the demo's, and how long what it would do is
// worked out over a large pool.
func decisions(t *testing.T, _ sizes) []row {
	const records = 100_000
	a, dir, ctx := application(t)
	r, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Heat and kidneys"})
	require.NoError(t, err)
	keys := filepath.Join(dir, "keys.ris")
	many := filepath.Join(dir, "many.ris")
	written(t, keys, 30)
	written(t, many, records)
	brought(t, ctx, a, r.ID, "keys", keys)
	brought(t, ctx, a, r.ID, "sample", many)
	now, err := a.Reviews.Review(ctx, r.ID)
	require.NoError(t, err)
	plan := demo.NewReview()
	doc := now.Document
	doc.Question = plan.Question
	for i, c := range plan.Concepts {
		b := review.Block{
			ID:       fmt.Sprintf("8c1f2d8e-0000-4000-8000-%012d", i),
			Name:     c.Block.Name,
			Concept:  c.Block.Concept,
			Searched: c.Block.Searched,
			Seeds:    c.Seeds,
		}
		for j, term := range c.Block.Terms {
			b.Terms = append(b.Terms, review.Term{ID: fmt.Sprintf("9d20%04d-0000-4000-8000-%012d", i, j), Term: term})
		}
		doc.Blocks = append(doc.Blocks, b)
	}
	begun := reviews.Change{What: reviews.What{Key: "demo"}, Edits: review.Diff(now.Document, doc)}
	for i := range 300 {
		begun.Decisions = append(
			begun.Decisions,
			reviews.NewDecision{Facet: "words", Item: fmt.Sprintf("some phrase %d", i), State: "dropped", Reason: "too-broad"},
		)
	}
	step, err := a.Reviews.Change(ctx, r.ID, now.Revision, begun)
	require.NoError(t, err)

	// One decision: a word goes into a block.
	fresh := review.Term{
		ID:   "7b1fb1a0-5d7e-4c2e-9b0a-2f6a3c1d5e77",
		Term: strategy.Term{Kind: strategy.TextTerm, Text: "seasonal labourers", Field: "text", On: true},
		From: &review.Origin{Facet: "words", Item: "seasonal labourers", Who: "Inés Olivar", At: "2026-01-02T10:00:00.000Z"},
	}
	add := review.Edits{&review.AddTerm{Block: doc.Blocks[0].ID, Term: fresh}}
	change := reviews.Change{
		What:  reviews.What{Key: "addTerm", Params: map[string]string{"term": fresh.Text, "block": "A"}},
		Edits: add,
	}
	at := desk.At{Review: r.ID}
	proposal := desk.Proposal{Revision: step.Revision, Edits: add}
	_, err = a.Figures.Bench(ctx, at, desk.Proposal{})
	require.NoError(t, err)
	previews := timed(t, 40, func(i int) {
		fresh.Text = fmt.Sprintf("labourers %d", i) // each is one that was never asked before
		proposal.Edits = review.Edits{&review.AddTerm{Block: doc.Blocks[0].ID, Term: fresh}}
		_, err := a.Figures.Bench(ctx, at, proposal)
		require.NoError(t, err)
	})
	plain := plainly(t, records, doc.Strategy(""))

	answer, err := a.Reviews.Change(ctx, r.ID, step.Revision, change)
	require.NoError(t, err)
	whole, err := a.Reviews.Review(ctx, r.ID)
	require.NoError(t, err)
	sent, got := size(t, change), size(t, answer)
	sentBefore := size(t, struct {
		What     reviews.What
		Document review.Document
	}{change.What, whole.Document})
	return []row{
		{
			fmt.Sprintf("bytes sent for one decision (%d)", sent),
			fmt.Sprintf("the whole document (%d)", sentBefore),
			share(sent, sentBefore),
			"under 4,000 bytes",
		},
		{
			fmt.Sprintf("bytes received for one decision (%d)", got),
			fmt.Sprintf("the whole state (%d)", size(t, whole.State)),
			share(got, size(t, whole.State)),
			"under 4,000 bytes",
		},
		{
			fmt.Sprintf("what a term would do, over %d records, median", records),
			"all terms counted once more",
			ratio(percentile(previews, 50), plain),
			"≤ 50 ms",
		},
		{"the same, 95th percentile", "the same", ratio(percentile(previews, 95), plain), "printed"},
	}
}

// plainly counts what a strategy finds in records, without anything that was kept.
func plainly(t *testing.T, n int, s strategy.Strategy) time.Duration {
	var records []*bib.Record
	require.NoError(t, demo.Each(demo.Seed, n, func(r *bib.Record, _ bool) error {
		records = append(records, r)
		return nil
	}))
	ix := index.Build(records)
	return percentile(timed(t, 5, func(int) {
		_, err := coverage.Find(context.Background(), coverage.Set{Records: records, Index: ix}, s)
		require.NoError(t, err)
	}), 50)
}

func timed(t *testing.T, times int, do func(int)) (took []time.Duration) {
	t.Helper()
	for i := range times {
		began := time.Now()
		do(i)
		took = append(took, time.Since(began))
	}
	return took
}

func size(t *testing.T, x any) int {
	body, err := json.Marshal(x)
	require.NoError(t, err)
	return len(body)
}

func share(a, b int) string { return fmt.Sprintf("%.2f", float64(a)/float64(b)) }

func written(t *testing.T, file string, records int) {
	out, err := os.Create(file)
	require.NoError(t, err)
	defer out.Close()
	w := ris.NewWriter(out)
	require.NoError(t, demo.Each(demo.Seed, records, func(r *bib.Record, _ bool) error { return w.Write(r) }))
	require.NoError(t, w.Close())
}

func brought(t *testing.T, ctx context.Context, a *app.App, review int64, kind, file string) {
	in, err := os.Open(file)
	require.NoError(t, err)
	defer in.Close()
	i, err := a.Intake.ImportFile(ctx, review, kind, filepath.Base(file), false, in)
	require.NoError(t, err)
	for i.State != "done" {
		require.NotEqual(t, "failed", i.State, i.Error)
		if i.State == "asking" {
			_, err = a.Intake.AnswerImport(
				ctx,
				i.ID,
				intake.FileAnswer{FileSettings: intake.FileSettings{Doubles: intake.Apart}},
			)
			require.NoError(t, err)
		}
		time.Sleep(50 * time.Millisecond)
		i, err = a.Intake.Import(ctx, i.ID)
		require.NoError(t, err)
	}
}
