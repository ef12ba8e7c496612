package strategy

import (
	"slices"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/thesaurus"
)

// The notes on a block that is said in a source's own words.
const (
	OwnWording    = "own-wording"    // it is
	WordingUnread = "wording-unread" // what was written cannot be read: its lines are said
)

// A wording is how a block is said in a dialect, where its lines are not.
type wording struct {
	text string
	note dialect.Note
	says query.Expr // nil where it cannot be read
}

// worded returns the wordings that a dialect has of blocks that find something.
func (s Strategy) worded(d *dialect.Dialect, vocabulary *thesaurus.Thesaurus) map[int]wording {
	out := map[int]wording{}
	for i, b := range s.Blocks {
		meant, err := b.query(vocabulary)
		text := b.Worded[d.Name]
		if text == "" || !b.Searched || meant == nil || err != nil {
			continue
		}
		w := wording{text: text, note: dialect.Note{Code: OwnWording, Term: b.Name, Instead: text}}
		if w.says, err = d.Means(text, vocabulary); err != nil {
			w.note = dialect.Note{Code: WordingUnread, Term: b.Name, Instead: err.Error()}
		} else {
			w.note.Meant, w.note.Said = meant, w.says
		}
		out[i] = w
	}
	return out
}

// worded writes a line of a block that is said in a source's own words: they stand where the block is put together,
// and its terms are not typed.
func (l *TypedLine) worded(w wording, n Numbered, lines []Numbered, d *dialect.Dialect, o dialect.Options) bool {
	if w.says == nil {
		return false
	}
	if !ofBlock(n, lines) {
		return true
	}
	written := d.Write(w.says, o)
	l.Said, l.Texts, l.Notes = written.Said, written.Queries, append([]dialect.Note{w.note}, written.Notes...)
	if len(l.Texts) == 1 {
		l.Texts = []string{w.text}
	}
	return true
}

// ofBlock reports whether a line is where its block stands together: that which joins its terms, or that of its
// only one.
func ofBlock(n Numbered, lines []Numbered) bool {
	return n.Kind == BlockLine ||
		n.Kind == TermLine &&
			!slices.ContainsFunc(lines, func(x Numbered) bool { return x.Kind == BlockLine && x.Block == n.Block })
}
