package text

import (
	"slices"
	"strings"
	"unicode"
	"unicode/utf8"
)

// Tokens returns the tokens of one field value, in order.
func Tokens(value string) []string {
	var out []string
	Scan(value, func(token []byte, _ bool) { out = append(out, string(token)) })
	return out
}

// Key joins the tokens of a value by single spaces: two values with the same key are written alike
// but for case, punctuation and the like.
func Key(value string) string { return strings.Join(Tokens(value), " ") }

// Scan calls emit for each token of a field value, in order. brk tells that something other than
// white space, hyphens and apostrophes stands between this token and the one before, so that no
// n-gram spans the two. The token is only valid during the call.
func Scan(value string, emit func(token []byte, brk bool)) {
	scan(value, false, emit)
}

// scan works on one word at a time (between ASCII white space, across which nothing composes), so that
// a single accented word does not make the whole value slow. wild counts * and ? as token characters.
func scan(value string, wild bool, emit func(token []byte, brk bool)) {
	s := scanner{wild: wild}
	var word []byte
	brk := false
	for i := 0; i < len(value); {
		if isSpace[value[i]] {
			i++
			continue
		}
		start, ascii := i, true
		for i < len(value) && !isSpace[value[i]] {
			ascii = ascii && value[i] < utf8.RuneSelf
			i++
		}
		word = word[:0]
		if ascii {
			for _, c := range []byte(value[start:i]) {
				word = append(word, asciiForm[c])
			}
		} else {
			word = append(word, normaliseUnicode(value[start:i])...)
		}
		brk = s.words(word, brk, func(token []byte, _, _ int, brk bool) { emit(token, brk) })
	}
}

// A scanner finds the tokens in normalised text.
type scanner struct {
	wild  bool
	token []byte
}

// words emits the tokens of normalised text with their byte offsets in it, and returns whether a
// break stands after the last. brk is whether one stood before the first.
func (s *scanner) words(b []byte, brk bool, emit func(token []byte, start, end int, brk bool)) bool {
	for i := 0; i < len(b); {
		class, size := s.class(b[i:])
		if class != inToken {
			brk = brk || class == breaks
			i += size
			continue
		}
		start, plain := i, true
		for i < len(b) {
			class, size := s.class(b[i:])
			if b[i] == '\'' && i+1 < len(b) {
				// An apostrophe belongs to the run when it stands directly between token characters.
				if next, _ := s.class(b[i+1:]); next == inToken && i > start && b[i-1] != '\'' {
					plain = false
					i++
					continue
				}
			}
			if class != inToken {
				break
			}
			plain = plain && size == 1
			i += size
		}
		if plain {
			emit(b[start:i], start, i, brk)
		} else {
			s.pieces(b[start:i], start, brk, emit)
		}
		brk = false
	}
	return brk
}

// pieces emits the tokens of a run that holds apostrophes or more than ASCII: a final 's is dropped,
// other apostrophes go, and each Han or kana character stands by itself.
func (s *scanner) pieces(run []byte, base int, brk bool, emit func(token []byte, start, end int, brk bool)) {
	end := len(run)
	if n := len(run); n > 2 && run[n-1] == 's' && run[n-2] == '\'' {
		end -= 2
	}
	s.token = s.token[:0]
	start := 0
	flush := func(to int) {
		if len(s.token) > 0 {
			emit(s.token, base+start, base+to, brk)
			s.token, brk = s.token[:0], false
		}
	}
	for i := 0; i < end; {
		r, size := utf8.DecodeRune(run[i:])
		switch {
		case r == '\'':
		case standsAlone(r):
			flush(i)
			start = i
			s.token = append(s.token, run[i:i+size]...)
			flush(i + size)
			start = i + size
		default:
			if len(s.token) == 0 {
				start = i
			}
			s.token = append(s.token, run[i:i+size]...)
		}
		i += size
	}
	flush(end)
}

type class uint8

const (
	joins   class = iota // white space, hyphen, apostrophe: an n-gram may span it
	breaks               // any other character outside tokens
	inToken              // a token character
)

func (s *scanner) class(b []byte) (class, int) {
	if b[0] < utf8.RuneSelf {
		if s.wild && (b[0] == '*' || b[0] == '?') {
			return inToken, 1
		}
		return asciiClass[b[0]], 1
	}
	r, size := utf8.DecodeRune(b)
	switch {
	case unicode.In(r, unicode.L, unicode.M, unicode.N):
		return inToken, size
	case unicode.IsSpace(r):
		return joins, size
	}
	return breaks, size
}

var (
	isSpace    [256]bool
	asciiClass [utf8.RuneSelf]class
)

func init() {
	for c := range asciiClass {
		switch r := rune(c); {
		case unicode.IsLetter(r) || unicode.IsDigit(r):
			asciiClass[c] = inToken
		case unicode.IsSpace(r) || r == '-' || r == '\'':
			asciiClass[c] = joins
		default:
			asciiClass[c] = breaks
		}
		isSpace[c] = unicode.IsSpace(rune(c))
	}
}

// IsSign reports whether a token is a Han or kana character, which is a token by itself (text-model.md §2).
func IsSign(token string) bool {
	r, n := utf8.DecodeRuneInString(token)
	return n == len(token) && standsAlone(r)
}

// standsAlone reports whether r is a Han or kana character, each of which is a token of its own.
func standsAlone(r rune) bool {
	return r >= 0x3040 && r <= 0x30FF || r >= 0x3400 && r <= 0x4DBF ||
		r >= 0x4E00 && r <= 0x9FFF || r >= 0x20000 && r <= 0x2FA1F
}

// InRow reports whether the tokens stand in a row in the others.
func InRow(tokens, others []string) bool {
	for i := 0; i+len(tokens) <= len(others); i++ {
		if slices.Equal(tokens, others[i:i+len(tokens)]) {
			return true
		}
	}
	return false
}
