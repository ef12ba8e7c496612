package exchange

import (
	"bufio"
	"bytes"
	"errors"
	"io"
)

// ErrLarge is what a Counter ends with where one record is larger than what is read.
var ErrLarge = errors.New("larger than what is read")

// A Counter passes text on to a decoder that reads ahead, tells the line of a place in it, and ends where
// one record is too large.
type Counter struct {
	r      *bufio.Reader
	at     int64 // bytes passed on
	max    int64
	budget int64
	ends   []int64 // where lines end that Line has not come to yet
	lines  int     // lines before those
}

// NewCounter passes on r, of which one record may have max bytes.
func NewCounter(r io.Reader, max int64) *Counter {
	return &Counter{r: bufio.NewReaderSize(r, 64<<10), max: max, budget: max}
}

// Renew says that a new record begins.
func (c *Counter) Renew() { c.budget = c.max }

// First returns the first character that is no white space, without passing it on.
func (c *Counter) First() (byte, error) {
	for {
		b, err := c.r.Peek(1)
		if err != nil {
			return 0, err
		}
		if b[0] != ' ' && b[0] != '\t' && b[0] != '\n' && b[0] != '\r' {
			return b[0], nil
		}
		if _, err := c.Read(b[:1]); err != nil {
			return 0, err
		}
		c.at--      // the decoder does not see it
		c.skipped() // but its line counts
	}
}

// skipped counts the lines that ended before the text that is passed on.
func (c *Counter) skipped() {
	c.lines += len(c.ends)
	c.ends = c.ends[:0]
}

func (c *Counter) Read(p []byte) (int, error) {
	if c.budget <= 0 {
		return 0, ErrLarge
	}
	n, err := c.r.Read(p[:min(int64(len(p)), c.budget)])
	c.budget -= int64(n)
	for i := 0; ; i++ {
		next := bytes.IndexByte(p[i:n], '\n')
		if next < 0 {
			break
		}
		i += next
		c.ends = append(c.ends, c.at+int64(i))
	}
	c.at += int64(n)
	return n, err
}

// Line returns the line of a place in the text passed on, from 1. Places are asked for in ascending order.
func (c *Counter) Line(at int64) int {
	i := 0
	for i < len(c.ends) && c.ends[i] < at {
		i++
	}
	c.lines += i
	c.ends = append(c.ends[:0], c.ends[i:]...)
	return c.lines + 1
}
