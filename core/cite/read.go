// Package cite knows who cites whom among records: which work a reference means, what leads from some works to
// others, how works hang together by what they cite and by what cites them, and what rounds along citations still
// bring.
package cite

import (
	"regexp"
	"strings"
	"unicode"

	"tamiz/core/bib"
	"tamiz/core/text"
)

var (
	doi      = regexp.MustCompile(`(?i)\b10\.\d{4,9}/[^\s"<>]+`)
	sentence = regexp.MustCompile(`[.?!]\s+|\s*\(\d{4}[a-z]?\)[.:,]?\s*`)
	behind   = regexp.MustCompile(`^(.{2,60}?)(?:\s*\(\d{4}[a-z]?\)|[.:])`)
)

// Read reads a line of text as a reference: its DOI, its year, what may be its title and, where a name stands
// before a year or a stop at its beginning, its first author. In a whole reference the title is mostly its longest
// sentence.
func Read(line string) bib.Reference {
	f := bib.Reference{Text: line}
	if found := doi.FindString(line); found != "" {
		f.DOI = strings.TrimRight(found, ".,;)")
		line = strings.Replace(line, found, " ", 1)
	}
	f.Year = bib.ParseYear(line)
	parts := sentence.Split(line, -1)
	for _, part := range parts {
		if part = strings.Trim(part, " .\"“”"); lettered(part) > lettered(f.Title) {
			f.Title = part
		}
	}
	if m := behind.FindStringSubmatch(strings.TrimSpace(line)); m != nil && text.Key(m[1]) != text.Key(f.Title) &&
		!strings.HasPrefix(text.Key(f.Title), text.Key(m[1])) {
		f.Author = strings.TrimSpace(m[1])
	}
	return f
}

// lettered is how many tokens of a text hold a letter: volumes and pages are no title.
func lettered(s string) (n int) {
	for _, t := range text.Tokens(s) {
		if strings.ContainsFunc(t, unicode.IsLetter) {
			n++
		}
	}
	return n
}

// Whole returns a reference with what its line of text says besides its fields.
func Whole(f bib.Reference) bib.Reference {
	if f.Text == "" || f.Title != "" {
		return f
	}
	read := Read(f.Text)
	if f.DOI == "" {
		f.DOI = read.DOI
	}
	if f.Year == 0 {
		f.Year = read.Year
	}
	if f.Author == "" {
		f.Author = read.Author
	}
	f.Title = read.Title
	return f
}

// Record returns a reference as a record that says no more than it.
func Record(f bib.Reference) *bib.Record {
	f = Whole(f)
	r := &bib.Record{DOI: f.DOI, Accession: f.Local, Title: f.Title, Year: f.Year}
	if f.Author != "" {
		r.Authors = []bib.Person{bib.ParsePerson(f.Author)}
	}
	return r
}
