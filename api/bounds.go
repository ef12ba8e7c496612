package api

import (
	"context"
	"errors"
	"io"
	"net/http"
	"os"
	"strings"
	"time"

	"github.com/labstack/echo/v5"

	"tamiz/app/problems"
)

// How long a call may take. Whoever asks learns at the end of it what became of it.
const (
	requestTime = 2 * time.Minute  // for an answer
	bodyTime    = 30 * time.Second // for what is sent with it, but for files
	fileTime    = time.Hour        // for a file that is written
)

// bounded gives every call an end. What only listens has none, but for each piece of news (see eventStream).
func bounded() echo.MiddlewareFunc {
	uploads := newUploads()
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			r := c.Request()
			conn := http.NewResponseController(c.Response())
			switch path := r.URL.Path; {
			case strings.HasSuffix(path, "/events"):
				return next(c)
			case takesFile(r):
				body, err := uploads.take(r.Body, conn, r.RemoteAddr)
				if err != nil {
					return err
				}
				defer uploads.leave(body)
				r.Body = body
				return next(c)
			case strings.HasSuffix(path, "/export"):
				_ = conn.SetReadDeadline(time.Now().Add(bodyTime))
				_ = conn.SetWriteDeadline(time.Now().Add(fileTime))
			default:
				_ = conn.SetReadDeadline(time.Now().Add(bodyTime))
				_ = conn.SetWriteDeadline(time.Now().Add(requestTime + bodyTime))
				ctx, cancel := context.WithTimeoutCause(r.Context(), requestTime, errTooLong)
				defer cancel()
				c.SetRequest(r.WithContext(ctx))
			}
			if r.Body == nil || r.Body == http.NoBody {
				_ = conn.SetReadDeadline(time.Time{})
			} else {
				c.Request().Body = &read{ReadCloser: r.Body, conn: conn}
			}
			return next(c)
		}
	}
}

var errTooLong = errors.New("the time for an answer is over")

// read lifts the deadline of a body when all of it has come: while the call is worked on, a deadline that
// passed would count as the caller having left.
type read struct {
	io.ReadCloser
	conn *http.ResponseController
}

func (b *read) Read(p []byte) (int, error) {
	n, err := b.ReadCloser.Read(p)
	if err != nil {
		_ = b.conn.SetReadDeadline(time.Time{})
	}
	return n, err
}

// bodyProblem says why what was sent with a call could not be read.
func bodyProblem(err error) error {
	switch {
	case errors.Is(err, echo.ErrStatusRequestEntityTooLarge):
		return &problems.Problem{
			Type:   "too-large",
			Status: http.StatusRequestEntityTooLarge,
			Title:  "More was sent than is taken at once. Nothing was changed.",
		}
	case errors.Is(err, os.ErrDeadlineExceeded):
		return &problems.Problem{
			Type:   "too-slow",
			Status: http.StatusRequestTimeout,
			Title:  "What was sent stopped coming. Nothing was changed.",
		}
	}
	return &problems.Problem{
		Type:   "broken-off",
		Status: http.StatusBadRequest,
		Title:  "What was sent broke off on its way. Nothing was changed.",
	}
}
