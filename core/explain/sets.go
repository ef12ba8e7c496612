package explain

import (
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/text"
)

// roaringOf returns what any of several parts finds.
func roaringOf(e *explainer, nodes []*dialect.Node) *roaring.Bitmap {
	out := roaring.New()
	for _, n := range nodes {
		if m := e.match(n); m != nil {
			out.Or(m)
		}
	}
	return out
}

// anded writes an OR of two concepts as their AND, where each of its parts belongs to one of the two and stands in
// the same text.
func (e *explainer) anded(n *dialect.Node, first, second []*dialect.Node) *string {
	d := e.r.Dialect
	if n.Op != "or" || len(first)+len(second) != len(n.Parts) || d.Brackets.Open == "" && len(n.Parts) > 2 {
		return nil
	}
	write := func(nodes []*dialect.Node) (string, bool) {
		var out []string
		for _, p := range nodes {
			if !slices.Contains(n.Parts, p) {
				return "", false
			}
			out = append(out, e.r.Of(p.From, p.To))
		}
		s := strings.Join(out, " "+d.Operators.Or[0]+" ")
		if len(out) > 1 {
			s = d.Brackets.Open + s + d.Brackets.Shut
		}
		return s, true
	}
	a, okA := write(first)
	b, okB := write(second)
	if !okA || !okB {
		return nil
	}
	s := a + " " + d.Operators.And[0] + " " + b
	if n.Held {
		s = d.Brackets.Open + s + d.Brackets.Shut
	}
	return &s
}

// within returns the records that count which an expression finds.
func (e *explainer) within(q query.Expr) *roaring.Bitmap {
	found := q.Match(e.over.Set.Index)
	if e.over.Set.Within != nil {
		found.And(e.over.Set.Within)
	}
	return found
}

// phraseHits returns the records that count which hold a phrase.
func (e *explainer) phraseHits(p text.Pattern, fields bib.Field) *roaring.Bitmap {
	return e.within(query.Phrase{Pattern: p, Fields: fields})
}

// holds returns how many of the records that count hold a phrase.
func (e *explainer) holds(p text.Pattern, fields bib.Field) int {
	return e.sample.holds(query.Phrase{Pattern: p, Fields: fields})
}
