package desk

import (
	"context"
	"errors"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/core/set"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

// A Scope is what of a pool is looked at: its sample against its contrast, or any set of its records against
// the rest.
type Scope struct {
	*tally.Pool
	Key string // by which it is known among those of the pool
}

// Sampled returns the pool's sample, against its contrast.
func (p *Pool) Sampled() Scope { return Scope{p.Pool, ""} }

// scope works out which records of the pool are looked at. Blocks and terms are those of the revision at
// which they were chosen: an order does not change by itself under the reader's eyes.
func (a *Service) scope(ctx context.Context, d *Desk, l Look) (Scope, error) {
	if l.Set == nil {
		return d.Pool.Sampled(), nil
	}
	both := roaring.Or(d.Pool.Pool.Sample, d.Pool.Pool.Contrast)
	in := &SetPool{app: a, review: d.at.Review, pool: d.Pool, document: d.Document, keys: &Keys{}, all: both, free: d.Free,
		look: Scope{d.Pool.Over(both, roaring.New()), "all"}, set: d.Pool.setOf(both)}
	if set.OfDocument(l.Set.Set) {
		saved, err := a.documents.Document(ctx, d.at.Review, l.Revision)
		if err != nil {
			return Scope{}, problems.Gone(err, "revision")
		}
		if in.document, err = Parse(saved.Body); err != nil {
			return Scope{}, err
		}
	}
	made, err := in.kept(ctx, l.records(), l.Set.Set)
	within := both
	if w, ok := l.Set.Set.(*set.Within); ok && err == nil {
		within, err = in.kept(ctx, l.records()+" within", w.In.Set)
	}
	var p *problems.Problem
	if errors.As(SetProblem(err), &p) {
		// What it was taken from is there no more, a sample that was deleted say: the sample is looked at instead.
		return d.Pool.Sampled(), nil
	}
	if err != nil {
		return Scope{}, err
	}
	return Scope{d.Pool.Over(made, within), l.records()}, nil
}

// A SetPool is a pool in which sets are looked for. It implements set.Pool.
type SetPool struct {
	app      *Service
	review   int64
	pool     *Pool
	document Document
	keys     *Keys           // by whose words the forms of an item are told
	look     Scope           // among which they are
	all      *roaring.Bitmap // that items are told of
	set      coverage.Set    // in which blocks and terms find
	free     func(block string) *Free
}

// SetPool returns the pool of a desk, where items are told of what is looked at, and blocks of the sample.
func (d *Desk) SetPool(a *Service) *SetPool {
	return &SetPool{
		app:      a,
		review:   d.at.Review,
		pool:     d.Pool,
		document: d.Document,
		keys:     d.Keys,
		look:     d.Look,
		all:      d.Look.Sample,
		set:      d.Pool.Set(),
		free:     d.Free,
	}
}

// kept returns the records of a set, kept with the pool.
func (in *SetPool) kept(ctx context.Context, name string, s set.Set) (*roaring.Bitmap, error) {
	if _, changes := s.(*set.Shelf); changes {
		return s.Records(ctx, in) // what is on the shelf is not the look's
	}
	return Cached(ctx, in.pool.sets, name, func(ctx context.Context) (*roaring.Bitmap, int64, error) {
		found, err := s.Records(ctx, in)
		if err != nil {
			return nil, 0, err
		}
		return found, int64(found.GetSizeInBytes()), nil
	})
}

// All implements set.Pool, as do the following.
func (in *SetPool) All() *roaring.Bitmap    { return in.all }
func (in *SetPool) Sample() *roaring.Bitmap { return in.pool.Pool.Sample }
func (in *SetPool) Document() Document      { return in.document }

func (in *SetPool) Item(ctx context.Context, f tally.Facet, item string) (*roaring.Bitmap, error) {
	forms, err := in.pool.Forms(ctx, in.look, f, item, in.keys)
	if err != nil {
		return nil, err
	}
	return in.pool.WithItem(f, item, forms), nil
}

func (in *SetPool) Around(f tally.Facet, item string, aspect tally.Aspect) *roaring.Bitmap {
	if item != "" {
		item = ItemKey(f, item, in.pool.Parted)
	}
	return in.pool.Around(f, item, aspect)
}

func (in *SetPool) Together(authors []string) *roaring.Bitmap { return in.pool.Together(authors) }

func (in *SetPool) Free(block string) set.Pool {
	f := in.free(block)
	if f == nil {
		return in
	}
	out := *in
	out.set = f.Set
	return &out
}

func (in *SetPool) Reach(ctx context.Context) (*coverage.Reach, error) {
	return coverage.Find(ctx, in.set, in.document.Strategy(""))
}

func (in *SetPool) ReachOf(ctx context.Context, revision int) (*coverage.Reach, error) {
	if revision == 0 {
		return in.Reach(ctx)
	}
	saved, err := in.app.documents.Document(ctx, in.review, revision)
	if err != nil {
		return nil, problems.Gone(err, "revision")
	}
	doc, err := Parse(saved.Body)
	if err != nil {
		return nil, err
	}
	return coverage.Find(ctx, in.set, doc.Strategy(""))
}

func (in *SetPool) Hits(t strategy.Term) (*roaring.Bitmap, error) { return coverage.Hits(in.set, t) }

func (in *SetPool) Stored(ctx context.Context, s set.Stored) (*roaring.Bitmap, error) {
	ids, err := in.app.Stored(ctx, in.review, s)
	return in.pool.numbered(ids), err
}

// numbered returns the records of the pool that have one of some numbers in the store.
func (p *Pool) numbered(ids []int64) *roaring.Bitmap {
	wanted := slices.Sorted(slices.Values(ids))
	out := roaring.New()
	for n, id := range p.IDs {
		if _, ok := slices.BinarySearch(wanted, id); ok {
			out.Add(uint32(n))
		}
	}
	return out
}
