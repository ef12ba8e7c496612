package index

import (
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/text"
)

// Words are the words of an index by what they share: those written almost alike, and those that are one word in other
// spellings and numbers.
type Words struct {
	all    []string
	byBase map[string][]string
}

// NewWords lists the words of an index.
func NewWords(ix *Index) *Words {
	w := &Words{byBase: map[string][]string{}}
	for n := range uint32(ix.Tokens()) {
		word := ix.Token(n)
		w.all = append(w.all, word)
		w.byBase[text.Base(word)] = append(w.byBase[text.Base(word)], word)
	}
	return w
}

// Edited returns the words that are one letter from another.
func (w *Words) Edited(word string) (out []string) {
	if utf8.RuneCountInString(word) < 4 {
		return nil
	}
	for _, other := range w.all {
		if d := len(other) - len(word); d >= -4 && d <= 4 && text.Edited(word, other) {
			out = append(out, other)
		}
	}
	return out
}

// Forms returns the words that are what a token pattern looks for in any spelling and number; of a stem, those that begin
// like it in another spelling. Other patterns have none but their own.
func (w *Words) Forms(t text.TokenPattern) (out []string) {
	word, exact := t.Exact()
	if exact {
		if out = w.byBase[text.Base(word)]; !slices.Contains(out, word) {
			out = append(slices.Clone(out), word)
		}
		return out
	}
	stem := text.Base(word)
	for _, other := range w.all {
		if t.Match(other) || t.String() == word+"*" && utf8.RuneCountInString(stem) >= leastStem && strings.HasPrefix(text.Base(other), stem) {
			out = append(out, other)
		}
	}
	return out
}

const (
	leastStem    = 5   // letters of a stem that is looked for in other spellings
	mostWritings = 64  // of one pattern
	mostForms    = 512 // of a phrase, before those that it matches are left out
)

// Writings returns the other ways of writing what a pattern looks for: in other spellings and numbers, as one word or as
// two.
func (w *Words) Writings(p text.Pattern) (out [][]string) {
	all := [][]string{{}}
	for _, t := range p {
		forms := w.Forms(t)
		var next [][]string
		for _, head := range all {
			for _, form := range forms {
				if len(next) < mostForms {
					next = append(next, append(slices.Clone(head), form))
				}
			}
		}
		all = next
	}
	for _, words := range all {
		if !p.At(words, 0) {
			out = append(out, words)
		}
	}
	if tokens, ok := p.Literal(); ok && len(p) == 2 {
		for _, form := range w.byBase[text.Base(tokens[0]+tokens[1])] {
			out = append(out, []string{form})
		}
	}
	if tokens, ok := p.Literal(); ok && len(p) == 1 {
		for i := range tokens[0] {
			head, tail := tokens[0][:i], tokens[0][i:]
			if utf8.RuneCountInString(head) < 3 || utf8.RuneCountInString(tail) < 3 || w.byBase[text.Base(head)] == nil {
				continue
			}
			for _, form := range w.byBase[text.Base(tail)] {
				out = append(out, []string{head, form})
			}
		}
	}
	return out[:min(len(out), mostWritings)]
}
