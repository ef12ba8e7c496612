package index

import (
	"iter"
	"sync/atomic"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// headings holds which record carries which heading, with its qualifiers and whether it is central.
type headings struct {
	label       map[string]uint32 // the number of each
	labels      []string
	of          [][]uint32 // assignments of each, ascending
	qualifier   map[string]uint32
	assignments []assignment
	qualifiers  []uint32        // of all assignments, one after the other
	none        *roaring.Bitmap // records that carry no heading

	placed atomic.Pointer[placed]
}

// placed is where the labels stand in the vocabulary that was asked for last; -1 where one does not.
type placed struct {
	in Vocabulary
	at []int
}

type assignment struct {
	record     uint32
	central    bool
	qualifiers uint32 // where its qualifiers end; they begin where those of the one before end
}

func (h *headings) build(records []*bib.Record) {
	h.label, h.qualifier, h.none = map[string]uint32{}, map[string]uint32{}, roaring.New()
	for r, rec := range records {
		if !rec.Indexed() {
			h.none.Add(uint32(r))
		}
		for _, a := range rec.Headings {
			key := text.Label(a.Label)
			number, ok := h.label[key]
			if !ok {
				number = uint32(len(h.labels))
				h.label[key] = number
				h.labels, h.of = append(h.labels, key), append(h.of, nil)
			}
			h.of[number] = append(h.of[number], uint32(len(h.assignments)))
			for _, q := range a.Qualifiers {
				q = text.Label(q)
				id, ok := h.qualifier[q]
				if !ok {
					id = uint32(len(h.qualifier))
					h.qualifier[q] = id
				}
				h.qualifiers = append(h.qualifiers, id)
			}
			h.assignments = append(h.assignments, assignment{uint32(r), a.Central, uint32(len(h.qualifiers))})
		}
	}
}

// Headings are headings that are looked for, such as those of a branch: thesaurus.Headings.
type Headings interface {
	Len() int
	Labels() iter.Seq[string]             // as text.Label writes them
	Vocabulary() (in Vocabulary, ok bool) // where they stand; not ok for those of none
	HasAt(place int) bool                 // reports whether what stands at a place there is among them
}

// A Vocabulary tells where a label, as text.Label writes it, stands in it. It does not change, and can be compared.
type Vocabulary = interface {
	FindKey(key string) (place int, ok bool)
}

// Unindexed returns the records that carry no heading. They are not to be changed.
func (ix *Index) Unindexed() *roaring.Bitmap { return ix.headings.none }

// Labelled returns the records that carry a heading, by its label.
func (ix *Index) Labelled(label string) *roaring.Bitmap { return ix.Keyed(text.Label(label)) }

// Keyed does the same for a label as text.Label writes it.
func (ix *Index) Keyed(key string) *roaring.Bitmap {
	out := roaring.New()
	h := &ix.headings
	if number, ok := h.label[key]; ok {
		found := make([]uint32, len(h.of[number]))
		for i, a := range h.of[number] {
			found[i] = h.assignments[a].record
		}
		out.AddMany(found)
	}
	return out
}

// Carried walks those of some headings that records carry, as text.Label writes them, in no order.
func (ix *Index) Carried(of Headings) iter.Seq[string] {
	return func(yield func(string) bool) {
		for number := range ix.headings.among(of) {
			if !yield(ix.headings.labels[number]) {
				return
			}
		}
	}
}

// fewer is how many of the headings that records carry are looked at in the time that one which is looked for
// takes: that one has to be written as a label, these have their places.
const fewer = 16

// among walks the numbers of those of some headings that records carry: by those that are looked for or by those
// that are carried, whichever takes less.
func (h *headings) among(of Headings) iter.Seq[uint32] {
	return func(yield func(uint32) bool) {
		if in, ok := of.Vocabulary(); ok && of.Len()*fewer > len(h.labels) {
			for number, place := range h.places(in) {
				if place >= 0 && of.HasAt(place) && !yield(uint32(number)) {
					return
				}
			}
			return
		}
		for label := range of.Labels() {
			if number, ok := h.label[label]; ok && !yield(number) {
				return
			}
		}
	}
}

// places returns where each label stands in a vocabulary.
func (h *headings) places(in Vocabulary) []int {
	if known := h.placed.Load(); known != nil && known.in == in {
		return known.at
	}
	at := make([]int, len(h.labels))
	for i, label := range h.labels {
		place, ok := in.FindKey(label)
		if at[i] = place; !ok {
			at[i] = -1
		}
	}
	h.placed.Store(&placed{in, at})
	return at
}

// Heading returns the records that carry any of some headings; with central, as a main point; with qualifiers, each
// with at least one of them, on the same assignment.
func (ix *Index) Heading(of Headings, central bool, qualifiers []string) *roaring.Bitmap {
	h := &ix.headings
	wanted := map[uint32]bool{}
	for _, q := range qualifiers {
		if id, ok := h.qualifier[text.Label(q)]; ok {
			wanted[id] = true
		}
	}
	out := roaring.New()
	if len(qualifiers) > 0 && len(wanted) == 0 {
		return out
	}
	var found []uint32 // of one label: adding them at once is far quicker than one by one
	for number := range h.among(of) {
		found = found[:0]
		for _, a := range h.of[number] {
			if (!central || h.assignments[a].central) && (len(wanted) == 0 || h.qualified(a, wanted)) {
				found = append(found, h.assignments[a].record)
			}
		}
		out.AddMany(found)
	}
	return out
}

func (h *headings) qualified(a uint32, wanted map[uint32]bool) bool {
	from := uint32(0)
	if a > 0 {
		from = h.assignments[a-1].qualifiers
	}
	for _, q := range h.qualifiers[from:h.assignments[a].qualifiers] {
		if wanted[q] {
			return true
		}
	}
	return false
}
