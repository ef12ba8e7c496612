package company

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/index"
	"tamiz/core/strategy"
	"tamiz/demo"
)

// What a term matches among the items is what going through all of them finds.
func TestMatchedAsGoingThroughAll(t *testing.T) {
	ix := index.Build(demo.NewWorld(3, 2000).Records)
	c, err := Build(context.Background(), ix, ix.All())
	require.NoError(t, err)
	found := 0
	rapid.Check(t, func(t *rapid.T) {
		// Words of one item, so that something is found, each spelt out or with some of its letters left open.
		draw := func(label string) string {
			tokens := c.words[rapid.IntRange(0, len(c.words)-1).Draw(t, label)]
			var words []string
			for _, w := range tokens[:rapid.IntRange(1, len(tokens)).Draw(t, label+" words")] {
				k := rapid.IntRange(0, len(w)-1).Draw(t, label+" letter")
				words = append(
					words,
					rapid.SampledFrom([]string{w, w, w[:k] + "*", w[:k] + "?" + w[k+1:], "*" + w[k:]}).Draw(t, label+" as"),
				)
			}
			return strings.Join(words, " ")
		}
		term := strategy.Term{Kind: strategy.TextTerm, Text: draw("text"), Field: "text", On: true}
		if rapid.Bool().Draw(t, "near") {
			term = strategy.Term{
				Kind:   strategy.NearTerm,
				Left:   draw("left"),
				Right:  draw("right"),
				Within: 3,
				Field:  "text",
				On:     true,
			}
		}
		q, err := term.Query()
		if err != nil {
			t.Skip(err)
		}
		var want []int
		for i, words := range c.words {
			if q.(matcher).MatchesValue(words) {
				want = append(want, i)
			}
		}
		if len(want) > 0 {
			found++
		}
		assert.Equal(t, want, c.matched(q.(matcher)), "%v", term)
	})
	assert.Greater(t, found, 20)
}
