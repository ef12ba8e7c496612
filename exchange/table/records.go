package table

import (
	"bufio"
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"strings"
	"unicode/utf8"

	"tamiz/core/bib"
	"tamiz/exchange"
)

const maxRow = 16 << 20 // bytes of a row

// A Reader reads the rows of a table as records.
type Reader struct {
	c      Columns
	src    *ends
	csv    *csv.Reader
	sorter exchange.Sorter
	report func(exchange.Notice)
	n      int
	values []string // of the cell that is looked at
	begun  bool
	ended  bool
}

// NewReader reads records from UTF-8 text (see exchange.Decode) by a mapping that has been checked. What it
// cannot take as it stands it tells to report, which may be nil.
func NewReader(r io.Reader, c Columns, sorter exchange.Sorter, report func(exchange.Notice)) *Reader {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	src := &ends{r: r, swap: c.Quote == "'"}
	x := newCSV(bufio.NewReaderSize(src, 64<<10), c)
	x.ReuseRecord = true
	return &Reader{c: c, src: src, csv: x, sorter: sorter, report: report}
}

// Read returns the next record, or io.EOF after the last.
func (r *Reader) Read() (*bib.Record, error) {
	for !r.ended {
		r.src.row = 0
		row, err := r.csv.Read()
		line, _ := 0, 0
		if err == nil && len(row) > 0 {
			line, _ = r.csv.FieldPos(0)
		}
		switch {
		case errors.Is(err, io.EOF):
			r.ended = true
			return nil, io.EOF
		case errors.Is(err, exchange.ErrLarge):
			r.ended = true
			r.report(exchange.Notice{Line: line, Record: r.n + 1, Kind: exchange.TooLarge, Detail: "16 MB", Skipped: true})
			r.report(exchange.Notice{Line: line, Kind: exchange.Unread, Skipped: true})
			return nil, io.EOF
		case err != nil:
			var bad *csv.ParseError
			if !errors.As(err, &bad) {
				return nil, err
			}
			r.n++
			r.report(
				exchange.Notice{
					Line:    bad.StartLine,
					Record:  r.n,
					Kind:    exchange.BadEntry,
					Detail:  exchange.Shorten(bad.Err.Error()),
					Skipped: true,
				},
			)
			continue
		}
		if !r.begun {
			r.begun = true
			if r.c.Head {
				continue
			}
		}
		if rec := r.record(row, line); rec != nil {
			return rec, nil
		}
	}
	return nil, io.EOF
}

func (r *Reader) record(row []string, line int) *bib.Record {
	blank := true
	for i := range row {
		row[i] = strings.TrimSpace(swapped(row[i], r.c.Quote))
		blank = blank && row[i] == ""
	}
	if blank {
		return nil
	}
	r.n++
	notice := func(kind exchange.Kind, detail string, skipped bool) {
		r.report(exchange.Notice{Line: line, Record: r.n, Kind: kind, Detail: exchange.Shorten(detail), Skipped: skipped})
	}
	if len(row) != len(r.c.Columns) {
		notice(exchange.RowLength, fmt.Sprintf("%d instead of %d", len(row), len(r.c.Columns)), false)
	}
	rec := &bib.Record{}
	year := ""
	for i, v := range row {
		v = Unmarked(v)
		if v == "" {
			continue
		}
		if i >= len(r.c.Columns) {
			rec.Extra = append(rec.Extra, bib.Extra{Tag: fmt.Sprintf("column %d", i+1), Value: v, Format: Format})
			continue
		}
		col := r.c.Columns[i]
		switch {
		case col.Field == exchange.Leave:
			continue
		case col.Field == exchange.Own:
			name := col.Name
			if name == "" {
				name = fmt.Sprintf("column %d", i+1)
			}
			rec.Extra = append(rec.Extra, bib.Extra{Tag: name, Value: v, Format: Format})
			continue
		case !exchange.Many(col.Field) || col.Split == "":
			r.values = append(r.values[:0], bib.Flat(v))
		case col.Split == Auto:
			r.values = exchange.Parted(v)
		default:
			r.values = exchange.AppendSplit(r.values[:0], v, col.Split)
		}
		if !exchange.Put(rec, col.Field, r.values, r.sorter) && col.Field == "year" {
			year = v
		}
	}
	if exchange.Empty(rec) {
		notice(exchange.Nothing, "", true)
		return nil
	}
	if rec.Title == "" {
		notice(exchange.NoTitle, "", false)
	}
	if year != "" && rec.Year == 0 {
		notice(exchange.NoYear, year, false)
	}
	rec.Name(r.n)
	return rec
}

// ends makes every line end that of Unix, exchanges quotes where it has to, and ends with exchange.ErrLarge
// where one row is larger than what is read.
type ends struct {
	row  int // bytes since a row was begun
	r    io.Reader
	swap bool
	cr   bool // the last byte was a CR, already passed on as an end of line
}

func (e *ends) Read(p []byte) (int, error) {
	if e.row > maxRow {
		return 0, exchange.ErrLarge
	}
	for {
		n, err := e.r.Read(p)
		e.row += n
		b := p[:n]
		if e.cr || bytes.IndexByte(b, '\r') >= 0 {
			out := b[:0]
			for _, c := range b {
				switch {
				case c == '\r':
					out = append(out, '\n')
				case c == '\n' && e.cr:
				default:
					out = append(out, c)
				}
				e.cr = c == '\r'
			}
			b = out
		}
		if e.swap {
			for i, c := range b {
				if c < utf8.RuneSelf {
					b[i] = byte(swap(rune(c)))
				}
			}
		}
		if len(b) > 0 || err != nil {
			return len(b), err
		}
	}
}

// A Writer writes records as the rows of a table. Lists stand in one cell, parted by semicolons; of titles
// and abstracts in other languages the first is written.
type Writer struct {
	csv    *csv.Writer
	fields []string
	extra  []string
	begun  bool

	AsIs bool // cells that a spreadsheet would take for formulas are not marked
}

// NewWriter writes to w, cells parted by delimiter: a column for each field, of bib.FieldNames, then one for
// each field that Tamiz does not know.
func NewWriter(w io.Writer, delimiter rune, fields, extra []string) *Writer {
	x := csv.NewWriter(w)
	x.Comma = delimiter
	return &Writer{csv: x, fields: fields, extra: extra}
}

func (w *Writer) begin() error {
	if w.begun {
		return nil
	}
	w.begun = true
	return w.write(append(append([]string{}, w.fields...), w.extra...))
}

func (w *Writer) write(row []string) error {
	if !w.AsIs {
		for i := range row {
			row[i] = Marked(row[i])
		}
	}
	return w.csv.Write(row)
}

// Write writes one record as a row.
func (w *Writer) Write(r *bib.Record) error {
	if err := w.begin(); err != nil {
		return err
	}
	row := make([]string, 0, len(w.fields)+len(w.extra))
	all := r.Fields()
	for _, f := range w.fields {
		v := ""
		for _, n := range all {
			if n.Name == f {
				switch {
				case prose(f) && len(n.Values) > 0:
					v = n.Values[0]
				case exchange.Many(f):
					v = exchange.Joined(n.Values)
				default:
					v = n.Text()
				}
			}
		}
		row = append(row, v)
	}
	for _, name := range w.extra {
		v := ""
		for _, e := range r.Extra {
			if e.Format == Format && e.Tag == name && v == "" {
				v = e.Value
			}
		}
		row = append(row, v)
	}
	return w.write(row)
}

// Close writes what is left; of no record the head.
func (w *Writer) Close() error {
	if err := w.begin(); err != nil {
		return err
	}
	w.csv.Flush()
	return w.csv.Error()
}
