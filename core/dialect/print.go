package dialect

import (
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/text"
)

// A Written is an expression in a dialect.
type Written struct {
	Queries []string // one; several where one would be too long or too deep: their records belong together
	Said    query.Expr
	Notes   []Note
}

// Text returns the queries, one a line.
func (w Written) Text() string { return strings.Join(w.Queries, "\n") }

// Write says an expression in a dialect. Said is what the text says, which is what was meant wherever there is no note;
// nil, with no query, where nothing of it can be said.
func (d *Dialect) Write(q query.Expr, o Options) Written { return d.Print(d.Adapt(q, o)) }

// Adapt returns the nearest to an expression that the dialect can say in full, nil where nothing of it can be said,
// and where the two differ.
func (d *Dialect) Adapt(q query.Expr, o Options) (said query.Expr, notes []Note) {
	a := &adapter{d: d, o: o, notes: []Note{}}
	return a.expr(q), a.notes
}

// Print writes what the dialect can say in full; notes are those of what it was adapted from.
func (d *Dialect) Print(said query.Expr, notes []Note) Written {
	out := Written{Said: said, Notes: notes}
	if said == nil {
		return out
	}
	parts, fits := d.parts(said)
	for _, p := range parts {
		out.Queries = append(out.Queries, d.print(p))
	}
	if len(parts) > 1 {
		out.Notes = append(out.Notes, Note{Code: Parted, Term: strconv.Itoa(len(parts))})
	}
	if !fits {
		out.Notes = append(out.Notes, Note{Code: TooLong, Term: strconv.Itoa(utf8.RuneCountInString(out.Text()))})
	}
	return out
}

func (d *Dialect) print(q query.Expr) string {
	s, _ := d.written(q, "")
	return s
}

// written writes an expression that stands inside an operator, "" where it stands alone; depth is how many brackets
// stand in each other.
func (d *Dialect) written(q query.Expr, inside string) (s string, depth int) {
	op, parts := operatorOf(q)
	if op == "" {
		if n, ok := q.(query.Near); ok {
			return d.bracketed(d.pair(n), opNear, inside, 0)
		}
		return d.leaf(q), 0
	}
	word := d.joinWord(op)
	out := make([]string, len(parts))
	for i, p := range parts {
		var deep int
		out[i], deep = d.written(p, op)
		depth = max(depth, deep)
	}
	return d.bracketed(strings.Join(out, " "+word+" "), op, inside, depth)
}

func (d *Dialect) bracketed(s, op, inside string, depth int) (string, int) {
	// AND and OR side by side are told apart by brackets, though ranks would do: people read what is written.
	byRank := !d.Brackets.Always && (op == opNear || op == opNot && inside == opAnd) && d.rank(op) < d.rank(inside)
	if inside == "" || byRank || d.Brackets.Open == "" {
		return s, depth
	}
	return d.Brackets.Open + s + d.Brackets.Shut, depth + 1
}

func (d *Dialect) pair(q query.Near) string {
	n := d.Near
	templates := n.Unordered
	switch {
	case q.Exactly && q.Ordered:
		templates = n.ExactlyOrdered
	case q.Exactly:
		templates = n.Exactly
	case q.Ordered:
		templates = n.Ordered
	}
	said := q.Within
	if n.Between {
		said--
	}
	t := d.made.written[templates[0]]
	side := func(p text.Pattern) string { return d.leaf(query.Phrase{Pattern: p, Fields: q.Fields}) }
	return side(
		q.Left,
	) + " " + t.fill(
		map[string]string{"n": strconv.Itoa(said), "less": strconv.Itoa(said + 1)},
	) + " " + side(
		q.Right,
	)
}

func (d *Dialect) leaf(q query.Expr) string {
	switch q := q.(type) {
	case query.Phrase:
		if d.unread && q.Fields == bib.Any && len(d.Fields["any"]) == 0 { // wherever the source looks
			return d.term(q.Pattern, nil)
		}
		if q.Whole {
			return d.clause(d.made.bare["whole"], d.namesOf(q.Fields), q.Pattern)
		}
		if d.Bare != "" && q.Fields == textFields[d.Bare] {
			return d.term(q.Pattern, nil)
		}
		return d.clause(d.together(q.Pattern), d.namesOf(q.Fields), q.Pattern)
	case query.Words:
		return d.clause(d.eachWord(q.All), d.namesOf(q.Fields), q.Pattern)
	case query.Author:
		return d.clause(d.authored(q), d.Fields[author][0], q.Pattern)
	case query.Heading:
		return d.headed(q)
	case query.Years:
		return d.dated(q)
	case query.Listed:
		for name, list := range listFields {
			if list == q.List {
				t := d.made.bare["is"][0]
				return t.fill(map[string]string{"name": d.Fields[name][0], "term": d.label(q.Value, t.enclosed("term"))})
			}
		}
	}
	return ""
}

// eachWord returns how a name stands with words of which all must be there, or any.
func (d *Dialect) eachWord(all bool) []template {
	if all {
		return d.made.bare["all"]
	}
	return d.made.bare["any"]
}

// authored returns how the name of a person is asked.
func (d *Dialect) authored(q query.Author) []template {
	if q.Any || q.All {
		return d.eachWord(!q.Any)
	}
	return d.made.bare["is"]
}

// namesOf returns the names by which fields are asked together.
func (d *Dialect) namesOf(f bib.Field) string {
	if name := fieldNamed(f); textFields[name] == f && len(d.Fields[name]) > 0 {
		return d.Fields[name][0]
	}
	var names []string
	covered := bib.Field(0)
	for _, name := range fieldOrder {
		if b, ok := textFields[name]; ok && len(d.Fields[name]) > 0 && b&^f == 0 && b&^covered != 0 {
			names = append(names, d.Fields[name][0])
			covered |= b
		}
	}
	return strings.Join(names, d.Several)
}

// together returns how a name stands with a word, or with several that stand together.
func (d *Dialect) together(p text.Pattern) []template {
	if many := d.made.bare["many"]; len(p) > 1 && len(many) > 0 {
		return many
	}
	return d.made.bare["is"]
}

func (d *Dialect) clause(templates []template, names string, p text.Pattern) string {
	t := templates[0]
	return t.fill(map[string]string{"name": names, "term": d.term(p, t.enclosed("term"))})
}

// enclosed returns the text with which a slot of a template ends that stands between two texts; nil where it does not.
func (t template) enclosed(slot string) []rune {
	for _, p := range t.parts {
		if p.slot == slot {
			return p.shut
		}
	}
	return nil
}

// term writes a word or phrase, in marks where it needs them.
func (d *Dialect) term(p text.Pattern, shut []rune) string {
	words := make([]string, len(p))
	for i, t := range p {
		words[i] = d.word(t)
	}
	s := strings.Join(words, " ")
	marked := d.Terms.Always
	if shut == nil && !marked {
		marked = len(p) > 1 && d.Terms.Words != AsPhrase || slices.ContainsFunc(words, d.reserved)
	}
	if marked && len(d.Terms.Marks) > 0 {
		return d.Terms.Marks[0][0] + s + d.Terms.Marks[0][1]
	}
	return s
}

// word writes a word with the dialect's signs.
func (d *Dialect) word(t text.TokenPattern) string {
	if w, exact := t.Exact(); exact {
		return w
	}
	var b strings.Builder
	for _, r := range t.String() {
		switch r {
		case '*':
			b.WriteString(d.Terms.Many[0])
		case '?':
			b.WriteString(d.Terms.One[0])
		default:
			b.WriteRune(r)
		}
	}
	return b.String()
}

// reserved reports whether a word that stands without marks would be taken for something else.
func (d *Dialect) reserved(word string) bool {
	if d.Lines != nil && strings.Trim(word, "0123456789") == "" {
		return true
	}
	low := strings.ToLower(word)
	return d.made.begins[low] || strings.ContainsFunc(low, func(r rune) bool { return d.made.delims[r] })
}

// typable reports whether each word of a pattern can be typed at all by one of the templates: in marks, between two
// texts that enclose it, or since nothing else begins as it does.
func (a *adapter) typable(p text.Pattern, by []template) bool {
	d := a.d
	if len(d.Terms.Marks) > 0 {
		return true
	}
	var shut []rune
	if len(by) > 0 && d.Bare == "" && !d.unread {
		shut = by[0].enclosed("term")
	}
	for _, t := range p {
		w := d.word(t)
		if shut != nil && !contains(folded(w), shut) {
			continue
		}
		if d.reserved(w) {
			return false
		}
	}
	return true
}

// sayable reports whether a label can be typed.
func (a *adapter) sayable(label string, stops [][]rune) bool {
	if strings.TrimSpace(label) == "" || strings.ContainsAny(label, "\n\r") {
		return false
	}
	d := a.d
	if d.Escape != "" {
		return true
	}
	low := folded(label)
	if len(d.made.marks) > 0 {
		return !contains(low, d.made.marks[0][0]) && !contains(low, d.made.marks[0][1])
	}
	for _, s := range stops {
		if contains(low, s) {
			return false
		}
	}
	return true
}

func contains(s, part []rune) bool { return strings.Contains(string(s), string(part)) }

// label writes a label of a controlled list: as it stands where the template ends it and nothing in it could be
// taken for that end; else in marks.
func (d *Dialect) label(label string, shut []rune) string {
	low := folded(label)
	marks := d.Terms.Marks
	if shut != nil &&
		(len(marks) == 0 || !d.Terms.Always && !slices.ContainsFunc(d.made.stops,
			func(s []rune) bool { return contains(low, s) }) && !strings.HasPrefix(label, marks[0][0])) {
		return d.escaped(label, string(shut[:1]))
	}
	if len(marks) == 0 {
		return label
	}
	if len(label) > 0 && shut == nil && !d.Terms.Always && !d.reserved(label) &&
		!strings.ContainsFunc(label, func(r rune) bool { return !(r >= 'a' && r <= 'z') }) {
		return label
	}
	return marks[0][0] + d.escaped(label, marks[0][0], marks[0][1]) + marks[0][1]
}

// escaped puts the escape before itself and what must not be taken for something else.
func (d *Dialect) escaped(s string, what ...string) string {
	if d.Escape == "" {
		return s
	}
	pairs := []string{d.Escape, d.Escape + d.Escape}
	for _, w := range what {
		if w != d.Escape {
			pairs = append(pairs, w, d.Escape+w)
		}
	}
	return strings.NewReplacer(pairs...).Replace(s)
}

func (d *Dialect) headed(q query.Heading) string {
	h := d.made.heading
	shut := h.enclosed("label")
	var mods strings.Builder
	if q.Narrower {
		mods.WriteString(d.made.mods["narrower"][0].fill(nil))
	}
	if q.Central {
		mods.WriteString(d.made.mods["central"][0].fill(nil))
	}
	for _, v := range q.Qualifiers {
		t := d.made.mods["qualifier"][0]
		end := t.enclosed("label")
		if end == nil && shut != nil && t.parts[len(t.parts)-1].slot == "label" {
			end = shut
		}
		mods.WriteString(t.fill(map[string]string{"label": d.label(v, end)}))
	}
	slots := map[string]string{"label": d.label(q.Label, shut), "modifiers": mods.String()}
	if names := d.Fields[heading]; len(names) > 0 {
		slots["name"] = names[0]
	}
	return h.fill(slots)
}

func (d *Dialect) dated(q query.Years) string {
	m := d.made.years
	slots := map[string]string{"year": strconv.Itoa(q.From), "from": strconv.Itoa(q.From), "to": strconv.Itoa(q.To)}
	if names := d.Fields[year]; len(names) > 0 {
		slots["name"] = names[0]
	}
	kind := "between"
	switch {
	case q.From == q.To && len(m["year"]) > 0:
		kind = "year"
	case q.To >= query.LastYear && len(m["from"]) > 0:
		kind = "from"
	case q.From <= query.FirstYear && len(m["to"]) > 0:
		kind = "to"
	}
	return m[kind][0].fill(slots)
}
