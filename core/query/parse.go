package query

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Limits of a query; a larger one is refused.
const (
	MaxQuery   = 1 << 20 // bytes
	MaxClauses = 20_000
	MaxDepth   = 100 // brackets in brackets
)

// A Query is what a CQL query says.
type Query struct {
	Expr     Expr
	Sort     []SortKey
	Warnings []Mixed
	Indexes  []string // the names of the indexes asked, as written, each once; "" is a term without one
}

// A SortKey is one of the things that records are to be sorted by.
type SortKey struct {
	Index      string
	Descending bool
}

// A Mixed warns of different operators side by side without brackets: how they are taken, as the
// standard says, and how they might have been meant.
type Mixed struct {
	At    int // the character of the first operator that is not like the one before, from 1
	Taken string
	Other string
}

func (m Mixed) String() string {
	return fmt.Sprintf(
		"character %d: different operators without brackets are taken from left to right, as %s; %s would be another reading",
		m.At,
		m.Taken,
		m.Other,
	)
}

// Parse reads a query in CQL 1.2 (OASIS searchRetrieve, part 5). vocabulary, which may be nil, says what
// is narrower than a heading. What cannot be read is answered by an *Error.
func Parse(cql string, vocabulary *thesaurus.Thesaurus) (*Query, error) {
	return Parser{Vocabulary: vocabulary}.Parse(cql)
}

// A Parser reads queries. Its zero value reads them as Parse does without a vocabulary.
type Parser struct {
	Vocabulary *thesaurus.Thesaurus
	// Bare says what a term without an index looks for, where that is not the text of a record.
	Bare func(text.Pattern) Expr
	// Own reads a clause of an index that is not among those known here, by its name in lower case; sort keys of
	// that name are let through. It returns nil where there is no such index either.
	Own func(name, relation, value string) (Expr, error)
}

// Parse reads a query.
func (settings Parser) Parse(cql string) (*Query, error) {
	if len(cql) > MaxQuery {
		return nil, fmt.Errorf("a query has at most %d characters; this one has %d", MaxQuery, len(cql))
	}
	tokens, bad := lex(cql)
	if bad != nil {
		return nil, bad
	}
	p := &parser{query: cql, tokens: tokens, vocabulary: settings.Vocabulary, bare: settings.Bare, own: settings.Own}
	q := &Query{}
	var err *Error
	if q.Expr, err = p.scope(0); err != nil {
		return nil, err
	}
	if p.is("sortby") {
		p.next()
		if q.Sort, err = p.sortKeys(); err != nil {
			return nil, err
		}
	}
	if t := p.peek(); t.kind != end {
		if t.kind == shut {
			return nil, p.wrong(t, "this bracket closes none")
		}
		return nil, p.wrong(t, "expected and, or, not, prox or the end, not %s", t)
	}
	q.Warnings, q.Indexes = p.warnings, p.indexes
	return q, nil
}

type parser struct {
	query      string
	tokens     []token
	at         int
	clauses    int
	vocabulary *thesaurus.Thesaurus
	bare       func(text.Pattern) Expr
	own        func(name, relation, value string) (Expr, error)
	warnings   []Mixed
	indexes    []string
}

// asked remembers that an index is asked.
func (p *parser) asked(name string) {
	if !slices.Contains(p.indexes, name) {
		p.indexes = append(p.indexes, name)
	}
}

func (p *parser) peek() token { return p.tokens[p.at] }

func (p *parser) next() token {
	t := p.tokens[p.at]
	if t.kind != end {
		p.at++
	}
	return t
}

// is reports whether the next token is an unquoted word, in any case.
func (p *parser) is(name string) bool {
	t := p.peek()
	return t.kind == word && strings.EqualFold(t.text, name)
}

func (p *parser) wrong(t token, format string, args ...any) *Error {
	return wrong(p.query, t.at, format, args...)
}

// An operator joins two parts of a query.
type operator struct {
	name string
	near *Near // of prox
	at   token
}

// scope reads clauses joined by operators: the whole query, or what stands in brackets. All operators
// have the same rank and are taken from left to right.
func (p *parser) scope(depth int) (Expr, *Error) {
	if depth > MaxDepth {
		return nil, p.wrong(p.peek(), "brackets stand more than %d deep in each other", MaxDepth)
	}
	first, err := p.clause(depth)
	if err != nil {
		return nil, err
	}
	parts := []part{first}
	var operators []operator
	for {
		op, ok, err := p.operator()
		if err != nil {
			return nil, err
		}
		if !ok {
			break
		}
		next, err := p.clause(depth)
		if err != nil {
			return nil, err
		}
		operators, parts = append(operators, op), append(parts, next)
	}
	left := parts[0].expr
	open := false // left was made here, so that the same operator may go on with it
	for i, op := range operators {
		right := parts[i+1].expr
		same := open && operators[i-1].name == op.name
		switch op.name {
		case "or":
			if same {
				left = append(left.(Or), right)
			} else {
				left = Or{left, right}
			}
		case "and":
			if same {
				left = append(left.(And), right)
			} else {
				left = And{left, right}
			}
		case "not":
			if same {
				left = append(left.(Not), right)
			} else {
				left = Not{left, right}
			}
		case "prox":
			near, err := p.prox(op, left, right)
			if err != nil {
				return nil, err
			}
			left = near
		}
		open = op.name != "prox"
	}
	p.warn(parts, operators)
	return left, nil
}

// A part is a clause or what stands in brackets, with the text it was read from.
type part struct {
	expr     Expr
	from, to int
}

// operator reads and, or, not or prox with its modifiers, if one is next.
func (p *parser) operator() (operator, bool, *Error) {
	for _, name := range []string{"and", "or", "not", "prox"} {
		if !p.is(name) {
			continue
		}
		op := operator{name: name, at: p.next()}
		modifiers, err := p.modifiers()
		if err != nil {
			return op, false, err
		}
		if name != "prox" {
			if len(modifiers) > 0 {
				return op, false, p.wrong(modifiers[0].name, "%s takes no modifiers", name)
			}
			return op, true, nil
		}
		op.near, err = p.distance(modifiers)
		return op, err == nil, err
	}
	return operator{}, false, nil
}

// A modifier stands behind a relation or an operator: /name or /name=value.
type modifier struct {
	name  token
	sign  string
	value token
}

func (p *parser) modifiers() ([]modifier, *Error) {
	var out []modifier
	for p.peek().kind == slash {
		p.next()
		m := modifier{name: p.next()}
		if m.name.kind != word {
			return nil, p.wrong(m.name, "expected the name of a modifier after /, not %s", m.name)
		}
		if p.peek().kind == sign {
			m.sign = p.next().text
			if m.value = p.next(); m.value.kind != word && m.value.kind != quoted {
				return nil, p.wrong(m.value, "expected a value after /%s%s, not %s", m.name.text, m.sign, m.value)
			}
		}
		out = append(out, m)
	}
	return out, nil
}

// distance reads the modifiers of prox.
func (p *parser) distance(modifiers []modifier) (*Near, *Error) {
	n := &Near{Within: 1}
	for _, m := range modifiers {
		switch name := bare(m.name.text); {
		case name == "unit" && m.sign == "=":
			if !strings.EqualFold(m.value.plain(false), "word") {
				return nil, p.wrong(m.value, "prox counts words; unit %s is not known", m.value)
			}
		case name == "distance" && (m.sign == "<=" || m.sign == "<" || m.sign == "="):
			d, err := strconv.Atoi(m.value.plain(false))
			if err != nil {
				return nil, p.wrong(m.value, "expected a number of words, not %s", m.value)
			}
			if m.sign == "<" {
				d--
			}
			if d < 1 || d > text.MaxWithin {
				return nil, p.wrong(m.value, "a distance is 1 to %d words", text.MaxWithin)
			}
			n.Within, n.Exactly = d, m.sign == "="
		case name == "ordered" && m.sign == "":
			n.Ordered = true
		case name == "unordered" && m.sign == "":
			n.Ordered = false
		default:
			return nil, p.wrong(
				m.name,
				"prox takes unit=word, distance with <=, < or =, ordered and unordered, not /%s%s",
				m.name.text,
				m.sign,
			)
		}
	}
	return n, nil
}

// prox makes a near pair of two clauses.
func (p *parser) prox(op operator, left, right Expr) (Expr, *Error) {
	l, okL := left.(Phrase)
	r, okR := right.(Phrase)
	if !okL || !okR || l.Whole || r.Whole {
		return nil, p.wrong(op.at, "each side of prox is one clause with = on a text index")
	}
	if l.Fields != r.Fields {
		return nil, p.wrong(op.at, "both sides of prox search the same index")
	}
	n := *op.near
	n.Left, n.Right, n.Fields = l.Pattern, r.Pattern, l.Fields
	return n, nil
}

var operators = []string{"and", "or", "not", "prox", "sortby"}

func isOperator(t token) bool {
	return t.kind == word && slices.Contains(operators, strings.ToLower(t.text))
}

// clause reads a term, an index with its relation and term, or what stands in brackets.
func (p *parser) clause(depth int) (part, *Error) {
	t := p.next()
	out := part{from: t.at}
	switch {
	case t.kind == open:
		expr, err := p.scope(depth + 1)
		if err != nil {
			return out, err
		}
		if last := p.next(); last.kind != shut {
			if last.kind == end {
				return out, p.wrong(t, "this bracket has no partner")
			}
			return out, p.wrong(last, "expected and, or, not, prox or ), not %s", last)
		}
		out.expr = expr
	case isOperator(t):
		return out, p.wrong(t, "expected a term; %s joins two, and is itself one only in quotes", strings.ToLower(t.text))
	case t.kind == sign && t.text == ">":
		return out, p.wrong(t, "prefixes are not set in a query; the indexes are those of tamiz and dc")
	case t.kind != word && t.kind != quoted:
		return out, p.wrong(t, "expected a term, not %s", t)
	default:
		if p.clauses++; p.clauses > MaxClauses {
			return out, p.wrong(t, "a query has at most %d clauses", MaxClauses)
		}
		expr, err := p.searched(t)
		if err != nil {
			return out, err
		}
		out.expr = expr
	}
	out.to = len(p.query)
	if p.at > 0 {
		last := p.tokens[p.at-1]
		out.to = last.at + len(last.text)
		if last.kind == quoted {
			out.to += 2
		}
	}
	return out, nil
}

// searched reads what follows the first word of a clause: nothing, when it is a term by itself, or a
// relation and a term, when it is an index.
func (p *parser) searched(t token) (Expr, *Error) {
	relation := p.peek()
	if relation.kind != sign && (relation.kind != word || isOperator(relation)) {
		if relation.kind == quoted {
			return nil, p.wrong(
				relation,
				"expected and, or, not, prox or the end, not %s; words that belong together stand in quotes",
				relation,
			)
		}
		p.asked("")
		if p.bare != nil {
			pattern, err := p.pattern(t)
			if err != nil {
				return nil, err
			}
			return p.bare(pattern), nil
		}
		return p.textual("=", t, bib.Text)
	}
	if relation.kind == word &&
		!slices.Contains([]string{"any", "all", "within", "exact", "encloses"}, bare(relation.text)) {
		return nil, p.wrong(
			relation,
			"expected and, or, not, prox or the end, not %s; words that belong together stand in quotes",
			relation,
		)
	}
	p.next()
	name := strings.ToLower(relation.text)
	if relation.kind == word {
		name = bare(relation.text)
	}
	modifiers, err := p.modifiers()
	if err != nil {
		return nil, err
	}
	term := p.next()
	if term.kind != word && term.kind != quoted || isOperator(term) {
		return nil, p.wrong(term, "expected a term after %s, not %s", relation.text, term)
	}
	ix, known := indexes[strings.ToLower(t.plain(false))]
	if !known && p.own != nil {
		expr, err := p.own(strings.ToLower(t.plain(false)), name, term.plain(false))
		if err != nil {
			return nil, p.wrong(term, "%s", err)
		}
		if expr != nil {
			p.asked(t.plain(false))
			return expr, nil
		}
	}
	if !known {
		return nil, p.wrong(t, "there is no index %s; there are %s", t, indexNames)
	}
	p.asked(t.plain(false))
	if len(modifiers) > 0 && ix.kind != headingIndex {
		return nil, p.wrong(modifiers[0].name, "only heading and prox take modifiers")
	}
	if !slices.Contains(ix.relations(), name) {
		return nil, p.wrong(relation, "%s takes %s, not %s", t.text, strings.Join(ix.relations(), " "), relation.text)
	}
	switch ix.kind {
	case textIndex:
		return p.textual(name, term, ix.fields)
	case authorIndex:
		pattern, err := p.pattern(term)
		if err != nil {
			return nil, err
		}
		return Author{Pattern: pattern, Any: name == "any", All: name == "all"}, nil
	case headingIndex:
		return p.heading(term, modifiers)
	case yearIndex:
		return p.years(name, term)
	}
	value := term.plain(false)
	if text.Label(value) == "" {
		return nil, p.wrong(term, "the term is empty")
	}
	return Listed{List: ix.list, Value: value}, nil
}

func (p *parser) pattern(term token) (text.Pattern, *Error) {
	pattern, err := text.ParsePattern(term.plain(true))
	if err != nil {
		e := p.wrong(term, "%v", err)
		e.Err = err
		return nil, e
	}
	return pattern, nil
}

func (p *parser) textual(relation string, term token, fields bib.Field) (Expr, *Error) {
	pattern, err := p.pattern(term)
	if err != nil {
		return nil, err
	}
	switch relation {
	case "any", "all":
		return Words{Pattern: pattern, Fields: fields, All: relation == "all"}, nil
	}
	return Phrase{Pattern: pattern, Fields: fields, Whole: relation == "=="}, nil
}

func (p *parser) heading(term token, modifiers []modifier) (Expr, *Error) {
	h := Heading{Label: term.plain(false)}
	label := text.Label(h.Label)
	if label == "" {
		return nil, p.wrong(term, "the term is empty")
	}
	for _, m := range modifiers {
		switch name := bare(m.name.text); {
		case name == "narrower" && m.sign == "":
			h.Narrower = true
		case name == "central" && m.sign == "":
			h.Central = true
		case name == "qualifier" && m.sign == "=":
			h.Qualifiers = append(h.Qualifiers, m.value.plain(false))
		default:
			return nil, p.wrong(m.name, "heading takes /narrower, /central and /qualifier=, not /%s%s", m.name.text, m.sign)
		}
	}
	h.Which = thesaurus.Keyed(label)
	if h.Narrower && p.vocabulary != nil {
		h.Which = p.vocabulary.BranchOf(label)
	}
	return h, nil
}

func (p *parser) years(relation string, term token) (Expr, *Error) {
	numbers := strings.Fields(term.plain(false))
	var years []int
	for _, n := range numbers {
		y, err := strconv.Atoi(n)
		if err != nil || y < FirstYear || y > LastYear {
			return nil, p.wrong(term, "expected a year, not %s", term)
		}
		years = append(years, y)
	}
	if wanted := map[bool]int{true: 2, false: 1}[relation == "within"]; len(years) != wanted {
		return nil, p.wrong(term, "%s takes %d year(s), not %s", relation, wanted, term)
	}
	y := years[0]
	span := Years{y, y}
	switch relation {
	case "<":
		span = Years{FirstYear, y - 1}
	case "<=":
		span.From = FirstYear
	case ">":
		span = Years{y + 1, LastYear}
	case ">=":
		span.To = LastYear
	case "within":
		span.To = years[1]
	}
	if span.To < FirstYear || span.From > LastYear {
		return nil, p.wrong(term, "there are no years %s %d", relation, y)
	}
	return span, nil
}

// sortKeys reads what stands behind sortBy.
func (p *parser) sortKeys() ([]SortKey, *Error) {
	var out []SortKey
	for p.peek().kind == word || p.peek().kind == quoted {
		t := p.next()
		name := strings.ToLower(t.plain(false))
		_, known := indexes[name]
		if !known && p.own != nil {
			x, err := p.own(name, ">=", "0")
			known = err == nil && x != nil
		}
		if !known {
			return nil, p.wrong(t, "there is no index %s to sort by; there are %s", t, indexNames)
		}
		key := SortKey{Index: name}
		if _, ours := indexes[name]; ours {
			key.Index = canonical(name)
		}
		modifiers, err := p.modifiers()
		if err != nil {
			return nil, err
		}
		for _, m := range modifiers {
			switch bare(m.name.text) {
			case "descending":
				key.Descending = true
			case "ascending":
				key.Descending = false
			default:
				return nil, p.wrong(m.name, "a sort key takes /sort.ascending and /sort.descending, not /%s", m.name.text)
			}
		}
		out = append(out, key)
	}
	if len(out) == 0 {
		return nil, p.wrong(p.peek(), "expected an index to sort by, not %s", p.peek())
	}
	return out, nil
}

// bare returns a name in lower case without its context set.
func bare(name string) string {
	name = strings.ToLower(name)
	for _, set := range []string{"cql.", "sort.", "tamiz."} {
		name = strings.TrimPrefix(name, set)
	}
	return name
}

// An indexKind is how the terms of an index are read.
type indexKind uint8

const (
	textIndex indexKind = iota
	authorIndex
	headingIndex
	yearIndex
	listIndex
)

type searchIndex struct {
	kind   indexKind
	fields bib.Field
	list   index.List
}

func (ix searchIndex) relations() []string {
	switch ix.kind {
	case textIndex, authorIndex:
		return []string{"=", "==", "any", "all"}
	case yearIndex:
		return []string{"=", "==", "<", "<=", ">", ">=", "within"}
	}
	return []string{"=", "=="}
}

// subject is what Dublin Core's subject searches: keywords and heading labels, as text.
const subject = bib.Keyword | bib.HeadingLabel

// own are the indexes of the context set tamiz, in the order in which they are listed.
var own = []struct {
	name string
	searchIndex
}{
	{
		"text",
		searchIndex{fields: bib.Text},
	}, {"title", searchIndex{fields: bib.Title}}, {"abstract", searchIndex{fields: bib.Abstract}},
	{
		"titleAbstract",
		searchIndex{fields: bib.TitleAbstract},
	}, {"keyword", searchIndex{fields: bib.Keyword}}, {"any", searchIndex{fields: bib.Any}},
	{
		"heading",
		searchIndex{kind: headingIndex},
	}, {"author", searchIndex{kind: authorIndex}}, {"journal", searchIndex{fields: bib.Journal}},
	{"year", searchIndex{kind: yearIndex}}, {"type", searchIndex{kind: listIndex, list: index.Types}},
	{
		"language",
		searchIndex{kind: listIndex, list: index.Languages},
	}, {"country", searchIndex{kind: listIndex, list: index.Countries}},
	{"identifier", searchIndex{kind: listIndex, list: index.Identifiers}},
}

// indexes are all names by which an index goes, in lower case.
var indexes = func() map[string]searchIndex {
	all := map[string]searchIndex{}
	for _, ix := range own {
		all[strings.ToLower(ix.name)] = ix.searchIndex
		all["tamiz."+strings.ToLower(ix.name)] = ix.searchIndex
	}
	for dc, name := range map[string]string{"title": "title", "creator": "author", "date": "year",
		"language": "language", "type": "type", "identifier": "identifier", "description": "abstract"} {
		all["dc."+dc] = all[name]
	}
	all["dc.subject"] = searchIndex{fields: subject}
	all["cql.serverchoice"] = all["text"]
	return all
}()

var indexNames = func() string {
	names := make([]string, len(own))
	for i, ix := range own {
		names[i] = ix.name
	}
	return strings.Join(names, ", ")
}()

// canonical returns our name of an index.
func canonical(name string) string {
	ix := indexes[strings.ToLower(name)]
	for _, o := range own {
		if o.searchIndex == ix {
			return o.name
		}
	}
	return "dc.subject"
}

// warn notes that operators of different kinds stand side by side.
func (p *parser) warn(parts []part, operators []operator) {
	first := slices.IndexFunc(operators, func(o operator) bool { return o.name != operators[0].name })
	if first < 0 {
		return
	}
	names := make([]string, len(parts))
	for i, x := range parts {
		names[i] = cut(p.query[x.from:x.to])
	}
	ops := make([]string, len(operators))
	for i, o := range operators {
		ops[i] = o.name
	}
	taken := leftToRight(names, ops)
	other := byRank(names, ops)
	if other == taken {
		other = rightToLeft(names, ops)
	}
	before := p.query[:operators[first].at.at]
	p.warnings = append(p.warnings, Mixed{At: len([]rune(before)) + 1, Taken: taken, Other: other})
}

const maxShown = 12 // parts of a warning

func leftToRight(parts, ops []string) string {
	s := parts[0]
	for i, op := range ops {
		if i == maxShown {
			return s + " …"
		}
		if i > 0 {
			s = "(" + s + ")"
		}
		s += " " + op + " " + parts[i+1]
	}
	return s
}

func rightToLeft(parts, ops []string) string {
	n := min(len(ops), maxShown)
	s := parts[n]
	for i := n - 1; i >= 0; i-- {
		s = parts[i] + " " + ops[i] + " " + s
		if i > 0 {
			s = "(" + s + ")"
		}
	}
	return s
}

// byRank brackets as many people read it: prox before and and not, and these before or.
func byRank(parts, ops []string) string {
	n := min(len(ops), maxShown)
	parts, ops = slices.Clone(parts[:n+1]), slices.Clone(ops[:n])
	for _, rank := range [][]string{{"prox"}, {"and", "not"}, {"or"}} {
		for i := 0; i < len(ops); {
			if !slices.Contains(rank, ops[i]) {
				i++
				continue
			}
			joined := parts[i] + " " + ops[i] + " " + parts[i+1]
			if len(ops) > 1 {
				joined = "(" + joined + ")"
			}
			parts[i] = joined
			parts, ops = slices.Delete(parts, i+1, i+2), slices.Delete(ops, i, i+1)
		}
	}
	return parts[0]
}
