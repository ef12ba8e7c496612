package tagged

import (
	"bytes"
	"unicode"
	"unicode/utf8"
)

// split takes a tagged line apart. The pieces lie in the line.
func (l *Line) split(line []byte) (tag, value []byte, ok bool) {
	if len(line) <= len(l.Before) || !bytes.HasPrefix(line, []byte(l.Before)) {
		return nil, nil, false
	}
	rest := line[len(l.Before):]
	end := l.tag(rest)
	if end == 0 {
		return nil, nil, false
	}
	tag, rest = rest[:end], rest[end:]
	if l.Padded {
		rest = bytes.TrimLeft(rest, " \t")
	}
	switch {
	case bytes.HasPrefix(rest, []byte(l.After)):
		rest = rest[len(l.After):]
	// a tag alone, the space after it gone
	case len(bytes.TrimSpace(rest)) == 0 && len(bytes.TrimSpace([]byte(l.After))) == 0:
		rest = nil
	default:
		return nil, nil, false
	}
	// A hyphen may be part of a word; as a mark it stands free.
	if n := len(l.After); n > 0 && l.After[n-1] == '-' && len(rest) > 0 && rest[0] != ' ' && rest[0] != '\t' {
		return nil, nil, false
	}
	return bytes.TrimRight(tag, " \t"), bytes.TrimSpace(rest), true
}

// tag returns how many bytes at the beginning of s are a tag, 0 for none.
func (l *Line) tag(s []byte) int {
	count, i := 0, 0
	for i < len(s) && count < l.Max {
		// In a label the mark may be made of signs that labels have too: the first that stands free ends it.
		if l.Letters == Label && count >= l.Min && l.marked(s[i:]) {
			return i
		}
		c, size := rune(s[i]), 1
		if c >= utf8.RuneSelf {
			c, size = utf8.DecodeRune(s[i:])
		}
		if !l.letter(c, count) {
			break
		}
		i += size
		count++
	}
	if l.Letters == Label && !l.marked(s[i:]) {
		return 0
	}
	if count < l.Min {
		return 0
	}
	return i
}

// marked reports whether the mark stands here, free of what follows.
func (l *Line) marked(s []byte) bool {
	if l.Padded {
		s = bytes.TrimLeft(s, " \t")
	}
	if !bytes.HasPrefix(s, []byte(l.After)) {
		return false
	}
	if n := len(l.After); n > 0 && l.After[n-1] == '-' {
		return len(s) == n || s[n] == ' ' || s[n] == '\t'
	}
	return true
}

func (l *Line) letter(c rune, at int) bool {
	switch l.Letters {
	case Code:
		return c >= 'A' && c <= 'Z' || at > 0 && c >= '0' && c <= '9'
	case Word:
		return unicode.IsLetter(c) || unicode.IsDigit(c) || c == '_'
	}
	return unicode.IsLetter(c) ||
		at > 0 && (unicode.IsDigit(c) || c == ' ' || c == '_' || c == '-' || c == '/' || c == '.' || c == '(' || c == ')')
}
