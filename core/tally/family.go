package tally

import (
	"context"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// A Family is the variants of one word or phrase. Its figures are those of all its forms together: a
// record with two of them counts once.
type Family struct {
	Row              // the Item is the family's label
	Forms   []Row    // most frequent first
	Absorbs []string // items that never stand without one of the forms
}

// Families gathers the items of a tally of words by family and brings them into order. An item that is
// absorbed is folded away: under the longer item that absorbs it, or, where its family has another form
// that stands alone, under that.
func Families(ctx context.Context, p *Pool, t *Tally, keys []*bib.Record, o WordOptions) ([]Family, error) {
	absorbed := map[string][]string{}
	for i := range t.Rows {
		if r := &t.Rows[i]; r.AbsorbedBy != "" {
			absorbed[r.AbsorbedBy] = append(absorbed[r.AbsorbedBy], r.Item)
		}
	}
	all := gathered(t.Rows)
	inKeys := make([]map[string]int, len(keys))
	for i, k := range keys {
		inKeys[i] = grammed(k, o)
	}
	rows := make([]Row, 0, len(all))
	kept := all[:0]
	together, err := p.together(ctx, inKeys, o)
	if err != nil {
		return nil, err
	}
	for i, f := range all {
		if i&1023 == 0 && ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if !slices.ContainsFunc(f.Forms, func(r Row) bool { return r.AbsorbedBy == "" }) {
			continue
		}
		slices.SortFunc(f.Forms, func(a, b Row) int {
			if text.Labels(a.Item, a.Records, b.Item, b.Records) {
				return -1
			}
			return 1
		})
		for _, r := range f.Forms {
			f.Absorbs = append(f.Absorbs, absorbed[r.Item]...)
		}
		rows = append(rows, together(f.Forms))
		kept = append(kept, f)
	}
	// The figures are worked out and ordered as those of items are.
	for i := range rows {
		rows[i].figures(t.Sample, t.Contrast)
	}
	out := make([]Family, len(kept))
	for i, n := range order(rows) {
		out[i] = kept[n]
		out[i].Row = rows[n]
	}
	return out, nil
}

// gathered returns the forms of each family. Most families have one form, which stays where it is among the rows; those of the others
// stand in one list, of which each family has a part.
func gathered(rows []Row) []Family {
	number := make([]int32, len(rows)) // of the family of each row
	byFamily := map[int32]int32{}
	var sizes []int
	for i := range rows {
		n, ok := byFamily[rows[i].family]
		if !ok {
			n = int32(len(sizes))
			sizes = append(sizes, 0)
			byFamily[rows[i].family] = n
		}
		number[i] = n
		sizes[n]++
	}
	several := 0
	for _, size := range sizes {
		if size > 1 {
			several += size
		}
	}
	out, forms := make([]Family, len(sizes)), make([]Row, several)
	for n, size := range sizes {
		if size > 1 {
			out[n].Forms, forms = forms[:0:size], forms[size:]
		}
	}
	for i, n := range number {
		if sizes[n] == 1 {
			out[n].Forms = rows[i : i+1 : i+1]
		} else {
			out[n].Forms = append(out[n].Forms, rows[i])
		}
	}
	return out
}

// together returns what counts the forms of a family, the first of which labels it.
func (p *Pool) together(ctx context.Context, keys []map[string]int, o WordOptions) (func(forms []Row) Row, error) {
	records := func(forms []Row) (int, int) {
		found := roaring.New()
		for _, f := range forms {
			found.Or(p.Index.Gram(strings.Split(f.Item, " "), o.Fields))
		}
		return int(found.AndCardinality(p.Sample)), int(found.AndCardinality(p.Contrast))
	}
	it, err := p.items(ctx, o)
	if err != nil {
		return nil, err
	}
	if it != nil {
		records = (&union{it: it, s: p.sides()}).of
	}
	return func(forms []Row) Row {
		sum := forms[0]
		if len(forms) == 1 {
			return sum
		}
		sum.Occurrences, sum.AbsorbedBy, sum.Keys = 0, "", 0
		for _, f := range forms {
			sum.Occurrences += f.Occurrences
		}
		sum.Records, sum.ContrastRecords = records(forms)
		for _, k := range keys {
			if slices.ContainsFunc(forms, func(f Row) bool { return k[f.Item] > 0 }) {
				sum.Keys++
			}
		}
		return sum
	}, nil
}
