package coverage

import (
	"cmp"
	"math/rand/v2"
	"slices"

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

// Few draws n of some records at random, or all when there are no more, in a random order: to be judged by reading. The
// same seed draws the same; more are drawn after those that fewer are, and others that come into the set or leave it
// change nothing of the rest.
func Few(records []int64, n int, seed uint64) []int64 {
	lot := func(record int64) uint64 { // SplitMix64: Steele, Lea and Flood 2014
		x := seed + uint64(record)*0x9e3779b97f4a7c15
		x = (x ^ x>>30) * 0xbf58476d1ce4e5b9
		x = (x ^ x>>27) * 0x94d049bb133111eb
		return x ^ x>>31
	}
	all := slices.Clone(records)
	slices.SortFunc(all, func(a, b int64) int { return cmp.Or(cmp.Compare(lot(a), lot(b)), cmp.Compare(a, b)) })
	return all[:min(n, len(all))]
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
