package coverage

import "math"

// An Estimate of how many there are in all.
type Estimate struct {
	Total     float64
	Low, High float64 // 95 % interval; Low is no less than what is known
}

// Chapman estimates how many relevant records there are in all from those in two sources and those in both: Chapman
// 1951, "Some properties of the hypergeometric distribution with applications to zoological sample censuses", with
// the transformed logit interval of Sadinle 2009, "Transformed logit confidence intervals for small populations in
// single capture-recapture estimation": of the four kinds of records (in both, in one alone, in neither) those in
// neither are the unknown, and half a record is laid to each of the known kinds. The lower end is never below all
// that is known. It holds for sources that are independent of each other, which literature sources are not: they
// find the same things easy, so that it is too low.
func Chapman(first, second, both int) Estimate {
	n1, n2, m := float64(first), float64(second), float64(both)
	e := Estimate{Total: (n1+1)*(n2+1)/(m+1) - 1}
	known := n1 + n2 - m
	// What both, the first alone, and the second alone hold, with half a record each.
	x, y, z := m+0.5, n1-m+0.5, n2-m+0.5
	spread := math.Sqrt(1/x + 1/y + 1/z + x/(y*z))
	e.Low = max(known, known-0.5+y*z/x*math.Exp(-z975*spread))
	e.High = max(e.Total, known-0.5+y*z/x*math.Exp(z975*spread))
	e.Low = min(e.Low, max(known, e.Total))
	return e
}

const z975 = 1.96

// AtLeast returns an estimate that is no lower than what is known in all, also of what neither way found.
func (e Estimate) AtLeast(known int) Estimate {
	n := float64(known)
	return Estimate{Total: max(e.Total, n), Low: max(e.Low, n), High: max(e.High, n)}
}

// leastBoth is from how many in both Chapman's estimate is nearly without bias (Seber 1982).
const leastBoth = 7

// FewBoth reports whether so few are in both that an estimate says little.
func FewBoth(both int) bool { return both < leastBoth }
