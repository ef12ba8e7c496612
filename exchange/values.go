package exchange

import (
	"strings"
	"unicode"
)

// Flat returns text with each run of white space as one space, trimmed. Text that is flat already, as most
// is, costs one look at it.
func Flat(s string) string {
	space := true // at the beginning a space is one too many
	for _, c := range s {
		switch {
		case c == ' ':
			if space {
				return strings.Join(strings.Fields(s), " ")
			}
			space = true
		case c > ' ' && c < 0x80:
			space = false
		case c < ' ' || unicode.IsSpace(c):
			return strings.Join(strings.Fields(s), " ")
		default:
			space = false
		}
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
