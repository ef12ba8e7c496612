package app

import (
	"container/list"
	"context"
	"fmt"
	"slices"
	"strings"
	"sync"

	"golang.org/x/sync/singleflight"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/tally"
	"tamiz/store"
)

// maxPooled is how many records the kept pools may hold in all; the one in use is always kept.
const maxPooled = 300_000

// pools keeps what was worked out from samples, which never change: it can always be built again.
type pools struct {
	store  *store.Store
	build  singleflight.Group
	mu     sync.Mutex
	order  *list.List // most recently used first
	byKey  map[string]*list.Element
	pooled int
}

func newPools(s *store.Store) *pools {
	return &pools{store: s, order: list.New(), byKey: map[string]*list.Element{}}
}

// A pool is the records of a sample and its contrast, indexed.
type pool struct {
	*tally.Pool
	ids []int64 // of the records in the store

	mu      sync.Mutex
	tallies map[string]*tally.Tally
}

// set returns the sample's part of the pool.
func (p *pool) set() coverage.Set {
	return coverage.Set{Records: p.Records, Index: p.Index, Within: p.Sample}
}

// tally counts a facet, once for each set of key studies.
func (p *pool) tally(f tally.Facet, k *keys) *tally.Tally {
	p.mu.Lock()
	defer p.mu.Unlock()
	name := string(f) + " " + k.key
	t := p.tallies[name]
	if t == nil {
		if len(p.tallies) > 12 {
			clear(p.tallies)
		}
		var studies []*bib.Record
		if len(k.studies) > 0 {
			studies = k.set.Records
		}
		t = tally.Count(p.Pool, f, studies, tally.DefaultWords)
		p.tallies[name] = t
	}
	return t
}

// keys is the key studies of a review, indexed.
type keys struct {
	key     string
	studies []store.StoredKey
	set     coverage.Set
}

// has reports whether a stored record is a key study.
func (k *keys) has(record int64) bool {
	return slices.ContainsFunc(k.studies, func(s store.StoredKey) bool { return s.StoredRecord.ID == record })
}

type entry struct {
	key     string
	value   any
	records int
}

// get returns what is kept under a key, or makes it; many who ask at once wait for one to make it.
func (p *pools) get(ctx context.Context, key string, make func(context.Context) (any, int, error)) (any, error) {
	p.mu.Lock()
	if e := p.byKey[key]; e != nil {
		p.order.MoveToFront(e)
		p.mu.Unlock()
		return e.Value.(*entry).value, nil
	}
	p.mu.Unlock()
	// Who asked first may leave; the others still want it.
	v, err, _ := p.build.Do(key, func() (any, error) {
		value, records, err := make(context.WithoutCancel(ctx))
		if err == nil {
			p.put(&entry{key, value, records})
		}
		return value, err
	})
	return v, err
}

func (p *pools) put(e *entry) {
	p.mu.Lock()
	defer p.mu.Unlock()
	if p.byKey[e.key] != nil {
		return
	}
	p.byKey[e.key] = p.order.PushFront(e)
	p.pooled += e.records
	for p.pooled > maxPooled && p.order.Len() > 1 {
		last := p.order.Back()
		old := p.order.Remove(last).(*entry)
		delete(p.byKey, old.key)
		p.pooled -= old.records
	}
}

// keys returns the key studies of a review.
func (p *pools) keys(ctx context.Context, review int64) (*keys, error) {
	studies, err := p.store.KeyStudies(ctx, review)
	if err != nil {
		return nil, err
	}
	key := "keys"
	records := make([]*bib.Record, len(studies))
	for i, s := range studies {
		key += fmt.Sprint(" ", s.ID)
		records[i] = s.Record
	}
	v, err := p.get(ctx, key, func(context.Context) (any, int, error) {
		return &keys{key, studies, coverage.NewSet(records)}, len(records), nil
	})
	if err != nil {
		return nil, err
	}
	return v.(*keys), nil
}

// pool returns the pool of what is looked at, or nil when no sample is.
func (p *pools) pool(ctx context.Context, v View, samples []Sample) (*pool, error) {
	if v.Sample == nil {
		return nil, nil
	}
	var others []int64
	switch {
	case v.Against != nil:
		others = []int64{*v.Against}
	case v.Rest:
		for _, s := range samples {
			if s.ID != *v.Sample {
				others = append(others, s.ID)
			}
		}
		slices.Sort(others)
	}
	key := strings.Trim(fmt.Sprint(*v.Sample, others), "[]")
	got, err := p.get(ctx, key, func(ctx context.Context) (any, int, error) {
		sample, err := p.store.SampleRecords(ctx, *v.Sample)
		if err != nil {
			return nil, 0, err
		}
		contrast, err := p.store.SampleRecords(ctx, others...)
		if err != nil {
			return nil, 0, err
		}
		built := newPool(sample, contrast)
		return built, len(built.ids), nil
	})
	if err != nil {
		return nil, err
	}
	return got.(*pool), nil
}

func newPool(sample, contrast []store.StoredRecord) *pool {
	byRecord := make(map[*bib.Record]int64, len(sample)+len(contrast))
	records := func(stored []store.StoredRecord) (out []*bib.Record) {
		for _, s := range stored {
			byRecord[s.Record] = s.ID
			out = append(out, s.Record)
		}
		return out
	}
	p := &pool{Pool: tally.NewPool(records(sample), records(contrast)), tallies: map[string]*tally.Tally{}}
	for _, r := range p.Records {
		p.ids = append(p.ids, byRecord[r])
	}
	return p
}
