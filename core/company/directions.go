package company

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/strategy"
	"tamiz/core/tally"
)

// Directions are what the blocks of a strategy keep company with: how well an item or a heading fits each of them is
// asked of them. They can be asked by several at once.
type Directions struct {
	c      *Company
	blocks []direction
	mu     sync.Mutex
	known  map[int][]float64 // fits by item
}

// Directions returns those of the blocks of a strategy, searched or not. Terms that cannot be searched are an error.
func (c *Company) Directions(ctx context.Context, s strategy.Strategy) (*Directions, error) {
	d := &Directions{c: c, blocks: make([]direction, len(s.Blocks)), known: map[int][]float64{}}
	for i, b := range s.Blocks {
		var err error
		if d.blocks[i], err = c.direction(ctx, b); err != nil {
			return nil, err
		}
	}
	return d, nil
}

// Fits returns how well an item fits each block, not rounded; ok is false for what is no item. It is not to be changed.
func (d *Directions) Fits(item string) (fits []float64, ok bool) {
	i, ok := d.c.place[item]
	if !ok {
		return nil, false
	}
	return d.of(i), true
}

func (d *Directions) of(item int) []float64 {
	d.mu.Lock()
	defer d.mu.Unlock()
	fits, ok := d.known[item]
	if !ok {
		fits = make([]float64, len(d.blocks))
		for b := range d.blocks {
			fits[b] = d.c.cosine(item, d.blocks[b])
		}
		d.known[item] = fits
	}
	return fits
}

// typical is how many items stand for a heading.
const typical = 5

// FitsOf returns how well a heading fits each block, by the words that stand for it: the mean over the five items that are
// most typical of the records that carry it, against the rest. ok is false where there is none.
func (d *Directions) FitsOf(ctx context.Context, carrying *roaring.Bitmap) (fits []float64, ok bool) {
	c := d.c
	lists := c.itemsOf(ctx)
	here, all := int(carrying.AndCardinality(c.set)), int(c.set.GetCardinality())
	counts := map[int32]int{}
	for it := roaring.And(carrying, c.set).Iterator(); it.HasNext(); {
		for _, item := range lists.of(it.Next()) {
			counts[item]++
		}
	}
	type stands struct {
		item int32
		pull float64
		n    int
	}
	var best []stands
	for item, n := range counts {
		// What can be among the five is told by its pull, which is rounded as wherever it is ordered by.
		if pull := tally.Round(tally.Pull(n, here, c.items[item].Records-n, all-here)); pull > 0 {
			best = append(best, stands{item, pull, n})
		}
	}
	slices.SortFunc(best, func(a, b stands) int {
		return cmp.Or(cmp.Compare(b.pull, a.pull), cmp.Compare(b.n, a.n), strings.Compare(c.items[a.item].Item, c.items[b.item].Item))
	})
	if best = best[:min(typical, len(best))]; len(best) == 0 {
		return nil, false
	}
	fits = make([]float64, len(d.blocks))
	for _, s := range best {
		for b, x := range d.of(int(s.item)) {
			fits[b] += x / float64(len(best))
		}
	}
	return fits, true
}

// lists are, for each record, the items that it has.
type lists struct {
	begins []int
	items  []int32
}

func (l *lists) of(record uint32) []int32 {
	if int(record)+1 >= len(l.begins) {
		return nil
	}
	return l.items[l.begins[record]:l.begins[record+1]]
}

// itemsOf returns the items of each record, worked out once.
func (c *Company) itemsOf(context.Context) *lists {
	c.once.Do(func() {
		sets := make([]*roaring.Bitmap, len(c.items))
		records := 0
		if !c.set.IsEmpty() {
			records = int(c.set.Maximum()) + 1
		}
		l := &lists{begins: make([]int, records+1)}
		for i := range c.items {
			sets[i] = c.records(i)
			for it := sets[i].Iterator(); it.HasNext(); {
				l.begins[it.Next()+1]++
			}
		}
		for r := range records {
			l.begins[r+1] += l.begins[r]
		}
		l.items = make([]int32, l.begins[records])
		next := slices.Clone(l.begins)
		for i, set := range sets {
			for it := set.Iterator(); it.HasNext(); {
				r := it.Next()
				l.items[next[r]] = int32(i)
				next[r]++
			}
		}
		c.lists = l
	})
	return c.lists
}

// Items calls then with each item and its records, for as long as it returns true.
func (c *Company) Items(then func(item string, records int) bool) {
	for _, row := range c.items {
		if !then(row.Item, row.Records) {
			return
		}
	}
}
