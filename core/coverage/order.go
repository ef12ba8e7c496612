package coverage

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/company"
	"tamiz/core/tally"
)

// Offers are how well each item of a company suits each block, and what it would bring there that is new. Records are
// counted in title and abstract, so that all items are told of at once.
type Offers struct {
	kept  *company.Company
	suits [][]float64 // by item, of each block
	block []int       // by item, the block that is proposed for it, or -1
	fresh []float64   // by item, the highest over the blocks of suit × ln(1 + records in the blind spot)
}

// Offered works out what all items offer to blocks. spots are their blind spots, nil for a block that has none.
// What was dropped in the review pushes away what is like it, for the order alone (measures.md §4, *Order*).
func Offered(
	ctx context.Context,
	suits *Suits,
	kept *company.Company,
	spots []*roaring.Bitmap,
	dropped []string,
) (*Offers, error) {
	o := &Offers{
		kept:  kept,
		suits: make([][]float64, kept.Len()),
		block: make([]int, kept.Len()),
		fresh: make([]float64, kept.Len()),
	}
	together, fresh := make([][]int32, len(suits.blocks)), make([][]int32, len(suits.blocks))
	for b, found := range suits.blocks {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		together[b] = kept.Counts(found)
		if spots[b] != nil {
			fresh[b] = kept.Counts(spots[b])
		}
	}
	away := kept.Toward(dropped)
	none, pushed := make([]float64, len(suits.blocks)), make([]float64, len(suits.blocks))
	for i := range o.suits {
		if i&1023 == 0 && ctx.Err() != nil {
			return nil, ctx.Err()
		}
		fits, records, stands := suits.fits.At(i)
		if !stands {
			fits = none
		}
		with := func(b int) int { return int(together[b][i]) }
		o.suits[i] = suits.weighed(fits, fits, records, with)
		ordered := o.suits[i]
		if d := away(i); d > 0 && stands {
			for b := range fits {
				pushed[b] = fits[b] - push*d
			}
			ordered = suits.weighed(pushed, fits, records, with)
		}
		if o.block[i] = (Suit{Of: o.suits[i]}).Best(); o.block[i] >= 0 && tally.Round(fits[o.block[i]]) < leastFit {
			o.block[i] = -1
		}
		for b, suit := range ordered {
			if suit > 0 && fresh[b] != nil {
				o.fresh[i] = max(o.fresh[i], suit*math.Log(1+float64(fresh[b][i])))
			}
		}
	}
	return o, nil
}

// push is how much of its likeness to what was dropped is taken from the fit of an item.
const push = 0.5

// leastFit is from which fit on a block is proposed for what suits it best.
const leastFit = 0.1

// Proposed returns the block that is proposed for an item, and how well it suits that; -1 where none is.
func (o *Offers) Proposed(item string) (block int, suit float64) {
	i, ok := o.kept.Place(item)
	if !ok || o.block[i] < 0 {
		return -1, 0
	}
	return o.block[i], o.suits[i][o.block[i]]
}

// suit returns how well an item suits a block; 0 for what is no item.
func (o *Offers) suit(item string, block int) float64 {
	if i, ok := o.kept.Place(item); ok {
		return o.suits[i][block]
	}
	return 0
}

// best returns the block that an item suits best, or -1; known is false for what is too rare to be told of.
func (o *Offers) best(item string) (block int, known bool) {
	i, ok := o.kept.Place(item)
	if !ok {
		return none, false
	}
	return Suit{Of: o.suits[i]}.Best(), true
}

// Fresh returns how much an item that suits a block would bring there that is new; 0 for what is no item or suits none.
func (o *Offers) Fresh(item string) float64 {
	if i, ok := o.kept.Place(item); ok {
		return o.fresh[i]
	}
	return 0
}

// An Ordered is a candidate by what it is ordered by.
type Ordered struct {
	Item    string
	Records int
	Pull    float64
	Fresh   float64
}

// nearFirst is how much less the first ranks count than those behind them: the higher, the more alike.
const nearFirst = 20

// Order returns the places of candidates in the order in which they are looked at: by two ranks, of pull and of what is
// new, added as reciprocals (Cormack, Clarke and Büttcher 2009, "Reciprocal rank fusion outperforms Condorcet and
// individual rank learning methods"). What is not new anywhere has the first part alone.
func Order(all []Ordered) []int {
	score := make([]float64, len(all))
	add := func(places []int, figure func(Ordered) float64) {
		slices.SortFunc(places, func(a, b int) int {
			x, y := all[a], all[b]
			return cmp.Or(
				cmp.Compare(tally.Round(figure(y)), tally.Round(figure(x))),
				cmp.Compare(y.Records, x.Records),
				strings.Compare(x.Item, y.Item),
			)
		})
		for rank, i := range places {
			score[i] += 1 / float64(nearFirst+rank)
		}
	}
	var every, fresh []int
	for i, c := range all {
		every = append(every, i)
		if c.Fresh > 0 {
			fresh = append(fresh, i)
		}
	}
	add(every, func(c Ordered) float64 { return c.Pull })
	add(fresh, func(c Ordered) float64 { return c.Fresh })
	slices.SortStableFunc(every, func(a, b int) int { return cmp.Compare(score[b], score[a]) })
	return every
}
