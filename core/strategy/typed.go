package strategy

import (
	"fmt"
	"slices"
	"strings"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/thesaurus"
)

// A Typed is a strategy in a dialect: as numbered lines, and as one query. Both are written from one adaptation of
// it, line by line: the whole says what its lines say, put together.
type Typed struct {
	Lines []TypedLine
	Whole dialect.Written // no query where the strategy finds nothing
	Own   []TypedLine     // lines that were put together; they are typed behind the strategy, where somebody wants to

	by *adaptation
}

// A TypedLine is one line of a strategy in a dialect. A line that cannot be said has no text; one that is parted has
// several, each with a number of its own where the dialect is typed line by line.
type TypedLine struct {
	Of      Numbered
	Numbers []int    // as they are typed
	Texts   []string // as many
	Notes   []dialect.Note
	Said    query.Expr // what the text says; nil where there is none
}

// Typed writes a strategy in a dialect, with lines that were put together of its own, in the vocabulary that it
// goes by.
func (s Strategy) Typed(
	d *dialect.Dialect,
	vocabulary *thesaurus.Thesaurus,
	o dialect.Options,
	own ...Numbered,
) (*Typed, error) {
	return s.Adapted(Manner{Dialect: d, Options: o}, vocabulary, own...)
}

// Adapted writes a strategy for a source, with lines that were put together of its own. Where it is typed line by
// line, lines that cannot be said are left out and the rest is numbered anew.
func (s Strategy) Adapted(m Manner, vocabulary *thesaurus.Thesaurus, own ...Numbered) (*Typed, error) {
	a, err := s.adapted(m, vocabulary)
	if err != nil {
		return nil, err
	}
	d := m.Dialect
	t := typist{by: a, d: d, said: map[int]query.Expr{}, typed: map[int][]int{}}
	out := &Typed{by: a}
	for _, n := range a.lines {
		line := TypedLine{Of: n, Notes: []dialect.Note{}}
		block, is := a.worded[n.Block]
		switch {
		case is && line.worded(block, n, a.lines, d, m.Options):
		case a.leftOut(n):
			if n.Kind == LimitLine || ofBlock(n, a.lines) {
				line.Notes = append(line.Notes, dialect.Note{Code: dialect.NoNot, Term: "NOT " + query.Write(n.Expr)})
			}
		case len(n.Parts) > 0:
			t.joined(n, &line)
		default:
			said := a.said[n.Number]
			w := d.Print(said.expr, said.notes)
			line.Said, line.Notes, line.Texts = w.Said, w.Notes, w.Queries
		}
		if is && block.says == nil && ofBlock(n, a.lines) {
			line.Notes = append(line.Notes, block.note)
		}
		t.number(&line)
		out.Lines = append(out.Lines, line)
	}
	for _, n := range own {
		line := TypedLine{Of: n, Notes: []dialect.Note{}}
		t.together(n, &line)
		t.number(&line)
		out.Own = append(out.Own, line)
	}
	if n := len(out.Lines); n > 0 && a.finds {
		out.Whole = d.Print(out.Lines[n-1].Said, out.NotesOf(out.Lines[n-1]))
	}
	return out, nil
}

type typist struct {
	by    *adaptation
	d     *dialect.Dialect
	last  int
	said  map[int]query.Expr // by the number of a line of the strategy
	typed map[int][]int      // the numbers under which it is typed
}

// number gives what is typed of a line its numbers: its own, where lines are not named by them.
func (t *typist) number(l *TypedLine) {
	if t.d.Typed != dialect.AsLines {
		for range l.Texts {
			l.Numbers = append(l.Numbers, l.Of.Number)
		}
		t.last = l.Of.Number
	} else {
		for range l.Texts {
			t.last++
			l.Numbers = append(l.Numbers, t.last)
		}
	}
	t.said[l.Of.Number] = l.Said
	t.typed[l.Of.Number] = l.Numbers
	if (len(l.Of.Parts) > 0 || l.Of.Tree != nil) && len(l.Numbers) > 1 { // its last line joins those before it
		t.typed[l.Of.Number] = l.Numbers[len(l.Numbers)-1:]
	}
}

// joined writes a line that joins others by their numbers: those of them that are said.
func (t *typist) joined(n Numbered, l *TypedLine) {
	var parts []query.Expr
	var refs [][]int
	var kept []int
	for i, p := range n.Parts {
		if t.said[p] == nil {
			if i == 0 && n.Join == "not" {
				return
			}
			continue
		}
		parts, refs, kept = append(parts, t.said[p]), append(refs, t.typed[p]), append(kept, p)
	}
	if len(parts) == 0 {
		return
	}
	l.Said = together(n.Join, parts)
	if t.d.Typed != dialect.AsLines {
		n.Parts = kept
		l.Texts = []string{n.Joined()}
		return
	}
	// A line that was parted is put together first, where it is not joined by or anyway.
	var numbers []int
	for _, r := range refs {
		if len(r) > 1 && n.Join != "or" {
			l.Texts = append(l.Texts, t.d.Named("or", r))
			r = []int{t.last + len(l.Texts)}
		}
		numbers = append(numbers, r...)
	}
	if len(numbers) == 1 && len(l.Texts) == 0 && len(n.Parts) > 1 {
		l.Texts = []string{t.d.Named("or", numbers)}
		return
	}
	l.Texts = append(l.Texts, t.d.Named(n.Join, numbers))
}

// together writes a line that somebody put together of others: those that stand in brackets are joined first.
func (t *typist) together(n Numbered, l *TypedLine) {
	said, refs, as := t.tree(*n.Tree, l)
	if said == nil {
		return
	}
	l.Said = said
	switch {
	case n.Tree.Query != nil: // it is typed already
	case t.d.Typed != dialect.AsLines:
		l.Texts = []string{as.String()}
	case len(l.Texts) == 0: // one line, and nothing that joins it
		l.Texts = []string{t.d.Named("or", refs)}
	}
}

// tree returns what a part says as it is typed, under which numbers, and what is left of it: lines that cannot be
// said are left out, as they are in the strategy. nil where nothing is left.
func (t *typist) tree(x Tree, l *TypedLine) (query.Expr, []int, Tree) {
	if x.Query != nil {
		said, notes := t.by.Said(x.Query)
		w := t.d.Print(said, notes)
		l.Notes = append(l.Notes, w.Notes...)
		var refs []int
		for _, text := range w.Queries {
			l.Texts = append(l.Texts, text)
			refs = append(refs, t.last+len(l.Texts))
		}
		return w.Said, refs, Tree{Query: w.Said}
	}
	if x.Join == "" {
		return t.said[x.Number], t.typed[x.Number], x
	}
	var parts []query.Expr
	var numbers []int
	left := Tree{Join: x.Join}
	for i, p := range x.Parts {
		if x.Join == "not" && i > 0 && len(t.d.Operators.Not) == 0 {
			l.Notes = append(l.Notes, dialect.Note{Code: dialect.NoNot, Term: "NOT " + p.String()})
			continue
		}
		said, refs, as := t.tree(p, l)
		switch {
		case said == nil && (!p.Whole() || i == 0 && x.Join == "not"):
			return nil, nil, left
		case said == nil:
			continue
		}
		if len(refs) > 1 && x.Join != "or" {
			l.Texts = append(l.Texts, t.d.Named("or", refs))
			refs = []int{t.last + len(l.Texts)}
		}
		parts, numbers, left.Parts = append(parts, said), append(numbers, refs...), append(left.Parts, as)
	}
	if len(parts) == 0 {
		return nil, nil, left
	}
	if len(left.Parts) == 1 {
		return parts[0], numbers, left.Parts[0]
	}
	l.Texts = append(l.Texts, t.d.Named(x.Join, numbers))
	return together(x.Join, parts), []int{t.last + len(l.Texts)}, left
}

// together joins what lines say. Alternatives of an alternative stand beside it: as one query they need no brackets.
func together(join string, parts []query.Expr) query.Expr {
	if join != "or" {
		return dialect.Joined(join, parts)
	}
	var all []query.Expr
	for _, p := range parts {
		if more, ok := p.(query.Or); ok {
			all = append(all, more...)
		} else {
			all = append(all, p)
		}
	}
	return dialect.Joined(join, all)
}

// NotesOf returns what a dialect cannot say of a line and of all that it is put together of, each once.
func (t *Typed) NotesOf(line TypedLine) []dialect.Note {
	var all []dialect.Note
	var put func(l TypedLine)
	number := func(n int) {
		if n > 0 && n <= len(t.Lines) {
			put(t.Lines[n-1])
		} else if n -= len(t.Lines) + 1; n >= 0 && n < len(t.Own) {
			put(t.Own[n])
		}
	}
	var tree func(x Tree)
	tree = func(x Tree) {
		number(x.Number)
		for _, p := range x.Parts {
			tree(p)
		}
	}
	put = func(l TypedLine) {
		for _, n := range l.Of.Parts {
			number(n)
		}
		if l.Of.Tree != nil {
			tree(*l.Of.Tree)
		}
		all = append(all, l.Notes...)
	}
	put(line)
	return slices.DeleteFunc(eachOnce(all), dialect.Note.OfLength)
}

// eachOnce returns notes without those that say the same; how long texts are is of each.
func eachOnce(notes []dialect.Note) []dialect.Note {
	out := []dialect.Note{}
	seen := map[[3]string]bool{}
	for _, n := range notes {
		if key := [3]string{n.Code, n.Term, n.Instead}; n.OfLength() || !seen[key] {
			seen[key] = true
			out = append(out, n)
		}
	}
	return out
}

// Text returns the strategy as it is typed: line by line or as its queries.
func (t *Typed) Text(d *dialect.Dialect) string {
	if d.Typed != dialect.AsLines {
		return t.Whole.Text()
	}
	var b strings.Builder
	for _, l := range t.Lines {
		for i, s := range l.Texts {
			fmt.Fprintf(&b, "%d\t%s\n", l.Numbers[i], s)
		}
	}
	return strings.TrimSuffix(b.String(), "\n")
}

// Notes returns what a dialect cannot say of a strategy as it is typed, each once.
func (t *Typed) Notes(d *dialect.Dialect) []dialect.Note {
	if d.Typed != dialect.AsLines {
		return t.Whole.Notes
	}
	var out []dialect.Note
	for _, l := range t.Lines {
		out = append(out, l.Notes...)
	}
	return eachOnce(out)
}
