package tally

import (
	"context"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
)

func TestWhatALimitLoses(t *testing.T) {
	at := func(year int, language ...string) *bib.Record { return &bib.Record{Year: year, Languages: language} }
	pool := must(
		NewPool(
			context.Background(),
			[]*bib.Record{at(2001, "eng"), at(2001, "spa"), at(2003, "eng", "spa"), at(2010, "eng"), at(0)},
			nil,
		),
	)
	keys := []*bib.Record{at(2001, "eng"), at(2010), at(0, "spa")}

	years := must(CountList(context.Background(), pool, Years, keys))
	losses := map[string]Loss{}
	for i, l := range years.Losses() {
		losses[years.Rows[i].Item] = l
	}
	assert.Equal(t, map[string]Loss{
		"2001": {1, 0.2, 1}, // what says no year
		"2003": {3, 0.6, 2},
		"2010": {4, 0.8, 2},
	}, losses)

	languages := must(CountList(context.Background(), pool, Languages, keys))
	clear(losses)
	for i, l := range languages.Losses() {
		losses[languages.Rows[i].Item] = l
	}
	assert.Equal(t, map[string]Loss{"eng": {2, 0.4, 2}, "spa": {3, 0.6, 2}}, losses)
}

func TestHowFarDownTheListHalfIsReached(t *testing.T) {
	in := func(journals ...string) *Tally {
		var records []*bib.Record
		for _, j := range journals {
			records = append(records, &bib.Record{Journal: j})
		}
		return must(CountList(context.Background(), must(NewPool(context.Background(), records, nil)), Journals, nil))
	}
	for _, c := range []struct {
		name     string
		journals []string
		half     int
	}{
		{"one journal", []string{"A", "A", "A"}, 1},
		{"half to a record", []string{"A", "A", "B", "C"}, 1},
		{"two of four", []string{"A", "B", "C", "D"}, 2},
		{"most say none", []string{"A", "", ""}, 0},
		{"none says any", []string{"", ""}, 0},
	} {
		_, half := in(c.journals...).Reach()
		assert.Equal(t, c.half, half, c.name)
	}
	all := in("B", "A", "B", "C", "")
	upTo, _ := all.Reach()
	got := map[string]float64{}
	for i, r := range all.Rows {
		got[r.Item] = upTo[i]
	}
	assert.Equal(t, map[string]float64{"B": 0.4, "A": 0.6, "C": 0.8}, got)
}

// What a limit loses and what it keeps are together all of what is looked at.
func TestLossesAreWhatIsLeftOver(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		years := rapid.SliceOfN(rapid.IntRange(0, 6), 1, 40).Draw(t, "years")
		var records []*bib.Record
		for _, y := range years {
			r := &bib.Record{Title: "any"}
			if y > 0 {
				r.Year = 2000 + y
			}
			records = append(records, r)
		}
		tally := must(CountList(context.Background(), must(NewPool(context.Background(), records, nil)), Years, records))
		for i, l := range tally.Losses() {
			from, err := strconv.Atoi(tally.Rows[i].Item)
			require.NoError(t, err)
			kept := 0
			for _, r := range records {
				if r.Year >= from {
					kept++
				}
			}
			assert.Equal(t, len(records), kept+l.Records)
			assert.Equal(t, l.Records, l.Keys)
		}
		upTo, half := tally.Reach()
		for i, r := range tally.Rows {
			assert.GreaterOrEqual(t, upTo[i], r.Share)
		}
		if half > 0 {
			assert.GreaterOrEqual(t, slices.Sorted(slices.Values(upTo))[half-1], 0.5)
		}
	})
}
