// Package table writes figures as tables: CSV, and JSON with the same names.
package table

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"iter"
	"strconv"

	"github.com/xuri/excelize/v2"

	"tamiz/core/tally"
)

var columns = []string{"item", "records", "occurrences", "share", "contrast_records", "contrast_share", "lift", "pull",
	"keys", "absorbed_by", "family", "central", "with_narrower"}

// WriteTallyCSV writes the rows of a tally with a head; figures that are not to be had are empty. With asIs, items
// that a spreadsheet would take for formulas are not marked.
func WriteTallyCSV(w io.Writer, t *tally.Tally, rows iter.Seq[tally.Row], asIs bool) error {
	mark := Marked
	if asIs {
		mark = func(s string) string { return s }
	}
	out := csv.NewWriter(w)
	if err := out.Write(columns); err != nil {
		return err
	}
	for r := range rows {
		row := make([]string, len(columns))
		row[0], row[1], row[2], row[3] = mark(r.Item), strconv.Itoa(r.Records), strconv.Itoa(r.Occurrences), fraction(r.Share)
		if t.Contrast > 0 {
			row[4], row[5], row[6], row[7] = strconv.Itoa(
				r.ContrastRecords,
			), fraction(
				r.ContrastShare,
			), fraction(
				r.Lift,
			), fraction(
				r.Pull,
			)
		}
		if t.HasKeys {
			row[8] = strconv.Itoa(r.Keys)
		}
		row[9], row[10] = mark(r.AbsorbedBy), mark(r.Family)
		if t.HasCentral {
			row[11] = strconv.Itoa(r.Central)
		}
		if t.HasNarrower {
			row[12] = strconv.Itoa(r.WithNarrower)
		}
		if err := out.Write(row); err != nil {
			return err
		}
	}
	out.Flush()
	return out.Error()
}

func fraction(x float64) string { return strconv.FormatFloat(tally.Round(x), 'f', 6, 64) }

type jsonRow struct {
	Item            string   `json:"item"`
	Records         int      `json:"records"`
	Occurrences     int      `json:"occurrences"`
	Share           float64  `json:"share"`
	ContrastRecords *int     `json:"contrast_records,omitempty"`
	ContrastShare   *float64 `json:"contrast_share,omitempty"`
	Lift            *float64 `json:"lift,omitempty"`
	Pull            *float64 `json:"pull,omitempty"`
	Keys            *int     `json:"keys,omitempty"`
	AbsorbedBy      string   `json:"absorbed_by,omitempty"`
	Family          string   `json:"family,omitempty"`
	Central         *int     `json:"central,omitempty"`
	WithNarrower    *int     `json:"with_narrower,omitempty"`
}

// WriteTallyJSON writes a tally as an array of objects; figures that are not to be had are left out.
func WriteTallyJSON(w io.Writer, t *tally.Tally) error {
	rows := make([]jsonRow, len(t.Rows))
	for i, r := range t.Rows {
		row := jsonRow{
			Item:        r.Item,
			Records:     r.Records,
			Occurrences: r.Occurrences,
			Share:       tally.Round(r.Share),
			AbsorbedBy:  r.AbsorbedBy,
			Family:      r.Family,
		}
		if t.Contrast > 0 {
			share, lift, pull := tally.Round(r.ContrastShare), tally.Round(r.Lift), tally.Round(r.Pull)
			row.ContrastRecords, row.ContrastShare, row.Lift, row.Pull = &r.ContrastRecords, &share, &lift, &pull
		}
		if t.HasKeys {
			row.Keys = &r.Keys
		}
		if t.HasCentral {
			row.Central = &r.Central
		}
		if t.HasNarrower {
			row.WithNarrower = &r.WithNarrower
		}
		rows[i] = row
	}
	out := json.NewEncoder(w)
	out.SetIndent("", " ")
	out.SetEscapeHTML(false)
	return out.Encode(rows)
}

// Formulas are the figures of a tally by their names, as a head sheet tells them.
var Formulas = [][2]string{
	{"records", "records of the sample with the item"},
	{"occurrences", "times the item occurs in the sample"},
	{"share", "records / records of the sample"},
	{"contrast_records", "records of the contrast with the item"},
	{"contrast_share", "contrast_records / records of the contrast"},
	{
		"lift",
		"((records + 0.5) / (N1 + 1)) / ((contrast_records + 0.5) / (N2 + 1)); N1, N2: records of sample and contrast",
	},
	{
		"pull",
		"signed log-likelihood G² = 2 Σ O ln(O / E) over records with and without the item, here and there; negative " +
			"where it is rarer here (Dunning 1993)",
	},
	{"keys", "key studies with the item"},
	{"absorbed_by", "the longer item without which it never stands"},
	{"family", "the item that labels its variants"},
	{"central", "records where the heading is a main point"},
	{"with_narrower", "records with the heading or one below it"},
}

// WriteTallyXLSX writes the rows of a tally as a workbook: a head sheet with what is said about it and the
// formulas, and a sheet with a row for each item; figures that are not to be had are empty.
func WriteTallyXLSX(w io.Writer, t *tally.Tally, rows iter.Seq[tally.Row], about [][2]string) (err error) {
	f := excelize.NewFile()
	defer func() {
		if closed := f.Close(); err == nil {
			err = closed
		}
	}()
	const head, sheet = "About", "Tally"
	if err := f.SetSheetName("Sheet1", head); err != nil {
		return err
	}
	row := 0
	put := func(cells ...any) error {
		row++
		return f.SetSheetRow(head, fmt.Sprintf("A%d", row), &cells)
	}
	for _, line := range about {
		if err := put(line[0], line[1]); err != nil {
			return err
		}
	}
	row++
	for _, line := range Formulas {
		if err := put(line[0], line[1]); err != nil {
			return err
		}
	}
	if err := f.SetColWidth(head, "A", "B", 22); err != nil {
		return err
	}
	if _, err := f.NewSheet(sheet); err != nil {
		return err
	}
	out, err := f.NewStreamWriter(sheet)
	if err != nil {
		return err
	}
	if err := out.SetColWidth(1, 1, 36); err != nil {
		return err
	}
	names := make([]any, len(columns))
	for i, c := range columns {
		names[i] = c
	}
	if err := out.SetRow("A1", names); err != nil {
		return err
	}
	i := 0
	for r := range rows {
		cells := []any{
			r.Item,
			r.Records,
			r.Occurrences,
			tally.Round(r.Share),
			nil,
			nil,
			nil,
			nil,
			nil,
			r.AbsorbedBy,
			r.Family,
			nil,
			nil,
		}
		if t.Contrast > 0 {
			cells[4], cells[5], cells[6], cells[7] = r.ContrastRecords, tally.Round(
				r.ContrastShare,
			), tally.Round(
				r.Lift,
			), tally.Round(
				r.Pull,
			)
		}
		if t.HasKeys {
			cells[8] = r.Keys
		}
		if t.HasCentral {
			cells[11] = r.Central
		}
		if t.HasNarrower {
			cells[12] = r.WithNarrower
		}
		if err := out.SetRow(fmt.Sprintf("A%d", i+2), cells); err != nil {
			return err
		}
		i++
	}
	if err := out.Flush(); err != nil {
		return err
	}
	return f.Write(w)
}
