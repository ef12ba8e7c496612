package text

import (
	_ "embed"
	"strings"
	"unicode/utf8"
)

//go:embed data/spelling-en.tsv
var spellingList string

// spelling is the word list of spellings: whole tokens, and suffixes of tokens of at least 6 characters.
var spelling = func() (s struct{ words, suffixes map[string]string }) {
	s.words, s.suffixes = map[string]string{}, map[string]string{}
	for _, line := range strings.Split(spellingList, "\n") {
		part := strings.Split(strings.TrimRight(line, "\r"), "\t")
		if len(part) != 3 || strings.HasPrefix(line, "#") {
			continue
		}
		switch part[0] {
		case "word":
			s.words[part[1]] = part[2]
		case "suffix":
			s.suffixes[part[1]] = part[2]
		}
	}
	return s
}()

// Base returns what a token is without its number and its spelling: the same for labourers and laborer.
func Base(token string) string {
	if w, ok := spelling.words[token]; ok {
		return Singular(w)
	}
	return american(Singular(token))
}

// Spelling returns a token in one of the spellings that it has: labor for labour.
func Spelling(token string) string { return american(token) }

func american(token string) string {
	if w, ok := spelling.words[token]; ok {
		return w
	}
	if utf8.RuneCountInString(token) < 6 {
		return token
	}
	for i := range token { // the longest suffix comes first
		if to, ok := spelling.suffixes[token[i:]]; ok {
			return token[:i] + to
		}
	}
	return token
}

// Singular returns a token without the ending of an English plural: the weak stemmer of Harman 1991,
// "How effective is suffixing?", a little widened.
func Singular(token string) string {
	if utf8.RuneCountInString(token) <= 3 {
		return token
	}
	ends := func(suffixes ...string) bool {
		for _, s := range suffixes {
			if strings.HasSuffix(token, s) {
				return true
			}
		}
		return false
	}
	switch {
	case ends("ies") && !ends("eies", "aies"):
		return token[:len(token)-3] + "y"
	case ends("sses", "shes", "ches", "xes"):
		return token[:len(token)-2]
	case ends("s") && !ends("ss", "us", "is"):
		return token[:len(token)-1]
	}
	return token
}

// FamilyKey returns what the surface forms of one family share: forms that differ in spelling, number,
// hyphen or joining alone have the same key. The tokens are those of a form.
func FamilyKey(tokens []string) string {
	bases := make([]string, len(tokens))
	for i, t := range tokens {
		bases[i] = Base(t)
	}
	return FamilyKeyOfBases(bases)
}

// FamilyKeyOfBases does the same from the bases of the tokens, for those who know them already.
func FamilyKeyOfBases(bases []string) string { return Singular(strings.Join(bases, "")) }

// Labels reports whether a form in so many records labels a family rather than another does: the most
// frequent form, of several the shortest, then the first.
func Labels(form string, records int, other string, otherRecords int) bool {
	if records != otherRecords {
		return records > otherRecords
	}
	if a, b := utf8.RuneCountInString(form), utf8.RuneCountInString(other); a != b {
		return a < b
	}
	return form < other
}
