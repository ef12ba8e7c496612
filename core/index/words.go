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
	byHead map[string][]int32 // by its first two letters, places among all
	byTail map[string][]int32 // by its last two
}

// NewWords lists the words of an index.
func NewWords(ix *Index) *Words {
	w := &Words{byBase: map[string][]string{}, byHead: map[string][]int32{}, byTail: map[string][]int32{}}
	for n := range uint32(ix.Tokens()) {
		word := ix.Token(n)
		if head, tail, ok := ends(word); ok {
			w.byHead[head], w.byTail[tail] = append(w.byHead[head], int32(n)), append(w.byTail[tail], int32(n))
		}
		w.all = append(w.all, word)
		w.byBase[text.Base(word)] = append(w.byBase[text.Base(word)], word)
	}
	return w
}

// ends returns the first two letters of a word and the last two; not ok for one that has fewer.
func ends(word string) (head, tail string, ok bool) {
	if utf8.RuneCountInString(word) < 2 {
		return "", "", false
	}
	_, first := utf8.DecodeRuneInString(word)
	_, second := utf8.DecodeRuneInString(word[first:])
	_, last := utf8.DecodeLastRuneInString(word)
	_, before := utf8.DecodeLastRuneInString(word[:len(word)-last])
	return word[:first+second], word[len(word)-last-before:], true
}

// Edited returns the words that are one letter from another. From five letters on, one letter more, less or other, or two changed
// about, leaves the first two as they are or the last two: only words that share those are looked at.
func (w *Words) Edited(word string) (out []string) {
	n := utf8.RuneCountInString(word)
	if n < 4 {
		return nil
	}
	put := func(other string) {
		if d := len(other) - len(word); d >= -4 && d <= 4 && text.Edited(word, other) {
			out = append(out, other)
		}
	}
	if n == 4 {
		for _, other := range w.all {
			put(other)
		}
		return out
	}
	head, tail, _ := ends(word)
	a, b := w.byHead[head], w.byTail[tail]
	for len(a) > 0 || len(b) > 0 { // both ascend; what is in both is looked at once
		switch {
		case len(b) == 0 || len(a) > 0 && a[0] < b[0]:
			put(w.all[a[0]])
			a = a[1:]
		case len(a) == 0 || b[0] < a[0]:
			put(w.all[b[0]])
			b = b[1:]
		default:
			put(w.all[a[0]])
			a, b = a[1:], b[1:]
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
