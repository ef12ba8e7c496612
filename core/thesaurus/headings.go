package thesaurus

import (
	"iter"
	"slices"

	"tamiz/core/text"
)

// Headings are some headings that are looked for together. Those of a vocabulary are known by number, so that no
// label of a branch of a hundred thousand is written out; what stands in no vocabulary is known by label. They do
// not change once made. The zero value is none.
type Headings struct {
	of     *Thesaurus
	which  []uint32 // ascending, each the first heading of its label
	labels []string // as text.Label writes them, ascending
}

// Labelled returns the headings that are known by label alone.
func Labelled(labels ...string) Headings {
	keys := make([]string, len(labels))
	for i, l := range labels {
		keys[i] = text.Label(l)
	}
	return Keyed(keys...)
}

// Keyed does the same for labels as text.Label writes them: made once, since a key that is read again is not always
// itself (ŉ becomes ʼn, and that an n with an apostrophe).
func Keyed(keys ...string) Headings {
	keys = slices.Clone(keys)
	slices.Sort(keys)
	return Headings{labels: slices.Compact(keys)}
}

// These returns headings of the vocabulary.
func (t *Thesaurus) These(headings ...int) Headings {
	which := make([]uint32, len(headings))
	for i, h := range headings {
		which[i] = t.first(uint32(h))
	}
	slices.Sort(which)
	return Headings{of: t, which: slices.Compact(which)}
}

// Branch returns a heading and all that stand below it. A label that the vocabulary does not have stands for itself
// alone.
func (t *Thesaurus) Branch(label string) Headings {
	return t.BranchOf(text.Label(label))
}

// BranchOf does the same for a label as text.Label writes it.
func (t *Thesaurus) BranchOf(key string) Headings {
	h, ok := t.FindKey(key)
	if !ok {
		return Keyed(key)
	}
	return t.These(t.Below(h)...)
}

// Len returns how many labels they have.
func (h Headings) Len() int {
	return len(h.labels) + len(h.which)
}

// Has reports whether a label is that of one of them, however it is written.
func (h Headings) Has(label string) bool {
	if h.of == nil {
		_, found := slices.BinarySearch(h.labels, text.Label(label))
		return found
	}
	at, ok := h.of.Find(label)
	return ok && contains(h.which, uint32(at))
}

// Labels returns their labels as text.Label writes them, each once.
func (h Headings) Labels() iter.Seq[string] {
	if h.of == nil {
		return slices.Values(h.labels)
	}
	return func(yield func(string) bool) {
		for _, x := range h.which {
			if !yield(text.Label(h.of.Label(int(x)))) {
				return
			}
		}
	}
}

// Vocabulary returns the vocabulary they are of; ok is false for those that are known by label alone.
func (h Headings) Vocabulary() (in interface{ FindKey(string) (int, bool) }, ok bool) {
	return h.of, h.of != nil
}

// HasAt reports whether the heading at a place of the vocabulary, as Find tells it, is one of them.
func (h Headings) HasAt(place int) bool { return contains(h.which, uint32(place)) }

// Within reports whether all of them are among others.
func (h Headings) Within(others Headings) bool {
	if h.Len() > others.Len() {
		return false
	}
	if h.of != nil && h.of == others.of {
		return !slices.ContainsFunc(h.which, func(x uint32) bool { return !contains(others.which, x) })
	}
	for l := range h.Labels() {
		if !others.Has(l) {
			return false
		}
	}
	return true
}
