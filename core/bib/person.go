package bib

import (
	"strings"
	"unicode"
)

// A Person is an author: a family name and given names or initials.
type Person struct{ Family, Given string }

// ParsePerson reads a name as bibliographies write it. "Family, Given" is parted at the comma;
// without one, a last word of one to three capital letters (dots and hyphens aside) is initials, and
// any other name is all family name.
func ParsePerson(name string) Person {
	name = strings.TrimSpace(name)
	if family, given, ok := strings.Cut(name, ","); ok {
		return Person{strings.TrimSpace(family), strings.TrimSpace(given)}
	}
	if i := strings.LastIndexFunc(name, unicode.IsSpace); i > 0 && initials(name[i:]) {
		return Person{strings.TrimSpace(name[:i]), strings.TrimSpace(name[i:])}
	}
	return Person{Family: name}
}

func initials(word string) bool {
	n := 0
	for _, r := range strings.TrimSpace(word) {
		switch {
		case r == '.' || r == '-':
		case unicode.IsUpper(r):
			n++
		default:
			return false
		}
	}
	return n >= 1 && n <= 3
}

func (p Person) String() string {
	if p.Given == "" {
		return p.Family
	}
	return p.Family + ", " + p.Given
}
