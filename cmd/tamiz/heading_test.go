package main

import (
	"compress/gzip"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/vocabularies"
	"tamiz/core/heading"
	"tamiz/core/thesaurus"
	"tamiz/store/storetest"
)

// What is told of one heading agrees with what is counted by itself.
func TestOneHeadingIsToldWhole(t *testing.T) {
	out, complaints, err := call(
		t,
		"",
		"heading",
		"--vocabulary",
		"vocabulary.nt",
		"--in",
		"sample.ris",
		"--keys",
		"keys.ris",
		"--strategy",
		"strategy.json",
		"--block",
		"A",
		"ear",
		"guards",
	)
	require.NoError(t, err, complaints)
	var whole heading.Whole
	require.NoError(t, json.Unmarshal([]byte(out), &whole))
	assert.Equal(t, "Ear Guards", whole.Label)
	for query, want := range map[string]int{`heading =/narrower "Ear Guards"`: whole.Price.Records,
		`heading = "Ear Guards"`: whole.Alone.Records,
		`heading =/narrower "Ear Guards" not heading =/narrower/central "Ear Guards"`: whole.Price.Central.Records} {
		counted, _, err := call(t, "", "count", "--vocabulary", "vocabulary.nt", "sample.ris", query)
		require.NoError(t, err)
		assert.Equal(t, strings.TrimSpace(counted), json.Number(strings.TrimSpace(mustJSON(t, want))).String(), query)
	}
	for _, wrong := range [][]string{{"heading", "ear guards"}, {"heading", "--vocabulary", "vocabulary.nt"},
		{"heading", "--vocabulary", "vocabulary.nt", "--block", "A", "ear guards"},
		{"heading", "--vocabulary", "vocabulary.nt", "--strategy", "strategy.json", "--block", "Z", "ear guards"},
		{"vocabulary"}, {"vocabulary", "burn"}, {"vocabulary", "list"}} {
		_, _, err := call(t, "", wrong...)
		assert.ErrorIs(t, err, errUsage, wrong)
	}
	_, _, err = call(t, "", "heading", "--vocabulary", "vocabulary.nt", "ear")
	assert.ErrorContains(t, err, "the word leads to Ear Guards")
	_, _, err = call(t, "", "heading", "--vocabulary", "vocabulary.nt", "nothing like it")
	assert.ErrorContains(t, err, "has no heading")
}

func mustJSON(t *testing.T, v any) string {
	b, err := json.Marshal(v)
	require.NoError(t, err)
	return string(b)
}

func TestVocabulariesAreBroughtInListedAndCompared(t *testing.T) {
	dir := t.TempDir()
	put := func(name, label string) string {
		path := filepath.Join(dir, name)
		file, err := os.Create(path)
		require.NoError(t, err)
		packed := gzip.NewWriter(file)
		_, err = packed.Write([]byte(`<v:1> <http://www.w3.org/2004/02/skos/core#prefLabel> "` + label + `"@en .` + "\n"))
		require.NoError(t, err)
		require.NoError(t, packed.Close())
		require.NoError(t, file.Close())
		return path
	}
	older, newer := put("older.nt.gz", "Ear Guards"), put("newer.nt.gz", "Ear Shields")
	want := []thesaurus.Renamed{{From: "Ear Guards", To: "Ear Shields"}}
	out, _, err := call(t, "", "vocabulary", "compare", older, newer)
	require.NoError(t, err)
	var changes thesaurus.Changes
	require.NoError(t, json.Unmarshal([]byte(out), &changes))
	assert.Equal(t, want, changes.Renamed)

	url := storetest.URL(t)
	_, _, err = call(t, "", "vocabulary", "add", "--database-url", url, "--name", "Noise", older)
	require.NoError(t, err)
	out, _, err = call(t, "", "vocabulary", "add", "--database-url", url, "--name", "noise", newer)
	require.NoError(t, err)
	var added struct {
		vocabularies.Vocabulary
		Changes thesaurus.Changes
	}
	require.NoError(t, json.Unmarshal([]byte(out), &added))
	assert.Equal(t, want, added.Changes.Renamed)
	out, _, err = call(t, "", "vocabulary", "list", "--database-url", url)
	require.NoError(t, err)
	var all []vocabularies.Vocabulary
	require.NoError(t, json.Unmarshal([]byte(out), &all))
	require.Len(t, all, 2)
	assert.Equal(t, all[1].ID, *all[0].Earlier)
	_, _, err = call(t, "", "vocabulary", "add", "--database-url", url, "sample.ris")
	assert.Error(t, err, "no vocabulary")
}

// A large file tells how far it was read, and a vocabulary what was mended in it, how much of each kind.
func TestAVocabularyIsAddedWithAReport(t *testing.T) {
	const skos = "http://www.w3.org/2004/02/skos/core#"
	path := filepath.Join(t.TempDir(), "large.nt")
	var b strings.Builder
	for i := range 20 {
		fmt.Fprintf(
			&b,
			"<v:%d> <%sprefLabel> \"Ear guard %d\"@en .\n<v:%d> <%sscopeNote> \"%s\"@en .\n",
			i,
			skos,
			i/2,
			i,
			skos,
			strings.Repeat("so ", 300_000),
		)
	}
	fmt.Fprintf(&b, "<v:0> <%sbroader> <v:none> .\n", skos)
	require.NoError(t, os.WriteFile(path, []byte(b.String()), 0o600))
	out, complaints, err := call(t, "", "vocabulary", "add", "--database-url", storetest.URL(t), path)
	require.NoError(t, err)
	var added struct {
		vocabularies.Vocabulary
		Troubles map[string]int
	}
	require.NoError(t, json.Unmarshal([]byte(out), &added))
	assert.Equal(t, map[string]int{"same-label": 10, "no-parent": 1}, added.Troubles)
	assert.Equal(t, 11, added.Notices)
	assert.Equal(t, []string{"en"}, added.Languages)
	assert.Contains(t, complaints, "large.nt: 10 % read")
	assert.Contains(t, complaints, "large.nt: 100 % read")
	assert.Contains(t, complaints, "v:none")
}
