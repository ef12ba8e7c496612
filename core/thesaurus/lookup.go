package thesaurus

import (
	"cmp"
	"slices"
	"strings"

	"tamiz/core/text"
)

// Via is where a word was found that leads to a heading.
type Via string

// The ways to a heading, the surest first.
const (
	Label     Via = "label"
	EntryTerm Via = "entryTerm"
	Note      Via = "note"
)

// A Lead is a heading that a word leads to.
type Lead struct {
	Heading int
	Via     Via
	Matched string // the label, entry term or note
}

// search holds the tokens of all labels, entry terms and notes.
type search []entry

type entry struct {
	heading int
	via     Via
	written string
	tokens  []string
}

func newSearch(headings []Heading) search {
	var s search
	add := func(heading int, via Via, written string) {
		if tokens := text.Tokens(written); len(tokens) > 0 {
			s = append(s, entry{heading, via, written, tokens})
		}
	}
	for i, h := range headings {
		add(i, Label, h.Label)
		for _, term := range h.EntryTerms {
			add(i, EntryTerm, term)
		}
		add(i, Note, h.ScopeNote)
		add(i, Note, h.HistoryNote)
	}
	return s
}

// LookUp returns the headings that a word or phrase leads to: its tokens stand as a phrase, the last of
// them as a beginning, in the label, an entry term or a note. Each heading comes once, by its surest
// way: whole texts first, then label before entry term before note, then by label.
func (t *Thesaurus) LookUp(word string) []Lead {
	wanted := text.Tokens(word)
	if len(wanted) == 0 {
		return nil
	}
	type ranked struct {
		Lead
		whole bool
	}
	ways := []Via{Label, EntryTerm, Note}
	less := func(a, b ranked) int {
		if a.whole != b.whole {
			if a.whole {
				return -1
			}
			return 1
		}
		return cmp.Or(cmp.Compare(slices.Index(ways, a.Via), slices.Index(ways, b.Via)),
			strings.Compare(t.Headings[a.Heading].Label, t.Headings[b.Heading].Label),
			cmp.Compare(a.Heading, b.Heading), strings.Compare(a.Matched, b.Matched))
	}
	best := map[int]ranked{}
	for _, e := range t.search {
		if !holds(e.tokens, wanted) {
			continue
		}
		found := ranked{Lead{e.heading, e.via, e.written}, slices.Equal(e.tokens, wanted)}
		if has, ok := best[e.heading]; !ok || less(found, has) < 0 {
			best[e.heading] = found
		}
	}
	all := make([]ranked, 0, len(best))
	for _, r := range best {
		all = append(all, r)
	}
	slices.SortFunc(all, less)
	out := make([]Lead, len(all))
	for i, r := range all {
		out[i] = r.Lead
	}
	return out
}

// holds reports whether the wanted tokens stand in a row in the text, the last as a beginning.
func holds(tokens, wanted []string) bool {
	last := len(wanted) - 1
	for i := 0; i+last < len(tokens); i++ {
		if slices.Equal(tokens[i:i+last], wanted[:last]) && strings.HasPrefix(tokens[i+last], wanted[last]) {
			return true
		}
	}
	return false
}
