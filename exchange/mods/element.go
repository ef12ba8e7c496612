package mods

import (
	"encoding/xml"
	"strings"

	"tamiz/core/bib"
)

// An element is one that Tamiz has no field for, kept as it came: its name, and all of it as XML without
// prefixes, since the declarations of those stand elsewhere in the file.
type element struct {
	name string
	text string
}

// keep keeps an element that was read but is no field of a record.
func keep(r *bib.Record, name string, v any) {
	var b strings.Builder
	e := xml.NewEncoder(&b)
	if e.EncodeElement(v, xml.StartElement{Name: xml.Name{Local: name}}) == nil && e.Close() == nil && b.Len() < maxKept {
		r.Extra = append(r.Extra, bib.Extra{Tag: name, Value: b.String(), Format: Format})
	}
}

const maxKept = 64 << 10 // bytes of an element that is kept

// UnmarshalXML writes the element down token by token.
func (e *element) UnmarshalXML(d *xml.Decoder, start xml.StartElement) error {
	e.name = start.Name.Local
	var b strings.Builder
	out := xml.NewEncoder(&b)
	depth := 0
	var token xml.Token = start
	for {
		switch t := token.(type) {
		case xml.StartElement:
			depth++
			token = xml.StartElement{Name: xml.Name{Local: t.Name.Local}, Attr: attributes(t.Attr)}
		case xml.EndElement:
			depth--
			token = xml.EndElement{Name: xml.Name{Local: t.Name.Local}}
		case xml.CharData:
			if strings.TrimSpace(string(t)) == "" && strings.Contains(string(t), "\n") {
				token = nil // how the file was laid out
			}
		default:
			token = nil
		}
		if token != nil && b.Len() < maxKept {
			if err := out.EncodeToken(token); err != nil {
				return err
			}
		}
		if depth == 0 {
			break
		}
		var err error
		if token, err = d.Token(); err != nil {
			return err
		}
	}
	if b.Len() >= maxKept {
		return nil // too long to be kept: an element cut short would be none
	}
	if err := out.Close(); err != nil {
		return err
	}
	e.text = b.String()
	return nil
}

// attributes are those that say something by themselves.
func attributes(all []xml.Attr) (out []xml.Attr) {
	for _, a := range all {
		if a.Name.Space != "xmlns" && a.Name.Local != "xmlns" {
			out = append(out, xml.Attr{Name: xml.Name{Local: a.Name.Local}, Value: a.Value})
		}
	}
	return out
}

// MarshalXML writes the element as it was kept.
func (e element) MarshalXML(out *xml.Encoder, _ xml.StartElement) error {
	d := xml.NewDecoder(strings.NewReader(e.text))
	for {
		token, err := d.Token()
		if err != nil {
			return nil // its end, or something that was no element after all
		}
		if err := out.EncodeToken(token); err != nil {
			return err
		}
	}
}
