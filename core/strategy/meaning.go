package strategy

import (
	"fmt"
	"slices"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Query returns what a term looks for. A term that cannot be searched is answered by an error that
// says why; behind it is a *text.Refusal where its words are at fault.
func (t Term) Query() (query.Expr, error) { return t.QueryIn(nil) }

// QueryIn does the same with a vocabulary, which may be nil: then narrower adds nothing.
func (t Term) QueryIn(vocabulary *thesaurus.Thesaurus) (query.Expr, error) {
	switch t.Kind {
	case TextTerm:
		fields, err := query.Fields(t.Field)
		if err != nil {
			return nil, err
		}
		p, err := text.ParsePattern(t.Text)
		if err != nil {
			return nil, err
		}
		return query.Phrase{Pattern: p, Fields: fields}, nil
	case NearTerm:
		fields, err := query.Fields(t.Field)
		if err != nil {
			return nil, err
		}
		left, err := text.ParsePattern(t.Left)
		if err != nil {
			return nil, err
		}
		right, err := text.ParsePattern(t.Right)
		if err != nil {
			return nil, err
		}
		return query.NewNear(left, right, t.Within, fields)
	case HeadingTerm:
		if len(t.Qualifiers) > maxValues {
			return nil, fmt.Errorf("a heading term has at most %d qualifiers", maxValues)
		}
		label := text.Label(t.Heading)
		if label == "" {
			return nil, &text.Refusal{Reason: text.NoWord, Term: t.Heading}
		}
		if len([]rune(t.Heading)) > text.MaxTerm {
			return nil, &text.Refusal{Reason: text.TooLong, Term: string([]rune(t.Heading)[:40]) + "…"}
		}
		labels := []string{label}
		if t.Narrower && vocabulary != nil {
			labels = vocabulary.BelowLabels(label)
		}
		return query.Heading{Label: t.Heading, Narrower: t.Narrower, Central: t.Central, Qualifiers: t.Qualifiers, Labels: labels}, nil
	}
	return nil, fmt.Errorf("there is no term of kind %q; there are text, near and heading", t.Kind)
}

// Admits reports whether a record is inside the limit. One that has no year, language or type is
// outside a limit on it.
func (l Limit) Admits(r *bib.Record) bool {
	switch l.Kind {
	case YearsLimit:
		return r.Year != 0 && (l.From == nil || r.Year >= *l.From) && (l.To == nil || r.Year <= *l.To)
	case LanguagesLimit:
		return l.anyOf(r.Languages)
	case TypesLimit:
		return l.anyOf(r.Types)
	}
	return true
}

func (l Limit) anyOf(values []string) bool {
	return slices.ContainsFunc(values, func(v string) bool {
		return slices.ContainsFunc(l.Values, func(w string) bool { return text.Label(v) == text.Label(w) })
	})
}
