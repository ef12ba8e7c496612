package dialect

import (
	"errors"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/text"
)

// operand reads what stands between operators; nil where nothing can be read.
func (p *parser) operand(depth int) *Node {
	from := p.at
	if p.sees(p.m.open) {
		return p.held(depth)
	}
	name, _, _ := p.nameHere()
	for _, t := range p.m.headings {
		if !p.may(t, name, heading) {
			continue
		}
		if n := p.heading(t); n != nil {
			return n
		}
	}
	for _, t := range p.m.all {
		if !p.may(t, name, year) {
			continue
		}
		if n := p.years(t); n != nil {
			return n
		}
	}
	if n := p.clause(); n != nil {
		return n
	}
	p.at = from
	term, ok := p.term(nil, true)
	if !ok {
		return nil
	}
	return p.after(term)
}

// may reports whether a template can begin here: with the name of its field, or with its text.
func (p *parser) may(t template, name, field string) bool {
	if t.parts[0].slot == "name" {
		return name == field
	}
	return t.first() == p.low[p.at]
}

// held reads what stands in brackets.
func (p *parser) held(depth int) *Node {
	from := p.at
	p.at += len(p.m.open)
	if depth >= maxNested {
		p.find(Bracket, from, p.end, nil, "brackets stand more than %d deep in each other; the rest is left out", maxNested)
		p.at = p.end
		return &Node{Op: Unread, From: from, To: p.end}
	}
	if p.d.Brackets.Deepest > 0 && depth == p.d.Brackets.Deepest {
		p.find(
			TooLongFor,
			from,
			p.at,
			nil,
			"%s takes brackets %d deep in each other, and this one is deeper",
			p.d.Title,
			p.d.Brackets.Deepest,
		)
	}
	told := len(p.findings)
	inner := p.scope(depth + 1)
	if p.sees(p.m.shut) && p.at < p.end {
		p.at += len(p.m.shut)
	} else {
		p.unclosed(from, told)
	}
	if inner == nil {
		p.find(Operator, from, p.at, mended(""), "nothing stands in these brackets")
		return &Node{Op: Unread, From: from, To: p.at}
	}
	if len(inner.Parts) == 0 {
		return &Node{
			Op:     inner.Op,
			From:   from,
			To:     p.at,
			Expr:   inner.Expr,
			Refs:   inner.Refs,
			Join:   inner.Join,
			Held:   true,
			Marked: inner.Marked,
		}
	}
	inner.From, inner.To, inner.Held = from, p.at, true
	return inner
}

// unclosed tells of a bracket without a partner: it ends where another operator begins, else at the end. told is
// how many findings there were before what stands in it was read.
func (p *parser) unclosed(from, told int) {
	for i := told; i < len(p.findings); i++ {
		f := p.findings[i]
		if f.Code == Mixed && f.To == p.at && f.Trees[0] != nil {
			p.findings = slices.Delete(p.findings, i, i+1)
			p.find(Bracket, from, p.at, f.Mend, "this bracket has no partner; it is taken to end where another operator begins")
			return
		}
	}
	p.find(Bracket, from, p.end, p.put("", from, p.end, p.d.Brackets.Shut), "this bracket has no partner")
}

// spelt is a term as it was typed.
type spelt struct {
	from, to int // with its marks
	in, out  int // without
	marked   bool
	words    [][2]int // of several that stand side by side without marks
}

// term reads a word or phrase. shut is the text that ends it, where it stands between two. several lets words side
// by side be read as the dialect says.
func (p *parser) term(shut []rune, several bool) (spelt, bool) {
	s := spelt{from: p.at}
	for _, mark := range p.m.marks {
		if !p.sees(mark[0]) {
			continue
		}
		p.at += len(mark[0])
		s.in, s.marked = p.at, true
		for p.at < p.end && p.at-s.in < longestTyped {
			if p.m.escape != 0 && p.low[p.at] == p.m.escape {
				p.at = min(p.at+2, p.end)
				continue
			}
			if p.sees(mark[1]) {
				s.out = p.at
				p.at += len(mark[1])
				s.to = p.at
				return s, true
			}
			p.at++
		}
		// A mark that has no partner holds up to the next operator, the bracket, or the end of its line.
		p.at = s.in
		for p.at < p.end && p.at-s.in < longestTyped && p.low[p.at] != '\n' && !p.sees(p.m.shut) &&
			!(p.at > s.in && isBlank(p.low[p.at-1]) && p.joins()) {
			p.at++
		}
		for p.at > s.in && isBlank(p.low[p.at-1]) {
			p.at--
		}
		s.out, s.to = p.at, p.at
		p.find(
			Bracket,
			s.from,
			s.to,
			p.put("", s.from, s.to, string(mark[1])),
			"this quotation mark has no partner; it is taken to hold up to here",
		)
		return s, true
	}
	if shut != nil {
		s.in = p.at
		for p.at < p.end && p.at-s.in < longestTyped && !p.sees(shut) {
			if p.m.escape != 0 && p.low[p.at] == p.m.escape {
				p.at++
			}
			p.at++
		}
		p.at = min(p.at, p.end)
		for s.out = p.at; s.out > s.in && isBlank(p.low[s.out-1]); s.out-- {
		}
		s.to = s.out
		return s, s.out > s.in
	}
	for {
		from := p.at
		if !p.word() || !slices.ContainsFunc(p.low[from:p.at], isWord) && !p.signed(from, p.at) {
			p.at = from
			break // nothing that could be looked for
		}
		s.words = append(s.words, [2]int{from, p.at})
		if !several {
			break
		}
		end := p.at
		p.skip()
		if p.at >= p.end || p.joins() {
			p.at = end
			break
		}
	}
	if len(s.words) == 0 {
		return s, false
	}
	s.in, s.out = s.from, s.words[len(s.words)-1][1]
	s.to, p.at = s.out, s.out
	return s, true
}

// signed reports whether a sign stands in a stretch of the text.
func (p *parser) signed(from, to int) bool {
	for at := from; at < to; at++ {
		if p.signAt(at) {
			return true
		}
	}
	return false
}

// word passes over characters up to a blank or one that is something else.
func (p *parser) word() bool {
	from := p.at
	for p.at < p.end {
		r := p.low[p.at]
		if p.m.escape != 0 && r == p.m.escape && p.at+1 < p.end {
			p.at += 2
			continue
		}
		if r == '-' && p.at > from && p.broken() {
			continue
		}
		if r == ' ' || r == '\n' || p.m.delims[r] && !p.signAt(p.at) {
			break
		}
		p.at++
	}
	return p.at > from
}

// broken passes over a hyphen with which a line ends in the middle of a word.
func (p *parser) broken() bool {
	at := p.at + 1
	for at < p.end && p.low[at] == ' ' {
		at++
	}
	if at >= p.end || p.low[at] != '\n' {
		return false
	}
	for at < p.end && isBlank(p.low[at]) {
		at++
	}
	if at >= p.end || !isWord(p.low[at]) {
		return false
	}
	p.at = at
	return true
}

// joins reports whether what stands next is no further word: an operator, a bracket, a mark or the name of a field.
func (p *parser) joins() bool {
	if p.m.delims[p.low[p.at]] && !p.signAt(p.at) {
		return true
	}
	from := p.at
	defer func() { p.at = from }()
	if p.numbered && p.reference() != nil {
		return true
	}
	if _, ok := p.operator(); ok {
		return true
	}
	// A name with what makes it one is no word.
	if _, n, ok := p.nameHere(); ok {
		p.at += n
		if p.relates() {
			return true
		}
	}
	p.at = from
	for _, t := range p.m.begun {
		if p.literal(t.parts[0].literal) {
			return true
		}
		p.at = from
	}
	if p.afterwards() {
		return true
	}
	p.word()
	return p.relates() || !slices.ContainsFunc(p.low[from:p.at], isWord) && !p.signed(from, p.at)
}

// relates reports whether the text that stands between a name and its term is next.
func (p *parser) relates() bool {
	from := p.at
	defer func() { p.at = from }()
	for _, lit := range p.m.relating {
		if p.at = from; p.literal(lit) {
			return true
		}
	}
	return false
}

// nameHere returns the field whose name stands next, and how long it is.
func (p *parser) nameHere() (field string, length int, ok bool) {
	if p.nameAt == p.at && p.nameEnd == p.end {
		return p.nameIs, p.nameLength, p.nameLength > 0
	}
	p.nameAt, p.nameEnd, p.nameIs, p.nameLength = p.at, p.end, "", 0
	if p.at < p.end {
		for _, n := range p.m.names[p.low[p.at]] {
			if l := p.seesWord(n.name, false); l > 0 {
				p.nameIs, p.nameLength = n.field, l
				break
			}
		}
	}
	return p.nameIs, p.nameLength, p.nameLength > 0
}

// names reads the names of one or several fields.
func (p *parser) names() (fields []string, ok bool) {
	for {
		field, n, found := p.nameHere()
		if !found {
			return nil, false
		}
		p.at += n
		fields = append(fields, field)
		if p.d.Several == "" {
			return fields, true
		}
		at := p.at
		if !p.literal(folded(p.d.Several)) {
			p.at = at
			return fields, true
		}
		p.skip()
	}
}

// clause reads a term behind the name of its field.
func (p *parser) clause() *Node {
	from := p.at
	_, _, known := p.nameHere()
	for _, t := range p.m.clauses {
		if t.parts[0].slot == "term" {
			continue
		}
		if !known && t.parts[0].slot == "name" {
			continue
		}
		var fields []string
		var s spelt
		if p.matches(t, p.slots(t, &fields, &s)) {
			return p.leaf(t.op, fields, s, from)
		}
	}
	if known || p.m.delims[p.low[p.at]] {
		return nil
	}
	// A name that nobody knows, with what makes it one.
	if !p.word() {
		return nil
	}
	name := p.text(from, p.at)
	nameTo := p.at
	if !p.relates() {
		p.at = from
		return nil
	}
	for _, t := range p.m.clauses {
		if t.parts[0].slot != "name" {
			continue
		}
		p.at = from
		var s spelt
		rest := t
		rest.parts = append([]piece{}, t.parts...)
		if p.matches(rest, func(slot string, shut []rune) bool {
			if slot == "name" {
				p.at = nameTo
				return true
			}
			var ok bool
			s, ok = p.term(shut, p.d.Terms.Words == Refused)
			return ok
		}) {
			p.unknown(name, from, nameTo)
			return p.leaf("is", []string{p.anyField()}, s, from)
		}
	}
	p.at = from
	return nil
}

// unknown tells of a name that no field has.
func (p *parser) unknown(name string, from, to int) {
	var mend *string
	for _, f := range fieldOrder {
		for _, n := range p.d.Fields[f] {
			if mend == nil && text.Edited(strings.ToLower(n), strings.ToLower(name)) {
				mend = mended(n)
			}
		}
	}
	p.find(FieldUnknown, from, to, mend, "there is no field %q; there are %s", short(name), p.d.nameList())
}

func (d *Dialect) nameList() string {
	var out []string
	for _, f := range fieldOrder {
		if len(d.Fields[f]) > 0 {
			out = append(out, d.Fields[f][0])
		}
	}
	if len(out) == 0 {
		return "none"
	}
	return strings.Join(out, ", ")
}

// anyField is what a term without a field of its own looks in.
func (p *parser) anyField() string {
	if p.d.Bare != "" {
		return p.d.Bare
	}
	return "text"
}

// slots reads the slots of a clause.
func (p *parser) slots(t template, fields *[]string, s *spelt) func(string, []rune) bool {
	return func(slot string, shut []rune) (ok bool) {
		if slot == "name" {
			*fields, ok = p.names()
			return ok
		}
		*s, ok = p.term(shut, p.d.Terms.Words != AsAnd)
		return ok
	}
}

// after reads the name of a field behind a term, where the dialect has it there.
func (p *parser) after(s spelt) *Node {
	end := p.at
	for _, t := range p.m.clauses {
		if t.parts[0].slot != "term" {
			continue
		}
		var fields []string
		rest := template{text: t.text, parts: t.parts[1:]}
		p.at = end
		if p.matches(rest, func(string, []rune) (ok bool) {
			p.skip()
			fields, ok = p.names()
			return ok
		}) {
			return p.leaf(t.op, fields, s, s.from)
		}
		p.at = end
		var from, to int
		if p.matches(rest, func(string, []rune) bool {
			p.skip()
			from = p.at
			ok := p.word()
			to = p.at
			return ok
		}) {
			p.unknown(p.text(from, to), from, to)
			return p.leaf("is", []string{p.anyField()}, s, s.from)
		}
	}
	p.at = end
	if p.d.Bare == "" {
		name := p.d.namesOf(bib.Text)
		mend := mended(p.d.made.bare["is"][0].fill(map[string]string{"name": name, "term": p.text(s.from, s.to)}))
		if name == "" {
			mend = nil
		}
		p.find(FieldUnknown, s.from, s.to, mend, "a term says its field here: one of %s", p.d.nameList())
	}
	return p.leaf("is", []string{p.anyField()}, s, s.from)
}

// leaf makes of a term in some fields what it looks for.
func (p *parser) leaf(op string, fields []string, s spelt, from int) *Node {
	n := &Node{From: from, To: p.at, Marked: s.marked}
	var text bib.Field
	for _, f := range fields {
		bits, ok := textFields[f]
		switch {
		case ok:
			text |= bits
		case len(fields) > 1:
			p.find(FieldUnknown, from, s.from, nil, "%s cannot be looked in together with other fields", f)
			n.Op = Unread
			return n
		case f == author:
			return p.author(op, s, n)
		case f == heading:
			n.Expr = p.headingOf(p.value(s.in, s.out))
			return n
		case f == year:
			return p.yearAlone(s, n)
		default:
			if op != "is" && op != "whole" {
				p.find(Unreadable, n.From, n.To, nil, "%s is looked for as it stands, not by its words", f)
				n.Op = Unread
				return n
			}
			p.list(f, s, n)
			return n
		}
	}
	if len(s.words) > 1 {
		switch p.d.Terms.Words {
		case AsAnd:
			return p.loose(s, text, n)
		case Refused:
			p.find(PhraseSplit, s.from, s.to, p.marks(s), "words that belong together stand in %s", p.marksShown())
		}
	}
	if !s.marked && op == "is" && len(s.words) == 1 {
		if named := p.otherwiseNamed(s, n); named != nil {
			return named
		}
	}
	pattern, ok := p.pattern(s, op)
	if !ok {
		n.Op = Unread
		return n
	}
	switch op {
	case "all", "any":
		n.Expr = query.Words{Pattern: pattern, Fields: text, All: op == "all"}
	default:
		n.Expr = query.Phrase{Pattern: pattern, Fields: text, Whole: op == "whole"}
	}
	return n
}

// otherwiseNamed reads a word with a colon, where a colon says nothing here: somebody meant a field before it.
func (p *parser) otherwiseNamed(s spelt, n *Node) *Node {
	at := slices.Index(p.low[s.in:s.out], ':')
	if at < 2 || s.in+at+1 >= s.out || p.m.delims[':'] ||
		slices.ContainsFunc(p.low[s.in:s.in+at], func(r rune) bool { return !isWord(r) && r != '.' }) {
		return nil
	}
	name := p.text(s.in, s.in+at)
	rest := spelt{from: s.in + at + 1, to: s.to, in: s.in + at + 1, out: s.out}
	field, mend := p.anyField(), (*string)(nil)
	for _, f := range fieldOrder {
		for _, known := range p.d.Fields[f] {
			if _, isText := textFields[f]; isText && string(folded(known)) == string(folded(name)) {
				field = f
				mend = mended(p.m.bare["is"][0].fill(map[string]string{"name": known, "term": p.text(rest.in, rest.out)}))
			}
		}
	}
	p.find(FieldUnknown, s.from, s.to, mend, "%q is not how a field is said here", name+":")
	pattern, ok := p.pattern(rest, "is")
	if !ok {
		n.Op = Unread
		return n
	}
	n.Expr = query.Phrase{Pattern: pattern, Fields: textFields[field]}
	return n
}

func (p *parser) marks(s spelt) *string {
	if len(p.d.Terms.Marks) == 0 {
		return nil
	}
	return mended(p.d.Terms.Marks[0][0] + p.text(s.from, s.to) + p.d.Terms.Marks[0][1])
}

func (p *parser) marksShown() string {
	if len(p.d.Terms.Marks) == 0 {
		return "no marks here: they cannot be held together"
	}
	return p.d.Terms.Marks[0][0] + " " + p.d.Terms.Marks[0][1]
}

// loose reads words side by side, each by itself.
func (p *parser) loose(s spelt, fields bib.Field, n *Node) *Node {
	n.Op, n.Loose = opAnd, true
	for _, w := range s.words {
		part := &Node{From: w[0], To: w[1]}
		pattern, ok := p.pattern(spelt{from: w[0], to: w[1], in: w[0], out: w[1]}, "is")
		if !ok {
			part.Op = Unread
		} else {
			part.Expr = query.Phrase{Pattern: pattern, Fields: fields}
		}
		n.Parts = append(n.Parts, part)
	}
	return n
}

func (p *parser) author(op string, s spelt, n *Node) *Node {
	pattern, ok := p.pattern(s, op)
	if !ok {
		n.Op = Unread
		return n
	}
	n.Expr = query.Author{Pattern: pattern, Any: op == "any", All: op == "all"}
	return n
}

func (p *parser) list(field string, s spelt, n *Node) {
	value := p.value(s.in, s.out)
	if text.Label(value) == "" {
		p.find(Unreadable, n.From, n.To, nil, "nothing is said to look for")
		n.Op = Unread
		return
	}
	p.signsInLabel(s)
	n.Expr = query.Listed{List: listFields[field], Value: value}
}

// signsInLabel tells of a sign at the end of a label, where it is a character like any other.
func (p *parser) signsInLabel(s spelt) {
	for _, sign := range p.m.many {
		at := s.out - len(sign)
		if at > s.in && slices.Equal(p.low[at:s.out], sign) && isWord(p.low[at-1]) {
			p.find(
				ExactTruncated,
				s.in,
				s.out,
				mended(p.text(s.in, at)),
				"a label is looked for as it stands: %q is no sign in it",
				p.text(at, s.out),
			)
			return
		}
	}
}

// value returns a label as it was typed, without escapes.
func (p *parser) value(from, to int) string {
	var b strings.Builder
	for at := from; at < to; at++ {
		r := p.raw[at]
		if p.m.escape != 0 && p.low[at] == p.m.escape && at+1 < to {
			at++
			r = p.raw[at]
		}
		if isNothing(r) {
			continue
		}
		if p.low[at] == ' ' || p.low[at] == '\n' {
			r = ' '
		}
		b.WriteRune(r)
	}
	return strings.TrimSpace(b.String())
}

// pattern reads a term with the dialect's signs, and tells of those that do not work where they stand.
func (p *parser) pattern(s spelt, op string) (text.Pattern, bool) {
	var b strings.Builder
	signs, split := 0, false
	for at := s.in; at < s.out; at++ {
		r := p.low[at]
		switch {
		case p.m.escape != 0 && r == p.m.escape && at+1 < s.out:
			at++
			if r = p.raw[at]; r == '*' || r == '?' {
				r = ' '
			}
			b.WriteRune(r)
			continue
		case isNothing(r):
			continue
		case r == '-' && at > s.in && isWord(p.low[at-1]):
			was := p.at
			if p.at = at; p.broken() {
				if !split && s.to-s.from < longestMend {
					p.find(
						PhraseSplit,
						s.from,
						s.to,
						mended(p.text(s.from, at)+p.text(p.at, s.to)),
						"a line ends inside this word; it is read as one",
					)
				}
				split = true
				at, p.at = p.at-1, was
				continue
			}
			p.at = was
		}
		if n := p.length(p.m.many, at); n > 0 {
			b.WriteByte('*')
			signs++
			at += n - 1
			continue
		}
		if n := p.length(p.m.one, at); n > 0 {
			b.WriteByte('?')
			signs++
			at += n - 1
			continue
		}
		if r == '*' || r == '?' || r == '…' {
			b.WriteByte(p.foreign(s, at))
			continue
		}
		b.WriteRune(p.raw[at])
	}
	pattern, err := text.ParsePattern(b.String())
	var refused *text.Refusal
	switch {
	case errors.As(err, &refused) && refused.Reason == text.TooOpen:
		p.find(
			StemTooShort,
			s.from,
			s.to,
			nil,
			"%q matches too much: a sign needs at least 2 letters before it, or 3 in the whole word; it is left out",
			refused.Token,
		)
		return nil, false
	case errors.As(err, &refused) && refused.Reason == text.TooLong:
		p.find(TooLongFor, s.from, s.to, nil, "a term has at most %d characters; it is left out", text.MaxTerm)
		return nil, false
	case err != nil:
		p.find(Unreadable, s.from, s.to, mended(""), "%q holds no word to look for", short(p.text(s.from, s.to)))
		return nil, false
	}
	if signs > 0 {
		p.placed(s, op, pattern)
	}
	return pattern, true
}

func (p *parser) length(signs [][]rune, at int) int {
	for _, s := range signs {
		if at+len(s) <= p.end && slices.Equal(p.low[at:at+len(s)], s) {
			return len(s)
		}
	}
	return 0
}

// foreign tells of a sign that is another dialect's, and returns ours that it is taken for; a space where there is
// none.
func (p *parser) foreign(s spelt, at int) byte {
	if at == s.in || !isWord(p.low[at-1]) {
		return ' '
	}
	own, ours := p.d.Terms.Many, byte('*')
	if p.low[at] == '?' {
		own, ours = p.d.Terms.One, '?'
	}
	switch {
	case len(own) > 0:
		p.find(Unreadable, at, at+1, mended(own[0]), "%q is no sign here; %q is, and is taken", string(p.raw[at]), own[0])
		return ours
	case ours == '?' && (at+1 >= s.out || !isWord(p.low[at+1])):
		return ' ' // a question mark
	}
	p.find(Unreadable, at, at+1, mended(""), "%q is no sign here, and there is none like it", string(p.raw[at]))
	return ' '
}

// placed tells of signs that do not work where they stand.
func (p *parser) placed(s spelt, op string, pattern text.Pattern) {
	a := adapter{d: p.d}
	for _, t := range pattern {
		switch a.lacking(t, false) {
		case NoLetters:
			p.find(
				StemTooShort,
				s.from,
				s.to,
				nil,
				"%s wants at least %d letters before a sign, and %q has fewer",
				p.d.Title,
				p.d.Terms.Letters,
				p.d.word(t),
			)
		case NoLeft, NoInside, NoEnds:
			p.find(Unreadable, s.from, s.to, nil, "a sign cannot stand here in a word: %q", p.d.word(t))
		}
	}
	if s.marked && !p.d.Terms.InPhrase {
		mend := mended(p.text(s.in, s.out))
		if len(pattern) > 1 && p.d.Terms.Words != AsPhrase {
			mend = nil
		}
		p.find(ExactTruncated, s.from, s.to, mend, "in %s signs do not work", p.marksShown())
	} else if op == "whole" {
		p.find(ExactTruncated, s.from, s.to, nil, "a whole value is asked for, with a part of it left open")
	}
}
