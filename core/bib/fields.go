package bib

import (
	"strconv"
	"strings"
)

// A Named is one field of a record with its values as text. The names are those that files, the command
// line and the contract use.
type Named struct {
	Name   string
	Values []string
}

// Text returns the values as people read them, parted by semicolons.
func (n Named) Text() string { return strings.Join(n.Values, "; ") }

// FieldNames are the names of the fields of a record, in the order in which they are shown and written.
var FieldNames = func() (names []string) {
	for _, f := range (&Record{}).Fields() {
		names = append(names, f.Name)
	}
	return names
}()

// Fields returns all fields of a record, those that hold nothing too, in the order of FieldNames.
func (r *Record) Fields() []Named {
	year := ""
	if r.Year > 0 {
		year = strconv.Itoa(r.Year)
	}
	one := func(s string) []string {
		if s == "" {
			return nil
		}
		return []string{s}
	}
	var authors, headings, titles, abstracts []string
	for _, p := range r.Authors {
		authors = append(authors, p.Line())
	}
	for _, h := range r.Headings {
		headings = append(headings, h.String())
	}
	for _, o := range r.Others {
		titles, abstracts = append(titles, one(o.Title)...), append(abstracts, one(o.Abstract)...)
	}
	return []Named{
		{
			"title",
			one(r.Title),
		}, {"abstract", one(r.Abstract)}, {"authors", authors}, {"journal", one(r.Journal)}, {"year", one(year)},
		{"volume", one(r.Volume)}, {"issue", one(r.Issue)}, {"firstPage", one(r.FirstPage)}, {"lastPage", one(r.LastPage)},
		{
			"keywords",
			r.Keywords,
		}, {"headings", headings}, {"types", r.Types}, {"languages", r.Languages}, {"countries", r.Countries},
		{"substances", r.Substances},
		{
			"doi",
			one(r.DOI),
		}, {"accession", one(r.Accession)}, {"localId", one(r.LocalID)}, {"issn", one(r.ISSN)}, {"urls", r.URLs},
		{"otherTitles", titles}, {"otherAbstracts", abstracts},
	}
}

// Only returns a copy of the record that holds no other fields than those named. What it is called stays,
// and fields that Tamiz does not know stay with "extra".
func (r *Record) Only(names map[string]bool) *Record {
	c := *r
	drop := map[string]func(){
		"title": func() { c.Title = "" }, "abstract": func() { c.Abstract = "" }, "authors": func() { c.Authors = nil },
		"journal": func() { c.Journal = "" },
		"year":    func() { c.Year = 0 }, "volume": func() { c.Volume = "" }, "issue": func() { c.Issue = "" },
		"firstPage": func() { c.FirstPage = "" }, "lastPage": func() { c.LastPage = "" },
		"keywords": func() { c.Keywords = nil }, "headings": func() { c.Headings = nil },
		"types": func() { c.Types = nil }, "languages": func() { c.Languages = nil },
		"countries": func() { c.Countries = nil }, "substances": func() { c.Substances = nil },
		"doi": func() { c.DOI = "" }, "accession": func() { c.Accession = "" }, "localId": func() { c.LocalID = "" },
		"issn": func() { c.ISSN = "" }, "urls": func() { c.URLs = nil },
		"otherTitles":    func() { c.Others = others(c.Others, func(o *Rendering) { o.Title = "" }) },
		"otherAbstracts": func() { c.Others = others(c.Others, func(o *Rendering) { o.Abstract = "" }) },
		"extra":          func() { c.Extra, c.References, c.TimesCited = nil, nil, nil },
	}
	for name, empty := range drop {
		if !names[name] {
			empty()
		}
	}
	return &c
}

func others(all []Rendering, less func(*Rendering)) (out []Rendering) {
	for _, o := range all {
		if less(&o); o.Title != "" || o.Abstract != "" {
			out = append(out, o)
		}
	}
	return out
}

// ParseAssignment reads a heading as files write it: *Label/qualifier/qualifier, where the * says that it
// is a main point.
func ParseAssignment(value string) Assignment {
	label, rest, more := strings.Cut(value, "/")
	var a Assignment
	a.Label, a.Central = strings.CutPrefix(strings.TrimSpace(label), "*")
	a.Label = strings.TrimSpace(a.Label)
	for more {
		var q string
		q, rest, more = strings.Cut(rest, "/")
		if q = strings.TrimSpace(q); q != "" {
			a.Qualifiers = append(a.Qualifiers, q)
		}
	}
	return a
}

// Line writes a heading for a field that holds keywords as well, so that it is told from them: one without a * or a
// qualifier gets a / behind it.
func (a Assignment) Line() string {
	if s := a.String(); a.Central || len(a.Qualifiers) > 0 || strings.Contains(a.Label, "/") {
		return s
	}
	return a.Label + "/"
}

// String writes a heading so that ParseAssignment reads it.
func (a Assignment) String() string {
	s := strings.Join(append([]string{a.Label}, a.Qualifiers...), "/")
	if a.Central {
		return "*" + s
	}
	return s
}
