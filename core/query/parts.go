package query

import (
	"strings"
	"unicode"

	"tamiz/core/text"
)

// Parts tells whether what was typed as a term is a query: words joined by AND, OR or NOT in capitals, or brackets. If
// so it returns its parts, each of which can be a term by itself, and whether AND or NOT joins any of them; a term with
// "and" or "or" within is none.
func Parts(typed string) (parts []string, joined, ok bool) {
	var words []string
	put := func() {
		part := strings.Join(words, " ")
		words = nil
		if len(text.Tokens(strings.Trim(part, "*?"))) > 0 {
			for _, p := range parts {
				if p == part {
					return
				}
			}
			parts = append(parts, part)
		}
	}
	for _, w := range pieces(typed) {
		switch w {
		case "AND", "NOT":
			joined, ok = true, true
			put()
		case "OR", "(", ")":
			ok = true
			put()
		default:
			if q := strings.Trim(w, "\"“”„"); q != "" {
				words = append(words, q)
			}
		}
	}
	put()
	if !ok {
		return nil, false, false
	}
	return parts, joined, true
}

// pieces parts typed text at white space and around brackets; what stands in quotes is one piece.
func pieces(s string) (out []string) {
	var b strings.Builder
	put := func() {
		if b.Len() > 0 {
			out = append(out, b.String())
			b.Reset()
		}
	}
	quoted := false
	for _, r := range s {
		switch {
		case r == '"' || r == '“' || r == '”' || r == '„':
			quoted = !quoted
			put()
		case quoted:
			b.WriteRune(r)
		case unicode.IsSpace(r):
			put()
		case r == '(' || r == ')':
			put()
			out = append(out, string(r))
		default:
			b.WriteRune(r)
		}
	}
	put()
	return out
}
