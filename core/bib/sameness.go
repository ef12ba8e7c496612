package bib

import (
	"hash/maphash"
	"slices"
	"strings"
	"unicode"

	"tamiz/core/text"
)

// A Sameness is how two records stand to each other.
type Sameness int

// Two records are of the same work, perhaps are, or are not.
const (
	Other Sameness = iota
	Perhaps
	Same
)

// Compare tells whether two records are of the same work, by what people write of it (measures.md §6). Equal DOIs
// settle it; they are looked at before.
func (id Identity) Compare(other Identity) Sameness {
	if id.DOI != (Digest{}) && id.DOI == other.DOI {
		return Same
	}
	if !id.Title.alike(other.Title) || !yearsAgree(id, other) {
		return Other
	}
	agree, both := authorsAgree(id, other)
	if both && !agree {
		return Other
	}
	if id.DOI != (Digest{}) && other.DOI != (Digest{}) {
		if id.Place != (Digest{}) && id.Place == other.Place {
			return Same
		}
		return Perhaps
	}
	known := 0 // of what beside the title agrees
	if both {
		known++
	}
	if id.Year != 0 && other.Year != 0 {
		known++
	}
	short := min(len(id.Title.whole), len(other.Title.whole)) < shortTitle
	switch {
	case known < 2 && short: // so little that asking would be a nuisance
		return Other
	case known > 0 && !short:
		return Same
	case known == 2 && (id.Place == (Digest{}) || other.Place == (Digest{}) || id.Place == other.Place):
		return Same
	}
	return Perhaps
}

// How long titles are, in letters without blanks.
const (
	shortTitle = 20 // below it a title says little by itself
	longTitle  = 40 // from which on one letter may differ
)

// A title is one as it is compared: the bases of its words (text-model.md §5) joined, without a leading article.
type title struct {
	whole  string
	main   string // without what follows a colon, a dash or a full stop; "" where there is no such thing
	tells  string // the words of it that make it that of another work: numbers, part, protocol
	yearly bool   // of what comes each year anew
}

var articles = map[string]bool{"the": true, "a": true, "an": true}

// marked are words that make a title that of another work when one of two has them.
var marked = map[string]bool{"correction": true, "corrections": true, "corrected": true, "corrigendum": true,
	"corrigenda": true, "erratum": true, "errata": true, "reply": true, "replies": true,
	"response": true, "comment": true, "comments": true, "commentary": true, "protocol": true, "protocols": true,
	"retraction": true, "retracted": true, "letter": true, "addendum": true,
	"supplement": true, "update": true, "updated": true, "part": true, "phase": true, "chapter": true, "volume": true,
	"section": true, "summary": true, "abstract": true, "editorial": true,
	"i": true, "ii": true, "iii": true, "iv": true, "v": true, "vi": true, "vii": true, "viii": true, "ix": true,
	"x": true}

var yearlyWords = map[string]bool{"annual": true, "yearly": true}

func titleOf(written string) (t title) {
	written = withoutTags(written)
	tokens := text.Tokens(written)
	t.whole = joinedBases(tokens)
	for _, w := range tokens {
		t.yearly = t.yearly || yearlyWords[w]
		if tells(w) {
			t.tells += " " + w
		}
	}
	if at := subtitle(written); at > 0 {
		n := 0 // of the words, those before the sign
		text.Scan(written[:at], func([]byte, bool) { n++ })
		if n >= 3 && n < len(tokens) && !slices.ContainsFunc(tokens[n:], tells) {
			if main := joinedBases(tokens[:n]); len(main) >= shortTitle {
				t.main = main
			}
		}
	}
	return t
}

// tells reports whether a word of a subtitle makes it that of another work: a number, or a word such as protocol.
func tells(word string) bool { return marked[word] || strings.ContainsFunc(word, unicode.IsDigit) }

// withoutTags returns a title without marks of layout such as <i>.
func withoutTags(s string) string {
	if !strings.Contains(s, "<") {
		return s
	}
	var out strings.Builder
	for {
		from := strings.IndexByte(s, '<')
		if from < 0 {
			break
		}
		to := strings.IndexByte(s[from:], '>')
		if to < 0 || to > 12 {
			break
		}
		out.WriteString(s[:from])
		s = s[from+to+1:]
	}
	out.WriteString(s)
	return out.String()
}

func joinedBases(tokens []string) string {
	if len(tokens) > 1 && articles[tokens[0]] {
		tokens = tokens[1:]
	}
	var out strings.Builder
	for _, t := range tokens {
		out.WriteString(text.Base(t))
	}
	return out.String()
}

// subtitle returns where the sign stands that parts a title from its subtitle; -1 for none.
func subtitle(s string) (at int) {
	at = -1
	for _, mark := range []string{": ", " - ", " – ", " — ", "? ", ". "} {
		if i := strings.Index(s, mark); i > 0 && (at < 0 || i < at) {
			at = i
		}
	}
	return at
}

var seed = maphash.MakeSeed()

// keys calls visit with what a title is found by: the whole, the main title and, of a long one, its first and its
// last half with its length, of which one stays the same where one letter differs. Lengths up to so many letters
// apart are found.
func (t title) keys(apart int, visit func(uint64)) {
	if t.whole == "" {
		return
	}
	of := func(kind byte, s string, n int) uint64 {
		var h maphash.Hash
		h.SetSeed(seed)
		h.WriteByte(kind)
		h.WriteByte(byte(n))
		h.WriteString(s)
		return h.Sum64()
	}
	visit(of('t', t.whole, 0))
	if t.main != "" && t.main != t.whole {
		visit(of('t', t.main, 0))
	}
	for n := len(t.whole) - apart; n <= len(t.whole)+apart; n++ {
		// Half of one of n letters, so that a letter that differs is not in both; the other may be one longer or shorter.
		if half := n/2 - 1; n >= longTitle-1 && half <= len(t.whole) {
			visit(of('b', t.whole[:half], n))
			visit(of('e', t.whole[len(t.whole)-half:], n))
		}
	}
}

// alike reports whether two titles are the same as people write them.
func (t title) alike(o title) bool {
	switch {
	case t.whole == "" || o.whole == "":
		return false
	case t.whole == o.whole:
		return true
	case t.main != "" && t.main == o.whole, o.main != "" && o.main == t.whole:
		return true
	}
	return t.tells == o.tells && min(len(t.whole), len(o.whole)) >= longTitle && oneLetter(t.whole, o.whole)
}

// oneLetter reports whether two texts differ by one letter, that is no digit: one more, less or other, or two
// changed over.
func oneLetter(a, b string) bool {
	if len(a) > len(b) {
		a, b = b, a
	}
	if len(b)-len(a) > 3 { // a letter may be of several bytes
		return false
	}
	i := 0
	for i < len(a) && a[i] == b[i] {
		i++
	}
	j := 0
	for j < len(a)-i && a[len(a)-1-j] == b[len(b)-1-j] {
		j++
	}
	x, y := []rune(a[i:len(a)-j]), []rune(b[i:len(b)-j])
	if slices.ContainsFunc(x, unicode.IsDigit) || slices.ContainsFunc(y, unicode.IsDigit) {
		return false
	}
	if len(x) == 2 && len(y) == 2 {
		return x[0] == y[1] && x[1] == y[0]
	}
	return len(x) <= 1 && len(y) <= 1
}

func yearsAgree(a, b Identity) bool {
	if a.Year == 0 || b.Year == 0 {
		return true
	}
	d := a.Year - b.Year
	if a.Title.yearly || b.Title.yearly {
		return d == 0
	}
	return d >= -1 && d <= 1
}

// mostAuthors is how many of the authors of a record are compared.
const mostAuthors = 8

// An author is one as names are compared.
type author struct {
	family string // folded, without particles
	given  rune   // the first letter of the given names; 0 where there is none, so that the family name may hold them
}

var particles = map[string]bool{"van": true, "von": true, "de": true, "der": true, "den": true, "la": true,
	"le": true, "du": true, "da": true, "dos": true, "das": true, "do": true, "di": true, "del": true,
	"della": true, "dei": true, "el": true, "al": true, "bin": true, "ibn": true, "ten": true, "ter": true, "zu": true,
	"zur": true, "af": true, "av": true, "y": true, "e": true, "jr": true, "sr": true}

// folding makes letters alike that are written with marks, with a second letter, or plainly.
var folding = strings.NewReplacer("ue", "u", "oe", "o", "ae", "a", "ø", "o", "æ", "a", "œ", "o", "ł", "l", "đ", "d",
	"ð", "d", "þ", "th", "ı", "i")

// first returns the first author who has a name; ok is false where there is none.
func first(people []Person) (a author, ok bool) {
	for _, p := range people {
		if a, ok = authorOf(p); ok {
			return a, true
		}
	}
	return a, false
}

func authorsOf(people []Person) (out []author) {
	for _, p := range people[:min(len(people), mostAuthors)] {
		if a, ok := authorOf(p); ok {
			out = append(out, a)
		}
	}
	return out
}

func authorOf(p Person) (a author, ok bool) {
	tokens := text.Tokens(folding.Replace(strings.ToLower(p.Family)))
	kept := slices.DeleteFunc(slices.Clone(tokens), func(t string) bool { return particles[t] })
	if len(kept) == 0 {
		kept = tokens
	}
	if len(kept) == 0 {
		return a, false
	}
	a.family = folding.Replace(strings.Join(kept, " "))
	if given := strings.TrimSpace(p.Given); given != "" {
		for _, a.given = range text.Key(given[:min(len(given), 12)]) {
			break
		}
	}
	return a, true
}

// authorsAgree reports whether the first authors are the same person as people write names, or all authors are in
// another order; both is whether both records have any.
func authorsAgree(a, b Identity) (agree, both bool) {
	if !a.signed || !b.signed {
		return false, false
	}
	if a.first.is(b.first) {
		return true, true
	}
	these, those := authorsOf(a.people), authorsOf(b.people)
	if len(these) != len(those) || len(these) < 2 {
		return false, true
	}
	all := func(these, those []author) bool {
		return !slices.ContainsFunc(these, func(x author) bool { return !slices.ContainsFunc(those, x.is) })
	}
	return all(these, those) && all(those, these), true
}

func (a author) is(b author) bool {
	x, y := strings.ReplaceAll(a.family, " ", ""), strings.ReplaceAll(b.family, " ", "")
	if x == y {
		return true
	}
	return a.given == 0 && a.holds(b) || b.given == 0 && b.holds(a)
}

// holds reports whether a name that is written as a whole is another: its family name first or last, and given
// names or initials that begin as the other's do.
func (a author) holds(b author) bool {
	words, family := strings.Fields(a.family), strings.Fields(b.family)
	n := len(words) - len(family)
	if n <= 0 {
		return false
	}
	begins := func(word string) bool { return b.given == 0 || strings.HasPrefix(word, string(b.given)) }
	return slices.Equal(words[:len(family)], family) && begins(words[len(family)]) || slices.Equal(words[n:], family) &&
		begins(words[0])
}
