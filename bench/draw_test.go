package bench

import (
	"fmt"
	"math/rand/v2"

	"tamiz/core/bib"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

// A drawing draws terms from what records say, so that they find something: common words and rare ones.
type drawing struct {
	*rand.Rand
	records []*bib.Record
}

func newDrawing(records []*bib.Record) *drawing {
	return &drawing{rand.New(rand.NewPCG(7, 11)), records}
}

// draw returns strategies; blocks draws those of one.
func draw(records []*bib.Record, n int, blocks func(*drawing) []strategy.Block) []strategy.Strategy {
	d := newDrawing(records)
	out := make([]strategy.Strategy, n)
	for i := range out {
		out[i] = strategy.Strategy{Blocks: blocks(d)}
	}
	return out
}

// everyKind draws 3 blocks of 15 terms of every kind.
func everyKind(d *drawing) []strategy.Block { return d.blocks(3, 15) }

// spoken draws 3 blocks of 15 terms of the kinds that every engine knows: words, phrases, stems, headings.
func spoken(d *drawing) []strategy.Block {
	out := d.blocks(3, 15)
	for i := range out {
		for j, t := range out[i].Terms {
			if t.Kind == strategy.NearTerm {
				out[i].Terms[j] = strategy.Term{Kind: strategy.TextTerm, Text: t.Left, Field: "text", On: true}
			}
		}
	}
	return out
}

func (d *drawing) blocks(n, terms int) []strategy.Block {
	out := make([]strategy.Block, n)
	for i := range out {
		out[i] = strategy.Block{Name: fmt.Sprint("B", i), Searched: true}
		for j := range terms {
			out[i].Terms = append(out[i].Terms, d.term(j))
		}
	}
	return out
}

// term draws a term; of 15 in a row 5 are words, 4 phrases, 3 stems, 2 pairs, 1 a heading.
func (d *drawing) term(k int) strategy.Term {
	textual := func(s string) strategy.Term {
		return strategy.Term{Kind: strategy.TextTerm, Text: s, Field: "text", On: true}
	}
	tokens := d.tokens()
	i := d.IntN(len(tokens) - 1)
	word := tokens[i]
	switch k % 15 {
	case 0, 1, 2, 3, 4:
		return textual(word)
	case 5, 6, 7, 8:
		return textual(word + " " + tokens[i+1])
	case 9, 10, 11:
		r := []rune(word)
		return textual(string(r[:max(4, len(r)*2/3)]) + "*")
	case 12, 13:
		return strategy.Term{
			Kind:   strategy.NearTerm,
			Left:   word,
			Right:  tokens[d.IntN(len(tokens))],
			Within: 3,
			Field:  "text",
			On:     true,
		}
	}
	for {
		if r := d.records[d.IntN(len(d.records))]; len(r.Headings) > 0 {
			return strategy.Term{Kind: strategy.HeadingTerm, Heading: r.Headings[d.IntN(len(r.Headings))].Label, On: true}
		}
	}
}

// tokens returns the longer words of a title, in order.
func (d *drawing) tokens() []string {
	for {
		var out []string
		for _, t := range text.Tokens(d.records[d.IntN(len(d.records))].Title) {
			if len([]rune(t)) >= 5 && !text.IsStopword(t) {
				out = append(out, t)
			}
		}
		if len(out) >= 3 {
			return out
		}
	}
}
