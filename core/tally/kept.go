package tally

import (
	"context"
	"sync"
	"sync/atomic"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/gram"
)

// kept is what is kept of all records of a pool, so that any set of them can be set against any other
// without reading them again. Each part is made when it is first asked for, and does not change.
type kept struct {
	counting atomic.Int32 // in hundredths, how far the words are counted
	words    lazy
	lists    map[Facet]func() *listed
	groups   map[Facet]func() *grouped
	foreign  func() *roaring.Bitmap // records that do not read like English
	below    sync.Map               // heading: the records that carry it or one below it

	authors atomic.Pointer[partedList] // as they were parted last
}

// A partedList is the list of authors with some of them parted.
type partedList struct {
	parted string
	list   func() *listed
}

// Keep makes a pool keep what it counts, for all the sets that will be looked at.
func (p *Pool) Keep() {
	k := &kept{lists: map[Facet]func() *listed{}, groups: map[Facet]func() *grouped{}}
	k.words = newLazy()
	k.foreign = sync.OnceValue(func() *roaring.Bitmap { return foreignOf(p.Index) })
	for _, f := range Facets {
		k.lists[f] = sync.OnceValue(func() *listed { return buildListed(p.Records, p.mentioned(f)) })
		if byHeadings(f) {
			k.groups[f] = sync.OnceValue(func() *grouped { return p.newGroups(f) })
		}
	}
	p.kept = k
}

// Counted returns how far the words of all records are counted, of 1: that takes the longest of all that a pool
// keeps. It is 0 while nobody has asked for them.
func (p *Pool) Counted() float64 {
	if p.kept == nil {
		return 0
	}
	return float64(p.kept.counting.Load()) / 100
}

// Over returns the pool with another part of its records as the sample and another as the contrast. A
// record that is in both counts in the sample alone.
func (p *Pool) Over(sample, contrast *roaring.Bitmap) *Pool {
	out := *p
	out.Sample, out.Contrast = sample, roaring.AndNot(contrast, sample)
	return &out
}

func (p *Pool) sides() sides { return sidesOf(len(p.Records), p.Sample, p.Contrast) }

// items returns the kept n-grams, or nil where none are kept by these options.
func (p *Pool) items(ctx context.Context, o WordOptions) (*items, error) {
	if p.kept == nil || o != DefaultWords {
		return nil, nil
	}
	return p.kept.words.get(ctx, func(ctx context.Context) (*items, error) {
		it, err := buildItems(ctx, p.Index, DefaultWords, func(part float64) { p.kept.counting.Store(int32(100 * part)) })
		if err != nil {
			p.kept.counting.Store(0)
		}
		return it, err
	})
}

// Items returns how many n-grams are counted; 0 where none are.
func (p *Pool) Items() int {
	if p.kept == nil {
		return 0
	}
	it := p.kept.words.items.Load()
	if it == nil {
		return 0
	}
	return it.Len()
}

// WordBytes returns how much memory the words take that are counted.
func (p *Pool) WordBytes() int64 {
	if p.kept == nil {
		return 0
	}
	it := p.kept.words.items.Load()
	if it == nil {
		return 0
	}
	return it.Bytes() + int64(len(it.postings)+8*len(it.stops))
}

// Uncount lets go of the words that are counted: who asks next counts them again.
func (p *Pool) Uncount() {
	if p.kept != nil {
		p.kept.words.items.Store(nil)
		p.kept.counting.Store(0)
	}
}

// Grams returns the n-grams of all records, by the options of DefaultWords: those that the words were counted of.
// It is nil where the pool keeps nothing.
func (p *Pool) Grams(ctx context.Context) (*gram.Found, error) {
	it, err := p.items(ctx, DefaultWords)
	if it == nil || err != nil {
		return nil, err
	}
	return it.Found, nil
}

// lazy is items that are counted when they are first asked for. Others who ask wait, as long as they like; where
// the one who counts gives up, the next one does.
type lazy struct {
	turn  chan struct{}
	items *atomic.Pointer[items]
}

func newLazy() lazy { return lazy{make(chan struct{}, 1), &atomic.Pointer[items]{}} }

func (l lazy) get(ctx context.Context, build func(context.Context) (*items, error)) (*items, error) {
	if it := l.items.Load(); it != nil {
		return it, nil
	}
	select {
	case l.turn <- struct{}{}:
		defer func() { <-l.turn }()
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	if it := l.items.Load(); it != nil {
		return it, nil
	}
	it, err := build(ctx)
	if err == nil {
		l.items.Store(it)
	}
	return it, err
}

// listed returns the items of a facet that is a list, with all their mentions.
func (p *Pool) listed(f Facet) *listed {
	switch {
	case p.kept == nil:
		return buildListed(p.Records, p.mentioned(f))
	case f == Authors && len(p.parted) > 0:
		last := p.kept.authors.Load()
		if key := p.parted.Key(); last == nil || last.parted != key {
			last = &partedList{key, sync.OnceValue(func() *listed { return buildListed(p.Records, p.mentioned(f)) })}
			p.kept.authors.Store(last)
		}
		return last.list()
	}
	return p.kept.lists[f]()
}

// Apart returns the pool with some writings of authors parted from those they would be folded with.
func (p *Pool) Apart(parted Parted) *Pool {
	out := *p
	out.parted = parted
	return &out
}

// Narrower returns the records that carry a heading, by its key, or one below it.
func (p *Pool) Narrower(key string) *roaring.Bitmap {
	if p.kept != nil {
		if known, ok := p.kept.below.Load(key); ok {
			return known.(*roaring.Bitmap)
		}
	}
	found := p.Index.Heading(p.Thesaurus.BranchOf(key), false, nil)
	if p.kept != nil {
		p.kept.below.Store(key, found)
	}
	return found
}
