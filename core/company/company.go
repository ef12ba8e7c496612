// Package company knows which words keep the same company: words that stand for one another seldom stand
// together, but they stand among the same words. From that it tells which words are used alike, and which
// block a word suits. It knows nothing of where records come from.
package company

import (
	"cmp"
	"container/heap"
	"context"
	"math"
	"slices"
	"strings"
	"unsafe"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/gram"
	"tamiz/core/index"
	"tamiz/core/parallel"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
)

const (
	leastRecords = 5 // of an item
	window       = 5 // positions on each side that count as context
	smoothing    = 0.75
)

// A Company is the items of some records, each with the weights of the words it stands among: positive
// pointwise mutual information with smoothed contexts (Levy, Goldberg and Dagan 2015, "Improving
// distributional similarity with lessons learned from word embeddings"). It does not change once built.
type Company struct {
	ix    *index.Index
	set   *roaring.Bitmap
	items []gram.Item
	words [][]string // tokens of each item
	place map[string]int
	stand []bool // whether each stands by itself

	holding map[string][]int32 // the items that hold each word

	// of each item, single-token items by number: a weight is worked out from how often it stands there, see vector
	contexts contexts
	seldom   []float64 // of each item: -ln n(t)
	telling  []float64 // of each word as context: ln(Σ n(c′)^0.75 / n(c)^0.75)
	length   []float64 // of each item's vector

	lists lists // the items of each record
}

// Build works out the company of all items of a set of records, in title and abstract.
func Build(ctx context.Context, ix *index.Index, set *roaring.Bitmap) (*Company, error) {
	o := tally.DefaultWords
	s := ix.Stream(set, o.Fields)
	found, err := gram.Find(ctx, ix, s, o.MaxWords, o.MinRecords, nil)
	if err != nil {
		return nil, err
	}
	return of(ctx, ix, set, s, found)
}

// Of does the same for all records of a pool that keeps the n-grams it counts, which are not found a second time.
func Of(ctx context.Context, p *tally.Pool) (*Company, error) {
	found, err := p.Grams(ctx)
	if err != nil {
		return nil, err
	}
	all := p.Index.All()
	if found == nil {
		return Build(ctx, p.Index, all)
	}
	return of(ctx, p.Index, all, p.Index.Stream(all, tally.DefaultWords.Fields), found)
}

func of(
	ctx context.Context,
	ix *index.Index,
	set *roaring.Bitmap,
	s index.Stream,
	found *gram.Found,
) (*Company, error) {
	places := found.Places(s, func(item gram.Item) bool {
		return item.Records >= leastRecords && (item.Words == 1 || !item.Absorbed)
	})
	standing := found.Standing()
	c := &Company{ix: ix, set: set, items: places.Items, place: map[string]int{}}
	single := make([]int32, ix.Tokens()) // the single-token item of each token, by number from 1
	for i, item := range c.items {
		c.place[item.Name] = i
		c.words = append(c.words, strings.Split(item.Name, " "))
		c.stand = append(c.stand, standing[item.Number])
		if places.Items[i].Words == 1 {
			single[places.Stream.Terms[places.Of(i)[0]]] = int32(i) + 1
		}
	}
	c.holding = held(c.words)
	if err := c.count(ctx, places, single); err != nil {
		return nil, err
	}
	c.weigh(single)
	c.lists = listed(places, set)
	return c, ctx.Err()
}

// count counts how often each word is context of each item.
func (c *Company) count(ctx context.Context, places *gram.Places, single []int32) error {
	s := places.Stream
	value := make([]uint32, len(s.Terms)) // the value of each place
	at := uint32(0)
	for v, end := range s.Values {
		for ; at < end; at++ {
			value[at] = uint32(v)
		}
	}
	c.contexts = newContexts(len(c.items), func(from, to int) part {
		return c.countPart(ctx, places, value, single, from, to)
	})
	return ctx.Err()
}

// countPart does the same for some items that follow each other. What it returns is of use only where the context
// has not ended meanwhile.
func (c *Company) countPart(
	ctx context.Context,
	places *gram.Places,
	value []uint32,
	single []int32,
	from, to int,
) (out part) {
	counts := make([]int32, len(c.items))
	var touched []int32
	for i := from; i < to; i++ {
		if i&255 == 0 && ctx.Err() != nil {
			return part{ends: make([]uint32, to-from)}
		}
		touched = touched[:0]
		look := func(at int, v uint32) bool {
			if at < 0 || at >= len(value) || value[at] != v {
				return false
			}
			if w := single[places.Stream.Terms[at]] - 1; w >= 0 {
				if counts[w] == 0 {
					touched = append(touched, w)
				}
				counts[w]++
			}
			return true
		}
		for _, p := range places.Of(i) {
			first, last := int(p), int(p)+places.Items[i].Words-1
			for k := 1; k <= window && look(first-k, value[p]); k++ {
			}
			for k := 1; k <= window && look(last+k, value[p]); k++ {
			}
		}
		slices.Sort(touched)
		last := int32(0)
		for _, w := range touched {
			out.put(w, last, counts[w])
			last, counts[w] = w, 0
		}
		out.end()
	}
	return out
}

// weigh turns counts into weights: max(0, ln(n(t,c) · Σ n(c′)^0.75 / (n(t) · n(c)^0.75))), where n(c) is
// how often c is context of single words. Contexts that weigh nothing are left out.
func (c *Company) weigh(single []int32) {
	isSingle := make([]bool, len(c.items))
	for _, i := range single {
		if i > 0 {
			isSingle[i-1] = true
		}
	}
	smooth := make([]float64, len(c.items)) // n(c)^0.75
	for i := range c.items {
		if isSingle[i] {
			for word, times := range c.contexts.counted(i) {
				smooth[word] += float64(times)
			}
		}
	}
	sum := 0.0
	for i, n := range smooth {
		if n > 0 {
			smooth[i] = math.Pow(n, smoothing)
			sum += smooth[i]
		}
	}
	c.telling = make([]float64, len(c.items))
	for i, n := range smooth {
		if n > 0 {
			c.telling[i] = math.Log(sum) - math.Log(n)
		}
	}
	c.length, c.seldom = make([]float64, len(c.items)), make([]float64, len(c.items))
	c.contexts = newContexts(len(c.items), func(from, to int) (left part) {
		for i := from; i < to; i++ {
			n, squares := 0.0, 0.0
			for _, times := range c.contexts.counted(i) {
				n += float64(times)
			}
			c.seldom[i] = -math.Log(n)
			last := int32(0)
			for word, times := range c.contexts.counted(i) {
				if smooth[word] == 0 {
					continue
				}
				if w := logOf(times) + c.seldom[i] + c.telling[word]; w > 0 {
					left.put(word, last, times)
					last = word
					squares += w * w
				}
			}
			left.end()
			c.length[i] = math.Sqrt(squares)
		}
		c.contexts[from/partItems] = part{} // what is weighed takes its place
		return left
	})
}

// Bytes returns how much memory it takes, without the text of its items, which is the index's.
func (c *Company) Bytes() int64 {
	n := c.contexts.bytes() + c.lists.bytes()
	for i := range c.items {
		n += int64(
			unsafe.Sizeof(c.items[i]),
		) + 24 + 24 + int64(
			16*len(c.words[i]),
		) + 40 // figures, the slice of words and the place by name
	}
	for _, items := range c.holding {
		n += 48 + int64(4*len(items))
	}
	return n
}

// Len returns how many items there are.
func (c *Company) Len() int { return len(c.items) }

// An Alike is an item that keeps the same company as another.
type Alike struct {
	Item     string
	Alike    float64 // the cosine of the two vectors, 0 to 1
	Together int     // records that hold both
	Records  int
}

// Alike returns the items used like a word or phrase, the most alike first, at most limit of them (0:
// all). Its own family, and what holds it or is held in it, are left out. ok is false when it is no item.
func (c *Company) Alike(item string, limit int) ([]Alike, bool) {
	t, ok := c.place[text.Key(item)]
	if !ok {
		return nil, false
	}
	own := make([]float64, len(c.items)) // the vector of the item
	for word, w := range c.vector(t) {
		own[word] = w
	}
	dots := make([]float64, len(c.items))
	parallel.InParts(len(c.items), func(from, to int) {
		for u := from; u < to; u++ {
			dot := 0.0
			for word, w := range c.vector(u) {
				dot += own[word] * w
			}
			dots[u] = dot
		}
	})
	best := ranking{c: c}
	for u, dot := range dots {
		if dot <= 0 || c.items[u].Family == c.items[t].Family {
			continue
		}
		a := scored{tally.Round(dot / (c.length[t] * c.length[u])), int32(u)}
		if a.alike > 0 && (limit == 0 || len(best.list) < limit || best.before(a, best.list[0])) &&
			!text.InRow(c.words[u], c.words[t]) && !text.InRow(c.words[t], c.words[u]) {
			best.put(a, limit)
		}
	}
	return best.alike(c.records(t)), true
}

// AlikeTo returns the items that keep the company which all that some free-text and near terms match keeps
// together, the most alike first, at most limit of them (0: all). What the terms match, its families, and what
// holds it or is held in it are left out. Terms that cannot be searched are an error.
func (c *Company) AlikeTo(ctx context.Context, terms []strategy.Term, limit int) ([]Alike, error) {
	d, err := c.direction(ctx, strategy.Block{Terms: terms})
	if err != nil {
		return nil, err
	}
	families := map[string]bool{}
	members := make([]int, 0, len(d.members))
	own := roaring.New()
	for i := range c.items {
		if d.has(i) {
			members = append(members, i)
			families[c.items[i].Family] = true
			own.Or(c.records(i))
		}
	}
	best := ranking{c: c}
	for u := range c.items {
		if d.has(u) || families[c.items[u].Family] {
			continue
		}
		a := scored{tally.Round(c.cosine(u, d)), int32(u)}
		if a.alike > 0 && (limit == 0 || len(best.list) < limit || best.before(a, best.list[0])) &&
			!slices.ContainsFunc(
				members,
				func(m int) bool { return text.InRow(c.words[u], c.words[m]) || text.InRow(c.words[m], c.words[u]) },
			) {
			best.put(a, limit)
		}
	}
	return best.alike(own), nil
}

// alike returns the ranking in order; own is the records of what the items are like.
func (r *ranking) alike(own *roaring.Bitmap) (out []Alike) {
	slices.SortFunc(r.list, func(a, b scored) int {
		if r.before(a, b) {
			return -1
		}
		return 1
	})
	for _, a := range r.list {
		row := r.c.items[a.item]
		out = append(
			out,
			Alike{
				Item:     row.Name,
				Alike:    a.alike,
				Records:  row.Records,
				Together: int(r.c.records(int(a.item)).AndCardinality(own)),
			},
		)
	}
	return out
}

type scored struct {
	alike float64
	item  int32
}

// A ranking keeps the best so far, as a heap with the worst of them on top: of tens of thousands a few
// are wanted.
type ranking struct {
	c    *Company
	list []scored
}

func (r *ranking) before(a, b scored) bool {
	if a.alike != b.alike {
		return a.alike > b.alike
	}
	if x, y := r.c.items[a.item].Records, r.c.items[b.item].Records; x != y {
		return x > y
	}
	return r.c.items[a.item].Name < r.c.items[b.item].Name
}

func (r *ranking) put(a scored, limit int) {
	if limit > 0 && len(r.list) == limit {
		r.list[0] = a
		heap.Fix(r, 0)
		return
	}
	heap.Push(r, a)
}

func (r *ranking) Len() int           { return len(r.list) }
func (r *ranking) Less(i, j int) bool { return r.before(r.list[j], r.list[i]) }
func (r *ranking) Swap(i, j int)      { r.list[i], r.list[j] = r.list[j], r.list[i] }
func (r *ranking) Push(x any)         { r.list = append(r.list, x.(scored)) }
func (r *ranking) Pop() any {
	last := r.list[len(r.list)-1]
	r.list = r.list[:len(r.list)-1]
	return last
}

func (c *Company) records(item int) *roaring.Bitmap {
	found := c.ix.Gram(c.words[item], bib.TitleAbstract)
	found.And(c.set)
	return found
}

// Thresholds above which a block is proposed.
const (
	leastFit  = 0.1
	leastLead = 1.2 // times the next
)

// A Fit is how well an item suits each block.
type Fit struct {
	Item     string
	Records  int
	Fits     []float64 // by block, the cosine with what the block's terms keep company with
	Proposed int       // the block that it suits best by far, or -1
	Inside   []int     // blocks whose terms match it already
}

// Fits returns how well each item suits the blocks of a strategy, the best fit first. Terms that cannot be
// searched are an error.
func (c *Company) Fits(ctx context.Context, s strategy.Strategy) ([]Fit, error) {
	blocks := make([]direction, len(s.Blocks))
	for i, b := range s.Blocks {
		var err error
		if blocks[i], err = c.direction(ctx, b); err != nil {
			return nil, err
		}
	}
	out := make([]Fit, len(c.items))
	for t := range c.items {
		if t&1023 == 0 && ctx.Err() != nil {
			return nil, ctx.Err()
		}
		out[t] = c.fit(t, blocks)
	}
	best := func(f Fit) float64 {
		top := 0.0
		for _, x := range f.Fits {
			top = max(top, x)
		}
		return top
	}
	slices.SortFunc(out, func(a, b Fit) int {
		return cmp.Or(cmp.Compare(best(b), best(a)), cmp.Compare(b.Records, a.Records), strings.Compare(a.Item, b.Item))
	})
	return out, nil
}

func (c *Company) fit(t int, blocks []direction) Fit {
	f := Fit{Item: c.items[t].Name, Records: c.items[t].Records, Fits: make([]float64, len(blocks)), Proposed: -1}
	for i, b := range blocks {
		if b.has(t) {
			f.Inside = append(f.Inside, i)
		}
		f.Fits[i] = tally.Round(c.cosine(t, b))
	}
	first, second := -1, 0.0
	for i, x := range f.Fits {
		switch {
		case first < 0 || x > f.Fits[first]:
			if first >= 0 {
				second = max(second, f.Fits[first])
			}
			first = i
		default:
			second = max(second, x)
		}
	}
	if first >= 0 && f.Fits[first] >= leastFit && f.Fits[first] >= leastLead*second {
		f.Proposed = first
	}
	return f
}
