package coverage_test

import (
	"context"
	"math"
	"slices"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/coverage"
)

func TestCandidatesAreOrderedByTwoRanks(t *testing.T) {
	all := []coverage.Ordered{
		{Item: "shade", Records: 9, Pull: 40},            // 1/20
		{Item: "tent", Records: 4, Pull: 30, Fresh: 0.2}, // 1/21 + 1/22
		{Item: "hut", Records: 5, Pull: 30, Fresh: 0.5},  // 1/21, as it has more records the second, + 1/21
		{Item: "cap", Records: 3, Pull: 1, Fresh: 0.9},   // 1/23 + 1/20
		{Item: "barn", Records: 3, Pull: 1},              // 1/23, before cap by its name, so that cap has 1/24
	}
	var items []string
	for _, i := range coverage.Order(all) {
		items = append(items, all[i].Item)
	}
	assert.Equal(t, []string{"hut", "cap", "tent", "shade", "barn"}, items)
	assert.Empty(t, coverage.Order(nil))
}

func TestNobodyStandsBehindWhatIsLessInBoth(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		all := make([]coverage.Ordered, rapid.IntRange(1, 40).Draw(t, "n"))
		for i := range all {
			all[i] = coverage.Ordered{
				Item:    string(rune('a' + i)),
				Records: 2,
				Pull:    rapid.Float64Range(-5, 5).Draw(t, "pull"),
				Fresh:   rapid.Float64Range(0, 2).Draw(t, "fresh"),
			}
		}
		order := coverage.Order(all)
		assert.ElementsMatch(t, slices.Collect(func(yield func(int) bool) {
			for i := range all {
				if !yield(i) {
					return
				}
			}
		}), order)
		for k, i := range order {
			for _, j := range order[:k] {
				if all[i].Pull > all[j].Pull+1e-6 && all[i].Fresh > all[j].Fresh+1e-6 {
					t.Fatalf("%v stands behind %v", all[i], all[j])
				}
			}
		}
	})
}

// What all items offer at once is what each is said to suit by itself, over the records with it in title or abstract.
func TestOffersAreTheSuitsOfEach(t *testing.T) {
	s := woolStrategy(t)
	set := coverage.NewSet(append(read(t, "sample.ris"), read(t, "contrast-1.ris")...))
	ctx := context.Background()
	suits, kept, err := coverage.SuitsOf(ctx, set, s)
	require.NoError(t, err)
	reach, err := coverage.Find(ctx, set, s)
	require.NoError(t, err)
	offers, err := coverage.Offered(ctx, suits, kept, reach.BlindSpots(), nil)
	require.NoError(t, err)
	proposed, fresh := 0, 0
	for _, item := range kept.ItemsIn(set.Index.All()) {
		has := roaring.New()
		for r := range uint32(len(set.Records)) {
			if slices.Contains(kept.ItemsIn(roaring.BitmapOf(r)), item) {
				has.Add(r)
			}
		}
		alone := suits.Text(item, has)
		most := 0.0
		for b, suit := range alone.Of {
			if block := s.Blocks[b]; block.Searched && !block.Negated {
				most = max(most, suit*math.Log(1+float64(has.AndCardinality(reach.BlindSpot(b)))))
			}
		}
		assert.InDelta(t, most, offers.Fresh(item), 1e-9, item)
		if most > 0 {
			fresh++
		}
		if block, suit := offers.Proposed(item); block >= 0 {
			proposed++
			assert.Equal(t, alone.Best(), block, item)
			assert.InDelta(t, alone.Of[block], suit, 1e-9, item)
		}
		if proposed > 300 {
			break
		}
	}
	assert.Greater(t, proposed, 100)
	assert.Greater(t, fresh, 100)
	block, _ := offers.Proposed("no such item")
	assert.Equal(t, -1, block)
	assert.Zero(t, offers.Fresh("no such item"))
}
