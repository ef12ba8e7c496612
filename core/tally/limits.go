package tally

import (
	"cmp"
	"slices"
	"strconv"
)

// A Loss is what a limit would lose of what is looked at. Records that do not say what is limited are lost
// with it, as a source that is asked for a year or a language does not find them.
type Loss struct {
	Records int     // of the sample
	Share   float64 // of all its records
	Keys    int     // key studies
}

// Losses returns for each row of a tally what a limit to it would lose: of years, a limit from that year on;
// of any other facet, a limit to that item alone.
func (t *Tally) Losses() []Loss {
	out := make([]Loss, len(t.Rows))
	lose := func(row, records, keys int) {
		out[row] = Loss{Records: records, Keys: keys}
		if t.Sample > 0 {
			out[row].Share = float64(records) / float64(t.Sample)
		}
	}
	if t.Facet != Years {
		for i, r := range t.Rows {
			lose(i, t.Sample-r.Records, t.KeyStudies-r.Keys)
		}
		return out
	}
	// A record has one year: what is before a year is the sum of the years before it.
	records, keys := t.Missing, t.MissingKeys
	for _, i := range t.sorted(func(a, b Row) int { return cmp.Compare(year(a), year(b)) }) {
		lose(i, records, keys)
		records += t.Rows[i].Records
		keys += t.Rows[i].Keys
	}
	return out
}

func year(r Row) int {
	y, _ := strconv.Atoi(r.Item)
	return y
}

// Reach returns for each row the share of the sample that it and all rows with more records hold together, and
// how many rows, those with most records first, hold half of the sample; 0 where all of them hold less. A record
// must carry one item at most, as it does of journals.
func (t *Tally) Reach() (upTo []float64, half int) {
	upTo = make([]float64, len(t.Rows))
	sum := 0
	for n, i := range t.sorted(func(a, b Row) int {
		return cmp.Or(cmp.Compare(b.Records, a.Records), cmp.Compare(a.Item, b.Item))
	}) {
		sum += t.Rows[i].Records
		upTo[i] = float64(sum) / float64(t.Sample)
		if half == 0 && 2*sum >= t.Sample {
			half = n + 1
		}
	}
	return upTo, half
}

// sorted returns the places of the rows in an order.
func (t *Tally) sorted(by func(a, b Row) int) []int {
	places := make([]int, len(t.Rows))
	for i := range places {
		places[i] = i
	}
	slices.SortFunc(places, func(a, b int) int { return by(t.Rows[a], t.Rows[b]) })
	return places
}
