package tally

import (
	"maps"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// AuthorKey returns what writings of one author share: the family name and the first initial. A name
// without an initial is one of its own.
func AuthorKey(p bib.Person) string {
	family := text.Key(p.Family)
	if family == "" {
		return ""
	}
	initial, _ := utf8.DecodeRuneInString(text.Key(p.Given))
	if initial == utf8.RuneError {
		return family + "|"
	}
	return family + "|" + string(initial)
}

// Parted are the writings of authors that someone says are not those they would be folded with, each by its
// own key.
type Parted map[string]bool

// Part returns writings of authors as parted.
func Part(writings []string) Parted {
	out := Parted{}
	for _, w := range writings {
		if key := writingKey(bib.ParsePerson(w)); key != "" {
			out[key] = true
		}
	}
	return out
}

// AuthorKey returns what writings of one author share where some are parted. A writing with nothing but an
// initial is what others are folded under, and cannot be parted.
func (p Parted) AuthorKey(a bib.Person) string {
	if len(p) > 0 {
		if key := writingKey(a); p[key] {
			return key
		}
	}
	return AuthorKey(a)
}

// Key tells these from others that are parted; "" for none.
func (p Parted) Key() string { return strings.Join(slices.Sorted(maps.Keys(p)), "\n") }

// writingKey returns the key of one writing: the family name and all given names.
func writingKey(a bib.Person) string {
	family := text.Key(a.Family)
	if family == "" {
		return ""
	}
	return family + "|" + text.Key(a.Given)
}
