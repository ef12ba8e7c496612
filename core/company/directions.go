package company

import (
	"cmp"
	"context"
	"encoding/binary"
	"iter"
	"math"
	"math/bits"
	"slices"
	"strings"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/gram"
	"tamiz/core/parallel"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

// Directions are what the blocks of a strategy keep company with: how well an item or a heading fits each of them is
// asked of them. They can be asked by several at once.
type Directions struct {
	c      *Company
	blocks []direction
	mu     sync.Mutex
	known  map[int][]float64 // by item
}

// Directions returns those of the blocks of a strategy, searched or not. Terms that cannot be searched are an error.
func (c *Company) Directions(ctx context.Context, s strategy.Strategy) (*Directions, error) {
	d := &Directions{c: c, blocks: make([]direction, len(s.Blocks)), known: map[int][]float64{}}
	err := parallel.Each(ctx, len(s.Blocks), func(i int) (err error) {
		d.blocks[i], err = c.direction(ctx, s.Blocks[i])
		return err
	})
	return d, err
}

// Fits returns how well an item fits each block, to 6 decimals and not to be changed; ok is false for what is no item.
func (d *Directions) Fits(item string) (fits []float64, ok bool) {
	i, ok := d.c.place[item]
	if !ok {
		return fits, false
	}
	return d.of(i), true
}

// Median returns the median fit to a block of the items that its terms match; 0 where it has none.
func (d *Directions) Median(block int) float64 {
	var fits []float64
	for i := range d.blocks[block].members {
		fits = append(fits, d.of(i)[block])
	}
	if len(fits) == 0 {
		return 0
	}
	slices.Sort(fits)
	return fits[len(fits)/2]
}

// Stands reports whether an item stands by itself (measures.md §4); what is no item does not.
func (d *Directions) Stands(item string) bool {
	i, ok := d.c.place[item]
	return ok && d.c.stand[i]
}

// Known reports whether something is an item.
func (d *Directions) Known(item string) bool {
	_, ok := d.c.place[item]
	return ok
}

// At returns the same of an item by its number, in how many records it is, and whether it stands by itself.
func (d *Directions) At(item int) (fits []float64, records int, stands bool) {
	return d.of(item), d.c.items[item].Records, d.c.stand[item]
}

// of returns the same of an item by its number. Two that ask at once may both work it out.
func (d *Directions) of(item int) []float64 {
	d.mu.Lock()
	f, ok := d.known[item]
	d.mu.Unlock()
	if ok {
		return f
	}
	f = make([]float64, len(d.blocks))
	for b := range d.blocks {
		f[b] = tally.Round(d.c.cosine(item, d.blocks[b])) // as it is shown: figures that are made of it can be checked
	}
	d.mu.Lock()
	d.known[item] = f
	d.mu.Unlock()
	return f
}

// typical is how many items stand for a heading.
const typical = 5

// FitsOf returns how well a heading fits each block, by the words that stand for it: the mean over the five items
// that are most typical of the records that carry it, against the rest. ok is false where there is none.
func (d *Directions) FitsOf(carrying *roaring.Bitmap) (fits []float64, ok bool) {
	c := d.c
	here, all := int(carrying.AndCardinality(c.set)), int(c.set.GetCardinality())
	counts := make([]int32, len(c.items))
	var touched []int32
	for it := roaring.And(carrying, c.set).Iterator(); it.HasNext(); {
		for item := range c.lists.of(it.Next()) {
			if counts[item]++; counts[item] == 1 {
				touched = append(touched, item)
			}
		}
	}
	type stands struct {
		item int32
		pull float64
		n    int
	}
	before := func(a, b stands) int {
		return cmp.Or(
			cmp.Compare(b.pull, a.pull),
			cmp.Compare(b.n, a.n),
			strings.Compare(c.items[a.item].Name, c.items[b.item].Name),
		)
	}
	var best []stands // in order, a few of thousands
	for _, item := range touched {
		n, of := int(counts[item]), c.items[item].Records
		if n*all <= of*here {
			continue // no more common here than elsewhere: its pull is not above 0
		}
		// What can be among the five is told by its pull, which is rounded as wherever it is ordered by.
		pull := tally.Round(tally.Pull(n, here, of-n, all-here))
		if pull <= 0 {
			continue
		}
		s := stands{item, pull, n}
		at, _ := slices.BinarySearchFunc(best, s, before)
		if at == typical {
			continue
		}
		best = slices.Insert(best, at, s)
		best = best[:min(typical, len(best))]
	}
	if len(best) == 0 {
		return fits, false
	}
	fits = make([]float64, len(d.blocks))
	for _, s := range best {
		for b, x := range d.of(int(s.item)) {
			fits[b] += x / float64(len(best))
		}
	}
	return fits, true
}

// lists are, for each record, the items that it has, ascending, packed as their distances in varints.
type lists struct {
	packed []byte
	begins []uint64
}

func (l lists) of(record uint32) iter.Seq[int32] {
	return func(yield func(int32) bool) {
		if int(record)+1 >= len(l.begins) {
			return
		}
		item := int32(0)
		for b := l.packed[l.begins[record]:l.begins[record+1]]; len(b) > 0; {
			step, n := binary.Uvarint(b)
			if item += int32(step); !yield(item) {
				return
			}
			b = b[n:]
		}
	}
}

func (l lists) bytes() int64 { return int64(len(l.packed) + 8*len(l.begins)) }

// listed turns the places of items into the items of each record.
func listed(places *gram.Places, set *roaring.Bitmap) lists {
	if set.IsEmpty() {
		return lists{}
	}
	records := set.ToArray()
	of := make([]uint32, len(places.Stream.Terms)) // the record of each place
	at := uint32(0)
	for i, end := range places.Stream.Ends {
		for ; at < end; at++ {
			of[at] = records[i]
		}
	}
	each := func(visit func(record, step uint32)) {
		before := make([]uint32, set.Maximum()+1) // the last item of each record
		for i := range places.Items {
			last := uint32(math.MaxUint32)
			for _, p := range places.Of(i) {
				if r := of[p]; r != last {
					last = r
					visit(r, uint32(i)-before[r])
					before[r] = uint32(i)
				}
			}
		}
	}
	l := lists{begins: make([]uint64, set.Maximum()+2)}
	each(func(r, step uint32) { l.begins[r+1] += uint64(max(1, (bits.Len32(step)+6)/7)) })
	for r := 1; r < len(l.begins); r++ {
		l.begins[r] += l.begins[r-1]
	}
	l.packed = make([]byte, l.begins[len(l.begins)-1])
	next := slices.Clone(l.begins)
	each(func(r, step uint32) { next[r] += uint64(binary.PutUvarint(l.packed[next[r]:], uint64(step))) })
	return l
}

// ItemsIn returns the items that some of the records have, in title or abstract.
func (c *Company) ItemsIn(records *roaring.Bitmap) []string {
	seen := make([]bool, len(c.items))
	var out []string
	for it := records.Iterator(); it.HasNext(); {
		for item := range c.lists.of(it.Next()) {
			if !seen[item] {
				seen[item] = true
				out = append(out, c.items[item].Name)
			}
		}
	}
	return out
}

// Records returns how many records have an item in title or abstract; 0 for what is no item.
func (c *Company) Records(item string) int {
	if i, ok := c.place[item]; ok {
		return c.items[i].Records
	}
	return 0
}
