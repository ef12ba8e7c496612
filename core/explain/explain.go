// Package explain tells what a query that somebody wrote says: its lines in words, its blocks as a strategy has them, what
// of it no term can say, and what is wrong with it, over records where there are some.
package explain

import (
	"context"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
)

// Over is what a query is looked at over. All of it may be missing.
type Over struct {
	Set     coverage.Set
	Keys    coverage.Set
	Company func() (*company.Company, error) // of the set; asked only where two terms are compared
	Earlier []*thesaurus.Thesaurus           // editions of the vocabulary before this one, the latest first
	// Elsewhere says that headings are of another vocabulary than that of the records: these say nothing of what they find.
	Elsewhere bool
}

// An Explained is what a query says. Places are in code points of its text.
type Explained struct {
	Dialect  string           `json:"dialect"`
	Text     string           `json:"text"`
	Lines    []Line           `json:"lines"`
	Blocks   []strategy.Block `json:"blocks"`
	Limits   []strategy.Limit `json:"limits"`
	Verbatim []Verbatim       `json:"verbatim"`
	Findings []Finding        `json:"findings"`
	Trees    []Part           `json:"-"` // the lines, each as a tree
}

// A Line is one line of a query as it was written, with what it says in words.
type Line struct {
	Number  int    `json:"n"`
	Query   string `json:"query"`
	CQL     string `json:"cql,omitempty"` // what it says, where CQL can; it can be kept as a line then
	Says    string `json:"says"`
	From    int    `json:"from"`
	To      int    `json:"to"`
	Records *int   `json:"records,omitempty"`
	Keys    *int   `json:"keys,omitempty"`
}

// A Verbatim is a part of a query that no term says. It stays as it was written.
type Verbatim struct {
	Block   string `json:"block,omitempty"` // the block it belongs to, by its name; "": the whole
	Query   string `json:"query"`
	CQL     string `json:"cql,omitempty"` // what it says, where CQL can; it can be kept as a line then
	Says    string `json:"says"`
	From    int    `json:"from"`
	To      int    `json:"to"`
	Records *int   `json:"records,omitempty"`
}

// A Finding is something wrong with a query. Mend is what should stand in its place; nil where nothing can be proposed.
type Finding struct {
	Code    string  `json:"code"`
	From    int     `json:"from"`
	To      int     `json:"to"`
	Why     string  `json:"why"`
	Records *int    `json:"records"`        // what it does, in records
	Keys    *int    `json:"keys,omitempty"` // of these or beside them: key studies
	Mend    *string `json:"mend"`
}

// The findings about what a query says; those about how it is written are the dialect's.
const (
	AndAmongSynonyms = "and-among-synonyms"
	OrAmongConcepts  = "or-among-concepts"
	FindsNothing     = "finds-nothing"
	Misspelt         = "misspelt"
	InsideAnother    = "inside-another"
	OneSpelling      = "one-spelling"
	HeadingUnknown   = "heading-unknown"
	HeadingRenamed   = "heading-renamed"
	HeadingBelow     = "heading-below-another"
	LimitOnIndexing  = "limit-on-indexing"
	NotDrops         = "not-drops"
	Duplicate        = "duplicate"
)

// Explain tells what was read. It looks at ctx as it goes.
func Explain(ctx context.Context, r *dialect.Reading, over Over) (*Explained, error) {
	e := &explainer{ctx: ctx, r: r, over: over, lines: map[int]*dialect.TextLine{}, hits: map[*dialect.Node]*roaring.Bitmap{}, spent: map[*dialect.Node]bool{}}
	for i := range r.Lines {
		e.lines[r.Lines[i].Number] = &r.Lines[i]
	}
	out := &Explained{Dialect: r.Dialect.Name, Text: string(r.Text), Lines: []Line{}, Blocks: []strategy.Block{}, Limits: []strategy.Limit{}, Verbatim: []Verbatim{}, Findings: []Finding{}}
	for i, l := range r.Lines {
		line := Line{Number: l.Number, From: l.From, To: l.To, Query: r.Of(l.From, l.To), Says: e.says(l.Tree)}
		if !r.Numbered {
			line.Number = i + 1
		}
		if l.Expr != nil {
			line.Records, line.Keys = e.counts(l.Expr)
		}
		out.Lines = append(out.Lines, line)
	}
	out.Trees = e.trees()
	e.blocks(out)
	for _, f := range r.Findings {
		found := Finding{Code: f.Code, From: f.From, To: f.To, Why: f.Why, Mend: f.Mend}
		e.readings(&found, f.Readings)
		out.Findings = append(out.Findings, found)
	}
	for i := range r.Lines {
		if err := e.look(r.Lines[i].Tree); err != nil {
			return nil, err
		}
	}
	for i := range r.Lines {
		if err := e.joined(r.Lines[i].Tree); err != nil {
			return nil, err
		}
	}
	for _, n := range e.leaves {
		e.nothing(n)
	}
	e.whole()
	if e.err != nil {
		return nil, e.err
	}
	out.Findings = append(out.Findings, e.found...)
	for i, f := range out.Findings { // what changes nothing mends nothing
		if f.Mend != nil && strings.Join(strings.Fields(*f.Mend), " ") == strings.Join(strings.Fields(r.Of(f.From, f.To)), " ") {
			out.Findings[i].Mend = nil
		}
	}
	slices.SortStableFunc(out.Findings, func(a, b Finding) int { return a.From - b.From })
	return out, ctx.Err()
}

type explainer struct {
	ctx    context.Context
	err    error
	r      *dialect.Reading
	over   Over
	lines  map[int]*dialect.TextLine
	hits   map[*dialect.Node]*roaring.Bitmap
	spent  map[*dialect.Node]bool // told as a mistake of its own, so that nothing more is said of it
	found  []Finding
	less   bool // what is looked at is taken away by NOT
	leaves []*dialect.Node

	words *index.Words
	whom  *company.Company
	asked bool
}

func (e *explainer) find(code string, n *dialect.Node, records *int, mend *string, why string) {
	e.found = append(e.found, Finding{Code: code, From: n.From, To: n.To, Why: why, Records: records, Mend: mend})
}

func (e *explainer) set() bool { return e.over.Set.Index != nil }

// counts returns how many records and key studies an expression finds; nil where there are none to look at.
func (e *explainer) counts(q query.Expr) (records, keys *int) {
	if e.set() {
		n := int(e.within(q).GetCardinality())
		records = &n
	}
	if e.over.Keys.Index != nil {
		n := int(q.Match(e.over.Keys.Index).GetCardinality())
		keys = &n
	}
	return records, keys
}

// match returns what a part of the query finds; nil where that is not known.
func (e *explainer) match(n *dialect.Node) *roaring.Bitmap {
	if !e.set() || n == nil {
		return nil
	}
	if found, ok := e.hits[n]; ok {
		return found
	}
	var found *roaring.Bitmap
	switch n.Op {
	case "or", "and", "not": // of what its parts find, so that each of them is looked for once, however deep it stands
		found = e.combined(n)
	default:
		if q := e.expr(n); q != nil {
			found = e.within(q)
		}
	}
	e.hits[n] = found
	return found
}

// combined puts together what the parts of a node find. A part of which nothing can be searched is passed over; where that is what
// others are taken away from, nothing is known.
func (e *explainer) combined(n *dialect.Node) *roaring.Bitmap {
	var out *roaring.Bitmap
	for i, p := range n.Parts {
		found := e.match(p)
		switch {
		case found == nil && i == 0 && n.Op == "not":
			return nil
		case found == nil:
		case out == nil:
			out = found.Clone()
		case n.Op == "or":
			out.Or(found)
		case n.Op == "and":
			out.And(found)
		default:
			out.AndNot(found)
		}
	}
	return out
}

// expr returns what a part of the query looks for; nil where nothing of it can be searched.
func (e *explainer) expr(n *dialect.Node) query.Expr {
	if n == nil {
		return nil
	}
	switch n.Op {
	case dialect.Unread:
		return nil
	case dialect.Leaf, "near":
		return n.Expr
	}
	var parts []query.Expr
	if n.Op == dialect.Line {
		for _, ref := range n.Refs {
			if l := e.lines[ref]; l != nil && l.Expr != nil {
				parts = append(parts, l.Expr)
			}
		}
		return dialect.Joined(n.Join, parts)
	}
	for i, p := range n.Parts {
		q := e.expr(p)
		if q == nil && i == 0 && n.Op == "not" {
			return nil
		}
		if q != nil {
			parts = append(parts, q)
		}
	}
	return dialect.Joined(n.Op, parts)
}

// readings says what two readings of mixed operators find.
func (e *explainer) readings(f *Finding, readings []query.Expr) {
	if len(readings) != 2 || !e.set() || readings[0] == nil || readings[1] == nil {
		return
	}
	taken, other := e.within(readings[0]), e.within(readings[1])
	f.Why += ". As taken it finds " + number(taken.GetCardinality()) + ", otherwise " + number(other.GetCardinality())
	n := int(roaring.Xor(taken, other).GetCardinality())
	f.Records = &n
}

// at follows a node that is but the number of a line to what that line says.
func (e *explainer) at(n *dialect.Node) *dialect.Node {
	for range len(e.lines) + 1 {
		if n == nil || n.Op != dialect.Line || len(n.Refs) != 1 || e.lines[n.Refs[0]] == nil || e.lines[n.Refs[0]].Expr == nil {
			return n
		}
		n = e.lines[n.Refs[0]].Tree
	}
	return n
}

// parts returns what a node joins, with what is joined likewise inside it drawn in. A line that is named again and again, as where
// lines lead back to themselves, is drawn in twice: that tells that it stands there doubly.
func (e *explainer) parts(n *dialect.Node, op string) (out []*dialect.Node) {
	drawn := map[int]int{}
	line := func(ref int) *dialect.Node {
		l := e.lines[ref]
		if l == nil || l.Expr == nil || drawn[ref] == 2 {
			return nil
		}
		drawn[ref]++
		return l.Tree
	}
	var walk func(n *dialect.Node, depth int)
	walk = func(n *dialect.Node, depth int) {
		switch {
		case n == nil || depth > 200:
		case n.Op == dialect.Line && (n.Join == op || len(n.Refs) == 1):
			for _, ref := range n.Refs {
				walk(line(ref), depth+1)
			}
		case n.Op == op && !n.Loose:
			for _, p := range n.Parts {
				walk(p, depth+1)
			}
		default:
			out = append(out, n)
		}
	}
	walk(n, 0)
	return out
}
