package desk

import (
	"cmp"
	"context"
	"fmt"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// CheckFacet refuses a facet that there is not.
func CheckFacet(f tally.Facet) error {
	if !slices.Contains(tally.Facets, f) {
		return problems.Invalid("facet", "There is no facet %q.", string(f))
	}
	return nil
}

// Textual reports whether the items of a facet go into a block as words.
func Textual(f tally.Facet) bool {
	return f == tally.Words || f == tally.Keywords || f == tally.Substances
}

// ItemKey returns by what an item of a facet is decided on; parted are authors that are not folded.
func ItemKey(f tally.Facet, item string, parted tally.Parted) string {
	switch f {
	case tally.Headings:
		return text.Label(item)
	case tally.Keywords:
		return text.Key(item)
	case tally.Authors:
		return parted.AuthorKey(bib.ParsePerson(item))
	case tally.Journals:
		return tally.JournalKey(item)
	case tally.Words:
		return item
	}
	return text.Label(item)
}

// DecisionKey returns by what a candidate is decided on, so that it is the same wherever it is met. What has
// nothing to go by is left as it is. It is made of what stands in a record, not of a key: some letters change a
// second time (ŉ).
func DecisionKey(f tally.Facet, item string) string { return cmp.Or(ItemKey(f, item, nil), item) }

// Forms returns the variants of a word or phrase that what is looked at has; of anything else, itself.
func (p *Pool) Forms(ctx context.Context, l Scope, f tally.Facet, item string, k *Keys) ([]string, error) {
	if f == tally.Words {
		words, err := p.Tally(ctx, l, f, k)
		if err != nil {
			return nil, err
		}
		if i, ok := words.words.Find(item); ok {
			return words.Forms(i), nil
		}
	}
	return []string{item}, nil
}

// WithItem returns the records of the pool that have an item, in any of its forms.
func (p *Pool) WithItem(f tally.Facet, item string, forms []string) *roaring.Bitmap {
	if f != tally.Words {
		return p.Having(f, ItemKey(f, item, p.Parted))
	}
	found := roaring.New()
	for _, form := range forms {
		found.Or(p.Index.Gram(text.Tokens(form), tally.DefaultWords.Fields))
	}
	return found
}

// Byline returns who wrote a record, as short as it can be told.
func Byline(r *bib.Record) string {
	switch len(r.Authors) {
	case 0:
		return ""
	case 1:
		return r.Authors[0].Family
	case 2:
		return r.Authors[0].Family + ", " + r.Authors[1].Family
	}
	return fmt.Sprintf("%s + %d", r.Authors[0].Family, len(r.Authors)-1)
}
