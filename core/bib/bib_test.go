package bib_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/bib"
)

func TestParsePerson(t *testing.T) {
	for name, want := range map[string]bib.Person{
		"Velkana, Temi J.":    {Family: "Velkana", Given: "Temi J."},
		"Wexlin Z":            {Family: "Wexlin", Given: "Z", Written: "Wexlin Z"},
		"Teper ÓK":            {Family: "Teper", Given: "ÓK", Written: "Teper ÓK"},
		"van der Lukok T.-W.": {Family: "van der Lukok", Given: "T.-W.", Written: "van der Lukok T.-W."},
		"Talvenia Heat Group": {Family: "Talvenia Heat Group"},
		"Osuna HEAT":          {Family: "Osuna HEAT"},
		"Quenlith":            {Family: "Quenlith"},
		"Osuna U\u0308":       {Family: "Osuna", Given: "U\u0308", Written: "Osuna U\u0308"},
		" , ":                 {Written: ","},
	} {
		assert.Equal(t, want, bib.ParsePerson(name), name)
	}
}

func TestDOIKey(t *testing.T) {
	for _, doi := range []string{"10.99999/Alm.1", "doi:10.99999/alm.1", "https://doi.org/10.99999/ALM.1",
		"http://dx.doi.org/10.99999/alm.1", "https://www.doi.org/10.99999/alm.1", " DOI: 10.99999/alm.1"} {
		assert.Equal(t, "10.99999/alm.1", bib.DOIKey(doi), doi)
	}
}

func TestTwoRecordsAreOne(t *testing.T) {
	base := bib.Record{
		Title:   "Heat, stress and labour",
		Year:    2014,
		DOI:     "10.99999/a",
		Authors: []bib.Person{{Family: "O'Brendo"}},
	}
	with := func(change func(*bib.Record)) *bib.Record {
		r := base
		change(&r)
		return &r
	}
	var known bib.Known
	known.Add(&base, 7)
	for name, c := range map[string]struct {
		r   *bib.Record
		one bool
	}{
		"same DOI, other title": {with(func(r *bib.Record) { r.Title = "Calor" }), true},
		"other DOI, same work": {with(func(r *bib.Record) {
			r.DOI = "10.99999/b"
			r.Title = "HEAT: stress and " +
				"labour."
		}), false},
		"a year later":    {with(func(r *bib.Record) { r.DOI = ""; r.Year = 2015 }), true},
		"two years later": {with(func(r *bib.Record) { r.DOI = ""; r.Year = 2016 }), false},
		"another first author": {with(func(r *bib.Record) {
			r.DOI = ""
			r.Authors = []bib.Person{{Family: "Moster"}}
		}), false},
		"no year, so nothing in common": {with(func(r *bib.Record) { r.DOI = ""; r.Year = 0 }), false},
		"no author":                     {with(func(r *bib.Record) { r.DOI = ""; r.Authors = nil }), false},
		"no title":                      {with(func(r *bib.Record) { r.DOI = ""; r.Title = "–" }), false},
	} {
		n, ok := known.Find(c.r)
		assert.Equal(t, c.one, ok, name)
		if ok {
			assert.Equal(t, 7, n)
		}
	}
}

func TestWhereSomethingIsMissingNumberAndTitleMakeAWork(t *testing.T) {
	whole := bib.Record{Title: "Heat in crews", Year: 2014, Authors: []bib.Person{{Family: "Velkana"}}, Accession: "A1"}
	noYear, noAuthor, untitled, withDOI, other, otherTitle := whole, whole, bib.Record{
		Accession: "A1",
	}, whole, whole, whole
	noYear.Year, noAuthor.Authors = 0, nil
	withDOI.DOI, withDOI.Year = "10.99999/a", 0
	other.Accession, other.Year = "A2", 0
	otherTitle.Title, otherTitle.Year = "Rest in crews", 0
	for name, c := range map[string]struct {
		a, b bib.Record
		same bool
	}{
		"no year on one side":   {whole, noYear, true},
		"no year on the other":  {noYear, whole, true},
		"another thing on each": {noYear, noAuthor, true},
		"no title on both":      {untitled, untitled, true},
		"no title on one":       {untitled, noYear, false},
		"a DOI is said":         {withDOI, noYear, false},
		"another number":        {noYear, other, false},
		"another title":         {noYear, otherTitle, false},
		"no number":             {bib.Record{Title: "Heat in crews"}, bib.Record{Title: "Heat in crews"}, false},
		"nothing missing, another title": {whole, bib.Record{Title: "Rest", Year: 2014, Authors: whole.Authors,
			Accession: "A1"}, false},
	} {
		var k bib.Known
		k.Add(&c.a, 0)
		_, same := k.Find(&c.b)
		assert.Equal(t, c.same, same, name)
	}
}

func TestNamesWithCommasTooMany(t *testing.T) {
	for written, want := range map[string][2]string{"Müller,,Jr.": {"Müller", "Jr."}, ", X": {"X", ""}, ",": {"", ""},
		"Olmo, M.,": {"Olmo", "M."}, "Olmo, M., Jr.": {"Olmo", "M., Jr."}} {
		p := bib.ParsePerson(written)
		assert.Equal(t, want, [2]string{p.Family, p.Given}, written)
		assert.Equal(t, p, bib.ParsePerson(p.Line()), written)
	}
}
