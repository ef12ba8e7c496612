package coverage

import (
	"math/bits"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Piece is a stretch of a text that the same terms mark.
type Piece struct {
	Text   string
	Blocks []int // the blocks whose terms match here, by place
	Also   bool  // one of the patterns that were asked for besides matches here
	Near   bool  // what is all but a term stands here
}

// A Marker marks in records what the terms of each block match, and some patterns besides. A strategy
// has at most 26 blocks, so that a bit for each and two for the patterns fit a word.
type Marker struct {
	blocks [][]query.Expr
	also   []text.Pattern
	nearly []text.Pattern
}

const (
	alsoBit = 1 << 31
	nearBit = 1 << 30
)

// Nearly makes the marker mark what is all but a term, too.
func (m *Marker) Nearly(patterns []text.Pattern) { m.nearly = patterns }

// NewMarker returns a marker for the terms of a strategy that are switched on. vocabulary may be nil.
func NewMarker(s strategy.Strategy, vocabulary *thesaurus.Thesaurus, also ...text.Pattern) (*Marker, error) {
	m := &Marker{also: also}
	for _, b := range s.Blocks {
		var exprs []query.Expr
		for _, t := range b.Terms {
			if !t.On {
				continue
			}
			q, err := t.QueryIn(vocabulary)
			if err != nil {
				return nil, err
			}
			exprs = append(exprs, q)
		}
		m.blocks = append(m.blocks, exprs)
	}
	return m, nil
}

// Value cuts a field value into pieces; put together they are the value.
func (m *Marker) Value(field bib.Field, value string) []Piece {
	spans := text.Spans(value)
	tokens := make([]string, len(spans))
	for i, s := range spans {
		tokens[i] = s.Token
	}
	inside, behind := make([]uint32, len(spans)), make([]uint32, len(spans)) // of each token, of the gap behind it
	mark := func(bit uint32, from, to int) {
		for i := from; i < to; i++ {
			inside[i] |= bit
			if i < to-1 {
				behind[i] |= bit
			}
		}
	}
	for b, exprs := range m.blocks {
		for _, q := range exprs {
			switch q := q.(type) {
			case query.Phrase:
				if q.Fields&field != 0 {
					for _, i := range q.Pattern.Find(tokens) {
						mark(1<<b, i, i+len(q.Pattern))
					}
				}
			case query.Near:
				if q.Fields&field != 0 && q.MatchesValue(tokens) {
					for _, p := range []text.Pattern{q.Left, q.Right} {
						for _, i := range p.Find(tokens) {
							mark(1<<b, i, i+len(p))
						}
					}
				}
			}
		}
	}
	for _, p := range m.also {
		for _, i := range p.Find(tokens) {
			mark(alsoBit, i, i+len(p))
		}
	}
	for _, p := range m.nearly {
		for _, i := range p.Find(tokens) {
			mark(nearBit, i, i+len(p))
		}
	}
	var out []Piece
	last := uint32(0)
	add := func(text string, mask uint32) {
		if text == "" {
			return
		}
		if len(out) > 0 && mask == last {
			out[len(out)-1].Text += text
			return
		}
		p := Piece{Text: text, Also: mask&alsoBit != 0, Near: mask&nearBit != 0}
		for rest := mask &^ (alsoBit | nearBit); rest != 0; rest &= rest - 1 {
			p.Blocks = append(p.Blocks, bits.TrailingZeros32(rest))
		}
		out, last = append(out, p), mask
	}
	at := 0
	for i, s := range spans {
		between := uint32(0)
		if i > 0 {
			between = behind[i-1]
		}
		if s.Start > at {
			add(value[at:s.Start], between)
		}
		add(value[s.Start:s.End], inside[i])
		at = s.End
	}
	add(value[at:], 0)
	return out
}

// Heading returns the blocks of which a heading term matches the assignment.
func (m *Marker) Heading(a bib.Assignment) (blocks []int) {
	for b, exprs := range m.blocks {
		for _, q := range exprs {
			if h, ok := q.(query.Heading); ok && h.MatchesAssignment(a) {
				blocks = append(blocks, b)
				break
			}
		}
	}
	return blocks
}
