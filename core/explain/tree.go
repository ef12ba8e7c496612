package explain

import "tamiz/core/dialect"

// A Part is a part of a query as it was written, with what it is made of.
type Part struct {
	Op      string `json:"op"` // or, and, not, near, line, unread; "" is a term
	From    int    `json:"from"`
	To      int    `json:"to"`
	Query   string `json:"query"` // of a term, a pair, a line; of others see Parts
	Says    string `json:"says,omitempty"`
	Records *int   `json:"records,omitempty"`
	Parts   []Part `json:"parts,omitempty"`
	More    int    `json:"more,omitempty"` // parts that are left out, since there are too many
}

const (
	mostParts = 3000 // of a query that are shown one by one
	deepest   = 60   // how deep they stand in each other: what shows them must be able to
)

// trees returns the lines of a query as trees; a node with nothing in it, where a line says nothing that can be read.
func (e *explainer) trees() []Part {
	left := mostParts
	out := make([]Part, len(e.r.Lines))
	for i, l := range e.r.Lines {
		if l.Tree == nil {
			out[i] = Part{Op: dialect.Unread, From: l.From, To: l.To, Query: e.r.Of(l.From, l.To)}
			continue
		}
		out[i] = e.part(l.Tree, &left, 0)
	}
	return out
}

func (e *explainer) part(n *dialect.Node, left *int, depth int) Part {
	*left--
	p := Part{Op: n.Op, From: n.From, To: n.To}
	if e.sample != nil {
		p.Records = e.sample.count(n)
	}
	if len(n.Parts) == 0 || n.Op == "near" {
		p.Query, p.Says = e.r.Of(n.From, n.To), e.says(n)
		return p
	}
	for i, part := range n.Parts {
		if *left <= 0 || depth == deepest {
			p.More = len(n.Parts) - i
			break
		}
		p.Parts = append(p.Parts, e.part(part, left, depth+1))
	}
	return p
}
