// Package overlap tells how the answers of several sources stand to each other: how many works they hold together, what
// each brings that no other does, and what two share. An answer that was not fetched whole is known by records
// drawn from it at random; what follows from those is an estimate with its interval.
package overlap

import (
	"cmp"
	"math"
	"slices"

	"tamiz/core/coverage"
)

// An Answer is what one source finds.
type Answer struct {
	Records int   // in all, as the source counts them
	Works   []int // the works of those that were fetched, each once; one work has one number in every answer
}

// whole reports whether all of an answer was fetched.
func (a Answer) whole() bool { return len(a.Works) >= a.Records }

// size returns how many works an answer holds: one that was fetched whole holds those, since a source may list one
// twice.
func (a Answer) size() float64 {
	if a.whole() {
		return float64(len(a.Works))
	}
	return float64(a.Records)
}

// fetched returns the share of an answer that was.
func (a Answer) fetched() float64 {
	if a.whole() {
		return 1
	}
	return float64(len(a.Works)) / float64(a.Records)
}

// A Figure is a number of works with its 95 % interval; the ends are equal where it was counted.
type Figure struct{ Works, Low, High float64 }

// An Overlap is how answers stand to each other, in their order.
type Overlap struct {
	Together Figure
	Only     []Figure   // in this answer and in no other
	Both     [][]Figure // in two of them; in one and itself: its size
}

// Of works it out: numbers of works from one model of who holds what, so that they agree with each other and with
// the counts; intervals from what was drawn. A drawn record that is found among the f-th part of another answer
// that was fetched stands for 1/f (Horvitz and Thompson 1952); that it is in none of the others is the product of
// what is left of 1, since answers are drawn independently. Intervals are those of Wilson 1927 for as many records
// as carry as much (Kish 1965), and are put together as Zou and Donner 2008 do for sums; they hold the number that
// the model says, and nothing that what was seen rules out. A source of which nothing was fetched shares nothing
// that is known: it is taken for disjoint, and the interval says what else is possible.
func Of(answers []Answer) Overlap {
	o := Overlap{Only: make([]Figure, len(answers)), Both: make([][]Figure, len(answers))}
	held := make([]map[int]bool, len(answers))
	sizes := make([]float64, len(answers))
	in := map[int]int{} // of each work that was seen, in how many answers
	for i, a := range answers {
		held[i] = make(map[int]bool, len(a.Works))
		sizes[i] = a.size()
		for _, w := range a.Works {
			if !held[i][w] {
				held[i][w] = true
				in[w]++
			}
		}
	}
	m := fitted(answers).wholeWorks(sizes)
	// beside estimates how many works of an answer are in none of some others.
	beside := func(i int, others []int) Figure {
		least := 1.0
		for _, j := range others {
			least = min(least, answers[j].fetched())
		}
		return of(answers[i], least, func(w int) float64 {
			x := 1.0
			for _, j := range others {
				if held[j][w] {
					x *= 1 - 1/answers[j].fetched()
				}
			}
			return x
		})
	}
	for i, a := range answers {
		several := 0 // of its works that were seen elsewhere too
		for w := range held[i] {
			if in[w] > 1 {
				several++
			}
		}
		works := m.sum(func(p pattern) bool { return p == 1<<i })
		o.Only[i] = beside(i, without(len(answers), i)).holding(works, 0, a.size()-float64(several))
		o.Both[i] = make([]Figure, len(answers))
		for j := range answers {
			switch {
			case i == j:
				o.Both[i][j] = exactly(a.size())
			case j < i:
				o.Both[i][j] = o.Both[j][i]
			default:
				seen := 0.0
				for w := range held[i] {
					if held[j][w] {
						seen++
					}
				}
				works := m.sum(func(p pattern) bool { return p&(1<<i) != 0 && p&(1<<j) != 0 })
				o.Both[i][j] = both(answers, held, i, j).holding(works, seen, min(a.size(), answers[j].size()))
			}
		}
	}
	// Those that are known best come first: what is known of the others is what they add to them.
	order := without(len(answers), -1)
	slices.SortStableFunc(order, func(a, b int) int {
		return cmp.Compare(answers[b].fetched(), answers[a].fetched())
	})
	var works, below, above, most, sum float64
	for n, i := range order {
		f := beside(i, order[:n])
		works += f.Works
		below += (f.Works - f.Low) * (f.Works - f.Low)
		above += (f.High - f.Works) * (f.High - f.Works)
		most = max(most, sizes[i])
		sum += sizes[i]
	}
	again := 0.0 // works that were seen in a further answer
	for _, n := range in {
		again += float64(n - 1)
	}
	works = min(max(works, most), sum)
	o.Together = Figure{works, works - math.Sqrt(below), works + math.Sqrt(above)}.
		holding(m.sum(func(pattern) bool { return true }), max(most, float64(len(in))), sum-again)
	return o
}

// holding returns a figure with the works that the model says; its interval holds them, and ends where what was
// seen ends it.
func (f Figure) holding(works, least, most float64) Figure {
	return Figure{works, min(works, max(f.Low, least)), max(works, min(f.High, most))}
}

// both estimates how many works two answers share, from the records of the one that was fetched to the larger part.
func both(answers []Answer, held []map[int]bool, i, j int) Figure {
	if answers[j].fetched() > answers[i].fetched() {
		i, j = j, i
	}
	f := answers[j].fetched()
	// Each record of the other stands for 1/f of its own.
	found := of(answers[i], f, func(w int) float64 {
		if held[j][w] {
			return 1 / f
		}
		return 0
	})
	most := min(answers[i].size(), answers[j].size())
	return Figure{min(found.Works, most), min(found.Low, most), min(found.High, most)}
}

// of estimates the sum of x over the works of an answer from those that were fetched; least is the smallest part of the
// answers that x was looked up in.
func of(a Answer, least float64, x func(work int) float64) Figure {
	n, size := float64(len(a.Works)), a.size()
	if size == 0 {
		return Figure{}
	}
	if n == 0 || least == 0 {
		return Figure{size, 0, size}
	}
	var sum, squares float64
	for _, w := range a.Works {
		v := x(w)
		sum += v
		squares += v * v
	}
	mean := sum / n
	if a.whole() && least == 1 {
		return exactly(sum)
	}
	p := min(max(mean, 0), 1)
	// What a record tells beside one of whom it is known for sure.
	carries := least
	if spread := squares/n - mean*mean; spread > 0 {
		carries = min(1, p*(1-p)/spread)
		carries = max(carries, min(least, 1/n))
	}
	low, high := coverage.WilsonShare(p, n*carries)
	return Figure{size * p, size * low, size * high}
}

func exactly(n float64) Figure { return Figure{n, n, n} }

// without returns the numbers below n but one.
func without(n, but int) (out []int) {
	for i := range n {
		if i != but {
			out = append(out, i)
		}
	}
	return out
}
