package tally

import (
	"context"
	"encoding/binary"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/index"
	"tamiz/core/text"
)

// Items are the kept n-grams of all records of a pool, each with the records that hold it. With them a set
// of its records is set against another without reading any text: each item's records are looked up in the
// two sets. An item in enough records of a set is in as many of the pool, so none is missing.
//
// The records of an item are its postings: ascending, each as its distance from the one before, in a varint
// whose last bit says that a number of occurrences above one follows. Two or three bytes in all.
type items struct {
	o        WordOptions
	records  int // of the pool
	names    string
	ends     []uint32 // where each item's name ends
	words    []uint8  // tokens of each
	rank     []int32  // the place of each among all, by name, from 1
	family   []int32  // the number of each item's family
	families int

	postings []byte
	stops    []uint64 // where each item's postings end

	// The longer items that hold item i, of which one may absorb it, are longer[longerStops[i-1]:longerStops[i]].
	longer      []int32
	longerStops []uint32
}

// buildItems counts the words of all records; it tells how far it is.
func buildItems(ctx context.Context, ix *index.Index, o WordOptions, far func(part float64)) (*items, error) {
	far(0.01)
	defer far(1)
	s := ix.Stream(ix.All(), o.Fields)
	it := &items{o: o, records: ix.Len()}
	var held [][]held
	found, err := countGrams(ctx, ix, s, o.MaxWords, o.MinRecords, func(l level, at []int32) {
		held = append(held, heldBy(s, l, at))
		far(0.9 * float64(len(held)) / float64(o.MaxWords))
	})
	if err != nil {
		return nil, err
	}
	place := it.name(ix, s, found)
	for n, l := range found {
		from := 0
		for g := range l.records {
			to := from + int(l.records[g])
			if place[n][g] != none {
				it.post(held[n][from:to])
			}
			from = to
		}
		held[n] = nil
	}
	it.contain(found, place)
	return it, ctx.Err()
}

// A held is a record that holds an n-gram, and how often.
type held struct{ record, times uint32 }

// heldBy returns the records of all n-grams of a level, those of one after those of another.
func heldBy(s index.Stream, l level, at []int32) []held {
	next := make([]int, len(l.records))
	total := 0
	for g, n := range l.records {
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
		if g == none {
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

// name numbers the n-grams that are kept, with their names and families, and returns the number of each.
func (it *items) name(ix *index.Index, s index.Stream, found grams) (place [][]int32) {
	var names strings.Builder
	bases := newBases(ix)
	families := map[string]int32{}
	var tokens []string
	for n, l := range found {
		place = append(place, make([]int32, len(l.records)))
		for g := range l.records {
			place[n][g] = none
			terms := s.Terms[l.places[g]:][:n+1]
			if !text.Keeps(n+1, ix.Role(terms[0]), ix.Role(terms[n])) {
				continue
			}
			tokens = tokens[:0]
			for i, term := range terms {
				if i > 0 {
					names.WriteByte(' ')
				}
				names.WriteString(ix.Token(term))
				tokens = append(tokens, bases.of(term))
			}
			key := text.FamilyKeyOfBases(tokens)
			family, ok := families[key]
			if !ok {
				family = int32(len(families))
				families[key] = family
			}
			place[n][g] = int32(len(it.ends))
			it.ends = append(it.ends, uint32(names.Len()))
			it.words = append(it.words, uint8(n+1))
			it.family = append(it.family, family)
		}
	}
	it.names, it.families = names.String(), len(families)
	byName := make([]int32, len(it.ends))
	for i := range byName {
		byName[i] = int32(i)
	}
	sorted(byName, func(a, b int32) int { return strings.Compare(it.nameOf(a), it.nameOf(b)) })
	it.rank = make([]int32, len(byName))
	for rank, i := range byName {
		it.rank[i] = int32(rank) + 1
	}
	return place
}

func (it *items) post(records []held) {
	last := uint32(0)
	for _, h := range records {
		step := uint64(h.record-last) << 1
		last = h.record
		if h.times == 1 {
			it.postings = binary.AppendUvarint(it.postings, step)
			continue
		}
		it.postings = binary.AppendUvarint(it.postings, step|1)
		it.postings = binary.AppendUvarint(it.postings, uint64(h.times))
	}
	it.stops = append(it.stops, uint64(len(it.postings)))
}

// contain notes for each item the longer ones that hold it.
func (it *items) contain(found grams, place [][]int32) {
	counts := make([]uint32, len(it.ends)+1)
	pairs := func(visit func(part, whole int32)) {
		var parts, next, seen []int32
		for n := 1; n < len(found); n++ {
			for g, whole := range place[n] {
				if whole == none {
					continue
				}
				parts = append(parts[:0], int32(g))
				for m := n; m > 0; m-- { // the n-grams of m tokens that it holds
					next = next[:0]
					for _, p := range parts {
						prefix, suffix := apart(found[m].parents[p])
						for _, part := range []int32{prefix, suffix} {
							if !slices.Contains(next, part) {
								next = append(next, part)
							}
						}
					}
					seen = seen[:0]
					for _, p := range next {
						if part := place[m-1][p]; part != none && !slices.Contains(seen, part) {
							seen = append(seen, part)
							visit(part, whole)
						}
					}
					parts, next = next, parts
				}
			}
		}
	}
	pairs(func(part, _ int32) { counts[part+1]++ })
	for i := range it.ends {
		counts[i+1] += counts[i]
	}
	it.longerStops = slices.Clone(counts[1:])
	it.longer = make([]int32, counts[len(counts)-1])
	pairs(func(part, whole int32) {
		it.longer[counts[part]] = whole
		counts[part]++
	})
}

func (it *items) nameOf(i int32) string {
	if i == 0 {
		return it.names[:it.ends[0]]
	}
	return it.names[it.ends[i-1]:it.ends[i]]
}

// postingsOf returns the postings of an item; see next.
func (it *items) postingsOf(i int32) []byte {
	from := uint64(0)
	if i > 0 {
		from = it.stops[i-1]
	}
	return it.postings[from:it.stops[i]]
}

// next returns how far on the next record of some postings is, how often it has the item, and what is left.
func next(b []byte) (step uint32, times int32, rest []byte) {
	if b[0] < 0x80 && b[0]&1 == 0 { // as most are
		return uint32(b[0] >> 1), 1, b[1:]
	}
	s, n := binary.Uvarint(b)
	b, times = b[n:], 1
	if s&1 != 0 {
		t, n := binary.Uvarint(b)
		times, b = int32(t), b[n:]
	}
	return uint32(s >> 1), times, b
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
type tallied struct{ records, occurrences, contrast int32 }

// count looks up the records of every item, split over the cores.
func (it *items) count(s sides) []tallied {
	out := make([]tallied, len(it.ends))
	inParts(len(out), func(from, to int) {
		for i := from; i < to; i++ {
			var t tallied
			var step uint32
			var times int32
			record := uint32(0)
			for b := it.postingsOf(int32(i)); len(b) > 0; {
				step, times, b = next(b)
				record += step
				switch side := s[record]; {
				case side&onSample != 0:
					t.records++
					t.occurrences += times
				case side&onContrast != 0:
					t.contrast++
				}
			}
			out[i] = t
		}
	})
	return out
}

// rows returns the items that are in enough records of the sample with their figures, what absorbs them and
// their families, in order.
func (it *items) rows(s sides, sample, contrast int) []Row {
	counts := it.count(s)
	var found []int32
	label := make([]int32, it.families) // the item that labels a family, from 1
	for i, t := range counts {
		if int(t.records) < it.o.MinRecords {
			continue
		}
		found = append(found, int32(i))
		f := &label[it.family[i]]
		if *f == 0 || text.Labels(it.nameOf(int32(i)), int(t.records), it.nameOf(*f-1), int(counts[*f-1].records)) {
			*f = int32(i) + 1
		}
	}
	places := make([]place, len(found))
	inParts(len(found), func(from, to int) {
		for n := from; n < to; n++ {
			i := found[n]
			t, pull := counts[i], 0.0
			if contrast > 0 {
				pull = Pull(int(t.records), sample, int(t.contrast), contrast)
			}
			places[n] = placeOf(pull, int(t.records), it.rank[i], i)
		}
	})
	inOrder(places, it.nameOf)
	rows := make([]Row, len(places))
	inParts(len(places), func(from, to int) {
		for n := from; n < to; n++ {
			i := places[n].row
			t := counts[i]
			r := &rows[n]
			r.Item, r.Records, r.Occurrences, r.ContrastRecords = it.nameOf(i), int(t.records), int(t.occurrences), int(t.contrast)
			r.words, r.item, r.rank, r.family = int(it.words[i]), i+1, it.rank[i], it.family[i]+1
			r.Family = it.nameOf(label[it.family[i]] - 1)
			if whole := it.absorber(i, counts); whole != none {
				r.AbsorbedBy = it.nameOf(whole)
			}
			r.figures(sample, contrast)
		}
	})
	return rows
}

// absorber returns the longer item that absorbs one, or none.
func (it *items) absorber(i int32, counts []tallied) int32 {
	from, best := uint32(0), int32(none)
	if i > 0 {
		from = it.longerStops[i-1]
	}
	better := func(a, b int32) bool {
		switch {
		case it.words[a] != it.words[b]:
			return it.words[a] > it.words[b]
		case counts[a].occurrences != counts[b].occurrences:
			return counts[a].occurrences > counts[b].occurrences
		}
		return it.rank[a] < it.rank[b]
	}
	for _, whole := range it.longer[from:it.longerStops[i]] {
		if counts[whole].records == counts[i].records && (best == none || better(whole, best)) {
			best = whole
		}
	}
	return best
}

// A union counts the records that hold any of some items.
type union struct {
	it    *items
	s     sides
	seen  []int32 // the last time a record was counted
	times int32
}

func (u *union) of(rows []Row) (records, contrast int) {
	if u.seen == nil {
		u.seen = make([]int32, len(u.s))
	}
	u.times++
	for _, r := range rows {
		record, step := uint32(0), uint32(0)
		for b := u.it.postingsOf(r.item - 1); len(b) > 0; {
			step, _, b = next(b)
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
