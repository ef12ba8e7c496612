// Package ris reads and writes bibliographic records in RIS, a tagged line format. Its reading is a reader
// map; what RIS asks for beyond such a map, the writer knows.
package ris

import (
	"io"

	"tamiz/exchange"
	"tamiz/exchange/tagged"
)

// Map is RIS as a reader map.
var Map = tagged.Map{
	Format: tagged.Version, Name: "RIS",
	Line:   tagged.Line{Letters: tagged.Code, Min: 2, Max: 2, After: "  -"},
	Begins: "TY", Ends: "ER", Continues: tagged.AnyLine,
	Fields: []tagged.Field{
		{Field: "title", Tags: []string{"TI", "T1"}},
		{Field: "abstract", Tags: []string{"AB", "N2"}},
		{Field: "authors", Tags: []string{"AU", "A1"}, Take: tagged.All},
		{Field: "journal", Tags: []string{"T2", "JO", "JF", "JA"}},
		{Field: "year", Tags: []string{"PY", "Y1", "DA"}, Take: tagged.Each},
		{Field: "languages", Tags: []string{"LA"}},
		{Field: "keywords", Tags: []string{"KW"}},
		{Field: "doi", Tags: []string{"DO"}},
		{Field: "accession", Tags: []string{"AN"}},
		{Field: "localId", Tags: []string{"ID"}},
		{Field: "urls", Tags: []string{"UR"}},
		{Field: "issn", Tags: []string{"SN"}},
		{Field: "volume", Tags: []string{"VL"}},
		{Field: "issue", Tags: []string{"IS"}},
		{Field: "firstPage", Tags: []string{"SP"}},
		{Field: "lastPage", Tags: []string{"EP"}},
		{Field: "types", Tags: []string{"M3", "TY"}, Take: tagged.Each},
		{Field: "countries", Tags: []string{"CY"}},
		{Field: "otherTitles", Tags: []string{"TT"}},
	},
}

// NewReader reads records from UTF-8 text (see exchange.Decode), telling headings from keywords by sorter.
// What it cannot take as it stands it tells to report, which may be nil.
func NewReader(r io.Reader, sorter exchange.Sorter, report func(exchange.Notice)) *tagged.Reader {
	t := tagged.NewReader(r, Map, "", report)
	t.Sorter = sorter
	return t
}
