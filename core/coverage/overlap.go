package coverage

import (
	"math"

	"tamiz/core/bib"
)

// An Overlap is how two sets of records share works. A work that stands twice in one set counts once.
type Overlap struct {
	First, Second []*bib.Record // only there
	Both          [][2]*bib.Record
}

// Compare finds the works that two sets of records have in common, and those that are in one alone.
func Compare(first, second []*bib.Record) Overlap {
	var out Overlap
	a, b := distinct(first), distinct(second)
	var inB bib.Known
	for i, r := range b {
		inB.Add(r, i)
	}
	shared := make([]bool, len(b))
	for _, r := range a {
		n, ok := inB.Find(r)
		if !ok || shared[n] {
			out.First = append(out.First, r)
			continue
		}
		shared[n] = true
		out.Both = append(out.Both, [2]*bib.Record{r, b[n]})
	}
	for i, r := range b {
		if !shared[i] {
			out.Second = append(out.Second, r)
		}
	}
	return out
}

func distinct(records []*bib.Record) []*bib.Record {
	var known bib.Known
	var out []*bib.Record
	for i, r := range records {
		if _, ok := known.Find(r); !ok {
			out = append(out, r)
		}
		known.Add(r, i)
	}
	return out
}

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

// Between returns what a strategy finds more, less and still than another, over the same records.
func Between(before, after *Reach) (gained, lost, kept int) {
	kept = int(before.Whole.AndCardinality(after.Whole))
	return count(after.Whole) - kept, count(before.Whole) - kept, kept
}
