// Package xmltest hands the readers of records in XML the first element of a text, for their tests.
package xmltest

import (
	"encoding/xml"
	"strings"

	"tamiz/core/bib"
)

// Read decodes the record that is the first element of a text.
func Read(s string, decode func(*xml.Decoder, xml.StartElement) (*bib.Record, error)) (*bib.Record, error) {
	d := xml.NewDecoder(strings.NewReader(s))
	for {
		token, err := d.Token()
		if err != nil {
			return nil, err
		}
		if e, ok := token.(xml.StartElement); ok {
			return decode(d, e)
		}
	}
}
