package coverage

import (
	"context"
	"math"
	"slices"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/company"
	"tamiz/core/strategy"
)

// A Suit is how well a candidate belongs to each block (measures.md §4): Of by block, 0 where it does not. Kept is false
// for what is too rare to have company.
type Suit struct {
	Of   []float64
	Kept bool

	doubtful []bool // by block: it fits that far less than the block's own words do
}

// Best returns the block that a candidate suits best, or -1 where it suits none.
func (s Suit) Best() int {
	best := -1
	for b, x := range s.Of {
		if x > 0 && (best < 0 || x > s.Of[best]) {
			best = b
		}
	}
	return best
}

// A Rule is how suit is worked out.
type Rule string

const (
	// Published is measures.md §4 as it is.
	Published Rule = "published"
	// ByWords is the same (beyond.md), but each term of a block weighs alike, and a phrase fits no block better than the word
	// that leads it, and counts less where few records hold it.
	ByWords Rule = "words"
)

// Suits tells how well candidates belong to the blocks of a strategy: by the company that their words keep, and by how
// often the blocks find their records. It can be asked by several at once.
type Suits struct {
	fits   *company.Directions
	mu     sync.Mutex
	heads  map[string]Suit   // of headings, by label
	floors []float64         // by block, the fit below which it is doubtful whether something belongs
	blocks []*roaring.Bitmap // what each finds
	all    int               // records
}

// NewSuits prepares to tell what suits the blocks of a strategy, over all records of a set (sample and contrast together),
// whose company is given.
func NewSuits(ctx context.Context, set Set, kept *company.Company, s strategy.Strategy, rule Rule) (*Suits, error) {
	set.Within = nil
	reach, err := Find(ctx, set, s)
	if err != nil {
		return nil, err
	}
	way := company.ByItem
	if rule == ByWords {
		way = company.ByTerm
	}
	fits, err := kept.Directions(ctx, s, way)
	if err != nil {
		return nil, err
	}
	out := &Suits{fits: fits, heads: map[string]Suit{}, blocks: reach.Blocks, all: int(set.Index.All().GetCardinality())}
	for i := range s.Blocks {
		out.floors = append(out.floors, fits.Median(i)*doubt)
	}
	return out, nil
}

// doubt is from which part of the median fit of a block's own words on a fit is not doubtful. A third of it costs nothing of
// what is right on prose that people wrote; half of it, a fifth.
const doubt = 1.0 / 3

// Known reports whether an item has company, so that it can suit a block.
func (s *Suits) Known(item string) bool { return s.fits.Known(item) }

// Text returns how well a word or phrase suits each block; records are those of the set that hold it in title, abstract or
// a keyword.
func (s *Suits) Text(item string, records *roaring.Bitmap) Suit {
	fits, ok := s.fits.Fits(item)
	return s.weigh(fits, ok, records)
}

// Heading returns how well a heading suits each block; records are those of the set that carry it.
func (s *Suits) Heading(label string, records *roaring.Bitmap) Suit {
	s.mu.Lock()
	known, ok := s.heads[label]
	s.mu.Unlock()
	if ok {
		return known
	}
	fits, ok := s.fits.FitsOf(records)
	out := s.weigh(fits, ok, records)
	s.mu.Lock()
	s.heads[label] = out
	s.mu.Unlock()
	return out
}

// most returns the highest that the suit of an item to a block can be, whatever records hold it: so many or more.
func (s *Suits) most(fits company.Fitted, block, records int) float64 {
	together := 1.0
	if p := float64(s.blocks[block].GetCardinality()) / float64(s.all); p > 0 {
		together = 1 / p
	}
	if fits.Led {
		records = max(records, fullest)
	}
	return suit(fits, block, together, float64(records))
}

// How strongly a candidate that fits another block better is damped, how many chance records are laid to those that hold it,
// and from how many records on a phrase counts half and more. They were chosen with the formulas.
const (
	damping = 8
	chance  = 5
	halfway = 10
)

// fullest is in how many records a phrase counts most: with fewer it is less sure, with more it is more common.
var fullest = func() int {
	n := 1
	for held(float64(n+1), true) > held(float64(n), true) {
		n++
	}
	return n
}()

func (s *Suits) weigh(fits company.Fitted, kept bool, records *roaring.Bitmap) Suit {
	if !kept {
		return Suit{Of: make([]float64, len(s.blocks))}
	}
	with := func(b int) int { return int(records.AndCardinality(s.blocks[b])) }
	out := Suit{Of: s.weighed(fits, int(records.GetCardinality()), with), Kept: true}
	for b, fit := range fits.Of {
		out.doubtful = append(out.doubtful, fit < s.floors[b])
	}
	return out
}

// weighed returns the suit to each block of what stands in so many records; with tells how many of them a block finds.
func (s *Suits) weighed(fits company.Fitted, records int, with func(block int) int) []float64 {
	of := make([]float64, len(s.blocks))
	for b, fit := range fits.Of {
		if fit <= 0 {
			continue
		}
		together := 1.0
		if p := float64(s.blocks[b].GetCardinality()) / float64(s.all); p > 0 {
			together = (float64(with(b)) + chance*p) / (float64(records) + chance) / p
		}
		of[b] = suit(fits, b, together, float64(records))
	}
	return of
}

// suit is the formula of measures.md §4 and, by words, of beyond.md.
func suit(fits company.Fitted, block int, together, records float64) float64 {
	x := fits.Of[block] * (1 + max(0, math.Log(together)))
	return x * x * damped(fits.Of, block) * held(records, fits.Led)
}

// held is the part of suit that tells in how many records something stands.
func held(records float64, phrase bool) float64 {
	x := 1 / math.Log(2+records)
	if phrase {
		x *= records / (records + halfway)
	}
	return x
}

// damped is 1 for the block that something fits best, and less for the others.
func damped(fits []float64, block int) float64 {
	if fits[block] <= 0 {
		return 0
	}
	return math.Pow(fits[block]/slices.Max(fits), damping)
}

// SuitsOf does the same for records whose company is not known yet, and returns that besides.
func SuitsOf(ctx context.Context, set Set, s strategy.Strategy, rule Rule) (*Suits, *company.Company, error) {
	kept, err := company.Build(ctx, set.Index, set.Index.All())
	if err != nil {
		return nil, nil, err
	}
	suits, err := NewSuits(ctx, set, kept, s, rule)
	return suits, kept, err
}
