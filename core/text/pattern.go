package text

import (
	"fmt"
	"strings"
	"unicode/utf8"
)

// MaxTerm is the most characters a typed term may have.
const MaxTerm = 1000

// A Refusal says why a typed term cannot be searched.
type Refusal struct {
	Reason Reason
	Term   string // as typed, shortened when long
	Token  string // the token at fault, where there is one
}

// Reason is the kind of a Refusal.
type Reason string

// The reasons for which a term is refused.
const (
	NoWord  Reason = "no-word"  // nothing is left of it but punctuation
	TooOpen Reason = "too-open" // a * with too few letters beside it
	TooLong Reason = "too-long" // more than MaxTerm characters
)

func (r *Refusal) Error() string {
	switch r.Reason {
	case TooOpen:
		return fmt.Sprintf("%q matches too much: a * needs at least 2 letters before it, or 3 in the whole word", r.Token)
	case TooLong:
		return fmt.Sprintf("a term has at most %d characters; this one begins %q", MaxTerm, r.Term)
	}
	return fmt.Sprintf("%q holds no word to look for", r.Term)
}

// A Pattern is what a typed term looks for in one value: token patterns at consecutive positions.
type Pattern []TokenPattern

// ParsePattern reads a typed word or phrase, in which * is any characters of a token and ? exactly
// one. What cannot be searched is answered by a *Refusal.
func ParsePattern(typed string) (Pattern, error) {
	if n := utf8.RuneCountInString(typed); n > MaxTerm {
		return nil, &Refusal{Reason: TooLong, Term: string([]rune(typed)[:40]) + "…"}
	}
	var p Pattern
	scan(typed, true, func(token []byte, _ bool) { p = append(p, newTokenPattern(string(token))) })
	if len(p) == 0 {
		return nil, &Refusal{Reason: NoWord, Term: typed}
	}
	for _, t := range p {
		if t.tooOpen() {
			return nil, &Refusal{Reason: TooOpen, Term: typed, Token: t.text}
		}
	}
	return p, nil
}

// Literal returns the pattern that matches exactly these tokens, in which * and ? mean nothing.
func Literal(tokens ...string) Pattern {
	p := make(Pattern, len(tokens))
	for i, t := range tokens {
		p[i] = TokenPattern{text: t, prefix: t}
	}
	return p
}

// Literal returns the words of a pattern that has no sign.
func (p Pattern) Literal() (words []string, ok bool) {
	for _, t := range p {
		word, exact := t.Exact()
		if !exact {
			return nil, false
		}
		words = append(words, word)
	}
	return words, true
}

// String returns the pattern in its normal writing: tokens parted by one space.
func (p Pattern) String() string {
	words := make([]string, len(p))
	for i, t := range p {
		words[i] = t.text
	}
	return strings.Join(words, " ")
}

// At reports whether the pattern matches the tokens that begin at position i.
func (p Pattern) At(tokens []string, i int) bool {
	if i+len(p) > len(tokens) {
		return false
	}
	for k := range p {
		if !p[k].Match(tokens[i+k]) {
			return false
		}
	}
	return true
}

// Find returns the positions in tokens at which a match begins.
func (p Pattern) Find(tokens []string) []int {
	var out []int
	for i := 0; i+len(p) <= len(tokens); i++ {
		if p.At(tokens, i) {
			out = append(out, i)
		}
	}
	return out
}

// A TokenPattern is what one token must look like.
type TokenPattern struct {
	text   string
	prefix string // what stands before the first * or ?
	wild   bool
}

func newTokenPattern(t string) TokenPattern {
	if i := strings.IndexAny(t, "*?"); i >= 0 {
		return TokenPattern{text: t, prefix: t[:i], wild: true}
	}
	return TokenPattern{text: t, prefix: t}
}

// Exact returns the only token that matches, where there is but one.
func (t TokenPattern) Exact() (string, bool) { return t.prefix, !t.wild }

// Prefix returns the characters with which every match begins.
func (t TokenPattern) Prefix() string { return t.prefix }

// String returns the pattern as written.
func (t TokenPattern) String() string { return t.text }

// Match reports whether a token fits.
func (t TokenPattern) Match(token string) bool {
	if !t.wild {
		return t.text == token
	}
	return strings.HasPrefix(token, t.prefix) && glob(t.text[len(t.prefix):], token[len(t.prefix):])
}

// Begins reports whether a token begins with what fits.
func (t TokenPattern) Begins(token string) bool {
	if !t.wild {
		return strings.HasPrefix(token, t.text)
	}
	return strings.HasPrefix(token, t.prefix) && glob(t.text[len(t.prefix):]+"*", token[len(t.prefix):])
}

// glob goes back to the last * only: for * and ? that is enough, and the time stays bounded by
// the product of the lengths.
func glob(pattern, s string) bool {
	p, i, star, mark := 0, 0, -1, 0
	for i < len(s) {
		r, size := utf8.DecodeRuneInString(s[i:])
		if p < len(pattern) {
			if pattern[p] == '*' {
				star, mark = p, i
				p++
				continue
			}
			pr, psize := utf8.DecodeRuneInString(pattern[p:])
			if pr == '?' || pr == r {
				p, i = p+psize, i+size
				continue
			}
		}
		if star < 0 {
			return false
		}
		_, size = utf8.DecodeRuneInString(s[mark:])
		mark += size
		p, i = star+1, mark
	}
	return strings.Trim(pattern[p:], "*") == ""
}

// tooOpen: a * wants at least 2 literal characters before the first *, or 3 in all.
func (t TokenPattern) tooOpen() bool {
	first := strings.IndexByte(t.text, '*')
	if first < 0 {
		return false
	}
	literals := func(s string) (n int) {
		for _, r := range s {
			if r != '*' && r != '?' {
				n++
			}
		}
		return n
	}
	return literals(t.text[:first]) < 2 && literals(t.text) < 3
}

// Covers reports whether every value in which the other pattern matches this one matches too, by the way
// they are written: a token of each place of this pattern covers one of the other's, in a row.
func (p Pattern) Covers(other Pattern) bool {
	for i := 0; i+len(p) <= len(other); i++ {
		all := true
		for k := range p {
			if !p[k].Covers(other[i+k]) {
				all = false
				break
			}
		}
		if all {
			return true
		}
	}
	return false
}

// Covers reports whether every token that the other pattern matches this one matches too. The signs of
// the other are taken as characters that only a sign as wide matches.
func (t TokenPattern) Covers(other TokenPattern) bool {
	if !other.wild {
		return t.Match(other.text)
	}
	narrow := []rune(other.text)
	// can[j] tells whether what is read of wide covers the first j characters of narrow.
	can := make([]bool, len(narrow)+1)
	can[0] = true
	for _, w := range t.text {
		next := make([]bool, len(narrow)+1)
		if w == '*' {
			open := false
			for j := range next {
				open = open || can[j]
				next[j] = open
			}
		} else {
			for j, n := range narrow {
				next[j+1] = can[j] && (w == n || w == '?' && n != '*')
			}
		}
		can = next
	}
	return can[len(narrow)]
}
