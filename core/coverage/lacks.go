package coverage

import (
	"cmp"
	"context"
	"runtime"
	"slices"
	"strings"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"
	"golang.org/x/sync/errgroup"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/parallel"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Lack is a word, phrase or heading that a block may lack: it stands in the block's blind spot and suits the block.
type Lack struct {
	Item    string
	Kind    string  // strategy.TextTerm or strategy.HeadingTerm
	Records int     // in the blind spot
	Of      int     // in all
	Pull    float64 // how typical it is of the blind spot, against all other records
	Suit    float64
	Best    int    // the block that it suits best
	Under   string // the shorter or longer form of it that stands before it; empty where none does
}

// leastInSpot is in how many records of a blind spot something has to stand.
const leastInSpot = 2

// Wanted says what of a blind spot is wanted: the first so many (0 is all), but for what is to be skipped.
type Wanted struct {
	First int
	Skip  func(kind, item string) bool
}

// Lacks returns what a block may lack, what suits it best first, and how many records its blind spot has. reach is
// what the strategy finds in the set; suits, whose company is given, may be of more records than the set.
func Lacks(
	ctx context.Context,
	reach *Reach,
	suits *Suits,
	kept *company.Company,
	block int,
	want Wanted,
) ([]Lack, int, error) {
	set, spot := reach.set, reach.BlindSpot(block)
	in, all := count(spot), count(set.All())
	taken, err := TakenBy(reach.s, set.Thesaurus)
	if err != nil || in < leastInSpot {
		return []Lack{}, in, err
	}
	found := lacking{first: want.First}
	add := func(item, kind string, key query.Expr, suit func(everywhere *roaring.Bitmap) Suit) {
		if want.Skip != nil && want.Skip(kind, item) {
			return
		}
		everywhere := key.Match(set.Index)
		records := set.part(everywhere)
		here := int(records.AndCardinality(spot))
		if here < leastInSpot {
			return
		}
		s := suit(everywhere)
		if tally.Round(s.Of[block]) <= 0 {
			return
		}
		n := count(records)
		found.add(Lack{item, kind, here, n, tally.Pull(here, in, n-here, all-in), s.Of[block], s.Best(), ""})
	}
	// Most words cannot suit the block, whatever records hold them, or not as well as what was found: what could suit it
	// best is looked for first, and the rest need not be looked for at all.
	type hope struct {
		item string
		most float64
	}
	var hopes []hope
	for _, item := range itemsOf(set, kept, spot) {
		if fits, ok := suits.fits.Fits(item); ok && fits[block] > 0 && suits.fits.Stands(item) {
			if most := tally.Round(suits.most(fits, block, kept.Records(item))); most > 0 {
				hopes = append(hopes, hope{item, most})
			}
		}
	}
	slices.SortFunc(hopes, func(a, b hope) int { return cmp.Compare(b.most, a.most) })
	work, ctx := errgroup.WithContext(ctx)
	work.SetLimit(runtime.GOMAXPROCS(0))
	beside := func(do func() error) { work.Go(func() error { return parallel.Safely(do) }) }
	for _, h := range hopes {
		if ctx.Err() != nil || h.most < found.least() {
			break
		}
		beside(func() error {
			tokens := strings.Split(h.item, " ")
			if !taken.Text(tokens) {
				add(
					h.item,
					strategy.TextTerm,
					query.Phrase{Pattern: text.Literal(tokens...), Fields: bib.Text},
					func(everywhere *roaring.Bitmap) Suit { return suits.Text(h.item, everywhere) },
				)
			}
			return ctx.Err()
		})
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
		beside(func() error {
			q := query.Heading{Which: thesaurus.Keyed(label)}
			if ctx.Err() == nil &&
				!slices.ContainsFunc(
					q.Match(set.Index).ToArray(),
					func(r uint32) bool { return taken.Heading(set.Records[r], label) },
				) {
				add(
					written(set.Thesaurus, labels[label]),
					strategy.HeadingTerm,
					q,
					func(everywhere *roaring.Bitmap) Suit { return suits.Heading(label, everywhere) },
				)
			}
			return ctx.Err()
		})
	}
	if err := work.Wait(); err != nil {
		return nil, in, err
	}
	out := found.all
	slices.SortFunc(out, sooner)
	var under pieces
	for i, x := range out {
		out[i].Under = under.put(x.Kind, x.Item, x.Suit)
	}
	if want.First > 0 {
		out = out[:min(want.First, len(out))]
	}
	return out, in, nil
}

// sooner orders what a block may lack.
func sooner(a, b Lack) int {
	return cmp.Or(
		cmp.Compare(tally.Round(b.Suit), tally.Round(a.Suit)),
		cmp.Compare(b.Records, a.Records),
		strings.Compare(a.Item, b.Item),
		strings.Compare(a.Kind, b.Kind),
	)
}

// A lacking collects what is found, by several at once.
type lacking struct {
	mu    sync.Mutex
	first int
	all   []Lack
	suits []float64 // of the first so many, ascending
}

func (l *lacking) add(x Lack) {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.all = append(l.all, x)
	suit := tally.Round(x.Suit)
	i, _ := slices.BinarySearch(l.suits, suit)
	l.suits = slices.Insert(l.suits, i, suit)
	if len(l.suits) > l.first {
		l.suits = l.suits[len(l.suits)-l.first:]
	}
}

// least returns what something has to suit the block at least to be among the first.
func (l *lacking) least() float64 {
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.first == 0 || len(l.suits) < l.first {
		return 0
	}
	return l.suits[0]
}

// itemsOf returns the items that records of a spot have: in title or abstract, or as an n-gram of a keyword.
func itemsOf(set Set, kept *company.Company, spot *roaring.Bitmap) []string {
	out := kept.ItemsIn(spot)
	seen := make(map[string]bool, len(out))
	for _, item := range out {
		seen[item] = true
	}
	for it := spot.Iterator(); it.HasNext(); {
		for gram := range text.Grams(set.Records[it.Next()].Keywords, maxCandidateWords) {
			if !seen[gram] {
				seen[gram] = true
				out = append(out, gram)
			}
		}
	}
	return out
}
