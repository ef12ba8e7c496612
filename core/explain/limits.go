package explain

import (
	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

var limitKinds = map[index.List]string{
	index.Languages: strategy.LanguagesLimit,
	index.Types:     strategy.TypesLimit,
	index.Countries: strategy.CountriesLimit,
}

// limitOf returns the limit that a concept of a query is: values of one kind, with or without words of titles, or
// years; or what is taken away, where that is what one heading of ages or humans carries and another does not.
func (e *explainer) limitOf(n *dialect.Node, negated bool) (strategy.Limit, bool) {
	if !negated {
		if l, ok := e.years(n); ok {
			return l, true
		}
		l, ok := e.letsIn(n)
		// Headings of an age may be a concept of the question as well as a limit: only what takes away tells.
		return l, ok && len(l.Values) > 0 && l.Kind != strategy.AgesLimit
	}
	if n = e.at(n); n == nil || n.Op != "not" || len(n.Parts) != 2 {
		return strategy.Limit{}, false
	}
	out, ok := e.letsIn(n.Parts[0])
	in, too := e.letsIn(n.Parts[1])
	if !ok || !too || !strategy.Headed(out.Kind) || len(out.Titles) > 0 || in.Kind != "" && in.Kind != out.Kind {
		return strategy.Limit{}, false
	}
	in.Kind, in.Against = out.Kind, out.Values
	return in, true
}

// years returns the limit that a concept is, where it is years alone.
func (e *explainer) years(n *dialect.Node) (l strategy.Limit, ok bool) {
	parts := e.parts(n, "or")
	if len(parts) != 1 {
		return l, false
	}
	q, ok := parts[0].Expr.(query.Years)
	if !ok {
		return l, false
	}
	l.Kind = strategy.YearsLimit
	if q.From > query.FirstYear {
		l.From = &q.From
	}
	if q.To < query.LastYear {
		l.To = &q.To
	}
	return l, l.From != nil || l.To != nil
}

// letsIn returns what alternatives let in, where all are values of one kind of limit or words of titles; of words
// alone the kind is not known.
func (e *explainer) letsIn(n *dialect.Node) (l strategy.Limit, ok bool) {
	put := func(kind, value string) bool {
		if kind == "" || l.Kind != "" && l.Kind != kind {
			return false
		}
		l.Kind, l.Values = kind, append(l.Values, value)
		return true
	}
	var all []query.Expr
	for _, p := range e.parts(n, "or") {
		if any, is := p.Expr.(query.Or); is {
			all = append(all, any...)
		} else {
			all = append(all, p.Expr)
		}
	}
	for _, q := range all {
		switch q := q.(type) {
		case query.Listed:
			if !put(limitKinds[q.List], q.Value) {
				return l, false
			}
		case query.Heading:
			// A limit takes all below a heading: one that stands alone is no limit, where something does stand below it.
			alone := !q.Narrower && e.over.Set.Thesaurus != nil && e.over.Set.Thesaurus.Branch(q.Label).Len() > 1
			if alone || q.Central || len(q.Qualifiers) > 0 || q.Until != 0 || !put(string(tally.LimitBy(q.Label)), q.Label) {
				return l, false
			}
		case query.Phrase:
			if q.Fields != bib.Title || q.Whole {
				return l, false
			}
			l.Titles = append(l.Titles, q.Pattern.String())
		default:
			return l, false
		}
	}
	return l, len(all) > 0
}
