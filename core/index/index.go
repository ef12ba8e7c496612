// Package index is a positional index over a set of records. It answers, for words, phrases, near
// pairs and headings, with the set of records that hold them. It knows nothing of queries or counts.
//
// All text stands in one flat array of tokens, each an integer; a token's postings are the places in
// that array where it stands. So a phrase is found by looking beside each place of its rarest word,
// and a tally reads the array once, without touching text again. Six bytes a token in all.
package index

import (
	"context"
	"encoding/binary"
	"runtime"
	"slices"
	"sort"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/parallel"
	"tamiz/core/text"
)

// An Index answers for the records it was built from; a record is named by its place among them.
// It does not change once built and may be used by many at a time.
type Index struct {
	n int // records

	dict  []string    // the distinct tokens, ascending
	roles []text.Role // of each token
	terms []uint32    // all tokens in order, as places in dict; the top bit tells of a break before

	// The places in terms where token t stands are postings[start[t]:start[t+1]]: ascending, each as its
	// distance from the one before, in a varint.
	postings []byte
	start    []uint32
	count    []uint32 // how many there are

	values []value  // the field values, ascending by begin, with one past the last
	hint   []uint32 // the value that holds every 64th place in terms
	first  []uint32 // the first value of each record, and one past the last

	headings   headings
	attributes attributes
	ends       endings
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

// Build makes the index of the records. Time and memory grow in proportion to their text; the work is
// split over the cores.
func Build(records []*bib.Record) *Index {
	ix, _ := BuildWithin(context.Background(), records)
	return ix
}

// BuildWithin does the same, unless the context ends before: then it returns its error.
func BuildWithin(ctx context.Context, records []*bib.Record) (*Index, error) {
	ix := &Index{n: len(records)}
	parts := tokenise(ctx, records)
	if ctx.Err() != nil {
		return nil, ctx.Err()
	}
	parallel.All(3, func(i int) {
		switch i {
		case 0:
			ix.join(parts)
			ix.invert()
		case 1:
			ix.headings.build(records)
		default:
			ix.attributes.build(records)
		}
	})
	return ix, ctx.Err()
}

// A part is the text of some records in a row, with tokens numbered as they come.
type part struct {
	dict   []string
	terms  []uint32
	values []value  // their begins counted from the first of the part
	first  []uint32 // so too
}

// partSize is how many records a part takes: few enough that its tokens stay near at hand.
const partSize = 2048

func tokenise(ctx context.Context, records []*bib.Record) []part {
	parts := make([]part, (len(records)+partSize-1)/partSize)
	parallel.All(len(parts), func(i int) {
		if ctx.Err() != nil {
			return
		}
		from := i * partSize
		p := &parts[i]
		ids := map[string]uint32{}
		for r, rec := range records[from:min(from+partSize, len(records))] {
			p.first = append(p.first, uint32(len(p.values)))
			rec.Values(bib.Any|bib.Journal, func(f bib.Field, v string) {
				p.values = append(p.values, value{uint32(len(p.terms)), uint32(from + r), f})
				text.Scan(v, func(token []byte, brk bool) {
					id, ok := ids[string(token)]
					if !ok {
						id = uint32(len(p.dict))
						p.dict = append(p.dict, string(token))
						ids[p.dict[id]] = id
					}
					if brk {
						id |= breakBit
					}
					p.terms = append(p.terms, id)
				})
			})
		}
	})
	return parts
}

// join puts the parts together. Tokens are numbered anew in ascending order, so that those with one
// prefix stand together.
func (ix *Index) join(parts []part) {
	known := map[string]bool{}
	terms, values := 0, 0
	for _, p := range parts {
		for _, t := range p.dict {
			if !known[t] {
				known[t] = true
				ix.dict = append(ix.dict, t)
			}
		}
		terms, values = terms+len(p.terms), values+len(p.values)
	}
	slices.Sort(ix.dict)
	ix.dict = slices.Clip(ix.dict)
	ix.roles = make([]text.Role, len(ix.dict))
	rank := make(map[string]uint32, len(ix.dict))
	for i, t := range ix.dict {
		ix.roles[i] = text.RoleOf(t)
		rank[t] = uint32(i)
	}
	ix.terms = make([]uint32, terms)
	ix.values = make([]value, 0, values+1)
	ix.first = make([]uint32, 0, ix.n+1)
	begins := make([]int, len(parts))
	at := 0
	for i, p := range parts {
		for _, f := range p.first {
			ix.first = append(ix.first, uint32(len(ix.values))+f)
		}
		for _, v := range p.values {
			v.begin += uint32(at)
			ix.values = append(ix.values, v)
		}
		begins[i] = at
		at += len(p.terms)
	}
	ix.first = append(ix.first, uint32(len(ix.values)))
	ix.values = append(ix.values, value{begin: uint32(terms), record: uint32(ix.n)})
	parallel.All(len(parts), func(i int) {
		number := make([]uint32, len(parts[i].dict))
		for k, t := range parts[i].dict {
			number[k] = rank[t]
		}
		out := ix.terms[begins[i]:]
		for k, t := range parts[i].terms {
			out[k] = number[t&^breakBit] | t&breakBit
		}
		parts[i] = part{}
	})
}

// invert notes where each token stands. Each worker takes the tokens of one range, so that none is in the
// way of another.
func (ix *Index) invert() {
	ix.count = make([]uint32, len(ix.dict))
	for _, t := range ix.terms {
		ix.count[t&^breakBit]++
	}
	begin := make([]uint32, len(ix.dict)+1)
	for t, n := range ix.count {
		begin[t+1] = begin[t] + n
	}
	// Ranges of tokens that stand about as often.
	workers := runtime.GOMAXPROCS(0)
	bounds := []int{0}
	for w := 1; w < workers; w++ {
		at, _ := slices.BinarySearch(begin, uint32(uint64(len(ix.terms))*uint64(w)/uint64(workers)))
		bounds = append(bounds, max(bounds[w-1], min(at, len(ix.dict))))
	}
	bounds = append(bounds, len(ix.dict))
	place, next := make([]uint32, len(ix.terms)), slices.Clone(begin)
	ix.start = make([]uint32, len(ix.dict)+1)
	written := make([][]byte, workers)
	parallel.All(workers, func(w int) {
		from, to := uint32(bounds[w]), uint32(bounds[w+1])
		for p, t := range ix.terms {
			if t &^= breakBit; t >= from && t < to {
				place[next[t]] = uint32(p)
				next[t]++
			}
		}
		out := make([]byte, 0, int(begin[to]-begin[from])*2)
		for t := from; t < to; t++ {
			last := uint32(0)
			for _, p := range place[begin[t]:begin[t+1]] {
				out = binary.AppendUvarint(out, uint64(p-last))
				last = p
			}
			ix.start[t+1] = uint32(len(out)) // within the range, for the time being
		}
		written[w] = out
	})
	total := 0
	for w, out := range written {
		for t := bounds[w]; t < bounds[w+1]; t++ {
			ix.start[t+1] += uint32(total)
		}
		total += len(out)
	}
	ix.postings = make([]byte, 0, total)
	for _, out := range written {
		ix.postings = append(ix.postings, out...)
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

// Bytes returns about how much memory it takes.
func (ix *Index) Bytes() int64 {
	n := 4*len(ix.terms) + len(ix.postings) + 24*len(ix.start) + 16*len(ix.values) + 4*(len(ix.hint)+len(ix.first))
	for _, word := range ix.dict {
		n += 16 + len(word) + 8 // and its ending
	}
	n += 24*len(ix.headings.assignments) + 4*len(ix.headings.qualifiers) + 4*len(ix.attributes.years)
	for _, p := range ix.attributes.people {
		n += 96 + 4*len(p.records)
	}
	for _, of := range ix.attributes.listed {
		for value, records := range of {
			n += 64 + len(value) + 4*len(records)
		}
	}
	return int64(n)
}

// Words returns how many tokens there are in all.
func (ix *Index) Words() int { return len(ix.terms) }

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
	if written := p.String(); len(prefix) < 2 {
		if end := written[strings.LastIndexAny(written, "*?")+1:]; len(end) > len(prefix) {
			for _, t := range ix.ends.with(end, ix.dict) {
				if p.Match(ix.dict[t]) {
					out = append(out, t)
				}
			}
			return out
		}
	}
	from := sort.SearchStrings(ix.dict, prefix)
	for i := from; i < len(ix.dict) && strings.HasPrefix(ix.dict[i], prefix); i++ {
		if p.Match(ix.dict[i]) {
			out = append(out, uint32(i))
		}
	}
	return out
}

// places appends where a token stands, ascending.
func (ix *Index) places(out []uint32, token uint32) []uint32 {
	out = slices.Grow(out, int(ix.count[token]))
	at := uint32(0)
	for b := ix.postings[ix.start[token]:ix.start[token+1]]; len(b) > 0; {
		// Most distances take one or two bytes; this reads those without a call.
		switch {
		case b[0] < 0x80:
			at += uint32(b[0])
			b = b[1:]
		case b[1] < 0x80:
			at += uint32(b[0]&0x7f) | uint32(b[1])<<7
			b = b[2:]
		default:
			step, n := binary.Uvarint(b)
			at += uint32(step)
			b = b[n:]
		}
		out = append(out, at)
	}
	return out
}

// occurrences is how often any of the tokens stands.
func (ix *Index) occurrences(tokens []uint32) (n int) {
	for _, t := range tokens {
		n += int(ix.count[t])
	}
	return n
}
