package tally

import (
	"math"
	"strconv"

	"github.com/RoaringBitmap/roaring/v2"
)

// An Aspect is which records around an item are meant, where they are not those that hold it.
type Aspect string

// The aspects: every figure that is told of a facet has its records.
const (
	AspectMissing Aspect = "missing" // of a facet: without any item
	AspectLost    Aspect = "lost"    // what a limit to the item would lose; of a year, a limit from it on
	AspectOther   Aspect = "other"   // with another item, and not this one
	AspectBare    Aspect = "bare"    // with the item, and without any heading

	// For a kind that titles name as well: by what it is indexed with, by the title, by both, by either.
	AspectTyped  Aspect = "typed"
	AspectTitled Aspect = "titled"
	AspectBoth   Aspect = "both"
	AspectEither Aspect = "either"
)

// Around returns the records of the pool of an aspect of an item, by its key; none for a kind or an aspect that
// there is not.
func (p *Pool) Around(f Facet, key string, a Aspect) *roaring.Bitmap {
	switch a {
	case AspectMissing:
		return roaring.AndNot(p.Index.All(), p.listed(f).any)
	case AspectLost:
		return roaring.AndNot(p.Index.All(), p.within(f, key))
	case AspectOther:
		return roaring.AndNot(p.listed(f).any, p.Having(f, key))
	case AspectBare:
		return roaring.And(p.Having(f, key), p.Index.Unindexed())
	}
	for _, k := range kinds {
		if k.facet != f || k.name != key {
			continue
		}
		typed, titled := p.said(k)
		switch a {
		case AspectTyped:
			return typed
		case AspectTitled:
			return titled
		case AspectBoth:
			return roaring.And(typed, titled)
		case AspectEither:
			return roaring.Or(typed, titled)
		}
	}
	return roaring.New()
}

// within returns the records that a limit to an item would keep.
func (p *Pool) within(f Facet, key string) *roaring.Bitmap {
	if f != Years {
		return p.Having(f, key)
	}
	from, err := strconv.Atoi(key)
	if err != nil {
		return roaring.New()
	}
	return p.Index.Years(from, math.MaxInt32)
}
