// Package index is a positional index over a set of records. It answers, for words, phrases, near
// pairs and headings, with the set of records that hold them. It knows nothing of queries or counts.
//
// All text stands in one flat array of tokens, each an integer; a token's postings are the places in
// that array where it stands. So a phrase is found by looking beside each place of its rarest word,
// and a tally reads the array once, without touching text again. Eight bytes a token in all.
package index

import (
	"slices"
	"sort"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// An Index answers for the records it was built from; a record is named by its place among them.
// It does not change once built and may be used by many at a time.
type Index struct {
	n int // records

	dict  []string    // the distinct tokens, ascending
	roles []text.Role // of each token
	terms []uint32    // all tokens in order, as places in dict; the top bit tells of a break before
	start []uint32    // postings of token t: places[start[t]:start[t+1]]
	place []uint32    // places in terms, ascending for each token

	values []value  // the field values, ascending by begin, with one past the last
	hint   []uint32 // the value that holds every 64th place in terms
	first  []uint32 // the first value of each record, and one past the last

	headings   headings
	attributes attributes
}

type value struct {
	begin  uint32
	record uint32
	field  bib.Field
}

const (
	breakBit  = 1 << 31
	hintShift = 6
)

// Build makes the index of the records. Time and memory grow in proportion to their text.
func Build(records []*bib.Record) *Index {
	ix := &Index{n: len(records), first: make([]uint32, 0, len(records)+1)}
	ids := map[string]uint32{}
	for r, rec := range records {
		ix.first = append(ix.first, uint32(len(ix.values)))
		rec.Values(bib.Any|bib.Journal, func(f bib.Field, v string) {
			ix.values = append(ix.values, value{uint32(len(ix.terms)), uint32(r), f})
			text.Scan(v, func(token []byte, brk bool) {
				id, ok := ids[string(token)]
				if !ok {
					id = uint32(len(ix.dict))
					ix.dict = append(ix.dict, string(token))
					ids[ix.dict[id]] = id
				}
				if brk {
					id |= breakBit
				}
				ix.terms = append(ix.terms, id)
			})
		})
	}
	ix.first = append(ix.first, uint32(len(ix.values)))
	ix.values = append(ix.values, value{begin: uint32(len(ix.terms)), record: uint32(len(records))})
	ix.sortDictionary()
	ix.invert()
	ix.headings.build(records)
	ix.attributes.build(records)
	return ix
}

// sortDictionary renumbers the tokens in ascending order, so that those with one prefix stand together.
func (ix *Index) sortDictionary() {
	order := make([]uint32, len(ix.dict))
	for i := range order {
		order[i] = uint32(i)
	}
	slices.SortFunc(order, func(a, b uint32) int { return strings.Compare(ix.dict[a], ix.dict[b]) })
	dict, rank := make([]string, len(order)), make([]uint32, len(order))
	ix.roles = make([]text.Role, len(order))
	for i, old := range order {
		dict[i], rank[old] = ix.dict[old], uint32(i)
		ix.roles[i] = text.RoleOf(dict[i])
	}
	ix.dict = dict
	for i, t := range ix.terms {
		ix.terms[i] = rank[t&^breakBit] | t&breakBit
	}
	ix.terms = slices.Clip(ix.terms)
}

func (ix *Index) invert() {
	ix.start = make([]uint32, len(ix.dict)+1)
	for _, t := range ix.terms {
		ix.start[t&^breakBit+1]++
	}
	for t := range ix.dict {
		ix.start[t+1] += ix.start[t]
	}
	next := slices.Clone(ix.start)
	ix.place = make([]uint32, len(ix.terms))
	for p, t := range ix.terms {
		t &^= breakBit
		ix.place[next[t]] = uint32(p)
		next[t]++
	}
	ix.hint = make([]uint32, len(ix.terms)>>hintShift+1)
	v := uint32(0)
	for h := range ix.hint {
		for int(v)+1 < len(ix.values) && ix.values[v+1].begin <= uint32(h<<hintShift) {
			v++
		}
		ix.hint[h] = v
	}
}

// Len returns the number of records.
func (ix *Index) Len() int { return ix.n }

// All returns the set of all records.
func (ix *Index) All() *roaring.Bitmap {
	all := roaring.New()
	all.AddRange(0, uint64(ix.n))
	return all
}

// valueAt returns the number of the value that holds a place in terms.
func (ix *Index) valueAt(place uint32) uint32 {
	v := ix.hint[place>>hintShift]
	for ix.values[v+1].begin <= place {
		v++
	}
	return v
}

// token returns the number of a token, if it occurs at all.
func (ix *Index) token(t string) (uint32, bool) {
	i, ok := slices.BinarySearch(ix.dict, t)
	return uint32(i), ok
}

// matching returns the numbers of the tokens that fit a pattern, ascending.
func (ix *Index) matching(p text.TokenPattern) []uint32 {
	if t, ok := p.Exact(); ok {
		if id, found := ix.token(t); found {
			return []uint32{id}
		}
		return nil
	}
	var out []uint32
	prefix := p.Prefix()
	from := sort.SearchStrings(ix.dict, prefix)
	for i := from; i < len(ix.dict) && strings.HasPrefix(ix.dict[i], prefix); i++ {
		if p.Match(ix.dict[i]) {
			out = append(out, uint32(i))
		}
	}
	return out
}

// places returns where a token stands.
func (ix *Index) places(token uint32) []uint32 {
	return ix.place[ix.start[token]:ix.start[token+1]]
}

// occurrences is how often any of the tokens stands.
func (ix *Index) occurrences(tokens []uint32) (n int) {
	for _, t := range tokens {
		n += len(ix.places(t))
	}
	return n
}
