package tagged

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// Limits of what is read of one record; a larger one is reported and skipped.
const (
	maxRecord = 16 << 20 // bytes of all its values
	maxValues = 200_000  // tagged lines
)

// A Reader reads records one at a time.
type Reader struct {
	Sorter exchange.Sorter // tells headings from keywords where one tag stands for both

	m      Map
	fields []field
	listed map[string]int // tags of the map by number
	tags   []string       // tags by number, those that only the file has after those of the map
	number map[string]int
	mapped []bool // by number, the tags that stand for a field, or begin or end a record
	begins int
	ends   int

	lines  *exchange.Lines
	report func(exchange.Notice)
	n      int // records begun
	next   *raw
	spare  *raw
	ended  bool
	format string // of the fields that are kept under their own name
}

type field struct {
	is   Field
	tags []int
}

// raw is a record as tagged values. They lie one after the other in text, so that lines can be added to
// the last in time that does not grow with what is there.
type raw struct {
	line   int
	n      int
	text   []byte
	values []value
	large  bool
	closed bool
}

type value struct{ tag, from, to, line int }

// NewReader reads records from UTF-8 text (see exchange.Decode) by a map that has been checked. What it
// cannot take as it stands it tells to report, which may be nil. format names the kind of file to which
// fields that the map keeps under their own name belong; it is empty for RIS.
func NewReader(r io.Reader, m Map, format string, report func(exchange.Notice)) *Reader {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	t := &Reader{
		m:      m,
		lines:  exchange.NewLines(r, maxRecord+1),
		report: report,
		number: map[string]int{},
		listed: map[string]int{},
		format: format,
		begins: -1,
		ends:   -1,
	}
	for _, f := range m.Fields {
		c := field{is: f}
		for _, tag := range f.Tags {
			c.tags = append(c.tags, t.tag(m.Line.fold(tag), tag))
		}
		t.fields = append(t.fields, c)
	}
	if m.Begins != "" {
		t.begins = t.tag(m.Line.fold(m.Begins), m.Begins)
	}
	if m.Ends != "" {
		t.ends = t.tag(m.Line.fold(m.Ends), m.Ends)
	}
	t.mapped = make([]bool, len(t.tags))
	for tag, i := range t.number {
		t.listed[tag] = i
		t.mapped[i] = i == t.begins || i == t.ends
	}
	for _, f := range t.fields {
		for _, i := range f.tags {
			t.mapped[i] = t.mapped[i] || f.is.Field != exchange.Own
		}
	}
	return t
}

// tag returns the number of a tag; written is how it is shown when it is kept.
func (r *Reader) tag(folded, written string) int {
	if i, ok := r.number[folded]; ok {
		return i
	}
	r.number[folded] = len(r.tags)
	r.tags = append(r.tags, written)
	return len(r.tags) - 1
}

// split takes a tagged line apart and returns the number of its tag.
func (r *Reader) split(line []byte) (tag int, value []byte, ok bool) {
	name, value, ok := r.m.Line.split(line)
	if !ok {
		return 0, nil, false
	}
	if i, known := r.number[string(name)]; known && r.m.Line.Letters == Code { // the common case makes no string
		return i, value, !r.m.Line.Listed || r.isListed(string(name))
	}
	folded := r.m.Line.fold(string(name))
	if r.m.Line.Listed && !r.isListed(folded) {
		return 0, nil, false
	}
	if len(r.tags) > 10_000 { // no kind of file has as many
		return 0, nil, false
	}
	return r.tag(folded, string(name)), value, true
}

func (r *Reader) isListed(tag string) bool { _, ok := r.listed[tag]; return ok }

// Read returns the next record, or io.EOF after the last.
func (r *Reader) Read() (*bib.Record, error) {
	for {
		w, err := r.raw()
		if err != nil {
			return nil, err
		}
		rec := r.record(w)
		r.spare = w
		if rec != nil {
			return rec, nil
		}
	}
}

func (r *Reader) begin() *raw {
	r.n++
	w := r.spare
	if w == nil || cap(w.text) > 1<<20 {
		w = &raw{}
	}
	r.spare = nil
	*w = raw{line: r.lines.Number(), n: r.n, text: w.text[:0], values: w.values[:0]}
	return w
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
		if r.m.Rule != "" && bytes.HasPrefix(line, []byte(r.m.Rule)) || r.m.Blank && len(bytes.TrimSpace(line)) == 0 {
			if current != nil {
				current.closed = true
				return current, nil
			}
			continue
		}
		tag, value, ok := r.split(line)
		begins := ok && (tag == r.begins || r.begins < 0 && current == nil && tag != r.ends)
		switch {
		case begins:
			previous := current
			current = r.begin()
			current.add(tag, value, r.lines.Number(), cut)
			if previous != nil {
				// Where nothing marks an end, the next beginning is one.
				previous.closed = r.ends < 0
				r.next = current
				return previous, nil
			}
		case current == nil:
			if s := strings.TrimSpace(string(line)); s != "" && stray == nil && (!ok || tag != r.ends) {
				stray = &exchange.Notice{
					Line:    r.lines.Number(),
					Kind:    strayKind(s, r.n),
					Detail:  exchange.Shorten(s),
					Skipped: true,
				}
			}
		case ok && tag == r.ends:
			current.closed = true
			return current, nil
		case ok:
			current.add(tag, value, r.lines.Number(), cut)
		case r.m.Continues == AnyLine || len(line) > 0 && (line[0] == ' ' || line[0] == '\t'):
			current.extend(line, cut)
		default:
			if s := strings.TrimSpace(string(line)); s != "" {
				r.report(
					exchange.Notice{
						Line:    r.lines.Number(),
						Record:  current.n,
						Kind:    exchange.NoTag,
						Detail:  exchange.Shorten(s),
						Skipped: true,
					},
				)
			}
		}
	}
	if current != nil {
		current.closed = current.closed || r.ends < 0
		return current, nil
	}
	return nil, io.EOF
}

// strayKind tells text that belongs to no record from the beginning of another format in the same file.
func strayKind(s string, records int) exchange.Kind {
	if records > 0 && exchange.LooksOther(s) {
		return exchange.OtherFormat
	}
	return exchange.BeforeFirst
}

func (w *raw) add(tag int, v []byte, line int, cut bool) {
	if w.large = w.large || cut || len(w.text)+len(v) > maxRecord || len(w.values) >= maxValues; w.large {
		w.text, w.values = w.text[:0], w.values[:0]
		return
	}
	from := len(w.text)
	w.text = append(w.text, v...)
	w.values = append(w.values, value{tag, from, len(w.text), line})
}

// extend goes on with the value before.
func (w *raw) extend(line []byte, cut bool) {
	more := bytes.TrimSpace(line)
	if w.large = w.large || cut || len(w.text)+len(more) > maxRecord; w.large || len(more) == 0 {
		return
	}
	last := &w.values[len(w.values)-1]
	if last.to > last.from {
		w.text = append(w.text, ' ')
	}
	w.text = append(w.text, more...)
	last.to = len(w.text)
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
	text := string(w.text)
	rec := &bib.Record{}
	var noYear *value
	for _, f := range r.fields {
		if f.is.Field == exchange.Leave || f.is.Field == exchange.Own {
			continue
		}
		values, first := f.of(w, text)
		if len(values) == 0 {
			continue
		}
		if !exchange.Put(rec, f.is.Field, values, r.Sorter) && f.is.Field == "year" {
			noYear = first
		}
	}
	for _, v := range w.values {
		if v.to > v.from && (v.tag >= len(r.mapped) || !r.mapped[v.tag]) {
			rec.Extra = append(rec.Extra, bib.Extra{Tag: r.tags[v.tag], Value: text[v.from:v.to], Format: r.format})
		}
	}
	if exchange.Empty(rec) {
		notice(exchange.Nothing, w.line, "", true)
		return nil
	}
	if rec.Title == "" {
		notice(exchange.NoTitle, w.line, "", false)
	}
	if noYear != nil && rec.Year == 0 {
		notice(exchange.NoYear, noYear.line, exchange.Shorten(text[noYear.from:noYear.to]), false)
	}
	rec.Name(w.n)
	return rec
}

// of returns the values of a field, and the first of them as it lies in the record.
func (f *field) of(w *raw, text string) (values []string, first *value) {
	if f.is.Take == All {
		for i := range w.values {
			if v := &w.values[i]; slices.Contains(f.tags, v.tag) {
				values = f.take(values, v, text, &first)
			}
		}
		return values, first
	}
	for _, tag := range f.tags {
		for i := range w.values {
			if v := &w.values[i]; v.tag == tag {
				values = f.take(values, v, text, &first)
			}
		}
		if len(values) > 0 && f.is.Take != Each {
			break
		}
	}
	return values, first
}

// take adds what one line holds.
func (f *field) take(values []string, v *value, text string, first **value) []string {
	if v.to == v.from {
		return values
	}
	if *first == nil {
		*first = v
	}
	switch s := text[v.from:v.to]; f.is.Split {
	case "":
		return append(values, s)
	case Auto:
		return append(values, exchange.Parted(s)...)
	default:
		return exchange.AppendSplit(values, s, f.is.Split)
	}
}
