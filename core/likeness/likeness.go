// Package likeness orders records by how much they are like those that are known to belong: by their words,
// headings, authors and what they cite. It says how right that order is on what is known already.
package likeness

import (
	"cmp"
	"math"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// A Model is what tells records that belong from others.
type Model struct {
	weights map[string]float64
	known   [][]string // what says something of each record that belongs
	others  [][]string // of those that do not
	counts  map[string][2]int
}

// Of learns from records that belong and from others: those that somebody read and put aside, or a part of what is
// all around. A feature (a word, a heading, an author, a work that is cited) weighs the logarithm of its odds in
// either, the relevance weight of Robertson and Spärck Jones 1976 (formula 4, with their half). One that a single
// record that belongs has weighs nothing where there are more than three: it may be about anything. Nor does a work
// that fewer than two of those that belong cite: nearly all works that others cite are such, and say nothing of a
// record that does not cite them.
func Of(belong, others []*bib.Record) *Model {
	m := &Model{weights: map[string]float64{}, counts: map[string][2]int{}}
	for side, records := range [2][]*bib.Record{belong, others} {
		for _, r := range records {
			f := features(r)
			if side == 0 {
				m.known = append(m.known, f)
			} else {
				m.others = append(m.others, f)
			}
			for _, x := range f {
				c := m.counts[x]
				c[side]++
				m.counts[x] = c
			}
		}
	}
	for x, c := range m.counts {
		if w := weight(x, c[0], len(m.known), c[1], len(m.others)); w != 0 {
			m.weights[x] = w
		}
	}
	return m
}

func weight(x string, r, of, n, others int) float64 {
	if r == 0 && n == 0 || r < 2 && of > 3 && n == 0 || r < 2 && strings.HasPrefix(x, reference) {
		return 0
	}
	odds := func(k, of int) float64 { return math.Log((float64(k) + 0.5) / (float64(of-k) + 0.5)) }
	return odds(r, of) - odds(n, others)
}

// Score returns how much a record is like those that belong; higher is more alike. Long records are not more alike
// for being long: the sum is over the root of how much says something.
func (m *Model) Score(r *bib.Record) float64 {
	return m.score(features(r), func(x string) float64 { return m.weights[x] })
}

func (m *Model) score(features []string, weight func(string) float64) float64 {
	sum, n := 0.0, 0
	for _, x := range features {
		if w := weight(x); w != 0 {
			sum += w
			n++
		}
	}
	if n == 0 {
		return 0
	}
	return sum / math.Sqrt(float64(n))
}

// Right says how right the order is on what is known: the share of pairs of a record that belongs and another in
// which the first stands before, each scored by what the rest says (leave one out), with its 95 % interval (Hanley
// and McNeil 1982). ok is false where there are fewer than five of either.
func (m *Model) Right() (share, low, high float64, ok bool) {
	if len(m.known) < 5 || len(m.others) < 5 {
		return 0, 0, 1, false
	}
	without := func(f []string, side int) float64 {
		return m.score(f, func(x string) float64 {
			c := m.counts[x]
			c[side]--
			if side == 0 {
				return weight(x, c[0], len(m.known)-1, c[1], len(m.others))
			}
			return weight(x, c[0], len(m.known), c[1], len(m.others)-1)
		})
	}
	type scored struct {
		s     float64
		known bool
	}
	var all []scored
	for _, f := range m.known {
		all = append(all, scored{without(f, 0), true})
	}
	for _, f := range m.others {
		all = append(all, scored{without(f, 1), false})
	}
	slices.SortFunc(all, func(a, b scored) int { return cmp.Compare(a.s, b.s) })
	pairs, below := 0.0, 0
	for i := 0; i < len(all); {
		j, ties, here := i, 0, 0
		for ; j < len(all) && all[j].s == all[i].s; j++ {
			if all[j].known {
				here++
			} else {
				ties++
			}
		}
		pairs += float64(here) * (float64(below) + float64(ties)/2)
		below += ties
		i = j
	}
	n1, n2 := float64(len(m.known)), float64(len(m.others))
	a := pairs / (n1 * n2)
	q1, q2 := a/(2-a), 2*a*a/(1+a)
	se := math.Sqrt(max(0, (a*(1-a)+(n1-1)*(q1-a*a)+(n2-1)*(q2-a*a))/(n1*n2)))
	// Where every pair is right the formula knows no doubt; one pair less than all is the least there can be.
	se = max(se, 1/(n1*n2))
	return a, max(0, a-1.96*se), min(1, a+1.96*se), true
}

const reference = "r " // before what is cited

// features returns what says something of a record, each once: words of title, abstract and keywords, headings,
// authors, references.
func features(r *bib.Record) []string {
	seen := map[string]bool{}
	for _, value := range append([]string{r.Title, r.Abstract}, r.Keywords...) {
		text.Scan(value, func(token []byte, _ bool) {
			if t := string(token); len(t) > 2 && !text.IsStopword(t) {
				seen[text.Singular(text.Base(t))] = true
			}
		})
	}
	for _, h := range r.Headings {
		seen["h "+text.Label(h.Label)] = true
	}
	for _, p := range r.Authors {
		if p.Family != "" {
			seen["a "+text.Key(p.String())] = true
		}
	}
	for _, f := range r.References {
		if k := referred(f); k != "" {
			seen[reference+k] = true
		}
	}
	out := make([]string, 0, len(seen))
	for x := range seen {
		out = append(out, x)
	}
	slices.Sort(out) // sums do not depend on the order of a map
	return out
}

// referred is by what two references are known to be to the same work: the identifier; others are not read for this.
func referred(f bib.Reference) string {
	if k := bib.DOIKey(f.DOI); k != "" {
		return k
	}
	return bib.DOIKey(f.Local)
}
