package dialect

import (
	"slices"
	"strings"

	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// heading reads a heading by one template.
func (p *parser) heading(t template) *Node {
	from := p.at
	var s spelt
	h := query.Heading{}
	if !p.matches(t, func(slot string, shut []rune) bool {
		switch slot {
		case "name":
			field, n, ok := p.nameHere()
			p.at += n
			return ok && field == heading
		case "modifiers":
			return p.modifiers(&h, shut)
		}
		var ok bool
		s, ok = p.labelled(shut)
		return ok
	}) {
		return nil
	}
	n := &Node{From: from, To: p.at, Marked: s.marked}
	label := p.value(s.in, s.out)
	if text.Label(label) == "" {
		p.find(Unreadable, from, p.at, nil, "no heading is named")
		n.Op = Unread
		return n
	}
	p.signsInLabel(s)
	full := p.headingOf(label)
	full.Narrower, full.Central, full.Qualifiers = h.Narrower, h.Central, h.Qualifiers
	if full.Narrower && p.vocabulary != nil {
		full.Which = p.vocabulary.Branch(label)
	}
	n.Expr = full
	return n
}

func (p *parser) headingOf(label string) query.Heading {
	return query.Heading{Label: label, Which: thesaurus.Labelled(label)}
}

// labelled reads a label: in marks, or up to what ends it.
func (p *parser) labelled(shut []rune) (spelt, bool) {
	if shut == nil || slices.ContainsFunc(p.m.marks, func(m [2][]rune) bool { return p.sees(m[0]) }) {
		return p.term(nil, false)
	}
	s := spelt{from: p.at, in: p.at}
	if p.endless(shut) {
		return s, false
	}
	for p.at < p.end && p.at-s.in < text.MaxTerm && !p.sees(shut) {
		if p.m.escape != 0 && p.low[p.at] == p.m.escape {
			p.at = min(p.at+2, p.end)
			continue
		}
		if p.modifierHere() {
			break
		}
		p.at++
	}
	if p.at >= p.end || p.at-s.in >= text.MaxTerm {
		return s, false
	}
	for s.out = p.at; s.out > s.in && isBlank(p.low[s.out-1]); s.out-- {
	}
	s.to = s.out
	return s, s.out > s.in
}

// endless reports whether no end of a label stands within reach. Where that was found so for a place before, it is
// looked for only beyond what was looked through then.
func (p *parser) endless(shut []rune) bool {
	to := min(p.at+text.MaxTerm, p.end)
	if p.at < p.endlessFrom || p.at >= p.endlessTo || string(p.endlessShut) != string(shut) {
		p.endlessFrom, p.endlessTo, p.endlessShut = p.at, p.at, shut
	}
	for at := p.endlessTo; at < to; at++ {
		if p.low[at] == shut[0] {
			p.endlessTo = p.at
			return false
		}
	}
	p.endlessTo = to
	return true
}

// modifierHere reports whether a modifier begins here.
func (p *parser) modifierHere() bool {
	from := p.at
	if !p.m.modifying[p.low[from]] {
		return false
	}
	defer func() { p.at = from }()
	for _, of := range p.m.mods {
		for _, t := range of {
			if p.at = from; t.parts[0].slot == "" && p.low[from] == t.parts[0].literal[0] && p.literal(t.parts[0].literal) {
				return true
			}
		}
	}
	return false
}

// modifiers reads what a heading is narrowed or widened by, in any order.
func (p *parser) modifiers(h *query.Heading, shut []rune) bool {
	for again := true; again; {
		again = false
		for kind, of := range p.m.mods {
			for _, t := range of {
				from := p.at
				var s spelt
				if !p.matches(t, func(_ string, end []rune) (ok bool) {
					if end == nil {
						end = shut
					}
					s, ok = p.labelled(end)
					return ok
				}) {
					p.at = from
					continue
				}
				switch kind {
				case "narrower":
					h.Narrower = true
				case "central":
					h.Central = true
				default:
					h.Qualifiers = append(h.Qualifiers, p.value(s.in, s.out))
				}
				again = true
			}
		}
	}
	return true
}

// years reads years by one template.
func (p *parser) years(t template) *Node {
	from := p.at
	span := query.Years{From: query.FirstYear, To: query.LastYear}
	kind := strings.TrimPrefix(t.op, "years ")
	if !p.matches(t, func(slot string, _ []rune) bool {
		if slot == "name" {
			field, n, ok := p.nameHere()
			p.at += n
			return ok && field == year
		}
		n, ok := p.number()
		switch slot {
		case "year":
			span.From, span.To = n, n
		case "from":
			if span.From = n; kind == "after" {
				span.From++
			}
		case "to":
			if span.To = n; kind == "before" {
				span.To--
			}
		}
		return ok
	}) {
		p.at = from
		return nil
	}
	return p.dated(span, &Node{From: from, To: p.at})
}

func (p *parser) dated(span query.Years, n *Node) *Node {
	if span.From > query.LastYear || span.To < query.FirstYear || span.From < query.FirstYear || span.To > query.LastYear {
		p.find(Unreadable, n.From, n.To, nil, "a year is %d to %d", query.FirstYear, query.LastYear)
		n.Op = Unread
		return n
	}
	n.Expr = span
	return n
}

// yearAlone reads a year that stands as a term does.
func (p *parser) yearAlone(s spelt, n *Node) *Node {
	at := p.at
	defer func() { p.at = at }()
	p.at = s.in
	y, ok := p.number()
	if !ok || p.at != s.out {
		p.find(Unreadable, s.from, s.to, nil, "%q is no year", short(p.text(s.from, s.to)))
		n.Op = Unread
		return n
	}
	return p.dated(query.Years{From: y, To: y}, n)
}
