package strategy_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/query"
	"tamiz/core/strategy"
)

// A strategy that is carried over asks what its query asks, carried over; terms keep their places, several
// counterparts of one heading are alternatives, and what has none stands as its words.
func TestHeadingsAreCarriedOver(t *testing.T) {
	to := map[string][]string{"field hands": {"Cutting gangs", "Hired pickers"}, "shade": {"Shelter"}, "water": nil}
	term := func(heading string, narrower bool) strategy.Term {
		return strategy.Term{Kind: strategy.HeadingTerm, Heading: heading, Narrower: narrower, On: true}
	}
	rapid.Check(t, func(t *rapid.T) {
		var s strategy.Strategy
		for i := range rapid.IntRange(1, 3).Draw(t, "blocks") {
			b := strategy.Block{Name: string(rune('A' + i)), Searched: true, Negated: i > 0 && rapid.Bool().Draw(t, "negated")}
			for range rapid.IntRange(1, 4).Draw(t, "terms") {
				b.Terms = append(
					b.Terms,
					rapid.SampledFrom([]strategy.Term{term("Field Hands", true), term("Shade", false), term("Water", false),
						term("Nowhere, Said", false),
						{
							Kind:  strategy.TextTerm,
							Text:  "picker*",
							Field: "text",
							On:    true,
						}, {Kind: strategy.NearTerm, Left: "rest", Right: "shade", Within: 3, Field: "text", On: true}}).
						Draw(t, "term"),
				)
			}
			s.Blocks = append(s.Blocks, b)
		}
		if rapid.Bool().Draw(t, "limit") {
			l := strategy.Limit{Kind: strategy.AgesLimit, Values: []string{"Field Hands"}, Titles: []string{"hand*"}}
			if rapid.Bool().Draw(t, "keeps out") {
				l.Against = []string{"Nowhere, Said", "Shade"}
			}
			s.Limits = append(s.Limits, l)
		}
		own, err := s.Query(nil)
		require.NoError(t, err)
		carried, all := s.Carry(to)
		want, err := carried.Query(nil)
		require.NoError(t, err)
		got, said, err := strategy.CarryQuery(own, to, nil, false)
		require.NoError(t, err)
		assert.Equal(t, query.Write(want), query.Write(got))
		assert.ElementsMatch(t, all, said)
		for i, b := range s.Blocks {
			require.Len(t, carried.Blocks[i].Terms, len(b.Terms))
		}
	})
	s := strategy.Strategy{
		Blocks: []strategy.Block{
			{Name: "A", Searched: true, Terms: []strategy.Term{term("Field Hands", false), term("Water", false)}},
		},
	}
	carried, all := s.Carry(to)
	q, err := carried.Query(nil)
	require.NoError(t, err)
	assert.Contains(t, query.Write(q), "Cutting gangs")
	assert.Contains(t, query.Write(q), "Hired pickers")
	assert.Equal(t, []strategy.Carried{{Heading: "Field Hands", To: to["field hands"]}, {Heading: "Water"}}, all)

	// What takes away is told of by itself, wherever it does.
	s.Blocks = append(
		s.Blocks,
		strategy.Block{Name: "N", Searched: true, Negated: true, Terms: []strategy.Term{term("Water", false)}},
	)
	s.Limits = []strategy.Limit{
		{Kind: strategy.HumansLimit, Values: []string{"Shade"}, Against: []string{"Nowhere, Said"}},
	}
	own, err := s.Query(nil)
	require.NoError(t, err)
	_, said, err := strategy.CarryQuery(own, to, nil, false)
	require.NoError(t, err)
	_, all = s.Carry(to)
	assert.Equal(
		t,
		[]strategy.Carried{
			{Heading: "Field Hands", To: to["field hands"]},
			{Heading: "Water"},
			{Heading: "Water", Away: true},
			{Heading: "Shade", To: to["shade"]},
			{Heading: "Nowhere, Said", Away: true},
		},
		all,
	)
	assert.ElementsMatch(t, all, said)
}
