package explain_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/dialect"
	"tamiz/core/strategy"
)

// Limits that are pasted come back as limits: also those that let in by words of titles, and those that keep out.
func TestLimitsThatArePastedAreLimits(t *testing.T) {
	from := 2010
	limits := []strategy.Limit{
		{Kind: strategy.YearsLimit, From: &from},
		{Kind: strategy.LanguagesLimit, Values: []string{"eng", "spa"}},
		{Kind: strategy.TypesLimit, Values: []string{"Trial Report"}, Titles: []string{"randomi?ed", "trial"}},
		{Kind: strategy.HumansLimit, Values: []string{"Humans"}, Titles: []string{"people"}, Against: []string{"Animals"}},
		{Kind: strategy.AgesLimit, Values: []string{"Children", "Infants"}, Against: []string{"Adults", "Older Adults"}},
	}
	s := strategy.Strategy{Limits: limits, Blocks: []strategy.Block{{Name: "A", Searched: true, Terms: []strategy.Term{
		{
			Kind:  strategy.TextTerm,
			Text:  "farmworker*",
			Field: "text",
			On:    true,
		}, {Kind: strategy.TextTerm, Text: "cane cutter*", Field: "text", On: true}}}}}
	for _, name := range []string{"cql", "almagre"} {
		d, ok := dialect.Named(name)
		require.True(t, ok, name)
		typed, err := s.Typed(d, over().Set.Thesaurus, dialect.Options{})
		require.NoError(t, err)
		e := explained(t, name, typed.Whole.Queries[0])
		assert.ElementsMatch(t, limits, e.Limits, name)
		assert.Len(t, e.Blocks, 1, name)
		assert.Empty(t, e.Verbatim, name)
	}
	// Headings of an age that are asked for may be a concept; so may words of titles alone, and what is taken away whole.
	for _, pasted := range []string{`farmworker* and (heading = "Older Adults" or title = elderly)`,
		`farmworker* and title = trial`, `farmworker* not heading = "Animals"`,
		`farmworker* not (heading = "Animals" not heading = "Heat Illness")`,
		`farmworker* not (title = cattle not heading = "Humans")`} {
		e := explained(t, "cql", pasted)
		assert.Empty(t, e.Limits, pasted)
	}
	assert.Equal(
		t,
		[]strategy.Limit{{Kind: strategy.HumansLimit, Values: []string{"Humans"}}},
		explained(t, "cql", `farmworker* and heading = "Humans"`).Limits,
	)
}
