package dialect

import (
	"fmt"
	"slices"
	"strings"

	"tamiz/core/query"
	"tamiz/core/thesaurus"
)

// Sizes of what is read.
const (
	MaxText      = 1 << 20 // bytes
	maxNested    = 1000    // brackets in each other
	maxFound     = 500     // findings; more are not told
	longestMend  = 100_000 // characters
	longestTyped = 5_000   // characters of a term, after which its end is looked for no further
	mostMixed    = 2000    // operators side by side of which two readings are worked out
)

// Read reads what somebody wrote in a dialect, however wrong: what cannot be read is left out and told, the rest is
// kept. vocabulary, which may be nil, says what is below a heading. Only a text that is too long is refused.
func (d *Dialect) Read(typed string, vocabulary *thesaurus.Thesaurus) (*Reading, error) {
	if len(typed) > MaxText {
		return nil, fmt.Errorf("a query has at most %d bytes; this one has %d", MaxText, len(typed))
	}
	raw := []rune(typed)
	p := &parser{d: d, m: d.made, raw: raw, low: make([]rune, len(raw)), vocabulary: vocabulary, nameAt: -1}
	for i, r := range raw {
		p.low[i] = plain(r)
	}
	if !p.m.curls {
		p.straighten()
	}
	out := &Reading{Dialect: d, Text: raw}
	out.Lines, out.Numbered = p.split()
	out.Together = p.together
	p.numbered = out.Numbered && !out.Together
	p.lines = map[int]bool{}
	for _, l := range out.Lines {
		p.lines[l.Number] = true
	}
	for i := range out.Lines {
		l := &out.Lines[i]
		p.at, p.end = l.From, l.To
		if l.Tree = p.scope(0); l.Tree == nil && len(p.findings) == 0 {
			p.find(Unreadable, l.From, l.To, nil, "nothing stands here that could be searched")
		}
		p.tooLong(l)
	}
	p.resolve(out.Lines)
	slices.SortStableFunc(p.findings, func(a, b Finding) int { return a.From - b.From })
	out.More = len(p.findings) > maxFound
	out.Findings = p.findings[:min(len(p.findings), maxFound)]
	return out, nil
}

type parser struct {
	d          *Dialect
	m          *templates
	raw, low   []rune
	at, end    int
	vocabulary *thesaurus.Thesaurus
	numbered   bool
	together   bool
	lines      map[int]bool
	findings   []Finding

	// The name that was looked for last, which is asked for by each template.
	nameAt, nameEnd, nameLength int
	nameIs                      string

	// Where the end of a label was looked for last, and not found.
	endlessFrom, endlessTo int
	endlessShut            []rune
}

func (p *parser) find(code string, from, to int, mend *string, why string, args ...any) {
	if len(p.findings) >= 4*maxFound {
		return
	}
	p.findings = append(p.findings, Finding{Code: code, From: from, To: to, Mend: mend, Why: fmt.Sprintf(why, args...)})
}

// straighten takes quotation marks that curl for the dialect's own.
func (p *parser) straighten() {
	double := slices.ContainsFunc(p.m.marks, func(m [2][]rune) bool { return string(m[0]) == `"` })
	for i, r := range p.low {
		switch r {
		case '“', '”', '„', '‟', '«', '»', '″':
			if double {
				p.low[i] = '"'
			}
		case '‘', '’', '‛', '′':
			p.low[i] = '\''
		}
	}
}

// skip passes over blanks and comments.
func (p *parser) skip() {
	for p.at < p.end {
		if isBlank(p.low[p.at]) {
			p.at++
			continue
		}
		if !p.comment() {
			return
		}
	}
}

// afterwards passes over what stands behind a query and is not searched.
func (p *parser) afterwards() bool {
	for _, w := range p.m.after {
		if p.seesWord(w, false) > 0 {
			p.at = p.end
			return true
		}
	}
	return false
}

func (p *parser) comment() bool {
	for _, c := range p.m.comments {
		if !p.sees(c[0]) {
			continue
		}
		from := p.at
		for p.at += len(c[0]); p.at < p.end; p.at++ {
			if p.sees(c[1]) {
				p.at += len(c[1])
				return true
			}
		}
		if len(c[1]) > 0 && c[1][0] != '\n' {
			p.find(Bracket, from, p.end, nil, "this comment has no end; what follows is left out")
		}
		return true
	}
	return false
}

// sees reports whether text stands next.
func (p *parser) sees(s []rune) bool {
	if len(s) == 0 || p.at+len(s) > p.end {
		return false
	}
	for i, r := range s {
		if p.low[p.at+i] != r {
			return false
		}
	}
	return true
}

// joiner is an operator at its place.
type joiner struct {
	op       string
	near     *query.Near
	from, to int
	implied  bool // nothing stands there
}

// scope reads what is joined, up to the bracket that closes it or the end.
func (p *parser) scope(depth int) *Node {
	var items []*Node
	var ops []joiner
	for {
		p.skip()
		if p.at >= p.end || p.afterwards() {
			break
		}
		if p.sees(p.m.shut) {
			if depth > 0 {
				break
			}
			items, ops = p.closesNone(items, ops)
			continue
		}
		start := p.at
		var item *Node
		if p.numbered {
			item = p.reference()
		}
		if item == nil {
			if op, ok := p.operator(); ok {
				if last := len(ops) - 1; len(items) == len(ops) && last >= 0 && ops[last].op == opAnd && op.op == opNot {
					// AND NOT, where NOT by itself says that.
					ops[last].op, ops[last].to = opNot, op.to
					p.find(
						Operator,
						ops[last].from,
						op.to,
						mended(p.d.Operators.Not[0]),
						"%s says by itself what is taken away",
						p.text(op.from, op.to),
					)
					continue
				}
				if len(items) == len(ops) {
					p.find(Operator, op.from, op.to, mended(""), "%s joins two, and nothing stands before it", p.text(op.from, op.to))
					continue
				}
				ops = append(ops, op)
				continue
			}
			item = p.operand(depth)
		}
		if item == nil {
			p.at = max(p.at, start+1)
			for p.at < p.end && !isBlank(p.low[p.at]) && !p.m.delims[p.low[p.at]] {
				p.at++
			}
			p.find(
				Unreadable,
				start,
				p.at,
				nil,
				"%q is neither a term nor joins any here; it is left out",
				short(p.text(start, p.at)),
			)
			continue
		}
		if len(items) > len(ops) {
			ops = append(ops, p.missing(items[len(items)-1], item, ops))
		}
		items = append(items, item)
	}
	for len(ops) > 0 && len(ops) >= len(items) {
		last := ops[len(ops)-1]
		p.find(
			Operator,
			last.from,
			last.to,
			mended(""),
			"%s joins two, and nothing stands after it",
			p.text(last.from, last.to),
		)
		ops = ops[:len(ops)-1]
	}
	if len(items) == 0 {
		return nil
	}
	p.mixed(items, ops)
	return p.fold(items, ops)
}

// closesNone tells of a bracket that was never opened. It is taken to hold what stands before it.
func (p *parser) closesNone(items []*Node, ops []joiner) ([]*Node, []joiner) {
	at := p.at
	p.at += len(p.m.shut)
	if len(ops) == 0 || len(items) != len(ops)+1 {
		p.find(Bracket, at, p.at, mended(""), "this bracket closes none")
		return items, ops
	}
	p.mixed(items, ops)
	held := p.fold(items, ops)
	if held.Op == opNear || held.Op == Unread {
		p.find(Bracket, at, p.at, mended(""), "this bracket closes none")
		return []*Node{held}, nil
	}
	p.find(
		Bracket,
		held.From,
		p.at,
		p.put(p.d.Brackets.Open, held.From, p.at, ""),
		"the bracket at the end closes none; it is taken to hold all that stands before it",
	)
	held.To, held.Held = p.at, true
	return []*Node{held}, nil
}

// missing stands in for an operator that is not there.
func (p *parser) missing(left, right *Node, ops []joiner) joiner {
	at := joiner{op: opAnd, from: left.To, to: right.From, implied: true}
	if p.d.Terms.Words == AsAnd {
		return at
	}
	if len(ops) > 0 && !slices.ContainsFunc(ops, func(o joiner) bool { return o.op != opOr }) {
		at.op = opOr
	}
	word := p.d.joinWord(at.op)
	p.find(Operator, left.To, right.From, mended(" "+word+" "), "nothing joins these two; %s is taken", word)
	return at
}

// put returns a stretch of the text with something before and behind it, as a mend; nil where that is too long to
// be shown.
func (p *parser) put(before string, from, to int, behind string) *string {
	if to-from > longestMend || len(p.findings) >= 4*maxFound {
		return nil
	}
	for to > from && isBlank(p.low[to-1]) {
		to--
	}
	return mended(before + p.text(from, to) + behind)
}

func (p *parser) text(from, to int) string { return string(p.raw[from:to]) }

func short(s string) string {
	if r := []rune(s); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return s
}

// operator reads a word that joins, or words near each other.
func (p *parser) operator() (joiner, bool) {
	from := p.at
	if p.d.Near != nil {
		for _, t := range p.m.nearBy[p.low[p.at]] {
			n := 0
			p.at = from
			if p.matches(t, func(slot string, _ []rune) bool {
				v, ok := p.number()
				if n = v; slot == "less" {
					n--
				}
				return ok
			}) {
				return p.distance(t, n, from), true
			}
		}
		p.at = from
	}
	for _, w := range p.m.joiners {
		if n := p.seesWord(w.word, p.d.Operators.Exact); n > 0 {
			p.at += n
			return joiner{op: w.op, from: from, to: p.at}, true
		}
	}
	return joiner{}, false
}

// distance returns a pair's distance as we count it.
func (p *parser) distance(t template, n, from int) joiner {
	if !t.has("n") && !t.has("less") {
		n = 1
	} else if p.d.Near.Between {
		n++
	}
	if n < 1 || n > p.d.Near.Most {
		p.find(
			Unreadable,
			from,
			p.at,
			nil,
			"words stand 1 to %d words from each other, not %d; the nearest is taken",
			p.d.Near.Most,
			n,
		)
		n = min(max(n, 1), p.d.Near.Most)
	}
	kind := strings.TrimPrefix(t.op, "near ")
	return joiner{
		op:   opNear,
		from: from,
		to:   p.at,
		near: &query.Near{
			Within:  n,
			Ordered: kind == "ordered" || kind == "exactlyOrdered",
			Exactly: strings.HasPrefix(kind, "exactly"),
		},
	}
}

// seesWord returns how long a word is that stands next, its blanks of any width; 0 where it does not.
func (p *parser) seesWord(w []rune, exact bool) int {
	at := p.at
	for i, r := range w {
		if r == ' ' {
			if at >= p.end || !isBlank(p.low[at]) {
				return 0
			}
			for at < p.end && isBlank(p.low[at]) {
				at++
			}
			continue
		}
		have := rune(0)
		if at < p.end {
			if have = p.low[at]; exact {
				have = p.raw[at]
			}
		}
		if have != r {
			return 0
		}
		at++
		if i == len(w)-1 && isWord(r) && at < p.end && (isWord(p.low[at]) || p.signAt(at)) {
			return 0
		}
	}
	return at - p.at
}

// signAt reports whether a sign of the dialect stands somewhere.
func (p *parser) signAt(at int) bool {
	for _, of := range [][][]rune{p.m.many, p.m.one} {
		for _, s := range of {
			if at+len(s) <= p.end && slices.Equal(p.low[at:at+len(s)], s) {
				return true
			}
		}
	}
	return false
}

// number reads a number of at most six digits.
func (p *parser) number() (int, bool) {
	p.skip()
	n, from := 0, p.at
	for p.at < p.end && p.at-from < 7 && p.low[p.at] >= '0' && p.low[p.at] <= '9' {
		n = n*10 + int(p.low[p.at]-'0')
		p.at++
	}
	return n, p.at > from && p.at-from < 7 && (p.at >= p.end || !isWord(p.low[p.at]))
}

// matches reads a template; slot reads what stands in one, told the text after which it ends. Where it does not match,
// nothing is read.
func (p *parser) matches(t template, slot func(slot string, shut []rune) bool) bool {
	from := p.at
	for i, part := range t.parts {
		ok := true
		if part.slot == "" {
			ok = p.literalBefore(part.literal, i+1 < len(t.parts))
		} else {
			if i > 0 {
				p.skip()
			}
			ok = slot(part.slot, part.shut)
		}
		if !ok {
			p.at = from
			return false
		}
	}
	return true
}

// literal reads the text of a template; blanks may stand around it, and must between words.
func (p *parser) literal(lit []rune) bool { return p.literalBefore(lit, false) }

// literalBefore does the same where a slot may follow without a blank.
func (p *parser) literalBefore(lit []rune, slot bool) bool {
	blank := false
	for i := 0; i < len(lit); i++ {
		if lit[i] == ' ' {
			blank = true
			continue
		}
		before := p.at
		if i == 0 || blank {
			for p.at < p.end && isBlank(p.low[p.at]) {
				p.at++
			}
		}
		if p.at >= p.end || p.low[p.at] != lit[i] {
			return false
		}
		if isWord(lit[i]) && (i == 0 || blank) && p.at == before && p.at > 0 && isWord(p.low[p.at-1]) {
			return false
		}
		blank = false
		p.at++
	}
	if n := len(lit); !slot && n > 0 && isWord(lit[n-1]) && p.at < p.end && isWord(p.low[p.at]) {
		return false
	}
	return true
}

// fold joins what was read by the ranks of operators; those of one rank from left to right.
func (p *parser) fold(items []*Node, ops []joiner) *Node {
	items, ops = slices.Clone(items), slices.Clone(ops)
	for rank := 0; rank <= len(p.d.Operators.Ranks) && len(ops) > 0; rank++ {
		keptItems, keptOps := items[:1], ops[:0]
		for i, op := range ops {
			if p.d.rank(op.op) == rank {
				last := len(keptItems) - 1
				keptItems[last] = p.join(keptItems[last], op, items[i+1])
				continue
			}
			keptItems, keptOps = append(keptItems, items[i+1]), append(keptOps, op)
		}
		items, ops = keptItems, keptOps
	}
	return items[0]
}

func (p *parser) join(left *Node, op joiner, right *Node) *Node {
	if op.op == opNear {
		return p.pair(left, op, right)
	}
	if left.Op == op.op && !left.Held && !left.Loose {
		left.Parts, left.To = append(left.Parts, right), right.To
		return left
	}
	return &Node{Op: op.op, From: left.From, To: right.To, Parts: []*Node{left, right}, Implied: op.implied}
}

// pair joins words near each other: each alternative of one side with each of the other.
func (p *parser) pair(left *Node, op joiner, right *Node) *Node {
	out := &Node{Op: opNear, From: left.From, To: right.To, Parts: []*Node{left, right}}
	l, okL := phrases(left)
	r, okR := phrases(right)
	if !okL || !okR || len(l)*len(r) > 400 {
		p.find(
			Unreadable,
			out.From,
			out.To,
			nil,
			"each side of %q is a word or phrase, or several of them joined by %s",
			p.text(op.from, op.to),
			p.d.Operators.Or[0],
		)
		out.Op = Unread
		return out
	}
	var all []query.Expr
	for _, a := range l {
		for _, b := range r {
			n := *op.near
			n.Left, n.Right, n.Fields = a.Pattern, b.Pattern, a.Fields
			if a.Fields != b.Fields {
				p.find(Unreadable, out.From, out.To, nil, "both sides of %q look in the same field", p.text(op.from, op.to))
				out.Op = Unread
				return out
			}
			all = append(all, n)
		}
	}
	out.Expr = one(opOr, all)
	return out
}

// phrases returns the words or phrases that a side of a pair may be.
func phrases(n *Node) ([]query.Phrase, bool) {
	switch n.Op {
	case Leaf:
		ph, ok := n.Expr.(query.Phrase)
		return []query.Phrase{ph}, ok && !ph.Whole
	case opOr:
		var out []query.Phrase
		for _, part := range n.Parts {
			some, ok := phrases(part)
			if !ok {
				return nil, false
			}
			out = append(out, some...)
		}
		return out, true
	}
	return nil, false
}

// mixed tells of different operators side by side that may have been meant otherwise.
func (p *parser) mixed(items []*Node, ops []joiner) {
	var names []string
	for _, o := range ops {
		if !slices.Contains(names, o.op) {
			names = append(names, o.op)
		}
	}
	if len(names) < 2 {
		return
	}
	// First and, then not: every reading of that finds the same.
	tail := slices.IndexFunc(ops, func(o joiner) bool { return o.op == opNot })
	if len(names) == 2 && tail > 0 && !slices.ContainsFunc(ops[:tail], func(o joiner) bool { return o.op != opAnd }) &&
		!slices.ContainsFunc(ops[tail:], func(o joiner) bool { return o.op != opNot }) {
		return
	}
	oneRank := p.d.rank(names[0]) == p.d.rank(names[1])
	andOr := slices.Contains(names, opOr) && (slices.Contains(names, opAnd) || slices.Contains(names, opNot))
	if !oneRank && !andOr {
		return
	}
	if len(ops) > mostMixed || items[len(items)-1].To-items[0].From > longestMend || len(p.findings) >= 4*maxFound {
		p.find(
			Mixed,
			items[0].From,
			items[len(items)-1].To,
			nil,
			"different operators stand side by side without brackets, %d of them",
			len(ops),
		)
		return
	}
	clone := func() []*Node {
		out := make([]*Node, len(items))
		for i, n := range items {
			c := *n
			c.Held = c.Held || len(c.Parts) > 0
			out[i] = &c
		}
		return out
	}
	quiet := *p
	quiet.findings = nil
	taken := quiet.fold(clone(), ops)
	other := quiet.foldOtherwise(clone(), ops, taken)
	p.findings = append(
		p.findings,
		Finding{Code: Mixed, From: items[0].From, To: items[len(items)-1].To, Mend: mended(p.withBrackets(taken)),
			Why: fmt.Sprintf(
				"different operators stand side by side without brackets. Taken as %s; it might have been meant as %s",
				short(p.withBrackets(taken)),
				short(p.withBrackets(other)),
			)},
	)
	p.findings[len(p.findings)-1].Trees = [2]*Node{taken, other}
}

// foldOtherwise joins as many people would read it, or where that is how it is taken, from left to right, or from
// the right.
func (p *parser) foldOtherwise(items []*Node, ops []joiner, taken *Node) *Node {
	shape := func(n *Node) string { return p.withBrackets(n) }
	by := func(ranks [][]string) *Node {
		d := *p.d
		d.Operators.Ranks = ranks
		q := *p
		q.d = &d
		copies := make([]*Node, len(items))
		for i, n := range items {
			c := *n
			copies[i] = &c
		}
		return q.fold(copies, ops)
	}
	usual := by([][]string{{opNear}, {opAnd, opNot}, {opOr}})
	if shape(usual) != shape(taken) {
		return usual
	}
	level := by([][]string{{opNear}, {opAnd, opNot, opOr}})
	if shape(level) != shape(taken) {
		return level
	}
	return by([][]string{{opNear}, {opOr}, {opNot}, {opAnd}})
}

// withBrackets writes what was read with brackets around all that is joined.
func (p *parser) withBrackets(n *Node) string {
	var b strings.Builder
	p.bracketed(&b, n)
	return b.String()
}

func (p *parser) bracketed(b *strings.Builder, n *Node) {
	if len(n.Parts) == 0 || n.Op == Leaf || n.Held || n.Op == opNear || n.Op == Unread || n.Loose {
		b.WriteString(p.text(n.From, n.To))
		return
	}
	word := p.d.joinWord(n.Op)
	for i, part := range n.Parts {
		if i > 0 {
			b.WriteString(" " + word + " ")
		}
		joined := !part.Held && !part.Loose && (part.Op == opOr || part.Op == opAnd || part.Op == opNot)
		if joined {
			b.WriteString(p.d.Brackets.Open)
		}
		p.bracketed(b, part)
		if joined {
			b.WriteString(p.d.Brackets.Shut)
		}
	}
}
