package explain

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
)

const (
	nextToNothing = 2    // records
	timesMore     = 10   // as many records as a word that may be misspelt
	leastTold     = 5    // letters of a word that may be misspelt
	leastMeant    = 3    // records of a word that may be meant
	leastAdded    = 3    // records that another spelling adds
	addedShare    = 0.02 // of what the concept finds
	leastLost     = 3    // records that a limit or NOT takes away
	lostShare     = 0.02 // of what would be found, for want of headings
	unlistedShare = 0.05 // for want of a type, language or country
	droppedShare  = 0.05
	shortStem     = 3 // letters
	fewDragged    = 8 // different words that a short stem may match
	mostNamed     = 6
)

// look tells what is wrong with the terms of a part of the query.
func (e *explainer) look(n *dialect.Node) error {
	if n == nil || e.ctx.Err() != nil {
		return e.ctx.Err()
	}
	for i, p := range n.Parts {
		if n.Op == "near" {
			break // its sides are looked at with it
		}
		was := e.less
		e.less = e.less || n.Op == "not" && i > 0
		err := e.look(p)
		e.less = was
		if err != nil {
			return err
		}
	}
	if n.Op == dialect.Leaf || n.Op == "near" {
		e.leaf(n)
	}
	return nil
}

// joined tells what is wrong with how the parts of a query are joined, once each term has been looked at.
func (e *explainer) joined(n *dialect.Node) error {
	if n == nil || e.ctx.Err() != nil {
		return e.ctx.Err()
	}
	if n.Op != "near" {
		for _, p := range n.Parts {
			if err := e.joined(p); err != nil {
				return err
			}
		}
	}
	switch n.Op {
	case "or":
		if !e.drawnIn[n] {
			e.group(n)
		}
	case "and":
		e.synonyms(n)
		if n.Loose {
			e.loose(n)
		}
	case "not":
		e.drops(n)
	case dialect.Line:
		if n.Join == "or" && !e.drawnIn[n] {
			e.group(n)
		}
	}
	return nil
}

// leaf looks at one term.
func (e *explainer) leaf(n *dialect.Node) {
	switch q := n.Expr.(type) {
	case query.Phrase:
		e.phrase(n, q.Pattern, q.Fields)
	case query.Near:
		e.phrase(n, q.Left, q.Fields)
		if !e.spent[n] {
			e.phrase(n, q.Right, q.Fields)
		}
	case query.Heading:
		e.heading(n, q)
	}
	if !e.less {
		e.leaves = append(e.leaves, n) // what NOT takes away may be nothing
	}
}

// nothing tells of what finds nothing.
func (e *explainer) nothing(n *dialect.Node) {
	found := e.match(n)
	if found == nil || e.spent[n] || !found.IsEmpty() {
		return
	}
	if q, ok := n.Expr.(query.Heading); ok && e.over.Elsewhere {
		return
	} else if ok && e.over.Set.Thesaurus != nil {
		if _, known := e.over.Set.Thesaurus.Find(q.Label); !known {
			return
		}
	}
	zero := 0
	e.find(FindsNothing, n, &zero, nil, fmt.Sprintf("%s finds no record of the sample", e.short(n)))
	e.spent[n] = true
}

func (e *explainer) short(n *dialect.Node) string {
	s := []rune(e.r.Of(n.From, n.To))
	if len(s) > 60 {
		return "“" + string(s[:60]) + "…”"
	}
	if len(s) > 1 && strings.ContainsRune("\"“„«", s[0]) { // in marks of its own
		return string(s)
	}
	return "“" + string(s) + "”"
}

func (e *explainer) list() *index.Words {
	if e.words == nil {
		e.words = index.NewWords(e.over.Set.Index)
	}
	return e.words
}

func (e *explainer) phrase(n *dialect.Node, p text.Pattern, fields bib.Field) {
	if e.stem(n, p) {
		return
	}
	e.misspelt(n, p, fields)
}

// stem tells of a word cut so short that it finds what nobody meant.
func (e *explainer) stem(n *dialect.Node, p text.Pattern) bool {
	if len(p) != 1 {
		return false
	}
	word := p[0].String()
	stem, cut := strings.CutSuffix(word, "*")
	if !cut || strings.ContainsAny(stem, "*?") || utf8.RuneCountInString(stem) > shortStem {
		return false
	}
	if !e.set() {
		e.spent[n] = true
		e.find(
			dialect.StemTooShort,
			n,
			nil,
			nil,
			fmt.Sprintf("%d letters before a sign find much that is not meant", utf8.RuneCountInString(stem)),
		)
		return true
	}
	if e.enough(dialect.StemTooShort) {
		return false
	}
	drags, known := e.drags[stem]
	if !known {
		drags = e.dragged(stem)
		e.drags[stem] = drags
	}
	all := drags.words
	if drags.bases < fewDragged {
		return false
	}
	var names []string
	for _, d := range all[:min(len(all), mostNamed)] {
		names = append(names, fmt.Sprintf("%s %s", d.word, number(uint64(d.records))))
	}
	e.spent[n] = true
	e.find(
		dialect.StemTooShort,
		n,
		e.found0(n),
		nil,
		fmt.Sprintf(
			"%d letters before a sign find %s different words: %s",
			utf8.RuneCountInString(stem),
			number(uint64(len(all))),
			strings.Join(names, ", "),
		),
	)
	return true
}

// dragging is what a short stem finds: its words, the most frequent first, and how many there are beside their
// numbers and spellings.
type dragging struct {
	words []dragged
	bases int
}

type dragged struct {
	word    string
	records int
}

func (e *explainer) dragged(stem string) (out dragging) {
	bases := map[string]bool{}
	for _, w := range e.over.Set.Index.TokensWith(stem) {
		bases[text.Base(w)] = true
		out.words = append(out.words, dragged{w, e.holds(text.Literal(w), bib.Text)})
	}
	out.bases = len(bases)
	slices.SortStableFunc(out.words, func(a, b dragged) int { return b.records - a.records })
	return out
}

// misspelt tells of a word that is found nowhere or next to nowhere, where one a letter from it is found often.
func (e *explainer) misspelt(n *dialect.Node, p text.Pattern, fields bib.Field) {
	if !e.set() || e.spent[n] || e.enough(Misspelt) {
		return
	}
	own := e.holds(p, fields)
	if own > nextToNothing {
		return
	}
	least := max(leastMeant, timesMore*own)
	most := make([]int, len(p)) // records that a phrase can have at most, whatever stands in one place of it
	for k := range p {
		most[k] = math.MaxInt
		for i := range p {
			if i != k {
				most[k] = min(most[k], e.holds(p[i:i+1], fields))
			}
		}
	}
	best, records, at := "", 0, 0
	for k, t := range p {
		word := t.String()
		stem, cut := strings.CutSuffix(word, "*")
		if strings.ContainsAny(stem, "*?") || utf8.RuneCountInString(stem) < leastTold-1 && len(p) == 1 ||
			utf8.RuneCountInString(stem) < 3 {
			continue
		}
		if most[k] < least {
			continue
		}
		alone := e.holds(p[k:k+1], fields)
		others, known := e.edited[word]
		if !known {
			if others = e.list().Edited(stem); cut {
				others = append(others, e.stems(stem)...)
			}
			e.edited[word] = others
		}
		for _, other := range others {
			if cut && !strings.HasSuffix(other, "*") {
				other += "*"
			}
			words := make([]string, len(p))
			for i := range p {
				words[i] = p[i].String()
			}
			words[k] = other
			changed, err := text.ParsePattern(strings.Join(words, " "))
			bare := strings.TrimSuffix(other, "*")
			if err != nil || text.Base(stem) == text.Base(bare) ||
				len(p) == 1 && len(stem) < leastTold && !strings.HasPrefix(bare, stem) {
				continue // of a short word another letter makes another word, unless its last is missing
			}
			if len(p) > 1 && e.holds(changed[k:k+1], fields) < least {
				continue
			}
			found := e.holds(changed, fields)
			if found > records && found >= least && found >= timesMore*min(alone, 1) {
				best, records, at = other, found, k
			}
		}
	}
	if best == "" {
		return
	}
	e.spent[n] = true
	typed := p[at].String()
	sign := ""
	if len(e.r.Dialect.Terms.Many) > 0 {
		sign = e.r.Dialect.Terms.Many[0]
	}
	mend := replaced(e.r.Of(n.From, n.To), strings.TrimSuffix(typed, "*"), strings.TrimSuffix(best, "*"))
	e.find(
		Misspelt,
		n,
		&records,
		mend,
		fmt.Sprintf(
			"“%s” finds %s; “%s”, one letter from it, %s",
			strings.Replace(typed, "*", sign, 1),
			number(uint64(own)),
			strings.Replace(best, "*", sign, 1),
			number(uint64(records)),
		),
	)
}

// stems returns the stems one letter from another that words of the records begin with: the first letter stays.
func (e *explainer) stems(stem string) (out []string) {
	letters := []rune(stem)
	n := len(letters)
	if n < 5 {
		return nil
	}
	// One letter more, less or other, or two changed about, leaves one half as it is: the first in its place, or the
	// second at most one place from it.
	first, second := string(letters[:n/2]), string(letters[n/2:])
	seen := map[string]bool{}
	for _, w := range e.over.Set.Index.TokensWith(string(letters[:1])) {
		if !strings.HasPrefix(w, first) && !strings.Contains(w, second) && !strings.Contains(w, string(letters[n/2+1:])) {
			continue
		}
		r := []rune(w)
		for l := n - 1; l <= n+1 && l <= len(r); l++ {
			head := string(r[:l])
			if !seen[head] && text.Edited(stem, head) {
				seen[head] = true
				out = append(out, head+"*")
			}
		}
	}
	return out
}

// replaced returns text with one word in place of another, whatever its case; nil where it does not stand there.
func replaced(s, old, with string) *string {
	at := strings.Index(strings.ToLower(s), old)
	if at < 0 || len(strings.ToLower(s)) != len(s) {
		return nil
	}
	out := s[:at] + with + s[at+len(old):]
	return &out
}

// group looks at terms that stand for each other.
func (e *explainer) group(n *dialect.Node) {
	parts := e.parts(n, "or")
	e.inside(n, parts)
	e.spellings(n, parts)
	e.concepts(n)
}

// inside tells of terms that are there twice, or that another finds all of.
func (e *explainer) inside(n *dialect.Node, parts []*dialect.Node) {
	all := newCovers(parts, e.over.Set.Thesaurus)
	for i, p := range parts {
		if e.spent[p] || e.ctx.Err() != nil {
			continue
		}
		for _, j := range all.may(p) {
			other := parts[j]
			if i == j || e.spent[other] || p == other {
				continue
			}
			code, why := e.covered(p, other, j < i)
			if code == "" || e.enough(code) {
				continue
			}
			e.spent[p] = true
			f := Finding{Code: code, From: p.From, To: p.To, Why: why}
			f.From, f.To, f.Mend = e.gone(n, p)
			f.Records = e.only(p, other)
			e.put(f)
			break
		}
	}
}

// only returns how many records a part finds, none of which is its own.
func (e *explainer) only(p, other *dialect.Node) *int {
	a, b := e.match(p), e.match(other)
	if a == nil || b == nil {
		return nil
	}
	n := int(a.GetCardinality() - a.AndCardinality(b))
	return &n
}

// gone returns the place of a part with what joins it to its neighbour, and nothing as what should stand there;
// where it is not joined in this line, its own place and no mend.
func (e *explainer) gone(n, p *dialect.Node) (from, to int, mend *string) {
	in, ok := e.place()[p]
	if !ok || len(in.whole.Parts) < 2 || in.whole.From < n.From || in.whole.To > n.To {
		return p.From, p.To, nil
	}
	empty := ""
	if in.at > 0 {
		return in.whole.Parts[in.at-1].To, p.To, &empty
	}
	return p.From, in.whole.Parts[1].From, &empty
}

// A placed part is one of those that OR joins, at its place.
type placed struct {
	whole *dialect.Node
	at    int
}

// place tells where each part stands that OR joins.
func (e *explainer) place() map[*dialect.Node]placed {
	if e.places == nil {
		e.places = map[*dialect.Node]placed{}
		for _, l := range e.r.Lines {
			l.Tree.Walk(func(n *dialect.Node) {
				for i, p := range n.Parts {
					if n.Op == "or" {
						e.places[p] = placed{n, i}
					}
				}
			})
		}
	}
	return e.places
}

// covered tells whether one term finds nothing that another does not, by how they are written. later is whether the
// other comes first: of two that are the same the later is told.
func (e *explainer) covered(p, other *dialect.Node, later bool) (code, why string) {
	if p.Expr == nil || other.Expr == nil {
		return "", ""
	}
	if dialect.Same(p.Expr, other.Expr) {
		if later {
			return Duplicate, fmt.Sprintf("%s stands here twice", e.short(p))
		}
		return "", ""
	}
	switch a := p.Expr.(type) {
	case query.Phrase:
		b, ok := other.Expr.(query.Phrase)
		if !ok || b.Whole || a.Fields&^b.Fields != 0 || !b.Pattern.Covers(a.Pattern) {
			return "", ""
		}
		return InsideAnother, fmt.Sprintf("%s finds nothing that %s does not", e.short(p), e.short(other))
	case query.Heading:
		b, ok := other.Expr.(query.Heading)
		if !ok || b.Central && !a.Central || len(b.Qualifiers) > 0 && !slices.Equal(a.Qualifiers, b.Qualifiers) {
			return "", ""
		}
		if text.Label(a.Label) == text.Label(b.Label) && (b.Narrower || !a.Narrower) {
			return InsideAnother, fmt.Sprintf("%s finds nothing that %s does not", e.short(p), e.short(other))
		}
		if b.Narrower && b.Which.Has(a.Label) {
			return HeadingBelow, fmt.Sprintf("%s stands below %s, which is taken with all below it", e.short(p), e.short(other))
		}
	}
	return "", ""
}

// spellings tells of words that are there in one spelling, where another adds records.
func (e *explainer) spellings(n *dialect.Node, parts []*dialect.Node) {
	if !e.set() {
		return
	}
	all := roaring.New()
	for _, p := range parts {
		if m := e.match(p); m != nil {
			all.Or(m)
		}
	}
	for _, p := range parts {
		e.spelling(p, all)
	}
}

// spelling tells of one term what its words in another spelling would add to all that its concept finds.
func (e *explainer) spelling(n *dialect.Node, all *roaring.Bitmap) {
	q, ok := n.Expr.(query.Phrase)
	if !ok || e.spent[n] || q.Whole {
		return
	}
	for k, t := range q.Pattern {
		word := t.String()
		stem, cut := strings.CutSuffix(word, "*")
		if strings.ContainsAny(stem, "*?") || utf8.RuneCountInString(stem) < 4 {
			continue
		}
		for _, other := range e.otherSpellings(stem, cut) {
			words := make([]string, len(q.Pattern))
			for i := range q.Pattern {
				words[i] = q.Pattern[i].String()
			}
			words[k] = other
			p, err := text.ParsePattern(strings.Join(words, " "))
			if err != nil || e.looksFor(p, q.Fields) {
				continue
			}
			own := roaring.AndNot(e.phraseHits(p, q.Fields), all)
			added := int(own.GetCardinality())
			if added < leastAdded || float64(added) < addedShare*float64(all.GetCardinality()) {
				continue
			}
			var mend *string
			if typed := e.r.Of(n.From, n.To); !n.Held {
				if with := replaced(typed, stem, strings.TrimSuffix(other, "*")); with != nil {
					both := typed + " " + e.r.Dialect.Operators.Or[0] + " " + *with
					if e.r.Dialect.Brackets.Open != "" {
						both = e.r.Dialect.Brackets.Open + both + e.r.Dialect.Brackets.Shut
					}
					mend = &both
				}
			}
			e.spent[n] = true
			e.find(
				OneSpelling,
				n,
				&added,
				mend,
				fmt.Sprintf("“%s” is here in one spelling; “%s” adds %s", word, other, number(uint64(added))),
			)
			return
		}
	}
}

// looksFor reports whether some term of the query finds all that a phrase does.
func (e *explainer) looksFor(p text.Pattern, fields bib.Field) bool {
	if e.sought == nil {
		e.sought = newCovers(e.leaves, nil)
	}
	for _, i := range e.sought.covering(p) {
		if q := e.leaves[i].Expr.(query.Phrase); !q.Whole && fields&^q.Fields == 0 && q.Pattern.Covers(p) {
			return true
		}
	}
	return false
}

// otherSpellings returns the words, or stems, of the records that are one word in another spelling.
func (e *explainer) otherSpellings(stem string, cut bool) (out []string) {
	if !cut {
		for _, w := range e.list().Forms(text.Literal(stem)[0]) {
			if w != stem && text.Spelling(w) == text.Spelling(stem) {
				out = append(out, w)
			}
		}
		return out
	}
	p, err := text.ParsePattern(stem + "*")
	if err != nil {
		return nil
	}
	base := text.Spelling(stem)
	seen := map[string]bool{}
	var near []string // stems a letter off, where no stem is just the other spelling
	for _, w := range e.list().Forms(p[0]) {
		if strings.HasPrefix(w, stem) ||
			text.Singular(w) != text.Singular(stem) && !strings.HasPrefix(text.Spelling(text.Singular(w)), base) {
			continue
		}
		head := []rune(w)
		for l := max(len([]rune(stem))-1, 1); l <= min(len([]rune(stem))+1, len(head)); l++ {
			s := string(head[:l])
			if seen[s] || strings.HasPrefix(stem, s) { // a shorter stem is no spelling: it finds the word itself too
				continue
			}
			switch seen[s] = true; {
			case text.Spelling(s) == base:
				out = append(out, s+"*")
			case text.Edited(s, stem) && text.Spelling(text.Singular(w)) != text.Singular(w):
				near = append(near, s+"*")
			}
		}
	}
	if len(out) == 0 {
		return near
	}
	return out
}

// loose tells of words side by side that are taken one by one, where the records hold them together.
func (e *explainer) loose(n *dialect.Node) {
	found := e.match(n)
	if found == nil || found.GetCardinality() < 5 {
		return
	}
	var p text.Pattern
	var fields bib.Field
	for _, part := range n.Parts {
		q, ok := part.Expr.(query.Phrase)
		if !ok {
			return
		}
		p, fields = append(p, q.Pattern...), q.Fields
	}
	together := e.phraseHits(p, fields).GetCardinality()
	if 3*together < found.GetCardinality() {
		return
	}
	more := int(found.GetCardinality() - together)
	var mend *string
	if marks := e.r.Dialect.Terms.Marks; len(marks) > 0 {
		s := marks[0][0] + e.r.Of(n.From, n.To) + marks[0][1]
		mend = &s
	}
	e.find(
		dialect.PhraseSplit,
		n,
		&more,
		mend,
		fmt.Sprintf(
			"these words are looked for one by one; held together they find %s, and %s fewer are in the way",
			number(together),
			number(uint64(more)),
		),
	)
}

// drops tells what NOT takes away.
func (e *explainer) drops(n *dialect.Node) {
	for _, less := range n.Parts[1:] {
		if e.enough(NotDrops) {
			return
		}
		var gone taken
		keysLost := 0
		if e.sample != nil {
			gone = e.sample.lost[less]
		}
		if e.keys != nil { // known since the lines were counted
			keysLost = int(e.keys.lost[less].lost)
		}
		lost := int(gone.lost)
		if keysLost == 0 && (lost < leastLost || float64(lost) < droppedShare*float64(gone.of)) {
			continue
		}
		why := fmt.Sprintf("NOT %s takes %s of %s records away", e.short(less), number(gone.lost), number(gone.of))
		if e.keys != nil {
			why += fmt.Sprintf(", and %s key studies", number(uint64(keysLost)))
		}
		e.put(Finding{Code: NotDrops, From: less.From, To: less.To, Why: why, Records: &lost, Keys: &keysLost})
	}
}

// whole looks at what the last line joins: at a concept that rests on indexing alone, and at a word that stands alone.
func (e *explainer) whole() {
	if len(e.r.Lines) == 0 || !e.set() {
		return
	}
	root := e.at(e.r.Lines[len(e.r.Lines)-1].Tree)
	if root == nil {
		return
	}
	if root.Op == dialect.Leaf {
		if m := e.match(root); m != nil {
			e.spelling(root, m)
		}
		return
	}
	for root.Op == "not" {
		root = e.at(root.Parts[0])
	}
	parts := e.parts(root, "and")
	for _, p := range parts {
		if p.Op == dialect.Leaf {
			if m := e.match(p); m != nil {
				e.spelling(p, m)
			}
		}
	}
	if len(parts) < 2 {
		return
	}
	e.strays(parts)
	others := e.allBut(parts)
	for _, p := range parts {
		what, bare := e.indexed(p)
		if what == "" || e.enough(LimitOnIndexing) {
			continue
		}
		others := others(p)
		lost := 0
		for it := others.Iterator(); it.HasNext(); {
			if bare(e.over.Set.Records[it.Next()]) {
				lost++
			}
		}
		least := lostShare
		if what != "heading" {
			least = unlistedShare
		}
		if lost < leastLost || float64(lost) < least*float64(others.GetCardinality()) {
			continue
		}
		e.put(Finding{Code: LimitOnIndexing, From: p.From, To: p.To, Records: &lost,
			Why: fmt.Sprintf(
				"%s of the %s records that all else finds carry no %s, and are lost here whatever they are about",
				number(uint64(lost)),
				number(others.GetCardinality()),
				what,
			)})
	}
}

// allBut returns, for each part, the records that all the others find: those that no other lacks.
func (e *explainer) allBut(parts []*dialect.Node) func(p *dialect.Node) *roaring.Bitmap {
	none, one := roaring.New(), roaring.New() // records that no part lacks so far, and that just one does
	none.Or(e.over.Set.All())
	for _, p := range parts {
		if m := e.match(p); m != nil {
			one.And(m)
			one.Or(roaring.AndNot(none, m))
			none.And(m)
		}
	}
	return func(p *dialect.Node) *roaring.Bitmap {
		m := e.match(p)
		if m == nil {
			return none.Clone()
		}
		return roaring.Or(none, roaring.AndNot(one, m))
	}
}

// indexed tells whether a concept is looked for in what indexers added alone, what that is, and which records lack it.
func (e *explainer) indexed(n *dialect.Node) (what string, bare func(*bib.Record) bool) {
	kinds := map[string]func(*bib.Record) bool{}
	for _, p := range e.parts(n, "or") {
		switch q := p.Expr.(type) {
		case query.Heading:
			kinds["heading"] = func(r *bib.Record) bool { return !r.Indexed() }
		case query.Listed:
			switch q.List {
			case index.Types:
				kinds["type"] = func(r *bib.Record) bool { return len(r.Types) == 0 }
			case index.Languages:
				kinds["language"] = func(r *bib.Record) bool { return len(r.Languages) == 0 }
			case index.Countries:
				kinds["country"] = func(r *bib.Record) bool { return len(r.Countries) == 0 }
			default:
				return "", nil
			}
		default:
			return "", nil
		}
	}
	if len(kinds) != 1 {
		return "", nil
	}
	for what, bare = range kinds {
	}
	return what, bare
}
