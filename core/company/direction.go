package company

import (
	"context"
	"math"

	"tamiz/core/strategy"
)

// A direction is the company that the terms of a block keep together: each term weighs the same, however many items it
// matches (measures.md §7). It is the sum of the items' vectors, each brought to length 1 and weighed.
type direction struct {
	members map[int]float64 // what each weighs
	sum     []float64
	squared float64
}

func (d direction) has(item int) bool {
	_, ok := d.members[item]
	return ok
}

func (c *Company) direction(ctx context.Context, b strategy.Block) (direction, error) {
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
		weight := 1 / c.lengthOf(matched, d.sum)
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
	for word, w := range c.vector(item) {
		sum[word] += weight * (w / c.length[item])
	}
}

// lengthOf returns how long the vectors of some items, each brought to length 1, are together; 1 where they keep no
// company. It works in what is given, which is empty before and after.
func (c *Company) lengthOf(items []int, empty []float64) float64 {
	for _, i := range items {
		c.lay(i, 1, empty)
	}
	squared := 0.0
	for _, i := range items {
		for at := range c.contexts.counted(i) {
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
	for word, w := range c.vector(t) {
		dot += w * b.sum[word]
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

// Toward returns how near each item, by its number, is to what some items keep company with: the cosine of its
// vector and the sum of theirs, each brought to length 1. What is no item has no part in it.
func (c *Company) Toward(items []string) func(item int) float64 {
	d := direction{sum: make([]float64, len(c.items))}
	for _, item := range items {
		if i, ok := c.place[item]; ok {
			c.lay(i, 1, d.sum)
		}
	}
	for _, x := range d.sum {
		d.squared += x * x
	}
	return func(item int) float64 { return c.cosine(item, d) }
}
