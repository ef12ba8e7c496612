package coverage

import "math"

// An Estimate of how many there are in all.
type Estimate struct {
	Total     float64
	Low, High float64 // 95 % interval; Low is no less than what is known
}

// Chapman estimates how many relevant records there are in all from those in two sources and those in
// both: Chapman 1951, "Some properties of the hypergeometric distribution with applications to zoological
// sample censuses", with the variance of Seber 1970. It holds for sources that are independent of
// each other, which literature sources are not: they find the same things easy, so that it is too low.
func Chapman(first, second, both int) Estimate {
	n1, n2, m := float64(first), float64(second), float64(both)
	e := Estimate{Total: (n1+1)*(n2+1)/(m+1) - 1}
	variance := (n1 + 1) * (n2 + 1) * (n1 - m) * (n2 - m) / ((m + 1) * (m + 1) * (m + 2))
	half := 1.96 * math.Sqrt(max(variance, 0))
	e.Low, e.High = max(e.Total-half, n1+n2-m), e.Total+half
	return e
}
