package dialect

import (
	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
)

// OptionsOf returns the options of writing for a source of which these records are a sample.
func OptionsOf(ix *index.Index) Options {
	return Options{Forms: FormsOf(ix), Holds: func(p text.Pattern) bool { return !ix.Phrase(p, bib.Any).IsEmpty() }}
}

// FormsOf returns the words of an index that a token pattern matches, where they are not too many.
func FormsOf(ix *index.Index) func(text.TokenPattern) []string {
	return func(t text.TokenPattern) (out []string) {
		for _, w := range ix.TokensWith(t.Prefix()) {
			if t.Match(w) {
				if out = append(out, w); len(out) > MostForms {
					return nil
				}
			}
		}
		return out
	}
}

// Countable reports whether what a note changes can be told of its part by itself: not of a limit or NOT that is
// left out.
func (n Note) Countable() bool { return n.Meant != nil && n.Code != NoLimit && n.Code != NoNot }

// Between tells how many records more, and how many fewer, are found by what is asked than by what was meant; nil
// finds none.
func Between(meant, said query.Expr, find func(query.Expr) *roaring.Bitmap) (more, fewer int) {
	wanted, found := find(meant), roaring.New()
	if said != nil {
		found = find(said)
	}
	both := int(wanted.AndCardinality(found))
	return int(found.GetCardinality()) - both, int(wanted.GetCardinality()) - both
}
