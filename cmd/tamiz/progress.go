package main

import (
	"fmt"
	"io"
	"os"
)

const toldFrom = 16 << 20 // bytes of a file whose reading takes a while

// A progress is a file that tells, each tenth of it, how far it was read. What is gone back over is not told again.
type progress struct {
	*os.File
	to       io.Writer
	name     string
	size, at int64
	told     int64 // tenths
}

// telling returns a file that tells on to how far it was read; a small one tells nothing.
func telling(file *os.File, name string, to io.Writer) (io.ReadSeeker, error) {
	info, err := file.Stat()
	if err != nil || info.Size() < toldFrom {
		return file, err
	}
	return &progress{File: file, to: to, name: name, size: info.Size()}, nil
}

// Read implements io.Reader.
func (p *progress) Read(b []byte) (int, error) {
	n, err := p.File.Read(b)
	p.at += int64(n)
	if tenths := p.at * 10 / p.size; tenths > p.told {
		p.told = tenths
		fmt.Fprintf(p.to, "%s: %d %% read\n", p.name, tenths*10)
	}
	return n, err
}

// ReadAt implements io.ReaderAt, by which archives are read.
func (p *progress) ReadAt(b []byte, from int64) (int, error) { return p.File.ReadAt(b, from) }

// Seek implements io.Seeker.
func (p *progress) Seek(offset int64, whence int) (int64, error) {
	at, err := p.File.Seek(offset, whence)
	p.at = at
	return at, err
}

// WriteTo keeps io.Copy from going past Read.
func (p *progress) WriteTo(w io.Writer) (int64, error) {
	return io.Copy(w, struct{ io.Reader }{p})
}
