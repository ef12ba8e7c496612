// Package packed opens files that are packed with gzip, or several in a zip archive, and unpacks them as they are read,
// as often as wanted, within bounds.
package packed

import (
	"archive/zip"
	"bytes"
	"compress/gzip"
	"errors"
	"fmt"
	"io"
	"strings"
)

// Limits of packed files.
const (
	maxParts    = 1000    // files in an archive
	maxUnpacked = 4 << 30 // bytes of all of them
	maxRatio    = 200     // times that a file may grow when unpacked, once it is large
	largeEnough = 64 << 20
)

// errBomb says that a packed file grows without measure.
var errBomb = errors.New("the packed file grows more than 200 times when it is unpacked; it was not read further")

// ErrOther says what a file is that can hold nothing that is read here.
var ErrOther = errors.New("the file holds nothing that is read here")

// A Part is a file of its own, packed or not.
type Part struct {
	Name string
	File io.ReadSeeker
}

// Open returns the parts of a file: itself, or what it packs. Nothing is unpacked before it is read.
func Open(file io.ReadSeeker) ([]Part, error) {
	head := make([]byte, 8)
	n, err := io.ReadFull(file, head)
	if err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF) {
		return nil, err
	}
	head = head[:n]
	if _, err := file.Seek(0, io.SeekStart); err != nil {
		return nil, err
	}
	switch {
	case bytes.HasPrefix(head, []byte{0x1f, 0x8b}):
		size, err := file.Seek(0, io.SeekEnd)
		if err != nil {
			return nil, err
		}
		open := func() (io.Reader, error) {
			if _, err := file.Seek(0, io.SeekStart); err != nil {
				return nil, err
			}
			return gzip.NewReader(file)
		}
		return []Part{{"", &rewinding{open: open, packed: size}}}, nil
	case bytes.HasPrefix(head, []byte("PK\x03\x04")), bytes.HasPrefix(head, []byte("PK\x05\x06")):
		return archive(file)
	case bytes.HasPrefix(head, []byte{0xd0, 0xcf, 0x11, 0xe0}):
		return nil, fmt.Errorf(
			"%w: it is a spreadsheet or a document of an office program; save it as CSV and bring in that",
			ErrOther,
		)
	case bytes.HasPrefix(head, []byte("%PDF")):
		return nil, fmt.Errorf("%w: it is a PDF", ErrOther)
	}
	return []Part{{"", file}}, nil
}

func archive(file io.ReadSeeker) ([]Part, error) {
	size, err := file.Seek(0, io.SeekEnd)
	if err != nil {
		return nil, err
	}
	z, err := zip.NewReader(at{file}, size)
	if err != nil {
		return nil, fmt.Errorf("the archive cannot be opened: %w", err)
	}
	if len(z.File) > maxParts {
		return nil, fmt.Errorf("the archive holds %d files; at most %d are read", len(z.File), maxParts)
	}
	var parts []Part
	var total uint64
	for _, f := range z.File {
		// The parts of a spreadsheet are known by their names; one alone can not be read as records.
		if f.Name == "[Content_Types].xml" || f.Name == "xl/workbook.xml" ||
			f.Name == "content.xml" && z.File[0].Name == "mimetype" {
			return nil, fmt.Errorf(
				"%w: it is a spreadsheet or a document of an office program; save it as CSV and bring in that",
				ErrOther,
			)
		}
		base := f.Name[strings.LastIndexByte(f.Name, '/')+1:]
		if f.FileInfo().IsDir() || f.UncompressedSize64 == 0 || strings.HasPrefix(base, ".") ||
			strings.HasPrefix(f.Name, "__MACOSX/") {
			continue
		}
		if f.Flags&1 != 0 {
			return nil, fmt.Errorf("the archive is locked with a password (%s)", f.Name)
		}
		if total += f.UncompressedSize64; total > maxUnpacked ||
			f.UncompressedSize64 > largeEnough && f.UncompressedSize64/max(f.CompressedSize64, 1) > maxRatio {
			return nil, errBomb
		}
		open := func() (io.Reader, error) { return f.Open() }
		parts = append(parts, Part{f.Name, &rewinding{open: open, packed: int64(f.CompressedSize64)}})
	}
	if len(parts) == 0 {
		return nil, fmt.Errorf("%w: the archive is empty", ErrOther)
	}
	return parts, nil
}

// rewinding is a packed file that can be read from its beginning again, as often as wanted, without being
// laid down anywhere.
type rewinding struct {
	open   func() (io.Reader, error)
	packed int64
	r      io.Reader
	read   int64
}

func (w *rewinding) Read(p []byte) (int, error) {
	if w.r == nil {
		if _, err := w.Seek(0, io.SeekStart); err != nil {
			return 0, err
		}
	}
	n, err := w.r.Read(p)
	w.read += int64(n)
	if w.read > maxUnpacked || w.read > largeEnough && w.read/max(w.packed, 1) > maxRatio {
		return 0, errBomb
	}
	if err != nil && !errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		// A file cut off in its packing: what came before is kept, and the reader of its format says that
		// a record is cut.
		if errors.Is(err, io.ErrUnexpectedEOF) {
			return n, io.EOF
		}
		return n, fmt.Errorf("the packed file is damaged: %w", err)
	}
	return n, err
}

// Seek goes to a place counted from the beginning.
func (w *rewinding) Seek(offset int64, whence int) (int64, error) {
	if whence != io.SeekStart {
		return 0, errors.New("a packed file is read from its beginning")
	}
	if c, ok := w.r.(io.Closer); ok {
		c.Close()
	}
	r, err := w.open()
	if err != nil {
		return 0, fmt.Errorf("the packed file cannot be opened: %w", err)
	}
	w.r, w.read = r, 0
	_, err = io.CopyN(io.Discard, w, offset)
	if errors.Is(err, io.EOF) {
		err = nil
	}
	return offset, err
}

// at reads a file at any place. One reads at a time.
type at struct{ io.ReadSeeker }

func (a at) ReadAt(p []byte, offset int64) (int, error) {
	if _, err := a.Seek(offset, io.SeekStart); err != nil {
		return 0, err
	}
	n, err := io.ReadFull(a, p)
	if errors.Is(err, io.ErrUnexpectedEOF) {
		err = io.EOF
	}
	return n, err
}
