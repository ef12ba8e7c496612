// Package mods reads and writes bibliographic records in MODS 3 (Metadata Object Description Schema,
// Library of Congress), an XML format. It reads one record at a time from a decoder, so that records can
// stand in whatever carries them.
package mods

import (
	"encoding/xml"
	"strconv"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// Namespace is the namespace of MODS 3.
const Namespace = "http://www.loc.gov/mods/v3"

// Schema is the name by which an SRU server knows the records.
const Schema = "info:srw/schema/1/mods-v3.6"

// Format names the files whose elements are kept under their own name.
const Format = "mods"

// The elements of a record, as far as a bibliographic record needs them. Elements are known by their
// local name, since servers differ in whether they declare the namespace.
type record struct {
	XMLName   xml.Name     `xml:"mods"`
	Namespace string       `xml:"xmlns,attr,omitempty"`
	Titles    []titleInfo  `xml:"titleInfo"`
	Names     []name       `xml:"name"`
	Genres    []string     `xml:"genre"`
	Origins   []origin     `xml:"originInfo"`
	Languages []language   `xml:"language"`
	Abstracts []abstract   `xml:"abstract"`
	Subjects  []subject    `xml:"subject"`
	Related   []related    `xml:"relatedItem"`
	IDs       []identifier `xml:"identifier"`
	Locations []location   `xml:"location"`
	Parts     []detailPart `xml:"part"`
	Info      []info       `xml:"recordInfo"`
	Notes     []note       `xml:"note"`
	Unknown   []element    `xml:",any"`
}

type abstract struct {
	Type     string `xml:"type,attr,omitempty"`
	Language string `xml:"lang,attr,omitempty"`
	Label    string `xml:"displayLabel,attr,omitempty"`
	Value    string `xml:",chardata"`
}

type titleInfo struct {
	Type     string   `xml:"type,attr,omitempty"`
	Language string   `xml:"lang,attr,omitempty"`
	NonSort  string   `xml:"nonSort,omitempty"`
	Title    []string `xml:"title"`
	SubTitle []string `xml:"subTitle"`
}

type name struct {
	Type    string     `xml:"type,attr,omitempty"`
	Parts   []namePart `xml:"namePart"`
	Roles   []roleTerm `xml:"role>roleTerm"`
	Unknown []element  `xml:",any"`
}

type namePart struct {
	Type  string `xml:"type,attr,omitempty"`
	Value string `xml:",chardata"`
}

type roleTerm struct {
	Type  string `xml:"type,attr,omitempty"`
	Value string `xml:",chardata"`
}

type origin struct {
	Places []placeTerm `xml:"place>placeTerm,omitempty"`
	Issued []string    `xml:"dateIssued"`
	Other  []string    `xml:"copyrightDate"`
}

type placeTerm struct {
	Type  string `xml:"type,attr,omitempty"`
	Value string `xml:",chardata"`
}

type language struct {
	Terms []roleTerm `xml:"languageTerm"`
}

type subject struct {
	Authority string    `xml:"authority,attr,omitempty"`
	Usage     string    `xml:"usage,attr,omitempty"`
	Topics    []string  `xml:"topic"`
	Unknown   []element `xml:",any"`
}

type identifier struct {
	Type  string `xml:"type,attr,omitempty"`
	Value string `xml:",chardata"`
}

type location struct {
	URLs []string `xml:"url"`
}

type related struct {
	Type    string       `xml:"type,attr,omitempty"`
	Titles  []titleInfo  `xml:"titleInfo"`
	Names   []name       `xml:"name"`
	Notes   []note       `xml:"note"`
	Origins []origin     `xml:"originInfo"`
	IDs     []identifier `xml:"identifier"`
	Parts   []detailPart `xml:"part"`
	Unknown []element    `xml:",any"`
}

type detailPart struct {
	Details []detail `xml:"detail"`
	Extents []extent `xml:"extent"`
	Dates   []string `xml:"date"`
}

type detail struct {
	Type   string   `xml:"type,attr,omitempty"`
	Number []string `xml:"number"`
}

type extent struct {
	Unit  string `xml:"unit,attr,omitempty"`
	Start string `xml:"start,omitempty"`
	End   string `xml:"end,omitempty"`
}

type info struct {
	Identifiers []string `xml:"recordIdentifier"`
}

type note struct {
	Type  string `xml:"type,attr,omitempty"`
	Value string `xml:",chardata"`
}

// What a record says of citations: a related item for each work that it cites, and a note with how many cite it.
const (
	references = "references"
	citedBy    = "cited by"
)

// maxReferences is how many references of a record are read; a list that is longer is cut there.
const maxReferences = 5000

// Decode reads the record that begins with start. With an error comes what could be read before it.
func Decode(d *xml.Decoder, start xml.StartElement) (*bib.Record, error) {
	var m record
	err := d.DecodeElement(&m, &start)
	return m.record(), err
}

func (m *record) record() *bib.Record {
	r := &bib.Record{}
	m.texts(r)
	for _, n := range m.Names {
		if p, ok := n.person(); ok {
			r.Authors = append(r.Authors, p)
		} else {
			keep(r, "name", n)
		}
	}
	r.Types = exchange.Values(m.Genres)
	m.dates(r)
	for _, l := range m.Languages {
		r.Languages = append(r.Languages, codeOrText(l.Terms)...)
	}
	for _, s := range m.Subjects {
		topics := exchange.Values(s.Topics)
		switch {
		case len(topics) == 0:
			keep(r, "subject", s)
		case s.Authority == "":
			r.Keywords = append(r.Keywords, topics...)
		default:
			r.Headings = append(
				r.Headings,
				bib.Assignment{Label: topics[0], Qualifiers: more(topics[1:]), Central: s.Usage == "primary"},
			)
		}
	}
	for _, rel := range m.Related {
		rel.into(r)
	}
	for _, p := range m.Parts {
		p.into(r)
	}
	for _, id := range m.IDs {
		switch v := bib.Flat(id.Value); {
		case v == "":
		case id.Type == "doi" && r.DOI == "":
			r.DOI = v
		case id.Type == "issn" && r.ISSN == "":
			r.ISSN = v
		case id.Type == "uri":
			r.URLs = append(r.URLs, v)
		case id.Type == "local" && r.LocalID == "":
			r.LocalID = v
		default:
			keep(r, "identifier", id)
		}
	}
	for _, l := range m.Locations {
		r.URLs = append(r.URLs, exchange.Values(l.URLs)...)
	}
	for _, i := range m.Info {
		if ids := exchange.Values(i.Identifiers); len(ids) > 0 && r.Accession == "" {
			r.Accession = ids[0]
		}
	}
	for _, n := range m.Notes {
		switch v := bib.Flat(n.Value); {
		case v == "":
		case n.Type == citedBy && r.TimesCited == nil && isCount(v):
			n, _ := strconv.Atoi(v)
			r.TimesCited = &n
		default:
			r.Extra = append(r.Extra, bib.Extra{Tag: "note " + n.Type, Value: v, Format: Format})
		}
	}
	for _, e := range m.Unknown {
		r.Extra = append(r.Extra, bib.Extra{Tag: e.name, Value: e.text, Format: Format})
	}
	r.Name(0)
	return r
}

func (n name) person() (bib.Person, bool) {
	author := len(n.Roles) == 0
	for _, role := range n.Roles {
		if v := strings.ToLower(bib.Flat(role.Value)); v == "author" || v == "aut" || v == "creator" || v == "cre" {
			author = true
		}
	}
	if !author {
		return bib.Person{}, false
	}
	var family, given, terms, whole []string
	for _, p := range n.Parts {
		v := bib.Flat(p.Value)
		switch {
		case v == "":
		case p.Type == "family":
			family = append(family, v)
		case p.Type == "given":
			given = append(given, v)
		case p.Type == "termsOfAddress":
			terms = append(terms, v)
		case p.Type == "":
			whole = append(whole, v)
		}
	}
	switch {
	case len(family) > 0:
		return bib.Person{
			Family: strings.Join(family, " "),
			Given:  strings.Join(append(exchange.Values([]string{strings.Join(given, " ")}), terms...), ", "),
		}, true
	case len(whole) > 0 && n.Type == "corporate":
		return bib.Person{Family: strings.Join(whole, " ")}, true
	case len(whole) > 0:
		return bib.ParsePerson(strings.Join(whole, " ")), true
	}
	return bib.Person{}, false
}

func (m *record) dates(r *bib.Record) {
	for _, o := range m.Origins {
		o.into(r)
		for _, p := range o.Places {
			if v := bib.Flat(p.Value); v != "" && p.Type != "code" {
				r.Countries = append(r.Countries, v)
			}
		}
	}
}

func (o origin) into(r *bib.Record) {
	for _, d := range append(append([]string{}, o.Issued...), o.Other...) {
		if r.Year == 0 {
			r.Year = bib.ParseYear(d)
		}
	}
}

func (rel related) into(r *bib.Record) {
	switch rel.Type {
	case "host":
		if r.Journal == "" {
			r.Journal = mainTitle(rel.Titles)
		}
		for _, id := range rel.IDs {
			if id.Type == "issn" && r.ISSN == "" {
				r.ISSN = bib.Flat(id.Value)
			}
		}
		for _, p := range rel.Parts {
			p.into(r)
		}
		for _, o := range rel.Origins {
			o.into(r)
		}
	case references:
		if f := rel.reference(); !f.Empty() && len(r.References) < maxReferences {
			r.References = append(r.References, f)
		}
	default:
		keep(r, "relatedItem", rel)
	}
}

// reference reads a work that is cited: identifiers, title, first name and year, and a note that is all of it as text.
func (rel related) reference() (f bib.Reference) {
	f.Title = mainTitle(rel.Titles)
	for _, id := range rel.IDs {
		switch v := bib.Flat(id.Value); {
		case v == "":
		case id.Type == "doi" && f.DOI == "":
			f.DOI = v
		case id.Type == "local" && f.Local == "":
			f.Local = v
		}
	}
	for _, n := range rel.Names {
		if p, ok := n.person(); ok && f.Author == "" {
			f.Author = p.Line()
		}
	}
	for _, o := range rel.Origins {
		for _, d := range o.Issued {
			if f.Year == 0 {
				f.Year = bib.ParseYear(d)
			}
		}
	}
	for _, n := range rel.Notes {
		if f.Text == "" {
			f.Text = bib.Flat(n.Value)
		}
	}
	return f
}

// isCount reports whether a text is a number of works.
func isCount(s string) bool {
	n, err := strconv.Atoi(s)
	return err == nil && n >= 0
}

func (p detailPart) into(r *bib.Record) {
	for _, d := range p.Details {
		if numbers := exchange.Values(d.Number); len(numbers) > 0 {
			switch {
			case d.Type == "volume" && r.Volume == "":
				r.Volume = numbers[0]
			case d.Type == "issue" && r.Issue == "":
				r.Issue = numbers[0]
			}
		}
	}
	for _, e := range p.Extents {
		if (e.Unit == "" || strings.HasPrefix(e.Unit, "page")) && r.FirstPage == "" {
			r.FirstPage, r.LastPage = bib.Flat(e.Start), bib.Flat(e.End)
		}
	}
	for _, d := range p.Dates {
		if r.Year == 0 {
			r.Year = bib.ParseYear(d)
		}
	}
}

// texts takes the title and abstract of the record, and those in other languages. The record's own are those
// that are no translation or other variant, else the first; parts of an abstract keep their labels.
func (m *record) texts(r *bib.Record) {
	main := 0
	for i, t := range m.Titles {
		if t.Type == "" {
			main = i
			break
		}
	}
	for i, t := range m.Titles {
		switch s := t.text(); {
		case s == "":
		case i == main:
			r.Title = s
		case t.Type == "translated" || t.Type == "":
			r.AddTitle(t.Language, s)
		default:
			keep(r, "titleInfo", t)
		}
	}
	own := ""
	for i, a := range m.Abstracts {
		s := bib.Flat(a.Value)
		if s == "" {
			continue
		}
		if label := strings.TrimRight(bib.Flat(a.Label), ": "); label != "" && !strings.EqualFold(label, "abstract") {
			s = label + ": " + s
		}
		if i == 0 {
			own = a.Language
		}
		if a.Type == "translated" || a.Language != own {
			r.AddAbstract(a.Language, s)
		} else {
			r.Abstract = bib.Flat(r.Abstract + " " + s)
		}
	}
}

func (t titleInfo) text() string {
	s := bib.Flat(t.NonSort + " " + strings.Join(t.Title, " "))
	if sub := bib.Flat(strings.Join(t.SubTitle, ": ")); sub != "" {
		s += ": " + sub
	}
	return s
}

// mainTitle returns the title that is no translation, abbreviation or other variant, else the first.
func mainTitle(all []titleInfo) string {
	best := ""
	for _, t := range all {
		s := t.text()
		if t.Type == "" && s != "" {
			return s
		}
		if best == "" {
			best = s
		}
	}
	return best
}

// codeOrText returns the codes among the terms of one language, or what else they say.
func codeOrText(terms []roleTerm) []string {
	var codes, texts []string
	for _, t := range terms {
		v := bib.Flat(t.Value)
		switch {
		case v == "":
		case t.Type == "text":
			texts = append(texts, v)
		default:
			codes = append(codes, v)
		}
	}
	if len(codes) > 0 {
		return codes[:1]
	}
	return texts
}

func more(of []string) []string {
	if len(of) == 0 {
		return nil
	}
	return of
}
