package coverage

import "math"

// Wilson returns the 95 % interval for x of n: the score interval of Wilson 1927, "Probable inference,
// the law of succession, and statistical inference", at z = 1.96. Without any n it is the whole range.
func Wilson(x, n int) (low, high float64) {
	if n == 0 {
		return 0, 1
	}
	return WilsonShare(float64(x)/float64(n), float64(n))
}

// WilsonShare returns the same of a share that was seen over n records, whole or not: fewer than were read where
// some carry more than others, more where few are left.
func WilsonShare(p, n float64) (low, high float64) {
	const z = 1.96
	centre := (p*n + z*z/2) / (n + z*z)
	half := z / (n + z*z) * math.Sqrt(n*p*(1-p)+z*z/4)
	return min(p, max(0, centre-half)), max(p, min(1, centre+half))
}
