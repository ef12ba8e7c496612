package bib

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// Flat returns text with each run of white space as one space, trimmed. Text that is flat already, as most
// is, costs a glance at it.
func Flat(s string) string {
	if s = strings.TrimSpace(s); flat(s) {
		return s
	}
	return strings.Join(strings.Fields(s), " ")
}

// flat reports whether a trimmed text has no white space but single spaces. It looks at eight bytes at a time
// where they are ASCII without control characters.
func flat(s string) bool {
	const low, high = 0x0101010101010101, 0x8080808080808080
	var before byte
	for len(s) > 0 {
		if len(s) >= 8 {
			x := uint64(
				s[0],
			) | uint64(
				s[1],
			)<<8 | uint64(
				s[2],
			)<<16 | uint64(
				s[3],
			)<<24 | uint64(
				s[4],
			)<<32 | uint64(
				s[5],
			)<<40 | uint64(
				s[6],
			)<<48 | uint64(
				s[7],
			)<<56
			// A byte below 0x20 borrows from its high bit; one above 0x7f has it.
			if (x|(x-low*' '))&high == 0 {
				spaces := ^(x ^ low*' ' + low*0x7f) & high // the high bit of each byte that is a space
				if spaces&(spaces>>8) != 0 || before == ' ' && spaces&0x80 != 0 {
					return false
				}
				before, s = byte(x>>56), s[8:]
				continue
			}
		}
		for i := 0; i < 8 && i < len(s); i++ {
			c := s[i]
			if look[c] && (c != ' ' || before == ' ') {
				if r, _ := utf8.DecodeRuneInString(s[i:]); unicode.IsSpace(r) {
					return false
				}
			}
			before = c
		}
		s = s[min(8, len(s)):]
	}
	return true
}

// look has the bytes that white space begins with.
var look = [256]bool{
	'\t': true,
	'\n': true,
	'\v': true,
	'\f': true,
	'\r': true,
	' ':  true,
	0xC2: true,
	0xE1: true,
	0xE2: true,
	0xE3: true,
}
