// Package exchange holds what the readers of record files share: finding out the encoding of a file,
// reading it line by line, and reporting what could not be read. One package below it for each format.
package exchange

import (
	"bufio"
	"bytes"
	"encoding/binary"
	"errors"
	"io"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
)

// The encodings a file can be in.
const (
	UTF8        = "UTF-8"
	UTF8Cut     = "UTF-8, cut off in a character" // the piece of a character at its end is left out
	UTF16       = "UTF-16"
	Windows1252 = "Windows-1252"
)

// Decode returns the text of a file as UTF-8 and the name of the encoding it is in: UTF-8 with or
// without a byte order mark, UTF-16 with one, else Windows-1252. It reads the file once to decide,
// since a single byte that is not UTF-8 settles it, unless it is the beginning of a last character that
// was cut off. Control characters become spaces.
func Decode(file io.ReadSeeker) (io.Reader, string, error) {
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return nil, "", err
	}
	var head [3]byte
	n, err := io.ReadFull(file, head[:])
	if err != nil && !errors.Is(err, io.ErrUnexpectedEOF) && !errors.Is(err, io.EOF) {
		return nil, "", err
	}
	rewind := func(skip int64) error {
		_, err := file.Seek(skip, io.SeekStart)
		return err
	}
	if n >= 2 && (head[0] == 0xFF && head[1] == 0xFE || head[0] == 0xFE && head[1] == 0xFF) {
		return clean{unicode.UTF16(unicode.BigEndian, unicode.ExpectBOM).NewDecoder().Reader(file)}, UTF16, rewind(0)
	}
	var skip int64
	if bytes.Equal(head[:n], []byte("\xEF\xBB\xBF")) {
		skip = 3
	}
	if err := rewind(skip); err != nil {
		return nil, "", err
	}
	valid, whole, err := validUTF8(file)
	if err != nil {
		return nil, "", err
	}
	if err := rewind(skip); err != nil {
		return nil, "", err
	}
	if valid && whole >= 0 {
		return clean{io.LimitReader(file, whole)}, UTF8Cut, nil
	}
	if valid {
		return clean{file}, UTF8, nil
	}
	return clean{charmap.Windows1252.NewDecoder().Reader(file)}, Windows1252, nil
}

// clean makes spaces of control characters, which mean nothing in any format of records.
type clean struct{ r io.Reader }

func (c clean) Read(p []byte) (int, error) {
	n, err := c.r.Read(p)
	for i := 0; i < n; i++ {
		// Eight bytes at a time where none is a control character; one above 0x7f may look like one, and is looked at.
		for i+8 <= n && (binary.LittleEndian.Uint64(p[i:])-0x2020202020202020) &
			^binary.LittleEndian.Uint64(p[i:]) & 0x8080808080808080 == 0 {
			i += 8
		}
		if i < n {
			if b := p[i]; b < ' ' && b != '\n' && b != '\r' && b != '\t' {
				p[i] = ' '
			}
		}
	}
	return n, err
}

// validUTF8 reports whether a text is UTF-8. One that is, other than that it ends within a character, is cut
// off if characters of more than one byte stand before; whole is then the length without that piece, else -1.
func validUTF8(r io.Reader) (valid bool, whole int64, err error) {
	buf, kept, before, wide := make([]byte, 64<<10), 0, int64(0), false
	for {
		n, err := r.Read(buf[kept:])
		chunk := buf[:kept+n]
		last := err != nil
		// A character may be cut at the end of the chunk; it is judged with the next one.
		end := len(chunk)
		for k := 1; k < utf8.UTFMax && k <= len(chunk); k++ {
			if b := chunk[len(chunk)-k]; utf8.RuneStart(b) {
				if !utf8.FullRune(chunk[len(chunk)-k:]) {
					end -= k
				}
				break
			}
		}
		if !utf8.Valid(chunk[:end]) {
			return false, -1, nil
		}
		wide = wide || utf8.RuneCount(chunk[:end]) < end
		if last && end < len(chunk) {
			return wide && errors.Is(err, io.EOF), before + int64(end), nil
		}
		before += int64(end)
		kept = copy(buf, chunk[end:])
		if errors.Is(err, io.EOF) {
			return true, -1, nil
		}
		if err != nil {
			return false, -1, err
		}
	}
}

// Lines reads text line by line; a line ends with CR, LF or CRLF.
type Lines struct {
	r      *bufio.Reader
	max    int
	buf    []byte
	number int
	skipLF bool
}

// NewLines returns a reader of lines of which at most max bytes are kept.
func NewLines(r io.Reader, max int) *Lines {
	return &Lines{r: bufio.NewReaderSize(r, 64<<10), max: max}
}

// Number returns the number of the line last read, from 1.
func (l *Lines) Number() int { return l.number }

// Next returns the next line without its end, valid until the next call, and whether it had to be
// cut at the limit. At the end of the text the error is io.EOF.
func (l *Lines) Next() (line []byte, cut bool, err error) {
	l.buf = l.buf[:0]
	read := false
	for {
		if _, err := l.r.Peek(1); err != nil {
			if read && errors.Is(err, io.EOF) {
				err = nil
			}
			if err == nil {
				l.number++
			}
			return l.buf, cut, err
		}
		chunk, _ := l.r.Peek(l.r.Buffered())
		if l.skipLF {
			l.skipLF = false
			if chunk[0] == '\n' {
				_, _ = l.r.Discard(1)
				continue
			}
		}
		read = true
		end := bytes.IndexByte(chunk, '\n')
		part := chunk
		if end >= 0 {
			part = chunk[:end]
		}
		if cr := bytes.IndexByte(part, '\r'); cr >= 0 {
			end, part = cr, chunk[:cr]
		}
		if room := l.max - len(l.buf); len(part) > room {
			part, cut = part[:max(room, 0)], true
		}
		l.buf = append(l.buf, part...)
		if end >= 0 {
			l.skipLF = chunk[end] == '\r'
			_, _ = l.r.Discard(end + 1)
			l.number++
			return l.buf, cut, nil
		}
		_, _ = l.r.Discard(len(chunk))
	}
}
