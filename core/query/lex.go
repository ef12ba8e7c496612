package query

import (
	"fmt"
	"strings"
	"unicode/utf8"
)

// An Error says where a query cannot be read, and what was expected there.
type Error struct {
	At       int    // the character of the query, from 1
	Expected string // what should stand there, or what is wrong with what does
	Piece    string // the query around the place
	Mark     int    // the character of Piece that is meant, from 1
	Err      error  // the refusal of a term, where that is what is wrong
}

func (e *Error) Error() string {
	return fmt.Sprintf("character %d: %s\n  %s\n  %s^", e.At, e.Expected, e.Piece, strings.Repeat(" ", e.Mark-1))
}

// Unwrap returns the refusal of a term, where that is what is wrong.
func (e *Error) Unwrap() error { return e.Err }

// A token of a query.
type token struct {
	kind    kind
	text    string // as written, without the quotes of a string
	at      int    // byte offset
	escaped bool   // it holds a backslash
}

type kind uint8

const (
	end    kind = iota
	word        // unquoted
	quoted      // in quotes
	open        // (
	shut        // )
	slash       // /
	sign        // = == < <= > >= <>
)

func (t token) String() string {
	switch t.kind {
	case end:
		return "the end"
	case quoted:
		return fmt.Sprintf("%q", cut(t.text))
	}
	return "“" + cut(t.text) + "”"
}

func cut(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40]) + "…"
	}
	return s
}

// lex cuts a query into tokens. It fails only where a string has no end.
func lex(query string) ([]token, *Error) {
	var out []token
	for i := 0; i < len(query); {
		c := query[i]
		switch {
		case c == ' ' || c == '\t' || c == '\n' || c == '\r':
			i++
		case c == '(':
			out = append(out, token{open, "(", i, false})
			i++
		case c == ')':
			out = append(out, token{shut, ")", i, false})
			i++
		case c == '/':
			out = append(out, token{slash, "/", i, false})
			i++
		case c == '=' || c == '<' || c == '>':
			n := 1
			if i+1 < len(query) && (query[i+1] == '=' || c == '<' && query[i+1] == '>') {
				n = 2
			}
			out = append(out, token{sign, query[i : i+n], i, false})
			i += n
		case c == '"':
			n := stringEnd(query[i+1:])
			if n < 0 {
				return nil, wrong(query, i, "this quotation mark has no partner")
			}
			s := query[i+1 : i+1+n]
			out = append(out, token{quoted, s, i, strings.Contains(s, `\`)})
			i += n + 2
		default:
			n := wordEnd(query[i:])
			s := query[i : i+n]
			out = append(out, token{word, s, i, strings.Contains(s, `\`)})
			i += n
		}
	}
	return append(out, token{end, "", len(query), false}), nil
}

func stringEnd(s string) int {
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case '\\':
			i++
		case '"':
			return i
		}
	}
	return -1
}

func wordEnd(s string) int {
	for i := 0; i < len(s); i++ {
		if s[i] == '\\' {
			i++
		} else if strings.IndexByte(" \t\n\r()/=<>\"", s[i]) >= 0 {
			return i
		}
	}
	return len(s)
}

// wrong makes an error at a byte of the query.
func wrong(query string, at int, format string, args ...any) *Error {
	const around = 30
	before, after := []rune(query[:at]), []rune(query[at:])
	e := &Error{At: len(before) + 1, Expected: fmt.Sprintf(format, args...)}
	from := max(0, len(before)-around)
	piece := append(before[from:len(before):len(before)], after[:min(len(after), around)]...)
	e.Mark = len(before) - from + 1
	if from > 0 {
		piece = append([]rune("…"), piece...)
		e.Mark++
	}
	for i, r := range piece {
		if r < ' ' || r == utf8.RuneError {
			piece[i] = ' '
		}
	}
	e.Piece = string(piece)
	return e
}

// plain returns what a term says once its escapes are taken away. For text an escaped * or ? is
// punctuation.
func (t token) plain(isText bool) string {
	if !t.escaped {
		return t.text
	}
	var b strings.Builder
	for i := 0; i < len(t.text); i++ {
		c := t.text[i]
		if c == '\\' && i+1 < len(t.text) {
			i++
			if c = t.text[i]; isText && (c == '*' || c == '?') {
				c = ' '
			}
		}
		b.WriteByte(c)
	}
	return b.String()
}
