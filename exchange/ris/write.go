package ris

import (
	"bufio"
	"fmt"
	"io"
	"strings"

	"tamiz/core/bib"
)

// Write appends one record to w in RIS. What Reader reads is written so that it reads it again.
func Write(w io.Writer, rec *bib.Record) error {
	b := bufio.NewWriter(w)
	put := func(tag string, values ...string) {
		for _, v := range values {
			if v = strings.Join(strings.Fields(v), " "); v != "" {
				fmt.Fprintf(b, "%s  - %s\r\n", tag, v)
			}
		}
	}
	types, code := rec.Types, "JOUR"
	if n := len(types); n > 0 && isCode(types[n-1]) {
		types, code = types[:n-1], types[n-1]
	}
	put("TY", code)
	put("AN", rec.Accession)
	put("ID", rec.LocalID)
	put("TI", rec.Title)
	for _, a := range rec.Authors {
		put("AU", a.Line())
	}
	put("AB", rec.Abstract)
	for _, o := range rec.Others {
		put("TT", o.Title)
	}
	put("T2", rec.Journal)
	if rec.Year > 0 {
		put("PY", fmt.Sprintf("%04d", rec.Year))
	}
	put("VL", rec.Volume)
	put("IS", rec.Issue)
	put("SP", rec.FirstPage)
	put("EP", rec.LastPage)
	put("SN", rec.ISSN)
	put("LA", rec.Languages...)
	put("KW", rec.Keywords...)
	for _, h := range rec.Headings {
		put("KW", h.Line())
	}
	put("M3", types...)
	put("CY", rec.Countries...)
	put("DO", rec.DOI)
	put("UR", rec.URLs...)
	for _, e := range rec.Extra {
		if e.Format == "" && len(e.Tag) == 2 { // another format's tag has no place here
			put(e.Tag, e.Value)
		}
	}
	fmt.Fprint(b, "ER  - \r\n\r\n")
	return b.Flush()
}

// isCode reports whether a type is one of the short codes of TY rather than a name.
func isCode(t string) bool {
	return len(t) >= 2 && len(t) <= 6 && strings.ToUpper(t) == t && !strings.Contains(t, " ")
}

// A Writer writes records one at a time.
type Writer struct{ w *bufio.Writer }

// NewWriter writes to w; Close ends it.
func NewWriter(w io.Writer) Writer { return Writer{bufio.NewWriter(w)} }

// Write writes one record.
func (w Writer) Write(r *bib.Record) error { return Write(w.w, r) }

// Close writes what is left.
func (w Writer) Close() error { return w.w.Flush() }
