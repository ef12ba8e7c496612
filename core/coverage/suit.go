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

// A Suit is how well a candidate belongs to each block (measures.md §4): Of by block, 0 where it does not. Kept is
// false for what is too rare to have company.
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

// NewSuits prepares to tell what suits the blocks of a strategy, over all records of a set (sample and contrast
// together), whose company is given.
func NewSuits(ctx context.Context, set Set, kept *company.Company, s strategy.Strategy) (*Suits, error) {
	set.Within = nil
	reach, err := Find(ctx, set, s)
	if err != nil {
		return nil, err
	}
	fits, err := kept.Directions(ctx, s)
	if err != nil {
		return nil, err
	}
	out := &Suits{fits: fits, heads: map[string]Suit{}, blocks: reach.Blocks, all: int(set.Index.All().GetCardinality())}
	for i := range s.Blocks {
		out.floors = append(out.floors, fits.Median(i)*doubt)
	}
	return out, nil
}

// doubt is from which part of the median fit of a block's own words on a fit is not doubtful. A third of it costs
// nothing of what is right on prose that people wrote; half of it, a fifth.
const doubt = 1.0 / 3

// Known reports whether an item has company, so that it can suit a block.
func (s *Suits) Known(item string) bool { return s.fits.Known(item) }

// Text returns how well a word or phrase suits each block; records are those of the set that hold it in title,
// abstract or a keyword. A phrase that does not stand by itself suits none.
func (s *Suits) Text(item string, records *roaring.Bitmap) Suit {
	fits, ok := s.fits.Fits(item)
	if ok && !s.fits.Stands(item) {
		return s.weigh(make([]float64, len(s.blocks)), true, records)
	}
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
func (s *Suits) most(fits []float64, block, records int) float64 {
	together := 1.0
	if p := float64(s.blocks[block].GetCardinality()) / float64(s.all); p > 0 {
		together = 1 / p
	}
	return suit(fits[block], together, float64(records)) * damped(fits, block)
}

// The numbers of the formula of suit: how strongly a candidate that fits another block better is damped, how many
// chance records are laid to those that hold it, what fit counts beside togetherness, and how much a common word
// counts less.
const (
	damping  = 8
	chance   = 5
	kind     = 2
	rareness = 1.5
)

func (s *Suits) weigh(fits []float64, kept bool, records *roaring.Bitmap) Suit {
	if !kept {
		return Suit{Of: make([]float64, len(s.blocks))}
	}
	with := func(b int) int { return int(records.AndCardinality(s.blocks[b])) }
	out := Suit{Of: s.weighed(fits, fits, int(records.GetCardinality()), with), Kept: true}
	for b, fit := range fits {
		out.doubtful = append(out.doubtful, fit < s.floors[b])
	}
	return out
}

// weighed returns the suit to each block of what stands in so many records; with tells how many of them a block
// finds. own is the fits of the first factor: those that are damped by, or less.
func (s *Suits) weighed(own, fits []float64, records int, with func(block int) int) []float64 {
	of := make([]float64, len(s.blocks))
	for b, fit := range own {
		if fit <= 0 {
			continue
		}
		together := 1.0
		if p := float64(s.blocks[b].GetCardinality()) / float64(s.all); p > 0 {
			together = (float64(with(b)) + chance*p) / (float64(records) + chance) / p
		}
		of[b] = suit(fit, together, float64(records)) * damped(fits, b)
	}
	return of
}

// suit is the formula of measures.md §4, but for what fits another block better.
func suit(fit, together, records float64) float64 {
	x := fit * (kind + max(0, math.Log(together)))
	return x * x / math.Pow(math.Log(2+records), rareness)
}

// damped is 1 for the block that something fits best, and less for the others.
func damped(fits []float64, block int) float64 {
	if fits[block] <= 0 {
		return 0
	}
	return math.Pow(fits[block]/slices.Max(fits), damping)
}

// SuitsOf does the same for records whose company is not known yet, and returns that as well.
func SuitsOf(ctx context.Context, set Set, s strategy.Strategy) (*Suits, *company.Company, error) {
	kept, err := company.Build(ctx, set.Index, set.Index.All())
	if err != nil {
		return nil, nil, err
	}
	suits, err := NewSuits(ctx, set, kept, s)
	return suits, kept, err
}
