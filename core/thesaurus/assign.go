package thesaurus

import (
	"strings"

	"tamiz/core/bib"
)

// Assign returns a record as it is under the vocabulary: what it carries as headings are headings where the
// vocabulary knows their label or entry term, its keywords where Assignment says so; the rest are keywords. The
// record given is not changed.
func (t *Thesaurus) Assign(r *bib.Record) *bib.Record {
	out := *r
	out.Headings, out.Keywords = nil, nil
	for _, h := range r.Headings {
		if label, ok := t.Heading(h.Label); ok {
			h.Label = label
			out.Headings = append(out.Headings, h)
			continue
		}
		// A / in the value may belong to the label.
		whole := strings.Join(append([]string{h.Label}, h.Qualifiers...), "/")
		if a, ok := t.Assignment(whole); ok {
			a.Central = h.Central
			out.Headings = append(out.Headings, a)
		} else {
			out.Keywords = append(out.Keywords, mark(h.Central)+whole)
		}
	}
	for _, k := range r.Keywords {
		if a, ok := t.Assignment(k); ok {
			out.Headings = append(out.Headings, a)
		} else {
			out.Keywords = append(out.Keywords, k)
		}
	}
	return &out
}

func mark(central bool) string {
	if central {
		return "*"
	}
	return ""
}

// Assignment reads a value as records carry headings: a * in front where it is central, qualifiers
// behind, each after a /. It is one when what stands before some / is a label, or an entry term and there is a * or a
// qualifier: an author's keyword that is an entry term stays what the author wrote, and only leads to the heading.
func (t *Thesaurus) Assignment(value string) (bib.Assignment, bool) {
	value = strings.TrimSpace(value)
	rest := strings.TrimPrefix(value, "*")
	parts := strings.Split(rest, "/")
	for n := len(parts); n > 0; n-- {
		written := strings.Join(parts[:n], "/")
		label, ok := t.Heading(written)
		if !ok {
			continue
		}
		a := bib.Assignment{Label: label, Central: rest != value}
		for _, q := range parts[n:] {
			if q = strings.TrimSpace(q); q != "" {
				a.Qualifiers = append(a.Qualifiers, q)
			}
		}
		if _, is := t.Find(written); !is && !a.Central && len(a.Qualifiers) == 0 {
			continue
		}
		return a, true
	}
	return bib.Assignment{}, false
}
