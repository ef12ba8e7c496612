package dialect

import (
	"slices"
	"strings"

	"tamiz/core/query"
)

// split cuts a text into its lines where it is written line by line: where most lines begin with a number, and the
// numbers ascend; or where the dialect is typed so. Other texts are one line without a number.
func (p *parser) split() (lines []TextLine, numbered bool) {
	p.end = len(p.raw)
	type start struct{ at, number, body int }
	var starts []start
	count, last := 0, 0
	ascending := true
	for at := 0; at < len(p.low); {
		end := at
		for end < len(p.low) && p.low[end] != '\n' {
			end++
		}
		body := at
		for body < end && isBlank(p.low[body]) {
			body++
		}
		if body < end {
			count++
			if n, from := p.numberOf(body, end); from > 0 {
				starts = append(starts, start{body, n, from})
				ascending = ascending && n > last
				last = n
			}
		}
		at = end + 1
	}
	alone := len(starts) == 1 && starts[0].number == 1 && count == 1 && p.marked(starts[0].at)
	if (len(starts) >= 2 || alone) && ascending && starts[0].at == p.firstSeen() && 2*len(starts) >= count {
		for i, s := range starts {
			to := len(p.raw)
			if i+1 < len(starts) {
				to = starts[i+1].at
			}
			lines = append(lines, p.trimmed(TextLine{Number: s.number, From: s.body, To: to}))
		}
		return lines, true
	}
	if p.d.Typed == AsLines && count > 1 {
		for at := 0; at < len(p.low); {
			end := at
			for end < len(p.low) && p.low[end] != '\n' {
				end++
			}
			if l := p.trimmed(TextLine{Number: len(lines) + 1, From: at, To: end}); l.From < l.To {
				lines = append(lines, l)
			}
			at = end + 1
		}
		return lines, true
	}
	if p.d.Longest > 0 && count > 1 && p.queries(&lines) {
		p.together = true
		return lines, true
	}
	return []TextLine{p.trimmed(TextLine{To: len(p.raw)})}, false
}

// queries cuts a text into queries, one a line, as a dialect writes them that takes but so many characters at once:
// where each line holds its own brackets, and none ends or begins with what joins.
func (p *parser) queries(lines *[]TextLine) bool {
	for at := 0; at < len(p.low); {
		end := at
		for end < len(p.low) && p.low[end] != '\n' {
			end++
		}
		if l := p.trimmed(TextLine{Number: len(*lines) + 1, From: at, To: end}); l.From < l.To {
			depth := 0
			for i := l.From; i < l.To; i++ {
				switch {
				case len(p.m.open) > 0 && p.low[i] == p.m.open[0]:
					depth++
				case len(p.m.shut) > 0 && p.low[i] == p.m.shut[0]:
					depth--
				}
			}
			was := p.at
			p.at = l.From
			_, joins := p.operator()
			p.at = was
			for _, w := range p.m.joiners {
				if i := l.To - len(w.word); i > l.From && slices.Equal(p.low[i:l.To], folded(string(w.word))) &&
					isBlank(p.low[i-1]) {
					joins = true
				}
			}
			if depth != 0 || joins {
				*lines = nil
				return false
			}
			*lines = append(*lines, l)
		}
		at = end + 1
	}
	return true
}

// marked reports whether the number of a line is set off from what it says by more than a space.
func (p *parser) marked(at int) bool {
	for ; at < len(p.raw) && (p.low[at] == '#' || p.low[at] >= '0' && p.low[at] <= '9'); at++ {
	}
	return at < len(p.raw) && (p.raw[at] == '\t' || p.low[at] == '.' || p.low[at] == ')' || p.low[at] == ':')
}

func (p *parser) firstSeen() int {
	return slices.IndexFunc(p.low, func(r rune) bool { return !isBlank(r) })
}

func (p *parser) trimmed(l TextLine) TextLine {
	for l.From < l.To && isBlank(p.low[l.From]) {
		l.From++
	}
	for l.To > l.From && isBlank(p.low[l.To-1]) {
		l.To--
	}
	return l
}

// numberOf returns the number with which a line begins, and where what it says begins; 0 where there is none.
func (p *parser) numberOf(at, end int) (number, body int) {
	if p.low[at] == '#' {
		at++
	}
	from := at
	for at < end && at-from < 5 && p.low[at] >= '0' && p.low[at] <= '9' {
		number = number*10 + int(p.low[at]-'0')
		at++
	}
	if at == from || at >= end {
		return 0, 0
	}
	mark := false
	if p.low[at] == '.' || p.low[at] == ')' || p.low[at] == ':' {
		mark = true
		at++
	}
	if !mark && !isBlank(p.low[at]) {
		return 0, 0
	}
	tab := at < end && p.raw[at] == '\t'
	for at < end && isBlank(p.low[at]) {
		at++
	}
	// A number and an operator: not the number of a line but what it says.
	was := p.at
	p.at = at
	op := false
	if at < end {
		_, op = p.operator()
	}
	p.at = was
	if op && !mark && !tab {
		return 0, 0
	}
	return number, at
}

// reference reads the number of a line, or of a run of them.
func (p *parser) reference() *Node {
	from := p.at
	for _, t := range p.m.lines {
		var ends []int
		p.at = from
		if p.matches(t, func(string, []rune) bool {
			n, ok := p.number()
			ends = append(ends, n)
			return ok
		}) {
			return p.refers(strings.TrimPrefix(t.op, "lines "), ends, from)
		}
	}
	p.at = from
	if p.low[p.at] == '#' {
		p.at++
	}
	n, ok := p.number()
	if !ok {
		p.at = from
		return nil
	}
	// A number that a field, a unit or a further word belongs to is none of a line.
	end := p.at
	p.skip()
	if p.at < p.end && !p.sees(p.m.shut) {
		if _, op := p.operator(); !op {
			p.at = from
			return nil
		}
	}
	p.at = end
	return p.refers("one", []int{n}, from)
}

func (p *parser) refers(kind string, ends []int, from int) *Node {
	out := &Node{Op: Line, From: from, To: p.at, Join: kind}
	if kind == "one" {
		out.Refs, out.Join = ends, ""
	} else {
		for n := range p.lines {
			if n >= ends[0] && n <= ends[1] {
				out.Refs = append(out.Refs, n)
			}
		}
		slices.Sort(out.Refs)
	}
	for _, n := range ends {
		if !p.lines[n] {
			p.find(LineUnknown, from, p.at, nil, "there is no line %d", n)
		}
	}
	return out
}

// resolve works out what each line finds; lines that lead back to themselves, or stand for too much, find nothing.
func (p *parser) resolve(lines []TextLine) {
	at := map[int]int{}
	for i, l := range lines {
		at[l.Number] = i
	}
	state := make([]int, len(lines)) // 1: being worked out, 2: done
	sizes := make([]int, len(lines))
	var line func(i int) (query.Expr, int)
	var node func(n *Node) (query.Expr, int)
	node = func(n *Node) (query.Expr, int) {
		if n == nil || n.Op == Unread {
			return nil, 0
		}
		if n.Op == Leaf || n.Op == opNear {
			if n.Expr == nil {
				return nil, 0
			}
			return n.Expr, 1
		}
		var parts []query.Expr
		size := 0
		put := func(q query.Expr, s int) {
			if q != nil {
				parts, size = append(parts, q), size+s
			}
		}
		if n.Op == Line {
			for _, ref := range n.Refs {
				i, ok := at[ref]
				if !ok {
					continue
				}
				if state[i] == 1 {
					p.find(LineCircle, n.From, n.To, nil, "line %d leads back to the line that names it", ref)
					continue
				}
				put(line(i))
			}
		}
		for i, part := range n.Parts {
			q, s := node(part)
			if q == nil && i == 0 && n.Op == opNot {
				return nil, 0
			}
			put(q, s)
		}
		if size > query.MaxClauses {
			p.find(
				TooLongFor,
				n.From,
				n.To,
				nil,
				"this stands for more than %d terms once its lines are written out; it is left out",
				query.MaxClauses,
			)
			n.Left = true
			return nil, 0
		}
		if n.Op == Line {
			return one(n.Join, parts), size
		}
		return Joined(n.Op, parts), size
	}
	line = func(i int) (query.Expr, int) {
		if state[i] == 2 {
			return lines[i].Expr, sizes[i]
		}
		state[i] = 1
		lines[i].Expr, sizes[i] = node(lines[i].Tree)
		state[i] = 2
		return lines[i].Expr, sizes[i]
	}
	for i := range lines {
		line(i)
	}
	for i := range p.findings {
		if t := p.findings[i].Trees; t[0] != nil {
			a, _ := node(t[0])
			b, _ := node(t[1])
			p.findings[i].Readings = []query.Expr{a, b}
		}
	}
	// Two readings that find the same are no finding.
	p.findings = slices.DeleteFunc(p.findings, func(f Finding) bool {
		return f.Code == Mixed && len(f.Readings) == 2 && f.Readings[0] != nil && f.Readings[1] != nil &&
			FindSame(f.Readings[0], f.Readings[1])
	})
}

// tooLong tells of a line that its source would not take.
func (p *parser) tooLong(l *TextLine) {
	if n := l.To - l.From; p.d.Longest > 0 && n > p.d.Longest {
		p.find(TooLongFor, l.From, l.To, nil, "%s takes %d characters at once, and these are %d", p.d.Title, p.d.Longest, n)
	}
	if p.d.MostTerms == 0 {
		return
	}
	terms := 0
	l.Tree.Walk(func(n *Node) {
		if n.Op == Leaf || n.Op == Unread && len(n.Parts) == 0 {
			terms++
		}
	})
	if terms > p.d.MostTerms {
		p.find(TooLongFor, l.From, l.To, nil, "%s takes %d terms at once, and these are %d", p.d.Title, p.d.MostTerms, terms)
	}
}
