package marcxml_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange/marcxml"
	"tamiz/exchange/xmltest"
)

func read(s string) (*bib.Record, error) { return xmltest.Read(s, marcxml.Decode) }

func field(tag, second string, subs ...string) string {
	s := `<datafield tag="` + tag + `" ind1=" " ind2="` + second + `">`
	for i := 0; i < len(subs); i += 2 {
		s += `<subfield code="` + subs[i] + `">` + subs[i+1] + `</subfield>`
	}
	return s + "</datafield>"
}

func TestARecordOfACatalogueIsRead(t *testing.T) {
	r, err := read(
		`<record xmlns="http://www.loc.gov/MARC21/slim"><leader>00000nab</leader><controlfield tag="001">K77</controlfield>` +
			`<controlfield tag="008">190501s2018    xx ||||| |||| 00| 0 spa d</controlfield>` +
			field("024", "7", "a", "10.99999/k77", "2", "doi") + field("041", " ", "a", "spa", "a", "eng") +
			field(
				"100",
				" ",
				"a",
				"Osolana, Ife,",
				"e",
				"author",
			) + field("110", " ", "a", "Board of Warm Work.") + field("700", " ", "a", "Velkana, T.") +
			field(
				"245",
				"0",
				"a",
				"Shade at noon :",
				"b",
				"a stepped trial /",
				"c",
				"Ife Osolana.",
			) + field("264", "1", "a", "Karland", "c", "©2019.") +
			field("520", " ", "a", "Rest and", "b", "shade.") +
			field(
				"650",
				"7",
				"a",
				"Fluid intake.",
				"x",
				"Methods",
				"2",
				"almagre",
			) + field("650", "0", "a", "Farm labour") + field("650", "4", "a", "shade tents") + field("653", " ", "a", "noon",
			"a", "heat") +
			field(
				"655",
				"7",
				"a",
				"Trial reports.",
			) + field("773", " ", "t", "Journal of Warm Work,", "x", "0000-0001") + field("856", "0", "u",
			"https://x.example/k77") + `</record>`,
	)
	require.NoError(t, err)
	assert.Equal(
		t,
		&bib.Record{
			ID:        "K77",
			Accession: "K77",
			Title:     "Shade at noon: a stepped trial",
			Abstract:  "Rest and shade.",
			Year:      2019,
			Journal:   "Journal of Warm Work",
			ISSN:      "0000-0001",
			Authors: []bib.Person{
				{Family: "Osolana", Given: "Ife"},
				{Family: "Board of Warm Work"},
				{Family: "Velkana", Given: "T."},
			},
			Keywords: []string{
				"shade tents",
				"noon",
				"heat",
			},
			Headings: []bib.Assignment{{Label: "Fluid intake", Qualifiers: []string{"Methods"}}, {Label: "Farm labour"}},
			Types: []string{
				"Trial reports",
			},
			Languages: []string{"spa", "eng"},
			DOI:       "10.99999/k77",
			URLs:      []string{"https://x.example/k77"},
		},
		r,
	)
}

func FuzzDecode(f *testing.F) {
	f.Add(
		`<record><controlfield tag="008">190501s2018    xx ||||| |||| 00| 0 spa d</controlfield>` + field(
			"245",
			"0",
			"a",
			"Shade",
		) + `</record>`,
	)
	f.Add(`<record>` + field("650", "7", "a", "Rest", "2", "x") + field("041", " ", "a", "eng") + `</record>`)
	f.Fuzz(func(t *testing.T, s string) {
		if r, err := read(s); err == nil {
			assert.NotNil(t, r)
			assert.NotEmpty(t, r.ID)
		}
	})
}
