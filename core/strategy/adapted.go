package strategy

import (
	"strings"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Manner is how a strategy is said somewhere.
type Manner struct {
	Dialect *dialect.Dialect
	Options dialect.Options
	Carry   *Carrying // nil where headings are of the strategy's own vocabulary, or there are none
}

// Carrying is how headings are taken over to another vocabulary.
type Carrying struct {
	Stands map[string][]string  // by a heading, as text.Label writes it: what stands for it there
	Terms  *thesaurus.Thesaurus // the other vocabulary; nil where the program does not have it
}

// An adaptation is what each line of a strategy says in a manner, the nearest that can be said in full. Lines, the
// whole query, what is run and what is counted are all written from it.
type adaptation struct {
	Manner
	from, as   Strategy             // as it is meant, and with its headings in the other vocabulary
	own, other *thesaurus.Thesaurus // of the two
	lines      []Numbered
	worded     map[int]wording
	said       map[int]saying   // by the number of a line that joins no others
	at         map[[2]int]int   // the number of the line of a term, by the places of its block and its own
	words      map[int]bool     // by the place of a block: something is said there that stands in for nothing
	beside     map[besides]bool // what the lines of each block say
	finds      bool             // the strategy finds something
}

// A besides is what a line of a block says, as it is written: of many it is found at once.
type besides struct {
	block int
	says  string
}

// A saying is what a line says; nil where it says nothing.
type saying struct {
	expr  query.Expr
	notes []dialect.Note
}

func (s Strategy) adapted(m Manner, vocabulary *thesaurus.Thesaurus) (*adaptation, error) {
	a := &adaptation{
		Manner: m,
		from:   s,
		as:     s,
		own:    vocabulary,
		other:  vocabulary,
		said:   map[int]saying{},
		at:     map[[2]int]int{},
		words:  map[int]bool{},
		beside: map[besides]bool{},
	}
	if m.Carry != nil {
		a.as, _ = s.Carry(m.Carry.Stands)
		a.other = m.Carry.Terms
	}
	var err error
	if a.lines, err = a.as.Numbered(a.other); err != nil {
		return nil, err
	}
	a.worded = a.as.worded(m.Dialect, a.other)
	_, err = a.as.Query(a.other)
	a.finds = err == nil
	// What stands in for headings is said last: it goes by what is said beside it.
	for _, stands := range []bool{false, true} {
		for _, n := range a.lines {
			if len(n.Parts) > 0 || a.leftOut(n) || a.standsIn(n) != stands {
				continue
			}
			said := a.line(n)
			a.said[n.Number] = said
			if n.Block < 0 {
				continue
			}
			a.at[[2]int{n.Block, n.Term}] = n.Number
			if said.expr != nil {
				a.words[n.Block] = a.words[n.Block] || !stands
				a.beside[besides{n.Block, query.Write(said.expr)}] = true
			}
		}
	}
	return a, nil
}

// leftOut reports whether a line is of what is taken away where nothing can be.
func (a *adaptation) leftOut(n Numbered) bool {
	return len(a.Dialect.Operators.Not) == 0 && a.as.TakenAway(n)
}

// standsIn reports whether what a line says stands in for a heading.
func (a *adaptation) standsIn(n Numbered) bool {
	if n.Term < 0 {
		return false
	}
	_, heading := n.Expr.(query.Heading)
	return a.from.Blocks[n.Block].Terms[n.Term].Kind == HeadingTerm &&
		(a.Carry != nil || heading && a.Dialect.Headings == nil)
}

// line says one that joins no others.
func (a *adaptation) line(n Numbered) saying {
	o := a.Options
	stands := a.standsIn(n)
	o.Beside = stands && a.Dialect.Headings == nil && a.words[n.Block]
	expr, notes := a.Dialect.Adapt(n.Expr, o)
	if stands && expr != nil && a.beside[besides{n.Block, query.Write(expr)}] {
		once := dialect.SaidOnce(n.Expr, expr)
		once.Term = a.from.Blocks[n.Block].Terms[n.Term].String()
		return saying{nil, []dialect.Note{once}}
	}
	if expr != nil && a.Carry != nil {
		notes = append(a.carried(n, expr), notes...)
	}
	return saying{expr, notes}
}

// Term writes a term of a block as a line of it, on or off: as it is, or would be, said beside what is on.
func (t *Typed) Term(block, term int) dialect.Written {
	a := t.by
	if number, on := a.at[[2]int{block, term}]; on {
		return a.Dialect.Print(a.said[number].expr, a.said[number].notes)
	}
	q, err := a.as.Blocks[block].Terms[term].QueryIn(a.other)
	if err != nil {
		return dialect.Written{}
	}
	said := a.line(Numbered{Kind: TermLine, Block: block, Term: term, Limit: -1, Expr: q})
	return a.Dialect.Print(said.expr, said.notes)
}

// Together writes what a block finds as one query: its terms that are on, whether they let in or take away.
func (t *Typed) Together(block int) dialect.Written {
	for _, l := range t.Lines {
		if l.Of.Block == block && ofBlock(l.Of, t.by.lines) {
			return t.Line(l)
		}
	}
	return dialect.Written{}
}

// Line writes what a line says as one query, whatever it is put together of.
func (t *Typed) Line(l TypedLine) dialect.Written { return t.by.Dialect.Print(l.Said, t.NotesOf(l)) }

// Said returns what is said of a query that is no part of a strategy, nil where nothing is.
func (m Manner) Said(q query.Expr) (query.Expr, []dialect.Note) {
	if m.Carry == nil {
		return m.Dialect.Adapt(q, m.Options)
	}
	as, all, err := CarryQuery(q, m.Carry.Stands, m.Carry.Terms, false)
	if err != nil {
		return nil, []dialect.Note{{Code: dialect.NoWriting, Term: query.Write(q)}}
	}
	said, notes := m.Dialect.Adapt(as, m.Options)
	var carried []dialect.Note
	for _, h := range all {
		carried = append(carried, carriedNote("["+h.Heading+"]", h.Heading, h.To, h.Away))
	}
	return said, append(carried, notes...)
}

// carried says of a line what stands for its headings there; said is what it says.
func (a *adaptation) carried(n Numbered, said query.Expr) (out []dialect.Note) {
	switch {
	case n.Kind == TermLine && a.from.Blocks[n.Block].Terms[n.Term].Kind == HeadingTerm:
		t := a.from.Blocks[n.Block].Terms[n.Term]
		note := carriedNote(t.String(), t.Heading, a.Carry.Stands[text.Label(t.Heading)], a.from.TakenAway(n))
		if meant, err := t.QueryIn(a.own); err == nil && note.Code != dialect.CarriedOver {
			note.Meant, note.Said = meant, said
		}
		out = append(out, note)
	case n.Kind == LimitLine:
		l := a.from.Limits[n.Limit]
		for i, h := range l.Headings() {
			t := Term{Kind: HeadingTerm, Heading: h, Narrower: true}
			out = append(out, carriedNote(t.String(), h, a.Carry.Stands[text.Label(h)], l.Away(i)))
		}
	}
	return out
}

func carriedNote(term, heading string, to []string, away bool) dialect.Note {
	switch {
	case len(to) > 0:
		return dialect.Note{Code: dialect.CarriedOver, Term: term, Instead: strings.Join(to, " or ")}
	case away:
		return dialect.Note{Code: dialect.TakesAway, Term: term, Instead: strings.Join(text.Tokens(heading), " ")}
	}
	return dialect.Note{Code: dialect.NoCounterpart, Term: term, Instead: strings.Join(text.Tokens(heading), " ")}
}
