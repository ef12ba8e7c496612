package figures

import (
	"context"

	"tamiz/app/desk"
	"tamiz/core/heading"
	"tamiz/core/tally"
)

// A HeadingTree is the headings of a vocabulary as they stand in it, those that carry records of what is
// looked at: each below its broader one, so one that stands in several places comes several times.
type HeadingTree struct {
	Records int           `json:"records"` // that are looked at
	Nodes   []HeadingNode `json:"nodes"`
	Cut     bool          `json:"cut"` // there are more than are told
}

// A HeadingNode is a heading at one of its places, in the order of the tree.
type HeadingNode struct {
	Label        string `json:"label"`
	Depth        int    `json:"depth"`
	Records      int    `json:"records"`
	WithNarrower int    `json:"withNarrower"`
	Keys         int    `json:"keys"`
	Headings     int    `json:"headings"`         // below it, that carry records
	Spread       bool   `json:"spread,omitempty"` // holds much in many small headings
}

const (
	mostNodes = 5000
	mostDepth = 60
)

// HeadingTree lays the headings of what is looked at into their tree. Without a vocabulary there is none.
func (a *Service) HeadingTree(ctx context.Context, at desk.At) (*HeadingTree, error) {
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	v := d.Pool.Thesaurus
	out := &HeadingTree{Records: int(d.Look.Sample.GetCardinality()), Nodes: []HeadingNode{}}
	if v == nil {
		return out, nil
	}
	rows := map[string]*tally.Row{}
	counted, err := d.Pool.Tally(ctx, d.Look, tally.Headings, d.Keys)
	if err != nil {
		return nil, err
	}
	for i := range counted.Rows {
		rows[desk.ItemKey(tally.Headings, counted.Rows[i].Item, nil)] = &counted.Rows[i]
	}
	// What a branch holds does not depend on the place it is come to from.
	type branch struct{ records, withNarrower, keys, headings, largest int }
	known := map[int]branch{}
	weigh := func(h int) branch {
		if b, ok := known[h]; ok {
			return b
		}
		var b branch
		for _, below := range v.Below(h) {
			r := rows[desk.ItemKey(tally.Headings, v.Label(below), nil)]
			if r == nil {
				continue
			}
			if below == h {
				b.records, b.keys, b.withNarrower = r.Records, r.Keys, r.WithNarrower
				continue
			}
			b.headings++
			b.largest = max(b.largest, r.Records)
		}
		if b.withNarrower == 0 && b.headings > 0 {
			b.withNarrower = int(d.Look.Narrower(desk.ItemKey(tally.Headings, v.Label(h), nil)).AndCardinality(d.Look.Sample))
		}
		known[h] = b
		return b
	}
	var walk func(h, depth int)
	walk = func(h, depth int) {
		b := weigh(h)
		if b.withNarrower == 0 || depth > mostDepth {
			return
		}
		if len(out.Nodes) == mostNodes {
			out.Cut = true
			return
		}
		n := HeadingNode{
			Label:        v.Label(h),
			Depth:        depth,
			Records:      b.records,
			WithNarrower: b.withNarrower,
			Keys:         b.keys,
			Headings:     b.headings,
		}
		n.Spread = heading.Spread(b.withNarrower, b.headings, max(b.largest, b.records), out.Records)
		out.Nodes = append(out.Nodes, n)
		for _, below := range v.Narrower(h) {
			walk(below, depth+1)
		}
	}
	for h := range v.Len() {
		if len(v.Broader(h)) == 0 {
			walk(h, 0)
		}
	}
	return out, nil
}
