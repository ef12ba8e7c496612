package skos

import (
	"errors"
	"io"
	"strconv"
	"strings"
	"unicode/utf8"

	"tamiz/exchange"
)

// readNTriples reads RDF 1.1 N-Triples, one statement a line. A line that is none is told and skipped.
func readNTriples(r io.Reader, c *collector) error {
	lines := exchange.NewLines(r, 2*maxText)
	read := 0
	for {
		line, cut, err := lines.Next()
		if errors.Is(err, io.EOF) {
			return nil
		}
		if err != nil {
			return err
		}
		s := strings.TrimSpace(string(line))
		if s == "" || s[0] == '#' {
			continue
		}
		t, ok := parseTriple(s)
		if !ok || cut {
			c.report(
				exchange.Notice{Line: lines.Number(), Kind: exchange.NoStatement, Detail: exchange.Shorten(s), Skipped: true},
			)
			if read++; read > maxBad {
				return errors.New("this is no SKOS file: hardly a line of it is a statement")
			}
			continue
		}
		read = -maxBad // it is one; all bad lines are told
		if err := c.add(t, lines.Number()); err != nil {
			return err
		}
	}
}

// maxBad is how many lines may be no statement before the first that is one.
const maxBad = 100

// parseTriple reads subject, predicate, object and the dot.
func parseTriple(s string) (t triple, ok bool) {
	if t.subject, s, ok = node1(s); !ok {
		return t, false
	}
	if t.predicate, s, ok = address(strings.TrimLeft(s, " \t")); !ok {
		return t, false
	}
	s = strings.TrimLeft(s, " \t")
	if strings.HasPrefix(s, `"`) {
		t.literal = true
		if t.object, s, ok = quoted(s); !ok {
			return t, false
		}
		switch {
		case strings.HasPrefix(s, "@"):
			end := strings.IndexFunc(s[1:], func(r rune) bool {
				return r != '-' && !(r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9')
			})
			if end < 1 {
				return t, false
			}
			t.language, s = s[1:end+1], s[end+1:]
		case strings.HasPrefix(s, "^^"):
			if _, s, ok = address(s[2:]); !ok {
				return t, false
			}
		}
	} else if t.object, s, ok = node1(s); !ok {
		return t, false
	}
	s = strings.TrimLeft(s, " \t")
	return t, strings.HasPrefix(s, ".")
}

// node1 reads an address or a blank node.
func node1(s string) (string, string, bool) {
	if strings.HasPrefix(s, "_:") {
		end := strings.IndexAny(s, " \t")
		if end < 3 {
			return "", s, false
		}
		return s[:end], s[end:], true
	}
	return address(s)
}

func address(s string) (string, string, bool) {
	if !strings.HasPrefix(s, "<") {
		return "", s, false
	}
	end := strings.IndexByte(s, '>')
	if end < 0 {
		return "", s, false
	}
	v, ok := unescape(s[1:end])
	return v, s[end+1:], ok
}

func quoted(s string) (string, string, bool) {
	for i := 1; i < len(s); i++ {
		switch s[i] {
		case '\\':
			i++
		case '"':
			v, ok := unescape(s[1:i])
			return v, s[i+1:], ok
		}
	}
	return "", s, false
}

var escapes = map[byte]byte{'t': '\t', 'b': '\b', 'n': '\n', 'r': '\r', 'f': '\f', '"': '"', '\'': '\'', '\\': '\\'}

func unescape(s string) (string, bool) {
	if strings.IndexByte(s, '\\') < 0 {
		return s, utf8.ValidString(s)
	}
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		if s[i] != '\\' {
			b.WriteByte(s[i])
			continue
		}
		if i++; i == len(s) {
			return "", false
		}
		if c, ok := escapes[s[i]]; ok {
			b.WriteByte(c)
			continue
		}
		digits := map[byte]int{'u': 4, 'U': 8}[s[i]]
		if digits == 0 || i+digits >= len(s) {
			return "", false
		}
		code, err := strconv.ParseUint(s[i+1:i+1+digits], 16, 32)
		if err != nil || !utf8.ValidRune(rune(code)) {
			return "", false
		}
		b.WriteRune(rune(code))
		i += digits
	}
	return b.String(), utf8.ValidString(b.String())
}
