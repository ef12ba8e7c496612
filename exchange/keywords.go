package exchange

import (
	"strings"

	"tamiz/core/bib"
	"tamiz/core/thesaurus"
)

// KeywordMode says how the values of a keyword field are taken.
type KeywordMode string

// The ways to take keywords.
const (
	Auto     KeywordMode = "auto"     // what the vocabulary knows is a heading; without one, what has a leading * or a /
	Headings KeywordMode = "headings" // every value is a heading
	Keywords KeywordMode = "keywords" // every value is a keyword
)

// A Sorter tells headings from the authors' own keywords in formats that have one field for both. The zero
// value takes them as Auto without a vocabulary.
type Sorter struct {
	Mode       KeywordMode
	Vocabulary *thesaurus.Thesaurus
}

// Take puts a value of a keyword field where it belongs in a record. Entities in it are told as characters when it
// is sorted; in the record it stands as every value of a reader does, before Tidy.
func (s Sorter) Take(rec *bib.Record, value string) {
	if a, ok := s.heading(Plain(value)); ok {
		rec.Headings = append(rec.Headings, guarded(a))
		return
	}
	rec.Keywords = append(rec.Keywords, value)
}

// guarded returns a heading as a value of a reader, before Tidy.
func guarded(a bib.Assignment) bib.Assignment {
	a.Label = Guarded(a.Label)
	for i := range a.Qualifiers {
		a.Qualifiers[i] = Guarded(a.Qualifiers[i])
	}
	return a
}

// heading returns the heading that a value is.
func (s Sorter) heading(value string) (bib.Assignment, bool) {
	if s.Mode == Keywords {
		return bib.Assignment{}, false
	}
	if s.Vocabulary != nil {
		// As the vocabulary writes it, in whatever way values are taken.
		if a, ok := s.Vocabulary.Assignment(value); ok {
			return a, true
		}
	}
	if s.Mode == Headings || s.Vocabulary == nil && (strings.HasPrefix(value, "*") || strings.Contains(value, "/")) {
		a := bib.ParseAssignment(value)
		return a, a.Label != ""
	}
	return bib.Assignment{}, false
}

// Parted returns the values of a field that holds many in one text: parted by semicolons, or by commas
// where there is no semicolon. Each is flat; empty ones are left out. Entities stay as they are: the semicolon of
// one parts nothing.
func Parted(s string) []string {
	sep := ","
	if semicolon(s) >= 0 {
		sep = ";"
	}
	if s == "" {
		return nil
	}
	return AppendSplit(make([]string, 0, strings.Count(s, sep)+1), s, sep)
}

// Joined writes values into one text so that Parted gives them again. A semicolon within a value stands there as
// an entity.
func Joined(values []string) string {
	clean := make([]string, len(values))
	for i, v := range values {
		for at := semicolon(v); at >= 0; at = semicolon(v) {
			clean[i] += v[:at] + "&#59;"
			v = v[at+1:]
		}
		clean[i] += v
		if at := strings.LastIndexByte(clean[i], '&'); at >= 0 && entity(clean[i][at:]+";") {
			clean[i] += " " // or it would make an entity with the semicolon
		}
	}
	s := strings.Join(clean, "; ")
	if len(values) == 1 && strings.Contains(s, ",") && semicolon(s) < 0 {
		s += ";" // tells that the comma parts nothing
	}
	return s
}
