package company

import (
	"iter"
	"math"
	"slices"

	"tamiz/core/parallel"
	"tamiz/core/postings"
)

// contexts are the words beside each item and how often each stands there, packed (see package postings): of a
// sample of 50,000 records there are tens of millions, at two to three bytes. They are held in parts, so that none
// is ever copied to make room.
type contexts []part

// part is the contexts of partItems items that follow each other.
type part struct {
	packed []byte
	ends   []uint32 // where those of each item end
}

const partItems = 1024

// put adds a word to the item that is written just now, last being the one before it.
func (x *part) put(word, last, times int32) {
	x.packed = postings.Append(x.packed, uint32(word-last), times)
}

// end ends an item.
func (x *part) end() { x.ends = append(x.ends, uint32(len(x.packed))) }

// of returns those of an item of the part.
func (x *part) of(item int) []byte {
	from := uint32(0)
	if item > 0 {
		from = x.ends[item-1]
	}
	return x.packed[from:x.ends[item]]
}

// newContexts has the contexts of so many items made, part by part, on all cores.
func newContexts(items int, make func(from, to int) part) contexts {
	out := slices.Grow(contexts{}, (items+partItems-1)/partItems)[:(items+partItems-1)/partItems]
	parallel.All(len(out), func(n int) {
		p := make(n*partItems, min((n+1)*partItems, items))
		out[n] = part{slices.Clip(slices.Clone(p.packed)), p.ends}
	})
	return out
}

// counted goes through the contexts of an item: words, and how often each stands there.
func (x contexts) counted(item int) iter.Seq2[int32, int32] {
	return func(yield func(word, times int32) bool) {
		word := int32(0)
		for b := x[item/partItems].of(item % partItems); len(b) > 0; {
			var step uint32
			var times int32
			step, times, b = postings.Next(b)
			if word += int32(step); !yield(word, times) {
				return
			}
		}
	}
}

// bytes returns how much memory they take.
func (x contexts) bytes() (n int64) {
	for _, p := range x {
		n += int64(cap(p.packed) + 4*cap(p.ends))
	}
	return n
}

// vector goes through the vector of an item: words, and the weight of each.
func (c *Company) vector(item int) iter.Seq2[int32, float64] {
	return func(yield func(word int32, weight float64) bool) {
		seldom := c.seldom[item]
		for word, times := range c.contexts.counted(item) {
			if !yield(word, logOf(times)+seldom+c.telling[word]) {
				return
			}
		}
	}
}

// logs are the natural logarithms of small numbers.
var logs = func() (out [1024]float64) {
	for n := range out {
		out[n] = math.Log(float64(n))
	}
	return out
}()

func logOf(n int32) float64 {
	if int(n) < len(logs) {
		return logs[n]
	}
	return math.Log(float64(n))
}
