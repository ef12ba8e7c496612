package thesaurus

import (
	"cmp"
	"hash/maphash"
	"iter"
	"slices"

	"tamiz/core/text"
)

// hashed finds numbers by what they are called, without keeping what they are called: whoever asks has to look
// whether the number that is found is the right one.
type hashed struct {
	adding []sum
	sums   []uint64 // ascending
	of     []uint32 // of equal sums ascending
}

type sum struct {
	sum uint64
	of  uint32
}

var seed = maphash.MakeSeed()

func (h *hashed) add(key string, n uint32) {
	h.adding = append(h.adding, sum{maphash.String(seed, key), n})
}

// done has to be called once everything is added.
func (h *hashed) done() {
	slices.SortFunc(h.adding, func(a, b sum) int { return cmp.Or(cmp.Compare(a.sum, b.sum), cmp.Compare(a.of, b.of)) })
	h.sums, h.of = make([]uint64, len(h.adding)), make([]uint32, len(h.adding))
	for i, s := range h.adding {
		h.sums[i], h.of[i] = s.sum, s.of
	}
	h.adding = nil
}

// find walks the numbers that may be called so, ascending.
func (h *hashed) find(key string) iter.Seq[uint32] {
	return func(yield func(uint32) bool) {
		sum := maphash.String(seed, key)
		at, _ := slices.BinarySearch(h.sums, sum)
		for ; at < len(h.sums) && h.sums[at] == sum; at++ {
			if !yield(h.of[at]) {
				return
			}
		}
	}
}

// names are the texts by which a heading is meant, in the language of the vocabulary: labels and entry terms as
// text.Label writes them, and both by their families.
type names struct {
	labels, terms, kin hashed
	same               map[uint32]uint32 // of headings whose label another has, the one that is found by it; there are few
}

// first returns the heading that is found by the label of one.
func (t *Thesaurus) first(heading uint32) uint32 {
	if first, ok := t.names.same[heading]; ok {
		return first
	}
	return heading
}

func (n *names) bytes() int64 {
	return 12 * int64(len(n.labels.of)+len(n.terms.of)+len(n.kin.of))
}

// name notes by which words a heading is found.
func (t *Thesaurus) name(tell func(TroubleKind, string, string)) {
	family := func(x int) {
		if key := text.FamilyKey(text.Tokens(t.text(x))); key != "" {
			t.names.kin.add(key, uint32(x))
		}
	}
	type called struct {
		key string
		x   uint32
	}
	labels := make([]called, t.Len())
	for h := range t.Len() {
		labels[h] = called{text.Label(t.Label(h)), t.shown[h]}
		t.names.labels.add(labels[h].key, t.shown[h])
		family(int(t.shown[h]))
		for x := range t.textsOf(h) {
			if t.role[x] == entryTerm && t.own(t.language(x)) {
				t.names.terms.add(text.Label(t.text(x)), uint32(x))
				family(x)
			}
		}
	}
	t.names.labels.done()
	t.names.terms.done()
	t.names.kin.done()
	slices.SortFunc(labels, func(a, b called) int { return cmp.Or(cmp.Compare(a.key, b.key), cmp.Compare(a.x, b.x)) })
	t.names.same = map[uint32]uint32{}
	for i := 1; i < len(labels); i++ {
		if labels[i].key == labels[i-1].key {
			h := t.headingOf(labels[i].x)
			t.names.same[uint32(h)] = t.first(uint32(t.headingOf(labels[i-1].x)))
			tell(SameLabel, t.text(int(t.from[h])), t.Label(h))
		}
	}
}

// called returns the first heading of which a text has the key.
func (t *Thesaurus) called(names *hashed, key string, as func(string) string) (int, bool) {
	if key == "" {
		return 0, false
	}
	for x := range names.find(key) {
		if as(t.text(int(x))) == key {
			return t.headingOf(x), true
		}
	}
	return 0, false
}

// Find returns the place of the heading with a label, however that is written.
func (t *Thesaurus) Find(label string) (int, bool) {
	return t.FindKey(text.Label(label))
}

// FindKey does the same for a label as text.Label writes it.
func (t *Thesaurus) FindKey(key string) (int, bool) {
	return t.called(&t.names.labels, key, text.Label)
}

// Term returns the place of the heading that an entry term, however it is written, leads to.
func (t *Thesaurus) Term(term string) (int, bool) {
	return t.called(&t.names.terms, text.Label(term), text.Label)
}

// Heading returns the label that a label or an entry term stands for, as the vocabulary writes it.
func (t *Thesaurus) Heading(label string) (string, bool) {
	h, ok := t.Find(label)
	if !ok {
		h, ok = t.Term(label)
	}
	if !ok {
		return "", false
	}
	return t.Label(h), true
}

// Kin returns the label of the heading that a word or phrase stands for in another number or spelling than the
// vocabulary's: one of the family of its label or of an entry term.
func (t *Thesaurus) Kin(word string) (string, bool) {
	h, ok := t.called(
		&t.names.kin,
		text.FamilyKey(text.Tokens(word)),
		func(s string) string { return text.FamilyKey(text.Tokens(s)) },
	)
	if !ok {
		return "", false
	}
	return t.Label(h), true
}

// Leads returns the label of the heading that a keyword leads to: by its label, an entry term, or one of either in
// another number or spelling.
func (t *Thesaurus) Leads(keyword string) (string, bool) {
	if label, ok := t.Heading(keyword); ok {
		return label, true
	}
	return t.Kin(keyword)
}
