package overlap

import (
	"math"
	"slices"
)

// A pattern is the answers that hold a work, by their places.
type pattern = uint64

// mostAnswers is how many answers patterns are made of; of further ones nothing is known.
const mostAnswers = 60

// Bounds of working out.
const (
	allPatterns = 10         // answers of which every pattern is looked at
	steps       = 20_000     // of the estimate, at most
	effort      = 60_000_000 // patterns looked at, over all steps
	close       = 1e-9       // a step that changes less, of the largest pattern, is the last
)

// A model is how many works there are of each pattern. All figures are sums over it, so that they agree with each
// other, and with how many works each answer holds.
type model map[pattern]float64

// fitted estimates the model from what was drawn. Each work of a pattern is seen in each of its answers with the
// share of that answer that was drawn, independently; the numbers of works are those that make what was seen most
// likely (expectation and maximisation, Dempster, Laird and Rubin 1977), fitted after each step to how many works
// each answer holds (Deming and Stephan 1940). Where all answers are known whole it is a count. An answer of which
// nothing was drawn is taken for disjoint.
func fitted(answers []Answer) model {
	out := model{}
	var known []int // the answers of which something was drawn
	for i, a := range answers {
		switch {
		case len(a.Works) > 0 && len(known) < mostAnswers:
			known = append(known, i)
		case a.size() > 0 && i < 64:
			out[1<<i] = a.size()
		}
	}
	seen, whole := observed(answers, known)
	if whole {
		for p, n := range seen {
			out[spread(p, known)] += n
		}
		return out
	}
	e := estimator{share: make([]float64, len(known)), size: make([]float64, len(known)), seen: seen}
	for n, i := range known {
		e.share[n], e.size[n] = answers[i].fetched(), answers[i].size()
	}
	e.begin()
	e.run()
	for n, p := range e.patterns {
		out[spread(p, known)] += e.works[n]
	}
	return out
}

// spread returns a pattern of the known answers as one of all.
func spread(p pattern, known []int) (out pattern) {
	for n, i := range known {
		if p&(1<<n) != 0 {
			out |= 1 << i
		}
	}
	return out
}

// observed returns how many works were seen in just these answers, and whether all answers are known whole.
func observed(answers []Answer, known []int) (seen map[pattern]float64, whole bool) {
	in := map[int]pattern{}
	whole = true
	for n, i := range known {
		whole = whole && answers[i].whole()
		for _, w := range answers[i].Works {
			in[w] |= 1 << n
		}
	}
	seen = map[pattern]float64{}
	for _, p := range in {
		seen[p]++
	}
	return seen, whole
}

type estimator struct {
	share, size []float64 // of each answer: how much of it was drawn, and how many works it holds
	seen        map[pattern]float64
	patterns    []pattern
	works       []float64 // of each pattern
	missed      []float64 // the share of each pattern that is seen nowhere
	cases       []seenAs
}

// A seenAs is what was seen in just some answers, and which patterns it may be of, with the chance that each is
// seen so.
type seenAs struct {
	count  float64
	of     []int
	chance []float64
}

// begin lists the patterns that there may be, and begins with each as large as the others.
func (e *estimator) begin() {
	k := len(e.share)
	var all []pattern
	if k <= allPatterns {
		for p := pattern(1); p < 1<<k; p++ {
			all = append(all, p)
		}
	} else {
		for i := range k {
			for j := i; j < k; j++ {
				all = append(all, 1<<i|1<<j)
			}
		}
		for o := range e.seen {
			for j := range k {
				all = append(all, o|1<<j)
			}
		}
		slices.Sort(all)
		all = slices.Compact(all)
	}
	at := map[pattern]int{}
	seenIn := make([]pattern, 0, len(e.seen))
	for o := range e.seen {
		seenIn = append(seenIn, o)
	}
	slices.Sort(seenIn)
	e.cases = make([]seenAs, len(seenIn))
	for n, o := range seenIn {
		at[o] = n
		e.cases[n].count = e.seen[o]
	}
	for _, p := range all {
		if e.never(p) {
			continue
		}
		n := len(e.patterns)
		e.patterns = append(e.patterns, p)
		e.missed = append(e.missed, e.chance(p, 0))
		for m, o := range seenIn {
			if o&^p == 0 {
				if c := e.chance(p, o); c > 0 {
					e.cases[m].of, e.cases[m].chance = append(e.cases[m].of, n), append(e.cases[m].chance, c)
				}
			}
		}
	}
	e.works = make([]float64, len(e.patterns))
	for n := range e.works {
		e.works[n] = 1
	}
	e.fit()
}

// never reports whether there can be no work of a pattern: of answers that are known whole it would have been seen
// in just these.
func (e *estimator) never(p pattern) bool {
	var sure pattern
	for i, f := range e.share {
		if f == 1 {
			sure |= 1 << i
		}
	}
	if p&sure == 0 {
		return false
	}
	for o := range e.seen {
		if o&sure == p&sure {
			return false
		}
	}
	return true
}

// chance is how likely a work of a pattern is seen in just these answers.
func (e *estimator) chance(p, seen pattern) float64 {
	c := 1.0
	for i, f := range e.share {
		switch {
		case p&(1<<i) == 0:
		case seen&(1<<i) != 0:
			c *= f
		default:
			c *= 1 - f
		}
	}
	return c
}

func (e *estimator) run() {
	per := 0
	for _, c := range e.cases {
		per += len(c.of)
	}
	per += len(e.patterns) * (len(e.share) + 1)
	most := min(steps, effort/max(1, per))
	for range most {
		before := slices.Clone(e.works)
		e.step()
		e.fit()
		moved, largest := 0.0, 0.0
		for n, w := range e.works {
			moved, largest = max(moved, math.Abs(w-before[n])), max(largest, w)
		}
		if moved <= close*largest {
			return
		}
	}
}

// step gives what was seen to the patterns that it may be of, as much as they are likely.
func (e *estimator) step() {
	next := make([]float64, len(e.works))
	for n, w := range e.works {
		next[n] = w * e.missed[n]
	}
	for _, c := range e.cases {
		sum := 0.0
		for k, n := range c.of {
			sum += e.works[n] * c.chance[k]
		}
		if sum == 0 {
			continue
		}
		for k, n := range c.of {
			next[n] += c.count * e.works[n] * c.chance[k] / sum
		}
	}
	e.works = next
}

// fit brings each answer to as many works as it holds.
func (e *estimator) fit() {
	for range 3 {
		for i, size := range e.size {
			sum := 0.0
			for n, p := range e.patterns {
				if p&(1<<i) != 0 {
					sum += e.works[n]
				}
			}
			if sum == 0 {
				continue
			}
			for n, p := range e.patterns {
				if p&(1<<i) != 0 {
					e.works[n] *= size / sum
				}
			}
		}
	}
}

// wholeWorks returns the model in whole works: what several answers hold rounded, and what one alone holds as what
// is left of it, so that figures still add up when they are read.
func (m model) wholeWorks(sizes []float64) model {
	shared := make([]pattern, 0, len(m))
	for p := range m {
		if p&(p-1) != 0 {
			shared = append(shared, p)
		}
	}
	// Those nearest to the next whole number are rounded up first.
	slices.SortFunc(shared, func(a, b pattern) int {
		fa, fb := m[a]-math.Floor(m[a]), m[b]-math.Floor(m[b])
		switch {
		case fa != fb && fa > fb, fa == fb && a < b:
			return -1
		}
		return 1
	})
	left := make([]float64, len(sizes))
	for i, s := range sizes {
		left[i] = math.Round(s)
	}
	out := model{}
	take := func(p pattern, n float64) {
		out[p] += n
		for i := range sizes {
			if p&(1<<i) != 0 {
				left[i] -= n
			}
		}
	}
	for _, p := range shared {
		take(p, math.Floor(m[p]))
	}
	for _, p := range shared {
		room := true
		for i := range sizes {
			room = room && (p&(1<<i) == 0 || left[i] >= 1)
		}
		if room && m[p]-math.Floor(m[p]) >= 0.5 {
			take(p, 1)
		}
	}
	for i := range sizes {
		if i < 64 && left[i] > 0 {
			out[1<<i] = left[i]
		}
	}
	return out
}

// sum adds up what matches.
func (m model) sum(is func(pattern) bool) (n float64) {
	for p, works := range m {
		if is(p) {
			n += works
		}
	}
	return n
}
