package thesaurus

import (
	"cmp"
	"slices"
	"strings"

	"tamiz/core/text"
)

// Changes is what a later edition of a vocabulary says otherwise than an earlier one. Headings are told apart by
// their addresses, not by their labels.
type Changes struct {
	Added   []string  `json:"added"`
	Retired []Retired `json:"retired"`
	Renamed []Renamed `json:"renamed"`
	Moved   []Moved   `json:"moved"`
	Terms   []Passed  `json:"terms"`
}

// Retired is a heading that the later edition does not have, or has as one that is not given any more, and what is
// used in its place, where that is known.
type Retired struct {
	Label string   `json:"label"`
	Now   []string `json:"now"`
}

// Renamed is a heading under another label.
type Renamed struct {
	From string `json:"from"`
	To   string `json:"to"`
}

// Moved is a heading that stands below others than before.
type Moved struct {
	Label string   `json:"label"`
	From  []string `json:"from"` // what was right above it, as it is called now
	To    []string `json:"to"`
}

// Passed is an entry term that leads to another heading than before; from or to nothing where that is "".
type Passed struct {
	Term string `json:"term"`
	From string `json:"from"`
	To   string `json:"to"`
}

// None reports whether the two editions say the same.
func (c Changes) None() bool {
	return len(c.Added)+len(c.Retired)+len(c.Renamed)+len(c.Moved)+len(c.Terms) == 0
}

// Compare returns what a later edition says otherwise than an earlier one; each list ascending.
func Compare(earlier, later *Thesaurus) Changes {
	out := Changes{Added: []string{}, Retired: []Retired{}, Renamed: []Renamed{}, Moved: []Moved{}, Terms: []Passed{}}
	before, now := earlier.addresses(), later.addresses()
	is := func(h int) (int, bool) { // where a heading of the earlier edition stands in the later
		at, ok := now[earlier.address(h)]
		return at, ok
	}
	for h := range later.Len() {
		if _, known := before[later.address(h)]; !known {
			out.Added = append(out.Added, later.Label(h))
		}
	}
	for h := range earlier.Len() {
		at, there := is(h)
		if !there || later.retired[at] && !earlier.retired[h] {
			out.Retired = append(out.Retired, Retired{earlier.Label(h), later.inPlaceOf(earlier.Label(h), at, there)})
			continue
		}
		if text.Label(earlier.Label(h)) != text.Label(later.Label(at)) {
			out.Renamed = append(out.Renamed, Renamed{earlier.Label(h), later.Label(at)})
		}
		from, to := []string{}, later.labels(later.Broader(at))
		for _, b := range earlier.Broader(h) {
			if k, there := is(b); there {
				from = append(from, later.Label(k))
			} else {
				from = append(from, earlier.Label(b))
			}
		}
		slices.Sort(from)
		if !slices.Equal(from, to) {
			out.Moved = append(out.Moved, Moved{later.Label(at), from, to})
		}
	}
	out.Terms = passed(earlier, later)
	return out
}

// inPlaceOf returns what is used for a heading that is not given any more: what the vocabulary says of it, and the
// heading that has its label as an entry term.
func (t *Thesaurus) inPlaceOf(label string, at int, there bool) []string {
	out := []string{}
	if there {
		out = t.labels(t.replacedBy.at(at))
	}
	if h, ok := t.Term(label); ok && !slices.Contains(out, t.Label(h)) && (!there || h != at) {
		out = append(out, t.Label(h))
	}
	return out
}

// Same returns the heading that one of another edition is here.
func (t *Thesaurus) Same(other *Thesaurus, heading int) (int, bool) {
	address := other.address(heading)
	for h := range t.Len() {
		if t.address(h) == address {
			return h, true
		}
	}
	return 0, false
}

func (t *Thesaurus) labels(of []int) []string {
	out := make([]string, len(of))
	for i, h := range of {
		out[i] = t.Label(h)
	}
	return out
}

func (t *Thesaurus) address(h int) string { return t.text(int(t.from[h])) }

func (t *Thesaurus) addresses() map[string]int {
	out := make(map[string]int, t.Len())
	for h := range t.Len() {
		out[t.address(h)] = h
	}
	return out
}

// Addresses returns the addresses of all headings.
func (t *Thesaurus) Addresses() map[string]bool {
	out := make(map[string]bool, t.Len())
	for h := range t.Len() {
		out[t.address(h)] = true
	}
	return out
}

// passed returns the entry terms that came, went, or lead to another heading. One that went with its heading, or that
// came with a new one, is told by the heading alone.
func passed(earlier, later *Thesaurus) []Passed {
	out := []Passed{}
	before, now := earlier.addresses(), later.addresses()
	for h := range earlier.Len() {
		for _, term := range earlier.EntryTerms(h) {
			at, there := now[earlier.address(h)]
			to, leads := later.Term(term)
			switch {
			case there && later.has(at, term): // also where another heading has it too
			case leads:
				out = append(out, Passed{term, earlier.Label(h), later.Label(to)})
			case there:
				out = append(out, Passed{term, earlier.Label(h), ""})
			}
		}
	}
	for h := range later.Len() {
		if _, known := before[later.address(h)]; !known {
			continue
		}
		for _, term := range later.EntryTerms(h) {
			if _, led := earlier.Term(term); !led {
				out = append(out, Passed{term, "", later.Label(h)})
			}
		}
	}
	slices.SortFunc(out, func(a, b Passed) int {
		return cmp.Or(strings.Compare(a.Term, b.Term), strings.Compare(a.From, b.From), strings.Compare(a.To, b.To))
	})
	return slices.Compact(out)
}

func (t *Thesaurus) has(h int, term string) bool {
	return slices.ContainsFunc(t.EntryTerms(h), func(e string) bool { return text.Label(e) == text.Label(term) })
}
