package demo

import (
	"fmt"
	"math/rand/v2"
)

// figures are the numbers of one study. They agree with each other: parts add up to the whole, shares are
// those of the counts, and an estimate lies inside its interval.
type figures map[string]string

func newFigures(r *rand.Rand, n, months int) figures {
	whole := func(v int) string { return fmt.Sprint(v) }
	one := func(v float64) string { return fmt.Sprintf("%.1f", v) }
	two := func(v float64) string { return fmt.Sprintf("%.2f", v) }
	k := 2 + r.IntN(max(1, n*6/10))
	lost := 1 + r.IntN(max(1, n/6))
	share := float64(k) / float64(n)
	// Wide enough for the size of the study: half a width of about one over the root of n.
	wide := 1 / float64(intRoot(n))
	high := 12 + 70*r.Float64()
	ratio := 0.35 + 0.6*r.Float64()
	est := 1.1 + 2.6*r.Float64()
	f := figures{
		"n": whole(n), "k": whole(k), "twok": whole(2 * k), "lost": whole(lost), "left": whole(n - lost),
		"half": whole(n / 2), "otherhalf": whole(n - n/2), "women": whole(n * (15 + r.IntN(70)) / 100),
		"invited": whole(n + 1 + r.IntN(n)), "sites": whole(2 + r.IntN(max(1, min(40, n/8)))),
		"kpct": one(100 * share), "kpctlo": one(100 * max(0.001, share-wide)), "kpcthi": one(100 * min(0.999, share+wide)),
		"high": one(
			high,
		), "low": one(high * ratio), "rr": two(ratio), "rrlo": two(ratio * (0.6 + 0.3*r.Float64())),
		"rrhi": two(ratio * (1.1 + 0.5*r.Float64())),
		"est":  two(est), "estlo": two(est * (0.55 + 0.35*r.Float64())), "esthi": two(est * (1.15 + 0.7*r.Float64())),
		"age": one(
			19 + 45*r.Float64(),
		), "step": one(1 + 22*r.Float64()), "money": whole(30 + r.IntN(4000)), "months": whole(months),
	}
	return f
}

func intRoot(n int) int {
	k := 1
	for (k+1)*(k+1) <= n {
		k++
	}
	return k
}
