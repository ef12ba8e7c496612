package tally

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/gram"
	"tamiz/core/index"
	"tamiz/core/parallel"
	"tamiz/core/postings"
)

// Items are the kept n-grams of all records of a pool, each with the records that hold it. With them a set
// of its records is set against another without reading any text: each item's records are looked up in the
// two sets. An item in enough records of a set is in as many of the pool, so none is missing.
//
// The records of an item are its postings, packed: see package postings.
type items struct {
	*gram.Found
	o        WordOptions
	postings []byte
	stops    []uint64 // where each item's postings end
}

// buildItems counts the words of all records; it tells how far it is.
func buildItems(ctx context.Context, ix *index.Index, o WordOptions, far func(part float64)) (*items, error) {
	far(0.01)
	defer far(1)
	s := ix.Stream(ix.All(), o.Fields)
	it := &items{o: o}
	var levels []packed
	found, err := gram.Find(ctx, ix, s, o.MaxWords, o.MinRecords, func(l gram.Level, at []int32) {
		levels = append(levels, packedBy(s, l, at))
		far(0.9 * float64(len(levels)) / float64(o.MaxWords))
	})
	if err != nil {
		return nil, err
	}
	it.Found = found
	total := 0
	for _, l := range levels {
		total += len(l.postings)
	}
	it.postings = make([]byte, 0, total)
	for n, l := range levels {
		from := uint64(0)
		for g, to := range l.stops {
			if found.Place[n][g] != gram.None {
				it.postings = append(it.postings, l.postings[from:to]...)
				it.stops = append(it.stops, uint64(len(it.postings)))
			}
			from = to
		}
		levels[n] = packed{}
	}
	it.postings, it.stops = slices.Clip(it.postings), slices.Clip(it.stops)
	return it, ctx.Err()
}

// packed is the postings of the n-grams of a level, and where those of each end.
type packed struct {
	postings []byte
	stops    []uint64
}

// packedBy returns the postings of all n-grams of a level, those of one after those of another.
func packedBy(s index.Stream, l gram.Level, at []int32) packed {
	out := packed{stops: make([]uint64, len(l.Records))}
	from := 0
	held := heldBy(s, l, at)
	for g, n := range l.Records {
		last := uint32(0)
		for _, h := range held[from : from+int(n)] {
			out.postings = postings.Append(out.postings, h.record-last, int32(h.times))
			last = h.record
		}
		from += int(n)
		out.stops[g] = uint64(len(out.postings))
	}
	return out
}

// A held is a record that holds an n-gram, and how often.
type held struct{ record, times uint32 }

// heldBy returns the records of all n-grams of a level, those of one after those of another.
func heldBy(s index.Stream, l gram.Level, at []int32) []held {
	next := make([]int, len(l.Records))
	total := 0
	for g, n := range l.Records {
		next[g] = total
		total += int(n)
	}
	out := make([]held, total)
	begin := slices.Clone(next)
	record, end := uint32(0), 0
	for i, g := range at {
		for ; i >= int(s.Ends[end]); end++ {
			record++
		}
		if g == gram.None {
			continue
		}
		if k := next[g]; k > begin[g] && out[k-1].record == record {
			out[k-1].times++
			continue
		}
		out[next[g]] = held{record, 1}
		next[g]++
	}
	return out
}

// postingsOf returns the postings of an item; see package postings.
func (it *items) postingsOf(i int32) []byte {
	from := uint64(0)
	if i > 0 {
		from = it.stops[i-1]
	}
	return it.postings[from:it.stops[i]]
}

// Sides say of each record of a pool on which side it is counted.
type sides []uint8

const (
	onSample   = 1
	onContrast = 2
	unindexed  = 4 // and it carries no heading
)

func sidesOf(n int, sample, contrast *roaring.Bitmap) sides {
	out := make(sides, n)
	put := func(set *roaring.Bitmap, side uint8) {
		for i := set.Iterator(); i.HasNext(); {
			out[i.Next()] |= side
		}
	}
	put(sample, onSample)
	put(contrast, onContrast)
	return out
}

// A tallied is how many records of each side hold an item, and how often it occurs in the sample.
type tallied struct {
	gram.Count       // of the sample
	contrast   int32 // records of it
}

// count looks up the records of every item, split over the cores.
func (it *items) count(s sides) []tallied {
	out := make([]tallied, it.Len())
	parallel.InParts(len(out), func(from, to int) {
		for i := from; i < to; i++ {
			var t tallied
			var step uint32
			var times int32
			record := uint32(0)
			for b := it.postingsOf(int32(i)); len(b) > 0; {
				step, times, b = postings.Next(b)
				record += step
				switch side := s[record]; {
				case side&onSample != 0:
					t.Records++
					t.Occurrences += times
				case side&onContrast != 0:
					t.contrast++
				}
			}
			out[i] = t
		}
	})
	return out
}

// rowsOf returns the items that are in enough records of the sample with their figures, what absorbs them and
// their families, in order.
func rowsOf(it *gram.Items, counts []tallied, least, sample, contrast int) []Row {
	of := func(i int32) gram.Count { return counts[i].Count }
	label := it.Labels(of, least)
	var found []int32
	for i, t := range counts {
		if int(t.Records) >= least {
			found = append(found, int32(i))
		}
	}
	places := make([]place, len(found))
	parallel.InParts(len(found), func(from, to int) {
		for n := from; n < to; n++ {
			i := found[n]
			t, pull := counts[i], 0.0
			if contrast > 0 {
				pull = Pull(int(t.Records), sample, int(t.contrast), contrast)
			}
			places[n] = placeOf(pull, int(t.Records), it.Rank(i), i)
		}
	})
	inOrder(places, it.Name)
	rows := make([]Row, len(places))
	parallel.InParts(len(places), func(from, to int) {
		for n := from; n < to; n++ {
			i := places[n].row
			t := counts[i]
			r := &rows[n]
			r.Item, r.Records, r.Occurrences, r.ContrastRecords = it.Name(i), int(t.Records), int(t.Occurrences), int(t.contrast)
			r.item, r.rank = i+1, it.Rank(i)
			r.Family = it.Name(label[it.Family(i)])
			if whole := it.Absorber(i, of); whole != gram.None {
				r.AbsorbedBy = it.Name(whole)
			}
			r.figures(sample, contrast)
		}
	})
	return rows
}

// A union counts the records that hold any of some items.
type union struct {
	it    *items
	s     sides
	seen  []int32 // the last time a record was counted
	times int32
}

func (u *union) of(items []int32) (records, contrast int) {
	if u.seen == nil {
		u.seen = make([]int32, len(u.s))
	}
	u.times++
	for _, item := range items {
		record, step := uint32(0), uint32(0)
		for b := u.it.postingsOf(item); len(b) > 0; {
			step, _, b = postings.Next(b)
			if record += step; u.seen[record] == u.times {
				continue
			}
			u.seen[record] = u.times
			switch side := u.s[record]; {
			case side&onSample != 0:
				records++
			case side&onContrast != 0:
				contrast++
			}
		}
	}
	return records, contrast
}
