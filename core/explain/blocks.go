package explain

import (
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

var fieldNames = map[bib.Field]string{
	bib.Text:          "text",
	bib.Title:         "title",
	bib.Abstract:      "abstract",
	bib.TitleAbstract: "titleAbstract",
	bib.Keyword:       "keyword",
	bib.Any:           "any",
}

// blocks parts what the last line says into blocks, limits and what no term can say.
func (e *explainer) blocks(out *Explained) {
	if len(e.r.Lines) == 0 {
		return
	}
	if e.r.Together { // what concepts they were parted from cannot be told: each stays as it is
		for _, l := range e.r.Lines {
			if l.Tree != nil {
				e.verbatim(out, -1, l.Tree)
			}
		}
		return
	}
	root := e.at(e.r.Lines[len(e.r.Lines)-1].Tree)
	if root == nil {
		return
	}
	negated := func(n *dialect.Node) {
		for _, less := range n.Parts[1:] {
			e.block(out, less, true)
		}
	}
	var positive func(n *dialect.Node, depth int)
	positive = func(n *dialect.Node, depth int) {
		for _, p := range e.parts(n, "and") {
			if p.Op == "not" && depth < 50 {
				positive(p.Parts[0], depth+1)
				negated(p)
				continue
			}
			e.block(out, p, false)
		}
	}
	positive(root, 0)
}

// block makes a block, or a limit, of one concept of a query.
func (e *explainer) block(out *Explained, n *dialect.Node, negated bool) {
	if l, ok := e.limitOf(n, negated); ok &&
		!slices.ContainsFunc(out.Limits, func(x strategy.Limit) bool { return x.Kind == l.Kind }) {
		out.Limits = append(out.Limits, l)
		return
	}
	parts := e.parts(n, "or")
	if len(out.Blocks) == strategy.MaxBlocks {
		e.verbatim(out, -1, n)
		return
	}
	b := strategy.Block{
		Name:     string(rune('A' + len(out.Blocks))),
		Searched: true,
		Negated:  negated,
		Terms:    []strategy.Term{},
	}
	var rest []*dialect.Node
	seen := map[string]bool{}
	for _, p := range parts {
		terms, ok := e.terms(p)
		if !ok || len(b.Terms)+len(terms) > strategy.MaxTerms {
			rest = append(rest, p)
			continue
		}
		for _, t := range terms {
			if key := t.String() + " " + t.Field; !seen[key] {
				seen[key] = true
				b.Terms = append(b.Terms, t)
			}
		}
	}
	at := len(out.Blocks)
	if len(b.Terms) == 0 {
		at = -1
	} else {
		b.Concept = b.Terms[0].String()
		out.Blocks = append(out.Blocks, b)
	}
	for _, p := range rest {
		e.verbatim(out, at, p)
	}
}

func (e *explainer) verbatim(out *Explained, block int, n *dialect.Node) {
	v := Verbatim{From: n.From, To: n.To, Query: e.r.Of(n.From, n.To), Says: e.says(n)}
	if block >= 0 {
		v.Block = out.Blocks[block].Name
	}
	if q := e.expr(n); q != nil {
		v.Records, _ = e.counts(n)
		if cql := query.Write(q); len([]rune(cql)) <= strategy.MostVerbatim {
			if _, err := query.Parse(cql, nil); err == nil {
				v.CQL = cql
			}
		}
	}
	out.Verbatim = append(out.Verbatim, v)
}

// terms returns the terms that a part of a query is, where terms can say it.
func (e *explainer) terms(n *dialect.Node) ([]strategy.Term, bool) {
	if n.Op != dialect.Leaf && n.Op != "near" {
		return nil, false
	}
	if n.Expr == nil {
		return nil, false
	}
	all := []query.Expr{n.Expr}
	if any, ok := n.Expr.(query.Or); ok {
		all = any
	}
	var out []strategy.Term
	for _, q := range all {
		t, ok := term(q)
		if !ok {
			return nil, false
		}
		out = append(out, t)
	}
	return out, true
}

// term returns the term that looks for just what an expression does.
func term(q query.Expr) (strategy.Term, bool) {
	switch q := q.(type) {
	case query.Phrase:
		name, ok := fieldNames[q.Fields]
		return strategy.Term{Kind: strategy.TextTerm, Text: q.Pattern.String(), Field: name, On: true}, ok && !q.Whole
	case query.Words:
		name, ok := fieldNames[q.Fields]
		return strategy.Term{Kind: strategy.TextTerm, Text: q.Pattern.String(), Field: name, On: true}, ok &&
			len(q.Pattern) == 1
	case query.Near:
		name, ok := fieldNames[q.Fields]
		return strategy.Term{Kind: strategy.NearTerm, Left: q.Left.String(), Right: q.Right.String(), Within: q.Within,
			Field: name, On: true}, ok && !q.Ordered && !q.Exactly
	case query.Heading:
		return strategy.Term{Kind: strategy.HeadingTerm, Heading: q.Label, Narrower: q.Narrower, Central: q.Central,
			Qualifiers: q.Qualifiers, On: true}, true
	}
	return strategy.Term{}, false
}

// says tells in words which records a part of a query finds.
func (e *explainer) says(n *dialect.Node) string {
	if n == nil {
		return "nothing that could be searched"
	}
	var b strings.Builder
	b.WriteString("records ")
	e.said(&b, n, 0)
	return b.String()
}

const mostSaid = 3000 // characters of what is said of one line

func (e *explainer) said(b *strings.Builder, n *dialect.Node, depth int) {
	if b.Len() > mostSaid {
		if !strings.HasSuffix(b.String(), "…") {
			b.WriteString("…")
		}
		return
	}
	list := func(before, between string) {
		for i, p := range n.Parts {
			if i > 0 {
				b.WriteString(between)
			} else {
				b.WriteString(before)
			}
			held := len(p.Parts) > 1 && p.Op != "near" && depth < 20
			if held {
				b.WriteString("(")
			}
			e.said(b, p, depth+1)
			if held {
				b.WriteString(")")
			}
		}
	}
	switch n.Op {
	case "or":
		list("either ", " or ")
	case "and":
		list("", ", and besides ")
	case "not":
		list("", ", but not those ")
	case dialect.Line:
		numbers := make([]string, len(n.Refs))
		for i, ref := range n.Refs {
			numbers[i] = number(uint64(ref))
		}
		switch n.Join {
		case "or":
			b.WriteString("of any of the lines " + strings.Join(numbers, ", "))
		case "and":
			b.WriteString("of all of the lines " + strings.Join(numbers, ", "))
		default:
			b.WriteString("of line " + strings.Join(numbers, ", "))
		}
	case dialect.Unread:
		b.WriteString("that “" + e.r.Of(n.From, n.To) + "” cannot be looked for in")
	default:
		b.WriteString(leafSays(n.Expr))
	}
}

var fieldSays = map[bib.Field]string{
	bib.Text:          "in title, abstract or keywords",
	bib.Title:         "in the title",
	bib.Abstract:      "in the abstract",
	bib.TitleAbstract: "in title or abstract",
	bib.Keyword:       "in the keywords",
	bib.Any:           "anywhere",
	bib.Journal:       "in the name of the journal",
}

func in(f bib.Field) string {
	if s, ok := fieldSays[f]; ok {
		return s
	}
	return "in keywords or headings"
}

func quoted(p text.Pattern) string { return "“" + p.String() + "”" }

func leafSays(q query.Expr) string {
	switch q := q.(type) {
	case query.Phrase:
		if q.Whole {
			return "whose whole " + strings.TrimPrefix(in(q.Fields), "in the ") + " is " + quoted(q.Pattern)
		}
		return "with " + quoted(q.Pattern) + " " + in(q.Fields)
	case query.Words:
		how := "any"
		if q.All {
			how = "all"
		}
		return "with " + how + " of the words " + quoted(q.Pattern) + " " + in(q.Fields)
	case query.Near:
		order := ""
		if q.Ordered {
			order = ", in this order"
		}
		how := "at most "
		if q.Exactly {
			how = "exactly "
		}
		return "with " + quoted(q.Left) + " " + how + number(uint64(q.Within)) + " words from " + quoted(q.Right) + order +
			" " + in(q.Fields)
	case query.Or:
		parts := make([]string, len(q))
		for i, p := range q {
			parts[i] = leafSays(p)
		}
		return strings.Join(parts, " or ")
	case query.Heading:
		s := "with the heading “" + q.Label + "”"
		if q.Narrower {
			s += " or one below it"
		}
		if q.Central {
			s += " as a main point"
		}
		if len(q.Qualifiers) > 0 {
			s += " with the qualifier “" + strings.Join(q.Qualifiers, "” or “") + "”"
		}
		return s
	case query.Author:
		return "by “" + q.Pattern.String() + "”"
	case query.Years:
		switch {
		case q.From == q.To:
			return "of " + plainNumber(q.From)
		case q.To >= query.LastYear:
			return "from " + plainNumber(q.From) + " on"
		case q.From <= query.FirstYear:
			return "up to " + plainNumber(q.To)
		}
		return "from " + plainNumber(q.From) + " to " + plainNumber(q.To)
	case query.Listed:
		return "whose " + map[index.List]string{index.Types: "type", index.Languages: "language",
			index.Countries: "country", index.Identifiers: "identifier"}[q.List] + " is “" + q.Value + "”"
	}
	return "that cannot be looked for"
}
