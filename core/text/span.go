package text

import (
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// A Span is a token with the place it has in the value as written: the bytes from Start to End.
type Span struct {
	Token      string
	Start, End int
	Break      bool // something stands before it that no n-gram spans
}

// Spans returns the tokens of a field value as Tokens does, with where they stand, for marking
// matches in the text that people read. It is slower than Scan.
func Spans(value string) []Span {
	normalised, from, to := traced(value)
	var s scanner
	var out []Span
	s.words(normalised, false, func(token []byte, start, end int, brk bool) {
		out = append(out, Span{Token: string(token), Start: from[start], End: to[end-1], Break: brk})
	})
	return out
}

// traced normalises piece by piece, so that each byte of the result knows the bytes it came from.
func traced(value string) (normalised []byte, from, to []int) {
	clean := make([]byte, 0, len(value))
	at := make([]int, 0, len(value)+1) // where each byte of clean came from
	for i, r := range value {
		size := utf8.RuneLen(r)
		if r == utf8.RuneError {
			_, size = utf8.DecodeRuneInString(value[i:])
		}
		if r = replace(r); r < 0 {
			continue
		}
		n := len(clean)
		clean = utf8.AppendRune(clean, r)
		for k := n; k < len(clean); k++ {
			at = append(at, i+min(k-n, size-1))
		}
	}
	ends := func(i int) int { // the end in value of the character that holds clean[i]
		_, size := utf8.DecodeRuneInString(value[at[i]:])
		return at[i] + size
	}
	for i := 0; i < len(clean); {
		n := norm.NFKC.NextBoundary(clean[i:], true)
		last := i + n - 1
		for last > i && !utf8.RuneStart(clean[last]) {
			last--
		}
		piece := stripMarks(fold(norm.NFKC.String(string(clean[i : i+n]))))
		for range len(piece) {
			from, to = append(from, at[i]), append(to, ends(last))
		}
		normalised = append(normalised, piece...)
		i += n
	}
	return normalised, from, to
}
