package coverage

import "math"

// Wilson returns the 95 % interval for x of n: the score interval of Wilson 1927, "Probable inference,
// the law of succession, and statistical inference", at z = 1.96. Without any n it is the whole range.
func Wilson(x, n int) (low, high float64) {
	if n == 0 {
		return 0, 1
	}
	const z = 1.96
	k, m := float64(x), float64(n)
	centre := (k + z*z/2) / (m + z*z)
	half := z / (m + z*z) * math.Sqrt(k*(m-k)/m+z*z/4)
	return max(0, centre-half), min(1, centre+half)
}
