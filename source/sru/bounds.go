package sru

import (
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"sync/atomic"

	"tamiz/source"
)

// bounded reads so many bytes of an answer, and no more than there is room for beside all answers that are being read.
type bounded struct {
	r    io.Reader
	left int
	all  *atomic.Int64
	own  int64
	full bool // there was no room
	err  error
}

func (b *bounded) Read(p []byte) (int, error) {
	if b.left <= 0 {
		return 0, source.ErrTooLarge
	}
	n, err := b.r.Read(p[:min(len(p), b.left)])
	b.left -= n
	b.own += int64(n)
	if b.all.Add(int64(n)) > allAnswers {
		b.full = true
		return n, source.ErrBusy
	}
	if err != nil {
		b.err = err
	}
	return n, err
}

// end gives back the room of what was read.
func (b *bounded) end() { b.all.Add(-b.own) }

// perRecord bounds how much is read for one record of an answer: what a few bytes can stand for takes more memory
// than they do.
type perRecord struct {
	r    io.Reader
	left int // of one
	in   bool
}

func (b *perRecord) Read(p []byte) (int, error) {
	if !b.in {
		return b.r.Read(p)
	}
	if b.left <= 0 {
		return 0, fmt.Errorf("a record is larger than %d MB", maxRecord>>20)
	}
	n, err := b.r.Read(p[:min(len(p), b.left)])
	b.left -= n
	return n, err
}

// begin says that a record begins, or that one has ended.
func (b *perRecord) begin(in bool) { b.in, b.left = in, maxRecord }

var errDeep = errors.New("elements stand too deep in each other")

// skip passes over an element that has begun. Elements that stand in each other without end are refused: the
// decoder remembers each that is open.
func skip(d *xml.Decoder) error {
	for depth := 1; depth > 0; {
		t, err := d.Token()
		if err != nil {
			return err
		}
		switch t.(type) {
		case xml.StartElement:
			if depth++; depth > maxDepth {
				return errDeep
			}
		case xml.EndElement:
			depth--
		}
	}
	return nil
}
