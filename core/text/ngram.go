package text

import (
	_ "embed"
	"strings"
	"unicode"
	"unicode/utf8"
)

//go:embed data/stopwords-en.txt
var stopwordList string

var stopwords = func() map[string]bool {
	set := map[string]bool{}
	for _, line := range strings.Split(stopwordList, "\n") {
		if line = strings.TrimSpace(line); line != "" && line[0] != '#' {
			set[line] = true
		}
	}
	return set
}()

// IsStopword reports whether a token is one of the words with which no candidate begins or ends.
func IsStopword(token string) bool { return stopwords[token] }

// A Role says where in a kept n-gram a token may stand.
type Role uint8

// The roles a token can have; inside an n-gram every token may stand.
const (
	First Role = 1 << iota // may begin one: it holds a letter and is no stopword
	Last                   // may end one: it is no stopword
	Alone                  // may be one by itself: it may begin one and has at least 2 characters
)

// RoleOf returns the roles of a token.
func RoleOf(token string) Role {
	if stopwords[token] {
		return 0
	}
	if strings.IndexFunc(token, unicode.IsLetter) < 0 {
		return Last
	}
	if utf8.RuneCountInString(token) < 2 {
		return First | Last
	}
	return First | Last | Alone
}

// Keeps reports whether an n-gram of n tokens with these roles at its ends is kept.
func Keeps(n int, first, last Role) bool {
	if n == 1 {
		return first&Alone != 0
	}
	return first&First != 0 && last&Last != 0
}

// Grams returns the kept n-grams of the values of one record, of 1 to maxWords tokens, with how often
// each occurs.
func Grams(values []string, maxWords int) map[string]int {
	out := map[string]int{}
	for _, v := range values {
		spans := tokensWithBreaks(v)
		for i := range spans {
			first := RoleOf(spans[i].Token)
			if first&First == 0 {
				continue
			}
			gram := ""
			for n := 1; n <= maxWords && i+n <= len(spans); n++ {
				t := spans[i+n-1]
				if n == 1 {
					gram = t.Token
				} else {
					if t.Break {
						break
					}
					gram += " " + t.Token
				}
				if Keeps(n, first, RoleOf(t.Token)) {
					out[gram]++
				}
			}
		}
	}
	return out
}

func tokensWithBreaks(value string) []Span {
	var out []Span
	Scan(value, func(token []byte, brk bool) { out = append(out, Span{Token: string(token), Break: brk}) })
	return out
}
