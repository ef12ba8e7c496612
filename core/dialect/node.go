package dialect

import "tamiz/core/query"

// What a Node is, beside what operators join.
const (
	Leaf   = ""
	Line   = "line"   // an earlier line, or several joined by Join
	Unread = "unread" // text that is nothing Tamiz knows
)

// A Node is a part of what was read, with its place in the text.
type Node struct {
	Op       string // or, and, not, near, line, unread; "" is a leaf
	From, To int    // code points
	Parts    []*Node
	Expr     query.Expr // of a leaf and a pair; of the others see Read
	Refs     []int      // lines
	Join     string     // and, or: what several lines are joined by
	Held     bool       // stands in brackets
	Marked   bool       // a term in phrase marks
	Loose    bool       // words side by side that the dialect takes one by one
	Implied  bool       // nothing stands between the parts
	Left     bool       // left out: it stands for too much
}

// Walk visits a node and all in it, from left to right.
func (n *Node) Walk(visit func(*Node)) {
	if n == nil {
		return
	}
	visit(n)
	for _, p := range n.Parts {
		p.Walk(visit)
	}
}

// A TextLine is one line of a query that was written line by line.
type TextLine struct {
	Number   int
	From, To int // code points of what it says, without its number
	Tree     *Node
	Expr     query.Expr // nil where nothing of it can be searched
}

// A Reading is what a text says.
type Reading struct {
	Dialect  *Dialect
	Text     []rune
	Lines    []TextLine // one without a number for a query that is not in lines
	Numbered bool
	Together bool // each line is a query; their records belong together
	Findings []Finding
	More     bool // there is more wrong than is told
}

// Expr returns what the whole finds: what the last line does, or any of several queries. nil where nothing of it
// can be searched.
func (r *Reading) Expr() query.Expr {
	if len(r.Lines) == 0 {
		return nil
	}
	if r.Together {
		var all []query.Expr
		for _, l := range r.Lines {
			if l.Expr != nil {
				all = append(all, l.Expr)
			}
		}
		return one(opOr, all)
	}
	return r.Lines[len(r.Lines)-1].Expr
}

// Of returns the text of a place.
func (r *Reading) Of(from, to int) string { return string(r.Text[from:to]) }

// Joined returns expressions joined by an operator; one by itself as it is, none as nil.
func Joined(op string, parts []query.Expr) query.Expr {
	if op == opNot && len(parts) > 1 {
		return query.Not(parts)
	}
	return one(op, parts)
}
