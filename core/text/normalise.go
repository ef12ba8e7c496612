package text

import (
	"strings"
	"sync"
	"unicode/utf8"

	"golang.org/x/text/cases"
	"golang.org/x/text/unicode/norm"
)

// Normalise returns s as it is compared: invisible characters gone, apostrophes and hyphens of one
// kind, compatibility forms resolved, case folded, diacritics removed.
func Normalise(s string) string {
	return string(appendNormalised(nil, s))
}

// appendNormalised appends the normalised form of s to dst. ASCII, which is nearly everything, takes
// a path of its own.
func appendNormalised(dst []byte, s string) []byte {
	if !isASCII(s) {
		return append(dst, normaliseUnicode(s)...)
	}
	for i := 0; i < len(s); i++ {
		dst = append(dst, asciiForm[s[i]])
	}
	return dst
}

// normaliseUnicode goes through the steps once, as the rules say: a compatibility form that holds what an earlier
// step would have replaced keeps it (ŉ becomes ʼn, whose ʼ is a letter).
func normaliseUnicode(s string) string {
	return stripMarks(fold(norm.NFKC.String(strings.Map(replace, s))))
}

// replace is the first two steps: what vanishes (-1), what is a space, an apostrophe, a hyphen.
func replace(r rune) rune {
	switch r {
	case 0x00AD, 0x200B, 0x200C, 0x200D, 0x2060, 0xFEFF:
		return -1
	case 0x2122, 0x2120, 0x00AE, 0x00A9:
		return ' '
	case 0x2018, 0x2019, 0x02BC, 0x0060, 0x00B4:
		return '\''
	case 0x2010, 0x2011:
		return '-'
	}
	return r
}

// A Caser may keep state, so that one is lent to one caller at a time.
var folders = sync.Pool{New: func() any { c := cases.Fold(); return &c }}

func fold(s string) string {
	c := folders.Get().(*cases.Caser)
	defer folders.Put(c)
	return strings.Map(cherokee, c.String(s))
}

// cherokee folds the letters of the one script whose small letters fold into its capitals: Unicode CaseFolding.txt.
func cherokee(r rune) rune {
	switch {
	case r >= 0xAB70 && r <= 0xABBF:
		return r - 0xAB70 + 0x13A0
	case r >= 0x13F8 && r <= 0x13FD:
		return r - 8
	}
	return r
}

func stripMarks(s string) string {
	s = norm.NFD.String(s)
	s = strings.Map(func(r rune) rune {
		if r >= 0x0300 && r <= 0x036F {
			return -1
		}
		return r
	}, s)
	return norm.NFC.String(s)
}

func isASCII(s string) bool {
	for i := 0; i < len(s); i++ {
		if s[i] >= utf8.RuneSelf {
			return false
		}
	}
	return true
}

// asciiForm is the normalised form of each ASCII character.
var asciiForm = func() (t [utf8.RuneSelf]byte) {
	for c := range t {
		switch {
		case c >= 'A' && c <= 'Z':
			t[c] = byte(c) + 'a' - 'A'
		case c == '`':
			t[c] = '\''
		default:
			t[c] = byte(c)
		}
	}
	return t
}()

// Label returns a controlled label (a heading, a qualifier, a type, a language, a country) as labels
// are compared: normalised, trimmed, each run of white space one space.
func Label(s string) string {
	return strings.Join(strings.Fields(Normalise(s)), " ")
}
