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

var ways = []Via{Label, EntryTerm, Note}

func (r role) via() int {
	switch r {
	case label:
		return 0
	case entryTerm:
		return 1
	}
	return 2
}

// LookUp returns the headings that a word or phrase leads to: its tokens stand as a phrase, the last of
// them as a beginning, in the label, an entry term or a note, in any language. Each heading comes once, by its surest
// way: whole texts first, then label before entry term before note, then by label.
func (t *Thesaurus) LookUp(word string) []Lead {
	wanted := text.Tokens(word)
	if len(wanted) == 0 {
		return nil
	}
	found := ranking{t: t}
	t.phrases(wanted, func(x uint32, whole bool) { found.add(way{x: x, whole: whole}) })
	return found.leads()
}

// Suggest returns what LookUp does; then what a notation leads to; then what words lead to in another form, in another
// order, and with one letter other. Each heading comes once. It stops looking further where more headings than most
// are found; 0 is no bound.
func (t *Thesaurus) Suggest(word string, most int) []Lead {
	wanted := text.Tokens(word)
	if len(wanted) == 0 {
		return nil
	}
	found := ranking{t: t, most: most}
	t.phrases(wanted, func(x uint32, whole bool) { found.add(way{x: x, whole: whole}) })
	out := found.leads()
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
	for _, more := range []func([]string, int) []Lead{t.otherwise, t.misspelt} {
		if most > 0 && len(out) >= most {
			break
		}
		// Some of them may be known already.
		bound := 0
		if most > 0 {
			bound = most + len(out)
		}
		add(more(wanted, bound))
	}
	if most > 0 && len(out) > most {
		out = out[:most]
	}
	return out
}

// A way is a text that leads to a heading, and how well.
type way struct {
	x        uint32
	whole    bool
	forgiven int // place among overlooked
	meant    string
}

var overlooked = []Forgiven{Nothing, Form, Order, Letter}

// ranks are how many kinds of ways there are: by what is forgiven, whether the whole text is meant, and where it
// stands.
const ranks = 4 * 2 * 3

// A ranking brings ways into their order, each heading by its best. Ways have to come in the order of their texts,
// which is that of the headings: then those of one heading come together, and those of one rank in their order.
type ranking struct {
	t       *Thesaurus
	most    int // of each rank that are kept; 0 is all
	ranked  [ranks][]ranked
	at      int // the heading of the ways that come, and the best of them
	best    way
	bestOf  int // its rank
	pending bool
}

type ranked struct {
	heading int
	way
}

func (r *ranking) add(w way) {
	if !r.pending || w.x >= r.t.from[r.at+1] {
		r.flush()
		r.at, r.pending, r.bestOf = r.t.headingFrom(r.at, w.x), true, ranks
	}
	rank := w.forgiven*6 + r.t.role[w.x].via()
	if !w.whole {
		rank += 3
	}
	if rank < r.bestOf || rank == r.bestOf && strings.Compare(r.t.text(int(w.x)), r.t.text(int(r.best.x))) < 0 {
		r.best, r.bestOf = w, rank
	}
}

func (r *ranking) flush() {
	if r.pending && (r.most == 0 || len(r.ranked[r.bestOf]) < r.most) {
		r.ranked[r.bestOf] = append(r.ranked[r.bestOf], ranked{r.at, r.best})
	}
	r.pending = false
}

func (r *ranking) leads() []Lead {
	r.flush()
	out := []Lead{}
	for _, of := range r.ranked {
		for _, w := range of {
			if r.most > 0 && len(out) == r.most {
				return out
			}
			out = append(
				out,
				Lead{
					w.heading,
					ways[r.t.role[w.x].via()],
					r.t.text(int(w.x)),
					r.t.language(int(w.x)),
					overlooked[w.forgiven],
					w.meant,
				},
			)
		}
	}
	return out
}

// rankedWays does the same for ways in any order.
func (t *Thesaurus) rankedWays(found []way, most int) []Lead {
	slices.SortStableFunc(found, func(a, b way) int { return cmp.Compare(a.x, b.x) })
	r := ranking{t: t, most: most}
	for _, w := range found {
		r.add(w)
	}
	return r.leads()
}

// phrases visits the texts in which the wanted tokens stand in a row, the last as a beginning, in their order, and
// tells whether they are all of it.
func (t *Thesaurus) phrases(wanted []string, visit func(x uint32, whole bool)) {
	last := len(wanted) - 1
	begun := t.words.begun(wanted[last])
	if last == 0 {
		// What has the token has the phrase; it is all of it where there is no other.
		is := t.words.whole(wanted[0])
		t.words.having(begun, func(x uint32) {
			whole := t.words.count[x] == 1 && len(is) == 1 && contains(t.words.texts.span(int(is[0])), x)
			visit(x, whole)
		})
		return
	}
	var candidates []uint32
	for i, token := range wanted[:last] {
		texts := []uint32(nil)
		if is := t.words.whole(token); len(is) == 1 {
			texts = t.words.texts.span(int(is[0]))
		}
		if i == 0 {
			candidates = texts
		} else {
			candidates = both(candidates, texts)
		}
	}
	// Of few it is quicker to look at each than to bring together all that begin so.
	if len(candidates) > fewTexts {
		candidates = both(candidates, t.words.union(begun))
	}
	for _, x := range candidates {
		if int(t.words.count[x]) < len(wanted) {
			continue
		}
		if tokens := text.Tokens(t.text(int(x))); holds(tokens, wanted) {
			visit(x, slices.Equal(tokens, wanted))
		}
	}
}

const fewTexts = 2000

func contains(ascending []uint32, x uint32) bool {
	_, found := slices.BinarySearch(ascending, x)
	return found
}

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

// otherwise returns what the wanted tokens lead to in other forms or in another order.
func (t *Thesaurus) otherwise(wanted []string, most int) []Lead {
	return t.rankedWays(t.inAnyOrder(wanted, func(token string, last bool) []uint32 {
		if last {
			return slices.Concat(t.words.based(token), t.words.begun(token))
		}
		return t.words.based(token)
	}, 1, 2, ""), most)
}

// inAnyOrder returns the labels and entry terms that have all the wanted tokens, each as one of those that stand for
// it. A token may stand there as two, and two as one: they are told by what they are together.
func (t *Thesaurus) inAnyOrder(
	wanted []string,
	stands func(token string, last bool) []uint32,
	whole, part int,
	meant string,
) []way {
	var out []way
	family, turned := text.FamilyKey(wanted), anyOrder(wanted)
	is := func(x uint32) bool {
		n := int(t.words.count[x])
		return n <= len(wanted)+1 && n >= len(wanted)-1 && text.FamilyKey(text.Tokens(t.text(int(x)))) == family
	}
	for x := range t.names.kin.find(family) { // the same words, but that some are written in one or in two
		if is(x) {
			out = append(out, way{x: x, whole: true, forgiven: whole, meant: meant})
		}
	}
	all := func(tokens []string) {
		var candidates []uint32
		for i, token := range tokens {
			having := t.words.union(stands(token, i == len(tokens)-1))
			if i == 0 {
				candidates = having
			} else {
				candidates = both(candidates, having)
			}
			if len(candidates) == 0 {
				return
			}
		}
		for _, x := range candidates[:min(len(candidates), mostForgiven)] {
			if t.role[x].via() == 2 {
				continue
			}
			w := way{x: x, forgiven: part, meant: meant}
			switch {
			case is(x):
				w.whole, w.forgiven = true, whole
			case int(t.words.count[x]) == len(wanted) && anyOrder(text.Tokens(t.text(int(x)))) == turned:
				w.whole = true // all words of it, in another order, and not a mere beginning of one
			}
			out = append(out, w)
		}
	}
	all(wanted)
	for i := range len(wanted) - 1 { // two of them as one
		all(slices.Concat(wanted[:i], []string{wanted[i] + wanted[i+1]}, wanted[i+2:]))
	}
	return out
}

const (
	mostForgiven = 5000 // texts that are looked at where something is forgiven
	mostMeant    = 8    // words that one which is not known may be meant for
)

// anyOrder returns what is the same of tokens in whatever order, but for number and spelling.
func anyOrder(tokens []string) string {
	bases := make([]string, len(tokens))
	for i, t := range tokens {
		bases[i] = text.Base(t)
	}
	slices.Sort(bases)
	return strings.Join(bases, " ")
}

// misspelt returns what the wanted tokens lead to where one of them is taken for one that is a letter from it:
// first one that no text has; then, where the whole of a text is meant so, one that is another word too, or begins
// one.
func (t *Thesaurus) misspelt(wanted []string, most int) []Lead {
	var out []way
	for i, token := range wanted {
		last := i == len(wanted)-1
		known := len(t.words.based(token)) > 0 || last && len(t.words.begun(token)) > 0
		for _, n := range t.words.meant(token, mostMeant) {
			other := slices.Clone(wanted)
			other[i] = t.words.token(n)
			meant := strings.Join(other, " ")
			seen := 0
			t.phrases(other, func(x uint32, whole bool) {
				if seen++; seen <= mostForgiven && (whole || !known) {
					out = append(out, way{x: x, whole: whole, forgiven: 3, meant: meant})
				}
			})
			for _, w := range t.inAnyOrder(other, func(token string, _ bool) []uint32 { return t.words.based(token) }, 3, 3,
				meant) {
				if w.whole || !known {
					out = append(out, w)
				}
			}
		}
	}
	return t.rankedWays(out, most)
}
