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

// Take puts a value of a keyword field where it belongs in a record.
func (s Sorter) Take(rec *bib.Record, value string) {
	auto := s.Mode == Auto || s.Mode == ""
	if auto && s.Vocabulary != nil {
		if a, ok := s.Vocabulary.Assignment(value); ok {
			rec.Headings = append(rec.Headings, a)
			return
		}
	} else if s.Mode == Headings || auto && (strings.HasPrefix(value, "*") || strings.Contains(value, "/")) {
		if a := bib.ParseAssignment(value); a.Label != "" {
			rec.Headings = append(rec.Headings, a)
			return
		}
	}
	rec.Keywords = append(rec.Keywords, value)
}

// Parted returns the values of a field that holds many in one text: parted by semicolons, or by commas
// where there is no semicolon. Each is flat; empty ones are left out.
func Parted(s string) []string {
	s = Plain(s) // entities have semicolons of their own
	sep := ","
	if strings.Contains(s, ";") {
		sep = ";"
	}
	if s == "" {
		return nil
	}
	return AppendSplit(make([]string, 0, strings.Count(s, sep)+1), s, sep)
}

// Joined writes values into one text so that Parted gives them again. A semicolon within a value, which
// such a text cannot hold, becomes a comma.
func Joined(values []string) string {
	clean := make([]string, len(values))
	for i, v := range values {
		clean[i] = strings.ReplaceAll(v, ";", ",")
	}
	for i, v := range clean {
		if Plain(v+";") != v+";" {
			clean[i] += " " // or it would make an entity with the semicolon
		}
	}
	s := strings.Join(clean, "; ")
	if len(values) == 1 && strings.Contains(s, ",") {
		s += ";" // tells that the comma parts nothing
	}
	return s
}
