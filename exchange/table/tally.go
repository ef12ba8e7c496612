// Package table writes figures as tables: CSV, and JSON with the same names.
package table

import (
	"encoding/csv"
	"encoding/json"
	"io"
	"strconv"

	"tamiz/core/tally"
)

var columns = []string{"item", "records", "occurrences", "share", "contrast_records", "contrast_share", "lift", "pull",
	"keys", "absorbed_by", "family", "central", "with_narrower"}

// WriteTallyCSV writes a tally with a head; figures that are not to be had are empty.
func WriteTallyCSV(w io.Writer, t *tally.Tally) error {
	out := csv.NewWriter(w)
	if err := out.Write(columns); err != nil {
		return err
	}
	for _, r := range t.Rows {
		row := make([]string, len(columns))
		row[0], row[1], row[2], row[3] = r.Item, strconv.Itoa(r.Records), strconv.Itoa(r.Occurrences), fraction(r.Share)
		if t.Contrast > 0 {
			row[4], row[5], row[6], row[7] = strconv.Itoa(r.ContrastRecords), fraction(r.ContrastShare), fraction(r.Lift), fraction(r.Pull)
		}
		if t.HasKeys {
			row[8] = strconv.Itoa(r.Keys)
		}
		row[9], row[10] = r.AbsorbedBy, r.Family
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
		row := jsonRow{Item: r.Item, Records: r.Records, Occurrences: r.Occurrences, Share: tally.Round(r.Share), AbsorbedBy: r.AbsorbedBy, Family: r.Family}
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
