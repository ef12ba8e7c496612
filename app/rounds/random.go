package rounds

import (
	"cmp"
	"encoding/binary"
	"hash/fnv"
	"slices"

	"tamiz/core/cite"
)

// Works are read at random in an order that does not change: each has its place by its number and that of the
// review, whatever is known of it. So those at its beginning, as far as all of them are judged, are a sample of all
// at random, however and in whichever order they were judged.

// chance is where a work stands in that order.
func chance(w Work, review int64) uint64 {
	h := fnv.New64a()
	var b [16]byte
	binary.BigEndian.PutUint64(b[:8], uint64(review))
	binary.BigEndian.PutUint64(b[8:], uint64(w.Record.ID))
	_, _ = h.Write(b[:]) // never fails
	// numbers beside each other come out alike in their upper bits: mixed once more (Steele et al. 2014)
	x := h.Sum64()
	x ^= x >> 30
	x *= 0xbf58476d1ce4e5b9
	x ^= x >> 27
	x *= 0x94d049bb133111eb
	return x ^ x>>31
}

func atRandom(works []Work, review int64) {
	slices.SortFunc(works, func(a, b Work) int {
		return cmp.Or(cmp.Compare(chance(a, review), chance(b, review)), cmp.Compare(a.Record.ID, b.Record.ID))
	})
}

// Left is how many works that belong are left among those that nobody judged.
type Left struct {
	Works  int     `json:"works"` // that rounds brought newly
	Open   int     `json:"open"`  // of them nobody judged
	Read   int     `json:"read"`  // at random
	Belong int     `json:"belong"`
	Total  float64 `json:"total"`
	Low    float64 `json:"low"`
	High   float64 `json:"high"`
	Few    bool    `json:"few"` // too few were read at random to say anything
}

// left reads off how many works that belong are left; nil where rounds brought nothing new. taken are key studies
// that came by rounds: others were known before.
func (v *view) left(review int64, taken map[int64]bool) *Left {
	works := slices.DeleteFunc(slices.Clone(v.shown), func(w Work) bool { return v.before(w, taken) })
	if len(works) == 0 {
		return nil
	}
	atRandom(works, review)
	out := &Left{Works: len(works)}
	known, reading := 0, true
	for _, w := range works {
		belongs := w.Verdict == isKey || w.Verdict == relevant
		if belongs {
			known++
		}
		if w.Verdict == "" {
			out.Open++
			reading = false
		}
		if reading {
			if out.Read++; belongs {
				out.Belong++
			}
		}
	}
	l, ok := cite.Remaining(out.Works, out.Read, out.Belong, known)
	out.Few = !ok
	if ok {
		open := float64(out.Open)
		out.Total, out.Low, out.High = min(l.Total, open), min(l.Low, open), min(l.High, open)
	}
	return out
}
