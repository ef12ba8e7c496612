package coverage_test

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

// bothRules runs a test by each rule of suit.
func bothRules(t *testing.T, test func(t *testing.T, rule coverage.Rule)) {
	for _, rule := range []coverage.Rule{coverage.Published, coverage.ByWords} {
		t.Run(string(rule), func(t *testing.T) { test(t, rule) })
	}
}

func TestTheFirstOfABlindSpotAreThoseOfTheWholeList(t *testing.T) {
	bothRules(t, firstOfABlindSpot)
}

func firstOfABlindSpot(t *testing.T, rule coverage.Rule) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	suits, kept, err := coverage.SuitsOf(context.Background(), set, s, rule)
	require.NoError(t, err)
	reach, err := coverage.Find(context.Background(), set, s)
	require.NoError(t, err)
	for block := range 2 {
		all, spot, err := coverage.Lacks(context.Background(), reach, suits, kept, block, coverage.Wanted{})
		require.NoError(t, err)
		assert.Greater(t, spot, 40)
		require.Greater(t, len(all), 40)
		for _, n := range []int{1, 10, 60, len(all), len(all) + 1} {
			first, _, err := coverage.Lacks(context.Background(), reach, suits, kept, block, coverage.Wanted{First: n})
			require.NoError(t, err)
			assert.Equal(t, all[:min(n, len(all))], first)
		}
		without, _, err := coverage.Lacks(context.Background(), reach, suits, kept, block, coverage.Wanted{First: 20, Skip: func(kind, item string) bool { return item == all[0].Item }})
		require.NoError(t, err)
		assert.Equal(t, all[1:21], without, "what is to be skipped gives its place to the next")
	}
}

// Whatever the order of the blocks, each candidate suits each of them as well.
func TestSuitDoesNotDependOnTheOrderOfBlocks(t *testing.T) {
	bothRules(t, orderOfBlocks)
}

func orderOfBlocks(t *testing.T, rule coverage.Rule) {
	s := woolStrategy(t)
	set := coverage.NewSet(read(t, "sample.ris"))
	turned := s
	turned.Blocks = slices.Clone(s.Blocks)
	slices.Reverse(turned.Blocks)
	suits, kept, err := coverage.SuitsOf(context.Background(), set, s, rule)
	require.NoError(t, err)
	other, _, err := coverage.SuitsOf(context.Background(), set, turned, rule)
	require.NoError(t, err)
	compared := 0
	for _, item := range kept.ItemsIn(set.Index.All()) {
		records, err := coverage.Hits(set, strategy.Term{Kind: strategy.TextTerm, Text: item, Field: "text"})
		if err != nil {
			continue
		}
		a, b := suits.Text(item, records), other.Text(item, records)
		slices.Reverse(b.Of)
		assert.InDeltaSlice(t, a.Of, b.Of, 1e-12, item)
		compared++
	}
	assert.Greater(t, compared, 200)
	assert.False(t, suits.Text("no such item", set.Index.All()).Kept)
}

// By words, a phrase fits a block no better than the word that leads it, and counts less where few records hold it.
func TestSuitByWordsGoesByTheLeadingWord(t *testing.T) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	ctx := context.Background()
	byWords, kept, err := coverage.SuitsOf(ctx, set, s, coverage.ByWords)
	require.NoError(t, err)
	own, err := kept.Directions(ctx, s, company.ByTerm)
	require.NoError(t, err)
	reach, err := coverage.Find(ctx, set, s)
	require.NoError(t, err)
	words, phrases, bounded := 0, 0, 0
	for _, item := range kept.ItemsIn(set.Index.All()) {
		tokens := strings.Split(item, " ")
		records := set.Index.Phrase(text.Literal(tokens...), bib.Text)
		fits, ok := own.Fits(item)
		require.True(t, ok)
		var leading []float64
		for _, w := range tokens {
			if f, ok := own.Fits(w); ok && len(tokens) > 1 && (leading == nil || slices.Max(f.Of) > slices.Max(leading)) {
				leading = f.Of
			}
		}
		n := float64(records.GetCardinality())
		for block, got := range byWords.Text(item, records).Of {
			fit := fits.Of[block]
			if leading != nil {
				phrases++
				assert.LessOrEqual(t, fit, leading[block], item)
				if fit == leading[block] {
					bounded++
				}
			} else {
				words++
			}
			want := 0.0
			if fit > 0 {
				p := float64(reach.Blocks[block].GetCardinality()) / float64(len(set.Records))
				together := (float64(records.AndCardinality(reach.Blocks[block])) + 5*p) / (n + 5) / p
				want = math.Pow(fit*(1+max(0, math.Log(together))), 2) * math.Pow(fit/slices.Max(fits.Of), 8) / math.Log(2+n)
				if leading != nil {
					want *= n / (n + 10)
				}
			}
			assert.InDelta(t, want, got, 1e-9, item)
		}
	}
	assert.Greater(t, words, 100)
	assert.Greater(t, phrases, 100)
	assert.Greater(t, bounded, 50)
}

func TestPruningNeverLosesAKeyStudyNorMoreThanItSays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		set, s := drawn(t, 14)
		keys, _ := drawn(t, 6)
		share := rapid.Float64Range(0, 1).Draw(t, "share")
		reach, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		inKeys, err := coverage.Find(context.Background(), keys, s)
		require.NoError(t, err)
		for block := range s.Blocks {
			gone, err := coverage.Prune(context.Background(), reach, inKeys, block, share)
			require.NoError(t, err)
			less := s
			less.Blocks = slices.Clone(s.Blocks)
			less.Blocks[block].Terms = slices.Clone(s.Blocks[block].Terms)
			left := reach.Blocks[block].GetCardinality()
			for _, p := range gone {
				require.True(t, less.Blocks[block].Terms[p.Term].On, "no term goes twice")
				less.Blocks[block].Terms[p.Term].On = false
				now, err := coverage.Find(context.Background(), set, less)
				require.NoError(t, err)
				assert.Equal(t, uint64(p.Left), now.Blocks[block].GetCardinality(), "a new count without it says the same")
				assert.Equal(t, left-uint64(p.Loses), uint64(p.Left))
				left = uint64(p.Left)
			}
			after, err := coverage.Find(context.Background(), keys, less)
			require.NoError(t, err)
			assert.Equal(t, inKeys.Blocks[block].ToArray(), after.Blocks[block].ToArray())
			assert.GreaterOrEqual(t, float64(left), share*float64(reach.Blocks[block].GetCardinality()))
			if on := slices.ContainsFunc(s.Blocks[block].Terms, func(t strategy.Term) bool { return t.On }); on {
				assert.True(t, slices.ContainsFunc(less.Blocks[block].Terms, func(t strategy.Term) bool { return t.On }), "one term is left")
			}
		}
	})
}

// What has no company has no part in a plan: it is the same whether it was looked for or not.
func TestAPlanNeedsWhatIsPromisingAlone(t *testing.T) {
	bothRules(t, promisingAlone)
}

func promisingAlone(t *testing.T, rule coverage.Rule) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	keys := coverage.NewSet(read(t, "keys.ris"))
	ctx := context.Background()
	suits, _, err := coverage.SuitsOf(ctx, set, s, rule)
	require.NoError(t, err)
	plan := func(of func(r *coverage.Rescuer, block int) (coverage.BlockRescue, error)) (out []string) {
		r, err := coverage.NewRescuer(ctx, set, keys, s, suits)
		require.NoError(t, err)
		var blocks []coverage.BlockRescue
		for i := range s.Blocks {
			b, err := of(r, i)
			require.NoError(t, err)
			blocks = append(blocks, b)
		}
		steps, err := r.Plan(ctx, blocks)
		require.NoError(t, err)
		for _, s := range steps {
			out = append(out, fmt.Sprint(s.Block, s.Item, s.Kind, s.Rescues, s.Price, s.Caught, s.Hits))
		}
		return out
	}
	all := plan(func(r *coverage.Rescuer, i int) (coverage.BlockRescue, error) { return r.Block(ctx, i) })
	assert.NotEmpty(t, all)
	assert.Equal(t, all, plan(func(r *coverage.Rescuer, i int) (coverage.BlockRescue, error) { return r.Promising(ctx, i) }))
}
