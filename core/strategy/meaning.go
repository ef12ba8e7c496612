package strategy

import (
	"fmt"

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
		if len(t.also) > 0 {
			var any query.Or
			for _, label := range append([]string{t.Heading}, t.also...) {
				one := t
				one.Heading, one.also = label, nil
				q, err := one.QueryIn(vocabulary)
				if err != nil {
					return nil, err
				}
				any = append(any, q)
			}
			return any, nil
		}
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
		if len(t.Without) > maxValues {
			return nil, fmt.Errorf("a heading term leaves out at most %d headings", maxValues)
		}
		if t.Until != 0 && (t.Until < query.FirstYear || t.Until > query.LastYear) {
			return nil, fmt.Errorf(
				"a heading is looked for up to a year from %d to %d, not %d",
				query.FirstYear,
				query.LastYear,
				t.Until,
			)
		}
		out := query.Heading{
			Label:      t.Heading,
			Narrower:   t.Narrower,
			Central:    t.Central,
			Qualifiers: t.Qualifiers,
			Until:      t.Until,
			Which:      thesaurus.Keyed(label),
		}
		if t.Narrower && vocabulary != nil {
			t.below(vocabulary, &out)
		}
		return out, nil
	}
	return nil, fmt.Errorf("there is no term of kind %q; there are text, near and heading", t.Kind)
}

// below says what a heading with all below it, but what is left out, stands for in a vocabulary.
func (t Term) below(vocabulary *thesaurus.Thesaurus, q *query.Heading) {
	at, ok := vocabulary.Find(t.Heading)
	var without []int
	for _, w := range t.Without {
		if h, is := vocabulary.Find(w); is && ok && h != at {
			without = append(without, h)
		}
	}
	if len(without) == 0 {
		q.Which = vocabulary.Branch(t.Heading)
		return
	}
	left := vocabulary.BelowBut(at, without)
	q.Which = vocabulary.These(left...)
	for _, branch := range vocabulary.Cover(left) {
		p := query.Part{
			Label:    vocabulary.Label(branch.Heading),
			Narrower: branch.Narrower,
			Which:    vocabulary.These(branch.Heading),
		}
		if branch.Narrower {
			p.Which = vocabulary.Branch(p.Label)
		}
		q.Parts = append(q.Parts, p)
	}
}
