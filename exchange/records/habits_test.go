package records_test

import (
	"bytes"
	"encoding/json"
	"flag"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange/records"
)

var update = flag.Bool("update", false, "write the golden files anew; look at what changed")

// Files as they are met with, each beside what is read of it.
func TestHabitsOfFiles(t *testing.T) {
	files, err := filepath.Glob("testdata/habits/*")
	require.NoError(t, err)
	seen := map[records.Format]bool{}
	for _, name := range files {
		if filepath.Ext(name) == ".golden" {
			continue
		}
		file, err := os.ReadFile(name)
		require.NoError(t, err)
		all, format, notices := read(t, file)
		seen[format] = true
		said := []string{}
		for _, n := range notices {
			said = append(said, n.String())
		}
		var got bytes.Buffer
		e := json.NewEncoder(&got)
		e.SetEscapeHTML(false)
		e.SetIndent("", "  ")
		require.NoError(t, e.Encode(struct {
			Format  records.Format
			Notices []string
			Records []*bib.Record
		}{format, said, all}))
		golden := name + ".golden"
		if *update {
			require.NoError(t, os.WriteFile(golden, got.Bytes(), 0o644))
		}
		want, err := os.ReadFile(golden)
		require.NoError(t, err)
		assert.Equal(t, string(want), got.String(), name)
	}
	for _, f := range []records.Format{records.RIS, records.BibTeX, records.CSL, records.CSV, records.TSV, records.MODS,
		records.MARCXML, records.DC} {
		assert.True(t, seen[f], "no file in %s", f)
	}
}
