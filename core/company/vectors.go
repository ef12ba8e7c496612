package company

import (
	"encoding/binary"
	"iter"
	"math"
)

// contexts are the words beside each item and how often each stands there, packed: ascending, each as its distance from the one
// before, in a varint whose last bit says that a number above one follows. Of a sample of 50,000 records there are tens of millions,
// at two to three bytes.
type contexts struct {
	packed []byte
	ends   []uint64 // where those of each item end
}

// of returns those of an item; see next.
func (x *contexts) of(item int) []byte {
	from := uint64(0)
	if item > 0 {
		from = x.ends[item-1]
	}
	return x.packed[from:x.ends[item]]
}

// put adds a word to the item that is written just now, last being the one before it.
func (x *contexts) put(word, last, times int32) {
	step := uint64(word-last) << 1
	if times == 1 {
		x.packed = binary.AppendUvarint(x.packed, step)
		return
	}
	x.packed = binary.AppendUvarint(x.packed, step|1)
	x.packed = binary.AppendUvarint(x.packed, uint64(times))
}

// end ends an item.
func (x *contexts) end() { x.ends = append(x.ends, uint64(len(x.packed))) }

// next returns how far on the next word is, how often it stands there, and what is left.
func next(b []byte) (step, times int32, rest []byte) {
	if b[0] < 0x80 && b[0]&1 == 0 {
		return int32(b[0] >> 1), 1, b[1:]
	}
	s, n := binary.Uvarint(b)
	b, times = b[n:], 1
	if s&1 != 0 {
		t, n := binary.Uvarint(b)
		b, times = b[n:], int32(t)
	}
	return int32(s >> 1), times, b
}

// counted goes through the contexts of an item: words, and how often each stands there.
func (x *contexts) counted(item int) iter.Seq2[int32, int32] {
	return func(yield func(word, times int32) bool) {
		word := int32(0)
		for b := x.of(item); len(b) > 0; {
			var step, times int32
			step, times, b = next(b)
			if word += step; !yield(word, times) {
				return
			}
		}
	}
}

// vector goes through the vector of an item: words, and the weight of each.
func (c *Company) vector(item int) iter.Seq2[int32, float64] {
	return func(yield func(word int32, weight float64) bool) {
		seldom, word := c.seldom[item], int32(0)
		for b := c.contexts.of(item); len(b) > 0; {
			var step, times int32
			step, times, b = next(b)
			if word += step; !yield(word, logOf(times)+seldom+c.telling[word]) {
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
