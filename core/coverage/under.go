package coverage

import (
	"slices"
	"strings"

	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// pieces are the text candidates of a list that stand under none, in their order: a candidate that is a shorter or
// longer form of one before it stands under that (measures.md §4, *Under*).
type pieces struct {
	items  []string
	tokens [][]string
	by     map[string][]int // the candidates that hold each token, ascending
}

// put takes up the next candidate of the list, and returns under which of those before it this one stands, or "".
func (p *pieces) put(kind, item string, suit float64) (under string) {
	if kind != strategy.TextTerm || tally.Round(suit) <= 0 {
		return ""
	}
	tokens := strings.Split(item, " ")
	first := -1
	for _, t := range tokens {
		for _, i := range p.by[t] {
			if first >= 0 && i >= first {
				break
			}
			if text.InRow(tokens, p.tokens[i]) || text.InRow(p.tokens[i], tokens) {
				first = i
			}
		}
	}
	if first >= 0 {
		return p.items[first]
	}
	if p.by == nil {
		p.by = map[string][]int{}
	}
	for k, t := range tokens {
		if !slices.Contains(tokens[:k], t) {
			p.by[t] = append(p.by[t], len(p.items))
		}
	}
	p.items, p.tokens = append(p.items, item), append(p.tokens, tokens)
	return ""
}
