// Package explain tells what a query that somebody wrote says: its lines in words, its blocks as a strategy has
// them, what of it no term can say, and what is wrong with it, over records where there are some.
package explain

import (
	"cmp"
	"context"
	"fmt"
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
	// Elsewhere says that headings are of another vocabulary than that of the records: these say nothing of what they
	// find.
	Elsewhere bool
	// Most is how many bytes are kept of what the parts of the query find; 0 is MostKept. Of what is left it is said
	// that nothing is known.
	Most uint64
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
	MoreOf           = "more-not-told" // not all of a kind are told
)

// Explain tells what was read. It looks at ctx as it goes.
func Explain(ctx context.Context, r *dialect.Reading, over Over) (*Explained, error) {
	e := &explainer{
		ctx:    ctx,
		r:      r,
		over:   over,
		lines:  map[int]*dialect.TextLine{},
		spent:  map[*dialect.Node]bool{},
		told:   map[string]int{},
		edited: map[string][]string{},
		drags:  map[string]dragging{},
	}
	for i := range r.Lines {
		e.lines[r.Lines[i].Number] = &r.Lines[i]
	}
	if e.set() {
		e.sample = newFinder(e.lines, over.Most, e.within)
	}
	if over.Keys.Index != nil {
		e.keys = newFinder(e.lines, over.Most, func(q query.Expr) *roaring.Bitmap { return q.Match(over.Keys.Index) })
	}
	out := &Explained{
		Dialect:  r.Dialect.Name,
		Text:     string(r.Text),
		Lines:    []Line{},
		Blocks:   []strategy.Block{},
		Limits:   []strategy.Limit{},
		Verbatim: []Verbatim{},
		Findings: []Finding{},
	}
	for i, l := range r.Lines {
		line := Line{Number: l.Number, From: l.From, To: l.To, Query: r.Of(l.From, l.To), Says: e.says(l.Tree)}
		if !r.Numbered {
			line.Number = i + 1
		}
		if l.Expr != nil {
			line.Records, line.Keys = e.counts(l.Tree)
		}
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		out.Lines = append(out.Lines, line)
	}
	out.Trees = e.trees()
	e.blocks(out)
	for _, f := range r.Findings {
		found := Finding{Code: f.Code, From: f.From, To: f.To, Why: f.Why, Mend: f.Mend}
		e.readings(&found, f.Trees)
		out.Findings = append(out.Findings, found)
	}
	for i := range r.Lines {
		if err := e.look(r.Lines[i].Tree); err != nil {
			return nil, err
		}
	}
	e.drawnIn = e.inner()
	for i := range r.Lines {
		if err := e.joined(r.Lines[i].Tree); err != nil {
			return nil, err
		}
	}
	for _, n := range e.leaves {
		e.nothing(n)
	}
	e.whole()
	if err := cmp.Or(e.err, ctx.Err()); err != nil {
		return nil, err
	}
	e.untold()
	out.Findings = append(out.Findings, e.found...)
	for i, f := range out.Findings { // what changes nothing mends nothing
		if f.Mend != nil &&
			strings.Join(strings.Fields(*f.Mend), " ") == strings.Join(strings.Fields(r.Of(f.From, f.To)), " ") {
			out.Findings[i].Mend = nil
		}
	}
	slices.SortStableFunc(out.Findings, func(a, b Finding) int { return a.From - b.From })
	return out, ctx.Err()
}

type explainer struct {
	ctx     context.Context
	err     error
	r       *dialect.Reading
	over    Over
	lines   map[int]*dialect.TextLine
	sample  *finder                // nil without records
	keys    *finder                // nil without key studies
	spent   map[*dialect.Node]bool // told as a mistake of its own, so that nothing more is said of it
	found   []Finding
	told    map[string]int // findings of each kind
	less    bool           // what is looked at is taken away by NOT
	leaves  []*dialect.Node
	places  map[*dialect.Node]placed
	sought  *covers                // of the leaves
	drawnIn map[*dialect.Node]bool // parts that are drawn into others
	drawn   int                    // parts of other lines that were drawn in
	edited  map[string][]string    // words one letter from another
	drags   map[string]dragging    // by stems

	words *index.Words
	whom  *company.Company
	asked bool
}

func (e *explainer) find(code string, n *dialect.Node, records *int, mend *string, why string) {
	e.put(Finding{Code: code, From: n.From, To: n.To, Why: why, Records: records, Mend: mend})
}

func (e *explainer) put(f Finding) {
	e.found = append(e.found, f)
	e.told[f.Code]++
}

// mostTold is how many findings of one kind are told: nobody reads more, and to look for each takes its time.
const mostTold = 200

// enough reports whether no more findings of a kind are looked for.
func (e *explainer) enough(code string) bool { return e.told[code] >= mostTold }

// untold says of what kinds there may be more than are told, and where a query was too long for its records to be
// counted.
func (e *explainer) untold() {
	last := map[string]int{}
	for _, f := range e.found {
		last[f.Code] = max(last[f.Code], f.To)
	}
	for code, n := range e.told {
		if n >= mostTold {
			at := last[code]
			e.found = append(
				e.found,
				Finding{
					Code: MoreOf,
					From: at,
					To:   at,
					Why:  fmt.Sprintf("%d of this kind (%s) are told; the rest of the query was not looked through for more", n, code),
				},
			)
		}
	}
	if e.r.More {
		at := e.r.Findings[len(e.r.Findings)-1].To
		e.found = append(
			e.found,
			Finding{
				Code: MoreOf,
				From: at,
				To:   at,
				Why:  fmt.Sprintf("%d mistakes in how this is written are told; there are more behind them", len(e.r.Findings)),
			},
		)
	}
	if e.drawn >= mostDrawn {
		at := len(e.r.Text)
		e.found = append(
			e.found,
			Finding{
				Code: MoreOf,
				From: at,
				To:   at,
				Why: "the lines name each other so often that not all was set against all; what stands twice may be more " +
					"than is told",
			},
		)
	}
	if e.sample != nil && e.sample.full || e.keys != nil && e.keys.full {
		at := len(e.r.Text)
		e.found = append(
			e.found,
			Finding{
				Code: MoreOf,
				From: at,
				To:   at,
				Why: "this is too much to be counted at once; of what stands without a figure nothing was counted. In parts, " +
					"each is",
			},
		)
	}
}

func (e *explainer) set() bool { return e.over.Set.Index != nil }

// counts returns how many records and key studies a part finds; nil where there are none to look at.
func (e *explainer) counts(n *dialect.Node) (records, keys *int) {
	if e.sample != nil {
		records = e.sample.count(n)
	}
	if e.keys != nil {
		keys = e.keys.count(n)
	}
	return records, keys
}

// match returns what a part of the query finds, which is not to be changed; nil where that is not known.
func (e *explainer) match(n *dialect.Node) *roaring.Bitmap {
	if e.sample == nil {
		return nil
	}
	return e.sample.match(n)
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
func (e *explainer) readings(f *Finding, readings [2]*dialect.Node) {
	taken, other := e.match(readings[0]), e.match(readings[1])
	if taken == nil || other == nil {
		return
	}
	f.Why += ". As taken it finds " + number(taken.GetCardinality()) + ", otherwise " + number(other.GetCardinality())
	n := int(roaring.Xor(taken, other).GetCardinality())
	f.Records = &n
}

// at follows a node that is but the number of a line to what that line says.
func (e *explainer) at(n *dialect.Node) *dialect.Node {
	for range len(e.lines) + 1 {
		if n == nil || n.Op != dialect.Line || len(n.Refs) != 1 || e.lines[n.Refs[0]] == nil ||
			e.lines[n.Refs[0]].Expr == nil {
			return n
		}
		n = e.lines[n.Refs[0]].Tree
	}
	return n
}

// mostDrawn is how many parts of other lines are drawn into those that name them.
const mostDrawn = 100_000

// parts returns what a node joins, with what is joined likewise inside it drawn in. A line that is named again and
// again, as where lines lead back to themselves, is drawn in twice: that tells that it stands there doubly. Once
// enough has been drawn in, a line that is named is one part by itself.
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
	inside := 0 // how many named lines what is looked at stands in
	var walk func(n *dialect.Node)
	walk = func(n *dialect.Node) {
		switch {
		case n == nil:
		case n.Op == dialect.Line && (n.Join == op || len(n.Refs) == 1) && e.drawn < mostDrawn:
			inside++
			for _, ref := range n.Refs {
				walk(line(ref))
			}
			inside--
		case n.Op == op && !n.Loose:
			for _, p := range n.Parts {
				walk(p)
			}
		default:
			if out = append(out, n); inside > 0 {
				e.drawn++
			}
		}
	}
	walk(n)
	return out
}

// inner returns the parts joined by OR that are drawn into others so joined: what is looked at with the whole is
// not looked at again.
func (e *explainer) inner() map[*dialect.Node]bool {
	out := map[*dialect.Node]bool{}
	var put func(n *dialect.Node)
	put = func(n *dialect.Node) {
		if n == nil || out[n] {
			return
		}
		if out[n] = true; n.Op == dialect.Line && (len(n.Refs) == 1 || n.Join == "or") {
			for _, ref := range n.Refs {
				if l := e.lines[ref]; l != nil && l.Expr != nil && l.To <= n.From {
					put(l.Tree)
				}
			}
		}
	}
	for _, l := range e.r.Lines {
		l.Tree.Walk(func(n *dialect.Node) {
			switch {
			case n.Op == "or" && !n.Loose:
				for _, p := range n.Parts {
					put(p)
				}
			case n.Op == dialect.Line && n.Join == "or":
				for _, ref := range n.Refs {
					if l := e.lines[ref]; l != nil && l.Expr != nil &&
						l.To <= n.From { // of lines that lead back to themselves neither is in the other
						put(l.Tree)
					}
				}
			}
		})
	}
	return out
}
