// Package coverage works out what a strategy finds in a set of records, which key studies it catches
// and misses, what holds those back, and what would bring them back at which price.
package coverage

import (
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
)

// A Set is records with their index. Within, where given, is the part of them that counts; Thesaurus,
// where given, the vocabulary of their headings.
type Set struct {
	Records   []*bib.Record
	Index     *index.Index
	Within    *roaring.Bitmap
	Thesaurus *thesaurus.Thesaurus
}

// NewSet indexes records.
func NewSet(records []*bib.Record) Set {
	return Set{Records: records, Index: index.Build(records)}
}

func (s Set) all() *roaring.Bitmap {
	if s.Within != nil {
		return s.Within.Clone()
	}
	return s.Index.All()
}

// A Reach is what a strategy finds in a set of records, part by part. It holds for the strategy it
// was worked out from and is not changed by later ones.
type Reach struct {
	Terms  [][]*roaring.Bitmap // by block and term; nil for a term that is switched off
	Blocks []*roaring.Bitmap
	Limits []*roaring.Bitmap // the records inside each limit
	Whole  *roaring.Bitmap   // what the strategy finds

	set Set
	s   strategy.Strategy
}

// Find works out what a strategy finds. Its terms have to be searchable (see Strategy.Check); one
// that is not is answered by its error.
func Find(set Set, s strategy.Strategy) (*Reach, error) {
	r := &Reach{set: set, s: s}
	for _, b := range s.Blocks {
		terms, union := make([]*roaring.Bitmap, len(b.Terms)), roaring.New()
		for i, t := range b.Terms {
			if !t.On {
				continue
			}
			hits, err := Hits(set, t)
			if err != nil {
				return nil, err
			}
			terms[i] = hits
			union.Or(hits)
		}
		r.Terms, r.Blocks = append(r.Terms, terms), append(r.Blocks, union)
	}
	for _, l := range s.Limits {
		r.Limits = append(r.Limits, admitted(set, l))
	}
	r.Whole = r.without(none, none)
	return r, nil
}

// Hits returns the records of a set that a term finds, whether it is switched on or not.
func Hits(set Set, t strategy.Term) (*roaring.Bitmap, error) {
	q, err := t.QueryIn(set.Thesaurus)
	if err != nil {
		return nil, err
	}
	return set.hits(q), nil
}

func (s Set) hits(q query.Expr) *roaring.Bitmap {
	hits := q.Match(s.Index)
	if s.Within != nil {
		hits.And(s.Within)
	}
	return hits
}

func admitted(set Set, l strategy.Limit) *roaring.Bitmap {
	in := roaring.New()
	it := set.all().Iterator()
	for it.HasNext() {
		if n := it.Next(); l.Admits(set.Records[n]) {
			in.Add(n)
		}
	}
	return in
}

// without returns what the strategy would find without one of its blocks, or without one of its
// limits (none: nothing is left out). A strategy without a searched block finds nothing.
func (r *Reach) without(block, limit int) *roaring.Bitmap {
	found := r.set.all()
	searched := false
	for i, b := range r.s.Blocks {
		switch {
		case !b.Searched:
		case b.Negated:
			if i != block {
				found.AndNot(r.Blocks[i])
			}
		default:
			searched = true
			if i != block {
				found.And(r.Blocks[i])
			}
		}
	}
	if !searched {
		return roaring.New()
	}
	for i, l := range r.Limits {
		if i != limit {
			found.And(l)
		}
	}
	return found
}

const none = -1

// Open returns the records that the strategy would find as soon as one block found them: what all
// other parts let through and this block does not find. What a candidate finds of these is its price.
func (r *Reach) Open(block int) *roaring.Bitmap {
	open := r.without(block, none)
	open.AndNot(r.Blocks[block])
	return open
}

// TakenAwayByLimit returns how many records a limit takes away: what the strategy would find without it,
// less what it finds.
func (r *Reach) TakenAwayByLimit(limit int) int {
	return count(r.without(none, limit)) - count(r.Whole)
}

// TakenAwayByBlock does the same for a block, negated or not. A block that is not searched takes away
// nothing; without the only searched one nothing would be found, so that the answer is then negative.
func (r *Reach) TakenAwayByBlock(block int) int {
	if !r.s.Blocks[block].Searched {
		return 0
	}
	rest := r.s
	rest.Blocks = slices.Clone(rest.Blocks)
	rest.Blocks[block].Searched = false
	without := *r
	without.s = rest
	return count(without.without(none, none)) - count(r.Whole)
}
