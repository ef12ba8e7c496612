package review

import (
	"errors"
	"fmt"
	"slices"

	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
)

// A Line is one that somebody put together of others by their numbers, to see what they find together. It is no part of
// the strategy. Its parts are those lines themselves: it goes on being of them where their numbers change.
type Line struct {
	ID   string   `json:"id"`
	Note string   `json:"note,omitempty"`
	Of   LinePart `json:"of"`
}

// A LinePart is a line that another one is put together of, or several of them joined.
type LinePart struct {
	Join  string     `json:"join,omitempty"` // and, or, not: of several, the parts
	Parts []LinePart `json:"parts,omitempty"`

	Kind  string `json:"kind,omitempty"`  // of one, what it is: term, block, limit, whole, before, line, query
	ID    string `json:"id,omitempty"`    // of a term, a block or a line; of a limit its kind
	Query string `json:"query,omitempty"` // in CQL, of what no term says
}

// The kinds of lines that others are put together of, beside those of a strategy.
const (
	BeforeNot = "before" // the blocks and limits together, before what is taken away by NOT
	OwnLine   = "line"   // another that somebody put together
	QueryLine = "query"  // no line, but a query that no term says, such as a part of one that was pasted
)

// Limits of lines that are put together of others.
const (
	MostLines     = 200 // of a review
	MostLineParts = 500 // of one
	MostLineDepth = 20
)

// Line returns the place of the line with an id, or -1.
func (d Document) Line(id string) int {
	return slices.IndexFunc(d.Lines, func(l Line) bool { return l.ID == id })
}

func (l Line) id() string { return l.ID }

func (l Line) filled() Line {
	l.Of = l.Of.filled()
	return l
}

func (p LinePart) filled() LinePart {
	parts := p.Parts
	p.Parts = nil
	for _, x := range parts {
		p.Parts = append(p.Parts, x.filled())
	}
	return p
}

// checkLines sees to it that no line can be part of itself: it is put together of those that stand before it.
func (d Document) checkLines(ids map[string]bool) error {
	if len(d.Lines) > MostLines {
		return fault("lines", "At most %d lines are put together of others; these are %d.", MostLines, len(d.Lines))
	}
	for i, l := range d.Lines {
		if l.ID == "" || ids[l.ID] {
			return fault("lines", "Each line needs an id of its own.")
		}
		ids[l.ID] = true
		if err := longest(field{"note", l.Note, MostOfNote}); err != nil {
			return err
		}
		n := 0
		if err := l.Of.check(d.Lines[i:], 0, &n); err != nil {
			return err
		}
	}
	return nil
}

// check looks at one part; later are the lines that it must not be put together of.
func (p LinePart) check(later []Line, depth int, n *int) error {
	if *n++; *n > MostLineParts || depth > MostLineDepth {
		return fault("lines", "A line is put together of at most %d parts, %d deep.", MostLineParts, MostLineDepth)
	}
	if p.Join == "" {
		switch p.Kind {
		case strategy.TermLine, strategy.BlockLine, strategy.LimitLine, strategy.WholeLine, BeforeNot, OwnLine:
		case QueryLine:
			if len([]rune(p.Query)) > strategy.MostVerbatim {
				return fault("lines", "A query of a line has at most %d characters.", strategy.MostVerbatim)
			}
			if _, err := query.Parse(p.Query, nil); err != nil {
				return fault("lines", "The query of a line cannot be read: %s", err)
			}
			return nil
		default:
			return fault("lines", "There is no line of kind %q.", p.Kind)
		}
		if p.Kind == OwnLine && slices.ContainsFunc(later, func(l Line) bool { return l.ID == p.ID }) {
			return fault("lines", "A line cannot be part of itself: it is put together of those that stand before it.")
		}
		return nil
	}
	if (p.Join != "and" && p.Join != "or" && p.Join != "not") || len(p.Parts) < 2 {
		return fault("lines", "Lines are joined by and, or, or not; two of them at least.")
	}
	for _, x := range p.Parts {
		if err := x.check(later, depth+1, n); err != nil {
			return err
		}
	}
	return nil
}

// Numbered returns the lines of the strategy as strategy.Numbered has them, and behind them those that are put
// together of others. One of these that names what is not there any more, or is switched off, has nothing that it
// finds.
func (d Document) Numbered(v *thesaurus.Thesaurus) ([]strategy.Numbered, error) {
	lines, err := d.Strategy("").Numbered(v)
	if err != nil {
		return nil, err
	}
	for i, l := range d.Lines {
		tree := d.tree(lines, l.Of, v)
		n := strategy.Numbered{
			Number: len(lines) + 1,
			Kind:   strategy.OwnLine,
			Block:  -1,
			Term:   -1,
			Limit:  -1,
			Own:    i,
			Tree:   &tree,
		}
		n.Expr = tree.Expr(lines)
		lines = append(lines, n)
	}
	return lines, nil
}

// tree returns a part by the numbers that lines have now: 0 for what has none.
func (d Document) tree(lines []strategy.Numbered, p LinePart, v *thesaurus.Thesaurus) strategy.Tree {
	if p.Join == "" && p.Kind == QueryLine {
		q, err := query.Parse(p.Query, v)
		if err != nil {
			return strategy.Tree{} // it was read when it was kept
		}
		return strategy.Tree{Query: q.Expr}
	}
	if p.Join == "" {
		i := slices.IndexFunc(lines, func(n strategy.Numbered) bool {
			is := d.partOf(lines, n, p.Kind)
			return is.Kind == p.Kind && is.ID == p.ID
		})
		return strategy.Tree{Number: i + 1}
	}
	t := strategy.Tree{Join: p.Join}
	for _, x := range p.Parts {
		t.Parts = append(t.Parts, d.tree(lines, x, v))
	}
	return t
}

// partOf returns a numbered line as what another is put together of. One line may be several: a block of one term
// is that term's line. kind is what it is wanted as; "" for what it is by itself.
func (d Document) partOf(lines []strategy.Numbered, n strategy.Numbered, kind string) LinePart {
	p := LinePart{Kind: n.Kind}
	switch n.Kind {
	case strategy.TermLine:
		b := d.Blocks[n.Block]
		p.ID = b.Terms[n.Term].ID
		alone := !slices.ContainsFunc(
			lines,
			func(x strategy.Numbered) bool { return x.Kind == strategy.BlockLine && x.Block == n.Block },
		)
		if kind == strategy.BlockLine && alone {
			p = LinePart{Kind: kind, ID: b.ID}
		}
	case strategy.BlockLine:
		p.ID = d.Blocks[n.Block].ID
	case strategy.LimitLine:
		p.ID = d.Limits[n.Limit].Kind
	case strategy.OwnLine:
		p.Kind = OwnLine
		p.ID = d.Lines[n.Own].ID
	case strategy.WholeLine:
		if slices.ContainsFunc(
			lines,
			func(x strategy.Numbered) bool { return x.Kind == strategy.WholeLine && x.Number > n.Number },
		) {
			p.Kind = BeforeNot
		}
	}
	return p
}

// A LineFault is where what somebody wrote of numbers is no line: from and to in characters.
type LineFault struct {
	From, To int
	Message  string
}

func (f *LineFault) Error() string { return f.Message }

// ReadLine reads what somebody writes of the numbers of lines, as "2 AND (5 OR 6)" or "any of 1-8", and returns it
// as what the lines are. before is the id of the line that it is to stand in place of; "" where it is to stand
// behind all. Errors are *LineFault.
func (d Document) ReadLine(v *thesaurus.Thesaurus, text, before string) (LinePart, error) {
	lines, err := d.Numbered(v)
	if err != nil {
		return LinePart{}, err
	}
	if i := d.Line(before); i >= 0 {
		lines = lines[:len(lines)-len(d.Lines)+i]
	}
	tree, err := strategy.ReadTree(text)
	if err != nil {
		var at *strategy.TreeFault
		if errors.As(err, &at) {
			return LinePart{}, &LineFault{at.From, at.To, at.Message}
		}
		return LinePart{}, err
	}
	return d.linked(lines, tree)
}

func (d Document) linked(lines []strategy.Numbered, t strategy.Tree) (LinePart, error) {
	if t.Join == "" {
		if t.Number < 1 || t.Number > len(lines) {
			return LinePart{}, &LineFault{
				t.From,
				t.To,
				fmt.Sprintf("There is no line %d before this one: there are %d.", t.Number, len(lines)),
			}
		}
		return d.partOf(lines, lines[t.Number-1], ""), nil
	}
	p := LinePart{Join: t.Join}
	for _, x := range t.Parts {
		part, err := d.linked(lines, x)
		if err != nil {
			return p, err
		}
		p.Parts = append(p.Parts, part)
	}
	return p, nil
}

// LineQuery returns what a line finds that is put together of others; nil where it names what is not there or is
// switched off.
func (d Document) LineQuery(v *thesaurus.Thesaurus, id string) query.Expr {
	lines, err := d.Numbered(v)
	if err != nil {
		return nil
	}
	for _, n := range lines {
		if n.Kind == strategy.OwnLine && d.Lines[n.Own].ID == id {
			return n.Expr
		}
	}
	return nil
}
