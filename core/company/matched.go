package company

import (
	"slices"

	"tamiz/core/query"
	"tamiz/core/text"
)

// A matcher is a free-text or near term.
type matcher interface{ MatchesValue(tokens []string) bool }

var _ matcher = query.Phrase{}
var _ matcher = query.Near{}

// tokensOf returns what tokens must be like of which each match of a term has one.
func tokensOf(m matcher) text.Pattern {
	switch q := m.(type) {
	case query.Phrase:
		return q.Pattern
	case query.Near:
		return slices.Concat(q.Left, q.Right)
	}
	return nil
}

// matched returns the items that a term matches, ascending. Only those are looked at that hold one of its words: of
// the words that it spells out the rarest; where it spells out none, all that its first may be.
func (c *Company) matched(m matcher) []int {
	var holding []int32
	spelt := false
	for _, token := range tokensOf(m) {
		if word, exact := token.Exact(); exact {
			if held := c.holding[word]; !spelt || len(held) < len(holding) {
				holding, spelt = held, true
			}
		}
	}
	if tokens := tokensOf(m); !spelt && len(tokens) > 0 {
		for word, held := range c.holding {
			if tokens[0].Match(word) {
				holding = append(holding, held...)
			}
		}
		slices.Sort(holding)
		holding = slices.Compact(holding)
	}
	var matched []int
	for _, i := range holding {
		if m.MatchesValue(c.words[i]) {
			matched = append(matched, int(i))
		}
	}
	return matched
}

// held returns by word the items that hold it, ascending.
func held(words [][]string) map[string][]int32 {
	by := map[string][]int32{}
	for i, tokens := range words {
		for k, word := range tokens {
			if !slices.Contains(tokens[:k], word) {
				by[word] = append(by[word], int32(i))
			}
		}
	}
	return by
}
