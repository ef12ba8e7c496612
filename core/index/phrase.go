package index

import (
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// Phrase returns the records in which the pattern matches a value of one of the fields.
func (ix *Index) Phrase(p text.Pattern, fields bib.Field) *roaring.Bitmap {
	if len(p) == 0 { // of no word
		return roaring.New()
	}
	elements := ix.elements(p)
	if len(elements) == 1 && len(elements[0]) > 1 {
		return ix.anyOf(elements[0], fields)
	}
	if elements == nil {
		return roaring.New()
	}
	return ix.records(ix.phraseOf(elements, fields))
}

// anyOf returns the records in which one of many tokens stands in a value of the fields. They are marked rather than
// listed: the places of many tokens in order would take far longer than the marks of all records.
func (ix *Index) anyOf(tokens element, fields bib.Field) *roaring.Bitmap {
	marks := make([]uint64, ix.n/64+1)
	var places []uint32
	for _, t := range tokens {
		places = ix.places(places[:0], t)
		for _, at := range places {
			if v := &ix.values[ix.valueAt(at)]; v.field&fields != 0 {
				marks[v.record>>6] |= 1 << (v.record & 63)
			}
		}
	}
	return roaring.FromDense(marks, true)
}

// PhraseWithin does the same for the records of a set alone, which is cheaper when the set is small.
func (ix *Index) PhraseWithin(p text.Pattern, fields bib.Field, set *roaring.Bitmap) *roaring.Bitmap {
	found := roaring.New()
	elements := ix.elements(p)
	if len(elements) == 0 {
		return found
	}
	_, rarest := ix.rarest(elements)
	if set.GetCardinality()*200 > uint64(rarest) { // about as many places as the set has tokens
		found = ix.Phrase(p, fields)
		found.And(set)
		return found
	}
	it := set.Iterator()
	for it.HasNext() {
		r := it.Next()
		if ix.inRecord(elements, fields, r) {
			found.Add(r)
		}
	}
	return found
}

// Gram returns the records in which the tokens stand as an n-gram in one value of the fields: one after
// the other, with no break between.
func (ix *Index) Gram(tokens []string, fields bib.Field) *roaring.Bitmap {
	if len(tokens) == 0 {
		return roaring.New()
	}
	elements := make([]element, len(tokens))
	for i, t := range tokens {
		n, ok := ix.token(t)
		if !ok {
			return roaring.New()
		}
		elements[i] = element{n}
	}
	places := ix.phraseOf(elements, fields)
	whole := make([]uint32, 0, len(places))
	for _, at := range places {
		if !slices.ContainsFunc(ix.terms[at+1:at+uint32(len(tokens))], func(t uint32) bool { return t&breakBit != 0 }) {
			whole = append(whole, at)
		}
	}
	return ix.records(whole)
}

func (ix *Index) inRecord(elements []element, fields bib.Field, r uint32) bool {
	for v := ix.first[r]; v < ix.first[r+1]; v++ {
		if ix.values[v].field&fields == 0 {
			continue
		}
		for at := ix.values[v].begin; at+uint32(len(elements)) <= ix.values[v+1].begin; at++ {
			if ix.stands(elements, at) {
				return true
			}
		}
	}
	return false
}

// An element is the tokens that fit one place of a phrase, ascending.
type element []uint32

// holds reports whether the token is one of them.
func (e element) holds(token uint32) bool {
	first, last := e[0], e[len(e)-1]
	if token < first || token > last {
		return false
	}
	if int(last-first) == len(e)-1 { // all that begin alike stand together
		return true
	}
	_, ok := slices.BinarySearch(e, token)
	return ok
}

// elements returns the tokens for each place of the pattern, or nil when one place has none.
func (ix *Index) elements(p text.Pattern) []element {
	out := make([]element, len(p))
	for i := range p {
		if out[i] = ix.matching(p[i]); len(out[i]) == 0 {
			return nil
		}
	}
	return out
}

func (ix *Index) rarest(elements []element) (place, occurrences int) {
	for i, e := range elements {
		if n := ix.occurrences(e); i == 0 || n < occurrences {
			place, occurrences = i, n
		}
	}
	return place, occurrences
}

// phraseOf returns the places where elements stand in a row in the fields. They ascend only where the rarest of
// them has a single token.
func (ix *Index) phraseOf(elements []element, fields bib.Field) []uint32 {
	if len(elements) == 1 && len(elements[0]) == 1 && fields == bib.Any|bib.Journal {
		return ix.places(nil, elements[0][0])
	}
	rare, n := ix.rarest(elements)
	out := make([]uint32, 0, n)
	var places []uint32
	for _, t := range elements[rare] {
		places = ix.places(places[:0], t)
		for _, at := range places {
			if at < uint32(rare) {
				continue
			}
			at -= uint32(rare)
			if len(elements) > 1 && !ix.stands(elements, at) {
				continue
			}
			v := ix.valueAt(at)
			if ix.values[v].field&fields != 0 && at+uint32(len(elements)) <= ix.values[v+1].begin {
				out = append(out, at)
			}
		}
	}
	return out
}

// stands reports whether the elements stand from a place on, whatever values that touches.
func (ix *Index) stands(elements []element, at uint32) bool {
	if int(at)+len(elements) > len(ix.terms) {
		return false
	}
	for i, e := range elements {
		if !e.holds(ix.terms[int(at)+i] &^ breakBit) {
			return false
		}
	}
	return true
}

// records returns the records that hold the places. Many places of one record follow each other, and
// the bitmap is made at once: adding one by one would cost a search each.
func (ix *Index) records(places []uint32) *roaring.Bitmap {
	out := make([]uint32, 0, len(places))
	last, ascending := ^uint32(0), true
	for _, p := range places {
		r := ix.values[ix.valueAt(p)].record
		if r == last {
			continue
		}
		ascending = ascending && (last == ^uint32(0) || r > last)
		out, last = append(out, r), r
	}
	if !ascending {
		slices.Sort(out)
	}
	b := roaring.New()
	b.AddMany(out)
	return b
}

// Near returns the records in which both patterns match in one value of the fields, so far apart.
func (ix *Index) Near(left, right text.Pattern, d text.Distance, fields bib.Field) *roaring.Bitmap {
	le, re := ix.elements(left), ix.elements(right)
	if len(le) == 0 || len(re) == 0 {
		return roaring.New()
	}
	_, ln := ix.rarest(le)
	_, rn := ix.rarest(re)
	// Finding all places of a common pattern costs far more than looking for it around the places of a rare one.
	switch {
	case ln*aroundCost < rn:
		return ix.near(ix.phraseOf(le, fields), re, len(le), d, true)
	case rn*aroundCost < ln:
		return ix.near(ix.phraseOf(re, fields), le, len(re), d, false)
	}
	l, r := ix.phraseOf(le, fields), ix.phraseOf(re, fields)
	slices.Sort(l)
	slices.Sort(r)
	var hits []uint32
	for i, j := 0, 0; i < len(l) && j < len(r); {
		vl, vr := ix.valueAt(l[i]), ix.valueAt(r[j])
		switch {
		case vl < vr:
			i = beyond(l, i, ix.values[vl+1].begin)
			continue
		case vr < vl:
			j = beyond(r, j, ix.values[vr+1].begin)
			continue
		}
		end := ix.values[vl+1].begin
		li, rj := beyond(l, i, end), beyond(r, j, end)
		if text.NearAt(l[i:li], r[j:rj], len(left), len(right), d) {
			hits = append(hits, l[i])
		}
		i, j = li, rj
	}
	return ix.records(hits)
}

// aroundCost is about how many places are found and sorted in the time that it takes to look around one.
const aroundCost = 4

// near returns the records of the places of a rare pattern of some length that have another pattern so far from
// them; rareLeft says that the rare one is the left of the pair.
func (ix *Index) near(places []uint32, other []element, length int, d text.Distance, rareLeft bool) *roaring.Bitmap {
	var hits, around []uint32
	one := make([]uint32, 1)
	for _, at := range places {
		v := ix.values[ix.valueAt(at):]
		from := max(int(v[0].begin), int(at)-d.Most-len(other)+1)
		to := min(int(v[1].begin)-len(other), int(at)+length-1+d.Most)
		around = around[:0]
		for p := from; p <= to; p++ {
			if ix.stands(other, uint32(p)) {
				around = append(around, uint32(p))
			}
		}
		if len(around) == 0 {
			continue
		}
		one[0] = at
		if rareLeft && text.NearAt(one, around, length, len(other), d) ||
			!rareLeft && text.NearAt(around, one, len(other), length, d) {
			hits = append(hits, at)
		}
	}
	return ix.records(hits)
}

// beyond returns the first i from which on places reach end.
func beyond(places []uint32, i int, end uint32) int {
	for i < len(places) && places[i] < end {
		i++
	}
	return i
}
