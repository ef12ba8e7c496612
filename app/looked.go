package app

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
	"tamiz/core/tally"
	"tamiz/store"
)

// A look is what of a pool is looked at: its sample against its contrast, or any set of its records against
// the rest.
type look struct {
	*tally.Pool
	key string // by which it is known among those of the pool
}

// sampled returns the pool's sample, against its contrast.
func (p *pool) sampled() look { return look{p.Pool, ""} }

const (
	maxLooked = 64 << 10 // bytes of what says which records are looked at
	maxWithin = 8        // sets within one another
)

// look works out which records of the pool are looked at. Blocks and terms are those of the revision at
// which they were chosen: an order does not change by itself under the reader's eyes.
func (a *App) look(ctx context.Context, review int64, d *desk, v View) (look, error) {
	if len(v.Set) == 0 {
		return d.pool.sampled(), nil
	}
	var s RecordSet
	if err := json.Unmarshal(v.Set, &s); err != nil {
		return look{}, err
	}
	key := fmt.Sprint(v.Revision, " ", string(v.Set))
	key += d.pool.parted.Key() // the set, or one that it is within, may be of authors
	made, within, err := a.lookedAt(ctx, review, d, key, s, v.Revision)
	var p *Problem
	if errors.As(err, &p) {
		// What it was taken from is there no more, a sample that was deleted say: the sample is looked at instead.
		return d.pool.sampled(), nil
	}
	if err != nil {
		return look{}, err
	}
	return look{d.pool.Over(made, within), key}, nil
}

// lookedAt returns the records of a set, and all those it is set against the rest of.
func (a *App) lookedAt(ctx context.Context, review int64, d *desk, key string, s RecordSet, revision int) (made, within *roaring.Bitmap, err error) {
	within = d.pool.Index.All()
	if s.Within != nil {
		if within, _, err = a.lookedAt(ctx, review, d, key+" within", *s.Within, revision); err != nil {
			return nil, nil, err
		}
	}
	made, err = cached(ctx, d.pool.sets, key, func(ctx context.Context) (*roaring.Bitmap, int64, error) {
		found, err := a.lookedSet(ctx, review, d.pool, s, revision)
		if err != nil || s.Within == nil {
			return found, 1, err
		}
		return roaring.And(found, within), 1, nil
	})
	return made, within, err
}

func (a *App) lookedSet(ctx context.Context, review int64, p *pool, s RecordSet, revision int) (*roaring.Bitmap, error) {
	everything := look{p.Over(p.Index.All(), roaring.New()), "all"}
	told, err := p.told(s, func(f tally.Facet, item string) ([]string, error) { return p.forms(ctx, everything, f, item, &keys{}) })
	if told != nil || err != nil {
		return told, err
	}
	if ids, ok, err := a.beside(ctx, review, s); ok || err != nil {
		return p.numbered(ids), err
	}
	saved, err := a.store.Document(ctx, review, revision)
	if err != nil {
		return nil, gone(err, "revision")
	}
	doc, err := parse(saved.Body)
	if err != nil {
		return nil, err
	}
	these, err := found(ctx, doc, coverage.Set{Records: p.Records, Index: p.Index, Thesaurus: p.Thesaurus, Kept: p.hits}, s)
	if err == nil && these == nil {
		these = p.Sample
	}
	return these, err
}

// numbered returns the records of the pool that have one of some numbers in the store.
func (p *pool) numbered(ids []int64) *roaring.Bitmap {
	wanted := slices.Sorted(slices.Values(ids))
	out := roaring.New()
	for n, id := range p.ids {
		if _, ok := slices.BinarySearch(wanted, id); ok {
			out.Add(uint32(n))
		}
	}
	return out
}

// checkLooked says what keeps a set from being looked at, and sets its revision.
func (a *App) checkLooked(ctx context.Context, review int64, v *View) error {
	if len(v.Set) == 0 || string(v.Set) == "null" {
		v.Set, v.Revision = nil, 0
		return nil
	}
	if len(v.Set) > maxLooked {
		return invalid("set", "A selection of so many records cannot be looked at; keep them as a sample.")
	}
	var s RecordSet
	if err := json.Unmarshal(v.Set, &s); err != nil {
		return invalid("set", "It is not said which records are to be looked at.")
	}
	depth := 0
	for in := s.Within; in != nil; in = in.Within {
		depth++
	}
	if depth > maxWithin {
		return invalid("set", "At most %d selections are looked at within one another.", maxWithin)
	}
	saved, err := a.store.Document(ctx, review, 0)
	if err != nil {
		return gone(err, "review")
	}
	if v.Revision <= 0 || v.Revision > saved.Revision {
		v.Revision = saved.Revision
	}
	if s.Term != nil {
		if _, err := s.Term.Query(); err != nil {
			r := refusal(err)
			return &Problem{Type: "refused", Status: 422, Field: "set", Title: sentence(r.Message), Detail: r.Reason}
		}
	}
	if s.Block != nil {
		doc, err := parse(saved.Body)
		if err != nil {
			return err
		}
		if doc.Block(*s.Block) < 0 {
			return gone(store.ErrNone, "block")
		}
	}
	return nil
}
