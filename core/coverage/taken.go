package coverage

import (
	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Taken is the terms of all blocks, for asking whether one of them matches a candidate already.
type Taken struct {
	texts []interface {
		MatchesValue(tokens []string) bool
	}
	headings []query.Heading
}

// TakenBy returns the terms of a strategy that are switched on. vocabulary may be nil.
func TakenBy(s strategy.Strategy, vocabulary *thesaurus.Thesaurus) (Taken, error) {
	var out Taken
	for _, b := range s.Blocks {
		for _, t := range b.Terms {
			if !t.On {
				continue
			}
			q, err := t.QueryIn(vocabulary)
			if err != nil {
				return out, err
			}
			switch q := q.(type) {
			case query.Phrase:
				out.texts = append(out.texts, q)
			case query.Near:
				out.texts = append(out.texts, q)
			case query.Heading:
				out.headings = append(out.headings, q)
			}
		}
	}
	return out, nil
}

// Text reports whether a term matches the tokens taken as a value of their own.
func (t Taken) Text(tokens []string) bool {
	for _, q := range t.texts {
		if q.MatchesValue(tokens) {
			return true
		}
	}
	return false
}

// Heading reports whether a term matches an assignment of the label in the record.
func (t Taken) Heading(r *bib.Record, label string) bool {
	for _, a := range r.Headings {
		if text.Label(a.Label) != label {
			continue
		}
		for _, q := range t.headings {
			if q.MatchesAssignment(a) {
				return true
			}
		}
	}
	return false
}
