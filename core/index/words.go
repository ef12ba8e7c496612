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
	bases  []based            // ascending; made when a stem is first asked for
	asked  int                // how often Edited was
	edits  *edits             // made once it was asked often
}

// based is a word by what it is without its number and spelling.
type based struct {
	base  string
	place int32
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

// askedOften is after how many words it takes less time to know all that are one letter apart than to go on looking
// for each.
const askedOften = 300

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

// Edited returns the words that are one letter from another. From five letters on, one letter more, less or other,
// or two changed about, leaves the first two as they are or the last two: only words that share those are looked
// at.
func (w *Words) Edited(word string) (out []string) {
	n := utf8.RuneCountInString(word)
	if n < 4 {
		return nil
	}
	if w.asked++; w.asked > askedOften {
		if w.edits == nil {
			w.edits = newEdits(w.all)
		}
		return w.edits.of(word, w.all)
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

// Forms returns the words that are what a token pattern looks for in any spelling and number; of a stem, those that
// begin like it in another spelling. Other patterns have none but their own.
func (w *Words) Forms(t text.TokenPattern) (out []string) {
	word, exact := t.Exact()
	if exact {
		if out = w.byBase[text.Base(word)]; !slices.Contains(out, word) {
			out = append(slices.Clone(out), word)
		}
		return out
	}
	from, to := begin(w.all, t.Prefix(), func(s string) string { return s })
	places := make([]int32, 0, to-from)
	for i := from; i < to; i++ {
		if t.Match(w.all[i]) {
			places = append(places, int32(i))
		}
	}
	if stem := text.Base(word); t.String() == word+"*" && utf8.RuneCountInString(stem) >= leastStem {
		if w.bases == nil {
			w.bases = make([]based, len(w.all))
			for i, other := range w.all {
				w.bases[i] = based{text.Base(other), int32(i)}
			}
			slices.SortFunc(w.bases, func(a, b based) int { return strings.Compare(a.base, b.base) })
		}
		from, to := begin(w.bases, stem, func(b based) string { return b.base })
		for _, b := range w.bases[from:to] {
			places = append(places, b.place)
		}
		slices.Sort(places)
		places = slices.Compact(places)
	}
	for _, at := range places {
		out = append(out, w.all[at])
	}
	return out
}

// begin returns where, in an ascending list, what begins with a prefix stands.
func begin[T any](all []T, prefix string, of func(T) string) (from, to int) {
	from, _ = slices.BinarySearchFunc(all, prefix, func(x T, p string) int { return strings.Compare(of(x), p) })
	to = from
	for to < len(all) && strings.HasPrefix(of(all[to]), prefix) {
		to++
	}
	return from, to
}

const (
	leastStem    = 5   // letters of a stem that is looked for in other spellings
	mostWritings = 64  // of one pattern
	mostForms    = 512 // of a phrase, before those that it matches are left out
)

// Writings returns the other ways of writing what a pattern looks for: in other spellings and numbers, as one word
// or as two.
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
