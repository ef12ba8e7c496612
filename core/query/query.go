// Package query holds expressions that are searched in an index: what is looked for, in which part
// of a record. It knows nothing of blocks or of how a strategy is kept.
package query

import (
	"errors"
	"fmt"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
)

// An Expr is something that records match or do not.
type Expr interface {
	// Match returns the records of the index that match. The caller may change the set.
	Match(ix *index.Index) *roaring.Bitmap
}

// Phrase is a word or phrase in some fields.
type Phrase struct {
	Pattern text.Pattern
	Fields  bib.Field
}

// Match implements Expr.
func (q Phrase) Match(ix *index.Index) *roaring.Bitmap { return ix.Phrase(q.Pattern, q.Fields) }

// Near is two words or phrases that stand near each other in one value.
type Near struct {
	Left, Right text.Pattern
	Within      int
	Fields      bib.Field
}

// Match implements Expr.
func (q Near) Match(ix *index.Index) *roaring.Bitmap {
	return ix.Near(q.Left, q.Right, q.Within, q.Fields)
}

// Heading is an assigned heading, by label.
type Heading struct {
	Labels     []string // as text.Label writes them: the heading, and those below it where wanted
	Central    bool
	Qualifiers []string
}

// Match implements Expr.
func (q Heading) Match(ix *index.Index) *roaring.Bitmap {
	return ix.Heading(q.Labels, q.Central, q.Qualifiers)
}

// fields are the names by which the parts of a record are searched.
var fields = map[string]bib.Field{
	"": bib.Text, "text": bib.Text, "title": bib.Title, "abstract": bib.Abstract,
	"titleAbstract": bib.TitleAbstract, "keyword": bib.Keyword, "any": bib.Any,
}

// Fields returns the fields that a name stands for; no name is the text of a record.
func Fields(name string) (bib.Field, error) {
	f, ok := fields[name]
	if !ok {
		return 0, fmt.Errorf("there is no field %q; there are text, title, abstract, titleAbstract, keyword and any", name)
	}
	return f, nil
}

// ErrWithin is the answer to a near pair whose distance is out of range.
var ErrWithin = errors.New("a near pair stands within 1 to 100 words")

// NewNear returns a near pair; a distance out of range is refused.
func NewNear(left, right text.Pattern, within int, f bib.Field) (Near, error) {
	if within < 1 || within > text.MaxWithin {
		return Near{}, fmt.Errorf("%w; this one asks for %d", ErrWithin, within)
	}
	return Near{left, right, within, f}, nil
}

// MatchesValue reports whether the phrase stands in one value, whatever field that is.
func (q Phrase) MatchesValue(tokens []string) bool { return len(q.Pattern.Find(tokens)) > 0 }

// MatchesValue reports whether the pair stands in one value, whatever field that is.
func (q Near) MatchesValue(tokens []string) bool {
	return text.Near(q.Left, q.Right, q.Within, tokens)
}

// MatchesAssignment reports whether the heading term matches one assigned heading.
func (q Heading) MatchesAssignment(a bib.Assignment) bool {
	if !slices.Contains(q.Labels, text.Label(a.Label)) || q.Central && !a.Central {
		return false
	}
	return len(q.Qualifiers) == 0 || slices.ContainsFunc(q.Qualifiers, func(wanted string) bool {
		return slices.ContainsFunc(a.Qualifiers, func(has string) bool { return text.Label(has) == text.Label(wanted) })
	})
}
