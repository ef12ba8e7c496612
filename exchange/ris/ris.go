// Package ris reads and writes bibliographic records in RIS, a tagged line format.
package ris

import (
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/thesaurus"
	"tamiz/exchange"
)

// Limits of what is read of one record; a larger one is reported and skipped.
const (
	maxRecord = 16 << 20 // bytes of all its values
	maxValues = 200_000  // tagged lines
)

// KeywordMode says how the values of KW are taken.
type KeywordMode string

// The ways to take KW.
const (
	Auto     KeywordMode = "auto"     // what the vocabulary knows is a heading; without one, what has a leading * or a /
	Headings KeywordMode = "headings" // every value is a heading
	Keywords KeywordMode = "keywords" // every value is a keyword
)

// A Reader reads records one at a time.
type Reader struct {
	Vocabulary *thesaurus.Thesaurus // by which KW values are headings or keywords; may be nil

	lines  *exchange.Lines
	mode   KeywordMode
	report func(exchange.Notice)
	n      int // records begun
	next   *raw
	ended  bool
}

// raw is a record as tagged values.
type raw struct {
	line   int
	n      int
	values []tagged
	size   int
	large  bool
	closed bool
}

// A value is bytes, to which lines can be added in time that does not grow with what is there.
type tagged struct {
	tag   string
	value []byte
	line  int
}

// NewReader reads records from UTF-8 text (see exchange.Decode). What it cannot take as it stands it
// tells to report, which may be nil.
func NewReader(r io.Reader, mode KeywordMode, report func(exchange.Notice)) *Reader {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	return &Reader{lines: exchange.NewLines(r, maxRecord+1), mode: mode, report: report}
}

// Read returns the next record, or io.EOF after the last.
func (r *Reader) Read() (*bib.Record, error) {
	for {
		raw, err := r.raw()
		if err != nil {
			return nil, err
		}
		if rec := r.record(raw); rec != nil {
			return rec, nil
		}
	}
}

// raw reads the tagged lines of one record.
func (r *Reader) raw() (*raw, error) {
	current := r.next
	r.next = nil
	var stray *exchange.Notice
	defer func() {
		if stray != nil {
			r.report(*stray)
		}
	}()
	for !r.ended {
		line, cut, err := r.lines.Next()
		if errors.Is(err, io.EOF) {
			r.ended = true
			break
		}
		if err != nil {
			return nil, fmt.Errorf("line %d: %w", r.lines.Number()+1, err)
		}
		tag, value, ok := split(line)
		switch {
		case ok && tag == "TY":
			r.n++
			begun := &raw{line: r.lines.Number(), n: r.n}
			begun.add(tag, value, r.lines.Number(), cut)
			if current != nil {
				r.next = begun
				return current, nil
			}
			current = begun
		case current == nil:
			if s := strings.TrimSpace(string(line)); s != "" && stray == nil && (!ok || tag != "ER") {
				stray = &exchange.Notice{Line: r.lines.Number(), Kind: exchange.BeforeFirst, Detail: shorten(s), Skipped: true}
			}
		case ok && tag == "ER":
			current.closed = true
			return current, nil
		case ok:
			current.add(tag, value, r.lines.Number(), cut)
		default:
			current.extend(strings.TrimSpace(string(line)), cut)
		}
	}
	if current != nil {
		return current, nil
	}
	return nil, io.EOF
}

func (w *raw) add(tag, value string, line int, cut bool) {
	w.size += len(value)
	if w.large = w.large || cut || w.size > maxRecord || len(w.values) >= maxValues; w.large {
		w.values = w.values[:min(len(w.values), 1)]
		return
	}
	w.values = append(w.values, tagged{tag, []byte(value), line})
}

// extend goes on with the value before.
func (w *raw) extend(more string, cut bool) {
	w.size += len(more)
	if w.large = w.large || cut || w.size > maxRecord; w.large || more == "" {
		return
	}
	last := &w.values[len(w.values)-1]
	if len(last.value) > 0 {
		last.value = append(last.value, ' ')
	}
	last.value = append(last.value, more...)
}

// split takes a tagged line apart: a capital, a capital or digit, two spaces, a hyphen.
func split(line []byte) (tag, value string, ok bool) {
	if len(line) < 5 || line[2] != ' ' || line[3] != ' ' || line[4] != '-' || len(line) > 5 && line[5] != ' ' && line[5] != '\t' {
		return "", "", false
	}
	capital := func(c byte) bool { return c >= 'A' && c <= 'Z' }
	if !capital(line[0]) || !capital(line[1]) && (line[1] < '0' || line[1] > '9') {
		return "", "", false
	}
	return string(line[:2]), strings.TrimSpace(string(line[5:])), true
}

// record makes a record of its tagged values, or nil when there is nothing to keep.
func (r *Reader) record(w *raw) *bib.Record {
	notice := func(kind exchange.Kind, line int, detail string, skipped bool) {
		r.report(exchange.Notice{Line: line, Record: w.n, Kind: kind, Detail: detail, Skipped: skipped})
	}
	if w.large {
		notice(exchange.TooLarge, w.line, "16 MB", true)
		return nil
	}
	if !w.closed {
		notice(exchange.NoEnd, w.line, "", false)
	}
	rec := &bib.Record{
		Title:     strings.Join(w.first("TI", "T1"), " "),
		Abstract:  strings.Join(w.first("AB", "N2"), " "),
		Journal:   w.one("T2", "JO", "JF", "JA"),
		Languages: w.all("LA"),
		Countries: w.all("CY"),
		Accession: w.one("AN"),
		LocalID:   w.one("ID"),
		DOI:       w.one("DO"),
		URLs:      w.all("UR"),
		ISSN:      w.one("SN"),
		Volume:    w.one("VL"),
		Issue:     w.one("IS"),
		FirstPage: w.one("SP"),
		LastPage:  w.one("EP"),
	}
	for _, name := range w.all("AU", "A1") {
		rec.Authors = append(rec.Authors, bib.ParsePerson(name))
	}
	for _, t := range append(w.all("M3"), w.all("TY")...) {
		if !slices.Contains(rec.Types, t) {
			rec.Types = append(rec.Types, t)
		}
	}
	for _, k := range w.all("KW") {
		r.keyword(rec, k)
	}
	for _, v := range w.values {
		if !known[v.tag] && len(v.value) > 0 {
			rec.Extra = append(rec.Extra, bib.Extra{Tag: v.tag, Value: string(v.value)})
		}
	}
	if rec.Title == "" && rec.Abstract == "" && rec.DOI == "" && rec.Accession == "" && rec.LocalID == "" && len(rec.Authors)+len(rec.Keywords)+len(rec.Headings) == 0 {
		notice(exchange.Nothing, w.line, "", true)
		return nil
	}
	if rec.Title == "" {
		notice(exchange.NoTitle, w.line, "", false)
	}
	if rec.Year = w.year(); rec.Year == 0 {
		for _, v := range w.values {
			if len(v.value) > 0 && (v.tag == "PY" || v.tag == "Y1" || v.tag == "DA") {
				notice(exchange.NoYear, v.line, shorten(string(v.value)), false)
				break
			}
		}
	}
	rec.Name(w.n)
	return rec
}

var known = func() map[string]bool {
	set := map[string]bool{}
	for _, t := range strings.Fields("TY TI T1 AB N2 AU A1 T2 JO JF JA PY Y1 DA LA KW DO AN ID UR SN VL IS SP EP M3 CY ER") {
		set[t] = true
	}
	return set
}()

// all returns the values of any of the tags that hold something, in the order of the file.
func (w *raw) all(tags ...string) []string {
	var out []string
	for _, v := range w.values {
		if len(v.value) > 0 && slices.Contains(tags, v.tag) {
			out = append(out, string(v.value))
		}
	}
	return out
}

// first returns the values of the first of the tags that has one.
func (w *raw) first(tags ...string) []string {
	for _, t := range tags {
		if v := w.all(t); len(v) > 0 {
			return v
		}
	}
	return nil
}

func (w *raw) one(tags ...string) string {
	if v := w.first(tags...); len(v) > 0 {
		return v[0]
	}
	return ""
}

func (w *raw) year() int {
	for _, tag := range []string{"PY", "Y1", "DA"} {
		for _, v := range w.all(tag) {
			if y := bib.ParseYear(v); y > 0 {
				return y
			}
		}
	}
	return 0
}

func (r *Reader) keyword(rec *bib.Record, value string) {
	if r.mode == Auto && r.Vocabulary != nil {
		if a, ok := r.Vocabulary.Assignment(value); ok {
			rec.Headings = append(rec.Headings, a)
		} else {
			rec.Keywords = append(rec.Keywords, value)
		}
		return
	}
	if r.mode == Headings || r.mode == Auto && (strings.HasPrefix(value, "*") || strings.Contains(value, "/")) {
		if a := ParseAssignment(value); a.Label != "" {
			rec.Headings = append(rec.Headings, a)
			return
		}
	}
	rec.Keywords = append(rec.Keywords, value)
}

// ParseAssignment reads a heading as RIS files write it: *Label/qualifier/qualifier, where the * says
// that it is a main point.
func ParseAssignment(value string) bib.Assignment {
	parts := strings.Split(strings.TrimSpace(value), "/")
	var a bib.Assignment
	a.Label, a.Central = strings.CutPrefix(strings.TrimSpace(parts[0]), "*")
	a.Label = strings.TrimSpace(a.Label)
	for _, q := range parts[1:] {
		if q = strings.TrimSpace(q); q != "" {
			a.Qualifiers = append(a.Qualifiers, q)
		}
	}
	return a
}

func shorten(s string) string {
	if r := []rune(s); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return s
}
