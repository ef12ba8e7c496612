package table_test

import (
	"bytes"
	"encoding/csv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/table"
)

func TestNoSpreadsheetTakesACellForAFormula(t *testing.T) {
	for cell, want := range map[string]string{"=1+1": "'=1+1", "+x": "'+x", "-omics": "'-omics", "@sum": "'@sum",
		"\tx": "'\tx", "\rx": "'\rx", "'=x": "''=x",
		"": "", "heat": "heat", "'s": "'s", "a=b": "a=b", "'": "'"} {
		assert.Equal(t, want, table.Marked(cell), "%q", cell)
		assert.Equal(t, cell, table.Unmarked(table.Marked(cell)), "%q", cell)
	}
	piece := rapid.SampledFrom([]string{"'", "=", "-", "@", "\t", "x", " "})
	rapid.Check(t, func(t *rapid.T) {
		cell := strings.Join(rapid.SliceOfN(piece, 0, 5).Draw(t, "cell"), "")
		assert.Equal(t, cell, table.Unmarked(table.Marked(cell)))
	})
}

func TestRecordsAreMarkedForSpreadsheetsAndReadBackUnmarked(t *testing.T) {
	rec := &bib.Record{
		Title:    "=HYPERLINK(\"x\")",
		Keywords: []string{"-omics", "@home"},
		Extra:    []bib.Extra{{Tag: "own", Value: "+1", Format: table.Format}},
	}
	write := func(asIs bool) []byte {
		var b bytes.Buffer
		w := table.NewWriter(&b, ',', []string{"title", "keywords"}, []string{"own"})
		w.AsIs = asIs
		require.NoError(t, w.Write(rec))
		require.NoError(t, w.Close())
		return b.Bytes()
	}
	rows, err := csv.NewReader(bytes.NewReader(write(false))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"'=HYPERLINK(\"x\")", "'-omics; @home", "'+1"}, rows[1])
	rows, err = csv.NewReader(bytes.NewReader(write(true))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"=HYPERLINK(\"x\")", "-omics; @home", "+1"}, rows[1])
	for _, asIs := range []bool{false, true} {
		columns := table.Columns{
			Delimiter: ",",
			Quote:     `"`,
			Head:      true,
			Columns: []table.Column{
				{Name: "title", Field: "title"},
				{Name: "keywords", Field: "keywords", Split: table.Auto},
				{Name: "own", Field: exchange.Own},
			},
		}
		back, err := table.NewReader(bytes.NewReader(write(asIs)), columns, exchange.Sorter{}, nil).Read()
		require.NoError(t, err)
		assert.Equal(t, rec.Title, back.Title)
		assert.Equal(t, rec.Keywords, back.Keywords)
		assert.Equal(t, rec.Extra, back.Extra)
	}
}
