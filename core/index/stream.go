package index

import (
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// A Stream is the tokens of some records, one value after the other, for counting.
type Stream struct {
	Terms  []uint32 // tokens, as numbers of the index
	Begins []bool   // whether no n-gram reaches from the token before to this one
	Ends   []uint32 // for each record of the set, where its tokens end
	Values []uint32 // for each value, where its tokens end
}

// Stream returns the tokens of the given fields of the records of a set, in order.
func (ix *Index) Stream(set *roaring.Bitmap, fields bib.Field) Stream {
	var s Stream
	it := set.Iterator()
	for it.HasNext() {
		r := it.Next()
		for v := ix.first[r]; v < ix.first[r+1]; v++ {
			if ix.values[v].field&fields == 0 {
				continue
			}
			for p := ix.values[v].begin; p < ix.values[v+1].begin; p++ {
				s.Terms = append(s.Terms, ix.terms[p]&^breakBit)
				s.Begins = append(s.Begins, p == ix.values[v].begin || ix.terms[p]&breakBit != 0)
			}
			s.Values = append(s.Values, uint32(len(s.Terms)))
		}
		s.Ends = append(s.Ends, uint32(len(s.Terms)))
	}
	return s
}

// Tokens returns the number of different tokens.
func (ix *Index) Tokens() int { return len(ix.dict) }

// Token returns the token with a number.
func (ix *Index) Token(n uint32) string { return ix.dict[n] }

// Role returns where in a kept n-gram the token with a number may stand.
func (ix *Index) Role(n uint32) text.Role { return ix.roles[n] }

// TokensWith returns the tokens that begin with a prefix, ascending.
func (ix *Index) TokensWith(prefix string) []string {
	from, _ := slices.BinarySearch(ix.dict, prefix)
	to := from
	for to < len(ix.dict) && strings.HasPrefix(ix.dict[to], prefix) {
		to++
	}
	return ix.dict[from:to]
}
