package strategy

import (
	"errors"
	"fmt"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// ErrFindsNothing is the answer to a strategy that no record can match: one without a searched block, or
// with a searched block that has no term switched on.
var ErrFindsNothing = errors.New(
	"this strategy finds nothing: it needs a searched block, and each of those a term that is switched on",
)

// Query returns the whole strategy as one expression. vocabulary may be nil.
func (s Strategy) Query(vocabulary *thesaurus.Thesaurus) (query.Expr, error) {
	var all query.And
	var less query.Not
	for _, b := range s.Blocks {
		if !b.Searched {
			continue
		}
		terms, err := b.query(vocabulary)
		if err != nil {
			return nil, err
		}
		switch {
		case b.Negated && terms != nil:
			less = append(less, terms)
		case b.Negated:
		case terms == nil:
			return nil, ErrFindsNothing
		default:
			all = append(all, terms)
		}
	}
	if len(all) == 0 {
		return nil, ErrFindsNothing
	}
	for _, l := range s.Limits {
		q, err := l.Query(vocabulary)
		if err != nil {
			return nil, fmt.Errorf("the limit on %s: %w", l.Kind, err)
		}
		if l.KeepsOut() {
			less = append(less, q)
		} else {
			all = append(all, q)
		}
	}
	var whole query.Expr = all
	if len(all) == 1 {
		whole = all[0]
	}
	if len(less) > 0 {
		whole = append(query.Not{whole}, less...)
	}
	return whole, nil
}

// query returns the block's terms that are switched on, joined; nil when there are none.
func (b Block) query(vocabulary *thesaurus.Thesaurus) (query.Expr, error) {
	var any query.Or
	for _, t := range b.Terms {
		if !t.On {
			continue
		}
		q, err := t.QueryIn(vocabulary)
		if err != nil {
			return nil, fmt.Errorf("block %s: %w", b.Name, err)
		}
		any = append(any, q)
	}
	if len(any) == 0 {
		return nil, nil
	}
	return either(any), nil
}

// Query returns what a limit lets through, or, where it keeps out, what it does not. A record that has no year,
// language, type, country or heading is outside a limit that lets in, unless its title says it. vocabulary may be
// nil: then nothing stands below a heading.
func (l Limit) Query(vocabulary *thesaurus.Thesaurus) (query.Expr, error) {
	if l.Kind == YearsLimit {
		y := query.Years{From: query.FirstYear, To: query.LastYear}
		if l.From != nil {
			y.From = *l.From
		}
		if l.To != nil {
			y.To = *l.To
		}
		return y, nil
	}
	var any query.Or
	for _, v := range l.Values {
		if !Headed(l.Kind) {
			any = append(any, query.Listed{List: lists[l.Kind], Value: v})
			continue
		}
		q, err := l.heading(v, vocabulary)
		if err != nil {
			return nil, err
		}
		any = append(any, q)
	}
	for _, words := range l.Titles {
		p, err := text.ParsePattern(words)
		if err != nil {
			return nil, err
		}
		any = append(any, query.Phrase{Pattern: p, Fields: bib.Title})
	}
	if !l.KeepsOut() {
		return either(any), nil
	}
	var against query.Or
	for _, v := range l.Against {
		q, err := l.heading(v, vocabulary)
		if err != nil {
			return nil, err
		}
		against = append(against, q)
	}
	return query.Not{either(against), either(any)}, nil
}

// heading returns what carries a heading or one below it, where it was carried over by what stands for it.
func (l Limit) heading(label string, vocabulary *thesaurus.Thesaurus) (query.Expr, error) {
	t := Term{Kind: HeadingTerm, Heading: label, Narrower: true, On: true}
	if l.carried != nil {
		t = carried(t, l.carried[text.Label(label)])
	}
	return t.QueryIn(vocabulary)
}

// either joins alternatives; one by itself is not joined.
func either(any query.Or) query.Expr {
	if len(any) == 1 {
		return any[0]
	}
	return any
}

// ErrNeedsVocabulary is the answer where a term leaves headings out below another and it is not known what stands
// there.
var ErrNeedsVocabulary = errors.New(
	"a term takes a heading with some of those below it: that can be written only with the vocabulary they stand in",
)

// writable says when a strategy cannot be written: what is below a heading has to be known where some is left out.
func (s Strategy) writable(vocabulary *thesaurus.Thesaurus) error {
	for _, b := range s.Blocks {
		for _, t := range b.Terms {
			if vocabulary == nil && b.Searched && t.On && t.Narrower && len(t.Without) > 0 {
				return fmt.Errorf("block %s, %s: %w", b.Name, t, ErrNeedsVocabulary)
			}
		}
	}
	return nil
}

// written returns the whole as it is written.
func (s Strategy) written(vocabulary *thesaurus.Thesaurus) (query.Expr, error) {
	if err := s.writable(vocabulary); err != nil {
		return nil, err
	}
	return s.Query(vocabulary)
}

// CQL returns the strategy as one query in CQL. vocabulary may be nil unless a term leaves headings out.
func (s Strategy) CQL(vocabulary *thesaurus.Thesaurus) (string, error) {
	q, err := s.written(vocabulary)
	if err != nil {
		return "", err
	}
	return query.Write(q), nil
}
