package bib

import (
	"strings"
	"unicode"
)

// A Person is an author: a family name and given names or initials. Written is the name as it came,
// where that is not "Family, Given".
type Person struct {
	Family, Given string
	Written       string `json:",omitempty"`
}

// ParsePerson reads a name as bibliographies write it. "Family, Given" is parted at the comma;
// without one, a last word of one to three capital letters (dots and hyphens aside) is initials, and
// any other name is all family name; a comma at its end says so of any name.
func ParsePerson(name string) Person {
	name = Flat(name)
	p := Person{Family: name}
	if family, given, ok := strings.Cut(name, ","); ok {
		p = Person{Family: strings.TrimSpace(family), Given: strings.Trim(given, ", ")}
		if p.Family == "" { // a name before which something was left out
			p.Family, p.Given = p.Given, ""
		}
	} else if i := strings.LastIndexFunc(name, unicode.IsSpace); i > 0 && initials(name[i:]) {
		p = Person{Family: strings.TrimSpace(name[:i]), Given: strings.TrimSpace(name[i:])}
	}
	if !p.writes(name) {
		p.Written = name
	}
	return p
}

// writes reports whether the parts of a name say how it was written.
func (p Person) writes(name string) bool {
	rest, ok := strings.CutPrefix(name, p.Family)
	switch {
	case !ok:
		return false
	case p.Given == "":
		return rest == "" || p.Family != "" && rest == ","
	}
	rest, ok = strings.CutPrefix(rest, ", ")
	return ok && rest == p.Given
}

// Line writes a name so that ParsePerson reads it again: a family name that it would take apart gets a comma.
func (p Person) Line() string {
	s := p.String()
	if p.Given == "" && p.Written == "" && ParsePerson(s) != p {
		return s + ","
	}
	return s
}

func initials(word string) bool {
	n := 0
	for _, r := range strings.TrimSpace(word) {
		switch {
		case r == '.' || r == '-' || unicode.Is(unicode.Mn, r): // a mark belongs to its letter
		case unicode.IsUpper(r):
			n++
		default:
			return false
		}
	}
	return n >= 1 && n <= 3
}

func (p Person) String() string {
	if p.Written != "" {
		return p.Written
	}
	if p.Given == "" {
		return p.Family
	}
	return p.Family + ", " + p.Given
}
