package exchange

import "strings"

// Flat returns text with each run of white space as one space, trimmed.
func Flat(s string) string { return strings.Join(strings.Fields(s), " ") }

// Values returns what is not empty of some texts, each flat; nil for none.
func Values(of []string) (out []string) {
	for _, v := range of {
		if v = Flat(v); v != "" {
			out = append(out, v)
		}
	}
	return out
}
