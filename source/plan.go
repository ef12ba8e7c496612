package source

import (
	"context"
	"errors"
	"math/rand/v2"
	"slices"
)

// How says which of the records that match make up a sample.
type How string

// The ways to draw.
const (
	All    How = "all"    // as the source gives them
	Newest How = "newest" // by year, the newest first
	Years  How = "years"  // as many of each year as possible
	Random How = "random" // by position, each as likely as any other
)

// A Plan is the positions of a source's answers that make up a sample. Made again with a higher number it
// holds all that it held before, so only what is missing has to be fetched.
type Plan struct {
	Total int    `json:"total"` // how many records match
	Parts []Part `json:"parts"`
}

// A Part is some positions of the answer to one query.
type Part struct {
	Key    int      `json:"key"`   // by which it is known when the plan is made again: its year, or 0
	Query  string   `json:"query"` // in the source's own names
	Ranges [][2]int `json:"ranges"`
}

// Wanted returns how many positions the plan holds.
func (p Plan) Wanted() (n int) {
	for _, part := range p.Parts {
		for _, r := range part.Ranges {
			n += r[1] - r[0] + 1
		}
	}
	return n
}

// An Order is a sample that is to be drawn.
type Order struct {
	How    How
	AtMost int
	Seed   uint64
	Now    int // the present year, from which years are counted back
}

// earliest is how far back years are looked for, from the present one.
const earliest = 150

// ErrNoYears is the answer to who wants a sample by year of a source that has no index of years.
var ErrNoYears = errors.New("this source cannot be asked for years: draw all of it or at random")

// PlanOf counts what a query, in the source's own names, finds, and lays out which of it is to be fetched.
func PlanOf(ctx context.Context, src Source, m Map, cql string, o Order) (Plan, error) {
	count := func(cql string) (int, error) {
		page, err := src.Search(ctx, Search{Query: cql, Start: 1})
		if err != nil {
			return 0, err
		}
		return page.Total, nil
	}
	total, err := count(cql)
	p := Plan{Total: total}
	if err != nil || total == 0 {
		return p, err
	}
	n := min(o.AtMost, total)
	switch o.How {
	case Random:
		p.Parts = []Part{{0, cql, randomly(total, n, o.Seed)}}
		return p, nil
	case Newest:
		if m.Sort {
			p.Parts = []Part{{0, m.NewestFirst(cql), [][2]int{{1, n}}}}
			return p, nil
		}
	case Years:
	default:
		p.Parts = []Part{{0, cql, [][2]int{{1, n}}}}
		return p, nil
	}
	if m.Indexes["year"] == "" {
		return p, ErrNoYears
	}
	// Year by year, from next year back, until all are found or no more are wanted.
	var counts []int
	found := 0
	first := o.Now + 1
	for year := first; year > first-earliest && found < total && (o.How == Years || found < n); year-- {
		k, err := count(m.WithinYear(cql, year))
		if err != nil {
			return p, err
		}
		counts, found = append(counts, k), found+k
	}
	take := evenly(counts, n)
	if o.How == Newest {
		left := n
		for i, k := range counts {
			take[i] = min(k, left)
			left -= take[i]
		}
	}
	for i, k := range take {
		if k > 0 {
			p.Parts = append(p.Parts, Part{first - i, m.WithinYear(cql, first-i), [][2]int{{1, k}}})
		}
	}
	return p, nil
}

// Share shares n out among the parts of a sample, which hold so many each: the first has up to half, the others
// share the rest as evenly as they allow, and what they leave goes to the first. Of a higher n no part has less.
func Share(hold []int, n int) []int {
	if len(hold) == 0 {
		return nil
	}
	first := min(hold[0], (n+1)/2)
	others := evenly(hold[1:], n-first)
	left := n - first
	for _, k := range others {
		left -= k
	}
	return append([]int{min(hold[0], first+left)}, others...)
}

// evenly shares n out among several that hold so many each, as evenly as they allow; what does not come out
// even goes to the first.
func evenly(hold []int, n int) []int {
	take := make([]int, len(hold))
	for n > 0 {
		var open []int
		for i := range hold {
			if take[i] < hold[i] {
				open = append(open, i)
			}
		}
		if len(open) == 0 {
			break
		}
		each := max(1, n/len(open))
		for _, i := range open {
			k := min(each, hold[i]-take[i], n)
			take[i] += k
			n -= k
		}
	}
	return take
}

// randomly returns n of total positions as ranges. The same seed gives those of a lower n and more.
func randomly(total, n int, seed uint64) [][2]int {
	r := rand.New(rand.NewPCG(seed, 0x5eed))
	// The beginning of a shuffle, of which only what was moved is kept.
	moved := map[int]int{}
	at := func(i int) int {
		if v, ok := moved[i]; ok {
			return v
		}
		return i
	}
	chosen := make([]int, n)
	for i := range n {
		j := i + r.IntN(total-i)
		chosen[i] = at(j) + 1
		moved[j] = at(i)
	}
	slices.Sort(chosen)
	var out [][2]int
	for _, c := range chosen {
		if k := len(out); k > 0 && out[k-1][1] == c-1 {
			out[k-1][1] = c
		} else {
			out = append(out, [2]int{c, c})
		}
	}
	return out
}
