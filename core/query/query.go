// Package query holds expressions that are searched in an index: what is looked for, in which part of a
// record, and how that is joined. It reads and writes them as CQL. It knows nothing of blocks or of how
// a strategy is kept.
package query

import (
	"errors"
	"fmt"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// An Expr is something that records match or do not.
type Expr interface {
	// Match returns the records of the index that match. The caller may change the set.
	Match(ix *index.Index) *roaring.Bitmap
}

// Or is what any of its parts matches.
type Or []Expr

// And is what all of its parts match.
type And []Expr

// Not is what the first part matches and none of the others.
type Not []Expr

// Match implements Expr.
func (q Or) Match(ix *index.Index) *roaring.Bitmap { return Matched(q, in(ix)) }

// Match implements Expr.
func (q And) Match(ix *index.Index) *roaring.Bitmap { return Matched(q, in(ix)) }

// Match implements Expr.
func (q Not) Match(ix *index.Index) *roaring.Bitmap { return Matched(q, in(ix)) }

func in(ix *index.Index) func(Expr) *roaring.Bitmap {
	return func(part Expr) *roaring.Bitmap { return part.Match(ix) }
}

// Matched returns what an expression matches, where each part of it that joins no others matches what is told. What
// is told is not changed.
func Matched(q Expr, part func(Expr) *roaring.Bitmap) *roaring.Bitmap {
	switch q := q.(type) {
	case Or:
		found := make([]*roaring.Bitmap, len(q))
		for i, p := range q {
			found[i] = Matched(p, part)
		}
		return roaring.FastOr(found...)
	case And:
		return narrowed(q, part, (*roaring.Bitmap).And)
	case Not:
		return narrowed(q, part, (*roaring.Bitmap).AndNot)
	}
	return part(q)
}

// narrowed takes what the first part matches and narrows it by each of the others, until nothing is left.
func narrowed(parts []Expr, part func(Expr) *roaring.Bitmap, by func(found, other *roaring.Bitmap)) *roaring.Bitmap {
	found := Matched(parts[0], part).Clone()
	for _, p := range parts[1:] {
		if found.IsEmpty() {
			break
		}
		by(found, Matched(p, part))
	}
	return found
}

// Phrase is a word or phrase in some fields; where Whole is set, a value that is nothing but it.
type Phrase struct {
	Pattern text.Pattern
	Fields  bib.Field
	Whole   bool
}

// Match implements Expr.
func (q Phrase) Match(ix *index.Index) *roaring.Bitmap {
	if q.Whole {
		return ix.Whole(q.Pattern, q.Fields)
	}
	return ix.Phrase(q.Pattern, q.Fields)
}

// Words is any or all of some words, anywhere in the fields of a record.
type Words struct {
	Pattern text.Pattern // each of its tokens is a word
	Fields  bib.Field
	All     bool
}

// Match implements Expr.
func (q Words) Match(ix *index.Index) *roaring.Bitmap {
	return joinWords(q.Pattern, q.All, func(word text.Pattern) *roaring.Bitmap { return ix.Phrase(word, q.Fields) })
}

func joinWords(p text.Pattern, all bool, match func(text.Pattern) *roaring.Bitmap) *roaring.Bitmap {
	found := match(p[:1])
	for i := 1; i < len(p); i++ {
		if all {
			found.And(match(p[i : i+1]))
		} else {
			found.Or(match(p[i : i+1]))
		}
	}
	return found
}

// Near is two words or phrases that stand near each other in one value.
type Near struct {
	Left, Right text.Pattern
	Within      int
	Exactly     bool // not nearer than Within either
	Ordered     bool // left before right
	Fields      bib.Field
}

// Match implements Expr.
func (q Near) Match(ix *index.Index) *roaring.Bitmap {
	return ix.Near(q.Left, q.Right, q.distance(), q.Fields)
}

func (q Near) distance() text.Distance {
	d := text.Distance{Least: 1, Most: q.Within, Ordered: q.Ordered}
	if q.Exactly {
		d.Least = q.Within
	}
	return d
}

// Heading is an assigned heading, by label.
type Heading struct {
	Label      string // as written
	Narrower   bool   // or one below it
	Central    bool
	Qualifiers []string
	Which      thesaurus.Headings // what Label, and Narrower, stand for
	Parts      []Part             // with Narrower, where some below are left out: what is meant, put together
	Until      int                // of records up to this year alone; 0 is any
}

// A Part is a heading, with or without all below it.
type Part struct {
	Label    string
	Narrower bool
	Which    thesaurus.Headings
}

// Match implements Expr.
func (q Heading) Match(ix *index.Index) *roaring.Bitmap {
	found := ix.Heading(q.Which, q.Central, q.Qualifiers)
	if q.Until != 0 {
		found.And(Years{From: FirstYear, To: q.Until}.Match(ix))
	}
	return found
}

// Plain returns the same said by headings, with all below them or alone, and years: as it is, where that is what it is.
func (q Heading) Plain() Expr {
	until, parts := q.Until, q.Parts
	q.Until, q.Parts = 0, nil
	var out Expr = q
	if len(parts) > 0 {
		var any Or
		for _, p := range parts {
			h := q
			h.Label, h.Narrower, h.Which = p.Label, p.Narrower, p.Which
			any = append(any, h)
		}
		if out = any; len(any) == 1 {
			out = any[0]
		}
	}
	if until != 0 {
		out = And{out, Years{From: FirstYear, To: until}}
	}
	return out
}

// Author is a family name with the beginnings of given names; with Any or All set, words of names.
type Author struct {
	Pattern  text.Pattern
	Any, All bool
}

// Match implements Expr.
func (q Author) Match(ix *index.Index) *roaring.Bitmap {
	if q.Any || q.All {
		return joinWords(q.Pattern, q.All, func(word text.Pattern) *roaring.Bitmap { return ix.AuthorWord(word[0]) })
	}
	return ix.Author(q.Pattern)
}

// The years with which a range without an end ends.
const (
	FirstYear = 1
	LastYear  = 9999
)

// Years is the years from one to another, both included.
type Years struct{ From, To int }

// Match implements Expr.
func (q Years) Match(ix *index.Index) *roaring.Bitmap { return ix.Years(q.From, q.To) }

// Listed is a type, language, country or identifier.
type Listed struct {
	List  index.List
	Value string
}

// Match implements Expr.
func (q Listed) Match(ix *index.Index) *roaring.Bitmap { return ix.Listed(q.List, q.Value) }

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
	return Near{Left: left, Right: right, Within: within, Fields: f}, nil
}

// MatchesValue reports whether the phrase stands in one value, whatever field that is.
func (q Phrase) MatchesValue(tokens []string) bool {
	return len(q.Pattern.Find(tokens)) > 0 && (!q.Whole || len(tokens) == len(q.Pattern))
}

// MatchesValue reports whether the pair stands in one value, whatever field that is.
func (q Near) MatchesValue(tokens []string) bool {
	return text.Near(q.Left, q.Right, q.distance(), tokens)
}

// MatchesAssignment reports whether the heading term matches one assigned heading.
func (q Heading) MatchesAssignment(a bib.Assignment) bool {
	if !q.Which.Has(a.Label) || q.Central && !a.Central {
		return false
	}
	return len(q.Qualifiers) == 0 || slices.ContainsFunc(q.Qualifiers, func(wanted string) bool {
		return slices.ContainsFunc(a.Qualifiers, func(has string) bool { return text.Label(has) == text.Label(wanted) })
	})
}
