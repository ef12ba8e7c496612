package index

import (
	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// headings holds which record carries which heading, with its qualifiers and whether it is central.
type headings struct {
	label       map[string][]uint32 // assignments of each label, ascending
	qualifier   map[string]uint32
	assignments []assignment
	qualifiers  []uint32 // of all assignments, one after the other
}

type assignment struct {
	record     uint32
	central    bool
	qualifiers uint32 // where its qualifiers end; they begin where those of the one before end
}

func (h *headings) build(records []*bib.Record) {
	h.label, h.qualifier = map[string][]uint32{}, map[string]uint32{}
	for r, rec := range records {
		for _, a := range rec.Headings {
			key := text.Label(a.Label)
			h.label[key] = append(h.label[key], uint32(len(h.assignments)))
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

// Heading returns the records that carry any of the labels (as text.Label writes them); with central,
// as a main point; with qualifiers, each with at least one of them, on the same assignment.
func (ix *Index) Heading(labels []string, central bool, qualifiers []string) *roaring.Bitmap {
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
	for _, l := range labels {
		found = found[:0]
		for _, a := range h.label[l] {
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
