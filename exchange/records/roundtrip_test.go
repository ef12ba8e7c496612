package records_test

import (
	"bytes"
	"errors"
	"io"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/thesaurus"
	"tamiz/exchange"
	"tamiz/exchange/records"
)

var labels = []string{"Kidney Harm", "Agricultural Labor Force", "Fluid Intake", "Heat, Occupational"}

// vocabulary knows the headings that the records carry.
var vocabulary = func() *thesaurus.Thesaurus {
	var concepts []thesaurus.Concept
	for i, l := range labels {
		concepts = append(
			concepts,
			thesaurus.Concept{
				ID:     "https://x.example/" + string(rune('a'+i)),
				Labels: []thesaurus.Text{{Language: "en", Value: l}},
			},
		)
	}
	t, _ := thesaurus.Build(concepts, "en")
	return t
}()

func write(t require.TestingT, f records.Format, all []*bib.Record, c records.Choice) []byte {
	for _, r := range all {
		c.Columns = records.Columns(c.Columns, r)
	}
	var b bytes.Buffer
	w, err := records.Create(&b, f, c)
	require.NoError(t, err)
	for _, r := range all {
		require.NoError(t, w.Write(r))
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

func read(t require.TestingT, file []byte) (all []*bib.Record, format records.Format, notices []exchange.Notice) {
	r, format, err := records.Open(
		bytes.NewReader(file),
		records.Options{
			Sorter: exchange.Sorter{Vocabulary: vocabulary},
			Report: func(n exchange.Notice) { notices = append(notices, n) },
		},
	)
	require.NoError(t, err, string(file))
	for {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			return all, format, notices
		}
		require.NoError(t, err)
		all = append(all, rec)
	}
}

// records made of what is hard to write: signs that some format gives a meaning.
func generated(t *rapid.T, n int) (all []*bib.Record) {
	word := rapid.StringMatching(`[A-Za-zéñßŁ][a-zäö0-9'.&<>{}%$#_~^\\"-]{0,9}[a-zé]`)
	text := func(name string) string {
		s := strings.Join(
			rapid.SliceOfN(word, 2, 8).Draw(t, name),
			rapid.SampledFrom([]string{" ", ", ", " – ", ": ", " <i>", "&amp; "}).Draw(t, "between"),
		)
		return bib.Flat(s)
	}
	plain := rapid.StringMatching(`[A-Z][a-zé]{1,8}( [a-z]{2,7}){0,2}`)
	code := rapid.StringMatching(`[A-Z]{2,3}[0-9]{1,6}`)
	maybe := func(name, value string) string {
		if rapid.Bool().Draw(t, name) {
			return value
		}
		return ""
	}
	list := func(name string, of *rapid.Generator[string]) []string {
		var out []string
		for _, v := range rapid.SliceOfN(of, 0, 3).Draw(t, name) {
			if !slices.Contains(out, v) {
				out = append(out, v)
			}
		}
		return out
	}
	for i := range n {
		r := &bib.Record{
			Title:    text("title"),
			Abstract: maybe("abstract?", text("abstract")),
			Journal:  maybe("journal?", text("journal")),
			Year:     rapid.IntRange(1000, 2030).Draw(t, "year"),
			Accession: code.Draw(
				t,
				"accession",
			) + "-" + string(
				rune('a'+i),
			),
			LocalID: maybe("local?", "local:"+code.Draw(t, "local")+string(rune('a'+i))),
			DOI:     maybe("doi?", "10.99999/"+strings.ReplaceAll(word.Draw(t, "doi"), `\`, "")),
			ISSN: maybe(
				"issn?",
				"1234-567X",
			),
			Volume:     maybe("volume?", "12"),
			Issue:      maybe("issue?", "S3"),
			Countries:  list("countries", plain),
			Substances: list("substances", plain),
			Languages:  list("languages", rapid.SampledFrom([]string{"eng", "spa", "por"})),
			Types: append(
				list("types", plain),
				rapid.SampledFrom([]string{"JOUR", "BOOK", "THES"}).Draw(t, "code"),
			),
			URLs: list("urls", rapid.StringMatching(`https://x\.example/[a-z0-9_~%=?&.-]{1,20}`)),
		}
		if rapid.Bool().Draw(t, "pages") {
			r.FirstPage, r.LastPage = "e11", "e19"
		}
		for _, k := range list("keywords", word) {
			if exchange.Plain(k) == k {
				r.Keywords = append(r.Keywords, k)
			}
		}
		for _, l := range list("headings", rapid.SampledFrom(labels)) {
			r.Headings = append(
				r.Headings,
				bib.Assignment{
					Label:      l,
					Central:    rapid.Bool().Draw(t, "central"),
					Qualifiers: list("qualifiers", rapid.SampledFrom([]string{"causes", "prevention"})),
				},
			)
		}
		for range rapid.IntRange(0, 3).Draw(t, "authors") {
			r.Authors = append(
				r.Authors,
				rapid.SampledFrom([]bib.Person{{Family: "Velkana", Given: "Temi J."}, {Family: "van der Östrel", Given: "Ánni"},
					{Family: "de la Cruda", Given: "M.-L., Jr."},
					{
						Family: "Board of Warm Work and Shade",
					}, {Family: "Shade & Rest Group WHR"}, {Family: "Wexlin-Orb", Given: "Z"}, {Family: "O’Talve",
						Given: "Uma and Sons"}}).
					Draw(t, "author"),
			)
		}
		if rapid.Bool().Draw(t, "other") {
			r.Others = []bib.Rendering{{Language: "spa", Title: text("other title"), Abstract: text("other abstract")}}
		}
		r.Extra = []bib.Extra{
			{Tag: "C1", Value: "an own tag"},
			{Tag: "publisher", Value: "{Shade} Press", Format: "bibtex"},
			{Tag: "publisher", Value: `{"a":["<b>"]}`, Format: "csl"},
			{
				Tag:    "Read by",
				Value:  "Ife; Temi",
				Format: "table",
			},
			{Tag: "note ", Value: "a remark", Format: "mods"},
			{
				Tag:    "physicalDescription",
				Value:  "<physicalDescription><extent unit=\"p\">9</extent></physicalDescription>",
				Format: "mods",
			},
		}
		r.Name(i + 1)
		all = append(all, r)
	}
	return all
}

// held returns a field of a record as far as a format holds it.
func held(r *bib.Record, f records.Format, field string) any {
	switch field {
	case "otherLanguages":
		var out []string
		for _, o := range r.Others {
			out = append(out, o.Language)
		}
		return strings.Join(out, ",")
	case "extra":
		own := map[records.Format]string{records.RIS: "", records.BibTeX: "bibtex", records.CSL: "csl",
			records.CSV: "table", records.TSV: "table", records.MODS: "mods"}[f]
		out := []bib.Extra{}
		for _, e := range r.Extra {
			if e.Format == own {
				out = append(out, e)
			}
		}
		return out
	}
	for _, n := range r.Fields() {
		if n.Name == field {
			return append([]string{}, n.Values...)
		}
	}
	panic(field)
}

var allFields = append(append([]string{}, bib.FieldNames...), "otherLanguages", "extra")

// A thousand records go through each pair of formats and come out the same in all that both hold.
func TestRecordsGoThroughEveryPairOfFormatsUnchanged(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		all := generated(t, 10)
		for _, a := range records.Held {
			first, format, _ := read(t, write(t, a, all, records.Choice{}))
			require.Equal(t, a, format)
			require.Len(t, first, len(all))
			for _, b := range records.Held {
				second, _, _ := read(t, write(t, b, first, records.Choice{}))
				require.Len(t, second, len(all))
				for i := range all {
					for _, field := range allFields {
						if records.Holds(a, field) == records.No || records.Holds(b, field) == records.No {
							continue
						}
						if field == "extra" && a != b {
							continue // fields of a format's own stay within it
						}
						want, got := held(all[i], a, field), held(second[i], a, field)
						if !assert.ObjectsAreEqual(want, got) {
							require.Equal(t, want, got, "%s through %s and %s:\n%s", field, a, b, write(t, a, all[i:i+1], records.Choice{}))
						}
					}
				}
			}
		}
	})
}

// What a format does not hold is lost in it, or the table would promise too little.
func TestTheTableOfWhatFormatsHoldIsTrue(t *testing.T) {
	full := &bib.Record{
		Title:      "Heat",
		Abstract:   "Crews rested.",
		Year:       2014,
		Substances: []string{"Velkanide", "Salt of Oso"},
		Types:      []string{"JOUR"},
		Accession:  "A1",
		Others: []bib.Rendering{
			{Language: "spa", Title: "Calor", Abstract: "Descanso."},
			{Language: "por", Title: "Calor e sombra", Abstract: "Pausa."},
		},
	}
	for _, f := range records.Held {
		back, _, _ := read(t, write(t, f, []*bib.Record{full}, records.Choice{}))
		for _, field := range allFields {
			same := assert.ObjectsAreEqual(held(full, f, field), held(back[0], f, field))
			assert.Equal(
				t,
				records.Holds(f, field) == records.Yes || records.Holds(f, field) == records.ByVocabulary,
				same,
				"%s in %s",
				field,
				f,
			)
		}
	}
}

func TestTheTableStandsInTheDocumentation(t *testing.T) {
	doc, err := os.ReadFile("../../docs/formats.md")
	require.NoError(t, err)
	assert.Contains(t, string(doc), records.HoldsTable())
}

func TestOnlyChosenFieldsAreWritten(t *testing.T) {
	all := []*bib.Record{
		{
			Title:     "Heat",
			Abstract:  "Crews rested.",
			Year:      2014,
			Accession: "A1",
			Keywords:  []string{"shade"},
			Extra:     []bib.Extra{{Tag: "C1", Value: "own"}, {Tag: "Read by", Value: "Ife", Format: "table"}},
		},
	}
	choice := records.Choice{Fields: []string{"title", "accession", "keywords"}}
	for _, f := range records.Held {
		file := write(t, f, all, choice)
		assert.NotContains(t, string(file), "rested", f)
		assert.NotContains(t, string(file), "own", f)
		back, _, _ := read(t, file)
		assert.Equal(t, []string{"shade"}, back[0].Keywords, f)
	}
	assert.Equal(t, "title,keywords,accession\nHeat,shade,A1\n", string(write(t, records.CSV, all, choice)))
	_, err := records.Create(io.Discard, records.RIS, records.Choice{Fields: []string{"colour"}})
	assert.ErrorContains(t, err, `no field "colour"`)
}

func TestAPageIsSafeAndWhole(t *testing.T) {
	file := string(
		write(
			t,
			records.Page,
			[]*bib.Record{
				{
					Title:     "Heat <script>alert(1)</script> & rest",
					Authors:   []bib.Person{{Family: "Velkana", Given: "Temi"}},
					Journal:   "Warm Work",
					Year:      2014,
					Volume:    "3",
					Issue:     "2",
					FirstPage: "11",
					LastPage:  "19",
					Keywords:  []string{"shade"},
				},
				{},
			},
			records.Choice{Title: "Missed & found"},
		),
	)
	assert.Contains(t, file, "<h1>Missed &amp; found</h1>")
	assert.Contains(t, file, "Heat &lt;script&gt;alert(1)&lt;/script&gt; &amp; rest")
	assert.Contains(t, file, "Velkana, Temi. <cite>Warm Work</cite> 2014 3(2):11–19")
	assert.Contains(t, file, "2 records</footer>")
}

// A heading without a star or a qualifier stays a heading, and a semicolon stays in its value, in formats that have one
// field for headings and keywords, when no vocabulary tells them apart.
func TestHeadingsStayHeadingsAndSemicolonsStay(t *testing.T) {
	rec := &bib.Record{
		Title:     "Salt & heat",
		Year:      2014,
		Keywords:  []string{"rest; and shade", "x &amp; y"},
		Types:     []string{"Trial; phase 2"},
		Languages: []string{"eng"},
		Headings: []bib.Assignment{
			{Label: "Hyponatraemia"},
			{Label: "Heat; Dry", Central: true},
			{Label: "Kidney Harm", Qualifiers: []string{"causes"}},
		},
	}
	for _, format := range []records.Format{records.RIS, records.BibTeX, records.CSL} {
		r, _, err := records.Open(bytes.NewReader(write(t, format, []*bib.Record{rec}, records.Choice{})), records.Options{})
		require.NoError(t, err)
		back, err := r.Read()
		require.NoError(t, err)
		assert.Equal(t, rec.Headings, back.Headings, format)
		assert.Equal(t, rec.Keywords, back.Keywords, format)
		assert.Contains(t, back.Types, "Trial; phase 2", format)
		assert.Equal(t, rec.Title, back.Title, format)
	}
}

// Entities are read before headings are told from keywords, in whatever value they stand.
func TestEntitiesAreReadInEveryValue(t *testing.T) {
	tree, _ := thesaurus.Build(
		[]thesaurus.Concept{{ID: "https://x.example/k", Labels: []thesaurus.Text{{Language: "en", Value: "Kühlung & Ruhe"}}}},
		"en",
	)
	ris := "TY  - JOUR\nTI  - Heat &amp; &lt;i&gt;rest&lt;/i&gt;\nAU  - M&uuml;ller, J.\nAU  - Olsen &Aring;\nJO  - " +
		"Arbeit &amp; Land\nM3  - &Uuml;bersicht\nCY  - T&uuml;rkiye\nLA  - fran&ccedil;ais\n" +
		"KW  - *K&uuml;hlung &amp; Ruhe/wirkung &amp; mehr\nKW  - R&D\nKW  - &nothing; here\nPY  - 2014\nER  - \n"
	r, _, err := records.Open(strings.NewReader(ris), records.Options{Sorter: exchange.Sorter{Vocabulary: tree}})
	require.NoError(t, err)
	rec, err := r.Read()
	require.NoError(t, err)
	assert.Equal(t, "Heat & rest", rec.Title)
	assert.Equal(
		t,
		[]bib.Person{{Family: "Müller", Given: "J."}, {Family: "Olsen", Given: "Å", Written: "Olsen Å"}},
		rec.Authors,
	)
	assert.Equal(t, "Arbeit & Land", rec.Journal)
	assert.Equal(t, []string{"Übersicht", "JOUR"}, rec.Types)
	assert.Equal(t, []string{"Türkiye"}, rec.Countries)
	assert.Equal(t, []string{"français"}, rec.Languages)
	assert.Equal(
		t,
		[]bib.Assignment{{Label: "Kühlung & Ruhe", Central: true, Qualifiers: []string{"wirkung & mehr"}}},
		rec.Headings,
	)
	assert.Equal(t, []string{"R&D", "&nothing; here"}, rec.Keywords)
}

func TestARecordThatSaysLittleIsOne(t *testing.T) {
	r, _, err := records.Open(
		strings.NewReader("TY  - JOUR\nJO  - Annals of Warm Work\nPY  - 2014\nLA  - eng\nER  - \n"),
		records.Options{},
	)
	require.NoError(t, err)
	rec, err := r.Read()
	require.NoError(t, err)
	assert.Equal(t, []string{"Annals of Warm Work", "eng"}, []string{rec.Journal, rec.Languages[0]})
}
