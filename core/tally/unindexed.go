package tally

import (
	"cmp"
	"maps"
	"slices"
)

// A YearShare is how many records of a year there are, and how many of them carry no heading.
type YearShare struct {
	Year      int // 0 is none
	Records   int
	Unindexed int
}

// Share returns the part of the year's records that carry no heading.
func (y YearShare) Share() float64 { return float64(y.Unindexed) / float64(y.Records) }

// Unindexed returns how many records of the sample carry no heading, and how many of each year.
func (p *Pool) Unindexed() (records int, years []YearShare) {
	byYear := map[int]YearShare{}
	it := p.Sample.Iterator()
	for it.HasNext() {
		r := p.Records[it.Next()]
		y := byYear[r.Year]
		y.Year, y.Records = r.Year, y.Records+1
		if !r.Indexed() {
			y.Unindexed++
			records++
		}
		byYear[r.Year] = y
	}
	years = slices.SortedFunc(maps.Values(byYear), func(a, b YearShare) int { return cmp.Compare(a.Year, b.Year) })
	return records, years
}
