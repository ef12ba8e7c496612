package thesaurus

import (
	"cmp"
	"slices"
	"strings"

	"tamiz/core/text"
)

// Via is where a word was found that leads to a heading.
type Via string

// The ways to a heading, the surest first.
const (
	Label     Via = "label"
	EntryTerm Via = "entryTerm"
	Note      Via = "note"
	Notation  Via = "notation"
)

// Forgiven is what was overlooked in what somebody looked for.
type Forgiven string

// What is overlooked, the least first.
const (
	Nothing Forgiven = ""
	Form    Forgiven = "form"   // number, spelling, or a word written in two
	Order   Forgiven = "order"  // the words stand in another order, or others between them
	Letter  Forgiven = "letter" // one letter of a word
)

// A Lead is a heading that a word leads to.
type Lead struct {
	Heading  int
	Via      Via
	Matched  string // the label, entry term or note
	Language string // of it
	Forgiven Forgiven
	Meant    string // with a letter forgiven: the word as it is written there
}

// A way is a text that leads to a heading, and how well.
type way struct {
	x        uint32
	heading  int
	via      Via
	whole    bool
	forgiven Forgiven
	meant    string
}

var ways = []Via{Label, EntryTerm, Note}

func (r role) via() Via {
	switch r {
	case label:
		return Label
	case entryTerm:
		return EntryTerm
	}
	return Note
}

// LookUp returns the headings that a word or phrase leads to: its tokens stand as a phrase, the last of
// them as a beginning, in the label, an entry term or a note, in any language. Each heading comes once, by its surest
// way: whole texts first, then label before entry term before note, then by label.
func (t *Thesaurus) LookUp(word string) []Lead {
	wanted := text.Tokens(word)
	if len(wanted) == 0 {
		return nil
	}
	return t.leads(t.phrases(wanted))
}

// Suggest returns what LookUp does; then what a notation leads to; then what words lead to in another form, in another
// order, and with one letter other. Each heading comes once. It stops looking further where more headings than most
// are found; 0 is no bound.
func (t *Thesaurus) Suggest(word string, most int) []Lead {
	wanted := text.Tokens(word)
	if len(wanted) == 0 {
		return nil
	}
	out := t.leads(t.phrases(wanted))
	known := map[int]bool{}
	for _, l := range out {
		known[l.Heading] = true
	}
	add := func(more []Lead) {
		for _, l := range more {
			if !known[l.Heading] {
				known[l.Heading] = true
				out = append(out, l)
			}
		}
	}
	if notation := strings.TrimSpace(word); strings.ContainsAny(notation, "0123456789.") {
		add(t.noted(notation))
	}
	for _, more := range []func([]string) []way{t.otherwise, t.misspelt} {
		if most > 0 && len(out) >= most {
			break
		}
		add(t.leads(more(wanted)))
	}
	if most > 0 && len(out) > most {
		out = out[:most]
	}
	return out
}

// leads returns the headings of ways, each by its best.
func (t *Thesaurus) leads(found []way) []Lead {
	compare := func(a, b way) int {
		if a.forgiven != b.forgiven {
			return cmp.Compare(slices.Index(overlooked, a.forgiven), slices.Index(overlooked, b.forgiven))
		}
		if a.whole != b.whole {
			if a.whole {
				return -1
			}
			return 1
		}
		if a.via != b.via {
			return cmp.Compare(slices.Index(ways, a.via), slices.Index(ways, b.via))
		}
		// The headings stand in the order of their labels.
		return cmp.Or(cmp.Compare(a.heading, b.heading), strings.Compare(t.text(int(a.x)), t.text(int(b.x))), cmp.Compare(a.x, b.x))
	}
	best := make(map[int]way, len(found))
	for _, f := range found {
		if has, ok := best[f.heading]; !ok || compare(f, has) < 0 {
			best[f.heading] = f
		}
	}
	all := make([]way, 0, len(best))
	for _, w := range best {
		all = append(all, w)
	}
	slices.SortFunc(all, compare)
	out := make([]Lead, len(all))
	for i, w := range all {
		out[i] = Lead{w.heading, w.via, t.text(int(w.x)), t.language(int(w.x)), w.forgiven, w.meant}
	}
	return out
}

var overlooked = []Forgiven{Nothing, Form, Order, Letter}

// phrases returns the texts in which the wanted tokens stand in a row, the last as a beginning.
func (t *Thesaurus) phrases(wanted []string) []way {
	last := len(wanted) - 1
	candidates := t.words.having(t.words.begun(wanted[last]))
	for _, token := range wanted[:last] {
		candidates = both(candidates, t.words.having(t.words.whole(token)))
	}
	out := make([]way, 0, len(candidates))
	for _, x := range candidates {
		w := way{x: x, heading: t.headingOf(x), via: t.role[x].via()}
		if last == 0 && len(t.text(int(x))) > longestWord { // what has the token has the phrase, and is more than one
			out = append(out, w)
			continue
		}
		tokens := text.Tokens(t.text(int(x)))
		if holds(tokens, wanted) {
			w.whole = slices.Equal(tokens, wanted)
			out = append(out, w)
		}
	}
	return out
}

// longestWord is from how many bytes on a text cannot be one word that was looked for.
const longestWord = 300

// holds reports whether the wanted tokens stand in a row in the text, the last as a beginning.
func holds(tokens, wanted []string) bool {
	last := len(wanted) - 1
	for i := 0; i+last < len(tokens); i++ {
		if slices.Equal(tokens[i:i+last], wanted[:last]) && strings.HasPrefix(tokens[i+last], wanted[last]) {
			return true
		}
	}
	return false
}

// noted returns the headings with a notation.
func (t *Thesaurus) noted(wanted string) (out []Lead) {
	for x, r := range t.role {
		if r == notation && strings.EqualFold(t.text(x), wanted) {
			out = append(out, Lead{Heading: t.headingOf(uint32(x)), Via: Notation, Matched: t.text(x)})
		}
	}
	return out
}

// otherwise returns the texts that have the wanted tokens in other forms or in another order.
func (t *Thesaurus) otherwise(wanted []string) []way {
	return t.inAnyOrder(wanted, func(token string, last bool) []uint32 {
		if last {
			return slices.Concat(t.words.based(token), t.words.begun(token))
		}
		return t.words.based(token)
	}, Form, Order, "")
}

// inAnyOrder returns the labels and entry terms that have all the wanted tokens, each as one of those that stand for
// it. A token may stand there as two, and two as one: they are told by what they are together.
func (t *Thesaurus) inAnyOrder(wanted []string, stands func(token string, last bool) []uint32, whole, part Forgiven, meant string) []way {
	var out []way
	family := text.FamilyKey(wanted)
	add := func(candidates []uint32) {
		for _, x := range candidates {
			if via := t.role[x].via(); via != Note {
				w := way{x: x, heading: t.headingOf(x), via: via, forgiven: part, meant: meant}
				if text.FamilyKey(text.Tokens(t.text(int(x)))) == family {
					w.whole, w.forgiven = true, whole
				}
				out = append(out, w)
			}
		}
	}
	for x := range t.names.kin.find(family) { // the same words, but that some are written in one or in two
		if text.FamilyKey(text.Tokens(t.text(int(x)))) == family {
			add([]uint32{x})
		}
	}
	all := func(tokens []string) {
		var candidates []uint32
		for i, token := range tokens {
			having := t.words.having(stands(token, i == len(tokens)-1))
			if i == 0 {
				candidates = having
			} else {
				candidates = both(candidates, having)
			}
		}
		add(candidates)
	}
	all(wanted)
	for i := range len(wanted) - 1 { // two of them as one
		all(slices.Concat(wanted[:i], []string{wanted[i] + wanted[i+1]}, wanted[i+2:]))
	}
	return out
}

// mostMeant is how many words one that is not known may be meant for.
const mostMeant = 20

// misspelt returns what the wanted tokens lead to where one that no text has is taken for one that is a letter from it.
func (t *Thesaurus) misspelt(wanted []string) (out []way) {
	for i, token := range wanted {
		last := i == len(wanted)-1
		if len(t.words.based(token)) > 0 || last && len(t.words.begun(token)) > 0 {
			continue
		}
		likely := t.words.meant(token)
		for _, n := range likely[:min(len(likely), mostMeant)] {
			other := slices.Clone(wanted)
			other[i] = t.words.token(n)
			for _, w := range t.phrases(other) {
				w.forgiven, w.meant = Letter, strings.Join(other, " ")
				out = append(out, w)
			}
			out = append(out, t.inAnyOrder(other, func(token string, _ bool) []uint32 { return t.words.based(token) }, Letter, Letter, strings.Join(other, " "))...)
		}
		return out
	}
	return nil
}
