package company

import (
	"iter"
	"math"

	"tamiz/core/postings"
)

// contexts are the words beside each item and how often each stands there, packed (see package postings). Of a sample of 50,000 records there are tens of millions,
// at two to three bytes.
type contexts struct {
	packed []byte
	ends   []uint64 // where those of each item end
}

// of returns those of an item.
func (x *contexts) of(item int) []byte {
	from := uint64(0)
	if item > 0 {
		from = x.ends[item-1]
	}
	return x.packed[from:x.ends[item]]
}

// put adds a word to the item that is written just now, last being the one before it.
func (x *contexts) put(word, last, times int32) {
	x.packed = postings.Append(x.packed, uint32(word-last), times)
}

// end ends an item.
func (x *contexts) end() { x.ends = append(x.ends, uint64(len(x.packed))) }

// counted goes through the contexts of an item: words, and how often each stands there.
func (x *contexts) counted(item int) iter.Seq2[int32, int32] {
	return func(yield func(word, times int32) bool) {
		word := int32(0)
		for b := x.of(item); len(b) > 0; {
			var step uint32
			var times int32
			step, times, b = postings.Next(b)
			if word += int32(step); !yield(word, times) {
				return
			}
		}
	}
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
