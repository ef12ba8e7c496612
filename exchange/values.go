package exchange

import (
	"strings"
	"unicode"
	"unicode/utf8"
)

// Flat returns text with each run of white space as one space, trimmed. Text that is flat already, as most
// is, costs one look at it.
func Flat(s string) string {
	space := true // at the beginning a space is one too many
	for i := 0; i < len(s); i++ {
		c := s[i]
		if c > ' ' && c < utf8.RuneSelf {
			space = false
			continue
		}
		if c == ' ' && !space {
			space = true
			continue
		}
		if c < utf8.RuneSelf {
			return strings.Join(strings.Fields(s), " ")
		}
		r, size := utf8.DecodeRuneInString(s[i:])
		if unicode.IsSpace(r) {
			return strings.Join(strings.Fields(s), " ")
		}
		space, i = false, i+size-1
	}
	if space && s != "" {
		return strings.TrimRight(s, " ")
	}
	return s
}

// Values returns what is not empty of some texts, each flat; nil for none.
func Values(of []string) (out []string) {
	for _, v := range of {
		if v = Flat(v); v != "" {
			out = append(out, v)
		}
	}
	return out
}
