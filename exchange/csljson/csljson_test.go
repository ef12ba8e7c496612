package csljson_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/csljson"
	"tamiz/exchange/readtest"
)

func readAll(t require.TestingT, file string) ([]*bib.Record, []exchange.Notice) {
	return readtest.All(t, func(report func(exchange.Notice)) *csljson.Reader {
		return csljson.NewReader(strings.NewReader(file), exchange.Sorter{}, report)
	})
}

func TestAnItemIsRead(t *testing.T) {
	records, notices := readAll(
		t,
		`[{"id": 17, "type": "article-journal", "title": "Heat in farm crews", "abstract": "Crews rested.", "container-title": "Journal of Warm Work",
		"author": [{"family": "Velkana", "given": "Temi", "non-dropping-particle": "van der", "suffix": "Jr."}, {"literal": "Board of Warm Work"}],
		"issued": {"date-parts": [[2014, 6], ["2015"]]}, "page": "11–19", "volume": 3, "issue": "2", "DOI": "10.99999/alm.1", "ISSN": "0000-0001", "URL": "https://x.example/a",
		"keyword": "heat; *Kidney Harm/causes", "language": "en", "genre": "Trial Report", "original-title": "Calor", "publisher": "Shade Press", "event": {"name": "x"}},
		{"id": "b", "title": "Years", "issued": {"raw": "May 2009"}}, {"id": "c", "title": "No year", "issued": {"literal": "in press"}}]`,
	)
	require.Len(t, records, 3)
	assert.Equal(
		t,
		&bib.Record{
			ID:       "17",
			LocalID:  "17",
			Title:    "Heat in farm crews",
			Abstract: "Crews rested.",
			Journal:  "Journal of Warm Work",
			Year:     2014,
			Authors: []bib.Person{
				{Family: "van der Velkana", Given: "Temi, Jr."},
				{Family: "Board of Warm Work"},
			},
			Volume:    "3",
			Issue:     "2",
			FirstPage: "11",
			LastPage:  "19",
			Keywords:  []string{"heat"},
			Headings: []bib.Assignment{
				{Label: "Kidney Harm", Central: true, Qualifiers: []string{"causes"}},
			},
			DOI:       "10.99999/alm.1",
			ISSN:      "0000-0001",
			URLs:      []string{"https://x.example/a"},
			Languages: []string{"en"},
			Types:     []string{"Trial Report", "JOUR"},
			Others:    []bib.Rendering{{Title: "Calor"}},
			Extra: []bib.Extra{
				{Tag: "event", Value: `{"name": "x"}`, Format: "csl"},
				{Tag: "publisher", Value: `"Shade Press"`, Format: "csl"},
			},
		},
		records[0],
	)
	assert.Equal(t, 2009, records[1].Year)
	require.Len(t, notices, 1)
	assert.Equal(t, exchange.NoYear, notices[0].Kind)
	assert.Equal(t, 5, notices[0].Line)
}

func TestWhatCannotBeReadIsReportedAndTheRestIsKept(t *testing.T) {
	for name, c := range map[string]struct {
		file    string
		records int
		notices []exchange.Kind
		line    int
	}{
		"empty":             {"", 0, nil, 0},
		"an empty array":    {"[]", 0, nil, 0},
		"a line each":       {"{\"title\": \"Heat\"}\n{\"title\": \"Rest\"}\n", 2, nil, 0},
		"cut off":           {"[{\"title\": \"Heat\"},\n{\"title\": \"Re", 1, []exchange.Kind{exchange.CutOff}, 2},
		"cut after a comma": {"[{\"title\": \"Heat\"},\n", 1, []exchange.Kind{exchange.CutOff}, 2},
		"array not closed":  {"[{\"title\": \"Heat\"}\n", 1, []exchange.Kind{exchange.CutOff}, 2},
		"broken": {"\n[{\"title\": \"Heat\"},\n{\"title\" \"Rest\"}]", 1, []exchange.Kind{exchange.Broken,
			exchange.Unread}, 3},
		"no object": {"[7,\n{\"title\": \"Heat\"}]", 1, []exchange.Kind{exchange.NoStatement}, 1},
		"odd shapes": {"[{\"title\": {\"a\": 1}, \"author\": \"x\", \"DOI\": \"10.99999/a\", \"issued\": 5}]", 1,
			[]exchange.Kind{exchange.NoTitle, exchange.NoYear}, 1},
		"nulls":   {"[{\"title\": \"Heat\", \"author\": null, \"issued\": null, \"page\": null}]", 1, nil, 0},
		"nothing": {"[{\"type\": \"book\"}]", 0, []exchange.Kind{exchange.Nothing}, 1},
		"two formats": {"[{\"title\": \"Heat\"}]\nTY  - JOUR\nTI  - Rest\nER  - ", 1,
			[]exchange.Kind{exchange.OtherFormat}, 1},
		"larger than read": {"[{\"title\": \"Heat\"}, {\"title\": \"" + strings.Repeat("heat ", 4_000_000) + "\"}]", 1,
			[]exchange.Kind{exchange.TooLarge, exchange.Unread}, 1},
		"100,000 authors": {"[{\"title\": \"Heat\", \"author\": [" + strings.Repeat(`{"family":"Velkana"},`, 99_999) +
			`{"family":"Osolana"}]}]`, 1, nil, 0},
	} {
		records, notices := readAll(t, c.file)
		assert.Len(t, records, c.records, name)
		assert.Equal(t, c.notices, readtest.Kinds(t, notices), name)
		if len(notices) > 0 {
			assert.Equal(t, c.line, notices[0].Line, name)
		}
	}
}

func FuzzReader(f *testing.F) {
	f.Add(
		`[{"id": 1, "title": "Heat", "author": [{"family": "A", "given": "B, Jr."}], "issued": {"date-parts": [[2014]]}, "x": [1]}]`,
	)
	f.Add("[{\"title\": \"\xc2\"}]")
	f.Add("{\"title\": \"a\"}\n{\"custom\": {\"types\": [\"b;\"]}, \"DOI\": \"c\"}")
	f.Fuzz(func(t *testing.T, file string) {
		records, _ := readAll(t, file)
		var out bytes.Buffer
		w := csljson.NewWriter(&out)
		for _, r := range records {
			require.NotEmpty(t, r.ID)
			require.NoError(t, w.Write(r))
		}
		require.NoError(t, w.Close())
		again, notices := readAll(t, out.String())
		require.Len(t, again, len(records), out.String()+" %v", notices)
		for i, r := range records {
			require.Equal(t, r.Title, again[i].Title, out.String())
		}
	})
}
