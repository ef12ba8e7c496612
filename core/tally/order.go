package tally

import (
	"math"
	"strings"

	"tamiz/core/parallel"
)

// A place is what decides where a row stands, small enough to be moved about instead of it.
type place struct {
	pull    uint64 // the lower the farther down it pulls
	records int32
	rank    int32 // of its item among all kept ones; 0 is none
	row     int32
}

// placeOf returns the place of a row by its figures.
func placeOf(pull float64, records int, rank, row int32) place {
	// The bits of numbers, with the sign turned over, are in the order of the numbers.
	bits := math.Float64bits(Round(pull))
	if bits>>63 != 0 {
		bits = ^bits
	} else {
		bits |= 1 << 63
	}
	return place{bits, int32(records), rank, row}
}

// inOrder brings places into order: by pull, then by records, the most first, then by item.
func inOrder(places []place, item func(row int32) string) {
	parallel.Sort(places, func(a, b place) int {
		switch {
		case a.pull > b.pull:
			return -1
		case a.pull < b.pull:
			return 1
		case a.records != b.records:
			return int(b.records) - int(a.records)
		case a.rank != b.rank && a.rank > 0 && b.rank > 0:
			return int(a.rank) - int(b.rank)
		}
		return strings.Compare(item(a.row), item(b.row))
	})
}

// order returns the rows in order, by their numbers.
func order(rows []Row) []int32 {
	places := make([]place, len(rows))
	for i := range rows {
		places[i] = placeOf(rows[i].Pull, rows[i].Records, rows[i].rank, int32(i))
	}
	inOrder(places, func(row int32) string { return rows[row].Item })
	out := make([]int32, len(places))
	for i, p := range places {
		out[i] = p.row
	}
	return out
}
