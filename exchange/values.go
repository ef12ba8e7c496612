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
// empty separator parts nothing; a semicolon that ends an entity is no separator.
func AppendSplit(values []string, s, separator string) []string {
	for more := true; more; {
		var v string
		if v, s, more = s, "", false; separator != "" {
			v, s, more = cut(v, separator)
		}
		if v = bib.Flat(v); v != "" {
			values = append(values, v)
		}
	}
	return values
}

func cut(s, separator string) (before, after string, found bool) {
	if separator != ";" || strings.IndexByte(s, '&') < 0 {
		return strings.Cut(s, separator)
	}
	if i := semicolon(s); i >= 0 {
		return s[:i], s[i+1:], true
	}
	return s, "", false
}

// semicolon returns where the first semicolon of a text stands that ends no entity, or -1.
func semicolon(s string) int {
	for from := 0; ; {
		i := strings.IndexByte(s[from:], ';')
		if i < 0 {
			return -1
		}
		i += from
		if at := strings.LastIndexByte(s[:i], '&'); at < 0 || !entity(s[at:i+1]) {
			return i
		}
		from = i + 1
	}
}

// entity reports whether a text is one that stands for a character.
func entity(s string) bool {
	m := entities.FindStringIndex(s)
	return m != nil && m[0] == 0 && m[1] == len(s) && character(s) != s
}
