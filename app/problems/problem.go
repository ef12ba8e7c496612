// Package problems is errors for people: what happened, where, and what was kept.
package problems

import (
	"errors"
	"fmt"
	"strings"

	"tamiz/core/query"
	"tamiz/core/review"
	"tamiz/core/text"
	"tamiz/store"
)

// A Problem is an error for people: what happened, where, and what was kept. Type is stable, so that
// a reader can say it in its own language with Params.
type Problem struct {
	Type   string            `json:"type"`
	Title  string            `json:"title"`
	Status int               `json:"status"`
	Detail string            `json:"detail,omitempty"`
	Field  string            `json:"field,omitempty"`
	Params map[string]string `json:"params,omitempty"`
	// Clashes are what two people changed at once, where that is the problem.
	Clashes []review.Clash `json:"clashes,omitempty"`
}

// Error implements error.
func (p *Problem) Error() string { return p.Title }

// Invalid returns the problem of a field that holds what it must not.
func Invalid(field, format string, args ...any) *Problem {
	return &Problem{Type: "invalid", Status: 422, Field: field, Title: fmt.Sprintf(format, args...)}
}

// A Refusal is why a typed term cannot be searched.
type Refusal struct {
	Reason  string `json:"reason"`
	Token   string `json:"token,omitempty"`
	Message string `json:"message"`
}

// RefusalOf says why a term is refused.
func RefusalOf(err error) *Refusal {
	var r *text.Refusal
	switch {
	case errors.As(err, &r):
		return &Refusal{Reason: string(r.Reason), Token: r.Token, Message: r.Error()}
	case errors.Is(err, query.ErrWithin):
		return &Refusal{Reason: "within", Message: err.Error()}
	}
	return &Refusal{Reason: "other", Message: err.Error()}
}

// Gone turns a missing row into a problem that says what is missing.
func Gone(err error, what string) error {
	if errors.Is(err, store.ErrNone) {
		return &Problem{Type: what + "-gone", Status: 404, Title: "This " + what + " is not there, or was deleted."}
	}
	return err
}

// Sentence returns words as a sentence: with a capital and a full stop.
func Sentence(s string) string {
	r := []rune(s)
	if len(r) == 0 {
		return s
	}
	s = strings.ToUpper(string(r[:1])) + string(r[1:])
	if !strings.HasSuffix(s, ".") {
		s += "."
	}
	return s
}

// Told returns what an error says to people; of one that was not made for them, only that there was one.
func Told(err error) string {
	var p *Problem
	if errors.As(err, &p) {
		return p.Title
	}
	return "Something went wrong in Tamiz itself."
}

// DiskFull is the problem of a file that there was no room for.
func DiskFull() *Problem {
	return &Problem{Type: "disk-full", Status: 507, Title: "The disk of the database is full. Nothing was brought in."}
}
