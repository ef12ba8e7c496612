package exchange

import (
	"io"

	"tamiz/core/parallel"
)

// Piped returns what is written as it is written. What goes wrong on the way, also a panic, is what the reader gets
// as its error; when the reader is closed, writing ends.
func Piped(write func(io.Writer) error) io.ReadCloser {
	out, in := io.Pipe()
	go func() {
		in.CloseWithError(parallel.Safely(func() error { return write(in) })) // without one, the end of the file
	}()
	return out
}
