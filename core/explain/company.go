package explain

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/company"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// From which likeness on two terms stand for one thing, and up to which they do not: of pairs of terms of one planted
// concept all are above the one, of two concepts all below the other.
const (
	alikeFrom    = 0.5
	otherUpTo    = 0.36
	strayUpTo    = 0.75 // of the likeness to the other concept
	leastSet     = 2000 // records: of fewer the company of words says little
	leastRecords = 20   // of a term whose company is compared
	mostShared   = 0.5  // of the rarer: more, and the two belong to one phrase
	// letters of a term that is told to be another concept by itself: an abbreviation keeps company of its own
	leastAlone   = 5
	mostCompared = 60 // terms of one concept
)

// company returns what words keep company with; nil where that is not known.
func (e *explainer) company() *company.Company {
	if !e.asked && e.over.Company != nil && e.set() && e.over.Set.Index.Len() >= leastSet {
		e.asked = true
		e.whom, e.err = e.over.Company()
	}
	return e.whom
}

// item returns the word or phrase by which a term is compared: itself, or the most frequent of those that it finds.
func (e *explainer) item(n *dialect.Node) string {
	q, ok := n.Expr.(query.Phrase)
	if !ok || e.company() == nil {
		return ""
	}
	best, most := "", leastRecords-1
	heads := []string{""}
	for _, t := range q.Pattern {
		words := []string{t.String()}
		if _, exact := t.Exact(); !exact {
			words = nil
			for _, w := range e.over.Set.Index.TokensWith(t.Prefix()) {
				if t.Match(w) && len(words) < 400 {
					words = append(words, w)
				}
			}
		}
		var next []string
		for _, h := range heads {
			for _, w := range words {
				if len(next) < 2000 {
					next = append(next, strings.TrimSpace(h+" "+w))
				}
			}
		}
		heads = next
	}
	for _, h := range heads {
		if _, is := e.whom.Place(h); is && e.whom.Records(h) > most {
			best, most = h, e.whom.Records(h)
		}
	}
	return best
}

// synonyms tells of terms joined by AND that stand for one thing.
func (e *explainer) synonyms(n *dialect.Node) {
	if n.Loose {
		return
	}
	// Terms, not concepts: what is joined here are words alone.
	var leaves []*dialect.Node
	for _, p := range n.Parts {
		if _, ok := p.Expr.(query.Phrase); ok && p.Op == dialect.Leaf {
			leaves = append(leaves, p)
		}
	}
	for i := 0; i+1 < len(leaves) && i < mostCompared; i++ {
		for j := i + 1; j < len(leaves) && j < mostCompared; j++ {
			a, b := leaves[i], leaves[j]
			if e.spent[a] || e.spent[b] {
				continue
			}
			why := e.oneThing(a, b)
			if why == "" {
				continue
			}
			e.spent[a], e.spent[b] = true, true
			var more *int
			if x, y := e.match(a), e.match(b); x != nil && y != nil {
				both, either := x.AndCardinality(y), x.OrCardinality(y)
				n := int(either - both)
				more = &n
				why += fmt.Sprintf(": joined by OR they find %s, by AND %s", number(either), number(both))
			}
			at := &dialect.Node{From: a.From, To: b.To}
			var mend *string
			if slices.Index(n.Parts, b) == slices.Index(n.Parts, a)+1 {
				s := e.r.Of(a.From, a.To) + " " + e.r.Dialect.Operators.Or[0] + " " + e.r.Of(b.From, b.To)
				if len(n.Parts) > 2 && e.r.Dialect.Brackets.Open != "" {
					s = e.r.Dialect.Brackets.Open + s + e.r.Dialect.Brackets.Shut
				}
				mend = &s
			}
			e.find(AndAmongSynonyms, at, more, mend, why)
			return
		}
	}
}

// oneThing says why two terms stand for one thing: they are one word in two writings, lead to one heading, or are
// used alike; "" where nothing says so.
func (e *explainer) oneThing(a, b *dialect.Node) string {
	x, y := plainWords(a), plainWords(b)
	if len(x) == 0 || len(y) == 0 {
		return ""
	}
	if text.FamilyKey(x) == text.FamilyKey(y) {
		return fmt.Sprintf("%s and %s are one word in two writings", e.short(a), e.short(b))
	}
	if v := e.over.Set.Thesaurus; v != nil {
		if h, ok := leadsTo(v, x); ok {
			if other, is := leadsTo(v, y); is && other == h {
				return fmt.Sprintf("%s and %s both stand for the heading “%s”", e.short(a), e.short(b), v.Label(h))
			}
		}
	}
	if !e.set() {
		return ""
	}
	if alike, shared := e.compare(a, b); alike >= alikeFrom && shared <= mostShared {
		return fmt.Sprintf("%s and %s are used alike (%.2f), and stand for one thing", e.short(a), e.short(b), alike)
	}
	return ""
}

// plainWords returns the words of a term without signs at their ends; none where signs stand elsewhere.
func plainWords(n *dialect.Node) (out []string) {
	q, ok := n.Expr.(query.Phrase)
	if !ok {
		return nil
	}
	for _, t := range q.Pattern {
		w := strings.TrimSuffix(t.String(), "*")
		if strings.ContainsAny(w, "*?") {
			return nil
		}
		out = append(out, w)
	}
	return out
}

// leadsTo returns the heading that words are the label or an entry term of, in number as they stand or as plural.
func leadsTo(v *thesaurus.Thesaurus, words []string) (int, bool) {
	for _, s := range []string{strings.Join(words, " "), strings.Join(words, " ") + "s"} {
		if h, ok := v.Find(s); ok {
			return h, true
		}
		if h, ok := v.Term(s); ok {
			return h, true
		}
	}
	return 0, false
}

// compare returns how alike two terms are, and which share of the rarer's records they share; -1 where that is not
// known.
func (e *explainer) compare(a, b *dialect.Node) (alike, shared float64) {
	x, y := e.item(a), e.item(b)
	if x == "" || y == "" || text.FamilyKey(strings.Fields(x)) == text.FamilyKey(strings.Fields(y)) {
		return -1, 0
	}
	all, ok := e.whom.Between(x, []string{y})
	if !ok || all[0] < 0 {
		return -1, 0
	}
	m, o := e.match(a), e.match(b)
	if m == nil || o == nil {
		return -1, 0
	}
	return all[0], float64(m.AndCardinality(o)) / float64(max(1, min(m.GetCardinality(), o.GetCardinality())))
}

// concept is the terms of one concept that can be compared, with how alike each is to each.
type concept struct {
	node  *dialect.Node
	nodes []*dialect.Node
	items []string
}

// comparable returns the terms of a concept whose company is known.
func (e *explainer) comparable(n *dialect.Node) (c concept) {
	c.node = n
	parts := e.parts(n, "or")
	if len(parts) > mostCompared {
		return c
	}
	for _, p := range parts {
		if p.Op != dialect.Leaf || e.spent[p] {
			continue
		}
		if it := e.item(p); it != "" {
			c.nodes, c.items = append(c.nodes, p), append(c.items, it)
		}
	}
	return c
}

// nearest returns how alike a term is to the terms of a concept that are most like it: the mean of the two nearest.
// Its own family does not count; ok is false where nothing is left.
func (e *explainer) nearest(item string, c concept) (mean float64, ok bool) {
	alike, known := e.whom.Between(item, c.items)
	if !known {
		return 0, false
	}
	own := text.FamilyKey(strings.Fields(item))
	var best []float64
	for i, a := range alike {
		if a >= 0 && text.FamilyKey(strings.Fields(c.items[i])) != own {
			best = append(best, a)
		}
	}
	if len(best) == 0 {
		return 0, false
	}
	slices.SortFunc(best, func(a, b float64) int { return -cmp.Compare(a, b) })
	best = best[:min(len(best), 2)]
	for _, a := range best {
		mean += a
	}
	return mean / float64(len(best)), true
}

// strays tells of terms that stand among those of one concept and are used like those of another.
func (e *explainer) strays(parts []*dialect.Node) {
	if e.over.Company == nil || !e.set() || len(parts) < 2 {
		return
	}
	var all []concept
	for _, p := range parts {
		if c := e.comparable(p); len(c.items) > 0 {
			all = append(all, c)
		}
		if len(all) > strategy.MaxBlocks {
			return // no query of concepts
		}
	}
	for i, c := range all {
		if len(c.items) < 2 || e.company() == nil {
			continue
		}
		for k, item := range c.items {
			if e.ctx.Err() != nil {
				return
			}
			own, ok := e.nearest(item, c)
			if !ok {
				continue
			}
			for j, other := range all {
				theirs, known := e.nearest(item, other)
				if i == j || !known || theirs < alikeFrom || own > strayUpTo*theirs || e.spent[c.nodes[k]] {
					continue
				}
				e.spent[c.nodes[k]] = true
				records := e.found0(c.nodes[k])
				e.find(
					OrAmongConcepts,
					c.nodes[k],
					records,
					nil,
					fmt.Sprintf("%s is used like %s (%.2f), not like what it is joined to by OR (%.2f)",
						e.short(c.nodes[k]), e.names(other.nodes), theirs, own),
				)
			}
		}
	}
}

// concepts tells of terms joined by OR that stand for different things: two groups of them, no term of which is
// used like any of the other.
func (e *explainer) concepts(n *dialect.Node) {
	if !e.set() || e.over.Company == nil {
		return
	}
	c := e.comparable(n)
	if len(c.items) < 2 || e.company() == nil {
		return
	}
	// Terms that are not clearly different belong together, and those that belong with one of them.
	group := make([]int, len(c.items))
	for i := range group {
		group[i] = i
	}
	for i, item := range c.items {
		alike, _ := e.whom.Between(item, c.items)
		for j := range alike {
			if j != i &&
				(alike[j] > otherUpTo || alike[j] < 0 ||
					text.FamilyKey(strings.Fields(item)) == text.FamilyKey(strings.Fields(c.items[j]))) {
				from, to := group[j], group[i]
				for k := range group {
					if group[k] == from {
						group[k] = to
					}
				}
			}
		}
	}
	of := func(g int) (out concept) {
		for i, n := range c.nodes {
			if group[i] == g {
				out.nodes, out.items = append(out.nodes, n), append(out.items, c.items[i])
			}
		}
		return out
	}
	first := of(group[0])
	var second concept
	for i := range c.nodes {
		if group[i] != group[0] {
			second = of(group[i])
			break
		}
	}
	if len(first.nodes)+len(second.nodes) < len(c.nodes) || !e.tight(first) || !e.tight(second) {
		return // more than two, or what is no group: nothing sure
	}
	one, two := roaringOf(e, first.nodes), roaringOf(e, second.nodes)
	all := one.Clone()
	all.Or(two)
	shared := one.AndCardinality(two)
	if float64(shared) > mostShared*float64(min(one.GetCardinality(), two.GetCardinality())) {
		return // they belong to one thing
	}
	more := int(all.GetCardinality() - shared)
	e.put(Finding{Code: OrAmongConcepts, From: n.From, To: n.To, Records: &more,
		Why: fmt.Sprintf(
			"%s and %s keep different company, and are joined by OR: they find %s together, of which %s hold both",
			e.names(first.nodes),
			e.names(second.nodes),
			number(all.GetCardinality()),
			number(shared),
		),
		Mend: e.anded(n, first.nodes, second.nodes)})
}

// tight reports whether each term of a group is used like another of it; one term by itself is.
func (e *explainer) tight(c concept) bool {
	if len(c.nodes) == 1 {
		return utf8.RuneCountInString(c.items[0]) >= leastAlone
	}
	if len(c.nodes) == 0 {
		return false
	}
	for _, item := range c.items {
		if a, ok := e.nearest(item, c); ok && a < alikeFrom {
			return false
		}
	}
	return true
}

func (e *explainer) names(nodes []*dialect.Node) string {
	var out []string
	for _, n := range nodes[:min(len(nodes), 3)] {
		out = append(out, e.short(n))
	}
	s := strings.Join(out, ", ")
	if len(nodes) > 3 {
		s += " …"
	}
	return s
}
