// Package alerts tells people what a search brought that ran again by itself: in the application, by mail, and at a
// secret address for programs that read feeds.
package alerts

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"errors"
	"log/slog"
	"net/mail"
	"strings"
	"sync/atomic"
	"time"

	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/runs"
	"tamiz/store"
)

const (
	mostTold      = 50  // notices of a review that are shown
	mostAddresses = 20  // of a review
	mostTitles    = 10  // of a notice
	longestMail   = 254 // characters of an address (RFC 5321, 4.5.3.1.3)
)

// A Service tells.
type Service struct {
	rows       ownRows
	reviewRows headRows
	runs       *runs.Service
	jobs       *jobs.Service
	post       *Post // nil where no mail server is known
	log        *slog.Logger
	base       atomic.Pointer[string]
	now        func() time.Time
}

// New returns the notices of a database; post may be nil.
func New(s *store.Store, o *runs.Service, w *jobs.Service, post *Post, log *slog.Logger) *Service {
	return &Service{
		rows:       NewRows(s),
		reviewRows: reviews.NewRows(s),
		runs:       o,
		jobs:       w,
		post:       post,
		log:        log,
		now:        time.Now,
	}
}

// At says under which address the program is reached: links begin with it. Before that nothing is sent.
func (a *Service) At(base string) { a.base.Store(&base) }

// SetClock sets what time it is, for tests.
func (a *Service) SetClock(now func() time.Time) { a.now = now }

// A Title is one of the records that a notice is about.
type Title struct {
	Title  string `json:"title"`
	Byline string `json:"byline"`
	From   string `json:"from"`
	Likely bool   `json:"likely"`
}

// A Notice is what a search brought that ran again by itself.
type Notice struct {
	ID      int64     `json:"id"`
	At      time.Time `json:"at"`
	New     int       `json:"new"`
	Likely  int       `json:"likely"`
	Titles  []Title   `json:"titles"`
	Trouble string    `json:"trouble,omitempty"`
}

// An Address is somebody who is told by mail.
type Address struct {
	ID      int64      `json:"id"`
	Address string     `json:"address"`
	Who     string     `json:"who,omitempty"`
	Stopped bool       `json:"stopped"`
	Trouble string     `json:"trouble,omitempty"` // why nothing is sent there any more
	Last    *time.Time `json:"last,omitempty"`    // when a mail went there
	Waits   string     `json:"waits,omitempty"`   // why the one that is to go has not gone yet
	Next    *time.Time `json:"next,omitempty"`    // when it is tried again
}

// Told is what was told of a review, and to whom.
type Told struct {
	Notices   []Notice  `json:"notices"` // the newest first
	Addresses []Address `json:"addresses"`
	Feed      string    `json:"feed,omitempty"` // the secret of its address
	Mail      bool      `json:"mail"`           // a mail server is known
}

// Told returns what was told of a review, and to whom.
func (a *Service) Told(ctx context.Context, review int64) (*Told, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	out := &Told{Notices: []Notice{}, Addresses: []Address{}, Mail: a.post != nil}
	notices, err := a.noticesOf(ctx, review)
	if err != nil {
		return nil, err
	}
	out.Notices = append(out.Notices, notices...)
	addresses, err := a.rows.MailTo(ctx, review)
	if err != nil {
		return nil, err
	}
	for _, m := range addresses {
		out.Addresses = append(
			out.Addresses,
			Address{m.ID, m.Address, m.Who, m.Stopped != nil, m.Trouble, m.Last, m.Waits, m.Next},
		)
	}
	feed, err := a.rows.Feed(ctx, review)
	if err == nil {
		out.Feed = feed.Secret
	} else if !errors.Is(err, store.ErrNone) {
		return nil, err
	}
	return out, nil
}

func (a *Service) noticesOf(ctx context.Context, review int64) (out []Notice, err error) {
	list, err := a.rows.Tellings(ctx, review, mostTold)
	for _, n := range list {
		row := Notice{ID: n.ID, At: n.At, New: n.Fresh, Likely: n.Likely, Titles: []Title{}, Trouble: n.Trouble}
		if err := json.Unmarshal(n.Titles, &row.Titles); err != nil {
			return nil, err
		}
		out = append(out, row)
	}
	return out, err
}

// TellTo tells a review to somebody by mail from now on.
func (a *Service) TellTo(ctx context.Context, review int64, address string) error {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return problems.Gone(err, "review")
	}
	if a.post == nil {
		return &problems.Problem{Type: "no-mail", Status: 409, Title: "No mail server is known: TAMIZ_SMTP names one."}
	}
	at, err := mail.ParseAddress(strings.TrimSpace(address))
	if err != nil || len(address) > longestMail || strings.ContainsAny(address, "\r\n") {
		return problems.Invalid("address", "This is no mail address.")
	}
	kept, err := a.rows.PutMailTo(ctx, review, at.Address, rand.Text(), mostAddresses)
	if err == nil && !kept {
		return problems.Invalid(
			"address",
			"At most %d addresses are told of one search. This one was not kept.",
			mostAddresses,
		)
	}
	return err
}

// Stop tells a review to somebody no more.
func (a *Service) Stop(ctx context.Context, review, id int64) error {
	return problems.Gone(a.rows.StopMailTo(ctx, review, id), "address")
}

// MailOf returns of which review the link in a mail stops it.
func (a *Service) MailOf(ctx context.Context, secret string) (string, error) {
	name, err := a.rows.MailOf(ctx, secret)
	return name, problems.Gone(err, "link")
}

// StopBy does what the link in a mail says.
func (a *Service) StopBy(ctx context.Context, secret string) error {
	return problems.Gone(a.rows.StopMail(ctx, secret), "link")
}

// OpenFeed gives a review a secret address, in place of the one it had, which then is withdrawn.
func (a *Service) OpenFeed(ctx context.Context, review int64) error {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return problems.Gone(err, "review")
	}
	return a.rows.PutFeed(ctx, review, rand.Text())
}

// CloseFeed withdraws it.
func (a *Service) CloseFeed(ctx context.Context, review int64) error {
	return a.rows.PutFeed(ctx, review, "")
}

// Tell tells of searches that ran again by themselves, each once (see TellEvery).
func (a *Service) Tell(ctx context.Context) error {
	list, err := a.rows.Untold(ctx)
	if err != nil {
		return err
	}
	for _, u := range list {
		n := Telling{Review: u.Review, Asking: u.Asking}
		titles := []Title{}
		since, err := a.runs.Since(ctx, u.Review)
		switch {
		case ctx.Err() != nil:
			return ctx.Err()
		case store.Unreachable(err):
			return err
		case err != nil:
			n.Trouble = problems.Told(err)
			a.log.ErrorContext(ctx, "what is new cannot be told", "review", u.Review, "error", err)
		default:
			n.Fresh = len(since.Records) + since.More
			for _, r := range since.Records {
				if r.Likely {
					n.Likely++
				}
				if len(titles) < mostTitles {
					titles = append(titles, Title{r.Record.Title, r.Record.Byline, r.From, r.Likely})
				}
			}
		}
		if n.Titles, err = json.Marshal(titles); err != nil {
			return err
		}
		first, err := a.rows.Tell(ctx, n, a.now())
		if err != nil {
			return err
		}
		if first {
			a.jobs.Tell(ctx, u.Review, jobs.News{Kind: "notices"})
		}
	}
	return nil
}

// TellEvery is how often it is looked whether something is to be told, SendEvery whether a mail is to go.
const (
	TellEvery = 30 * time.Second
	SendEvery = time.Minute
)
