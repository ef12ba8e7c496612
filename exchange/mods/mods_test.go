package mods_test

import (
	"bytes"
	"encoding/xml"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/exchange/mods"
	"tamiz/exchange/xmltest"
)

func decode(t require.TestingT, s string) *bib.Record {
	r, err := read(s)
	require.NoError(t, err)
	return r
}

func read(s string) (*bib.Record, error) { return xmltest.Read(s, mods.Decode) }

func TestARecordOfACatalogueIsRead(t *testing.T) {
	r := decode(t, `<mods:mods xmlns:mods="http://www.loc.gov/mods/v3">
		<mods:titleInfo type="translated"><mods:title>Sombra al mediodía</mods:title></mods:titleInfo>
		<mods:titleInfo><mods:nonSort>The</mods:nonSort><mods:title>shade at noon</mods:title><mods:subTitle>a stepped trial</mods:subTitle></mods:titleInfo>
		<mods:name type="personal"><mods:namePart type="family">Osolana</mods:namePart><mods:namePart type="given">Ife</mods:namePart><mods:role><mods:roleTerm type="code">aut</mods:roleTerm></mods:role></mods:name>
		<mods:name type="personal"><mods:namePart>Velkana, Temi</mods:namePart></mods:name>
		<mods:name type="personal"><mods:namePart>Nobody, Ed</mods:namePart><mods:role><mods:roleTerm type="text">editor</mods:roleTerm></mods:role></mods:name>
		<mods:name type="corporate"><mods:namePart>Board of Warm Work</mods:namePart><mods:role><mods:roleTerm>author</mods:roleTerm></mods:role></mods:name>
		<mods:genre>Trial Report</mods:genre>
		<mods:originInfo><mods:place><mods:placeTerm type="code">xx</mods:placeTerm><mods:placeTerm type="text">Karland</mods:placeTerm></mods:place><mods:dateIssued>c2019-05</mods:dateIssued></mods:originInfo>
		<mods:language><mods:languageTerm type="text">English</mods:languageTerm><mods:languageTerm type="code">eng</mods:languageTerm></mods:language>
		<mods:abstract>Rest
			and shade.</mods:abstract>
		<mods:subject authority="almagre" usage="primary"><mods:topic>Fluid Intake</mods:topic><mods:topic>methods</mods:topic></mods:subject>
		<mods:subject><mods:topic>shade tents</mods:topic><mods:topic>noon</mods:topic></mods:subject>
		<mods:subject><mods:geographic>Karland</mods:geographic></mods:subject>
		<mods:relatedItem type="host"><mods:titleInfo><mods:title>Journal of Warm Work</mods:title></mods:titleInfo><mods:identifier type="issn">0000-0001</mods:identifier>
			<mods:part><mods:detail type="volume"><mods:number>4</mods:number></mods:detail><mods:detail type="issue"><mods:number>2</mods:number></mods:detail><mods:extent unit="pages"><mods:start>11</mods:start><mods:end>19</mods:end></mods:extent></mods:part></mods:relatedItem>
		<mods:relatedItem type="references"><mods:identifier type="doi">10.99999/a</mods:identifier></mods:relatedItem>
		<mods:note type="cited by">3</mods:note><mods:note>a remark</mods:note>
		<mods:identifier type="doi">10.99999/b</mods:identifier><mods:location><mods:url>https://x.example/b</mods:url></mods:location>
		<mods:recordInfo><mods:recordIdentifier>ALM1</mods:recordIdentifier></mods:recordInfo></mods:mods>`)
	assert.Equal(
		t,
		&bib.Record{
			ID:        "ALM1",
			Accession: "ALM1",
			Title:     "The shade at noon: a stepped trial",
			Abstract:  "Rest and shade.",
			Year:      2019,
			Journal:   "Journal of Warm Work",
			Authors: []bib.Person{
				{Family: "Osolana", Given: "Ife"},
				{Family: "Velkana", Given: "Temi"},
				{Family: "Board of Warm Work"},
			},
			Keywords: []string{
				"shade tents",
				"noon",
			},
			Headings: []bib.Assignment{{Label: "Fluid Intake", Qualifiers: []string{"methods"}, Central: true}},
			Types: []string{
				"Trial Report",
			},
			Languages: []string{"eng"},
			Countries: []string{"Karland"},
			DOI:       "10.99999/b",
			URLs:      []string{"https://x.example/b"},
			ISSN:      "0000-0001",
			Volume:    "4",
			Issue:     "2",
			FirstPage: "11",
			LastPage:  "19",
			Others:    []bib.Rendering{{Title: "Sombra al mediodía"}},
			Extra: []bib.Extra{
				{
					Tag:    "name",
					Value:  `<name type="personal"><namePart>Nobody, Ed</namePart><role><roleTerm type="text">editor</roleTerm></role></name>`,
					Format: mods.Format,
				},
				{Tag: "subject", Value: "<subject><geographic>Karland</geographic></subject>", Format: mods.Format},
				{Tag: "note ", Value: "a remark", Format: mods.Format}},
			References: []bib.Reference{{DOI: "10.99999/a"}},
			TimesCited: new(3),
		},
		r,
	)
}

// What is written reads back the same.
func TestRecordsComeBackAsTheyWere(t *testing.T) {
	word := rapid.StringMatching(`[A-Za-zéñ<&"'\]]{1,9}( [a-z&<]{1,7}){0,3}`)
	maybe := func(t *rapid.T, name string) string {
		if rapid.Bool().Draw(t, name+"?") {
			return word.Draw(t, name)
		}
		return ""
	}
	list := func(t *rapid.T, name string) (out []string) {
		for range rapid.IntRange(0, 3).Draw(t, name) {
			out = append(out, word.Draw(t, name))
		}
		return out
	}
	rapid.Check(t, func(t *rapid.T) {
		r := &bib.Record{
			Title:    word.Draw(t, "title"),
			Abstract: maybe(t, "abstract"),
			Journal:  maybe(t, "journal"),
			Year:     rapid.IntRange(0, 2030).Draw(t, "year"),
			Keywords: list(t, "keywords"),
			Types: list(
				t,
				"types",
			),
			Languages: list(t, "languages"),
			Countries: list(t, "countries"),
			Accession: maybe(t, "accession"),
			LocalID:   maybe(t, "local"),
			DOI:       maybe(t, "doi"),
			URLs:      list(t, "urls"),
			ISSN: maybe(
				t,
				"issn",
			),
			Volume:    maybe(t, "volume"),
			Issue:     maybe(t, "issue"),
			FirstPage: maybe(t, "first"),
			LastPage:  maybe(t, "last"),
		}
		for range rapid.IntRange(0, 3).Draw(t, "authors") {
			p := bib.Person{Family: word.Draw(t, "family"), Given: maybe(t, "given")}
			r.Authors = append(r.Authors, p)
		}
		for range rapid.IntRange(0, 3).Draw(t, "headings") {
			r.Headings = append(
				r.Headings,
				bib.Assignment{
					Label:      word.Draw(t, "label"),
					Qualifiers: list(t, "qualifiers"),
					Central:    rapid.Bool().Draw(t, "central"),
				},
			)
		}
		for i := range rapid.IntRange(0, 2).Draw(t, "others") {
			r.Others = append(
				r.Others,
				bib.Rendering{
					Language: []string{"spa", "por"}[i],
					Title:    word.Draw(t, "other title"),
					Abstract: maybe(t, "other abstract"),
				},
			)
		}
		for range rapid.IntRange(0, 2).Draw(t, "references") {
			f := bib.Reference{
				DOI:   word.Draw(t, "reference"),
				Local: maybe(t, "number"),
				Title: maybe(t, "cited title"),
				Year:  rapid.IntRange(0, 2030).Draw(t, "cited year"),
				Text:  maybe(t, "cited text"),
			}
			if name := maybe(t, "cited author"); name != "" {
				f.Author = bib.ParsePerson(name).Line()
			}
			r.References = append(r.References, f)
		}
		if rapid.Bool().Draw(t, "counted") {
			r.TimesCited = new(rapid.IntRange(0, 1<<20).Draw(t, "times cited"))
		}
		r.Name(0)
		if r.ID == "#0" && r.Title == "" {
			return
		}
		var b bytes.Buffer
		e := xml.NewEncoder(&b)
		require.NoError(t, mods.Encode(e, r, "almagre"))
		require.NoError(t, e.Close())
		assert.Equal(t, r, decode(t, b.String()), b.String())
	})
}

func TestTwoTranslationsIntoOneLanguageAreBothKept(t *testing.T) {
	r := decode(
		t,
		`<mods><titleInfo><title>Sombra</title></titleInfo><titleInfo type="translated" lang="eng"><title>Shade</title></titleInfo><titleInfo type="translated" lang="eng"><title>The shade</title></titleInfo>
		<abstract lang="spa">Descanso.</abstract><abstract lang="eng">Rest.</abstract><abstract lang="eng">More.</abstract></mods>`,
	)
	assert.Equal(
		t,
		[]bib.Rendering{{Language: "eng", Title: "Shade", Abstract: "Rest. More."}, {Language: "eng", Title: "The shade"}},
		r.Others,
	)
}

func FuzzDecode(f *testing.F) {
	f.Add(`<mods><titleInfo><title>Shade</title></titleInfo><subject authority="x"><topic>Rest</topic></subject></mods>`)
	f.Add(
		`<mods><name><namePart type="family">Osolana</namePart></name><originInfo><dateIssued>20190501</dateIssued></originInfo></mods>`,
	)
	f.Add(`<!DOCTYPE m [<!ENTITY a "b">]><mods><abstract>&a;</abstract></mods>`)
	f.Fuzz(func(t *testing.T, s string) {
		r, err := read(s)
		if err != nil {
			return
		}
		var b bytes.Buffer
		e := xml.NewEncoder(&b)
		require.NoError(t, mods.Encode(e, r, "x"))
		require.NoError(t, e.Close())
		back, err := read(b.String())
		require.NoError(t, err, b.String())
		assert.Equal(t, r.Title, back.Title)
		assert.Equal(t, len(r.Headings), len(back.Headings))
	})
}

// What is cited may be an identifier, fields or a line of text; what says nothing is left out, and a list has an end.
func TestReferencesAreReadAsTheyAreGiven(t *testing.T) {
	r := decode(t, `<mods><titleInfo><title>Shade</title></titleInfo>
		<relatedItem type="references"><titleInfo><title>Rest at noon</title></titleInfo><name><namePart type="family">Osolana</namePart><namePart type="given">Ife</namePart></name><originInfo><dateIssued>2011</dateIssued></originInfo></relatedItem>
		<relatedItem type="references"><note>Velkana T. Water in the row. Work and Water 2009.</note></relatedItem>
		<relatedItem type="references"><identifier type="local">VIL000007</identifier></relatedItem>
		<relatedItem type="references"/>
		<note type="cited by">many</note></mods>`)
	assert.Equal(
		t,
		[]bib.Reference{
			{Title: "Rest at noon", Author: "Osolana, Ife", Year: 2011},
			{Text: "Velkana T. Water in the row. Work and Water 2009."},
			{Local: "VIL000007"},
		},
		r.References,
	)
	assert.Nil(t, r.TimesCited, "many is no number")
	long := decode(
		t,
		"<mods>"+strings.Repeat(
			`<relatedItem type="references"><identifier type="doi">10.99999/a</identifier></relatedItem>`,
			6000,
		)+"</mods>",
	)
	assert.Len(t, long.References, 5000)
}
