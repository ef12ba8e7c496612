package thesaurus

import (
	"encoding/gob"
	"fmt"
	"io"
	"iter"
	"slices"
	"strings"
)

// A role is what a text is to its heading.
type role uint8

const (
	address role = iota
	label
	entryTerm
	scopeNote
	historyNote
	notation
	since
	exact
	near
)

// packed holds the headings, ascending by label, without anything of one heading standing by itself: all texts one
// behind the other, and who stands below whom as lists of numbers one behind the other.
type packed struct {
	all       string   // the texts
	ends      []uint64 // where each ends; it begins where the one before ends
	role      []role
	spoken    []uint8  // the language of each, as a place among languages
	languages []string // in the order in which they come up; the last of very many stands for all further
	from      []uint32 // the first text of each heading; behind the last, how many there are
	shown     []uint32 // the text that each heading goes by
	retired   []bool

	broader, narrower, related links
	replaces, replacedBy       links
	allows                     links // qualifiers, by place; without any, where the vocabulary does not say

	writing strings.Builder // of all, until it is built
}

// links are lists of headings, one for each.
type links struct {
	From []uint32
	To   []uint32
}

func flatten(lists [][]uint32) links {
	l := links{From: make([]uint32, 1, len(lists)+1)}
	for _, of := range lists {
		l.To = append(l.To, of...)
		l.From = append(l.From, uint32(len(l.To)))
	}
	return l
}

func (l *links) span(i int) []uint32 { return l.To[l.From[i]:l.From[i+1]] }

func (l *links) at(i int) []int {
	span := l.span(i)
	if len(span) == 0 {
		return nil
	}
	out := make([]int, len(span))
	for k, to := range span {
		out[k] = int(to)
	}
	return out
}

// pack takes in the texts of the next heading.
func (p *packed) pack(c labelled) {
	if len(p.from) == 0 {
		p.from = []uint32{0}
	}
	heading := len(p.from) - 1
	put := func(r role, value, language string) {
		if value == "" {
			return
		}
		p.writing.WriteString(value)
		p.ends = append(p.ends, uint64(p.writing.Len()))
		p.role = append(p.role, r)
		p.spoken = append(p.spoken, p.place(language))
	}
	put(address, c.ID, "")
	for _, l := range c.Labels {
		if l.Value == c.label && len(p.shown) == heading {
			p.shown = append(p.shown, uint32(len(p.ends)))
		}
		put(label, l.Value, l.Language)
	}
	for _, of := range []struct {
		role  role
		texts []Text
	}{{entryTerm, c.EntryTerms}, {scopeNote, c.ScopeNotes}, {historyNote, c.HistoryNotes}} {
		for _, x := range of.texts {
			put(of.role, x.Value, x.Language)
		}
	}
	put(notation, c.Notation, "")
	put(since, c.Since, "")
	for _, x := range c.Exact {
		put(exact, x, "")
	}
	for _, x := range c.Close {
		put(near, x, "")
	}
	p.from = append(p.from, uint32(len(p.ends)))
	p.retired = append(p.retired, c.Retired)
	p.all = p.writing.String()
}

const mostLanguages = 255

func (p *packed) place(language string) uint8 {
	i := slices.Index(p.languages, language)
	if i < 0 {
		if i = len(p.languages); i < mostLanguages {
			p.languages = append(p.languages, language)
		} else {
			i = mostLanguages - 1
		}
	}
	return uint8(i)
}

// Len returns how many headings there are.
func (p *packed) Len() int { return len(p.shown) }

// Label returns the label that a heading goes by.
func (p *packed) Label(heading int) string { return p.text(int(p.shown[heading])) }

// Broader returns the headings right above one, ascending.
func (p *packed) Broader(heading int) []int { return p.broader.at(heading) }

// Narrower returns the headings right below one, ascending.
func (p *packed) Narrower(heading int) []int { return p.narrower.at(heading) }

// Retired reports whether a heading is given to records no more.
func (p *packed) Retired(heading int) bool { return p.retired[heading] }

// Spoken returns the languages of the labels and entry terms, ascending; unknown is none.
func (p *packed) Spoken() []string {
	var used [256]bool
	for x, r := range p.role {
		if r == label || r == entryTerm {
			used[p.spoken[x]] = true
		}
	}
	var out []string
	for i, l := range p.languages {
		if used[i] && l != "" {
			out = append(out, l)
		}
	}
	slices.Sort(out)
	return out
}

// Bytes returns about how much memory the vocabulary takes.
func (t *Thesaurus) Bytes() int64 {
	n := len(t.all) + 10*len(t.ends) + 9*len(t.from)
	for _, l := range []links{t.broader, t.narrower, t.related, t.replaces, t.replacedBy, t.allows} {
		n += 4 * (len(l.From) + len(l.To))
	}
	return int64(n) + t.names.bytes() + t.words.bytes()
}

func (p *packed) text(x int) string {
	from := uint64(0)
	if x > 0 {
		from = p.ends[x-1]
	}
	return p.all[from:p.ends[x]]
}

func (p *packed) language(x int) string { return p.languages[p.spoken[x]] }

// textsOf walks the texts of a heading.
func (p *packed) textsOf(heading int) iter.Seq[int] {
	return func(yield func(int) bool) {
		for x := p.from[heading]; x < p.from[heading+1]; x++ {
			if !yield(int(x)) {
				return
			}
		}
	}
}

// headingFrom returns the heading that a text belongs to, which is not before another.
func (p *packed) headingFrom(heading int, x uint32) int {
	for step := 0; p.from[heading+1] <= x; step++ {
		if step == 16 {
			return p.headingOf(x)
		}
		heading++
	}
	return heading
}

// headingOf returns the heading that a text belongs to.
func (p *packed) headingOf(x uint32) int {
	at, found := slices.BinarySearch(p.from, x)
	if !found {
		return at - 1
	}
	return at
}

// kept is a thesaurus as it is written: what its names and words are found by is made anew.
type kept struct {
	Qualifiers                                       []string
	Language                                         string
	All                                              string
	Ends                                             []uint64
	Roles, Spoken                                    []uint8
	Languages                                        []string
	From, Shown                                      []uint32
	Retired                                          []bool
	Broader, Narrower, Related, Replaces, ReplacedBy links
	Allows                                           links // what was written before this was told has none
}

// Write writes a thesaurus so that Read reads it back, in a form of its own.
func (t *Thesaurus) Write(w io.Writer) error {
	roles := make([]uint8, len(t.role))
	for i, r := range t.role {
		roles[i] = uint8(r)
	}
	return gob.NewEncoder(w).
		Encode(kept{t.Qualifiers, t.Language, t.all, t.ends, roles, t.spoken, t.languages, t.from, t.shown, t.retired,
			t.broader, t.narrower, t.related, t.replaces, t.replacedBy, t.allows})
}

// Read reads what Write has written. Anything else is an error.
func Read(r io.Reader) (t *Thesaurus, err error) {
	var k kept
	if err := gob.NewDecoder(r).Decode(&k); err != nil {
		return nil, fmt.Errorf("no thesaurus: %w", err)
	}
	t = &Thesaurus{
		Qualifiers: k.Qualifiers,
		Language:   k.Language,
		packed: packed{all: k.All, ends: k.Ends, spoken: k.Spoken, languages: k.Languages,
			from: k.From, shown: k.Shown, retired: k.Retired, broader: k.Broader, narrower: k.Narrower, related: k.Related,
			replaces: k.Replaces, replacedBy: k.ReplacedBy, allows: k.Allows},
	}
	t.role = make([]role, len(k.Roles))
	for i, r := range k.Roles {
		t.role[i] = role(r)
	}
	if err := t.sound(len(t.Qualifiers)); err != nil {
		return nil, err
	}
	t.name(func(TroubleKind, string, string) {})
	t.words = newWords(&t.packed)
	return t, nil
}

// sound returns what keeps the parts of a thesaurus that was read from fitting together.
func (p *packed) sound(qualifiers int) error {
	n, texts := len(p.shown), len(p.ends)
	fits := len(p.role) == texts && len(p.spoken) == texts && len(p.retired) == n && (n == 0 || len(p.from) == n+1)
	for _, l := range []links{p.broader, p.narrower, p.related, p.replaces, p.replacedBy} {
		fits = fits && len(l.From) == n+1 && int(l.From[n]) == len(l.To) && slices.IsSorted(l.From)
		for _, to := range l.To {
			fits = fits && int(to) < n
		}
	}
	if a := p.allows; len(a.From) > 0 || len(a.To) > 0 {
		fits = fits && len(a.From) == n+1 && int(a.From[n]) == len(a.To) && slices.IsSorted(a.From) &&
			!slices.ContainsFunc(a.To, func(to uint32) bool { return int(to) >= qualifiers })
	}
	for _, s := range p.spoken {
		fits = fits && int(s) < len(p.languages)
	}
	for _, s := range p.shown {
		fits = fits && int(s) < texts
	}
	fits = fits && slices.IsSorted(p.ends) && slices.IsSorted(p.from) &&
		(texts == 0 || p.ends[texts-1] == uint64(len(p.all))) &&
		(n == 0 || int(p.from[n]) == texts)
	if !fits {
		return fmt.Errorf("no thesaurus: its parts do not fit together")
	}
	return nil
}
