// Package csljson reads and writes bibliographic records in CSL-JSON, the data format of the Citation Style
// Language: an array of items, or one item a line.
package csljson

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// Format names the files whose fields are kept under their own name.
const Format = "csl"

const maxItem = 16 << 20 // bytes of an item

// item is an item: its fields as they stand.
type item map[string]json.RawMessage

// A Reader reads records one at a time.
type Reader struct {
	lines  *exchange.Counter
	d      *json.Decoder
	sorter exchange.Sorter
	report func(exchange.Notice)
	begun  bool
	array  bool
	ended  bool
	n      int
}

// NewReader reads records from UTF-8 text (see exchange.Decode). What it cannot take as it stands it tells
// to report, which may be nil.
func NewReader(r io.Reader, sorter exchange.Sorter, report func(exchange.Notice)) *Reader {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	c := exchange.NewCounter(r, maxItem)
	return &Reader{lines: c, d: json.NewDecoder(c), sorter: sorter, report: report}
}

// Read returns the next record, or io.EOF after the last.
func (r *Reader) Read() (*bib.Record, error) {
	for {
		raw, line, err := r.next()
		if err != nil {
			return nil, err
		}
		r.n++
		var i item
		if err := json.Unmarshal(raw, &i); err != nil {
			r.notice(line, exchange.NoStatement, string(raw), true)
			continue
		}
		if rec := r.record(i, line); rec != nil {
			return rec, nil
		}
	}
}

func (r *Reader) notice(line int, kind exchange.Kind, detail string, skipped bool) {
	r.report(
		exchange.Notice{Line: line, Record: r.n, Kind: kind, Detail: exchange.Shorten(bib.Flat(detail)), Skipped: skipped},
	)
}

// next returns the next value: of the array, or of the file where its values stand one after the other.
func (r *Reader) next() (json.RawMessage, int, error) {
	if r.ended {
		return nil, 0, io.EOF
	}
	if !r.begun {
		r.begun = true
		c, err := r.lines.First()
		if err != nil {
			r.ended = true
			return nil, 0, err
		}
		if r.array = c == '['; r.array {
			if _, err := r.d.Token(); err != nil {
				return nil, 0, r.broken(err)
			}
		}
	}
	if r.array && !r.d.More() {
		r.ended = true
		if _, err := r.d.Token(); err != nil {
			return nil, 0, r.broken(err)
		}
		if rest, err := io.ReadAll(io.LimitReader(io.MultiReader(r.d.Buffered(), r.lines), 4096)); err == nil &&
			len(bytes.TrimSpace(rest)) > 0 {
			r.notice(r.lines.Line(r.d.InputOffset()), exchange.OtherFormat, string(bytes.TrimSpace(rest)), true)
		}
		return nil, 0, io.EOF
	}
	r.lines.Renew()
	var raw json.RawMessage
	if err := r.d.Decode(&raw); err != nil {
		return nil, 0, r.broken(err)
	}
	return raw, r.lines.Line(r.d.InputOffset() - int64(len(raw))), nil
}

// broken says where the text stops being JSON. Nothing can be told of what follows.
func (r *Reader) broken(err error) error {
	r.ended = true
	var bad *json.SyntaxError
	line := r.lines.Line(r.d.InputOffset())
	switch {
	case errors.Is(err, io.EOF) && !r.array:
		return io.EOF
	case errors.Is(err, io.EOF), errors.Is(err, io.ErrUnexpectedEOF):
		r.n++
		r.notice(r.lines.Line(math.MaxInt64), exchange.CutOff, fmt.Sprintf("#%d", r.n), true)
		return io.EOF
	case errors.As(err, &bad):
		r.n++
		r.notice(r.lines.Line(bad.Offset), exchange.Broken, bad.Error(), true)
		r.notice(r.lines.Line(bad.Offset), exchange.Unread, "", true)
		return io.EOF
	case errors.Is(err, exchange.ErrLarge):
		r.n++
		r.notice(line, exchange.TooLarge, "16 MB", true)
		r.notice(line, exchange.Unread, "", true)
		return io.EOF
	}
	return fmt.Errorf("line %d: %w", line, err)
}

// The codes by which RIS knows the types of items, so that types do not depend on the format.
var codes = map[string]string{
	"article-journal":   "JOUR",
	"article":           "JOUR",
	"article-magazine":  "MGZN",
	"article-newspaper": "NEWS",
	"book":              "BOOK",
	"chapter":           "CHAP",
	"paper-conference":  "CPAPER",
	"thesis":            "THES",
	"report":            "RPRT",
	"manuscript":        "UNPB",
	"webpage":           "ELEC",
	"patent":            "PAT",
	"dataset":           "DATA",
}

var kinds = func() map[string]string {
	out := map[string]string{}
	for kind, code := range codes {
		if kind != "article" {
			out[code] = kind
		}
	}
	return out
}()

type person struct {
	Family   string `json:"family,omitempty"`
	Given    string `json:"given,omitempty"`
	Literal  string `json:"literal,omitempty"`
	Suffix   string `json:"suffix,omitempty"`
	Particle string `json:"non-dropping-particle,omitempty"`
	Dropping string `json:"dropping-particle,omitempty"`
}

func (p person) person() bib.Person {
	if p.Family == "" && p.Literal != "" {
		return bib.ParsePerson(p.Literal)
	}
	family := bib.Flat(p.Dropping + " " + p.Particle + " " + p.Family)
	if family == "" {
		return bib.Person{Family: bib.Flat(p.Given)}
	}
	return bib.Person{Family: family, Given: strings.Trim(bib.Flat(p.Given)+", "+bib.Flat(p.Suffix), ", ")}
}

type date struct {
	Parts   [][]json.RawMessage `json:"date-parts,omitempty"`
	Raw     string              `json:"raw,omitempty"`
	Literal string              `json:"literal,omitempty"`
}

func (d date) year() int {
	if len(d.Parts) > 0 && len(d.Parts[0]) > 0 {
		if y, err := strconv.Atoi(strings.Trim(string(d.Parts[0][0]), `"`)); err == nil && y > 0 {
			return y
		}
	}
	if y := bib.ParseYear(d.Raw); y > 0 {
		return y
	}
	return bib.ParseYear(d.Literal)
}

// custom holds what CSL-JSON has no field for.
type custom struct {
	Accession  string          `json:"accession,omitempty"`
	Types      []string        `json:"types,omitempty"`
	Languages  []string        `json:"languages,omitempty"`
	Countries  []string        `json:"countries,omitempty"`
	Substances []string        `json:"substances,omitempty"`
	URLs       []string        `json:"urls,omitempty"`
	Others     []bib.Rendering `json:"others,omitempty"`
}

// members reads the members of an item, and knows which of them were made use of.
type members struct {
	item
	used map[string]bool
}

// text returns the first of some members that is text, or can be read as such.
func (m members) text(names ...string) string {
	for _, name := range names {
		m.used[name] = true
	}
	for _, name := range names {
		var s string
		raw := m.item[name]
		if len(raw) == 0 {
			continue
		}
		if raw[0] == '"' && bytes.IndexByte(raw, '\\') < 0 && utf8.Valid(raw) { // as most are
			s = string(raw[1 : len(raw)-1])
		} else if json.Unmarshal(raw, &s) != nil {
			if s = string(raw); s == "null" || strings.HasPrefix(s, "{") || strings.HasPrefix(s, "[") {
				m.used[name] = s == "null"
				continue
			}
		}
		if s = bib.Flat(s); s != "" {
			return s
		}
	}
	return ""
}

// into reads a member into what it is. One of another shape is kept as it is.
func (m members) into(name string, to any) {
	raw := m.item[name]
	m.used[name] = len(raw) == 0 || json.Unmarshal(raw, to) == nil
}

func (r *Reader) record(i item, line int) *bib.Record {
	m := members{i, map[string]bool{}}
	rec := &bib.Record{
		Title:    m.text("title"),
		Abstract: m.text("abstract"),
		Journal:  m.text("container-title"),
		DOI:      m.text("DOI"),
		ISSN:     m.text("ISSN"),
		Volume:   m.text("volume"),
		Issue:    m.text("issue"),
	}
	var own custom
	m.into("custom", &own)
	rec.Accession, rec.Countries, rec.Substances, rec.Others = own.Accession, own.Countries, own.Substances, own.Others
	m.people(rec)
	m.pages(rec)
	for _, k := range exchange.Parted(m.text("keyword")) {
		r.sorter.Take(rec, k)
	}
	m.languages(rec, own.Languages)
	m.types(rec, own.Types)
	rec.URLs = exchange.Values(append([]string{m.text("URL")}, own.URLs...))
	var issued date
	m.into("issued", &issued)
	rec.Year = issued.year()
	if other := m.text("original-title"); other != "" {
		rec.Others = append(rec.Others, bib.Rendering{Title: other})
	}
	if id := m.text("id"); id != idOf(rec) {
		rec.LocalID = id
	}
	rec.Extra = append(rec.Extra, m.rest()...)
	if !r.reported(rec, i, line) {
		return nil
	}
	rec.Name(r.n)
	return rec
}

func (m members) people(rec *bib.Record) {
	var authors []person
	m.into("author", &authors)
	for _, a := range authors {
		if p := a.person(); p.Family != "" {
			rec.Authors = append(rec.Authors, p)
		}
	}
}

func (m members) pages(rec *bib.Record) {
	first := m.text("page-first")
	if rec.FirstPage, rec.LastPage = exchange.PageRange(m.text("page")); rec.FirstPage == "" && rec.LastPage == "" {
		rec.FirstPage = first
	}
}

func (m members) languages(rec *bib.Record, own []string) {
	if rec.Languages = own; len(own) == 0 {
		rec.Languages = exchange.Values([]string{m.text("language")})
	}
	m.used["language"] = true
}

func (m members) types(rec *bib.Record, own []string) {
	genre, kind := exchange.Parted(m.text("genre")), m.text("type")
	if rec.Types = own; len(own) == 0 {
		rec.Types = genre
	}
	if code := codes[kind]; code != "" && !slices.Contains(rec.Types, code) {
		rec.Types = append(rec.Types, code)
	}
}

// rest returns the members that were made no use of.
func (m members) rest() (out []bib.Extra) {
	for _, name := range slices.Sorted(maps.Keys(m.item)) {
		if v := string(m.item[name]); !m.used[name] && v != "null" {
			out = append(out, bib.Extra{Tag: name, Value: v, Format: Format})
		}
	}
	return out
}

// reported says what a record lacks, and reports whether it is one at all.
func (r *Reader) reported(rec *bib.Record, i item, line int) bool {
	if rec.Title == "" && rec.Abstract == "" && rec.DOI == "" && len(rec.Authors) == 0 {
		r.notice(line, exchange.Nothing, "", true)
		return false
	}
	if rec.Title == "" {
		r.notice(line, exchange.NoTitle, "", false)
	}
	if raw := i["issued"]; rec.Year == 0 && len(raw) > 0 && string(raw) != "null" {
		r.notice(line, exchange.NoYear, string(raw), false)
	}
	return true
}

// idOf is the id of an item that has none of its own.
func idOf(r *bib.Record) string {
	if r.Accession != "" {
		return r.Accession
	}
	return r.DOI
}

// A Writer writes records one at a time, as an array.
type Writer struct {
	w io.Writer
	n int
}

// NewWriter writes to w; Close ends the array.
func NewWriter(w io.Writer) *Writer { return &Writer{w: w} }

// Write writes one record as an item.
func (w *Writer) Write(r *bib.Record) error {
	w.n++
	out := map[string]any{}
	put := func(name, v string) {
		if v != "" {
			out[name] = v
		}
	}
	if r.LocalID != "" {
		out["id"] = r.LocalID
	} else if id := idOf(r); id != "" {
		out["id"] = id
	} else {
		out["id"] = fmt.Sprintf("#%d", w.n)
	}
	var own custom
	own.Accession, own.Countries, own.Substances, own.Others = r.Accession, r.Countries, r.Substances, r.Others
	out["type"] = "document"
	rest := r.Types
	if i := slices.IndexFunc(r.Types, func(t string) bool { return kinds[t] != "" }); i >= 0 {
		out["type"] = kinds[r.Types[i]]
		rest = slices.Delete(slices.Clone(r.Types), i, i+1)
		if i != len(r.Types)-1 {
			own.Types = r.Types // their order
		}
	}
	put("genre", exchange.Joined(rest))
	if slices.ContainsFunc(rest, func(t string) bool { return strings.Contains(t, ";") }) {
		own.Types = r.Types
	}
	put("title", r.Title)
	put("abstract", r.Abstract)
	put("container-title", r.Journal)
	put("DOI", r.DOI)
	put("ISSN", r.ISSN)
	put("volume", r.Volume)
	put("issue", r.Issue)
	if r.FirstPage != "" {
		put("page", strings.TrimSuffix(r.FirstPage+"-"+r.LastPage, "-"))
	}
	var authors []person
	for _, a := range r.Authors {
		p := person{Family: a.Family, Given: a.Given}
		if a.Written != "" || a.Given == "" {
			p = person{Literal: a.String()}
			if a.Written == "" && bib.ParsePerson(p.Literal) != a {
				p = person{Family: a.Family}
			}
		} else if given, suffix, ok := strings.Cut(a.Given, ", "); ok {
			p.Given, p.Suffix = given, suffix
		}
		authors = append(authors, p)
	}
	if len(authors) > 0 {
		out["author"] = authors
	}
	if r.Year > 0 {
		out["issued"] = map[string]any{"date-parts": [][]int{{r.Year}}}
	}
	keywords := slices.Clone(r.Keywords)
	for _, h := range r.Headings {
		keywords = append(keywords, h.Line())
	}
	put("keyword", exchange.Joined(keywords))
	if len(r.Languages) > 0 {
		out["language"] = r.Languages[0]
		if len(r.Languages) > 1 {
			own.Languages = r.Languages
		}
	}
	if len(r.URLs) > 0 {
		out["URL"] = r.URLs[0]
		own.URLs = r.URLs[1:]
	}
	if len(
		own.Accession,
	)+len(
		own.Countries,
	)+len(
		own.Substances,
	)+len(
		own.Others,
	)+len(
		own.Types,
	)+len(
		own.Languages,
	)+len(
		own.URLs,
	) > 0 {
		out["custom"] = own
	}
	for _, e := range r.Extra {
		if _, taken := out[e.Tag]; e.Format == Format && !taken && json.Valid([]byte(e.Value)) {
			out[e.Tag] = json.RawMessage(e.Value)
		}
	}
	var b bytes.Buffer
	b.WriteString(map[bool]string{true: "[\n", false: ",\n"}[w.n == 1])
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	if err := e.Encode(out); err != nil {
		return err
	}
	_, err := w.w.Write(bytes.TrimRight(b.Bytes(), "\n"))
	return err
}

// Close ends the array.
func (w *Writer) Close() error {
	end := "\n]\n"
	if w.n == 0 {
		end = "[]\n"
	}
	_, err := io.WriteString(w.w, end)
	return err
}
