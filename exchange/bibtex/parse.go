package bibtex

import (
	"bufio"
	"errors"
	"io"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// syntax is an entry that cannot be made out.
type syntax struct {
	line, n int
	kind    exchange.Kind
	detail  string
}

func (s *syntax) Error() string { return string(s.kind) }

// source gives the text character by character, knowing its line.
type source struct {
	r      *bufio.Reader
	line   int
	start  bool // at the beginning of a line
	budget int  // bytes that the entry may still have
	err    error
}

func newSource(r io.Reader) *source {
	return &source{r: bufio.NewReaderSize(r, 64<<10), line: 1, start: true, budget: maxEntry}
}

var errLarge = errors.New("larger than what is read")

func (s *source) next() (byte, bool) {
	c, err := s.r.ReadByte()
	if err != nil {
		s.err = err
		return 0, false
	}
	if s.budget--; s.budget < 0 {
		s.err = errLarge
		return 0, false
	}
	if s.start = c == '\n' || c == '\r'; c == '\n' {
		s.line++
	} else if c == '\r' {
		if n, _ := s.r.Peek(1); len(n) == 0 || n[0] != '\n' {
			s.line++
		}
	}
	return c, true
}

func (s *source) peek() (byte, bool) {
	c, err := s.r.ReadByte()
	if err != nil {
		s.err = err
		return 0, false
	}
	_ = s.r.UnreadByte()
	return c, true
}

// begins reports whether an entry begins here: an @ with a name and an opening brace. It is asked at the
// beginning of a line, where no value would say so by chance.
func (s *source) begins() bool {
	b, _ := s.r.Peek(40)
	if len(b) < 3 || b[0] != '@' {
		return false
	}
	i := 1
	for i < len(b) && letter(b[i]) {
		i++
	}
	name := i
	for i < len(b) && (b[i] == ' ' || b[i] == '\t') {
		i++
	}
	return name > 1 && i < len(b) && (b[i] == '{' || b[i] == '(')
}

// run appends the characters up to the next that could mean something within a value.
func (s *source) run(b []byte) []byte {
	chunk, _ := s.r.Peek(s.r.Buffered())
	n := 0
	for n < len(chunk) && !stops[chunk[n]] {
		n++
	}
	if n = min(n, s.budget); n <= 0 {
		return b
	}
	b = append(b, chunk[:n]...)
	_, _ = s.r.Discard(n)
	s.budget -= n
	s.start = false
	return b
}

// stops are the characters that could mean something within a value.
var stops = [256]bool{'\\': true, '{': true, '}': true, '"': true, '\r': true, '\n': true}

func (s *source) space() {
	for {
		c, ok := s.peek()
		if !ok || c != ' ' && c != '\t' && c != '\n' && c != '\r' {
			return
		}
		s.next()
	}
}

// parse reads the next entry. An abbreviation, a comment or a preamble gives an empty one.
func (r *Reader) parse() (entry, error) {
	s := r.src
	if err := r.seek(); err != nil {
		return entry{}, err
	}
	s.budget = maxEntry
	line := s.line
	s.next() // the @
	kind := strings.ToLower(r.name())
	s.space()
	c, ok := s.next()
	if !ok {
		return entry{}, r.cut(line, kind)
	}
	if c != '{' && c != '(' {
		return entry{}, &syntax{line, r.n, exchange.NoStatement, "@" + kind + string(rune(c))}
	}
	closing := byte('}')
	if c == '(' {
		closing = ')'
	}
	switch kind {
	case "comment":
		if _, err := r.braced(closing); err != nil {
			return entry{}, r.wrong(line, kind, err)
		}
		return entry{}, nil
	case "preamble":
		if _, err := r.value(closing); err != nil {
			return entry{}, r.wrong(line, kind, err)
		}
		return entry{}, r.close(line, kind, closing)
	case "string":
		name, v, err := r.field(closing)
		if err != nil {
			return entry{}, r.wrong(line, kind, err)
		}
		if name != "" && len(r.strings) < maxStrings {
			r.strings[name] = v
		}
		return entry{}, r.close(line, kind, closing)
	}
	r.n++
	e := entry{kind: kind, line: line, n: r.n, fields: make([]field, 0, 16)}
	s.space()
	var key strings.Builder
	for {
		c, ok := s.peek()
		if !ok {
			return entry{}, r.cut(line, kind)
		}
		if c == ',' || c == closing || c == '\n' || c == '\r' || c == '=' {
			break
		}
		s.next()
		key.WriteByte(c)
	}
	e.key = strings.TrimSpace(key.String())
	for {
		s.space()
		c, ok := s.peek()
		switch {
		case !ok:
			return e, r.cut(line, e.key)
		case c == closing:
			s.next()
			return e, nil
		case c == ',':
			s.next()
			continue
		case s.begins():
			return e, &syntax{line, r.n, exchange.Unclosed, e.key}
		}
		name, v, err := r.field(closing)
		if err != nil {
			return e, r.wrong(line, e.key, err)
		}
		e.set(name, v)
	}
}

// seek goes to the next entry; what stands between entries is a comment.
func (r *Reader) seek() error {
	s := r.src
	told := false
	var other strings.Builder
	for {
		s.budget = maxEntry
		c, ok := s.peek()
		if !ok {
			return s.err
		}
		if c == '@' && s.begins() {
			return nil
		}
		atStart := s.start
		if atStart && !told {
			b, _ := s.r.Peek(64)
			other.Reset()
			other.Write(b)
			if l, _, _ := strings.Cut(other.String(), "\n"); r.n > 0 && c != '@' && exchange.LooksOther(l) {
				told = true
				r.report(
					exchange.Notice{Line: s.line, Kind: exchange.OtherFormat, Detail: exchange.Shorten(bib.Flat(l)), Skipped: true},
				)
			}
		}
		s.next()
	}
}

// name reads the name of an entry, a field or an abbreviation.
func (r *Reader) name() string {
	s := r.src
	b, _ := s.r.Peek(200)
	n := 0
	for n < len(b) && (letter(b[n]) || b[n] >= '0' && b[n] <= '9' || strings.IndexByte("-_:.+/", b[n]) >= 0) {
		n++
	}
	name, known := r.names[string(b[:n])]
	if !known {
		if name = string(b[:n]); len(r.names) < maxStrings {
			r.names[name] = name
		}
	}
	_, _ = s.r.Discard(n)
	s.budget -= n
	s.start = s.start && n == 0
	return name
}

// field reads name = value.
func (r *Reader) field(closing byte) (name, v string, err error) {
	name = strings.ToLower(r.name())
	r.src.space()
	c, ok := r.src.next()
	if !ok {
		return "", "", r.src.err
	}
	if name == "" || c != '=' {
		return "", "", &syntax{kind: exchange.NoStatement, detail: name + string(rune(c))}
	}
	v, err = r.value(closing)
	return name, v, err
}

// value reads texts in braces or quotes, numbers and abbreviations, joined by #.
func (r *Reader) value(closing byte) (string, error) {
	s := r.src
	out := "" // one text is most often all, and is not copied
	for {
		s.space()
		c, ok := s.peek()
		if !ok {
			return "", s.err
		}
		switch {
		case c == '{':
			s.next()
			v, err := r.braced('}')
			if err != nil {
				return "", err
			}
			out += v
		case c == '"':
			s.next()
			v, err := r.braced('"')
			if err != nil {
				return "", err
			}
			out += v
		default:
			word := r.name()
			if word == "" {
				return "", &syntax{kind: exchange.NoStatement, detail: string(rune(c))}
			}
			if text, ok := r.strings[strings.ToLower(word)]; ok {
				out += text
			} else {
				out += word
			}
		}
		if len(out) > maxEntry { // abbreviations made of abbreviations can grow without end
			return "", errLarge
		}
		s.space()
		if c, ok := s.peek(); !ok || c != '#' {
			return out, nil
		}
		s.next()
	}
}

// braced reads up to the sign that closes, over braces that open and close within. A line that begins an
// entry ends it: the brace was forgotten.
func (r *Reader) braced(closing byte) (string, error) {
	s := r.src
	b := r.buf[:0]
	depth := 0
	for {
		if s.start && s.begins() {
			return "", &syntax{kind: exchange.Unclosed}
		}
		b = s.run(b) // what means nothing here goes over in one piece
		c, ok := s.next()
		if !ok {
			return "", s.err
		}
		switch {
		case c == '\\':
			b = append(b, c)
			if c, ok = s.next(); !ok {
				return "", s.err
			}
		case depth == 0 && c == closing:
			r.buf = b
			return string(b), nil
		case c == '{':
			depth++
		case c == '}':
			depth--
			if depth < 0 {
				depth = 0
			}
		}
		b = append(b, c)
	}
}

func (r *Reader) close(line int, what string, closing byte) error {
	r.src.space()
	if c, ok := r.src.peek(); ok && c == ',' {
		r.src.next()
		r.src.space()
	}
	c, ok := r.src.next()
	if !ok {
		return r.cut(line, what)
	}
	if c != closing {
		return &syntax{line, 0, exchange.NoStatement, "@" + what}
	}
	return nil
}

// wrong says where and in which entry something went wrong.
func (r *Reader) wrong(line int, what string, err error) error {
	var bad *syntax
	switch {
	case errors.As(err, &bad):
		bad.line, bad.n = line, r.n
		if bad.kind == exchange.NoStatement {
			bad.line, bad.kind, bad.detail = r.src.line, exchange.BadEntry, what
		}
		if bad.detail == "" {
			bad.detail = what
		}
		return bad
	case errors.Is(err, errLarge):
		return &syntax{line, r.n, exchange.TooLarge, "16 MB"}
	case errors.Is(err, io.EOF):
		return r.cut(line, what)
	}
	return err
}

// cut says that the file ends within an entry.
func (r *Reader) cut(line int, what string) error {
	if errors.Is(r.src.err, errLarge) {
		return &syntax{line, r.n, exchange.TooLarge, "16 MB"}
	}
	if r.src.err != nil && !errors.Is(r.src.err, io.EOF) {
		return r.src.err
	}
	return &syntax{line, r.n, exchange.CutOff, what}
}
