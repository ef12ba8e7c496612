package bench

import (
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/core/review"
	"tamiz/core/strategy"
)

// strategyLines measures how long the lines of a large strategy take to be right again, with all their figures,
// after one of them was switched.
func strategyLines(t *testing.T, _ sizes) []row {
	const records, blocks, terms = 24_000, 4, 60
	a, dir, ctx := application(t)
	r, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Heat and kidneys"})
	require.NoError(t, err)
	keys, many := filepath.Join(dir, "keys.ris"), filepath.Join(dir, "many.ris")
	written(t, keys, 60)
	written(t, many, records)
	brought(t, ctx, a, r.ID, "keys", keys)
	brought(t, ctx, a, r.ID, "sample", many)
	now, err := a.Reviews.Review(ctx, r.ID)
	require.NoError(t, err)
	words, err := a.Figures.Tally(ctx, desk.At{Review: r.ID}, "words")
	require.NoError(t, err)
	doc := now.Document
	for i := range blocks {
		b := review.Block{ID: fmt.Sprint("b", i), Name: string(rune('A' + i)), Searched: true}
		for j := range terms {
			item := words.Rows[(j*blocks+i)*5%len(words.Rows)].Item
			b.Terms = append(
				b.Terms,
				review.Term{
					ID:   fmt.Sprint("t", i, "-", j),
					Term: strategy.Term{Kind: strategy.TextTerm, Text: item, Field: "text", On: true},
				},
			)
		}
		doc.Blocks = append(doc.Blocks, b)
	}
	step, err := a.Reviews.Change(
		ctx,
		r.ID,
		now.Revision,
		reviews.Change{What: reviews.What{Key: "demo"}, Edits: review.Diff(now.Document, doc)},
	)
	require.NoError(t, err)
	at := desk.At{Review: r.ID}
	all := func() {
		w, err := a.Sources.Lines(ctx, at, nil)
		require.NoError(t, err)
		require.GreaterOrEqual(t, len(w.Lines), blocks*terms)
		_, err = a.Figures.Bench(ctx, at, desk.Proposal{})
		require.NoError(t, err)
	}
	all()
	revision, on := step.Revision, true
	var took []time.Duration
	for i := range 15 {
		on = !on
		step, err := a.Reviews.Change(
			ctx,
			r.ID,
			revision,
			reviews.Change{
				What: reviews.What{Key: "switchOff"},
				Edits: review.Edits{
					&review.PatchTerm{Block: "b0", ID: fmt.Sprint("t0-", i/2), Patch: fmt.Appendf(nil, `{"on":%t}`, on)},
				},
			},
		)
		require.NoError(t, err)
		revision = step.Revision
		took = append(took, timed(t, 1, func(int) { all() })...)
	}
	plain := plainly(t, records, doc.Strategy(""))
	return []row{
		{
			fmt.Sprintf(
				"lines with all their figures, %d blocks of %d terms over %d records, a term switched, median",
				blocks,
				terms,
				records,
			),
			"all terms counted once more",
			ratio(percentile(took, 50), plain),
			"≤ 100 ms",
		},
		{"the same, 95th percentile", "the same", ratio(percentile(took, 95), plain), "printed"},
	}
}
