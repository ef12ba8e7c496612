package strategy

import (
	"fmt"
	"strings"

	"tamiz/core/query"
	"tamiz/core/thesaurus"
)

// The kinds of numbered lines.
const (
	TermLine  = "term"
	BlockLine = "block" // terms, joined by or
	LimitLine = "limit"
	WholeLine = "whole" // blocks and limits, joined by and; or that less the NOT blocks
	OwnLine   = "own"   // lines that somebody put together: no part of the strategy
)

// A Numbered is one line of a strategy as it is written line by line: a term, a limit, or earlier lines joined.
type Numbered struct {
	Number int
	Kind   string
	Block  int // of a term or a block, by place; else -1
	Term   int // of a term, by place in its block; else -1
	Limit  int // of a limit, by place; else -1
	Parts  []int
	Join   string     // or, and, not: what the parts are joined by
	Expr   query.Expr // what it finds, written out

	Own  int   // of lines that were put together, by place
	Tree *Tree // of them, how
}

// Numbered returns the lines of a strategy: the terms of each searched block that are switched on, what they are
// together, the limits, and the whole as the last. A block of one term, and a whole of one block, is no line of its
// own. Where the strategy finds nothing, there is no whole.
func (s Strategy) Numbered(vocabulary *thesaurus.Thesaurus) ([]Numbered, error) {
	if err := s.writable(vocabulary); err != nil {
		return nil, err
	}
	var out []Numbered
	put := func(n Numbered) int {
		n.Number = len(out) + 1
		out = append(out, n)
		return n.Number
	}
	joined := func(kind, join string, block int, parts []int) int {
		if len(parts) == 1 {
			return parts[0]
		}
		exprs := make([]query.Expr, len(parts))
		for i, p := range parts {
			exprs[i] = out[p-1].Expr
		}
		n := Numbered{Kind: kind, Block: block, Term: -1, Limit: -1, Parts: parts, Join: join}
		n.Expr = joinedExpr(join, exprs)
		return put(n)
	}
	var all, less []int
	empty := false
	terms := func(i int) (numbers []int, err error) {
		b := s.Blocks[i]
		for _, j := range inOrder(b, s.Order) {
			q, err := b.Terms[j].QueryIn(vocabulary)
			if err != nil {
				return nil, fmt.Errorf("block %s: %w", b.Name, err)
			}
			numbers = append(numbers, put(Numbered{Kind: TermLine, Block: i, Term: j, Limit: -1, Expr: q}))
		}
		return numbers, nil
	}
	together := func(i int, numbers []int) {
		switch b := s.Blocks[i]; {
		case len(numbers) == 0:
			empty = empty || !b.Negated
		case b.Negated:
			less = append(less, joined(BlockLine, "or", i, numbers))
		default:
			all = append(all, joined(BlockLine, "or", i, numbers))
		}
	}
	later := map[int][]int{} // the terms of each block, where those of all stand first
	for i, b := range s.Blocks {
		if !b.Searched {
			continue
		}
		numbers, err := terms(i)
		if err != nil {
			return nil, err
		}
		if s.Order == TermsFirst {
			later[i] = numbers
		} else {
			together(i, numbers)
		}
	}
	for i, b := range s.Blocks {
		if b.Searched && s.Order == TermsFirst {
			together(i, later[i])
		}
	}
	found := len(all) > 0 && !empty
	for i, l := range s.Limits {
		q, err := l.Query(vocabulary)
		if err != nil {
			return nil, fmt.Errorf("the limit on %s: %w", l.Kind, err)
		}
		if n := put(Numbered{Kind: LimitLine, Block: -1, Term: -1, Limit: i, Expr: q}); l.KeepsOut() {
			less = append(less, n)
		} else {
			all = append(all, n)
		}
	}
	if !found {
		return out, nil
	}
	whole := joined(WholeLine, "and", -1, all)
	if len(less) > 0 {
		joined(WholeLine, "not", -1, append([]int{whole}, less...))
	}
	return out, nil
}

// TakenAway reports whether what a line finds is taken away by NOT where the strategy is put together.
func (s Strategy) TakenAway(n Numbered) bool {
	switch n.Kind {
	case TermLine, BlockLine:
		return s.Blocks[n.Block].Negated
	case LimitLine:
		return s.Limits[n.Limit].KeepsOut()
	}
	return false
}

// inOrder returns the places of the terms of a block that are switched on, in the order in which they are numbered.
func inOrder(b Block, order string) (out []int) {
	for _, headings := range []bool{true, false} {
		for j, t := range b.Terms {
			if t.On && (order != HeadingsLead && headings || order == HeadingsLead && (t.Kind == HeadingTerm) == headings) {
				out = append(out, j)
			}
		}
	}
	return out
}

// Joined returns how a line that joins others is written: their numbers, a run of them by its ends.
func (n Numbered) Joined() string {
	if n.Tree != nil {
		return n.Tree.String()
	}
	tree := Tree{Join: n.Join}
	for _, p := range n.Parts {
		tree.Parts = append(tree.Parts, Tree{Number: p})
	}
	return tree.String()
}

// A Line is one numbered line of a strategy: a term in CQL, or earlier lines joined by their numbers.
type Line struct {
	Number int
	Text   string
}

// Lines returns the strategy as numbered lines, with the terms in CQL.
func (s Strategy) Lines(vocabulary *thesaurus.Thesaurus) ([]Line, error) {
	if _, err := s.written(vocabulary); err != nil {
		return nil, err
	}
	all, err := s.Numbered(vocabulary)
	if err != nil {
		return nil, err
	}
	out := make([]Line, len(all))
	for i, n := range all {
		text := ""
		switch {
		case len(n.Parts) > 0:
			text = n.Joined()
		case n.Kind == TermLine:
			text = quoted(query.Write(n.Expr))
		default:
			text = query.Write(n.Expr)
		}
		out[i] = Line{n.Number, text}
	}
	return out, nil
}

// quoted keeps a term that is a number alone from being taken for the number of a line.
func quoted(term string) string {
	if term != "" && strings.Trim(term, "0123456789") == "" {
		return `"` + term + `"`
	}
	return term
}
