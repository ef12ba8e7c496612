// Package coverage works out what a strategy finds in a set of records, which key studies it catches
// and misses, what holds those back, and what would bring them back at which price.
package coverage

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/parallel"
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
	Kept      *Kept // remembers what terms find; may be nil
}

// NewSet indexes records.
func NewSet(records []*bib.Record) Set {
	return Set{Records: records, Index: index.Build(records)}
}

// All returns the records that count.
func (s Set) All() *roaring.Bitmap {
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
func Find(ctx context.Context, set Set, s strategy.Strategy) (*Reach, error) {
	r := &Reach{set: set, s: s}
	type place struct{ block, term int }
	var on []place
	for i, b := range s.Blocks {
		r.Terms = append(r.Terms, make([]*roaring.Bitmap, len(b.Terms)))
		for j, t := range b.Terms {
			if t.On {
				on = append(on, place{i, j})
			}
		}
	}
	err := parallel.Each(ctx, len(on), func(n int) error {
		at := on[n]
		hits, err := Hits(set, s.Blocks[at.block].Terms[at.term])
		r.Terms[at.block][at.term] = hits
		return err
	})
	if err != nil {
		return nil, err
	}
	for _, terms := range r.Terms {
		r.Blocks = append(
			r.Blocks,
			roaring.FastOr(slices.DeleteFunc(slices.Clone(terms), func(hits *roaring.Bitmap) bool { return hits == nil })...),
		)
	}
	for _, l := range s.Limits {
		r.Limits = append(r.Limits, admitted(set, l))
	}
	r.Whole = r.without(none, none)
	return r, nil
}

// Hits returns the records of a set that a term finds, whether it is switched on or not. The set may be that of
// others too: it is not to be changed.
func Hits(set Set, t strategy.Term) (*roaring.Bitmap, error) {
	found, err := set.Kept.of(termKey(t), func() (*roaring.Bitmap, error) {
		q, err := t.QueryIn(set.Thesaurus)
		if err != nil {
			return nil, err
		}
		return q.Match(set.Index), nil
	})
	if err != nil || set.Within == nil {
		return found, err
	}
	return roaring.And(found, set.Within), nil
}

// Says returns the records of the set that a query in CQL finds; nil where it cannot be read. The set may be that
// of others too: it is not to be changed.
func (r *Reach) Says(cql string) *roaring.Bitmap {
	found, err := r.set.Kept.of("query "+cql, func() (*roaring.Bitmap, error) {
		q, err := query.Parse(cql, r.set.Thesaurus)
		if err != nil {
			return nil, err
		}
		return q.Expr.Match(r.set.Index), nil
	})
	if err != nil {
		return nil
	}
	return r.set.part(found)
}

// part returns those of some records that count.
func (s Set) part(found *roaring.Bitmap) *roaring.Bitmap {
	if s.Within == nil {
		return found
	}
	return roaring.And(found, s.Within)
}

func admitted(set Set, l strategy.Limit) *roaring.Bitmap {
	q, err := l.Query(set.Thesaurus)
	if err != nil {
		return roaring.New() // what cannot be searched lets nothing through; it is refused before it is kept
	}
	if l.KeepsOut() {
		return roaring.AndNot(set.All(), q.Match(set.Index))
	}
	return set.part(q.Match(set.Index))
}

// LimitFinds returns what a limit asks for: what it lets through or, where it keeps out, what it does not. The set
// is not to be changed.
func (r *Reach) LimitFinds(limit int) *roaring.Bitmap {
	if r.s.Limits[limit].KeepsOut() {
		return roaring.AndNot(r.set.All(), r.Limits[limit])
	}
	return r.Limits[limit]
}

// without returns what the strategy would find without one of its blocks, or without one of its
// limits (none: nothing is left out). A strategy without a searched block finds nothing.
func (r *Reach) without(block, limit int) *roaring.Bitmap {
	found := r.together(block)
	for i, l := range r.Limits {
		if i != limit {
			found.And(l)
		}
	}
	for i, b := range r.s.Blocks {
		if b.Searched && b.Negated && i != block {
			found.AndNot(r.Blocks[i])
		}
	}
	return found
}

// together returns what the blocks that are not negated find together, but one of them.
func (r *Reach) together(block int) *roaring.Bitmap {
	found := r.set.All()
	searched := false
	for i, b := range r.s.Blocks {
		if !b.Searched || b.Negated {
			continue
		}
		searched = true
		if i != block {
			found.And(r.Blocks[i])
		}
	}
	if !searched {
		return roaring.New()
	}
	return found
}

const none = -1

// BeforeNot returns what the blocks and limits find together before what NOT takes away: the NOT blocks, and limits
// that keep out.
func (r *Reach) BeforeNot() *roaring.Bitmap {
	found := r.together(none)
	for i, l := range r.Limits {
		if !r.s.Limits[i].KeepsOut() {
			found.And(l)
		}
	}
	return found
}

// Open returns the records that the strategy would find as soon as one block found them: what all
// other parts let through and this block does not find. What a candidate finds of these is its price.
func (r *Reach) Open(block int) *roaring.Bitmap {
	open := r.without(block, none)
	open.AndNot(r.Blocks[block])
	return open
}

// WithoutLimit returns what the strategy would find without one of its limits.
func (r *Reach) WithoutLimit(limit int) *roaring.Bitmap { return r.without(none, limit) }

// WithoutBlock does the same for a block, negated or not. Without the only searched one nothing is found.
func (r *Reach) WithoutBlock(block int) *roaring.Bitmap {
	rest := r.s
	rest.Blocks = slices.Clone(rest.Blocks)
	rest.Blocks[block].Searched = false
	without := *r
	without.s = rest
	return without.without(none, none)
}

// TakenAwayByLimit returns how many records a limit takes away: what the strategy would find without it,
// less what it finds.
func (r *Reach) TakenAwayByLimit(limit int) int { return count(r.WithoutLimit(limit)) - count(r.Whole) }

// TakenAwayByBlock does the same for a block. One that is not searched takes away nothing; without the only
// searched one nothing would be found, so that the answer is then negative.
func (r *Reach) TakenAwayByBlock(block int) int {
	if !r.s.Blocks[block].Searched {
		return 0
	}
	return count(r.WithoutBlock(block)) - count(r.Whole)
}
