// Package dc reads and writes bibliographic records in Dublin Core (ISO 15836), in the two wrappings that
// servers use: the dc element of SRU and the one of harvesting. It holds less than a record has: no
// volume or pages, and headings are subjects like any other.
package dc

import (
	"encoding/xml"
	"fmt"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// Schema is the name by which an SRU server knows the records.
const Schema = "info:srw/schema/1/dc-v1.1"

const (
	namespace = "info:srw/schema/1/dc-schema"
	elements  = "http://purl.org/dc/elements/1.1/"
)

// Elements are known by their local name, whatever the prefix.
type record struct {
	Title       []text   `xml:"title"`
	Creator     []string `xml:"creator"`
	Subject     []string `xml:"subject"`
	Description []text   `xml:"description"`
	Source      []string `xml:"source"`
	Date        []string `xml:"date"`
	Type        []string `xml:"type"`
	Language    []string `xml:"language"`
	Identifier  []string `xml:"identifier"`
	Rest        []rest   `xml:",any"`
}

type text struct {
	Language string `xml:"lang,attr"`
	Value    string `xml:",chardata"`
}

type rest struct {
	XMLName xml.Name
	Value   string `xml:",chardata"`
}

// Format names the files whose elements are kept under their own name.
const Format = "dc"

// Decode reads the record that begins with start. With an error comes what could be read before it.
func Decode(d *xml.Decoder, start xml.StartElement) (*bib.Record, error) {
	var x record
	err := d.DecodeElement(&x, &start)
	return x.record(), err
}

func (x *record) record() *bib.Record {
	r := &bib.Record{
		Keywords:  exchange.Values(x.Subject),
		Types:     exchange.Values(x.Type),
		Languages: exchange.Values(x.Language),
	}
	x.texts(r)
	for _, c := range exchange.Values(x.Creator) {
		r.Authors = append(r.Authors, bib.ParsePerson(c))
	}
	if s := exchange.Values(x.Source); len(s) > 0 {
		r.Journal = s[0]
	}
	for _, date := range x.Date {
		if r.Year == 0 {
			r.Year = bib.ParseYear(date)
		}
	}
	for _, id := range exchange.Values(x.Identifier) {
		key := bib.DOIKey(id)
		switch {
		case strings.HasPrefix(key, "10.") && strings.Contains(key, "/"):
			if r.DOI == "" {
				r.DOI = strings.TrimPrefix(id, "doi:")
			}
		case strings.HasPrefix(id, "http://"), strings.HasPrefix(id, "https://"):
			r.URLs = append(r.URLs, id)
		case r.Accession == "":
			r.Accession = id
		}
	}
	for _, e := range x.Rest {
		if v := bib.Flat(e.Value); v != "" {
			r.Extra = append(r.Extra, bib.Extra{Tag: e.XMLName.Local, Value: v, Format: Format})
		}
	}
	r.Name(0)
	return r
}

// texts takes the title and abstract of the record, and those in other languages. The first title is the
// record's own; descriptions in its language are parts of one abstract.
func (x *record) texts(r *bib.Record) {
	for _, t := range x.Title {
		switch v := bib.Flat(t.Value); {
		case v == "":
		case r.Title == "":
			r.Title = v
		default:
			r.AddTitle(t.Language, v)
		}
	}
	own, begun := "", false
	for _, t := range x.Description {
		v := bib.Flat(t.Value)
		if v == "" {
			continue
		}
		if !begun {
			own, begun = t.Language, true
		}
		if t.Language == own {
			r.Abstract = bib.Flat(r.Abstract + " " + v)
			continue
		}
		r.AddAbstract(t.Language, v)
	}
}

// Encode writes a record as a dc element.
func Encode(e *xml.Encoder, r *bib.Record) error {
	root := xml.StartElement{Name: xml.Name{Local: "srw_dc:dc"}, Attr: []xml.Attr{
		{Name: xml.Name{Local: "xmlns:srw_dc"}, Value: namespace}, {Name: xml.Name{Local: "xmlns:dc"}, Value: elements}}}
	if err := e.EncodeToken(root); err != nil {
		return err
	}
	put := func(name string, values ...string) {
		for _, v := range values {
			if v != "" {
				_ = e.EncodeElement(v, xml.StartElement{Name: xml.Name{Local: "dc:" + name}}) // an error stays in the encoder
			}
		}
	}
	put("title", r.Title)
	for _, a := range r.Authors {
		put("creator", a.String())
	}
	put("subject", r.Keywords...)
	for _, h := range r.Headings {
		put("subject", h.Label)
	}
	put("description", r.Abstract)
	put("source", r.Journal)
	if r.Year > 0 {
		put("date", fmt.Sprintf("%04d", r.Year))
	}
	put("type", r.Types...)
	put("language", r.Languages...)
	put("identifier", r.Accession)
	if r.DOI != "" {
		put("identifier", "doi:"+r.DOI)
	}
	put("identifier", r.URLs...)
	return e.EncodeToken(root.End())
}
