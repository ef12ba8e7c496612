// Package gram finds the n-grams of records once: level by level for a tally, where they stand for the company of
// words, and what each is as an item: its name, its family, and which longer ones hold it.
package gram

import (
	"context"
	"sync"

	"tamiz/core/index"
)

// Levels are the n-grams of a sample that are in enough of its records, level by level: level n-1 holds
// those of n tokens. An n-gram can be in enough records only when both (n-1)-grams it is made of are,
// so each level looks only where the one before left something: nearly all long n-grams, which are
// nearly all the different ones, are never stored.
type Levels []Level

// A Level holds the n-grams of one length, numbered from 0.
type Level struct {
	Records     []int32 // that hold each
	Occurrences []int32
	places      []int32  // where in the sample's stream each first begins
	parents     []uint64 // the two of the level before that each is made of, as in joined
	pairs       pairs    // the n-gram made of two of the level before
	tokens      []int32  // in the first level: the n-gram of each token of the index, or None
}

// None stands for no n-gram, and no item.
const None = -1

// A Found is the n-grams of some records, level by level, and those of them that are kept as items.
type Found struct {
	*Items
	Levels Levels
	Place  [][]int32 // for each level the item of each n-gram, or None

	standing func() []bool
}

// Find finds the n-grams of up to maxWords tokens that are in at least min records. Of each level it shows visit,
// which may be nil, which n-gram begins at each place of the stream, or None.
func Find(
	ctx context.Context,
	ix *index.Index,
	s index.Stream,
	maxWords, min int,
	visit func(l Level, at []int32),
) (*Found, error) {
	levels, err := find(ctx, ix, s, maxWords, min, visit)
	if err != nil {
		return nil, err
	}
	out := &Found{Items: &Items{}, Levels: levels}
	out.Place = out.name(ix, s, levels)
	out.contain(levels, out.Place)
	for n := range levels { // only names and what holds what came of these
		levels[n].places, levels[n].parents = nil, nil
	}
	out.standing = sync.OnceValue(func() []bool { return out.stand(ix, s) })
	return out, ctx.Err()
}

// Bytes returns how much memory it takes.
func (f *Found) Bytes() int64 {
	n := len(
		f.names,
	) + 4*(len(f.ends)+len(f.rank)+len(f.byName)+len(f.family)+len(f.longer)+len(f.longerStops)) + 2*len(
		f.words,
	) // with which stand
	for i, l := range f.Levels {
		n += 4*(len(l.Records)+len(l.Occurrences)+len(l.tokens)+len(f.Place[i])) + 12*len(l.pairs.keys)
	}
	return int64(n)
}

// Counts returns the counts of the items.
func (f *Found) Counts() []Count {
	out := make([]Count, f.Len())
	for n, l := range f.Levels {
		for g, item := range f.Place[n] {
			if item != None {
				out[item] = Count{l.Records[g], l.Occurrences[g]}
			}
		}
	}
	return out
}

func find(
	ctx context.Context,
	ix *index.Index,
	s index.Stream,
	maxWords, min int,
	visit func(l Level, at []int32),
) (Levels, error) {
	if visit == nil {
		visit = func(Level, []int32) {}
	}
	at := make([]int32, len(s.Terms)) // the n-gram that begins at each place, or None
	for i, t := range s.Terms {
		at[i] = int32(t)
	}
	all := count(ctx, s, at, ix.Tokens(), func(i int) int32 { return at[i] })
	if ctx.Err() != nil {
		return nil, ctx.Err()
	}
	first, number := all.keep(min)
	first.tokens = number
	renumber(at, number)
	visit(first, at)
	out := Levels{first}
	for n := 2; n <= maxWords && len(out[n-2].Records) > 0; n++ {
		found := newPairs(len(out[n-2].Records))
		common := commonIn(ctx, s, at, n, min)
		all := count(ctx, s, at, 0, func(i int) int32 {
			key, ok := joined(at, s, i, n)
			if !ok || !common.may(key) {
				return None
			}
			return found.put(key)
		})
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		next, number := all.keep(min)
		next.parents = make([]uint64, len(next.Records))
		next.pairs = newPairs(len(next.Records))
		byNumber := make([]uint64, len(next.Records))
		found.each(func(key uint64, old int32) {
			if new := number[old]; new != None {
				byNumber[new] = key
			}
		})
		for i, key := range byNumber {
			next.pairs.put(key)
			next.parents[i] = key
		}
		renumber(at, number)
		visit(next, at)
		out = append(out, next)
	}
	return out, nil
}

// count goes through the stream once. gram tells which n-gram begins at each place; it is asked in
// order, so that it may look at what at holds for this place and those behind it. What it returns is of use only
// where the context has not ended meanwhile.
func count(ctx context.Context, s index.Stream, at []int32, size int, gram func(i int) int32) Level {
	l := Level{Records: make([]int32, size), Occurrences: make([]int32, size), places: make([]int32, size)}
	seen := make([]int32, size) // the last record in which each was counted, from 1
	record, end := int32(0), 0
	for i := range at {
		for ; i >= int(s.Ends[end]); end++ {
			record++
		}
		if i&(1<<16-1) == 0 && ctx.Err() != nil {
			return l
		}
		g := gram(i)
		at[i] = g
		if g == None {
			continue
		}
		if int(g) == len(l.Records) {
			l.Records, l.Occurrences = append(l.Records, 0), append(l.Occurrences, 0)
			l.places, seen = append(l.places, 0), append(seen, 0)
		}
		l.Occurrences[g]++
		if seen[g] != record+1 {
			seen[g] = record + 1
			if l.Records[g]++; l.Records[g] == 1 {
				l.places[g] = int32(i)
			}
		}
	}
	return l
}

// keep returns the n-grams that are in at least min records, numbered anew, and the new number of each
// old one, or None.
func (l Level) keep(min int) (kept Level, number []int32) {
	number = make([]int32, len(l.Records))
	for g, records := range l.Records {
		number[g] = None
		if records > 0 && int(records) >= min {
			number[g] = int32(len(kept.Records))
			kept.Records = append(kept.Records, records)
			kept.Occurrences = append(kept.Occurrences, l.Occurrences[g])
			kept.places = append(kept.places, l.places[g])
		}
	}
	return kept, number
}

func renumber(at, number []int32) {
	for i, g := range at {
		if g != None {
			at[i] = number[g]
		}
	}
}

// joined returns the key of the n-gram that begins at a place, from those of n-1 tokens that begin
// there and at the next.
func joined(at []int32, s index.Stream, i, n int) (uint64, bool) {
	if i+1 >= len(at) || at[i] == None || at[i+1] == None || n == 2 && s.Begins[i+1] {
		return 0, false
	}
	return uint64(at[i])<<32 | uint64(at[i+1]), true
}

func apart(key uint64) (prefix, suffix int32) { return int32(key >> 32), int32(key & 0xffffffff) }

// In returns in how many records of another stream each item is.
func (f *Found) In(s index.Stream) []int32 {
	out := make([]int32, f.Len())
	f.Levels.walk(s, func(n int, at []int32) {
		l := f.Levels[n]
		records, seen := make([]int32, len(l.Records)), make([]int32, len(l.Records))
		record, end := int32(0), 0
		for i, gram := range at {
			for ; i >= int(s.Ends[end]); end++ {
				record++
			}
			if gram != None && seen[gram] != record+1 {
				seen[gram] = record + 1
				records[gram]++
			}
		}
		for g, item := range f.Place[n] {
			if item != None {
				out[item] = records[g]
			}
		}
	})
	return out
}

// walk calls visit for each level with the n-gram that begins at each place of the stream, or None.
func (g Levels) walk(s index.Stream, visit func(n int, at []int32)) {
	at := make([]int32, len(s.Terms))
	for n, l := range g {
		for i := range at {
			if n == 0 {
				at[i] = l.tokens[s.Terms[i]]
			} else if key, ok := joined(at, s, i, n+1); ok {
				at[i] = l.pairs.get(key)
			} else {
				at[i] = None
			}
		}
		visit(n, at)
	}
}
