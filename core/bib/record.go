// Package bib holds bibliographic records, the people in them, and when two records are one. It
// knows nothing of files: readers and writers of formats live in exchange.
package bib

import (
	"fmt"
	"strings"
)

// A Record is one bibliographic record. What a source did not say is empty; a year of 0 is none.
type Record struct {
	ID         string // by which the record is named: accession number, else ID, else DOI, else #n
	Title      string
	Abstract   string
	Authors    []Person
	Journal    string
	Year       int
	Keywords   []string     // the authors' own
	Headings   []Assignment // from a controlled vocabulary
	Types      []string
	Languages  []string
	Countries  []string
	Substances []string `json:",omitempty"` // that it is about, as the source names them
	Accession  string   // the number the source gave it
	LocalID    string   // an ID given by whoever wrote the file
	DOI        string   // as written
	URLs       []string
	ISSN       string
	Volume     string
	Issue      string
	FirstPage  string
	LastPage   string
	Others     []Rendering `json:",omitempty"` // title and abstract in other languages
	References []Reference `json:",omitempty"` // works that it cites, where its source gives them
	TimesCited *int        `json:",omitempty"` // how many works of the source cite it; nil where it does not say
	Extra      []Extra     // fields of its format that Tamiz does not know, kept to be written back
}

// A Rendering is a title or an abstract in another language than the record's own. It is shown, not
// searched: a strategy is written in one language.
type Rendering struct {
	Language string `json:",omitempty"` // as the file says it; empty where it does not
	Title    string `json:",omitempty"`
	Abstract string `json:",omitempty"`
}

// AddTitle adds a title in another language. A title and an abstract in one language belong together.
func (r *Record) AddTitle(language, title string) {
	for i := range r.Others {
		if o := &r.Others[i]; o.Language == language && language != "" && o.Title == "" {
			o.Title = title
			return
		}
	}
	r.Others = append(r.Others, Rendering{Language: language, Title: title})
}

// AddAbstract adds an abstract in another language, or a part of one: parts in one language are joined.
func (r *Record) AddAbstract(language, abstract string) {
	for i := range r.Others {
		if o := &r.Others[i]; o.Language == language && language != "" {
			o.Abstract = strings.TrimSpace(o.Abstract + " " + abstract)
			return
		}
	}
	r.Others = append(r.Others, Rendering{Language: language, Abstract: abstract})
}

// An Assignment is a heading that an indexer gave to a record.
type Assignment struct {
	Label      string
	Qualifiers []string
	Central    bool // the heading is a main point of the record
}

// Extra is a field kept as it came. Format names the file format whose field it is, and to which alone it
// is written back; RIS, whose tags have two letters, needs no name.
type Extra struct {
	Tag, Value string
	Format     string `json:",omitempty"`
}

// A Field is a part of a record that text can be searched in. Fields combine as a set.
type Field uint8

// The fields of a record, and the sets of them that a term can search.
const (
	Title Field = 1 << iota
	Abstract
	Keyword
	HeadingLabel
	Journal // searched like text, but no part of any set

	TitleAbstract = Title | Abstract
	Text          = Title | Abstract | Keyword
	Any           = Text | HeadingLabel
)

// Values calls visit for each value in the given fields: title, abstract, each keyword, each heading
// label, journal, in this order. Nothing matches across two values.
func (r *Record) Values(fields Field, visit func(f Field, value string)) {
	if fields&Title != 0 && r.Title != "" {
		visit(Title, r.Title)
	}
	if fields&Abstract != 0 && r.Abstract != "" {
		visit(Abstract, r.Abstract)
	}
	if fields&Keyword != 0 {
		for _, k := range r.Keywords {
			visit(Keyword, k)
		}
	}
	if fields&HeadingLabel != 0 {
		for _, h := range r.Headings {
			visit(HeadingLabel, h.Label)
		}
	}
	if fields&Journal != 0 && r.Journal != "" {
		visit(Journal, r.Journal)
	}
}

// Indexed reports whether the record carries headings.
func (r *Record) Indexed() bool { return len(r.Headings) > 0 }

// Name gives the record its id: the accession number, else the local ID, else the DOI, else #n for the
// n-th of its file.
func (r *Record) Name(n int) {
	switch {
	case r.Accession != "":
		r.ID = r.Accession
	case r.LocalID != "":
		r.ID = r.LocalID
	case r.DOI != "":
		r.ID = r.DOI
	default:
		r.ID = fmt.Sprintf("#%d", n)
	}
}
