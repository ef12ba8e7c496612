// Package source is the port to literature sources: what any source can be asked, what it may lack, how
// a query is put to it in its own names, and how a sample is drawn from it. It knows no protocol; that
// is the business of the packages below it.
package source

import (
	"context"
	"errors"
	"fmt"

	"tamiz/core/bib"
)

// A Source answers for a collection of records that is not ours.
type Source interface {
	// Explain returns what the source says of itself.
	Explain(ctx context.Context) (*Description, error)
	// Search returns some of the records that match, and how many do. What could be read of an answer
	// that breaks off is returned together with the error.
	Search(ctx context.Context, s Search) (*Page, error)
	// Scan returns the entries of an index around a term.
	Scan(ctx context.Context, s Scan) ([]Entry, error)
}

// A Search is a question to a source, in its own names.
type Search struct {
	Query string // CQL
	Start int    // the first record wanted, from 1
	Max   int    // how many; 0 is none, for the count alone
}

// A Page is what a source answered.
type Page struct {
	Total   int // how many records match
	Records []Got
	Exchange
}

// A Got is what stood at one position of the answer: a record, or why there is none.
type Got struct {
	Position int
	Record   *bib.Record
	Trouble  string
}

// An Exchange is what was sent to a source and what it said besides the records.
type Exchange struct {
	Sent     string   // the address with everything that was asked
	Query    string   // the query as sent
	Echoed   string   // the query as the source repeats it; empty where it does not
	Said     []Saying // its diagnostics and remarks
	Received string   // the answer as it came, cut at some length, where it was asked for
}

// A Saying is a remark of a source about a query. Number is that of a diagnostic of the standard, 0 where
// it is none.
type Saying struct {
	Number int    `json:"number,omitempty"`
	Text   string `json:"text"`
	Detail string `json:"detail,omitempty"`
}

// A Scan asks for the entries of an index around a term.
type Scan struct {
	Index  string // the source's own name of it
	Term   string
	Before int
	Max    int
}

// An Entry is a term of a source's index.
type Entry struct {
	Term    string `json:"term"`
	Records int    `json:"records"`
}

// A Refusal is the answer of a source that it cannot do what was asked.
type Refusal struct {
	Saying
}

func (r *Refusal) Error() string {
	text := r.Text
	if text == "" {
		text = "the source refused the question"
	}
	if r.Detail != "" {
		text += ": " + r.Detail
	}
	if r.Number > 0 {
		text = fmt.Sprintf("%s (diagnostic %d)", text, r.Number)
	}
	return text
}

// The ways in which a source can fail to answer; errors of a source wrap one of them or a *Refusal.
var (
	ErrUnreachable = errors.New("the source cannot be reached")
	ErrTimeout     = errors.New("the source did not answer in time")
	ErrBusy        = errors.New("the source asks to wait longer than is sensible")
	ErrBroken      = errors.New("the source answered with an error of its own")
	ErrMalformed   = errors.New("the answer cannot be read")
	ErrTooLarge    = errors.New("the answer is larger than is read")
	ErrNotAllowed  = errors.New("the address is not allowed")
)

// A Description is what a source says of itself.
type Description struct {
	Title      string              `json:"title"`
	About      string              `json:"about"`
	Version    string              `json:"version"` // of the protocol
	Indexes    []Index             `json:"indexes"`
	Schemas    []Schema            `json:"schemas"`
	MaxRecords int                 `json:"maxRecords"` // in one answer; 0 where it does not say
	Supports   map[string][]string `json:"supports"`   // as the source puts it
}

// An Index is one that a source offers.
type Index struct {
	Name  string `json:"name"` // with the prefix of its context set
	Title string `json:"title"`
	Scan  bool   `json:"scan"`
	Sort  bool   `json:"sort"`
}

// A Schema is a form in which a source gives records.
type Schema struct {
	Name       string `json:"name"`
	Identifier string `json:"identifier"`
	Title      string `json:"title"`
}
