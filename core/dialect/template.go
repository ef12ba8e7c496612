package dialect

import (
	"fmt"
	"slices"
	"strings"
	"unicode"
)

// A template is literal text and slots, in turns.
type template struct {
	text  string
	parts []piece
	op    string // what it says, of a clause: is, whole, all, any
}

type piece struct {
	literal []rune // in lower case
	written string
	slot    string
	shut    []rune // of a slot: the text after which it ends; nil where it does not stand between two
}

// parseTemplate reads a template; only the slots named may stand in it, each once.
func parseTemplate(s string, slots ...string) (template, error) {
	t := template{text: s}
	var lit strings.Builder
	flush := func() {
		if lit.Len() > 0 {
			t.parts = append(t.parts, piece{literal: folded(lit.String()), written: lit.String()})
			lit.Reset()
		}
	}
	seen := map[string]bool{}
	for i := 0; i < len(s); i++ {
		switch {
		case strings.HasPrefix(s[i:], "{{"), strings.HasPrefix(s[i:], "}}"):
			lit.WriteByte(s[i])
			i++
		case s[i] == '{':
			end := strings.IndexByte(s[i:], '}')
			if end < 0 {
				return t, fmt.Errorf("the template %q has a brace that is not closed", s)
			}
			name := s[i+1 : i+end]
			if !slices.Contains(slots, name) {
				return t, fmt.Errorf("the template %q has a slot {%s}; it may have {%s}", s, name, strings.Join(slots, "}, {"))
			}
			if seen[name] {
				return t, fmt.Errorf("the template %q has the slot {%s} twice", s, name)
			}
			seen[name] = true
			flush()
			t.parts = append(t.parts, piece{slot: name})
			i += end
		case s[i] == '}':
			return t, fmt.Errorf("the template %q has a brace that closes none", s)
		default:
			lit.WriteByte(s[i])
		}
	}
	flush()
	if len(t.parts) == 0 {
		return t, fmt.Errorf("a template is empty")
	}
	for i := range t.parts {
		t.parts[i].shut = t.encloses(i)
	}
	return t, nil
}

// encloses returns the text with which a slot ends that stands between two texts; nil where it does not.
func (t template) encloses(i int) []rune {
	if t.parts[i].slot == "" || i < 1 || i+1 >= len(t.parts) || t.parts[i-1].slot != "" && t.parts[i].slot != "modifiers" {
		return nil
	}
	for _, after := range t.parts[i+1:] {
		if after.slot == "" {
			if lit := []rune(strings.TrimSpace(string(after.literal))); len(lit) > 0 && !isWord(lit[0]) {
				return lit
			}
		}
	}
	return nil
}

// first returns the character with which a template begins, blanks aside; 0 where a slot does.
func (t template) first() rune {
	for _, r := range t.parts[0].literal {
		if !isBlank(r) {
			return r
		}
	}
	return 0
}

func (t template) has(slot string) bool {
	return slices.ContainsFunc(t.parts, func(p piece) bool { return p.slot == slot })
}

// fill writes a template with what its slots stand for.
func (t template) fill(slots map[string]string) string {
	var b strings.Builder
	for _, p := range t.parts {
		if p.slot == "" {
			b.WriteString(p.written)
		} else {
			b.WriteString(slots[p.slot])
		}
	}
	return b.String()
}

// weight is how much a template says of itself: the more literal text, the earlier it is tried.
func (t template) weight() (n int) {
	for _, p := range t.parts {
		n += len(p.literal)
	}
	return n
}

// folded returns text as it is compared with what was typed.
func folded(s string) []rune {
	out := []rune(s)
	for i, r := range out {
		out[i] = plain(r)
	}
	return out
}

// plain returns a character as templates and signs are compared: in lower case, of full width as of half, every
// space and dash as one. Quotation marks that curl are told by the reader, which knows whether they are a dialect's
// own.
func plain(r rune) rune {
	switch {
	case r < 0x80:
		if r >= 'A' && r <= 'Z' {
			r += 'a' - 'A'
		} else if r == '\t' || r == '\r' || r == '\v' || r == '\f' {
			r = ' '
		}
		return r
	case r >= 0xFF01 && r <= 0xFF5E:
		return plain(r - 0xFEE0)
	case r == 0x2010 || r == 0x2011 || r == 0x2012 || r == 0x2013 || r == 0x2212:
		return '-'
	case r == 0x2028 || r == 0x2029 || r == 0x85:
		return '\n'
	case unicode.IsSpace(r):
		return ' '
	}
	return unicode.ToLower(r)
}

func isWord(r rune) bool {
	if r < 0x80 {
		return r >= 'a' && r <= 'z' || r >= '0' && r <= '9' || r >= 'A' && r <= 'Z'
	}
	return unicode.IsLetter(r) || unicode.IsDigit(r) || unicode.IsMark(r)
}

func isBlank(r rune) bool { return r == ' ' || r == '\n' || r >= 0x80 && isNothing(r) }

// isNothing reports whether a character is not seen: it is left out wherever it stands.
func isNothing(r rune) bool {
	return r == 0x200B || r == 0xFEFF || r == 0xAD || r == 0x200E || r == 0x200F
}
