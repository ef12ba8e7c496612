package dialect

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Options of writing.
type Options struct {
	// Forms returns the words that a token pattern matches, where that is known: nil where it is not, or where they are
	// too many. Without it a sign that cannot be typed is cut off.
	Forms func(text.TokenPattern) []string
	// Holds reports whether a phrase stands somewhere, where that is known: of forms written out those that stand
	// nowhere are left out.
	Holds func(text.Pattern) bool
	// Anywhere has what has no field of its own asked in the field any, which holds more at a source than ours; where that
	// has no name either, without one, wherever the source looks. Of several conditions none is left out for want of a
	// field.
	Anywhere bool
	// Wider are the fields under whose names the source keeps more than ours hold.
	Wider map[string]bool
	// Beside says that the expression is a line beside others that are said: a heading is left out where the dialect
	// has none, as it is beside others in one expression.
	Beside bool
}

// MostForms is how many words are written out in place of one with a sign, and of a phrase.
const MostForms = 24

// An adapter turns an expression into the nearest that a dialect can say in full, and notes where the two differ.
type adapter struct {
	d     *Dialect
	o     Options
	notes []Note
	told  map[[3]string]bool
	quiet bool
}

func (a *adapter) note(code, term, instead string, meant, said query.Expr) {
	if !a.quiet {
		a.add(Note{Code: code, Term: term, Instead: instead, Meant: meant, Said: said})
	}
}

// noteField notes that a field is not asked by itself or not in full: also of what is asked in place of something
// else, whose own note has the cost of both.
func (a *adapter) noteField(code string, f bib.Field, term, instead string, meant, said query.Expr) {
	if a.quiet {
		meant, said = nil, nil
	}
	a.add(
		Note{Code: code, Term: fieldNamed(f) + ": " + term, Instead: instead, Field: fieldNamed(f), Meant: meant, Said: said},
	)
}

func (a *adapter) add(n Note) {
	key := [3]string{n.Code, n.Term, n.Instead}
	if a.told[key] {
		return
	}
	if a.told == nil {
		a.told = map[[3]string]bool{}
	}
	a.told[key] = true
	a.notes = append(a.notes, n)
}

// expr returns what can be said; nil is nothing.
func (a *adapter) expr(q query.Expr) query.Expr {
	switch q := q.(type) {
	case query.Or:
		return a.or(q)
	case query.And:
		var out query.And
		for _, p := range q {
			if s := a.expr(p); s != nil {
				out = append(out, s)
			}
		}
		return one(opAnd, out)
	case query.Not:
		return a.not(q)
	case query.Phrase:
		return a.phrase(q)
	case query.Words:
		return a.words(q)
	case query.Near:
		return a.near(q)
	case query.Heading:
		if len(q.Parts) > 0 || q.Until != 0 {
			return a.expr(q.Plain())
		}
		return a.heading(q)
	case query.Author:
		return a.author(q)
	case query.Years:
		return a.years(q)
	case query.Listed:
		return a.listed(q)
	}
	panic(fmt.Sprintf("dialect: %T cannot be said", q))
}

// one returns what is joined; what is but one by itself, and nothing as nil.
func one(op string, parts []query.Expr) query.Expr {
	switch {
	case len(parts) == 0:
		return nil
	case len(parts) == 1:
		return parts[0]
	case op == opOr:
		return query.Or(parts)
	}
	return query.And(parts)
}

func (a *adapter) or(q query.Or) query.Expr {
	var out []query.Expr
	var headings []query.Expr
	for _, p := range q {
		if h, ok := p.(query.Heading); ok && !a.headings() {
			headings = append(headings, h)
			continue
		}
		if s := a.expr(p); s != nil {
			if more, ok := s.(query.Or); ok {
				out = append(out, more...)
			} else {
				out = append(out, s)
			}
		}
	}
	// Beside other terms a heading that does not exist here is left out; with nothing beside it its words stand in,
	// those of several that are the same once.
	beside := a.o.Beside || len(out) > 0
	for _, p := range headings {
		if s := a.besideOthers(beside, p); s == nil || a.saidAlready(p, s, out) {
			continue
		} else {
			out = append(out, s)
		}
	}
	return one(opOr, out)
}

// besideOthers says a heading where the dialect has none: not at all, where others are said beside it.
func (a *adapter) besideOthers(beside bool, q query.Expr) query.Expr {
	was := a.o.Beside
	a.o.Beside = beside
	said := a.expr(q)
	a.o.Beside = was
	return said
}

// saidAlready reports, with a note, whether what stands in for an expression is said beside it already.
func (a *adapter) saidAlready(meant, said query.Expr, beside []query.Expr) bool {
	if !slices.ContainsFunc(beside, func(q query.Expr) bool { return Same(q, said) }) {
		return false
	}
	a.add(SaidOnce(meant, said))
	return true
}

func (a *adapter) not(q query.Not) query.Expr {
	first := a.expr(q[0])
	if first == nil {
		return nil
	}
	out := query.Not{first}
	for _, p := range q[1:] {
		if len(a.d.Operators.Not) == 0 {
			a.note(NoNot, "NOT "+query.Write(p), "", nil, nil)
			continue
		}
		if s := a.expr(p); s != nil {
			out = append(out, s)
		}
	}
	if len(out) == 1 {
		return first
	}
	return out
}

// in returns the fields of the dialect that are asked for one of ours. Where they hold more, wide is that field;
// missing is what of ours is left out. named leaves aside a field that is only looked in without a name.
func (a *adapter) in(f bib.Field, named bool) (fields []string, wide string, missing bib.Field) {
	var wider string
	covered := bib.Field(0)
	for _, name := range fieldOrder {
		bits, ok := textFields[name]
		if !ok || !a.d.has(name) || named && len(a.d.Fields[name]) == 0 {
			continue
		}
		switch {
		case bits == f:
			return []string{name}, "", 0
		case bits&^f == 0 && bits&^covered != 0:
			fields = append(fields, name)
			covered |= bits
		case f&^bits == 0 && (wider == "" || ones(bits) < ones(textFields[wider])):
			wider = name
		}
	}
	switch {
	case covered == f:
		return fields, "", 0
	case wider != "":
		return []string{wider}, wider, 0
	case a.o.Anywhere && (len(fields) == 0 || a.d.has("any")):
		return []string{"any"}, "any", 0
	}
	return fields, "", f &^ covered
}

func ones(f bib.Field) (n int) {
	for ; f != 0; f &= f - 1 {
		n++
	}
	return n
}

// fieldNamed returns our name of a set of fields.
func fieldNamed(f bib.Field) string {
	for _, name := range fieldOrder {
		if bits, ok := textFields[name]; ok && bits == f {
			return name
		}
	}
	return "text"
}

// spread says a term in each of the fields that stand for one, or in all at once where the dialect can name several.
func (a *adapter) spread(
	f bib.Field,
	named bool,
	meant query.Expr,
	term string,
	in func(bib.Field) query.Expr,
) query.Expr {
	fields, wide, missing := a.in(f, named)
	if len(fields) == 0 {
		a.note(NoName, term, "", meant, nil)
		return nil
	}
	var parts []query.Expr
	if all := bits(fields); len(fields) > 1 && a.d.Several != "" && a.named(fields) {
		parts = append(parts, in(all))
	} else {
		for _, name := range fields {
			parts = append(parts, in(textFields[name]))
		}
	}
	said := one(opOr, parts)
	switch {
	case wide != "":
		a.noteField(NoField, f, term, wide, meant, said)
	case missing != 0:
		a.noteField(NoPart, f, term, strings.Join(fields, ", "), meant, said)
	}
	for _, name := range fields {
		if a.o.Wider[name] && f != bib.Any { // what more it holds is not known: nothing tells the cost
			a.noteField(Wider, textFields[name], term, name, nil, nil)
		}
	}
	return said
}

func bits(fields []string) (all bib.Field) {
	for _, name := range fields {
		all |= textFields[name]
	}
	return all
}

func (a *adapter) named(fields []string) bool {
	return !slices.ContainsFunc(fields, func(f string) bool { return len(a.d.Fields[f]) == 0 })
}

func (a *adapter) phrase(q query.Phrase) query.Expr {
	if q.Whole && len(a.d.Clauses.Whole) == 0 {
		loose := q
		loose.Whole = false
		said := a.phrase(loose)
		a.note(NoWhole, q.Pattern.String(), q.Pattern.String(), q, said)
		return said
	}
	return a.signs(q.Pattern, q, q.Fields, q.Whole, func(p text.Pattern, f bib.Field) query.Expr {
		return query.Phrase{Pattern: p, Fields: f, Whole: q.Whole}
	})
}

// signs says a phrase, with its signs written out, cut off or taken apart where the dialect has them not.
func (a *adapter) signs(
	p text.Pattern,
	meant query.Expr,
	f bib.Field,
	named bool,
	as func(text.Pattern, bib.Field) query.Expr,
) query.Expr {
	say := func(p text.Pattern) query.Expr {
		return a.spread(f, named, meant, p.String(), func(f bib.Field) query.Expr { return as(p, f) })
	}
	code := ""
	for _, t := range p {
		if c := a.lacking(t, len(p) > 1); c != "" && code == "" {
			code = c
		}
	}
	if code == "" && len(p) > 1 && len(a.d.Terms.Marks) == 0 && !a.togetherUnmarked() {
		code = NoPhrase
	}
	if code == "" {
		by := a.d.together(p)
		if named {
			by = a.d.made.bare["whole"]
		}
		if !a.typable(p, by) {
			a.note(NoWriting, p.String(), "", meant, nil)
			return nil
		}
		return say(p)
	}
	if code == NoPhrase {
		said := a.apart(p, f, named, as)
		a.note(code, p.String(), strings.ReplaceAll(p.String(), " ", " + "), meant, said)
		return said
	}
	if forms := a.writtenOut(p); len(forms) > 0 {
		parts := make([]query.Expr, 0, len(forms))
		names := make([]string, len(forms))
		for i, form := range forms {
			names[i] = form.String()
			if s := a.signs(form, as(form, f), f, named, as); s != nil {
				parts = append(parts, s)
			}
		}
		said := one(opOr, parts)
		a.note(code, p.String(), strings.Join(names, ", "), meant, said)
		return said
	}
	if code == NoInPhrase && len(p) > 1 {
		said := a.apart(p, f, named, as)
		a.note(code, p.String(), strings.ReplaceAll(p.String(), " ", " + "), meant, said)
		return said
	}
	cut, ok := a.cut(p)
	if !ok {
		a.note(code, p.String(), "", meant, nil)
		return nil
	}
	was := a.quiet
	a.quiet = true
	said := a.signs(cut, meant, f, named, as)
	a.quiet = was
	instead := cut.String()
	if said == nil {
		instead = ""
	}
	a.note(code, p.String(), instead, meant, said)
	return said
}

// togetherUnmarked reports whether words side by side stand for a phrase where no marks are.
func (a *adapter) togetherUnmarked() bool { return a.d.Terms.Words == AsPhrase }

// apart says each word of a phrase by itself, all of which must be there.
func (a *adapter) apart(
	p text.Pattern,
	f bib.Field,
	named bool,
	as func(text.Pattern, bib.Field) query.Expr,
) query.Expr {
	var parts []query.Expr
	for i := range p {
		if s := a.signs(p[i:i+1], as(p[i:i+1], f), f, named, as); s != nil {
			parts = append(parts, s)
		}
	}
	return one(opAnd, parts)
}

// lacking says what keeps a word with signs from being typed; "" is nothing.
func (a *adapter) lacking(t text.TokenPattern, inPhrase bool) string {
	if _, exact := t.Exact(); exact {
		return ""
	}
	terms := a.d.Terms
	w := []rune(t.String())
	first := slices.IndexFunc(w, func(r rune) bool { return r == '*' || r == '?' })
	for i, r := range w {
		switch {
		case r == '?' && len(terms.One) == 0:
			return NoSign
		case r == '*' && i == 0 && !(terms.Left && len(terms.Many) > 0):
			return NoLeft
		case r == '*' && i == len(w)-1 && i > 0 && !terms.End:
			return NoEnds
		case r == '*' && i > 0 && i < len(w)-1 && !terms.Inside:
			return NoInside
		}
	}
	switch {
	case first > 0 && first < terms.Letters:
		return NoLetters
	case (inPhrase || terms.Always) && !terms.InPhrase:
		return NoInPhrase
	}
	return ""
}

// writtenOut returns the phrases that a pattern stands for in the sample, in place of the words with signs that
// cannot be typed: none where they are not known or too many.
func (a *adapter) writtenOut(p text.Pattern) []text.Pattern {
	if a.o.Forms == nil {
		return nil
	}
	out := []text.Pattern{nil}
	most := MostForms
	if a.o.Holds != nil { // most of them stand nowhere
		most *= MostForms
	}
	for _, t := range p {
		words := []string{t.String()}
		literal := false
		if _, exact := t.Exact(); !exact && a.lacking(t, len(p) > 1) != "" {
			if words = a.o.Forms(t); len(words) == 0 {
				return nil
			}
			literal = true
		}
		if len(out)*len(words) > most {
			return nil
		}
		var next []text.Pattern
		for _, head := range out {
			for _, w := range words {
				add := text.Pattern{t}
				if literal {
					add = text.Literal(w)
				}
				next = append(next, append(slices.Clone(head), add...))
			}
		}
		out = next
	}
	if a.o.Holds != nil && len(p) > 1 {
		out = slices.DeleteFunc(out, func(p text.Pattern) bool { return !a.o.Holds(p) })
	}
	if len(out) > MostForms {
		return nil
	}
	return out
}

// cut returns a pattern with each word cut at the first sign that cannot be typed: to its end where the dialect can say
// that, else as it stands.
func (a *adapter) cut(p text.Pattern) (text.Pattern, bool) {
	words := make([]string, len(p))
	for i, t := range p {
		words[i] = t.String()
		if a.lacking(t, false) == "" {
			continue
		}
		at := strings.IndexAny(words[i], "*?")
		head := words[i][:at]
		if head == "" {
			return nil, false
		}
		least := max(a.d.Terms.Letters, 2)
		switch {
		case a.lacking(t, false) == NoInPhrase: // every word stands in marks: no sign works
			words[i] = head
		case a.d.Terms.End && utf8.RuneCountInString(head) >= least && words[i] != head+"*":
			words[i] = head + "*"
		case words[i] == head+"*": // a sign at the end alone: less is found
			words[i] = head
		default:
			return nil, false
		}
	}
	out, err := text.ParsePattern(strings.Join(words, " "))
	return out, err == nil
}

// words says all or any of some words: as such, or each by itself, which is the same.
func (a *adapter) words(q query.Words) query.Expr {
	templates := a.d.Clauses.Any
	if q.All {
		templates = a.d.Clauses.All
	}
	_, named := a.exact(q.Fields)
	lacks := slices.ContainsFunc(q.Pattern, func(t text.TokenPattern) bool { return a.lacking(t, true) != "" })
	if len(templates) > 0 && named && !lacks && a.typable(q.Pattern, a.d.eachWord(q.All)) {
		return q
	}
	var parts []query.Expr
	for i := range q.Pattern {
		p := query.Phrase{Pattern: q.Pattern[i : i+1], Fields: q.Fields}
		if s := a.phrase(p); s != nil {
			parts = append(parts, s)
		}
	}
	if q.All {
		return one(opAnd, parts)
	}
	return one(opOr, parts)
}

// exact returns the field of the dialect that is just one of ours and has a name.
func (a *adapter) exact(f bib.Field) (string, bool) {
	name := fieldNamed(f)
	return name, textFields[name] == f && len(a.d.Fields[name]) > 0
}

func (a *adapter) near(q query.Near) query.Expr {
	term := fmt.Sprintf("%s ~%d %s", q.Left, q.Within, q.Right)
	n := a.d.Near
	if n == nil || q.Within > n.Most || n.Between && q.Within < 1 {
		return a.both(q, term)
	}
	if q.Exactly && !(q.Ordered && len(n.ExactlyOrdered) > 0 || !q.Ordered && len(n.Exactly) > 0) {
		loose := q
		loose.Exactly = false
		said := a.near(loose)
		a.note(NoExactly, term, "", q, said)
		return said
	}
	if q.Ordered && len(n.Ordered) == 0 {
		loose := q
		loose.Ordered = false
		said := a.near(loose)
		a.note(NoOrder, term, "", q, said)
		return said
	}
	if !q.Ordered && len(n.Unordered) == 0 {
		turned := q
		turned.Ordered = true
		back := turned
		back.Left, back.Right = q.Right, q.Left
		return one(opOr, []query.Expr{a.near(turned), a.near(back)})
	}
	// A side whose signs cannot be typed is written out: each form of the left near each of the right.
	left, okLeft := a.side(q.Left)
	right, okRight := a.side(q.Right)
	if !okLeft || !okRight || len(left)*len(right) > MostForms {
		return a.both(q, term)
	}
	var parts []query.Expr
	var names []string
	for _, l := range left {
		for _, r := range right {
			pair := q
			pair.Left, pair.Right = l, r
			names = append(names, fmt.Sprintf("%s ~%d %s", l, q.Within, r))
			if s := a.spread(q.Fields, false, q, term, func(f bib.Field) query.Expr {
				in := pair
				in.Fields = f
				return in
			}); s != nil {
				parts = append(parts, s)
			}
		}
	}
	said := one(opOr, parts)
	if len(left)*len(right) > 1 || left[0].String() != q.Left.String() || right[0].String() != q.Right.String() {
		a.note(NoSign, term, strings.Join(names, ", "), q, said)
	}
	return said
}

// side returns what a side of a pair is written as.
func (a *adapter) side(p text.Pattern) ([]text.Pattern, bool) {
	can := func(p text.Pattern) bool {
		return !slices.ContainsFunc(p, func(t text.TokenPattern) bool { return a.lacking(t, len(p) > 1) != "" }) &&
			a.typable(p, a.d.together(p)) && (len(p) == 1 || len(a.d.Terms.Marks) > 0 || a.togetherUnmarked())
	}
	if can(p) {
		return []text.Pattern{p}, true
	}
	if out := a.writtenOut(p); len(out) > 0 && !slices.ContainsFunc(out, func(p text.Pattern) bool { return !can(p) }) {
		return out, true
	}
	if cut, ok := a.cut(p); ok && can(cut) {
		return []text.Pattern{cut}, true
	}
	return nil, false
}

// both says the two sides of a pair anywhere in the fields.
func (a *adapter) both(q query.Near, term string) query.Expr {
	var parts []query.Expr
	for _, p := range []text.Pattern{q.Left, q.Right} {
		if s := a.phrase(query.Phrase{Pattern: p, Fields: q.Fields}); s != nil {
			parts = append(parts, s)
		}
	}
	said := one(opAnd, parts)
	a.note(NoNear, term, fmt.Sprintf("%s + %s", q.Left, q.Right), q, said)
	return said
}

func (a *adapter) headings() bool { return a.d.Headings != nil }

func (a *adapter) heading(q query.Heading) query.Expr {
	shown := "[" + q.Label + "]"
	switch {
	case a.headings():
	case a.o.Beside:
		a.note(NoHeadings, shown, "", q, nil)
		return nil
	default:
		return a.label(q, shown)
	}
	h := a.d.Headings
	said := q
	var codes []string
	if q.Narrower && len(h.Narrower) == 0 {
		said.Narrower, said.Which = false, thesaurus.Labelled(q.Label)
		codes = append(codes, NoNarrower)
	}
	if q.Central && len(h.Central) == 0 {
		said.Central = false
		codes = append(codes, NoCentral)
	}
	if len(q.Qualifiers) > 0 &&
		(len(h.Qualifier) == 0 || slices.ContainsFunc(q.Qualifiers, func(v string) bool {
			return !a.sayable(v,
				a.d.made.stops)
		})) {
		said.Qualifiers = nil
		codes = append(codes, NoQualify)
	}
	if !a.sayable(q.Label, a.d.made.stops) {
		a.note(NoWriting, shown, "", q, nil)
		return nil
	}
	for _, code := range codes {
		a.note(code, shown, "["+said.Label+"]", q, said)
	}
	return said
}

// label says the words of a heading in its place.
func (a *adapter) label(q query.Heading, shown string) query.Expr {
	p, err := text.ParsePattern(strings.NewReplacer("*", " ", "?", " ").Replace(q.Label))
	if err != nil {
		a.note(NoHeadings, shown, "", q, nil)
		return nil
	}
	said := a.phrase(query.Phrase{Pattern: p, Fields: bib.Text})
	a.note(NoHeadings, shown, p.String(), q, said)
	return said
}

func (a *adapter) author(q query.Author) query.Expr {
	if a.o.Anywhere &&
		(q.All && len(a.d.Clauses.All) == 0 || q.Any && len(a.d.Clauses.Any) == 0) { // word by word, which is the same
		var parts []query.Expr
		for i := range q.Pattern {
			if s := a.author(query.Author{Pattern: q.Pattern[i : i+1]}); s != nil {
				parts = append(parts, s)
			}
		}
		if q.All {
			return one(opAnd, parts)
		}
		return one(opOr, parts)
	}
	can := len(a.d.Fields[author]) > 0 && len(a.d.Clauses.Is) > 0
	for _, t := range q.Pattern {
		can = can && a.lacking(t, len(q.Pattern) > 1) == ""
	}
	can = can && a.typable(q.Pattern, a.d.authored(q))
	if can && (q.All && len(a.d.Clauses.All) == 0 || q.Any && len(a.d.Clauses.Any) == 0) {
		can = false
	}
	if can && len(q.Pattern) > 1 && len(a.d.Terms.Marks) == 0 && !a.togetherUnmarked() {
		can = false
	}
	if can {
		return q
	}
	term := author + ": " + q.Pattern.String()
	if cut, ok := a.cut(q.Pattern); a.o.Anywhere && ok && cut.String() != q.Pattern.String() { // as other words are
		code := ""
		for _, t := range q.Pattern {
			code = cmp.Or(code, a.lacking(t, len(q.Pattern) > 1))
		}
		said := a.author(query.Author{Pattern: cut})
		a.note(code, term, cut.String(), q, said)
		return said
	}
	if a.o.Anywhere && len(a.d.Fields[author]) == 0 {
		var said query.Expr = query.Phrase{Pattern: q.Pattern, Fields: bib.Any}
		if a.d.has("any") {
			said = a.phrase(query.Phrase{Pattern: q.Pattern, Fields: bib.Any})
		}
		a.add(Note{Code: NoField, Term: term, Instead: "any", Field: author, Meant: q, Said: said})
		return said
	}
	a.note(NoName, term, "", q, nil)
	return nil
}

func (a *adapter) years(q query.Years) query.Expr {
	m := a.d.made.years
	if q.From <= query.FirstYear && q.To >= query.LastYear { // whatever has a year
		if a.d.Years != nil && len(m["from"]) > 0 {
			return q
		}
		return a.all(q)
	}
	can := false
	switch {
	case a.d.Years == nil:
	case q.From == q.To:
		can = len(m["year"]) > 0 || len(m["between"]) > 0 || len(m["from"]) > 0 && len(m["to"]) > 0
	case q.From <= query.FirstYear:
		can = len(m["to"]) > 0 || len(m["between"]) > 0
	case q.To >= query.LastYear:
		can = len(m["from"]) > 0 || len(m["between"]) > 0
	default:
		can = len(m["between"]) > 0 || len(m["from"]) > 0 && len(m["to"]) > 0
	}
	if !can {
		return a.all(q)
	}
	if len(m["between"]) == 0 && q.From > query.FirstYear && q.To < query.LastYear &&
		!(q.From == q.To && len(m["year"]) > 0) {
		return query.And{query.Years{From: q.From, To: query.LastYear}, query.Years{From: query.FirstYear, To: q.To}}
	}
	return q
}

// all notes that a limit on years cannot be said.
func (a *adapter) all(q query.Years) query.Expr {
	a.note(NoLimit, query.Write(q), "", q, nil)
	return nil
}

func (a *adapter) listed(q query.Listed) query.Expr {
	for name, list := range listFields {
		if list != q.List {
			continue
		}
		if len(a.d.Fields[name]) > 0 && len(a.d.Clauses.Is) > 0 && a.sayable(q.Value, a.d.made.stops) {
			return q
		}
		a.note(NoLimit, name+": "+q.Value, "", q, nil)
	}
	return nil
}
