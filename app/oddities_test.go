package app_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
)

// Whatever a strategy and its key studies are like, every figure of Blocks and Coverage is answered, and says what
// is there.
func TestOddStrategiesAreAnswered(t *testing.T) {
	const cutters, hands, shade = "shade tents for cane cutters", "rest breaks for field hands", "shade tents for goats"
	a := block("a", "A", text("t1", "cane cutters"))
	b := block("b", "B", text("t2", "shade tents"))
	bare := block("b", "B")
	for name, c := range map[string]struct {
		keys    []string
		blocks  []desk.Block
		records int
		caught  int // key studies
		held    int // groups of parts that hold some back
		narrow  bool
	}{
		"no key study":             {nil, []desk.Block{a, b}, 3, 0, 0, true},
		"one":                      {[]string{cutters}, []desk.Block{a, b}, 3, 1, 0, true},
		"all missed":               {[]string{hands, shade}, []desk.Block{a, b}, 3, 0, 2, true},
		"all caught":               {[]string{cutters, cutters + " at noon"}, []desk.Block{a, b}, 3, 2, 0, true},
		"no block":                 {[]string{cutters}, nil, 0, 0, 0, false},
		"a block without terms":    {[]string{cutters, hands}, []desk.Block{a, bare}, 0, 0, 2, true},
		"only a block without any": {[]string{cutters}, []desk.Block{bare}, 0, 0, 1, true},
		"one that catches all": {[]string{cutters, hands}, []desk.Block{block("a", "A", text("t1", "trial")), b}, 12,
			0, 2, false},
		"a term that finds a third": {[]string{cutters}, []desk.Block{block("a", "A", text("t1", "slept"))}, 14, 0, 1, false},
		"an AND that is empty": {[]string{hands}, []desk.Block{a, block("b", "B", text("t2", "zeppelin"))}, 0, 0, 1,
			true},
	} {
		t.Run(name, func(t *testing.T) {
			x, review, state := harvesting(t)
			ctx := context.Background()
			if len(c.keys) > 0 {
				_, err := bring(t, x, review, "keys", "keys.ris", strings.NewReader(file(c.keys...)))
				require.NoError(t, err)
			}
			r, err := x.Reviews.Review(ctx, review)
			require.NoError(t, err)
			d := r.Document
			d.Blocks = c.blocks
			_, err = x.Change(ctx, review, r.Revision, change{What: what, Document: &d})
			require.NoError(t, err)
			at := looking(t, x, review, state)

			bench, err := x.Figures.Bench(ctx, at, desk.Proposal{})
			require.NoError(t, err)
			caught := 0
			for _, is := range bench.Caught {
				if is {
					caught++
				}
			}
			assert.Equal(t, c.caught, caught)
			if len(c.blocks) > 0 {
				require.NotNil(t, bench.Records)
				assert.Equal(t, c.records, *bench.Records)
			}
			assert.Equal(t, c.narrow, len(bench.Narrow) > 0)

			covered, err := x.Figures.Coverage(ctx, at)
			require.NoError(t, err)
			assert.Len(t, covered.Studies, len(c.keys))
			if len(c.blocks) > 0 {
				assert.Len(t, covered.HeldBack, c.held)
			}
			plan, err := x.Figures.Plan(ctx, at)
			require.NoError(t, err)
			if len(c.blocks) > 0 {
				assert.Equal(t, caught, plan.Caught)
				back := 0
				if len(plan.Steps) > 0 {
					back = plan.Steps[len(plan.Steps)-1].Caught - caught
				}
				assert.Len(t, plan.Left, len(c.keys)-caught-back, "what no step brings back is named")
			}
			for _, s := range covered.Studies {
				found, err := x.Figures.Rescue(ctx, at, s.ID)
				require.NoError(t, err)
				assert.NotNil(t, found)
			}
			for _, b := range c.blocks {
				_, err := x.Figures.BlindSpot(ctx, at, b.ID)
				require.NoError(t, err)
				_, err = x.Figures.Remarks(ctx, at, b.ID)
				require.NoError(t, err)
				pruned, err := x.Figures.Prune(ctx, at, b.ID, 0.95)
				require.NoError(t, err)
				assert.Empty(t, pruned.Steps, "one term is left")
			}
			for _, all := range []string{`{"kind":"all"}`, `{"kind":"strategy"}`, `{"kind":"any"}`} {
				drawn, err := x.Figures.Judging(ctx, at, figures.JudgingQuestion{Of: of(all), N: 20})
				if err == nil {
					assert.Len(t, drawn.Records, min(20, drawn.Total))
					continue
				}
				assert.True(t, slices.Contains([]string{"no-query", "invalid", "gone"}, problem(t, err).Type), problem(t, err).Type)
			}
		})
	}
}
