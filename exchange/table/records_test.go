package table_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/readtest"
	"tamiz/exchange/table"
)

func readAll(t require.TestingT, file string, c table.Columns) ([]*bib.Record, []exchange.Notice) {
	return readtest.All(t, func(report func(exchange.Notice)) *table.Reader {
		return table.NewReader(strings.NewReader(file), c, exchange.Sorter{}, report)
	})
}

func TestTablesAreGuessed(t *testing.T) {
	for name, c := range map[string]struct {
		file, delimiter, quote string
		head                   bool
		fields                 []string
	}{
		"commas": {"title,year\nHeat,2014\n", ",", `"`, true, []string{"title", "year"}},
		"commas in semicolons": {"Título;Año\nCalor, y descanso;2014\nSombra, y agua;2015\n", ";", `"`, true,
			[]string{"title", "year"}},
		"tabs": {"Title\tAuthors\nHeat, rest\tVelkana, T; Osolana, I\n", "\t", `"`, true,
			[]string{"title", "authors"}},
		"bars": {"title|doi\nHeat|10.99999/a\n", "|", `"`, true, []string{"title", "doi"}},
		"single quotes": {"'title','year'\n'Heat, and rest','2014'\n'Shade, too','2015'\n", ",", "'", true,
			[]string{"title", "year"}},
		"no head": {"10.99999/a,2014,Heat and rest in farm crews,\"Velkana, T\"\n10.99999/b,2015,Shade " +
			"and water in cane work,\"Osolana, I\"\n", ",", `"`, false, []string{"doi", "year", "title", "authors"}},
		"heads nobody knows": {"thing,link,when\nHeat and rest in crews,https://x.example/a,2014\nShade and water in " +
			"work,https://x.example/b,2015\n", ",", `"`, true, []string{"title", "urls", "year"}},
		"lines within quotes": {"title,abstract\n\"Heat\",\"One,\ntwo\"\n\"Rest\",\"Three\"\n", ",", `"`, true,
			[]string{"title", "abstract"}},
		"a column that is none": {"title,x\nHeat,\nRest,\n", ",", `"`, true, []string{"title", ""}},
	} {
		g, ok := table.Guess(c.file, true)
		require.True(t, ok, name)
		assert.Equal(t, [2]string{c.delimiter, c.quote}, [2]string{g.Delimiter, g.Quote}, name)
		assert.Equal(t, c.head, g.Head, name)
		var fields []string
		for _, col := range g.Columns {
			fields = append(fields, col.Field)
		}
		assert.Equal(t, c.fields, fields, name)
		require.NoError(t, g.Check(), name)
	}
	for _, none := range []string{"", "one line", "Heat harms.\nRest helps, too.\n", "title\nHeat\nRest\n"} {
		_, ok := table.Guess(none, true)
		assert.False(t, ok, none)
	}
}

func TestManyValuesInACell(t *testing.T) {
	for file, want := range map[string][]string{
		"title,authors\nHeat,\"Velkana, T; Osolana, I\"\n": {"Velkana, T", "Osolana, I"},
		"title,authors\nHeat,Velkana T | Osolana I\n":      {"Velkana T", "Osolana I"},
		"title,authors\nHeat,\"Velkana, T\nOsolana, I\"\n": {"Velkana, T", "Osolana, I"},
		"title,authors\nHeat,\"Velkana T, Osolana I\"\n":   {"Velkana T", "Osolana I"},
		"title,authors\nHeat,\"Velkana, Temi\"\n":          {"Velkana, Temi"},
		"title,authors\nHeat,Temi Velkana and Ife Osolana\n": {"Temi Velkana",
			"Ife Osolana"},
		"title,authors\nHeat,\"Velkana, Temi; van der Osten, Ann; Board of Warm Work, The;\"": {"Velkana, Temi",
			"van der Osten, Ann", "Board of Warm Work, The"},
	} {
		g, _ := table.Guess(file, true)
		records, _ := readAll(t, file, g)
		require.Len(t, records, 1, file)
		var got []string
		for _, p := range records[0].Authors {
			got = append(got, p.String())
		}
		assert.Equal(t, want, got, file)
	}
}

func TestAnUnclosedQuoteDoesNotTakeAllMemory(t *testing.T) {
	columns := table.Columns{
		Format:    table.Version,
		Delimiter: ",",
		Quote:     `"`,
		Head:      true,
		Columns:   []table.Column{{Name: "title", Field: "title"}, {Name: "year", Field: "year"}},
	}
	records, notices := readAll(
		t,
		"title,year\nHeat,2014\n\"Rest,2015\n"+strings.Repeat("Shade,2016\n", 2_000_000),
		columns,
	)
	assert.Len(t, records, 1)
	require.Len(t, notices, 2)
	assert.Equal(t, []exchange.Kind{exchange.TooLarge, exchange.Unread}, []exchange.Kind{notices[0].Kind, notices[1].Kind})
}

func TestColumnsAreChecked(t *testing.T) {
	good := table.Columns{
		Format:    table.Version,
		Delimiter: ",",
		Quote:     `"`,
		Columns:   []table.Column{{Name: "a", Field: "title"}},
	}
	require.NoError(t, good.Check())
	for wrong, change := range map[string]func(*table.Columns){
		"says \"tamiz\"":               func(c *table.Columns) { c.Format = "" },
		"parted by one character":      func(c *table.Columns) { c.Delimiter = "ab" },
		"no quote":                     func(c *table.Columns) { c.Delimiter = `"` },
		"quoted with":                  func(c *table.Columns) { c.Quote = "x" },
		"1 to 2000 columns":            func(c *table.Columns) { c.Columns = nil },
		"no field \"colour\"":          func(c *table.Columns) { c.Columns = []table.Column{{Field: "colour"}} },
		"no column stands for a field": func(c *table.Columns) { c.Columns = []table.Column{{Field: exchange.Own}} },
	} {
		c := good
		change(&c)
		assert.ErrorContains(t, c.Check(), wrong)
	}
	_, err := table.ReadColumns(strings.NewReader("{"))
	assert.ErrorContains(t, err, "no mapping of columns")
}

func FuzzReader(f *testing.F) {
	f.Add("title;year\n\"Heat;2014\nRest;\n", true)
	f.Add("'a','b'\r'c''d','e'", false)
	f.Add("a,b\n\"\"\"", true)
	f.Fuzz(func(t *testing.T, file string, whole bool) {
		c, ok := table.Guess(file, whole)
		if !ok || c.Check() != nil {
			return
		}
		records, _ := readAll(t, file, c)
		var out bytes.Buffer
		w := table.NewWriter(&out, ',', bib.FieldNames, nil)
		for _, r := range records {
			require.NoError(t, w.Write(r))
		}
		require.NoError(t, w.Close())
	})
}
