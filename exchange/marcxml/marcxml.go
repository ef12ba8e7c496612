// Package marcxml reads bibliographic records in MARCXML, the XML of MARC 21 (Library of Congress).
package marcxml

import (
	"encoding/xml"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// Schema is the name by which an SRU server knows the records.
const Schema = "info:srw/schema/1/marcxml-v1.1"

type record struct {
	Control []control `xml:"controlfield"`
	Data    []data    `xml:"datafield"`
}

type control struct {
	Tag   string `xml:"tag,attr"`
	Value string `xml:",chardata"`
}

type data struct {
	Tag    string `xml:"tag,attr"`
	First  string `xml:"ind1,attr"`
	Second string `xml:"ind2,attr"`
	Subs   []sub  `xml:"subfield"`
}

type sub struct {
	Code  string `xml:"code,attr"`
	Value string `xml:",chardata"`
}

// Decode reads the record that begins with start. With an error comes what could be read before it.
func Decode(d *xml.Decoder, start xml.StartElement) (*bib.Record, error) {
	var m record
	err := d.DecodeElement(&m, &start)
	return m.record(), err
}

func (m *record) record() *bib.Record {
	r := &bib.Record{}
	for _, c := range m.Control {
		if put := controls[c.Tag]; put != nil {
			put(r, c.Value)
		}
	}
	for _, f := range m.Data {
		if put := fields[f.Tag]; put != nil {
			put(r, f)
		}
	}
	r.Abstract = bib.Flat(r.Abstract)
	r.Name(0)
	return r
}

// controls are what is read of control fields, by their tags.
var controls = map[string]func(*bib.Record, string){
	"001": func(r *bib.Record, v string) { r.Accession = strings.TrimSpace(v) },
	// Positions 7 to 10 are the year, 35 to 37 the language.
	"008": func(r *bib.Record, v string) {
		if len(v) < 38 {
			return
		}
		r.Year = bib.ParseYear(v[7:11])
		if l := strings.TrimSpace(v[35:38]); len(l) == 3 && l != "und" && l != "zxx" && l != "|||" {
			r.Languages = []string{l}
		}
	},
}

// fields are what is read of the other fields, by their tags.
var fields = map[string]func(*bib.Record, data){
	"022": issn, "024": identifier, "041": languages,
	"044": func(r *bib.Record, f data) { r.Countries = append(r.Countries, append(f.all("c"), f.all("a")...)...) },
	"100": person, "700": person,
	"110": body, "710": body,
	"242": func(r *bib.Record, f data) { rendering(r, f, f.first("y")) }, // the title as a cataloguer translated it
	"245": title,
	"246": func(r *bib.Record, f data) {
		if f.Second == "1" { // a parallel title
			rendering(r, f, "")
		}
	},
	"260": year, "264": year,
	"520": func(r *bib.Record, f data) { r.Abstract += " " + f.first("a") + " " + f.first("b") },
	"610": subject, "650": subject, "651": subject,
	"653": func(r *bib.Record, f data) {
		for _, k := range f.all("a") {
			r.Keywords = append(r.Keywords, trim(k))
		}
	},
	"655": func(r *bib.Record, f data) {
		if t := trim(f.first("a")); t != "" {
			r.Types = append(r.Types, t)
		}
	},
	"773": host,
	"856": func(r *bib.Record, f data) { r.URLs = append(r.URLs, f.all("u")...) },
}

// title reads a title, without the punctuation that parts it from what follows.
func title(r *bib.Record, f data) {
	r.Title = trim(f.first("a"))
	if b := trim(f.first("b")); b != "" {
		r.Title += ": " + b
	}
}

func rendering(r *bib.Record, f data, language string) {
	if a := trim(f.first("a")); a != "" {
		r.Others = append(r.Others, bib.Rendering{Language: language, Title: a})
	}
}

func person(r *bib.Record, f data) {
	a := f.first("a")
	if a == "" {
		return
	}
	p := bib.ParsePerson(strings.TrimRight(a, " ,"))
	if c := trim(f.first("c")); c != "" { // a junior, or another word beside the name
		p.Given, p.Written = strings.Trim(p.Given+", "+c, ", "), ""
	}
	r.Authors = append(r.Authors, p)
}

func body(r *bib.Record, f data) {
	if a := f.first("a"); a != "" {
		r.Authors = append(r.Authors, bib.Person{Family: trim(a)})
	}
}

func year(r *bib.Record, f data) {
	if y := bib.ParseYear(f.first("c")); y > 0 {
		r.Year = y
	}
}

func languages(r *bib.Record, f data) {
	for _, l := range f.all("a") {
		if len(r.Languages) == 0 || r.Languages[0] != l {
			r.Languages = append(r.Languages, l)
		}
	}
}

// host reads the journal, and where in it the article stands.
func host(r *bib.Record, f data) {
	if r.Journal == "" {
		r.Journal = trim(f.first("t"))
	}
	if issn := f.first("x"); issn != "" {
		r.ISSN = issn
	}
	r.Volume, r.Issue, r.FirstPage, r.LastPage = enumeration(f.first("q"))
}

func issn(r *bib.Record, f data) {
	if r.ISSN == "" {
		r.ISSN = f.first("a")
	}
}

func identifier(r *bib.Record, f data) {
	if f.first("2") == "doi" && r.DOI == "" {
		r.DOI = f.first("a")
	}
}

// subject reads a heading or, where no vocabulary is named, a keyword. Second indicator 4 says that none is, 7 that $2
// names it; first indicator 1 is a main point.
func subject(r *bib.Record, f data) {
	a := trim(f.first("a"))
	if a == "" {
		return
	}
	if f.Second == "4" || f.Second == " " || f.Second == "" || f.Second == "7" && f.first("2") == "" {
		r.Keywords = append(r.Keywords, a)
		return
	}
	h := bib.Assignment{Label: a, Central: f.First == "1"}
	for _, x := range f.all("x") {
		h.Qualifiers = append(h.Qualifiers, trim(x))
	}
	r.Headings = append(r.Headings, h)
}

// enumeration reads where an article stands in its host: volume:issue<pages.
func enumeration(q string) (volume, issue, first, last string) {
	where, pages, _ := strings.Cut(q, "<")
	volume, issue, _ = strings.Cut(where, ":")
	first, last = exchange.PageRange(pages)
	return strings.TrimSpace(volume), strings.TrimSpace(issue), first, last
}

func (f data) all(code string) (out []string) {
	for _, s := range f.Subs {
		if v := bib.Flat(s.Value); s.Code == code && v != "" {
			out = append(out, v)
		}
	}
	return out
}

func (f data) first(code string) string {
	if all := f.all(code); len(all) > 0 {
		return all[0]
	}
	return ""
}

func trim(s string) string { return strings.TrimRight(strings.TrimSpace(s), " /:;,.") }
