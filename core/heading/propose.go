package heading

import (
	"cmp"
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/tally"
	"tamiz/core/text"
)

// Proposed is the headings, each with all that stands below it, that a sample and the key studies themselves point to.
type Proposed struct {
	// Sample is those that cover much of a sample and little of what it is set against: by pull.
	Sample []Covering `json:"sample"`
	// Keys is what the key studies point to, the fewest records first: each catches more of them than any that finds
	// fewer records. The last is the lowest that would catch as many as can be caught.
	Keys []Covering `json:"keys"`
	// Shared is the headings that most key studies carry themselves.
	Shared  []Covering `json:"shared"`
	Indexed int        `json:"indexed"` // key studies that carry any heading
}

// A Covering is a heading with all below it, by what it covers.
type Covering struct {
	Label   string  `json:"label"`
	Key     string  `json:"key"` // its label as labels are compared
	Records int     `json:"records"`
	Share   float64 `json:"share"` // of the sample
	Lift    float64 `json:"lift"`  // its share in the sample against that in the contrast; 0 where there is none
	Pull    float64 `json:"pull"`
	Keys    int     `json:"keys"`
	Below   int     `json:"below"` // headings below it
}

// A branch is what a heading finds with all below it.
type branch struct{ records, keys *roaring.Bitmap }

// branches works out what every heading finds with all below it, from the bottom up in one pass: what stands below is
// laid together once, however many stand above. Headings that nothing carries, nor anything below, are left out.
func (l Look) branches(ctx context.Context) (map[int]branch, error) {
	v := l.Set.Thesaurus
	out := map[int]branch{}
	state := make([]bool, v.Len()) // whether it was come to
	type step struct {
		heading, next int
		below         []int
	}
	for root := range v.Len() {
		if state[root] {
			continue
		}
		state[root] = true
		path := []step{{root, 0, v.Narrower(root)}}
		for len(path) > 0 {
			at := &path[len(path)-1]
			if at.next < len(at.below) {
				below := at.below[at.next]
				at.next++
				if !state[below] {
					state[below] = true
					path = append(path, step{below, 0, v.Narrower(below)})
				}
				continue
			}
			if ctx.Err() != nil {
				return nil, ctx.Err()
			}
			key := v.Label(at.heading)
			b := branch{roaring.New(), roaring.New()}
			if l.Set.Index != nil {
				b.records = l.Set.Index.Labelled(key)
			}
			if l.Keys.Index != nil {
				b.keys = l.Keys.Index.Labelled(key)
			}
			for _, below := range at.below {
				if of, ok := out[below]; ok {
					b.records.Or(of.records)
					b.keys.Or(of.keys)
				}
			}
			if !b.records.IsEmpty() || !b.keys.IsEmpty() {
				out[at.heading] = b
			}
			path = path[:len(path)-1]
		}
	}
	return out, nil
}

const (
	mostProposed  = 8
	leastCovering = 0.01 // of a sample, that a proposal covers
	mostCovering  = 0.9  // of the contrast: what covers all of it says nothing
)

// Propose returns the headings that a sample, set against a contrast, and the key studies point to; mined are the key
// studies that may be looked into, nil for all.
func (l Look) Propose(ctx context.Context, sample, contrast, mined *roaring.Bitmap) (*Proposed, error) {
	v := l.Set.Thesaurus
	all, err := l.branches(ctx)
	if err != nil {
		return nil, err
	}
	out := &Proposed{Sample: []Covering{}, Keys: []Covering{}, Shared: []Covering{}}
	studies := roaring.New()
	if l.Keys.Index != nil {
		studies = l.Keys.All()
		if mined != nil {
			studies.And(mined)
		}
		if l.Aside != nil {
			studies.AndNot(l.Aside)
		}
	}
	out.Indexed = int(studies.GetCardinality() - studies.AndCardinality(l.Keys.Index.Unindexed()))
	n, of := int(sample.GetCardinality()), int(contrast.GetCardinality())
	measure := func(h int, b branch) Covering {
		c := Covering{
			Label:   v.Label(h),
			Key:     text.Label(v.Label(h)),
			Records: int(b.records.AndCardinality(sample)),
			Keys:    int(b.keys.AndCardinality(studies)),
			Below:   len(v.Below(h)) - 1,
		}
		other := int(b.records.AndCardinality(contrast))
		if n > 0 {
			c.Share = tally.Round(float64(c.Records) / float64(n))
		}
		if n > 0 && of > 0 {
			c.Lift, c.Pull = tally.Round(tally.Lift(c.Records, n, other, of)), tally.Round(tally.Pull(c.Records, n, other, of))
			if float64(other) > mostCovering*float64(of) {
				c.Pull = 0
			}
		}
		return c
	}
	for h := range v.Len() {
		b, ok := all[h]
		if !ok {
			continue
		}
		c := measure(h, b)
		if c.Pull > 0 && float64(c.Records) >= leastCovering*float64(n) {
			out.Sample = append(out.Sample, c)
		}
		if c.Keys > 1 {
			out.Keys = append(out.Keys, c)
		}
		if own := int(l.ownKeys(v.Label(h), studies)); own > 1 {
			s := c
			s.Keys = own
			out.Shared = append(out.Shared, s)
		}
	}
	first := func(list []Covering, by func(a, b Covering) int) []Covering {
		slices.SortStableFunc(list, func(a, b Covering) int { return cmp.Or(by(a, b), cmp.Compare(a.Label, b.Label)) })
		return list[:min(len(list), mostProposed)]
	}
	out.Sample = first(
		out.Sample,
		func(a, b Covering) int { return cmp.Or(cmp.Compare(b.Pull, a.Pull), cmp.Compare(a.Below, b.Below)) },
	)
	out.Shared = first(
		out.Shared,
		func(a, b Covering) int { return cmp.Or(cmp.Compare(b.Keys, a.Keys), cmp.Compare(a.Records, b.Records)) },
	)
	out.Keys = cheapest(out.Keys)
	return out, nil
}

func (l Look) ownKeys(label string, studies *roaring.Bitmap) uint64 {
	if l.Keys.Index == nil {
		return 0
	}
	return l.Keys.Index.Labelled(label).AndCardinality(studies)
}

// cheapest keeps the headings that catch more key studies than all that find fewer records, those of fewest records
// first. Of very many those that catch most stay.
func cheapest(all []Covering) []Covering {
	slices.SortStableFunc(all, func(a, b Covering) int {
		return cmp.Or(
			cmp.Compare(a.Records, b.Records),
			cmp.Compare(b.Keys, a.Keys),
			cmp.Compare(a.Below, b.Below),
			cmp.Compare(a.Label, b.Label),
		)
	})
	out := []Covering{}
	for _, c := range all {
		if len(out) == 0 || c.Keys > out[len(out)-1].Keys {
			out = append(out, c)
		}
	}
	return out[max(0, len(out)-mostProposed):]
}
