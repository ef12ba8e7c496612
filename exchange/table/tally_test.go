package table_test

import (
	"bytes"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"

	"tamiz/core/tally"
	"tamiz/exchange/table"
)

func TestAWorkbookHoldsTheFiguresAndTheirFormulas(t *testing.T) {
	x := &tally.Tally{Sample: 10, Contrast: 20, HasKeys: true, Rows: []tally.Row{
		{
			Item:            "=heat",
			Records:         4,
			Occurrences:     6,
			Share:           0.4,
			ContrastRecords: 2,
			ContrastShare:   0.1,
			Lift:            3.4,
			Pull:            -1.23456789,
			Keys:            1,
			Family:          "heat",
		},
	}}
	var b bytes.Buffer
	require.NoError(
		t,
		table.WriteTallyXLSX(
			&b,
			x,
			slices.Values(x.Rows),
			[][2]string{{"sample", "farm crews"}, {"counted", "2026-11-25 10:00"}},
		),
	)
	f, err := excelize.OpenReader(&b)
	require.NoError(t, err)
	defer f.Close()
	assert.Equal(t, []string{"About", "Tally"}, f.GetSheetList())
	rows, err := f.GetRows("Tally")
	require.NoError(t, err)
	require.Len(t, rows, 2)
	assert.Equal(
		t,
		[]string{
			"item",
			"records",
			"occurrences",
			"share",
			"contrast_records",
			"contrast_share",
			"lift",
			"pull",
			"keys",
			"absorbed_by",
			"family",
			"central",
			"with_narrower",
		},
		rows[0],
	)
	assert.Equal(t, []string{"=heat", "4", "6", "0.4", "2", "0.1", "3.4", "-1.234568", "1", "", "heat"}, rows[1])
	formula, err := f.GetCellFormula("Tally", "A2")
	require.NoError(t, err)
	assert.Empty(t, formula, "an item is text, whatever it begins with")
	about, err := f.GetRows("About")
	require.NoError(t, err)
	assert.Equal(t, []string{"sample", "farm crews"}, about[0])
	assert.Len(t, about, 2+1+len(table.Formulas))
}
