// Package mailbox is a stand-in for a mail server: it takes every mail, keeps the last ones in memory, delivers
// none, and shows them on a page.
package mailbox

import (
	"fmt"
	"html/template"
	"io"
	"mime"
	"mime/multipart"
	"mime/quotedprintable"
	"net"
	"net/http"
	"net/mail"
	"strings"
	"sync"
	"time"

	"github.com/emersion/go-smtp"
)

const (
	mostKept = 200
	longest  = 1 << 20 // bytes of a mail
)

// A Mail is one that came in.
type Mail struct {
	From, To []string
	Subject  string
	Stop     string // where it says it can be stopped
	Text     string
	HTML     string
	At       time.Time
}

// A Mailbox takes mail. Refuse, where set, says why one for an address is not taken.
type Mailbox struct {
	Refuse func(to string) *smtp.SMTPError

	mu    sync.Mutex
	mails []Mail
	serve *smtp.Server
	at    net.Listener
}

// Listen takes mail at an address of this machine, until Close.
func Listen(address string) (*Mailbox, error) {
	l, err := net.Listen("tcp", address)
	if err != nil {
		return nil, err
	}
	m := &Mailbox{at: l}
	m.serve = smtp.NewServer(smtp.BackendFunc(func(*smtp.Conn) (smtp.Session, error) { return &session{box: m}, nil }))
	m.serve.Domain, m.serve.MaxMessageBytes, m.serve.MaxRecipients = "localhost", longest, 50
	m.serve.ReadTimeout, m.serve.WriteTimeout = time.Minute, time.Minute
	go func() { _ = m.serve.Serve(l) }() // ends with Close
	return m, nil
}

// Address returns the address as a mail server's.
func (m *Mailbox) Address() string { return "smtp://" + m.at.Addr().String() }

// Close takes no mail any more.
func (m *Mailbox) Close() error { return m.serve.Close() }

// Mails returns what came in, the oldest first.
func (m *Mailbox) Mails() []Mail {
	m.mu.Lock()
	defer m.mu.Unlock()
	return append([]Mail(nil), m.mails...)
}

func (m *Mailbox) put(x Mail) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.mails = append(m.mails, x)
	if n := len(m.mails) - mostKept; n > 0 {
		m.mails = append([]Mail(nil), m.mails[n:]...)
	}
}

// session is one sender.
type session struct {
	box  *Mailbox
	from string
	to   []string
}

func (s *session) Reset()        { s.from, s.to = "", nil }
func (s *session) Logout() error { return nil }

func (s *session) Mail(from string, _ *smtp.MailOptions) error {
	s.from = from
	return nil
}

func (s *session) Rcpt(to string, _ *smtp.RcptOptions) error {
	if s.box.Refuse != nil {
		if err := s.box.Refuse(to); err != nil {
			return err
		}
	}
	s.to = append(s.to, to)
	return nil
}

func (s *session) Data(r io.Reader) error {
	got, err := Read(r)
	if err != nil {
		return err
	}
	got.From, got.To = []string{s.from}, s.to
	s.box.put(got)
	return nil
}

// Read reads a mail: its subject and its texts.
func Read(r io.Reader) (Mail, error) {
	msg, err := mail.ReadMessage(io.LimitReader(r, longest))
	if err != nil {
		return Mail{}, fmt.Errorf("no mail: %w", err)
	}
	var words mime.WordDecoder
	out := Mail{At: time.Now(), Stop: strings.Trim(msg.Header.Get("List-Unsubscribe"), "<>")}
	if out.Subject, err = words.DecodeHeader(msg.Header.Get("Subject")); err != nil {
		return out, fmt.Errorf("the subject: %w", err)
	}
	return out, out.read(msg.Header.Get("Content-Type"), msg.Header.Get("Content-Transfer-Encoding"), msg.Body)
}

func (m *Mail) read(kind, encoding string, body io.Reader) error {
	media, params, err := mime.ParseMediaType(kind)
	if err != nil {
		media = "text/plain"
	}
	if strings.HasPrefix(media, "multipart/") {
		parts := multipart.NewReader(body, params["boundary"])
		for {
			p, err := parts.NextRawPart()
			if err == io.EOF {
				return nil
			}
			if err != nil {
				return err
			}
			if err := m.read(p.Header.Get("Content-Type"), p.Header.Get("Content-Transfer-Encoding"), p); err != nil {
				return err
			}
		}
	}
	if strings.EqualFold(encoding, "quoted-printable") {
		body = quotedprintable.NewReader(body)
	}
	said, err := io.ReadAll(body)
	if media == "text/html" {
		m.HTML = string(said)
	} else {
		m.Text = string(said)
	}
	return err
}

var page = template.Must(template.New("").Parse(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Mail that was sent</title>
<style>body{font:15px/1.5 sans-serif;max-width:760px;margin:24px auto;padding:0 16px}article{border:1px solid #ccc;border-radius:8px;padding:12px 16px;margin:14px 0}pre{white-space:pre-wrap;font:13px/1.5 monospace}</style></head>
<body><h1>Mail that was sent</h1><p>This stand-in takes every mail and delivers none. The newest stands first.</p>
{{range .}}<article><h2>{{.Subject}}</h2><p>To {{range .To}}{{.}} {{end}}, {{.At.Format "2 Jan 2006, 15:04"}}{{if .Stop}}, <a href="{{.Stop}}">stops by this link</a>{{end}}</p><pre>{{.Text}}</pre></article>
{{else}}<p>Nothing yet.</p>{{end}}</body></html>`))

// ServeHTTP shows what came in.
func (m *Mailbox) ServeHTTP(w http.ResponseWriter, _ *http.Request) {
	all := m.Mails()
	for i, j := 0, len(all)-1; i < j; i, j = i+1, j-1 {
		all[i], all[j] = all[j], all[i]
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'")
	_ = page.Execute(w, all)
}
