package company_test

import (
	"context"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/company"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/demo"
)

func textBlock(words ...string) strategy.Block {
	b := strategy.Block{Searched: true}
	for _, w := range words {
		b.Terms = append(b.Terms, strategy.Term{Kind: strategy.TextTerm, Text: w, Field: "text", On: true})
	}
	return b
}

// A term of which many phrases are said pulls a block no further than one that stands alone: what fits it lies between
// what fits each of them.
func TestEachTermWeighsTheSame(t *testing.T) {
	w := demo.NewWorld(3, 3000)
	p := must(tally.NewPool(context.Background(), w.Records, nil))
	c := must(company.Build(context.Background(), p.Index, p.Index.All()))
	ctx := context.Background()
	const one, other = "heat", "jornaleros"
	of := func(words ...string) *company.Directions {
		return must(c.Directions(ctx, strategy.Strategy{Blocks: []strategy.Block{textBlock(words...)}}))
	}
	first, second, both, twice := of(one), of(other), of(one, other), of(other, other)
	looked := 0
	for _, item := range c.ItemsIn(p.Index.All()) {
		if strings.Contains(item, one) || strings.Contains(item, other) || strings.Contains(item, " ") {
			continue // what they match leaves itself out; a phrase is bounded by its words
		}
		fit := func(d *company.Directions) float64 { f, _ := d.Fits(item); return f[0] }
		a, b, ab := fit(first), fit(second), fit(both)
		if a == 0 || b == 0 {
			continue
		}
		// The sum of two vectors of length 1 has the same share of each: (a + b) divided by its length, which is √2 to 2.
		assert.LessOrEqual(t, ab, (a+b)/math.Sqrt2+1e-9, item)
		assert.GreaterOrEqual(t, ab, (a+b)/2-1e-9, item)
		assert.InDelta(t, b, fit(twice), 1e-9, "the same term twice is the same block")
		looked++
	}
	require.Greater(t, looked, 100)
}
