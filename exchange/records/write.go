package records

import (
	"fmt"
	"io"
	"path"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/bibtex"
	"tamiz/exchange/csljson"
	"tamiz/exchange/mods"
	"tamiz/exchange/ris"
	"tamiz/exchange/table"
)

// Written are the formats that records are written in.
var Written = []Format{RIS, BibTeX, CSL, CSV, TSV, MODS, Page}

// Page is a page to be read and printed. It is written only.
const Page Format = "html"

// Ending returns the ending of files of a format, with its dot.
func (f Format) Ending() string {
	switch f {
	case BibTeX:
		return ".bib"
	case CSL:
		return ".json"
	case MODS, MARCXML, DC:
		return ".xml"
	}
	return "." + string(f)
}

// Media returns the media type of files of a format.
func (f Format) Media() string {
	switch f {
	case RIS:
		return "application/x-research-info-systems; charset=utf-8"
	case BibTeX:
		return "application/x-bibtex; charset=utf-8"
	case CSL:
		return "application/vnd.citationstyles.csl+json"
	case CSV:
		return "text/csv; charset=utf-8"
	case TSV:
		return "text/tab-separated-values; charset=utf-8"
	case MODS:
		return "application/mods+xml"
	case Page:
		return "text/html; charset=utf-8"
	}
	return "application/octet-stream"
}

// ByEnding returns the format in which a file of this name is written.
func ByEnding(name string) (Format, error) {
	end := strings.ToLower(path.Ext(name))
	for _, f := range Written {
		if f.Ending() == end {
			return f, nil
		}
	}
	return "", fmt.Errorf("files are written as .ris, .bib, .json, .csv, .tsv, .xml or .html, not %q", end)
}

// Choice is what of the records is written.
type Choice struct {
	Title   string   // what the records are, for the page
	Fields  []string // of bib.FieldNames, and "extra"; nil for all
	Columns []string // names of fields that only the table has, for a table; see Columns
	AsIs    bool     // of a table: cells that a spreadsheet would take for formulas are not marked
}

// Check says when a field is chosen that does not exist.
func (c Choice) Check() error {
	for _, f := range c.Fields {
		if f != exchange.Own && !slices.Contains(bib.FieldNames, f) {
			return fmt.Errorf("there is no field %q; there are %s, extra", f, strings.Join(bib.FieldNames, ", "))
		}
	}
	return nil
}

// Create returns a writer of records in a format.
func Create(w io.Writer, f Format, c Choice) (Writer, error) {
	if err := c.Check(); err != nil {
		return nil, err
	}
	fields := c.Fields
	if fields == nil {
		fields = append(slices.Clone(bib.FieldNames), exchange.Own)
	}
	var out Writer
	switch f {
	case RIS:
		out = ris.NewWriter(w)
	case BibTeX:
		out = bibtex.NewWriter(w)
	case CSL:
		out = csljson.NewWriter(w)
	case CSV, TSV:
		delimiter := ','
		if f == TSV {
			delimiter = '\t'
		}
		var columns []string
		for _, name := range bib.FieldNames {
			if slices.Contains(fields, name) {
				columns = append(columns, name)
			}
		}
		extra := c.Columns
		if !slices.Contains(fields, exchange.Own) {
			extra = nil
		}
		cells := table.NewWriter(w, delimiter, columns, extra)
		cells.AsIs = c.AsIs
		out = cells
	case MODS:
		out = mods.NewWriter(w)
	case Page:
		return newPage(w, c.Title, fields), nil
	default:
		return nil, fmt.Errorf("records are not written as %q", f)
	}
	chosen := map[string]bool{}
	for _, name := range fields {
		chosen[name] = true
	}
	return &choosing{out, chosen, c.Fields != nil}, nil
}

// choosing writes the chosen fields, guarded so that what looks like markup in them is read as text.
type choosing struct {
	Writer
	fields map[string]bool
	some   bool
}

func (c *choosing) Write(r *bib.Record) error {
	var out *bib.Record
	if c.some {
		out = r.Only(c.fields)
	} else {
		whole := *r
		out = &whole
	}
	copied(out)
	exchange.Tidy(out, exchange.Guarded)
	return c.Writer.Write(out)
}

// copied gives a record lists of its own.
func copied(r *bib.Record) {
	for _, list := range []*[]string{&r.Keywords, &r.Types, &r.Languages, &r.Countries, &r.Substances} {
		*list = slices.Clone(*list)
	}
	r.Headings, r.Authors, r.Others = slices.Clone(r.Headings), slices.Clone(r.Authors), slices.Clone(r.Others)
	for i := range r.Headings {
		r.Headings[i].Qualifiers = slices.Clone(r.Headings[i].Qualifiers)
	}
}

// Columns returns the names of the fields that only tables have, in the order in which they come, at most
// some hundred.
func Columns(all []string, r *bib.Record) []string {
	for _, e := range r.Extra {
		if e.Format == table.Format && !slices.Contains(all, e.Tag) && len(all) < 300 {
			all = append(all, e.Tag)
		}
	}
	return all
}
