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
	shortestStem = 4  // characters
	dragLimit    = 50 // the reach is at least so many times the drag
)

// Truncations proposes how the forms of a family are best searched truncated, over the records of a set.
// Forms that begin with the same words go together: only the last word is truncated. Where no stem of
// theirs is clean, forms of one spelling get a stem of their own.
func Truncations(ix *index.Index, set *roaring.Bitmap, fields bib.Field, forms []string) []Truncation {
	var out []Truncation
	for _, group := range groups(forms, head) {
		s := stems{ix: ix, set: set, fields: fields, head: strings.Fields(head(group[0])), known: map[string]*roaring.Bitmap{}}
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
					out = append(out, Truncation{Term: form, Forms: []string{form}, Reach: int(s.records(last(form)).GetCardinality())})
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

// stems looks for stems of the last word behind fixed words.
type stems struct {
	ix     *index.Index
	set    *roaring.Bitmap
	fields bib.Field
	head   []string
	known  map[string]*roaring.Bitmap
}

// records returns those that hold the fixed words and then this one.
func (s *stems) records(word string) *roaring.Bitmap {
	found := s.known[word]
	if found == nil {
		found = s.ix.Phrase(text.Literal(append(slices.Clone(s.head), word)...), s.fields)
		found.And(s.set)
		s.known[word] = found
	}
	return found
}

// propose returns the shortest clean stem. When none is clean ok is false, and the term is the longest.
func (s *stems) propose(forms []string) (longest Truncation, ok bool) {
	family := map[string]bool{}
	prefix := []rune(last(forms[0]))
	for _, f := range forms {
		family[last(f)] = true
		prefix = common(prefix, []rune(last(f)))
	}
	if len(prefix) < shortestStem {
		return Truncation{}, false
	}
	own := roaring.New()
	for word := range family {
		own.Or(s.records(word))
	}
	words := s.ix.TokensWith(string(prefix[:shortestStem]))
	var best Truncation
	for n := len(prefix); n >= shortestStem; n-- {
		stem := string(prefix[:n])
		reach := own.Clone()
		var outside []Outside
		for _, word := range words {
			if strings.HasPrefix(word, stem) && !family[word] {
				if found := s.records(word); !found.IsEmpty() {
					reach.Or(found)
					outside = append(outside, Outside{word, int(found.GetCardinality())})
				}
			}
		}
		slices.SortFunc(outside, func(a, b Outside) int {
			return cmp.Or(cmp.Compare(b.Records, a.Records), strings.Compare(a.Word, b.Word))
		})
		t := Truncation{Term: strings.Join(append(slices.Clone(s.head), stem+"*"), " "), Forms: forms, Reach: int(reach.GetCardinality()), Outside: outside}
		t.Drag = t.Reach - int(own.GetCardinality())
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
