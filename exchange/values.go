package exchange

import (
	"strings"
	"unicode"
)

// Flat returns text with each run of white space as one space, trimmed. Text that is flat already, as most
// is, costs a glance at it.
func Flat(s string) string {
	if (s == "" || s[0] != ' ' && s[len(s)-1] != ' ') && !strings.Contains(s, "  ") && (plain(s) || strings.IndexFunc(s, otherSpace) < 0) {
		return s
	}
	return strings.Join(strings.Fields(s), " ")
}

func otherSpace(r rune) bool { return r != ' ' && unicode.IsSpace(r) }

// plain reports whether a text is ASCII without control characters, eight characters at a time.
func plain(s string) bool {
	const low, high = 0x0101010101010101, 0x8080808080808080
	i := 0
	for ; i+8 <= len(s); i += 8 {
		x := uint64(s[i]) | uint64(s[i+1])<<8 | uint64(s[i+2])<<16 | uint64(s[i+3])<<24 | uint64(s[i+4])<<32 | uint64(s[i+5])<<40 | uint64(s[i+6])<<48 | uint64(s[i+7])<<56
		// A byte below 0x20 borrows from its high bit; one above 0x7f has it.
		if (x|(x-low*0x20))&high != 0 {
			return false
		}
	}
	for ; i < len(s); i++ {
		if s[i] < ' ' || s[i] >= 0x80 {
			return false
		}
	}
	return true
}

// Values returns what is not empty of some texts, each flat; nil for none.
func Values(of []string) (out []string) {
	for _, v := range of {
		if v = Flat(v); v != "" {
			if out == nil {
				out = make([]string, 0, len(of))
			}
			out = append(out, v)
		}
	}
	return out
}
