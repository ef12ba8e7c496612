package coverage

import (
	"math/rand/v2"

	"github.com/RoaringBitmap/roaring/v2"
)

// Halves splits n key studies at random into a build half, from which words may be mined, and a test
// half, on which recall alone is measured. The same seed gives the same halves. Of an odd number the
// build half has one more.
func Halves(n int, seed uint64) (build, test *roaring.Bitmap) {
	build, test = roaring.New(), roaring.New()
	for i, k := range rand.New(rand.NewPCG(seed, 0x74616d697a)).Perm(n) {
		if i < (n+1)/2 {
			build.Add(uint32(k))
		} else {
			test.Add(uint32(k))
		}
	}
	return build, test
}

// Few draws n records at random from a set, or all when it has no more, in a random order: to be judged
// by reading. The same seed draws the same.
func Few(set *roaring.Bitmap, n int, seed uint64) []uint32 {
	all := set.ToArray()
	r := rand.New(rand.NewPCG(seed, 0x6665770a))
	n = min(n, len(all))
	for i := range n {
		j := i + r.IntN(len(all)-i)
		all[i], all[j] = all[j], all[i]
	}
	return all[:n]
}

// A Judgement sums up what reading a few records showed.
type Judgement struct {
	Relevant, Not, Unsure int
	Share, Low, High      float64 // relevant / (relevant + not), with its interval
	ToRead                float64 // records to read for each relevant one: 1 / share; 0 when no record is relevant
	ToReadLow, ToReadHigh float64 // its interval; the high end is 0 when it has none
}

// Judge sums up judgements: 95 % intervals after Wilson 1927; the records to read for a relevant study
// are the share turned over.
func Judge(relevant, not, unsure int) Judgement {
	j := Judgement{Relevant: relevant, Not: not, Unsure: unsure}
	j.Low, j.High = Wilson(relevant, relevant+not)
	if relevant+not > 0 {
		j.Share = float64(relevant) / float64(relevant+not)
	}
	over := func(x float64) float64 {
		if x <= 0 {
			return 0
		}
		return 1 / x
	}
	j.ToRead, j.ToReadLow, j.ToReadHigh = over(j.Share), over(j.High), over(j.Low)
	return j
}
