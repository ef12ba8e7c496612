package dc_test

import (
	"bytes"
	"encoding/xml"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange/dc"
	"tamiz/exchange/xmltest"
)

func read(s string) (*bib.Record, error) { return xmltest.Read(s, dc.Decode) }

func TestWhatTheFormatHoldsComesBack(t *testing.T) {
	r := &bib.Record{
		Title:    "Shade at noon",
		Abstract: "Rest & shade.",
		Authors:  []bib.Person{{Family: "Osolana", Given: "Ife"}},
		Journal:  "Journal of Warm Work",
		Year:     2019,
		Keywords: []string{
			"noon",
		},
		Types:     []string{"Review"},
		Languages: []string{"eng"},
		Accession: "D1",
		DOI:       "10.99999/d1",
		URLs:      []string{"https://x.example/d1"},
		ID:        "D1",
		Headings:  []bib.Assignment{{Label: "Fluid Intake", Central: true}},
		Volume:    "4",
	}
	var b bytes.Buffer
	e := xml.NewEncoder(&b)
	require.NoError(t, dc.Encode(e, r))
	require.NoError(t, e.Close())
	back, err := read(b.String())
	require.NoError(t, err)
	// Headings are subjects like any other, and there is no volume.
	want := *r
	want.Headings, want.Volume, want.Keywords = nil, "", []string{"noon", "Fluid Intake"}
	assert.Equal(t, &want, back)
}

func TestTheOtherWrappingIsReadToo(t *testing.T) {
	r, err := read(
		`<oai_dc:dc xmlns:oai_dc="http://www.openarchives.org/OAI/2.0/oai_dc/" xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>Shade</dc:title><dc:date>2019-04-01</dc:date>` +
			`<dc:identifier>https://doi.org/10.99999/X</dc:identifier><dc:identifier>oai:x:1</dc:identifier></oai_dc:dc>`,
	)
	require.NoError(t, err)
	assert.Equal(t, []any{"Shade", 2019, "10.99999/x", "oai:x:1"}, []any{r.Title, r.Year, bib.DOIKey(r.DOI), r.Accession})
}

func FuzzDecode(f *testing.F) {
	f.Add(
		`<dc><title>Shade</title><creator>Osolana, Ife</creator><date>20190401</date><identifier>doi:10.99999/x</identifier></dc>`,
	)
	f.Fuzz(func(t *testing.T, s string) {
		r, err := read(s)
		if err != nil {
			return
		}
		var b bytes.Buffer
		e := xml.NewEncoder(&b)
		require.NoError(t, dc.Encode(e, r))
		require.NoError(t, e.Close())
		back, err := read(b.String())
		require.NoError(t, err)
		assert.Equal(t, r.Title, back.Title)
	})
}
