package thesaurus

import "slices"

// A Counterpart is a heading of another vocabulary that may stand for one, and what says so.
type Counterpart struct {
	Heading string
	Via     CounterVia
	Matched string // the label or entry term that both have; "" for a statement
}

// CounterVia is what says that two headings of two vocabularies are one.
type CounterVia string

// What says so, the surest first.
const (
	ByExact     CounterVia = "exactMatch"
	ByClose     CounterVia = "closeMatch"
	ByLabel     CounterVia = "label"     // both have the label, in any language
	ByEntryTerm CounterVia = "entryTerm" // a label of one is an entry term of the other, or both have the entry term
)

// Counterparts returns the headings of another vocabulary that may stand for one of this, the surest first, each
// once: what either vocabulary states (exactMatch, closeMatch), then equal labels, then entry terms (SKOS
// Reference, sections 8 and 10).
func (t *Thesaurus) Counterparts(heading int, other *Thesaurus) []Counterpart {
	var out []Counterpart
	put := func(h int, via CounterVia, matched string) {
		label := other.Label(h)
		if !slices.ContainsFunc(out, func(c Counterpart) bool { return c.Heading == label }) {
			out = append(out, Counterpart{label, via, matched})
		}
	}
	var labels, terms []string
	stated := map[role][]string{}
	for x := range t.textsOf(heading) {
		switch r := t.role[x]; r {
		case label:
			labels = append(labels, t.text(x))
		case entryTerm:
			terms = append(terms, t.text(x))
		case exact, near:
			stated[r] = append(stated[r], t.text(x))
		}
	}
	own := t.address(heading)
	for _, say := range []struct {
		role role
		via  CounterVia
	}{{exact, ByExact}, {near, ByClose}} {
		for x, r := range other.role {
			if r == say.role && other.text(x) == own || r == address && slices.Contains(stated[say.role], other.text(x)) {
				put(other.headingOf(uint32(x)), say.via, "")
			}
		}
	}
	for _, l := range labels {
		if h, ok := other.Find(l); ok {
			put(h, ByLabel, l)
		}
	}
	for _, l := range labels {
		if h, ok := other.Term(l); ok {
			put(h, ByEntryTerm, l)
		}
	}
	for _, l := range terms {
		if h, ok := other.Find(l); ok {
			put(h, ByEntryTerm, l)
		}
		if h, ok := other.Term(l); ok {
			put(h, ByEntryTerm, l)
		}
	}
	return out
}
