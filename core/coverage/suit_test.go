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
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

func TestTheFirstOfABlindSpotAreThoseOfTheWholeList(t *testing.T) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	suits, kept, err := coverage.SuitsOf(context.Background(), set, s)
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
		without, _, err := coverage.Lacks(
			context.Background(),
			reach,
			suits,
			kept,
			block,
			coverage.Wanted{First: 20, Skip: func(kind, item string) bool { return item == all[0].Item }},
		)
		require.NoError(t, err)
		want := slices.Clone(all[1:21])
		// what stood under the one that is skipped stands under another
		for _, rows := range [][]coverage.Lack{want, without} {
			for i := range rows {
				rows[i].Under = ""
			}
		}
		assert.Equal(t, want, without, "what is to be skipped gives its place to the next")
	}
}

// Whatever the order of the blocks, each candidate suits each of them as well.
func TestSuitDoesNotDependOnTheOrderOfBlocks(t *testing.T) {
	s := woolStrategy(t)
	set := coverage.NewSet(read(t, "sample.ris"))
	turned := s
	turned.Blocks = slices.Clone(s.Blocks)
	slices.Reverse(turned.Blocks)
	suits, kept, err := coverage.SuitsOf(context.Background(), set, s)
	require.NoError(t, err)
	other, _, err := coverage.SuitsOf(context.Background(), set, turned)
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

// Suit is the formula of measures.md §4, worked out here from fit and records; a piece of a sentence suits nothing.
func TestSuitIsTheFormula(t *testing.T) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	ctx := context.Background()
	suits, kept, err := coverage.SuitsOf(ctx, set, s)
	require.NoError(t, err)
	own, err := kept.Directions(ctx, s)
	require.NoError(t, err)
	reach, err := coverage.Find(ctx, set, s)
	require.NoError(t, err)
	words, phrases, pieces := 0, 0, 0
	for _, item := range kept.ItemsIn(set.Index.All()) {
		tokens := strings.Split(item, " ")
		records := set.Index.Phrase(text.Literal(tokens...), bib.Text)
		fits, ok := own.Fits(item)
		require.True(t, ok)
		switch {
		case len(tokens) == 1:
			words++
			require.True(t, own.Stands(item), "a word always stands")
		case own.Stands(item):
			phrases++
		default:
			pieces++
		}
		n := float64(records.GetCardinality())
		for block, got := range suits.Text(item, records).Of {
			want := 0.0
			if fit := fits[block]; fit > 0 && own.Stands(item) {
				p := float64(reach.Blocks[block].GetCardinality()) / float64(len(set.Records))
				together := (float64(records.AndCardinality(reach.Blocks[block])) + 5*p) / (n + 5) / p
				want = math.Pow(
					fit*(2+max(0, math.Log(together))),
					2,
				) * math.Pow(
					fit/slices.Max(fits),
					8,
				) / math.Pow(
					math.Log(2+n),
					1.5,
				)
			}
			assert.InDelta(t, want, got, 1e-9, item)
		}
	}
	assert.Greater(t, words, 100)
	assert.Greater(t, phrases, 50)
	assert.Greater(t, pieces, 50)
}

// A shorter or longer form of a candidate stands under the first of them; all heads of a list hold no other head.
func TestFormsStandUnderTheFirst(t *testing.T) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	ctx := context.Background()
	suits, kept, err := coverage.SuitsOf(ctx, set, s)
	require.NoError(t, err)
	reach, err := coverage.Find(ctx, set, s)
	require.NoError(t, err)
	lacks, _, err := coverage.Lacks(ctx, reach, suits, kept, 0, coverage.Wanted{})
	require.NoError(t, err)
	holds := func(a, b string) bool { return strings.Contains(" "+a+" ", " "+b+" ") }
	var heads []string
	under := 0
	for _, l := range lacks {
		if l.Kind != strategy.TextTerm {
			assert.Empty(t, l.Under)
			continue
		}
		first := ""
		for _, h := range heads {
			if holds(h, l.Item) || holds(l.Item, h) {
				first = h
				break
			}
		}
		require.Equal(t, first, l.Under, l.Item)
		if l.Under == "" {
			heads = append(heads, l.Item)
		} else {
			under++
		}
	}
	assert.Greater(t, under, 5)
	assert.Greater(t, len(heads), 20)
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
				assert.True(
					t,
					slices.ContainsFunc(less.Blocks[block].Terms, func(t strategy.Term) bool { return t.On }),
					"one term is left",
				)
			}
		}
	})
}

// What has no company has no part in a plan: it is the same whether it was looked for or not.
func TestAPlanNeedsWhatIsPromisingAlone(t *testing.T) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	keys := coverage.NewSet(read(t, "keys.ris"))
	ctx := context.Background()
	suits, _, err := coverage.SuitsOf(ctx, set, s)
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
	assert.Equal(
		t,
		all,
		plan(func(r *coverage.Rescuer, i int) (coverage.BlockRescue, error) { return r.Promising(ctx, i) }),
	)
}
