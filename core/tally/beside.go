package tally

import (
	"cmp"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/text"
)

// A Beside is what records carry right beside an item: of a heading a qualifier of it, of a qualifier a heading that it
// stands behind.
type Beside struct {
	Item    string
	Records int
}

// Besides tells which qualifiers some records put behind a heading, or behind which headings they put a qualifier,
// the most frequent first, as they are written first; nil for any other facet. Each record counts once.
func (p *Pool) Besides(f Facet, item string, of *roaring.Bitmap) []Beside {
	if f != Headings && f != Qualifiers {
		return nil
	}
	wanted := text.Label(item)
	place := map[string]int{}
	out := []Beside{}
	for it := of.Iterator(); it.HasNext(); {
		seen := map[string]bool{}
		put := func(name string) {
			key := text.Label(name)
			if seen[key] {
				return
			}
			seen[key] = true
			i, known := place[key]
			if !known {
				i = len(out)
				place[key] = i
				out = append(out, Beside{Item: name})
			}
			out[i].Records++
		}
		for _, h := range p.Records[it.Next()].Headings {
			if f == Headings {
				if text.Label(h.Label) == wanted {
					for _, q := range h.Qualifiers {
						put(q)
					}
				}
			} else if slices.ContainsFunc(h.Qualifiers, func(q string) bool { return text.Label(q) == wanted }) {
				put(h.Label)
			}
		}
	}
	slices.SortStableFunc(
		out,
		func(a, b Beside) int { return cmp.Or(b.Records-a.Records, strings.Compare(a.Item, b.Item)) },
	)
	return out
}
