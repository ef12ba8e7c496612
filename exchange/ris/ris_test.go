package ris_test

import (
	"bytes"
	"errors"
	"io"
	"os"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/readtest"
	"tamiz/exchange/ris"
	"tamiz/exchange/tagged"
)

func readAll(t require.TestingT, file io.Reader, mode exchange.KeywordMode) ([]*bib.Record, []exchange.Notice) {
	return readtest.All(t, func(report func(exchange.Notice)) *tagged.Reader {
		return ris.NewReader(file, exchange.Sorter{Mode: mode}, report)
	})
}

func TestARecordIsReadByItsTags(t *testing.T) {
	file := strings.Join([]string{
		"TY  - JOUR", "AN  - ALM1", "ID  - other", "T1  - Not this title", "TI  - Heat in", "TI  - farm crews",
		"AU  - Velkana, Temi J.", "A1  - Wexlin Z",
		"N2  - Not this abstract", "AB  - Crews rested", "  in the shade.", "", "JO  - J Warm Work",
		"T2  - Journal of Warm Work", "PY  - n.d.", "Y1  - 2014/06/01/",
		"LA  - eng", "LA  - spa", "KW  - heat", "KW  - *Kidney Harm/causes/ prevention", "KW  - Shade / methods",
		"M3  - Trial Report", "M3  - JOUR", "CY  - Talvenia",
		"DO  - 10.99999/Alm.1", "UR  - https://example.test", "SN  - 1234-5678", "VL  - 3", "IS  - 2", "SP  - 11",
		"EP  - 19", "C1  - kept as it is", "ER  - ",
	}, "\n")
	records, notices := readAll(t, strings.NewReader(file), exchange.Auto)
	require.Len(t, records, 1)
	assert.Empty(t, notices)
	assert.Equal(t, &bib.Record{
		ID: "ALM1", Accession: "ALM1", LocalID: "other", Title: "Heat in farm crews", Abstract: "Crews rested in the shade.",
		Authors: []bib.Person{
			{Family: "Velkana", Given: "Temi J."},
			{Family: "Wexlin", Given: "Z", Written: "Wexlin Z"},
		}, Journal: "Journal of Warm Work", Year: 2014,
		Languages: []string{"eng", "spa"}, Keywords: []string{"heat"},
		Headings: []bib.Assignment{
			{Label: "Kidney Harm", Central: true, Qualifiers: []string{"causes", "prevention"}},
			{Label: "Shade", Qualifiers: []string{"methods"}},
		},
		Types: []string{
			"Trial Report",
			"JOUR",
		}, Countries: []string{"Talvenia"}, DOI: "10.99999/Alm.1", URLs: []string{"https://example.test"},
		ISSN: "1234-5678", Volume: "3", Issue: "2", FirstPage: "11", LastPage: "19",
		Extra: []bib.Extra{{Tag: "C1", Value: "kept as it is"}},
	}, records[0])
}

func TestYears(t *testing.T) {
	for value, year := range map[string]int{"2014": 2014, "2020/06/01/": 2020, "20110302": 2011, "May 2009": 2009,
		"in press": 0, "12345": 0, "1 2 34 5678": 5678, "2023/05//Spring": 2023, "": 0} {
		records, notices := readAll(t, strings.NewReader("TY  - JOUR\nTI  - x\nPY  - "+value+"\nER  - "), exchange.Auto)
		require.Len(t, records, 1)
		assert.Equal(t, year, records[0].Year, value)
		assert.Equal(t, value != "" && year == 0, len(notices) == 1, value)
	}
}

func TestKeywordsAreTakenAsAsked(t *testing.T) {
	file := "TY  - JOUR\nKW  - *Heat\nKW  - km/h\nKW  - shade\nER  - "
	for mode, want := range map[exchange.KeywordMode][2]int{exchange.Auto: {2, 1}, exchange.Headings: {3, 0},
		exchange.Keywords: {0, 3}} {
		records, _ := readAll(t, strings.NewReader(file), mode)
		assert.Equal(t, want, [2]int{len(records[0].Headings), len(records[0].Keywords)}, mode)
	}
}

func TestIDs(t *testing.T) {
	records, _ := readAll(
		t,
		strings.NewReader(
			"TY  - JOUR\nER  - \nTY  - A\nTI  - x\nER  - \nTY  - A\nDO  - 10.99999/B\nTY  - A\nID  - 7\nER  - ",
		),
		exchange.Auto,
	)
	var ids []string
	for _, r := range records {
		ids = append(ids, r.ID)
	}
	assert.Equal(t, []string{"#2", "10.99999/B", "7"}, ids, "a record that holds nothing counts in the numbering")
}

func TestWhatIsOddIsReportedAndTheRestIsKept(t *testing.T) {
	for name, c := range map[string]struct {
		file    string
		records int
		notices []exchange.Kind
	}{
		"empty":         {"", 0, nil},
		"no RIS at all": {"title,year\nHeat,2014\n", 0, []exchange.Kind{exchange.BeforeFirst}},
		"text before the first": {"Exported today\n\nTY  - JOUR\nTI  - Heat\nER  - \n", 1,
			[]exchange.Kind{exchange.BeforeFirst}},
		"no title": {"TY  - JOUR\nAB  - Heat\nER  - \n", 1, []exchange.Kind{exchange.NoTitle}},
		"nothing but a type": {"TY  - JOUR\nER  - \nTY  - JOUR\nTI  - Heat\nER  - ", 1,
			[]exchange.Kind{exchange.Nothing}},
		"no end": {"TY  - JOUR\nTI  - Heat\nTY  - JOUR\nTI  - Rest\n", 2,
			[]exchange.Kind{exchange.NoEnd, exchange.NoEnd}},
		"ends of all kinds": {"TY  - JOUR\rTI  - Heat\r\nAB  - a\n b\rER  - \n\rTY  - JOUR\nTI  - Rest\rER  -", 2,
			nil},
		"a tag with no value": {"TY  - JOUR\nTI  -\nTI  - Heat\nER  -", 1, nil},
		"cut off in a record": {"TY  - JOUR\nTI  - Heat\nER  - \nTY  - JOUR\nTI  - Res", 2,
			[]exchange.Kind{exchange.NoEnd}},
		"a line of 2 MB": {"TY  - JOUR\nTI  - Heat\nAB  - " + strings.Repeat("heat ", 400_000) + "\nER  - ", 1,
			nil},
		"a record larger than read": {"TY  - JOUR\nTI  - Heat\nAB  - " + strings.Repeat("heat ", 4_000_000) +
			"\nER  - \nTY  - JOUR\nTI  - Rest\nER  - ", 1, []exchange.Kind{exchange.TooLarge}},
		"100,000 lines of one value": {"TY  - JOUR\nTI  - Heat\nAB  - a\n" + strings.Repeat("heat and rest\n", 100_000) +
			"ER  - ", 1, nil},
	} {
		records, notices := readAll(t, strings.NewReader(c.file), exchange.Auto)
		assert.Len(t, records, c.records, name)
		assert.Equal(t, c.notices, readtest.Kinds(t, notices), name)
	}
}

// A file of 300 MB passes through in the memory of a few records.
func TestALargeFileIsAStream(t *testing.T) {
	const each, n = 1 << 20, 300
	record := []byte("TY  - JOUR\nTI  - Heat\nAB  - " + strings.Repeat("crews rested ", each/13) + "\nER  - \n")
	file := io.MultiReader(slicesOf(record, n)...)
	var before, now runtime.MemStats
	runtime.GC()
	runtime.ReadMemStats(&before)
	r, read, most := ris.NewReader(file, exchange.Sorter{}, nil), 0, uint64(0)
	for {
		_, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		require.NoError(t, err)
		if read++; read%50 == 0 {
			runtime.GC()
			runtime.ReadMemStats(&now)
			most = max(most, now.HeapAlloc)
		}
	}
	assert.Equal(t, n, read)
	assert.Less(t, most, before.HeapAlloc+64<<20)
}

func slicesOf(b []byte, n int) (out []io.Reader) {
	for range n {
		out = append(out, bytes.NewReader(b))
	}
	return out
}

func TestWhatIsWrittenIsReadBackTheSame(t *testing.T) {
	line := rapid.StringMatching(`[A-Za-zäß][A-Za-z0-9äß ,.:;–'-]{0,30}[a-z]`)
	list := func(t *rapid.T, label string) []string { return rapid.SliceOfN(line, 0, 3).Draw(t, label) }
	rapid.Check(t, func(t *rapid.T) {
		r := &bib.Record{
			Title:    line.Draw(t, "title"),
			Abstract: line.Draw(t, "abstract"),
			Journal:  line.Draw(t, "journal"),
			Year:     rapid.IntRange(1900, 2026).Draw(t, "year"),
			Accession: line.Draw(
				t,
				"accession",
			),
			Volume:    "3",
			Keywords:  list(t, "keywords"),
			Languages: list(t, "languages"),
			Countries: list(t, "countries"),
			Types:     append(list(t, "types"), "JOUR"),
			DOI:       "10.99999/" + line.Draw(t, "doi"),
			Extra:     []bib.Extra{{Tag: "C1", Value: line.Draw(t, "extra")}},
		}
		r.ID = r.Accession
		for range rapid.IntRange(0, 3).Draw(t, "authors") {
			r.Authors = append(r.Authors, bib.ParsePerson(line.Draw(t, "author")))
		}
		for range rapid.IntRange(0, 3).Draw(t, "headings") {
			r.Headings = append(
				r.Headings,
				bib.Assignment{
					Label:      rapid.StringMatching(`[A-Z][a-z]+`).Draw(t, "label"),
					Central:    true,
					Qualifiers: []string{"causes"},
				},
			)
		}
		squeeze(r)
		var file bytes.Buffer
		require.NoError(t, ris.Write(&file, r))
		records, notices := readAll(t, &file, exchange.Auto)
		require.Len(t, records, 1)
		assert.Empty(t, notices)
		assert.Equal(t, normal(r), normal(records[0]))
	})
}

// squeeze makes white space single, as a line can hold it.
func squeeze(r *bib.Record) {
	one := func(s *string) { *s = strings.Join(strings.Fields(*s), " ") }
	for _, s := range []*string{&r.Title, &r.Abstract, &r.Journal, &r.Accession, &r.ID, &r.DOI, &r.Extra[0].Value} {
		one(s)
	}
	for _, l := range [][]string{r.Keywords, r.Languages, r.Countries, r.Types} {
		for i := range l {
			one(&l[i])
		}
	}
	for i := range r.Authors {
		one(&r.Authors[i].Family)
		one(&r.Authors[i].Given)
	}
}

// normal makes empty lists absent ones, and equal types one.
func normal(r *bib.Record) *bib.Record {
	c := *r
	for _, l := range []*[]string{&c.Keywords, &c.Languages, &c.Countries} {
		if len(*l) == 0 {
			*l = nil
		}
	}
	var types []string
	seen := map[string]bool{}
	for _, x := range c.Types {
		if !seen[x] {
			seen[x] = true
			types = append(types, x)
		}
	}
	c.Types = types
	return &c
}

func FuzzReader(f *testing.F) {
	tiny, err := os.ReadFile("../../testdata/vectors/tiny.ris")
	require.NoError(f, err)
	f.Add(tiny[:800])
	f.Add([]byte("TY  - JOUR\rTI  - \x00\xff\nER  -"))
	f.Add([]byte("\xff\xfeT\x00Y\x00 \x00 \x00-\x00"))
	f.Add([]byte("KW  - */\nTY  - \nKW  - */\nAU  - ,\nPY  - 00000000\n"))
	f.Fuzz(func(t *testing.T, file []byte) {
		decoded, _, err := exchange.Decode(bytes.NewReader(file))
		if err != nil {
			t.Fatal(err)
		}
		for r := ris.NewReader(decoded, exchange.Sorter{}, nil); ; {
			rec, err := r.Read()
			if err != nil {
				return
			}
			if rec.ID == "" {
				t.Fatal("a record without id")
			}
			if err := ris.Write(io.Discard, rec); err != nil {
				t.Fatal(err)
			}
		}
	})
}
