package sources

import (
	"context"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
	"tamiz/source"
)

// A Note says what a source cannot be asked, and what was asked in its place.
type Note = source.Note

// A Speech is how a source is asked: in its own names, and by its own vocabulary. All that it is asked of a
// strategy is said by it: lines, the whole, what is run and what is counted.
type Speech struct {
	source.Map
	strategy.Manner
	Vocabulary *int64 // that it means
}

// Speech returns how a source is asked a strategy that goes by a vocabulary.
func (a *Service) Speech(ctx context.Context, s Source, own *int64) (Speech, error) {
	by, err := a.desk.Carrier(ctx, own, s.Vocabulary)
	if err != nil {
		return Speech{}, err
	}
	var carry *strategy.Carrying
	if by != nil {
		carry, own = &strategy.Carrying{Stands: by.Stands, Terms: by.Terms}, by.ID
	}
	out, err := speechOf(s.Map, carry)
	out.Vocabulary = own
	return out, err
}

func speechOf(m source.Map, carry *strategy.Carrying) (Speech, error) {
	manner, err := m.Manner(carry)
	return Speech{Map: m, Manner: manner}, err // a map that no query could be written by was turned away when it was given
}

// Typed says a strategy, with lines that were put together of its own; v is the vocabulary that it goes by, nil for
// none.
func (s Speech) Typed(of strategy.Strategy, v *thesaurus.Thesaurus, own ...strategy.Numbered) (*strategy.Typed, error) {
	return of.Adapted(s.Manner, v, own...)
}

// Whole returns what the source is asked for a strategy, "" where that finds nothing or it cannot be asked.
func (s Speech) Whole(of strategy.Strategy, v *thesaurus.Thesaurus) (string, []source.Note) {
	typed, err := s.Typed(of, v)
	if err != nil {
		return "", []source.Note{}
	}
	cql, notes := s.Asked(typed.Whole)
	return cql, noted(notes)
}

// asked writes what the source can be asked in full; notes say what it was adapted from.
func (s Speech) asked(said query.Expr, notes []dialect.Note) (string, []source.Note) {
	cql, all := s.Asked(s.Manner.Dialect.Print(said, notes))
	return cql, noted(all)
}

// rendered says an expression that is no part of a strategy.
func (s Speech) rendered(q query.Expr) (string, []source.Note) {
	return s.asked(s.Manner.Said(q))
}

// noted returns notes as a list, also where there are none.
func noted(notes []source.Note) []source.Note {
	if notes == nil {
		return []source.Note{}
	}
	return notes
}

// Rendered says an expression by a map alone.
func Rendered(q query.Expr, m source.Map) (string, []source.Note) {
	cql, notes := source.Render(q, m)
	return cql, noted(notes)
}
