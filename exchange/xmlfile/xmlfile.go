// Package xmlfile reads the records of an XML file one after the other, whatever stands around them. A
// record that is not well-formed costs no other: reading goes on at the next one that begins. No DTD is
// followed and no entity of a file's own is expanded.
package xmlfile

import (
	"bufio"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

const maxRecord = 16 << 20 // bytes of a record

// Decode reads the record that begins with an element. Where it comes back with an error, what it could
// read is kept if it has a title.
type Decode func(d *xml.Decoder, start xml.StartElement) (*bib.Record, error)

// A Reader reads records one at a time.
type Reader struct {
	src    *source
	d      *xml.Decoder
	name   string
	decode Decode
	report func(exchange.Notice)
	lost   bool // after a record that broke, what closes the elements around it is not known
	dtd    bool
	n      int
	ended  bool
}

// NewReader reads the elements of a local name from UTF-8 text (see exchange.Decode). What it cannot take
// as it stands it tells to report, which may be nil.
func NewReader(r io.Reader, name string, decode Decode, report func(exchange.Notice)) *Reader {
	if report == nil {
		report = func(exchange.Notice) {}
	}
	x := &Reader{
		src:    &source{r: bufio.NewReaderSize(r, 64<<10), line: 1, budget: maxRecord},
		name:   name,
		decode: decode,
		report: report,
	}
	x.begin()
	return x
}

// begin sets a decoder on what comes next. It takes the text byte by byte, so that nothing is lost with it.
func (r *Reader) begin() {
	r.d = xml.NewDecoder(r.src)
	r.d.Entity = xml.HTMLEntity // entities of HTML are common in records, declared or not
	r.d.CharsetReader = func(_ string, input io.Reader) (io.Reader, error) { return input, nil }
}

// Read returns the next record, or io.EOF after the last.
func (r *Reader) Read() (*bib.Record, error) {
	for !r.ended {
		r.src.budget = maxRecord
		token, err := r.d.Token()
		if err != nil {
			if err := r.broke(err, false, ""); err != nil {
				return nil, err
			}
			continue
		}
		switch t := token.(type) {
		case xml.Directive:
			if !r.dtd && strings.HasPrefix(string(t), "DOCTYPE") {
				r.dtd = true
				r.report(exchange.Notice{Line: r.src.line, Kind: exchange.DTD})
			}
		case xml.StartElement:
			if t.Name.Local != r.name {
				continue
			}
			r.n++
			line := r.src.line
			rec, err := r.decode(r.d, t)
			if err != nil {
				kept := rec != nil && rec.Title != ""
				if failed := r.broke(err, kept, fmt.Sprintf("#%d", r.n)); failed != nil {
					return nil, failed
				}
				if !kept {
					continue
				}
			}
			if exchange.Empty(rec) {
				r.report(exchange.Notice{Line: line, Record: r.n, Kind: exchange.Nothing, Skipped: true})
				continue
			}
			if rec.Title == "" {
				r.report(exchange.Notice{Line: line, Record: r.n, Kind: exchange.NoTitle})
			}
			rec.Name(r.n)
			return rec, nil
		}
	}
	return nil, io.EOF
}

// broke says what went wrong and finds the next record; an error is one of the file itself.
func (r *Reader) broke(err error, kept bool, record string) error {
	var bad *xml.SyntaxError
	notice := exchange.Notice{Line: r.src.line, Kind: exchange.Broken, Skipped: !kept}
	if record != "" {
		notice.Record = r.n
	}
	switch {
	case errors.Is(err, io.EOF) && record == "":
		r.ended = true
		return nil
	case errors.Is(err, exchange.ErrLarge) || errors.Is(r.src.err, exchange.ErrLarge):
		r.src.err = nil
		notice.Kind, notice.Detail = exchange.TooLarge, "16 MB"
	case errors.As(err, &bad) && strings.HasPrefix(bad.Msg, "unexpected EOF"):
		r.ended = true
		notice.Kind, notice.Detail = exchange.CutOff, record
		if record == "" {
			if r.lost {
				return nil
			}
			notice.Kind, notice.Skipped = exchange.NoClose, false
		}
	case errors.As(err, &bad):
		if r.lost && record == "" { // the end of something whose beginning was before the break
			r.resume()
			return nil
		}
		notice.Detail = exchange.Shorten(bad.Msg)
	case r.src.err != nil && !errors.Is(r.src.err, io.EOF):
		return fmt.Errorf("line %d: %w", r.src.line, r.src.err)
	default:
		notice.Detail = exchange.Shorten(err.Error())
	}
	r.report(notice)
	if !r.ended {
		r.resume()
	}
	return nil
}

// resume goes to where the next record begins.
func (r *Reader) resume() {
	r.lost = true
	for {
		r.src.budget = maxRecord
		b, err := r.src.r.Peek(1)
		if err != nil {
			r.ended = true
			return
		}
		if b[0] == '<' && r.src.begins(r.name) {
			r.begin()
			return
		}
		if _, err := r.src.ReadByte(); err != nil {
			r.ended = true
			return
		}
	}
}

// source gives the text byte by byte, knows its line, and ends where a record is too large.
type source struct {
	r      *bufio.Reader
	line   int
	budget int
	err    error
}

func (s *source) ReadByte() (byte, error) {
	c, err := s.r.ReadByte()
	if err != nil {
		s.err = err
		return 0, err
	}
	if s.budget--; s.budget < 0 {
		s.err = exchange.ErrLarge
		return 0, exchange.ErrLarge
	}
	if c == '\n' {
		s.line++
	}
	return c, nil
}

// Read is there for the decoder, which uses ReadByte.
func (s *source) Read(p []byte) (int, error) {
	if len(p) == 0 {
		return 0, nil
	}
	c, err := s.ReadByte()
	if err != nil {
		return 0, err
	}
	p[0] = c
	return 1, nil
}

// begins reports whether an element of the name begins here, whatever its prefix.
func (s *source) begins(name string) bool {
	b, _ := s.r.Peek(len(name) + 32)
	at := string(b[1:])
	end := strings.IndexAny(at, " \t\r\n/>")
	if end < 0 {
		return false
	}
	if at = at[:end]; strings.Contains(at, ":") {
		_, at, _ = strings.Cut(at, ":")
	}
	return at == name
}
