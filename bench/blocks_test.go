package bench

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/review"
	"tamiz/core/tally"
	"tamiz/demo"
)

// blockScreens measures how long Blocks and Coverage take to be right again at the server, and what is proposed there.
func blockScreens(t *testing.T, _ sizes) []row {
	const records, studies = 24_000, 60
	a, dir, ctx := application(t)
	r, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Heat and kidneys"})
	require.NoError(t, err)
	keys, many := filepath.Join(dir, "keys.ris"), filepath.Join(dir, "many.ris")
	written(t, keys, studies)
	written(t, many, records)
	brought(t, ctx, a, r.ID, "keys", keys)
	brought(t, ctx, a, r.ID, "sample", many)
	now, err := a.Reviews.Review(ctx, r.ID)
	require.NoError(t, err)
	doc := now.Document
	for i, c := range demo.NewReview().Concepts {
		b := review.Block{
			ID:       fmt.Sprint("b", i),
			Name:     c.Block.Name,
			Concept:  c.Block.Concept,
			Searched: c.Block.Searched,
			Seeds:    c.Seeds,
		}
		for j, term := range c.Block.Terms {
			b.Terms = append(b.Terms, review.Term{ID: fmt.Sprint("t", i, "-", j), Term: term})
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
	covered, err := a.Figures.Coverage(ctx, at)
	require.NoError(t, err)
	missed := []int64{}
	for _, s := range covered.Studies {
		if !s.Caught {
			missed = append(missed, s.ID)
		}
	}
	require.Greater(t, len(missed), 20)
	figuresOf := func() {
		_, err := a.Figures.Bench(ctx, at, desk.Proposal{})
		require.NoError(t, err)
		_, err = a.Figures.Coverage(ctx, at)
		require.NoError(t, err)
		_, err = a.Figures.Prune(ctx, at, "b0", 0.95)
		require.NoError(t, err)
	}
	figuresOf()
	_, err = a.Figures.BlindSpot(ctx, at, "b0") // the company of the words is known from Harvest
	require.NoError(t, err)
	revision := step.Revision
	on := true
	change := func() {
		on = !on
		step, err := a.Reviews.Change(
			ctx,
			r.ID,
			revision,
			reviews.Change{
				What:  reviews.What{Key: "switchOff"},
				Edits: review.Edits{&review.PatchTerm{Block: "b0", ID: "t0-1", Patch: []byte(fmt.Sprintf(`{"on":%t}`, on))}},
			},
		)
		require.NoError(t, err)
		revision = step.Revision
	}
	var after, first, plan, remarks []time.Duration
	for range 7 {
		change()
		after = append(after, timed(t, 1, func(int) { figuresOf() })...)
		first = append(first, timed(t, 1, func(int) {
			_, err := a.Figures.Rescue(ctx, at, missed[0])
			require.NoError(t, err)
		})...)
		plan = append(plan, timed(t, 1, func(int) {
			_, err := a.Figures.Plan(ctx, at)
			require.NoError(t, err)
		})...)
		remarks = append(remarks, timed(t, 1, func(int) {
			_, err := a.Figures.Remarks(ctx, at, "b0")
			require.NoError(t, err)
		})...)
	}
	plain := plainly(t, records, doc.Strategy(""))
	return append([]row{
		{
			fmt.Sprintf("one term switched off, %d records: bench, coverage and pruning right again", records),
			"all terms counted once more",
			ratio(percentile(after, 50), plain),
			"≤ 60 ms",
		},
		{"what would bring a study back, after a change", "the same", ratio(percentile(first, 50), plain), "≤ 300 ms"},
		{
			fmt.Sprintf("rescue plan of %d missed studies, after a change", len(missed)),
			"the same",
			ratio(percentile(plan, 50), plain),
			"≤ 1.5 s",
		},
		{"remarks on a block, after a change", "the same", ratio(percentile(remarks, 50), plain), "printed"},
	}, offered(t)...)
}

// offered measures how long it takes to tell of all items of many records how well they suit four blocks.
func offered(t *testing.T) []row {
	const records = 34_000
	w := demo.NewWorld(demo.Seed, records)
	s := newSpecialist(w.Records, w.About, demo.Topics[0])
	ctx := context.Background()
	plan, _ := s.asked(0)
	plan.Blocks = append(plan.Blocks, plan.Blocks...)
	for i := range plan.Blocks {
		plan.Blocks[i].Name = string(rune('A' + i))
	}
	kept := must(company.Build(ctx, s.pool.Index, s.pool.Index.All()))
	took := timed(t, 3, func(int) {
		reach := must(coverage.Find(ctx, s.index, plan))
		must(coverage.Offered(ctx, must(coverage.NewSuits(ctx, s.index, kept, plan)), kept, reach.BlindSpots(), nil))
	})
	fresh := must(tally.NewPool(ctx, w.Records, nil))
	counted := timed(t, 3, func(int) { must(tally.CountWords(ctx, fresh, nil, tally.DefaultWords)) })
	return []row{
		{
			fmt.Sprintf("suit of all %d items of %d records to four blocks", kept.Len(), len(w.Records)),
			"the tally of words from the text",
			ratio(percentile(took, 50), percentile(counted, 50)),
			"≤ 2",
		},
	}
}
