package company

import (
	"context"
	"math"
	"slices"

	"tamiz/core/strategy"
)

// A Way is how the company that the terms of a block keep is put together.
type Way int

const (
	// ByItem lets each item that a term matches weigh the same (measures.md §7).
	ByItem Way = iota
	// ByTerm lets each term weigh the same, however many items it matches, and a phrase fit a block no better than the word
	// that leads it (beyond.md).
	ByTerm
)

// A direction is the company that the items which a block's terms match keep together: the sum of their vectors, each
// brought to length 1 and weighed.
type direction struct {
	members map[int]float64 // what each weighs
	sum     []float64
	squared float64
}

func (d direction) has(item int) bool {
	_, ok := d.members[item]
	return ok
}

func (c *Company) direction(ctx context.Context, b strategy.Block, way Way) (direction, error) {
	d := direction{members: map[int]float64{}, sum: make([]float64, len(c.items))}
	for _, term := range b.Terms {
		if !term.On || term.Kind == strategy.HeadingTerm {
			continue
		}
		if ctx.Err() != nil {
			return d, ctx.Err()
		}
		q, err := term.Query()
		if err != nil {
			return d, err
		}
		matched := c.matched(q.(matcher))
		if way == ByItem {
			matched = slices.DeleteFunc(matched, d.has)
		}
		weight := 1.0
		if way == ByTerm {
			weight = 1 / c.lengthOf(matched, d.sum)
		}
		for _, i := range matched {
			d.members[i] += weight
		}
	}
	for i := range c.items { // in order, so that sums do not depend on chance
		if d.has(i) {
			c.lay(i, d.members[i], d.sum)
		}
	}
	for _, x := range d.sum {
		d.squared += x * x
	}
	return d, nil
}

// lay adds the vector of an item, brought to length 1 and weighed, to a sum.
func (c *Company) lay(item int, weight float64, sum []float64) {
	if c.length[item] == 0 {
		return
	}
	for k := c.begins[item]; k < c.begins[item+1]; k++ {
		sum[c.contexts[k]] += weight * (c.weights[k] / c.length[item])
	}
}

// lengthOf returns how long the vectors of some items, each brought to length 1, are together; 1 where they keep no company.
// It works in what is given, which is empty before and after.
func (c *Company) lengthOf(items []int, empty []float64) float64 {
	for _, i := range items {
		c.lay(i, 1, empty)
	}
	squared := 0.0
	for _, i := range items {
		for _, at := range c.contexts[c.begins[i]:c.begins[i+1]] {
			squared += empty[at] * empty[at]
			empty[at] = 0
		}
	}
	if squared == 0 {
		return 1
	}
	return math.Sqrt(squared)
}

// cosine leaves the item itself out of what the block's items keep company with.
func (c *Company) cosine(t int, b direction) float64 {
	if c.length[t] == 0 {
		return 0
	}
	dot := 0.0
	for k := c.begins[t]; k < c.begins[t+1]; k++ {
		dot += c.weights[k] * b.sum[c.contexts[k]]
	}
	dot /= c.length[t] // with the item's vector at length 1
	squared := b.squared
	if w, ok := b.members[t]; ok {
		if len(b.members) == 1 {
			return 0
		}
		squared += w*w - 2*w*dot
		dot -= w
	}
	if squared < 1e-9 {
		return 0
	}
	return dot / math.Sqrt(squared)
}
