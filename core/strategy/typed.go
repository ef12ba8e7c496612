package strategy

import (
	"fmt"
	"strings"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/thesaurus"
)

// A Typed is a strategy in a dialect: as numbered lines, and as one query.
type Typed struct {
	Lines []TypedLine
	Whole dialect.Written // no query where the strategy finds nothing
	Own   []TypedLine     // lines that were put together; they are typed behind the strategy, where somebody wants to
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

// Typed writes a strategy in a dialect, with lines that were put together of its own. Where it is typed line by line, lines that cannot be said are left out and the rest
// is numbered anew.
func (s Strategy) Typed(d *dialect.Dialect, vocabulary *thesaurus.Thesaurus, o dialect.Options, own ...Numbered) (*Typed, error) {
	lines, err := s.Numbered(vocabulary)
	if err != nil {
		return nil, err
	}
	worded, whole := s.worded(d, vocabulary)
	t := typist{d: d, o: o, said: map[int]query.Expr{}, typed: map[int][]int{}}
	out := &Typed{}
	for _, n := range lines {
		line := TypedLine{Of: n, Notes: []dialect.Note{}}
		own, is := worded[n.Block]
		switch {
		case is && line.worded(own, n, lines, d, o):
		case len(n.Parts) > 0:
			t.joined(n, &line)
		default:
			w := d.Write(n.Expr, o)
			line.Said, line.Notes, line.Texts = w.Said, w.Notes, w.Queries
		}
		if is && own.says == nil && ofBlock(n, lines) {
			line.Notes = append(line.Notes, own.note)
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
	if q, err := whole.Query(vocabulary); err == nil {
		out.Whole = d.Write(q, o)
	}
	return out, nil
}

type typist struct {
	d     *dialect.Dialect
	o     dialect.Options
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

// joined writes a line that joins others by their numbers.
func (t *typist) joined(n Numbered, l *TypedLine) {
	var parts []query.Expr
	var refs [][]int
	for i, p := range n.Parts {
		if t.said[p] == nil {
			if i == 0 && n.Join == "not" {
				return
			}
			continue
		}
		parts, refs = append(parts, t.said[p]), append(refs, t.typed[p])
	}
	if len(parts) == 0 {
		return
	}
	l.Said = dialect.Joined(n.Join, parts)
	if t.d.Typed != dialect.AsLines {
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
	said, refs := t.tree(*n.Tree, l)
	if said == nil {
		return
	}
	l.Said = said
	switch {
	case n.Tree.Query != nil: // it is typed already
	case t.d.Typed != dialect.AsLines:
		l.Texts = []string{n.Joined()}
	case len(l.Texts) == 0: // one line, and nothing that joins it
		l.Texts = []string{t.d.Named("or", refs)}
	}
}

// tree returns what a part says as it is typed, and under which numbers; nil where a line of it is not typed.
func (t *typist) tree(x Tree, l *TypedLine) (query.Expr, []int) {
	if x.Query != nil {
		w := t.d.Write(x.Query, t.o)
		l.Notes = append(l.Notes, w.Notes...)
		var refs []int
		for _, text := range w.Queries {
			l.Texts = append(l.Texts, text)
			refs = append(refs, t.last+len(l.Texts))
		}
		return w.Said, refs
	}
	if x.Join == "" {
		return t.said[x.Number], t.typed[x.Number]
	}
	var parts []query.Expr
	var numbers []int
	for _, p := range x.Parts {
		said, refs := t.tree(p, l)
		if said == nil {
			return nil, nil
		}
		if len(refs) > 1 && x.Join != "or" {
			l.Texts = append(l.Texts, t.d.Named("or", refs))
			refs = []int{t.last + len(l.Texts)}
		}
		parts, numbers = append(parts, said), append(numbers, refs...)
	}
	l.Texts = append(l.Texts, t.d.Named(x.Join, numbers))
	return dialect.Joined(x.Join, parts), []int{t.last + len(l.Texts)}
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
	out := []dialect.Note{}
	for _, l := range t.Lines {
		out = append(out, l.Notes...)
	}
	return out
}

// Said returns what the strategy finds as it is typed; nil where nothing of it can be said.
func (t *Typed) Said(d *dialect.Dialect) query.Expr {
	if d.Typed != dialect.AsLines {
		return t.Whole.Said
	}
	if len(t.Lines) == 0 {
		return nil
	}
	return t.Lines[len(t.Lines)-1].Said
}
