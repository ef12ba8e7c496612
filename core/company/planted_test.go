package company_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/company"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/demo"
)

// Synonyms that are planted in the invented world, by the block they belong to.
var planted = map[string][]string{
	"A": {
		"farm workers",
		"farmworkers",
		"agricultural workers",
		"sugarcane workers",
		"agricultural labourers",
		"agricultural laborers",
		"field hands",
		"harvest crews",
		"cane cutters",
		"sugarcane cutters",
		"sugarcane harvesters",
		"seasonal workers",
		"migrant workers",
		"campesinos",
		"jornaleros",
		"plantation workers",
		"fieldworkers",
		"fruit pickers",
		"pickers",
		"orchard workers",
		"vineyard workers",
	},
	"B": {
		"rest breaks",
		"shade tents",
		"hydration",
		"drinking water provision",
		"electrolyte solution",
		"work rest schedule",
		"cooling vests",
		"cooling garments",
		"acclimatisation",
		"acclimatization",
		"heat stress prevention",
		"buddy system",
		"workload pacing",
	},
	"C": {
		"acute kidney injury",
		"aki",
		"kidney function decline",
		"egfr",
		"serum creatinine",
		"chronic kidney disease of unknown origin",
		"nephropathy",
		"biomarkers of tubular injury",
	},
}

func TestPlantedSynonymsSuitTheirOwnBlock(t *testing.T) {
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	p := must(tally.NewPool(context.Background(), w.RoughSample(), w.RandomSample(1, 4000)))
	c := must(company.Build(context.Background(), p.Index, p.Index.All()))
	s := demo.NewReview().Strategy()
	fits, err := c.Fits(context.Background(), s)
	require.NoError(t, err)
	proposed := map[string]string{}
	for _, f := range fits {
		if f.Proposed >= 0 {
			proposed[f.Item] = s.Blocks[f.Proposed].Name
		}
	}
	all, right := 0, 0
	var wrong []string
	for block, words := range planted {
		for _, w := range words {
			if !slices.ContainsFunc(fits, func(f company.Fit) bool { return f.Item == w }) {
				continue
			}
			if all++; proposed[w] == block {
				right++
			} else {
				wrong = append(wrong, w+" → "+proposed[w])
			}
		}
	}
	t.Logf("%d of %d; %s", right, all, strings.Join(wrong, ", "))
	assert.Greater(t, all, 30)
	assert.GreaterOrEqual(t, float64(right), 0.8*float64(all))

	alike, err := c.AlikeTo(
		context.Background(),
		[]strategy.Term{{Kind: strategy.TextTerm, Text: "farmworker*", Field: "text", On: true}},
		20,
	)
	require.NoError(t, err)
	found := 0
	for _, a := range alike {
		if slices.Contains(planted["A"], a.Item) {
			found++
		}
	}
	assert.GreaterOrEqual(t, found, 5)
}

func TestWordsAlikeToATermLeaveOutWhatItMatches(t *testing.T) {
	w := demo.NewWorld(3, 1500)
	p := must(tally.NewPool(context.Background(), w.Records, nil))
	c := must(company.Build(context.Background(), p.Index, p.Index.All()))
	alike, err := c.AlikeTo(
		context.Background(),
		[]strategy.Term{{Kind: strategy.TextTerm, Text: "heat stress", Field: "text", On: true}},
		0,
	)
	require.NoError(t, err)
	require.NotEmpty(t, alike)
	for i, a := range alike {
		assert.NotContains(t, []string{"heat", "stress", "heat stress"}, a.Item)
		assert.False(t, strings.Contains(" "+a.Item+" ", " heat stress "), a.Item)
		if i > 0 {
			assert.LessOrEqual(t, a.Alike, alike[i-1].Alike)
		}
	}
	// Of a term that matches a single item that is what Alike gives.
	alike, err = c.AlikeTo(
		context.Background(),
		[]strategy.Term{{Kind: strategy.TextTerm, Text: "jornaleros", Field: "text", On: true}},
		30,
	)
	require.NoError(t, err)
	one, ok := c.Alike("jornaleros", 30)
	require.True(t, ok)
	require.Equal(t, len(one), len(alike))
	for i := range one {
		assert.InDelta(t, one[i].Alike, alike[i].Alike, 1e-6)
	}
	_, err = c.AlikeTo(context.Background(), []strategy.Term{{Kind: strategy.TextTerm, Text: "*", On: true}}, 0)
	assert.Error(t, err)
}
