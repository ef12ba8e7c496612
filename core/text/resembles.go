package text

import (
	"strings"
	"unicode/utf8"
)

// A Likeness is in what a token that a pattern does not match is all but what it looks for.
type Likeness string

// The likenesses.
const (
	OtherSpelling Likeness = "spelling" // the same word in another spelling or number
	OtherEnding   Likeness = "ending"   // the same beginning with another ending
	OneEdit       Likeness = "edit"     // one letter more, less, other, or two changed about
)

const (
	leastEdited  = 5 // letters of a word that another is one edit from
	leastStem    = 4 // letters that words with other endings share
	longestTails = 4 // letters that they do not
)

// Resembles reports in what a token is all but what the pattern looks for; "" where it is not, or where it matches.
func (t TokenPattern) Resembles(token string) Likeness {
	if t.Match(token) || t.wild && t.text != t.prefix+"*" {
		return ""
	}
	if t.wild { // a stem: what the token begins with is set against it
		if strings.HasPrefix(Base(token), Base(t.prefix)) && len(Base(t.prefix)) >= leastStem {
			return OtherSpelling
		}
		n := utf8.RuneCountInString(t.prefix)
		letters := []rune(token)
		for _, k := range []int{n, n - 1, n + 1} {
			if n >= leastEdited && k <= len(letters) && Edited(t.prefix, string(letters[:k])) {
				return OneEdit
			}
		}
		return ""
	}
	if Base(token) == Base(t.text) {
		return OtherSpelling
	}
	if n := shared(token, t.text); n >= leastStem {
		if a, b := len(token)-n, len(t.text)-n; a <= longestTails && b <= longestTails &&
			2*n > max(len(token), len(t.text)) &&
			endings(token[n:]) &&
			endings(t.text[n:]) {
			return OtherEnding
		}
	}
	if utf8.RuneCountInString(token) >= leastEdited && utf8.RuneCountInString(t.text) >= leastEdited &&
		Edited(token, t.text) {
		return OneEdit
	}
	return ""
}

// englishEndings are what words of the same stem end in.
var englishEndings = map[string]bool{
	"":     true,
	"e":    true,
	"s":    true,
	"es":   true,
	"d":    true,
	"ed":   true,
	"er":   true,
	"ers":  true,
	"r":    true,
	"rs":   true,
	"or":   true,
	"ors":  true,
	"ing":  true,
	"ings": true,
	"ion":  true,
	"ions": true,
	"al":   true,
	"ally": true,
	"ly":   true,
	"y":    true,
	"ies":  true,
	"ied":  true,
	"ic":   true,
	"ity":  true,
	"ive":  true,
	"ment": true,
	"ness": true,
	"able": true,
}

func endings(tail string) bool { return englishEndings[tail] }

func shared(a, b string) (n int) {
	for n < len(a) && n < len(b) && a[n] == b[n] {
		n++
	}
	for n > 0 && n < len(a) && !utf8.RuneStart(a[n]) {
		n--
	}
	return n
}

// Edited reports whether one word is the other with one letter more, less or other, or two neighbours changed about.
func Edited(a, b string) bool {
	if between(a, b) > 2*utf8.UTFMax { // most words are far from another; this tells it without their letters
		return false
	}
	x, y := []rune(a), []rune(b)
	if len(x) > len(y) {
		x, y = y, x
	}
	if len(y)-len(x) > 1 || a == b {
		return false
	}
	i := 0
	for i < len(x) && x[i] == y[i] {
		i++
	}
	if len(x) < len(y) {
		return string(x[i:]) == string(y[i+1:])
	}
	return string(x[i+1:]) == string(y[i+1:]) ||
		i+1 < len(x) && x[i] == y[i+1] && x[i+1] == y[i] && string(x[i+2:]) == string(y[i+2:])
}

// between returns how many bytes the longer of two words has between what both begin and what both end with.
func between(a, b string) int {
	if len(a) > len(b) {
		a, b = b, a
	}
	i := 0
	for i < len(a) && a[i] == b[i] {
		i++
	}
	n := len(b) - i
	for k := 1; k <= len(a)-i && a[len(a)-k] == b[len(b)-k]; k++ {
		n--
	}
	return n
}

// Joins reports whether a token is two of a pattern written as one.
func Joins(first, second TokenPattern, token string) bool {
	head, exact := first.Exact()
	if !exact {
		return false
	}
	rest, ok := strings.CutPrefix(token, head)
	return ok && second.Match(rest)
}
