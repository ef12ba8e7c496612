package table

import (
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"

	"tamiz/exchange"
)

// Version is what a mapping of columns says of itself in its file.
const Version = "columns/1"

// Format names the files whose columns are kept under their own name.
const Format = "table"

// Columns says how a table of records is written and what its columns stand for.
type Columns struct {
	Format    string   `json:"tamiz"`
	Delimiter string   `json:"delimiter"` // one character
	Quote     string   `json:"quote"`     // " or '
	Head      bool     `json:"head"`      // the first row names the columns
	Columns   []Column `json:"columns"`
}

// A Column is one column and the field that it stands for.
type Column struct {
	Name  string `json:"name"`
	Field string `json:"field"`           // of exchange.Targets; empty: left out
	Split string `json:"split,omitempty"` // what parts many values in one cell; "auto": semicolons, else commas
}

// Auto, as a Split, parts values at semicolons, else at commas.
const Auto = "auto"

const maxColumns = 2000

// Check says what is wrong with a mapping; nil when a file can be read by it.
func (c Columns) Check() error {
	switch {
	case c.Format != Version:
		return fmt.Errorf("a mapping of columns says \"tamiz\": %q of itself, not %q", Version, c.Format)
	case len([]rune(c.Delimiter)) != 1 || strings.ContainsAny(c.Delimiter, "\"'\r\n\ufffd"):
		return fmt.Errorf("cells are parted by one character that is no quote, not by %q", exchange.Shorten(c.Delimiter))
	case c.Quote != `"` && c.Quote != "'":
		return fmt.Errorf("cells are quoted with \" or ', not with %q", exchange.Shorten(c.Quote))
	case len(c.Columns) == 0 || len(c.Columns) > maxColumns:
		return fmt.Errorf("a table has 1 to %d columns, not %d", maxColumns, len(c.Columns))
	}
	useful := false
	for _, col := range c.Columns {
		if col.Field != exchange.Leave && !slices.Contains(exchange.Targets, col.Field) {
			return fmt.Errorf("there is no field %q", exchange.Shorten(col.Field))
		}
		if len(col.Split) > 20 {
			return fmt.Errorf("what parts the values of %q is too long", exchange.Shorten(col.Name))
		}
		useful = useful || col.Field != exchange.Leave && col.Field != exchange.Own
	}
	if !useful {
		return fmt.Errorf("no column stands for a field of a record")
	}
	return nil
}

// ReadColumns reads a mapping from its JSON and checks it.
func ReadColumns(r io.Reader) (Columns, error) {
	var c Columns
	d := json.NewDecoder(io.LimitReader(r, 1<<20))
	d.DisallowUnknownFields()
	if err := d.Decode(&c); err != nil {
		return c, fmt.Errorf("the file is no mapping of columns: %w", err)
	}
	return c, c.Check()
}

// Heads are the names of the columns, by which a table of the same kind is known again.
func (c Columns) Heads() []string {
	out := make([]string, len(c.Columns))
	for i, col := range c.Columns {
		out[i] = col.Name
	}
	return out
}

// Known reports whether every column that is not empty was told by its name, so that nobody needs to be
// asked. Such are the tables that Write makes.
func (c Columns) Known() bool {
	title := false
	for _, col := range c.Columns {
		f := exchange.FieldOf(col.Name)
		title = title || f == "title"
		if f == "" || f != col.Field {
			return false
		}
	}
	return c.Head && title
}
