package api

import (
	"io"
	"net"
	"net/http"
	"os"
	"sync"
	"time"

	"tamiz/app/problems"
)

const (
	maxUploads  = 48               // files that come in at once
	shareOfOne  = 32               // of them, those of one address
	pieceTime   = time.Minute      // for the next piece of a file
	piece       = 16 << 10         // bytes that a file has to come on by in that time
	uploadTime  = time.Hour        // for a whole file
	newComer    = 5 * time.Second  // for which a file is not called slow
	slowUpload  = 64 << 10         // bytes a second, below which a file gives way to another where no place is free
	uploadStops = 15 * time.Second // without a byte, after which it is slow whatever it did before
)

// uploads are the files that come in. Their number is bounded; where no place is free, the slowest gives way: files
// that drip, of whoever means harm or has a bad line, keep nobody else's out.
type uploads struct {
	mu    sync.Mutex
	under map[*coming]bool
	now   func() time.Time
}

func newUploads() *uploads { return &uploads{under: map[*coming]bool{}, now: time.Now} }

// take gives a file a place, which leave gives back; a *problems.Problem where there is none.
func (u *uploads) take(body io.ReadCloser, conn deadliner, remote string) (*coming, error) {
	address, _, err := net.SplitHostPort(remote)
	if err != nil {
		address = remote
	}
	u.mu.Lock()
	defer u.mu.Unlock()
	now := u.now()
	own := 0
	for c := range u.under {
		if c.address == address {
			own++
		}
	}
	if len(u.under) >= maxUploads || own >= shareOfOne {
		slowest := u.slowest(now, func(c *coming) bool { return own < shareOfOne || c.address == address })
		if slowest == nil {
			return nil, &problems.Problem{
				Type:   "busy",
				Status: http.StatusServiceUnavailable,
				Title:  "Too many files are coming in at once. Nothing was brought in; try again in a moment.",
			}
		}
		slowest.gaveWay = true
		_ = slowest.conn.SetReadDeadline(now)
		delete(u.under, slowest)
	}
	c := &coming{ReadCloser: body, conn: conn, of: u, address: address, began: now, last: now}
	u.under[c] = true
	return c, nil
}

// slowest returns the slowest of the files that come too slowly; nil where none does.
func (u *uploads) slowest(now time.Time, counts func(*coming) bool) (out *coming) {
	least := float64(slowUpload)
	for c := range u.under {
		age := now.Sub(c.began)
		if age < newComer || !counts(c) {
			continue
		}
		speed := float64(c.bytes) / age.Seconds()
		if now.Sub(c.last) > uploadStops {
			speed = 0
		}
		if speed < least {
			least, out = speed, c
		}
	}
	return out
}

func (u *uploads) leave(c *coming) {
	u.mu.Lock()
	defer u.mu.Unlock()
	delete(u.under, c)
}

// deadliner is what ends the reading of a body.
type deadliner interface {
	SetReadDeadline(deadline time.Time) error
}

// coming is a file as it comes: its deadline is moved on with it.
type coming struct {
	io.ReadCloser
	conn    deadliner
	of      *uploads
	address string
	began   time.Time
	left    int // bytes until the deadline is moved

	// Under the lock of the uploads.
	bytes   int64
	last    time.Time // when a byte came
	gaveWay bool
}

func (c *coming) Read(p []byte) (int, error) {
	if c.left <= 0 && !c.ended() {
		c.left = piece
		deadline := c.of.now().Add(pieceTime)
		if end := c.began.Add(uploadTime); end.Before(deadline) {
			deadline = end
		}
		_ = c.conn.SetReadDeadline(deadline)
		if c.ended() { // meanwhile
			_ = c.conn.SetReadDeadline(c.of.now())
		}
	}
	n, err := c.ReadCloser.Read(p)
	c.left -= n
	c.of.mu.Lock()
	c.bytes += int64(n)
	c.last = c.of.now()
	gaveWay := c.gaveWay
	c.of.mu.Unlock()
	if gaveWay && err != nil {
		err = os.ErrDeadlineExceeded
	}
	if err != nil {
		_ = c.conn.SetReadDeadline(time.Time{})
	}
	return n, err
}

func (c *coming) ended() bool {
	c.of.mu.Lock()
	defer c.of.mu.Unlock()
	return c.gaveWay
}
