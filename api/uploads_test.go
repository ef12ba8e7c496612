package api

import (
	"io"
	"os"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/problems"
)

// line is a connection of which the deadline for reading is looked at.
type line struct {
	mu sync.Mutex
	at time.Time
}

func (l *line) SetReadDeadline(at time.Time) error {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.at = at
	return nil
}

// ends returns text, and then what a passed deadline does.
type ends struct{ io.Reader }

func (e ends) Read(p []byte) (int, error) {
	if n, err := e.Reader.Read(p); err == nil {
		return n, nil
	}
	return 0, os.ErrDeadlineExceeded
}

func (ends) Close() error { return nil }

// Files that drip, from however many addresses, keep nobody's out: the slowest gives way, and is told why. Files
// that come well keep their places.
func TestFilesThatDripGiveWay(t *testing.T) {
	now := time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)
	u := newUploads()
	u.now = func() time.Time { return now }
	take := func(address, text string) (*coming, *line, error) {
		l := &line{}
		c, err := u.take(ends{strings.NewReader(text)}, l, address+":4000")
		return c, l, err
	}
	read := func(c *coming) error {
		_, err := io.Copy(io.Discard, c)
		return err
	}
	fast, _, err := take("192.0.2.1", strings.Repeat("x", 4<<20))
	require.NoError(t, err)
	var dripping []*coming
	for i := range maxUploads - 1 {
		c, _, err := take([]string{"192.0.2.7", "192.0.2.8"}[i%2], "x")
		require.NoError(t, err)
		dripping = append(dripping, c)
	}
	_, _, err = take("192.0.2.1", "")
	var busy *problems.Problem
	require.ErrorAs(t, err, &busy, "all have just begun: none is slow yet")
	require.ErrorIs(t, read(fast), os.ErrDeadlineExceeded)
	now = now.Add(10 * time.Second)
	for range maxUploads {
		_, _, err := take("192.0.2.9", "x")
		if err != nil {
			require.ErrorAs(t, err, &busy)
			break
		}
	}
	gone := 0
	for _, c := range dripping {
		if c.ended() {
			gone++
			assert.ErrorIs(t, read(c), os.ErrDeadlineExceeded)
			assert.LessOrEqual(t, c.conn.(*line).at.Unix(), now.Unix())
		}
	}
	assert.False(t, fast.ended(), "what comes well stays")
	assert.Equal(t, shareOfOne, gone, "one address has its share and no more")
}

// However steadily it comes, a file has an end.
func TestAFileHasAnEnd(t *testing.T) {
	now := time.Date(2026, 3, 2, 9, 0, 0, 0, time.UTC)
	u := newUploads()
	u.now = func() time.Time { return now }
	l := &line{}
	c, err := u.take(ends{strings.NewReader("x")}, l, "192.0.2.1:4000")
	require.NoError(t, err)
	_, err = c.Read(make([]byte, 1))
	require.NoError(t, err)
	assert.Equal(t, now.Add(pieceTime), l.at)
	c.left, now = 0, now.Add(uploadTime-time.Second)
	_, _ = c.Read(make([]byte, 1))
	c.left = 0
	_ = l.SetReadDeadline(time.Time{})
	c.ReadCloser = ends{strings.NewReader("xx")}
	_, err = c.Read(make([]byte, 1))
	require.NoError(t, err)
	assert.Equal(t, c.began.Add(uploadTime), l.at)
	u.leave(c)
	assert.Empty(t, u.under)
}
