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
	var abstract []string
	for _, c := range m.Control {
		switch v := strings.TrimSpace(c.Value); {
		case c.Tag == "001":
			r.Accession = v
		case c.Tag == "008" && len(c.Value) >= 38:
			// Positions 7 to 10 are the year, 35 to 37 the language.
			r.Year = bib.ParseYear(c.Value[7:11])
			if l := strings.TrimSpace(c.Value[35:38]); len(l) == 3 && l != "und" && l != "zxx" && l != "|||" {
				r.Languages = []string{l}
			}
		}
	}
	for _, f := range m.Data {
		a := f.first("a")
		switch f.Tag {
		case "245":
			// Titles end with the punctuation that parts them from what follows.
			r.Title = trim(a)
			if b := trim(f.first("b")); b != "" {
				r.Title += ": " + b
			}
		case "100", "700":
			if a != "" {
				p := bib.ParsePerson(strings.TrimRight(a, " ,"))
				if c := trim(f.first("c")); c != "" { // a junior, or another word beside the name
					p.Given, p.Written = strings.Trim(p.Given+", "+c, ", "), ""
				}
				r.Authors = append(r.Authors, p)
			}
		case "110", "710":
			if a != "" {
				r.Authors = append(r.Authors, bib.Person{Family: trim(a)})
			}
		case "242": // the title as a cataloguer translated it
			if a = trim(a); a != "" {
				r.Others = append(r.Others, bib.Rendering{Language: f.first("y"), Title: a})
			}
		case "246": // second indicator 1: a parallel title
			if a = trim(a); a != "" && f.Second == "1" {
				r.Others = append(r.Others, bib.Rendering{Title: a})
			}
		case "044":
			r.Countries = append(r.Countries, append(f.all("c"), f.all("a")...)...)
		case "520":
			abstract = append(abstract, a, f.first("b"))
		case "260", "264":
			if y := bib.ParseYear(f.first("c")); y > 0 {
				r.Year = y
			}
		case "041":
			for _, l := range f.all("a") {
				if len(r.Languages) == 0 || r.Languages[0] != l {
					r.Languages = append(r.Languages, l)
				}
			}
		case "773":
			if r.Journal == "" {
				r.Journal = trim(f.first("t"))
			}
			if issn := f.first("x"); issn != "" {
				r.ISSN = issn
			}
			r.Volume, r.Issue, r.FirstPage, r.LastPage = enumeration(f.first("q"))
		case "022":
			if r.ISSN == "" {
				r.ISSN = a
			}
		case "024":
			if f.first("2") == "doi" && r.DOI == "" {
				r.DOI = a
			}
		case "650", "651", "610":
			if a = trim(a); a == "" {
				continue
			}
			// Second indicator 4 says that no vocabulary is named, 7 that $2 names it.
			if f.Second == "4" || f.Second == " " || f.Second == "" || f.Second == "7" && f.first("2") == "" {
				r.Keywords = append(r.Keywords, a)
				continue
			}
			h := bib.Assignment{Label: a, Central: f.First == "1"} // first indicator 1: a main point
			for _, x := range f.all("x") {
				h.Qualifiers = append(h.Qualifiers, trim(x))
			}
			r.Headings = append(r.Headings, h)
		case "653":
			for _, k := range f.all("a") {
				r.Keywords = append(r.Keywords, trim(k))
			}
		case "655":
			if t := trim(a); t != "" {
				r.Types = append(r.Types, t)
			}
		case "856":
			r.URLs = append(r.URLs, f.all("u")...)
		}
	}
	r.Abstract = bib.Flat(strings.Join(abstract, " "))
	r.Name(0)
	return r
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
