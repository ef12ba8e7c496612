package main

import (
	"encoding/json"
	"errors"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/exchange"
)

func TestCountAndFindTellTheSameRecords(t *testing.T) {
	tiny := filepath.Join(wool, "..", "tiny.ris")
	counted, _, err := call(t, "", "count", tiny, "kidney and heat")
	require.NoError(t, err)
	assert.Equal(t, "10\n", counted)
	found, _, err := call(t, "", "find", tiny, "kidney and heat")
	require.NoError(t, err)
	assert.Equal(t, "T01 T03 T07 T13 T16 T22 T24 T25 T27 T29", strings.Join(strings.Fields(found), " "))
	_, complaints, err := call(t, "", "count", tiny, "kidney or renal and creatinine")
	require.NoError(t, err)
	assert.Contains(t, complaints, "kidney or (renal and creatinine)", "the other reading is told")
}

func TestAQueryThatCannotBeReadIsAWrongCall(t *testing.T) {
	_, _, err := call(t, "", "count", "no-such.ris", "kidney and")
	require.ErrorIs(t, err, errUsage, "told before a file is looked for")
	assert.ErrorContains(t, err, "character 11")
	_, _, err = call(t, "", "find", "sample.ris")
	assert.ErrorIs(t, err, errUsage)
}

func TestWhatIsWrongWithACallIsSaidInPlainWords(t *testing.T) {
	dir := t.TempDir()
	put := func(name, content string) string {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, []byte(content), 0o600))
		return path
	}
	empty := put("empty.json", `{"tamiz":"strategy/1","blocks":[]}`)
	for _, c := range []struct {
		args   []string
		says   string
		usage  bool
		nobody bool // it is no mistake, and said all the same
	}{
		{[]string{"bring", "--all"}, `there is no command "bring"`, true, false},
		{[]string{"count", "sample.ris", " "}, "the query is empty", true, false},
		{[]string{"headings", "--vocabulary", "vocabulary.nt", " "}, "holds no word", true, false},
		{[]string{"headings", "--vocabulary", "vocabulary.nt", "?"}, "holds no word", true, false},
		{[]string{"alike", "sample.ris", ""}, "holds no word", true, false},
		{[]string{"check", "--strategy", empty, "--keys", "keys.ris"}, "has no blocks", false, true},
		{[]string{"check", "--strategy", put("number.json",
			`{"tamiz":"strategy/1","blocks":[{"name":"A","terms":[{"kind":"text","text":5}]}]}`), "--keys", "keys.ris"},
			"is to be text, and is a number", false, false},
		{[]string{"check", "--strategy", put("cut.json", `{"tamiz":`), "--keys", "keys.ris"}, "it ends too soon", false,
			false},
		{[]string{"check", "--strategy", put("none.json", ``), "--keys", "keys.ris"}, "it ends too soon", false, false},
		{[]string{"tally", "nowhere.ris"}, "there is no such file", false, false},
		{[]string{"tally", "sample.ris", "--limit", "many"}, "is no number", true, false},
	} {
		_, said, err := call(t, "", c.args...)
		if c.nobody {
			require.NoError(t, err)
		} else {
			require.Error(t, err, "%q", c.args)
			assert.Equal(t, c.usage, errors.Is(err, errUsage), "%q", c.args)
			said = exchange.InWords(err)
		}
		assert.Contains(t, said, c.says, "%q", c.args)
		for _, inner := range []string{"unmarshal", "strconv", "EOF", "no such file or directory"} {
			assert.NotContains(t, said, inner, "%q", c.args)
		}
	}
}

// Headings are shown as the vocabulary writes them, in whatever way values are taken.
func TestAllValuesAsHeadingsAreWrittenAsTheVocabularyDoes(t *testing.T) {
	out, _, err := call(
		t,
		"TY  - JOUR\nTI  - a\nKW  - ear GUARDS\nKW  - unknown thing\nER  - \n",
		"tally",
		"-",
		"--facet",
		"headings",
		"--kw",
		"headings",
		"--vocabulary",
		"vocabulary.nt",
		"--min-records",
		"1",
	)
	require.NoError(t, err)
	assert.Contains(t, out, "Ear Guards,1")
	assert.Contains(t, out, "unknown thing,1")
}

func TestNarrowerNeedsTheVocabulary(t *testing.T) {
	query := `heading =/narrower "Ear Guards"`
	alone, _, err := call(t, "", "count", "sample.ris", query)
	require.NoError(t, err)
	assert.Equal(t, "38\n", alone)
	with, _, err := call(t, "", "count", "sample.ris", query, "--vocabulary", "vocabulary.nt")
	require.NoError(t, err)
	assert.Equal(t, "76\n", with)
}

func TestAWordLeadsToHeadings(t *testing.T) {
	out, _, err := call(t, "", "headings", "--vocabulary", "vocabulary.nt", "guard")
	require.NoError(t, err)
	var rows []struct {
		Heading, Via, Matched string
		Places                [][]string
		Narrower              int
	}
	require.NoError(t, json.Unmarshal([]byte(out), &rows))
	require.NotEmpty(t, rows)
	assert.Equal(t, "Ear Guards", rows[0].Heading)
	assert.Equal(t, "label", rows[0].Via)
	assert.Equal(t, 2, rows[0].Narrower)
	_, _, err = call(t, "", "headings", "guard")
	assert.ErrorIs(t, err, errUsage)
	_, _, err = call(t, "", "headings", "--vocabulary", "sample.ris", "guard")
	if assert.Error(t, err) {
		assert.NotErrorIs(t, err, errUsage)
	}
}

func TestWhatIsNoItemIsSaid(t *testing.T) {
	_, _, err := call(t, "", "alike", "sample.ris", "xylophone")
	if assert.ErrorContains(t, err, "no item") {
		assert.NotErrorIs(t, err, errUsage)
	}
	for _, args := range [][]string{{"alike", "sample.ris"}, {"fit", "sample.ris"}, {"rescue", "--strategy",
		"strategy.json"}, {"alike", "sample.ris", "heat", "--limit", "-1"},
		{"rescue", "--strategy", "strategy.json", "--keys", "keys.ris", "--in", "sample.ris", "--block", "N"}, {"world"},
		{"world", "--out", "x", "--scale", "0"}} {
		_, _, err := call(t, "", args...)
		assert.ErrorIs(t, err, errUsage, "%q", args)
	}
}

func TestTheWorldIsTheSameForTheSameSeed(t *testing.T) {
	write := func(seed string) map[string]string {
		dir := t.TempDir()
		_, complaints, err := call(t, "", "world", "--out", dir, "--scale", "60", "--seed", seed)
		require.NoError(t, err, complaints)
		files, err := os.ReadDir(dir)
		require.NoError(t, err)
		out := map[string]string{}
		for _, f := range files {
			b, err := os.ReadFile(filepath.Join(dir, f.Name()))
			require.NoError(t, err)
			out[f.Name()] = string(b)
		}
		return out
	}
	a, b, c := write("7"), write("7"), write("8")
	assert.Equal(t, a, b)
	assert.NotEqual(t, a["almagre.ris"], c["almagre.ris"])
	assert.Equal(t, 60, strings.Count(a["almagre.ris"], "\nER  - "))
	assert.Len(t, slices.Collect(maps.Keys(a)), 8)
	// The truth of every record, and somebody is about something.
	truth := strings.Split(strings.TrimSpace(a["truth.csv"]), "\n")
	assert.Len(t, truth, 61)
	assert.Equal(t, "id,concepts", truth[0])
	assert.Contains(t, a["truth.csv"], "farm-crews;heat-protection")
	dir := t.TempDir()
	for name, content := range a {
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), []byte(content), 0o644))
	}
	at := func(name string) string { return filepath.Join(dir, name) }
	out, complaints, err := call(
		t,
		"",
		"check",
		"--strategy",
		at("strategy.json"),
		"--keys",
		at("key-studies.ris"),
		"--vocabulary",
		at("almagre-headings.nt"),
	)
	require.NoError(t, err, complaints)
	assert.Contains(t, out, `"caught": 19`)
}

func TestAStrategyIsRenderedAsAQueryThatFindsTheSame(t *testing.T) {
	cql, complaints, err := call(t, "", "render", "--strategy", "strategy.json", "--dialect", "cql")
	require.NoError(t, err, complaints)
	counted, complaints, err := call(t, "", "count", "sample.ris", strings.TrimSpace(cql))
	require.NoError(t, err, complaints)
	var checked struct{ Strategy struct{ Hits json.Number } }
	out, _, err := call(t, "", "check", "--strategy", "strategy.json", "--keys", "keys.ris", "--in", "sample.ris")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal([]byte(out), &checked))
	assert.Equal(t, checked.Strategy.Hits.String(), strings.TrimSpace(counted))
	lines, _, err := call(t, "", "render", "--strategy", "strategy.json", "--dialect", "lines")
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(lines, "1\t"), lines)
	_, _, err = call(t, "", "render", "--strategy", "strategy.json", "--dialect", "latin")
	assert.ErrorIs(t, err, errUsage)
}

func TestConvertWritesEveryFormatAndReadsItAgain(t *testing.T) {
	dir := t.TempDir()
	at := func(name string) string { return filepath.Join(dir, name) }
	in := "sample.ris"
	want, _, err := call(t, "", "find", in, "title any \"heat guard\"", "--kw", "keywords")
	require.NoError(t, err)
	from := in
	for _, end := range []string{"bib", "json", "csv", "tsv", "xml", "ris"} {
		to := at("out." + end)
		_, complaints, err := call(t, "", "convert", from, to, "--kw", "keywords")
		require.NoError(t, err, complaints)
		found, complaints, err := call(t, "", "find", to, "title any \"heat guard\"", "--kw", "keywords")
		require.NoError(t, err, complaints)
		assert.Equal(t, want, found, end)
		from = to
	}
	_, _, err = call(t, "", "convert", in, at("page.html"), "--fields", "title,year")
	require.NoError(t, err)
	page, err := os.ReadFile(at("page.html"))
	require.NoError(t, err)
	assert.Contains(t, string(page), "<h1>sample.ris</h1>")
	csv, _, err := call(t, "", "convert", in, "-", "--format", "csv", "--fields", "accession,title")
	require.NoError(t, err)
	assert.True(t, strings.HasPrefix(csv, "title,accession\n"), csv[:60])

	own := at("own.txt")
	require.NoError(
		t,
		os.WriteFile(
			own,
			[]byte("Nr: 1\nTitle: Heat\n and rest\nBy: Velkana, Temi; Osolana, Ife\n\nNr: 2\nTitle: Shade\n"),
			0o600,
		),
	)
	_, _, err = call(t, "", "convert", own, "-", "--format", "ris")
	assert.ErrorContains(t, err, "with a reader map it can be read")
	m := at("map.json")
	require.NoError(
		t,
		os.WriteFile(
			m,
			[]byte(
				`{"tamiz":"reader-map/1","name":"Own","line":{"before":"","letters":"label","min":2,"max":20,"after":":","padded":true,"listed":true},"begins":"Nr","ends":"","blank":true,"rule":"",
		"continues":"any","fields":[{"field":"accession","tags":["Nr"]},{"field":"title","tags":["Title"]},{"field":"authors","tags":["By"],"take":"all","split":";"}]}`,
			),
			0o600,
		),
	)
	ris, complaints, err := call(t, "", "convert", own, "-", "--format", "ris", "--map", m)
	require.NoError(t, err, complaints)
	assert.Contains(t, ris, "AN  - 1\r\nTI  - Heat and rest\r\nAU  - Velkana, Temi\r\nAU  - Osolana, Ife\r\n")
	for _, wrong := range [][]string{{"convert", in}, {"convert", in, at("x.doc")}, {"convert", in, at("x.ris"),
		"--fields", "colour"}} {
		_, _, err = call(t, "", wrong...)
		assert.ErrorIs(t, err, errUsage, wrong)
	}
	_, _, err = call(t, "", "convert", in, at("x.ris"), "--map", in)
	assert.ErrorContains(t, err, "no reader map")
}
