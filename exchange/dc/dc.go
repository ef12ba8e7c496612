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
	Title       []string `xml:"title"`
	Creator     []string `xml:"creator"`
	Subject     []string `xml:"subject"`
	Description []string `xml:"description"`
	Source      []string `xml:"source"`
	Date        []string `xml:"date"`
	Type        []string `xml:"type"`
	Language    []string `xml:"language"`
	Identifier  []string `xml:"identifier"`
}

// Decode reads the record that begins with start.
func Decode(d *xml.Decoder, start xml.StartElement) (*bib.Record, error) {
	var x record
	if err := d.DecodeElement(&x, &start); err != nil {
		return nil, err
	}
	r := &bib.Record{Abstract: exchange.Flat(strings.Join(x.Description, " ")), Keywords: exchange.Values(x.Subject), Types: exchange.Values(x.Type), Languages: exchange.Values(x.Language)}
	if t := exchange.Values(x.Title); len(t) > 0 {
		r.Title = t[0]
	}
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
	r.Name(0)
	return r, nil
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
