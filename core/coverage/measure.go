package coverage

import (
	"context"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

// A BlockMeasure is what the terms of a block find together and each for itself. Terms that are
// switched off have no measures.
type BlockMeasure struct {
	Hits          int
	HeadingsAlone int // records that only its heading terms find
	WordsAlone    int // that only its free-text and near terms find
	Both          int
	Unindexed     int            // of the words alone, records that carry no heading at all
	Terms         []*TermMeasure // by term, nil for one that is switched off
}

// A TermMeasure is what one term of a block brings.
type TermMeasure struct {
	Hits        int
	OnlyHere    int   // records that no other term of the block finds
	Total       int   // records that the terms up to this one find: the staircase
	Step        int   // what this term adds to it
	AddsNothing bool  // no record and no key study is only its own
	Inside      []int // terms that find all that this one finds
	SoleCatch   int   // key studies that it alone catches for the block
}

// leastInside is from how many hits on one set of records inside another says something.
const leastInside = 5

// Measure works out a block's measures on what it reaches in a set of records and in the key studies,
// which may be nil.
func Measure(ctx context.Context, reach, inKeys *Reach, block int) (BlockMeasure, error) {
	terms := reach.Terms[block]
	m := BlockMeasure{Hits: count(reach.Blocks[block]), Terms: make([]*TermMeasure, len(terms))}
	var headings, words []*roaring.Bitmap
	exprs := make([]query.Expr, len(terms))
	found, twice, total := roaring.New(), roaring.New(), 0
	for i, hits := range terms {
		if hits == nil {
			continue
		}
		again := roaring.And(found, hits)
		twice.Or(again)
		found.Or(hits)
		step := count(hits) - count(again)
		total += step
		m.Terms[i] = &TermMeasure{Hits: count(hits), Step: step, Total: total}
		if reach.s.Blocks[block].Terms[i].Kind == strategy.HeadingTerm {
			headings = append(headings, hits)
		} else {
			words = append(words, hits)
		}
		exprs[i], _ = reach.s.Blocks[block].Terms[i].QueryIn(reach.set.Thesaurus)
	}
	byHeading, byWord := found, found
	switch {
	case len(words) > 0 && len(headings) > 0:
		byHeading, byWord = roaring.FastOr(headings...), roaring.FastOr(words...)
	case len(words) > 0:
		byHeading = roaring.New()
	default:
		byWord = roaring.New()
	}
	m.Both = int(byHeading.AndCardinality(byWord))
	m.HeadingsAlone, m.WordsAlone = count(byHeading)-m.Both, count(byWord)-m.Both
	alone := roaring.And(byWord, reach.set.Index.Unindexed())
	m.Unindexed = count(alone) - int(alone.AndCardinality(byHeading))
	for i, own := range ownOf(terms, twice) {
		m.Terms[i].OnlyHere = own
		m.Terms[i].AddsNothing = own == 0
	}
	if inKeys != nil {
		for i, own := range onlyHere(inKeys.Terms[block]) {
			m.Terms[i].SoleCatch = own
			m.Terms[i].AddsNothing = m.Terms[i].AddsNothing && own == 0
		}
	}
	for i, t := range m.Terms {
		if ctx.Err() != nil {
			return m, ctx.Err()
		}
		if t == nil {
			continue
		}
		members := sampled(terms[i])
		for j, other := range m.Terms {
			// Whatever a term covers it finds as well, so that most pairs are told apart by what they find.
			if i == j || other == nil || t.Hits > other.Hits || !holdsAll(terms[j], members) {
				continue
			}
			if t.Hits >= leastInside && terms[i].AndCardinality(terms[j]) == uint64(t.Hits) ||
				t.Hits < leastInside && covers(exprs[j], exprs[i]) {
				t.Inside = append(t.Inside, j)
			}
		}
	}
	return m, nil
}

// onlyHere returns, by term, how many records no other term finds. It looks at each set twice, however
// many there are.
func onlyHere(terms []*roaring.Bitmap) map[int]int {
	once, twice := roaring.New(), roaring.New()
	for _, hits := range terms {
		if hits != nil {
			twice.Or(roaring.And(once, hits))
			once.Or(hits)
		}
	}
	return ownOf(terms, twice)
}

// ownOf does the same where what more than one finds is known.
func ownOf(terms []*roaring.Bitmap, twice *roaring.Bitmap) map[int]int {
	out := map[int]int{}
	for i, hits := range terms {
		if hits != nil {
			out[i] = count(hits) - int(hits.AndCardinality(twice))
		}
	}
	return out
}

// sampled returns some members of a set, spread over it.
func sampled(set *roaring.Bitmap) (out []uint32) {
	n := set.GetCardinality()
	if n == 0 {
		return nil
	}
	for k := uint64(0); k < 8; k++ {
		if member, err := set.Select(uint32(k * (n - 1) / 7)); err == nil && (len(out) == 0 || member != out[len(out)-1]) {
			out = append(out, member)
		}
	}
	return out
}

func holdsAll(set *roaring.Bitmap, members []uint32) bool {
	for _, m := range members {
		if !set.Contains(m) {
			return false
		}
	}
	return true
}

// covers reports whether whatever the narrow term matches the wide one does, by the way they are
// written.
func covers(wide, narrow query.Expr) bool {
	switch wide := wide.(type) {
	case query.Phrase:
		if within, ok := narrow.(query.Phrase); ok {
			return holds(wide.Fields, within.Fields) && wide.Pattern.Covers(within.Pattern)
		}
		// What is found near something is found.
		if near, ok := narrow.(query.Near); ok && holds(wide.Fields, near.Fields) {
			return wide.Pattern.Covers(near.Left) || wide.Pattern.Covers(near.Right)
		}
	case query.Heading:
		within, ok := narrow.(query.Heading)
		if !ok || wide.Until != 0 && (within.Until == 0 || within.Until > wide.Until) || wide.Central && !within.Central ||
			len(wide.Qualifiers) > 0 && !(len(within.Qualifiers) > 0 && among(within.Qualifiers, wide.Qualifiers)) {
			return false
		}
		return within.Which.Within(wide.Which)
	}
	return false
}

func holds(wide, narrow bib.Field) bool { return wide&narrow == narrow }

// among reports whether all labels are among the others.
func among(labels, others []string) bool {
	set := map[string]bool{}
	for _, o := range others {
		set[text.Label(o)] = true
	}
	for _, l := range labels {
		if !set[text.Label(l)] {
			return false
		}
	}
	return true
}
