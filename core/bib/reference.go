package bib

import (
	"slices"
	"strconv"
	"strings"

	"tamiz/core/text"
)

// A Reference is a work that a record cites, as its source says it: with an identifier, in fields, or as a line of
// text.
type Reference struct {
	DOI    string `json:",omitempty"` // as written
	Local  string `json:",omitempty"` // the source's own number of the work
	Title  string `json:",omitempty"`
	Author string `json:",omitempty"` // the first one's name
	Year   int    `json:",omitempty"`
	Text   string `json:",omitempty"` // the whole of it, where that is all there is
}

// Empty reports whether a reference says nothing by which a work could be found.
func (f Reference) Empty() bool { return f.DOI == "" && f.Local == "" && f.Title == "" && f.Text == "" }

// Line returns a reference as people read it.
func (f Reference) Line() string {
	if f.Text != "" {
		return f.Text
	}
	var parts []string
	for _, s := range []string{f.Author, f.Title, yearText(f.Year), f.DOI, f.Local} {
		if s != "" {
			parts = append(parts, s)
		}
	}
	return strings.Join(parts, ". ")
}

func yearText(y int) string {
	if y == 0 {
		return ""
	}
	return strconv.Itoa(y)
}

// Ends of the words under which sources say that a work was taken back, or mended. They are compared as labels are.
var (
	retracted = []string{"retracted", "retracted work", "retracted publication", "retracted article"}
	corrected = []string{"corrected", "corrected work", "corrected and republished article"}
)

// Retracted reports whether a source says that the work was taken back: by a type, or before the title.
func (r *Record) Retracted() bool {
	return r.typed(retracted) || strings.HasPrefix(text.Key(r.Title), "retracted ")
}

// Corrected reports whether a source says that the work was corrected later.
func (r *Record) Corrected() bool { return r.typed(corrected) }

func (r *Record) typed(as []string) bool {
	return slices.ContainsFunc(r.Types, func(t string) bool { return slices.Contains(as, text.Label(t)) })
}
