package tally

import (
	"cmp"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
)

// A Truncation is a way to search some forms of a family with one term.
type Truncation struct {
	Term    string   // as it is typed: "labourer*", "cane cutter*"
	Forms   []string // the forms it is for
	Reach   int      // records that it finds
	Drag    int      // records that it finds through other words alone
	Outside []Outside
	Warn    bool // it drags in more than is good, and there is no better
}

// An Outside is a word that a truncation also matches.
type Outside struct {
	Word    string
	Records int
}

const (
	// ShortestStem is how many characters a stem has at least that is proposed.
	ShortestStem = 4

	dragLimit = 50 // the reach is at least so many times the drag
)

// Truncations proposes how the forms of a family are best searched truncated, over the records of a set.
// Forms that begin with the same words go together: only the last word is truncated. Where no stem of
// theirs is clean, forms of one spelling get a stem of their own.
func Truncations(ix *index.Index, set *roaring.Bitmap, fields bib.Field, forms []string) []Truncation {
	return truncations(forms, func(head string) stems {
		return stems{
			head,
			&indexed{ix: ix, set: set, fields: fields, head: strings.Fields(head), known: map[string]*roaring.Bitmap{}},
		}
	})
}

// TruncationsBy does the same by the word index of a source: of each word, how many records hold it. It knows
// single words alone, and not which words stand in the same record: reach and drag are sums, and so at most as good
// as they are told. Forms of several words have no truncation.
func TruncationsBy(words map[string]int, forms []string) []Truncation {
	single := slices.DeleteFunc(slices.Clone(forms), func(f string) bool { return strings.Contains(f, " ") })
	return truncations(single, func(string) stems { return stems{"", listedWords(words)} })
}

func truncations(forms []string, of func(head string) stems) []Truncation {
	var out []Truncation
	for _, group := range groups(forms, head) {
		s := of(head(group[0]))
		if t, ok := s.propose(group); ok {
			out = append(out, t)
			continue
		}
		for _, part := range groups(group, func(form string) string { return text.Singular(last(form)) }) {
			t, ok := s.propose(part)
			switch {
			case ok:
				out = append(out, t)
			case t.Term != "":
				t.Warn = true
				out = append(out, t)
			default: // too short to be truncated
				for _, form := range part {
					out = append(out, Truncation{Term: form, Forms: []string{form}, Reach: s.records([]string{last(form)})})
				}
			}
		}
	}
	return out
}

// groups parts forms by a key, in the order in which the keys come.
func groups(forms []string, key func(string) string) [][]string {
	var out [][]string
	place := map[string]int{}
	for _, f := range forms {
		k := key(f)
		i, ok := place[k]
		if !ok {
			i = len(out)
			place[k] = i
			out = append(out, nil)
		}
		out[i] = append(out[i], f)
	}
	return out
}

func last(form string) string { return form[strings.LastIndexByte(form, ' ')+1:] }

func head(form string) string { return strings.TrimSuffix(form, last(form)) }

// A wordList tells of words how many records hold them.
type wordList interface {
	beginning(prefix string) []string
	records(words []string) int // that hold any of them
}

// indexed is the words of some records, behind fixed words.
type indexed struct {
	ix     *index.Index
	set    *roaring.Bitmap
	fields bib.Field
	head   []string
	known  map[string]*roaring.Bitmap
}

func (s *indexed) beginning(prefix string) []string { return s.ix.TokensWith(prefix) }

func (s *indexed) records(words []string) int {
	if len(words) == 1 {
		return int(s.holding(words[0]).GetCardinality())
	}
	all := roaring.New()
	for _, w := range words {
		all.Or(s.holding(w))
	}
	return int(all.GetCardinality())
}

// holding returns the records that hold the fixed words and then this one.
func (s *indexed) holding(word string) *roaring.Bitmap {
	found := s.known[word]
	if found == nil {
		found = s.ix.Phrase(text.Literal(append(slices.Clone(s.head), word)...), s.fields)
		found.And(s.set)
		s.known[word] = found
	}
	return found
}

// listedWords is the word index of a source.
type listedWords map[string]int

func (l listedWords) beginning(prefix string) (out []string) {
	for w := range l {
		if strings.HasPrefix(w, prefix) {
			out = append(out, w)
		}
	}
	return out
}

func (l listedWords) records(words []string) (n int) {
	for _, w := range words {
		n += l[w]
	}
	return n
}

// stems looks for stems of the last word behind fixed words.
type stems struct {
	head string
	wordList
}

// propose returns the shortest clean stem. When none is clean ok is false, and the term is the longest.
func (s stems) propose(forms []string) (longest Truncation, ok bool) {
	family := map[string]bool{}
	prefix := []rune(last(forms[0]))
	var own []string
	for _, f := range forms {
		if !family[last(f)] {
			family[last(f)] = true
			own = append(own, last(f))
		}
		prefix = common(prefix, []rune(last(f)))
	}
	if len(prefix) < ShortestStem {
		return Truncation{}, false
	}
	held := s.records(own)
	words := s.beginning(string(prefix[:ShortestStem]))
	var best Truncation
	for n := len(prefix); n >= ShortestStem; n-- {
		stem := string(prefix[:n])
		reached := slices.Clone(own)
		var outside []Outside
		for _, word := range words {
			if strings.HasPrefix(word, stem) && !family[word] {
				if found := s.records([]string{word}); found > 0 {
					reached = append(reached, word)
					outside = append(outside, Outside{word, found})
				}
			}
		}
		slices.SortFunc(outside, func(a, b Outside) int {
			return cmp.Or(cmp.Compare(b.Records, a.Records), strings.Compare(a.Word, b.Word))
		})
		t := Truncation{Term: s.head + stem + "*", Forms: forms, Reach: s.records(reached), Outside: outside}
		t.Drag = t.Reach - held
		if n == len(prefix) {
			longest = t
		}
		if t.Drag*dragLimit <= t.Reach {
			best, ok = t, true
		}
	}
	if ok {
		return best, true
	}
	return longest, false
}

func common(a, b []rune) []rune {
	n := 0
	for n < len(a) && n < len(b) && a[n] == b[n] {
		n++
	}
	return a[:n]
}
