package coverage

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// A Lack is a word, phrase or heading that a block may lack: it stands in the block's blind spot and suits the block.
type Lack struct {
	Item    string
	Kind    string  // strategy.TextTerm or strategy.HeadingTerm
	Records int     // in the blind spot
	Of      int     // in all
	Pull    float64 // how typical it is of the blind spot, against all other records
	Suit    float64
	Best    int // the block that it suits best
}

// leastInSpot is in how many records of a blind spot something has to stand.
const leastInSpot = 2

// Lacks returns what a block may lack, what suits it best first, and how many records its blind spot has. reach is what the
// strategy finds in the set; suits, whose company is given, may be of more records than the set.
func Lacks(ctx context.Context, reach *Reach, suits *Suits, kept *company.Company, block int) ([]Lack, int, error) {
	set, spot := reach.set, reach.BlindSpot(block)
	in, all := count(spot), count(set.all())
	taken, err := TakenBy(reach.s, set.Thesaurus)
	if err != nil || in < leastInSpot {
		return []Lack{}, in, err
	}
	out := []Lack{}
	add := func(item, kind string, key query.Expr, suit func(*found) Suit) {
		everywhere := key.Match(set.Index)
		f := &found{records: set.part(everywhere)}
		here := int(f.records.AndCardinality(spot))
		if here < leastInSpot {
			return
		}
		s := suit(&found{records: everywhere})
		if tally.Round(s.Of[block]) <= 0 {
			return
		}
		out = append(out, Lack{item, kind, here, count(f.records), tally.Pull(here, in, count(f.records)-here, all-in), s.Of[block], s.Best()})
	}
	n := 0
	kept.Items(func(item string, _ int) bool {
		if n++; n&255 == 0 && ctx.Err() != nil {
			return false
		}
		// Without fit there is no suit: most words need not be looked for at all.
		if fits, ok := suits.fits.Fits(item); !ok || fits[block] <= 0 {
			return true
		}
		tokens := strings.Split(item, " ")
		if !taken.Text(tokens) {
			add(item, strategy.TextTerm, query.Phrase{Pattern: text.Literal(tokens...), Fields: bib.Text}, func(f *found) Suit { return suits.Text(item, f.records) })
		}
		return true
	})
	if ctx.Err() != nil {
		return nil, in, ctx.Err()
	}
	labels := map[string]string{}
	var order []string
	for it := spot.Iterator(); it.HasNext(); {
		r := set.Records[it.Next()]
		for _, h := range r.Headings {
			label := text.Label(h.Label)
			if _, known := labels[label]; !known {
				labels[label] = h.Label
				order = append(order, label)
			}
		}
	}
	for _, label := range order {
		// A heading is there already where a term matches any of its assignments.
		carrying := query.Heading{Labels: []string{label}}.Match(set.Index)
		if !slices.ContainsFunc(carrying.ToArray(), func(r uint32) bool { return taken.Heading(set.Records[r], label) }) {
			add(written(set.Thesaurus, labels[label]), strategy.HeadingTerm, query.Heading{Labels: []string{label}}, func(f *found) Suit { return suits.Heading(ctx, f.records) })
		}
	}
	slices.SortFunc(out, func(a, b Lack) int {
		return cmp.Or(cmp.Compare(tally.Round(b.Suit), tally.Round(a.Suit)), cmp.Compare(b.Records, a.Records), strings.Compare(a.Item, b.Item), strings.Compare(a.Kind, b.Kind))
	})
	return out, in, nil
}
