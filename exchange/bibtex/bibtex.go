// Package bibtex reads and writes bibliographic records in BibTeX and BibLaTeX. The reader is a stream and
// goes on after an entry that it cannot make out: at the next line that begins one.
package bibtex

import (
	"errors"
	"io"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// Format names the files whose fields are kept under their own name.
const Format = "bibtex"

// Limits of what is read.
const (
	maxEntry   = 16 << 20 // bytes of an entry
	maxStrings = 10_000   // abbreviations of a file
	maxParents = 10_000   // entries kept for crossref, and entries that wait for one
)

// A Reader reads records one at a time.
type Reader struct {
	src     *source
	sorter  exchange.Sorter
	report  func(exchange.Notice)
	strings map[string]string
	names   map[string]string // of fields, each once: all entries have the same
	n       int

	buf     []byte           // of the value that is read
	parents map[string]entry // entries that another may name in its crossref, by key
	waiting []entry          // entries whose parent has not come yet: it usually stands after them
	ended   bool
}

type entry struct {
	kind, key string
	line, n   int
	fields    []field
}

// A field is one of an entry as it stands in the file, abbreviations filled in. Entries have few: they are
// looked through.
type field struct {
	name, value string
	used        bool // it stands for a field of a record
}

func (e *entry) field(name string) *field {
	for i := range e.fields {
		if e.fields[i].name == name {
			return &e.fields[i]
		}
	}
	return nil
}

// use returns the value of a field that stands for one of a record; empty where there is none.
func (e *entry) use(name string) string {
	if f := e.field(name); f != nil {
		f.used = true
		return f.value
	}
	return ""
}

// NewReader reads records from UTF-8 text (see exchange.Decode). What it cannot take as it stands it tells
// to report, which may be nil.
func NewReader(r io.Reader, sorter exchange.Sorter, report func(exchange.Notice)) *Reader {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	months := map[string]string{}
	for i, m := range strings.Fields("jan feb mar apr may jun jul aug sep oct nov dec") {
		months[m] = []string{"01", "02", "03", "04", "05", "06", "07", "08", "09", "10", "11", "12"}[i]
	}
	return &Reader{
		src:     newSource(r),
		sorter:  sorter,
		report:  report,
		strings: months,
		names:   map[string]string{},
		parents: map[string]entry{},
	}
}

// Read returns the next record, or io.EOF after the last. An entry with a crossref to one further down
// comes after all others.
func (r *Reader) Read() (*bib.Record, error) {
	for {
		e, err := r.entry()
		if errors.Is(err, io.EOF) {
			return nil, io.EOF
		}
		if err != nil {
			return nil, err
		}
		if rec := r.record(e); rec != nil {
			return rec, nil
		}
	}
}

// entry returns the next entry with what it takes from its parent.
func (r *Reader) entry() (entry, error) {
	for !r.ended {
		e, err := r.next()
		if errors.Is(err, io.EOF) {
			r.ended = true
			break
		}
		if err != nil {
			return e, err
		}
		if len(r.parents) < maxParents &&
			(e.kind == "proceedings" || e.kind == "book" || e.kind == "collection" || e.kind == "mvbook" ||
				e.kind == "periodical" || e.kind == "xdata") {
			r.parents[e.key] = e
		}
		if e.kind == "xdata" { // data for others, no record itself
			continue
		}
		if parent := e.parent(); parent != "" {
			if p, ok := r.parents[parent]; ok {
				e.inherit(p)
			} else if len(r.waiting) < maxParents {
				r.waiting = append(r.waiting, e)
				continue
			}
		}
		return e, nil
	}
	if len(r.waiting) == 0 {
		return entry{}, io.EOF
	}
	e := r.waiting[0]
	r.waiting = r.waiting[1:]
	if p, ok := r.parents[e.parent()]; ok {
		e.inherit(p)
	} else {
		r.report(exchange.Notice{Line: e.line, Record: e.n, Kind: exchange.NoCrossref, Detail: e.parent()})
	}
	return e, nil
}

func (e *entry) parent() string {
	if p := e.use("crossref"); p != "" {
		return p
	}
	return e.use("xdata")
}

// inherit takes from a parent what the entry does not say itself; the parent's title is the entry's book.
func (e *entry) inherit(p entry) {
	for _, f := range p.fields {
		name, to := f.name, f.name
		switch {
		case p.kind == "xdata":
		case name == "title" && p.kind == "periodical":
			to = "journaltitle"
		case name == "title":
			to = "booktitle"
		case name == "keywords" || name == "abstract" || name == "doi" || name == "author" || name == "crossref":
			continue
		}
		e.set(to, f.value)
	}
}

// set gives the entry a field that it has not yet.
func (e *entry) set(name, value string) {
	if e.field(name) == nil {
		e.fields = append(e.fields, field{name: name, value: value})
	}
}

// next reads up to the end of the next entry that is a record.
func (r *Reader) next() (entry, error) {
	for {
		e, err := r.parse()
		var bad *syntax
		switch {
		case errors.As(err, &bad):
			kept := bad.kind.Partial() && e.field("title") != nil
			r.report(
				exchange.Notice{
					Line:    bad.line,
					Record:  bad.n,
					Kind:    bad.kind,
					Detail:  exchange.Shorten(bib.Flat(bad.detail)),
					Skipped: !kept,
				},
			)
			if kept {
				return e, nil
			}
		case err != nil:
			return e, err
		case e.kind != "":
			return e, nil
		}
	}
}

// What stands for a field of a record. Of several names the first that is there counts.
var standFor = []struct {
	field string
	names []string
}{
	{"abstract", []string{"abstract"}},
	{"journal", []string{"journaltitle", "journal", "booktitle"}},
	{"volume", []string{"volume"}},
	{"issue", []string{"number", "issue"}},
	{"doi", []string{"doi"}},
	{"issn", []string{"issn"}},
	{"accession", []string{"accession"}},
}

// Entry types and the codes by which RIS knows the same, so that types do not depend on the format.
var codes = map[string]string{
	"article":       "JOUR",
	"book":          "BOOK",
	"incollection":  "CHAP",
	"inbook":        "CHAP",
	"inproceedings": "CPAPER",
	"conference":    "CPAPER",
	"proceedings":   "CONF",
	"phdthesis":     "THES",
	"mastersthesis": "THES",
	"thesis":        "THES",
	"techreport":    "RPRT",
	"report":        "RPRT",
	"unpublished":   "UNPB",
	"online":        "ELEC",
	"electronic":    "ELEC",
	"patent":        "PAT",
	"dataset":       "DATA",
}

func (r *Reader) record(e entry) *bib.Record {
	notice := func(kind exchange.Kind, detail string, skipped bool) {
		r.report(exchange.Notice{Line: e.line, Record: e.n, Kind: kind, Detail: exchange.Shorten(detail), Skipped: skipped})
	}
	take := func(name string) string { return bib.Flat(Plain(e.use(name))) }
	rec := &bib.Record{Title: take("title")}
	if sub := take("subtitle"); sub != "" {
		rec.Title += ": " + sub
	}
	for _, f := range standFor {
		for _, name := range f.names {
			if v := take(name); v != "" {
				exchange.Put(rec, f.field, []string{v}, r.sorter)
				break
			}
		}
	}
	rec.Authors = people(e.use("author"))
	if first, last := exchange.PageRange(take("pages")); first != "" {
		rec.FirstPage, rec.LastPage = first, last
	}
	exchange.Put(rec, "keywords", exchange.Parted(take("keywords")), r.sorter)
	exchange.Put(rec, "keywords", exchange.Parted(take("keyword")), r.sorter)
	rec.Languages = exchange.Parted(take("language"))
	if id := take("langid"); len(rec.Languages) == 0 && id != "" {
		rec.Languages = []string{id}
	}
	rec.Countries = exchange.Parted(take("country"))
	rec.Substances = exchange.Parted(take("substances"))
	rec.Types = exchange.Parted(take("type"))
	if code := codes[e.kind]; code != "" && !slices.Contains(rec.Types, code) {
		rec.Types = append(rec.Types, code)
	}
	rec.URLs = exchange.AppendSplit(nil, plainURL(e.use("url")), " ")
	for _, name := range []string{"date", "year"} {
		if v := take(name); v != "" && rec.Year == 0 {
			if rec.Year = bib.ParseYear(v); rec.Year == 0 {
				notice(exchange.NoYear, v, false)
			}
		}
	}
	e.use("month")
	e.use("day")
	if title, abstract, language := take("othertitle"), take("otherabstract"), take("otherlanguage"); title != "" ||
		abstract != "" {
		rec.Others = []bib.Rendering{{Language: language, Title: title, Abstract: abstract}}
	}
	// A key that was made for the file says nothing new.
	if key := bib.Flat(e.key); key != keyOf(rec) {
		rec.LocalID = key
	}
	for _, f := range e.fields {
		if f.used {
			continue
		}
		if v := bib.Flat(f.value); v != "" {
			rec.Extra = append(rec.Extra, bib.Extra{Tag: f.name, Value: v, Format: Format})
		}
	}
	bare := *rec
	bare.LocalID = "" // every entry has a key
	if exchange.Empty(&bare) {
		notice(exchange.Nothing, "", true)
		return nil
	}
	if rec.Title == "" {
		notice(exchange.NoTitle, "", false)
	}
	rec.Name(e.n)
	return rec
}

// plainURL leaves an address as it is but for the escapes that some programs put into it.
func plainURL(s string) string { return bib.Flat(escapes.Replace(s)) }

var escapes = strings.NewReplacer(`\_`, "_", `\%`, "%", `\#`, "#", `\&`, "&", `\~{}`, "~", "{", "", "}", "")
