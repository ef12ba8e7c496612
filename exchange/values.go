package exchange

import (
	"strings"

	"tamiz/core/bib"
)

// Values returns what is not empty of some texts, each flat; nil for none.
func Values(of []string) (out []string) {
	for _, v := range of {
		if v = bib.Flat(v); v != "" {
			if out == nil {
				out = make([]string, 0, len(of))
			}
			out = append(out, v)
		}
	}
	return out
}

// AppendSplit appends to values what is not empty of the parts of a text between separators, each flat. An
// empty separator parts nothing.
func AppendSplit(values []string, s, separator string) []string {
	for more := true; more; {
		var v string
		if v, s, more = s, "", false; separator != "" {
			v, s, more = strings.Cut(v, separator)
		}
		if v = bib.Flat(v); v != "" {
			values = append(values, v)
		}
	}
	return values
}
