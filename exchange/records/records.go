// Package records reads and writes files of bibliographic records in every format that Tamiz knows: it tells
// formats apart by what is in a file, opens packed files, and hands each to its reader. It is the one door
// through which record files come in and go out.
package records

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/bibtex"
	"tamiz/exchange/csljson"
	"tamiz/exchange/dc"
	"tamiz/exchange/marcxml"
	"tamiz/exchange/mods"
	"tamiz/exchange/packed"
	"tamiz/exchange/ris"
	"tamiz/exchange/table"
	"tamiz/exchange/tagged"
	"tamiz/exchange/xmlfile"
)

// A Format is a format of record files.
type Format string

// The formats that are read. The first five are written too, and CSV with tabs.
const (
	RIS     Format = "ris"
	BibTeX  Format = "bibtex"
	CSL     Format = "csl"
	CSV     Format = "csv"
	TSV     Format = "tsv"
	MODS    Format = "mods"
	MARCXML Format = "marcxml"
	DC      Format = "dc"
	Tagged  Format = "tagged" // any other tagged text, by a reader map
)

// A Reader reads records one at a time; io.EOF comes after the last.
type Reader interface {
	Read() (*bib.Record, error)
}

// A Writer writes records one at a time; Close ends the file.
type Writer interface {
	Write(*bib.Record) error
	Close() error
}

// Options say how files are read.
type Options struct {
	Sorter  exchange.Sorter
	Columns *table.Columns        // for tables; without them they are guessed
	Map     *tagged.Map           // for tagged text that no reader knows
	Report  func(exchange.Notice) // what could not be taken as it stood; may be nil
	Ask     bool                  // a table whose columns are not all known by name is asked about, not guessed
}

// ErrUnknown says that a file is in no format that is known.
var ErrUnknown = errors.New("no format that Tamiz reads: no RIS, BibTeX, CSL-JSON, table, MODS, MARCXML or Dublin Core")

// A Question is what has to be known before a file can be read.
type Question struct {
	Format  Format         // CSV, TSV or Tagged
	Columns *table.Columns // as guessed
	Map     *tagged.Map    // as guessed
}

func (q *Question) Error() string {
	if q.Format == Tagged {
		return ErrUnknown.Error() + "; with a reader map it can be read"
	}
	return "the columns of the table are not known by their names"
}

const headSize = 128 << 10 // bytes that a format is told by

// Open returns a reader of the records of a file, which may be packed, and the format of its first part.
// The error is a *Question where a table or a tagged text has to be explained first.
func Open(file io.ReadSeeker, o Options) (Reader, Format, error) {
	if o.Report == nil {
		o.Report = func(exchange.Notice) {}
	}
	parts, err := packed.Open(file)
	if err != nil {
		return nil, "", err
	}
	if len(parts) == 1 {
		return o.open(parts[0].File)
	}
	all := &several{o: o, parts: parts}
	// All parts are looked at first, so that what has to be asked is asked before anything is read.
	var format Format
	var unknown []string
	for _, p := range parts {
		_, f, err := o.quiet().open(p.File)
		var q *Question
		switch {
		case errors.As(err, &q):
			return nil, "", fmt.Errorf("%s: %w", p.Name, err)
		case errors.Is(err, ErrUnknown) || errors.Is(err, errOther) || errors.Is(err, packed.ErrOther):
			unknown = append(unknown, p.Name)
		case err != nil:
			return nil, "", fmt.Errorf("%s: %w", p.Name, err)
		case format == "":
			format = f
		}
	}
	if format == "" {
		return nil, "", ErrUnknown
	}
	all.unknown = unknown
	return all, format, nil
}

func (o Options) quiet() Options {
	o.Report = func(exchange.Notice) {}
	return o
}

// open opens one file that is not packed.
func (o Options) open(file io.ReadSeeker) (Reader, Format, error) {
	if err := refuseBinary(file); err != nil {
		return nil, "", err
	}
	text, encoding, err := exchange.Decode(file)
	if err != nil {
		return nil, "", err
	}
	head, whole, err := beginning(text)
	if err != nil {
		return nil, "", err
	}
	text = io.MultiReader(strings.NewReader(head), text)
	format, guess, err := detect(head)
	// What was said of a file holds where its format could be anything.
	switch unclear := errors.Is(err, ErrUnknown) || format == CSV || format == TSV; {
	case unclear && o.Columns != nil && format == "":
		format, err = CSV, nil
	case unclear && o.Columns == nil && o.Map != nil:
		format, err = Tagged, nil
	}
	if err != nil {
		if errors.Is(err, ErrUnknown) {
			if m, ok := tagged.Guess(head); ok || looksText(head) {
				return nil, "", &Question{Format: Tagged, Map: &m}
			}
		}
		return nil, "", err
	}
	if encoding == exchange.Windows1252 {
		o.Report(exchange.Notice{Kind: exchange.OtherEncoding, Detail: encoding})
	}
	if encoding == exchange.UTF8Cut {
		o.Report(exchange.Notice{Kind: exchange.CutChar})
	}
	if claim := claimed(head); claim != "" && encoding == exchange.UTF8 && !strings.EqualFold(claim, "utf-8") &&
		!strings.EqualFold(claim, "us-ascii") ||
		claim != "" && encoding == exchange.Windows1252 && (strings.EqualFold(claim, "utf-8") || strings.EqualFold(claim,
			"utf-16")) {
		o.Report(exchange.Notice{Line: 1, Kind: exchange.OtherClaim, Detail: claim})
	}
	if guess == nil && (format == CSV || format == TSV) {
		g, _ := table.Guess(head, whole)
		guess = &g
	}
	r, err := o.reader(format, text, guess)
	if err != nil {
		return nil, "", err
	}
	return &plain{r}, format, nil
}

func (o Options) reader(format Format, text io.Reader, guess *table.Columns) (Reader, error) {
	switch format {
	case RIS:
		return ris.NewReader(text, o.Sorter, o.Report), nil
	case BibTeX:
		return bibtex.NewReader(text, o.Sorter, o.Report), nil
	case CSL:
		return csljson.NewReader(text, o.Sorter, o.Report), nil
	case MODS:
		return xmlfile.NewReader(text, "mods", mods.Decode, o.Report), nil
	case MARCXML:
		return xmlfile.NewReader(text, "record", marcxml.Decode, o.Report), nil
	case DC:
		return xmlfile.NewReader(text, "dc", dc.Decode, o.Report), nil
	case Tagged:
		r := tagged.NewReader(text, *o.Map, string(Tagged), o.Report)
		r.Sorter = o.Sorter
		return r, nil
	}
	columns := o.Columns
	if columns == nil {
		if o.Ask && !guess.Known() || guess.Check() != nil {
			return nil, &Question{Format: format, Columns: guess}
		}
		columns = guess
	}
	return table.NewReader(text, *columns, o.Sorter, o.Report), nil
}

// refuseBinary says when a file is no text, which its bytes of zero tell; UTF-16 has them too, but says so
// at its beginning.
func refuseBinary(file io.ReadSeeker) error {
	b := make([]byte, 1024)
	n, err := io.ReadFull(file, b)
	if err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF) {
		return err
	}
	if b = b[:n]; bytes.Count(b, []byte{0}) > n/50+3 && !bytes.HasPrefix(b, []byte("\xff\xfe")) &&
		!bytes.HasPrefix(b, []byte("\xfe\xff")) {
		return fmt.Errorf("%w: it is no text, or UTF-16 without the mark that says so", errOther)
	}
	_, err = file.Seek(0, io.SeekStart)
	return err
}

// Beginning returns the first bytes of a file, of its first part where it is packed, and whether that is all
// of it: enough for a person to explain the file by.
func Beginning(file io.ReadSeeker) ([]byte, bool, error) {
	parts, err := packed.Open(file)
	if err != nil || len(parts) == 0 {
		return nil, false, err
	}
	if _, err := parts[0].File.Seek(0, io.SeekStart); err != nil {
		return nil, false, err
	}
	b := make([]byte, headSize)
	n, err := io.ReadFull(parts[0].File, b)
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return b[:n], true, nil
	}
	return b[:n], false, err
}

func beginning(text io.Reader) (head string, whole bool, err error) {
	b := make([]byte, headSize)
	n, err := io.ReadFull(text, b)
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return string(b[:n]), true, nil
	}
	return string(b[:n]), false, err
}

var (
	risShape    = regexp.MustCompile(`(?m)^TY  -([ \t]|\r?$)`)
	bibShape    = regexp.MustCompile(`(?m)^[ \t]*@[A-Za-z]+[ \t]*[{(]`)
	claimShape  = regexp.MustCompile(`^\s*<\?xml[^>]*encoding\s*=\s*["']([^"']+)["']`)
	elementName = regexp.MustCompile(`<(?:[\w.-]+:)?([\w.-]+)[\s/>]`)
	cslShape    = regexp.MustCompile(`"(title|author|issued|container-title|DOI|abstract)"\s*:`)
)

// errOther says what a file is that holds no records.
var errOther = errors.New("the file holds no records")

// Detect tells a format by the beginning of a file's text. Text that no reader knows is ErrUnknown.
func Detect(head string) (Format, error) {
	f, _, err := detect(head)
	return f, err
}

// detect tells also how the columns of a table are guessed, where it had to guess them.
func detect(head string) (Format, *table.Columns, error) {
	text := strings.TrimLeft(strings.TrimPrefix(head, "\ufeff"), " \t\r\n")
	switch {
	case text == "":
		return "", nil, fmt.Errorf("%w: it is empty", errOther)
	case text[0] == '<':
		f, err := detectXML(text)
		return f, nil, err
	case text[0] == '[' || text[0] == '{':
		if cslShape.MatchString(text) && !strings.Contains(text, `"@context"`) {
			return CSL, nil, nil
		}
		if strings.Contains(text, `"@context"`) || strings.Contains(text, `"@graph"`) {
			return "", nil, fmt.Errorf("%w: it is linked data; a vocabulary is brought in at its own place", errOther)
		}
		if strings.TrimSpace(text) == "[]" {
			return "", nil, fmt.Errorf("%w: its list is empty", errOther)
		}
		return "", nil, fmt.Errorf("%w: it is JSON, but its items have neither title nor author", errOther)
	}
	r, b := find(risShape, text, "TY  -"), find(bibShape, text, "@")
	switch {
	case r != nil && (b == nil || r[0] < b[0]):
		return RIS, nil, nil
	case b != nil:
		return BibTeX, nil, nil
	}
	if c, ok := table.Guess(text, len(head) < headSize); ok {
		// Sentences have commas too: a table is told by the names of its columns, or by its rows being even.
		if c.Head || !prose(text) {
			if c.Delimiter == "\t" {
				return TSV, &c, nil
			}
			return CSV, &c, nil
		}
	}
	return "", nil, ErrUnknown
}

// find returns where a shape is found in a text; no shape is without its sign, for which it costs little to look.
func find(shape *regexp.Regexp, text, sign string) []int {
	if !strings.Contains(text, sign) {
		return nil
	}
	return shape.FindStringIndex(text)
}

// prose reports whether a text looks like tagged lines or sentences rather than rows.
func prose(text string) bool {
	_, ok := tagged.Guess(text)
	return ok
}

func detectXML(text string) (Format, error) {
	found := map[string]bool{}
	for _, m := range elementName.FindAllStringSubmatch(text, 400) {
		found[m[1]] = true
	}
	switch {
	case found["mods"] || found["modsCollection"]:
		return MODS, nil
	case found["datafield"] || found["controlfield"] || found["leader"]:
		return MARCXML, nil
	case found["dc"] || strings.Contains(text, "purl.org/dc/elements"):
		return DC, nil
	case found["html"] || strings.Contains(strings.ToLower(text[:min(len(text), 200)]), "<!doctype html"):
		return "", fmt.Errorf("%w: it is a web page", errOther)
	case found["RDF"] || strings.Contains(text, "skos/core"):
		return "", fmt.Errorf("%w: it is linked data; a vocabulary is brought in at its own place", errOther)
	}
	return "", fmt.Errorf("%w: it is XML, but neither MODS, MARCXML nor Dublin Core", errOther)
}

func claimed(head string) string {
	if m := claimShape.FindStringSubmatch(head); m != nil {
		return m[1]
	}
	return ""
}

// looksText reports whether a person could make sense of a text.
func looksText(head string) bool {
	odd := 0
	for _, r := range head {
		if r == '\ufffd' || r < ' ' && r != '\n' && r != '\r' && r != '\t' {
			odd++
		}
	}
	return len(head) > 0 && odd*50 < len(head)
}

// plain gives records whose texts are free of markup.
type plain struct{ r Reader }

func (p *plain) Read() (*bib.Record, error) {
	rec, err := p.r.Read()
	if err != nil {
		return nil, err
	}
	exchange.Tidy(rec, exchange.Plain)
	return rec, nil
}

// several reads the parts of a packed file one after the other.
type several struct {
	o       Options
	parts   []packed.Part
	unknown []string
	current Reader
	n       int
}

func (s *several) Read() (*bib.Record, error) {
	for {
		if s.current == nil {
			if len(s.parts) == 0 {
				return nil, io.EOF
			}
			next := s.parts[0]
			s.parts = s.parts[1:]
			if slices.Contains(s.unknown, next.Name) {
				s.o.Report(exchange.Notice{Kind: exchange.PartUnknown, Detail: exchange.Shorten(next.Name), Skipped: true})
				continue
			}
			s.o.Report(exchange.Notice{Kind: exchange.Part, Detail: exchange.Shorten(next.Name)})
			r, _, err := s.o.open(next.File)
			if err != nil {
				return nil, fmt.Errorf("%s: %w", next.Name, err)
			}
			s.current = r
		}
		rec, err := s.current.Read()
		if errors.Is(err, io.EOF) {
			s.current = nil
			continue
		}
		if err != nil {
			return nil, err
		}
		s.n++
		if strings.HasPrefix(rec.ID, "#") {
			rec.Name(s.n) // numbered through all parts
		}
		return rec, nil
	}
}
