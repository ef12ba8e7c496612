package sru

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"github.com/cenkalti/backoff/v5"
	"golang.org/x/sync/semaphore"

	"tamiz/exchange"
	"tamiz/source"
)

// Limits of what is asked of a source and taken from it.
const (
	maxAtOnce  = 2                // requests under way at one source
	maxAnswer  = 16 << 20         // bytes
	allAnswers = 64 << 20         // bytes of all answers that are being read
	maxRecord  = 1 << 20          // bytes of one record in an answer
	maxAddress = 2000             // characters of an address; a longer one is sent by POST
	maxTries   = 5                //
	maxWait    = 2 * time.Minute  // a source that asks for more is given up for now
	answerTime = 30 * time.Second // for one answer
	keptAnswer = 64 << 10         // bytes of an answer shown as it came
)

// A Client asks one source. It may be used by many at a time.
type Client struct {
	Address string
	Version string // of the protocol; 1.2 where none is said
	Map     source.Map
	// Waiting, when set, is told how long the client waits before it asks again, and why.
	Waiting func(d time.Duration, why error)
	// Keep makes answers be kept as they came, for showing them.
	Keep bool

	http    *http.Client
	seats   *semaphore.Weighted
	reading *atomic.Int64 // bytes of all answers that are being read
	timeout time.Duration
	pause   time.Duration // before the first retry
}

// A Settings is what clients have in common.
type Settings struct {
	Guard   Guard
	Timeout time.Duration // for one answer; a default where none is said
	Pause   time.Duration // before the first retry; a default where none is said

	once  sync.Once
	http  *http.Client
	mu    sync.Mutex
	seats map[string]*semaphore.Weighted

	reading atomic.Int64
}

// NewClient returns a client of the source at an address. All clients of one server share its seats, so
// that a server is never asked by more than two at a time. version and m may be zero values.
func (s *Settings) NewClient(address, version string, m source.Map) (*Client, error) {
	at, err := url.Parse(strings.TrimSpace(address))
	if err != nil || at.Host == "" || at.Scheme != "http" && at.Scheme != "https" {
		return nil, fmt.Errorf("%w: %q is no address that begins with http:// or https://", source.ErrNotAllowed, address)
	}
	if at.User != nil {
		return nil, fmt.Errorf("%w: a name or password in an address is not kept safe", source.ErrNotAllowed)
	}
	at.Fragment = ""
	s.once.Do(func() { s.http = s.Guard.client() })
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.seats == nil {
		s.seats = map[string]*semaphore.Weighted{}
	}
	key := strings.ToLower(at.Host) + strings.TrimRight(at.Path, "/")
	if s.seats[key] == nil {
		s.seats[key] = semaphore.NewWeighted(maxAtOnce)
	}
	c := &Client{
		Address: at.String(),
		Version: version,
		Map:     m,
		http:    s.http,
		seats:   s.seats[key],
		reading: &s.reading,
		timeout: s.Timeout,
		pause:   s.Pause,
	}
	if c.timeout == 0 {
		c.timeout = answerTime
	}
	if c.pause == 0 {
		c.pause = 500 * time.Millisecond
	}
	return c, nil
}

// Search implements source.Source.
func (c *Client) Search(ctx context.Context, s source.Search) (*source.Page, error) {
	q := c.parameters("searchRetrieve")
	q.Set("query", s.Query)
	q.Set("startRecord", strconv.Itoa(max(1, s.Start)))
	q.Set("maximumRecords", strconv.Itoa(s.Max))
	if c.Map.Schema != "" && s.Max > 0 {
		q.Set("recordSchema", c.Map.Schema)
	}
	if c.Version == Version20 {
		q.Set("recordXMLEscaping", "xml")
	} else {
		q.Set("recordPacking", "xml")
	}
	page := &source.Page{Total: -1}
	var x source.Exchange
	err := c.ask(ctx, q, &x, func(r io.Reader) (err error) {
		page, err = readPage(r, max(1, s.Start))
		return err
	})
	page.Query, page.Sent, page.Received = s.Query, x.Sent, x.Received
	if err == nil && s.Max > 0 && len(page.Records) == 0 && page.Total >= s.Start {
		// It found what was asked for and will not give it.
		for _, said := range page.Said {
			if said.Number > 0 {
				return page, &source.Refusal{Saying: said}
			}
		}
	}
	return page, err
}

// Scan implements source.Source.
func (c *Client) Scan(ctx context.Context, s source.Scan) ([]source.Entry, error) {
	q := c.parameters("scan")
	q.Set("scanClause", s.Index+` = "`+strings.NewReplacer(`\`, `\\`, `"`, `\"`).Replace(s.Term)+`"`)
	q.Set("responsePosition", strconv.Itoa(s.Before+1))
	q.Set("maximumTerms", strconv.Itoa(s.Max))
	var out []source.Entry
	var x source.Exchange
	err := c.ask(ctx, q, &x, func(r io.Reader) (err error) {
		out, err = readEntries(r)
		return err
	})
	return out, err
}

// Explain implements source.Source. It finds out which version of the protocol the source speaks.
func (c *Client) Explain(ctx context.Context) (*source.Description, error) {
	var first error
	for _, version := range []string{c.Version, Version12, Version20, Version11} {
		if version == "" {
			continue
		}
		asked := *c
		asked.Version = version
		var d *source.Description
		var x source.Exchange
		err := asked.ask(ctx, asked.parameters("explain"), &x, func(r io.Reader) (err error) {
			d, err = readExplain(r)
			return err
		})
		if err == nil {
			if d.Version == "" {
				d.Version = version
			}
			return d, nil
		}
		if first == nil {
			first = err
		}
		var refused *source.Refusal
		if !errors.As(err, &refused) && !errors.Is(err, source.ErrMalformed) {
			break
		}
	}
	return nil, first
}

// Discover returns what the source says of itself and the map by which it would be asked.
func (c *Client) Discover(ctx context.Context) (*source.Description, source.Map, error) {
	d, err := c.Explain(ctx)
	if err != nil {
		return nil, source.Map{}, err
	}
	c.Version = d.Version
	m, err := c.probe(ctx, source.Propose(d))
	return d, m, err
}

// probe tries what a source's description leaves open: whether words near each other, and marks at the end
// of a word and inside it, are understood. A source that refuses one of them lacks it.
func (c *Client) probe(ctx context.Context, m source.Map) (source.Map, error) {
	ix := ""
	for _, field := range []string{"text", "title", "any"} {
		if ix = m.Indexes[field]; ix != "" {
			break
		}
	}
	if ix == "" {
		return m, nil
	}
	for _, p := range []struct {
		query string
		can   *bool
	}{
		{ix + " = wat*", &m.Ends},
		{ix + " = wat*r", &m.Inside},
		{ix + " = water prox/unit=word/distance<=3 " + ix + " = work", &m.Near},
	} {
		_, err := c.Search(ctx, source.Search{Query: p.query, Start: 1})
		var refused *source.Refusal
		switch {
		case err == nil:
			*p.can = true
		case errors.As(err, &refused):
			*p.can = false
		default:
			return m, err
		}
	}
	return m, nil
}

// parameters returns what every request of an operation says.
func (c *Client) parameters(operation string) url.Values {
	q := url.Values{}
	switch c.Version {
	case Version20:
		// In 2.0 the operation follows from the parameters.
	case "":
		q.Set("operation", operation)
		q.Set("version", Version12)
	default:
		q.Set("operation", operation)
		q.Set("version", c.Version)
	}
	return q
}

// ask sends a request and lets read take the answer. It tries again when that may help.
func (c *Client) ask(ctx context.Context, q url.Values, x *source.Exchange, read func(io.Reader) error) error {
	address := c.Address
	separator := "?"
	if strings.Contains(address, "?") {
		separator = "&"
	}
	encoded := q.Encode()
	x.Sent = address
	if encoded != "" {
		x.Sent += separator + encoded
	}
	wait := backoff.NewExponentialBackOff()
	wait.InitialInterval, wait.MaxInterval = c.pause, 30*time.Second
	unread := 0
	_, err := backoff.Retry(ctx, func() (struct{}, error) {
		err := c.once(ctx, encoded, read, x)
		if errors.Is(err, source.ErrMalformed) {
			// What cannot be read three times is not cut off by chance.
			if unread++; unread == 3 {
				err = backoff.Permanent(err)
			}
		}
		return struct{}{}, err
	},
		backoff.WithBackOff(wait), backoff.WithMaxTries(maxTries), backoff.WithMaxElapsedTime(5*time.Minute),
		backoff.WithNotify(func(err error, d time.Duration) {
			if c.Waiting != nil {
				c.Waiting(d, err)
			}
		}))
	var again *backoff.RetryAfterError
	if errors.As(err, &again) {
		return fmt.Errorf("%w: it asked to wait %s each time", source.ErrBusy, again.Duration)
	}
	var permanent *backoff.PermanentError
	if errors.As(err, &permanent) {
		return permanent.Unwrap()
	}
	return err
}

func (c *Client) once(ctx context.Context, encoded string, read func(io.Reader) error, x *source.Exchange) error {
	if err := c.seats.Acquire(ctx, 1); err != nil {
		return backoff.Permanent(err)
	}
	defer c.seats.Release(1)
	asking, cancel := context.WithTimeout(ctx, c.timeout)
	defer cancel()
	method, address, body := http.MethodGet, x.Sent, io.Reader(nil)
	if len(x.Sent) > maxAddress {
		method, address, body = http.MethodPost, c.Address, strings.NewReader(encoded)
	}
	request, err := http.NewRequestWithContext(asking, method, address, body)
	if err != nil {
		return backoff.Permanent(fmt.Errorf("%w: this is no address", source.ErrNotAllowed))
	}
	if method == http.MethodPost {
		request.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	request.Header.Set("Accept", "application/xml, text/xml;q=0.9, */*;q=0.1")
	request.Header.Set("User-Agent", "Tamiz")
	answer, err := c.http.Do(request)
	if err != nil {
		return c.unanswered(ctx, err)
	}
	defer answer.Body.Close()
	if err := status(answer); err != nil {
		return err
	}
	taken := &bounded{r: answer.Body, left: maxAnswer, all: c.reading}
	defer taken.end()
	var kept bytes.Buffer
	in := io.Reader(taken)
	if c.Keep {
		in = io.TeeReader(in, &limited{&kept, keptAnswer})
	}
	err = read(in)
	if c.Keep {
		x.Received = kept.String()
	}
	var refused *source.Refusal
	switch {
	case err == nil:
		return nil
	case errors.As(err, &refused):
		return backoff.Permanent(err)
	case taken.full: // of others' answers, which end soon
		return fmt.Errorf("%w: too much is being read at once", source.ErrBusy)
	case taken.left <= 0:
		return backoff.Permanent(fmt.Errorf("%w: more than %d MB", source.ErrTooLarge, maxAnswer>>20))
	case taken.err != nil && !errors.Is(taken.err, io.EOF):
		return c.unanswered(ctx, taken.err)
	}
	return fmt.Errorf("%w: %s", source.ErrMalformed, exchange.InWords(err))
}

// unanswered says why no answer came. What the guard refused is not tried again.
func (c *Client) unanswered(ctx context.Context, err error) error {
	var timeout net.Error
	switch {
	case ctx.Err() != nil:
		return backoff.Permanent(ctx.Err())
	case errors.Is(err, source.ErrNotAllowed), errors.Is(err, source.ErrBroken):
		return backoff.Permanent(err)
	case errors.As(err, &timeout) && timeout.Timeout(), errors.Is(err, context.DeadlineExceeded):
		return fmt.Errorf("%w (%s)", source.ErrTimeout, c.timeout)
	}
	return fmt.Errorf("%w: %s", source.ErrUnreachable, exchange.InWords(err))
}

// status refuses an answer that is none, and says whether to ask again.
func status(answer *http.Response) error {
	code := answer.StatusCode
	if code < 300 {
		return nil
	}
	err := fmt.Errorf("%w: %s", source.ErrBroken, answer.Status)
	if code == http.StatusTooManyRequests || code == http.StatusServiceUnavailable {
		if d, ok := retryAfter(answer.Header.Get("Retry-After")); ok {
			if d > maxWait {
				return backoff.Permanent(fmt.Errorf("%w: %s", source.ErrBusy, d.Round(time.Second)))
			}
			return &backoff.RetryAfterError{Duration: d}
		}
		return err
	}
	if code >= 500 {
		return err
	}
	return backoff.Permanent(err)
}

// retryAfter reads the header of that name: seconds, or a date.
func retryAfter(s string) (time.Duration, bool) {
	if n, err := strconv.Atoi(strings.TrimSpace(s)); err == nil && n >= 0 {
		return time.Duration(n) * time.Second, true
	}
	if at, err := http.ParseTime(s); err == nil {
		return max(0, time.Until(at)), true
	}
	return 0, false
}

// limited keeps the first bytes that are written to it.
type limited struct {
	to   *bytes.Buffer
	left int
}

func (l *limited) Write(p []byte) (int, error) {
	n := min(len(p), l.left)
	l.to.Write(p[:n])
	l.left -= n
	return len(p), nil
}
