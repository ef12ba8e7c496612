package tally_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/tally"
)

// saying returns records, so many of each title.
func saying(n map[string]int) []*bib.Record {
	var out []*bib.Record
	for title, times := range n {
		for i := range times {
			out = append(out, &bib.Record{ID: fmt.Sprint(title, i), Title: title})
		}
	}
	return out
}

func truncations(records []*bib.Record, forms ...string) []tally.Truncation {
	ix := index.Build(records)
	return tally.Truncations(ix, ix.All(), bib.Text, forms)
}

func TestTheShortestCleanStemIsProposed(t *testing.T) {
	records := saying(
		map[string]int{
			"Nephropathy in the fields":       60,
			"Nephropathies of unknown origin": 40,
			"A nephrologist writes":           1,
			"Nephritis":                       3,
		},
	)
	got := truncations(records, "nephropathy", "nephropathies")
	assert.Equal(
		t,
		[]tally.Truncation{{Term: "nephro*", Forms: []string{"nephropathy", "nephropathies"}, Reach: 101, Drag: 1,
			Outside: []tally.Outside{{Word: "nephrologist", Records: 1}}}},
		got,
		"nephr* would drag in more than 2 in 100",
	)
}

func TestFormsArePartedBySpellingWhenNoStemIsClean(t *testing.T) {
	records := saying(
		map[string]int{
			"Labourers and heat": 50,
			"Labourer":           10,
			"Laborers and heat":  40,
			"Labour law":         90,
			"Laboratory dogs":    90,
			"Labors of love":     30,
			"Laborious":          9,
		},
	)
	got := truncations(records, "labourers", "labourer", "laborers")
	if assert.Len(t, got, 2) {
		assert.Equal(t, "laboure*", got[0].Term)
		assert.Equal(t, []string{"labourers", "labourer"}, got[0].Forms)
		assert.Equal(t, [2]int{60, 0}, [2]int{got[0].Reach, got[0].Drag})
		assert.Equal(t, "labore*", got[1].Term)
		assert.False(t, got[1].Warn)
	}
}

func TestAPartWithoutACleanStemKeepsItsLongestAndWarns(t *testing.T) {
	records := saying(map[string]int{"Farm": 5, "Farms": 5, "Farming": 60, "Farmington": 2})
	got := truncations(records, "farm", "farms")
	assert.Equal(t, []tally.Truncation{{Term: "farm*", Forms: []string{"farm", "farms"}, Reach: 72, Drag: 62,
		Outside: []tally.Outside{{Word: "farming", Records: 60}, {Word: "farmington", Records: 2}}, Warn: true}}, got)
}

func TestOnlyTheLastWordOfAPhraseIsTruncated(t *testing.T) {
	records := saying(
		map[string]int{
			"Cane cutters rest":    30,
			"The cane cutter":      20,
			"A cane cut to length": 2,
			"Cutters of cloth":     90,
			"Canecutters":          3,
		},
	)
	got := truncations(records, "cane cutters", "cane cutter", "canecutters")
	if assert.Len(t, got, 2, "the joined form is searched by itself") {
		assert.Equal(t, "cane cutt*", got[0].Term)
		assert.Equal(t, 0, got[0].Drag)
		assert.Equal(t, "canec*", got[1].Term)
	}
}

func TestWhatIsTooShortIsNotTruncated(t *testing.T) {
	got := truncations(saying(map[string]int{"AKI in crews": 4, "Akin to heat": 9}), "aki")
	assert.Equal(t, []tally.Truncation{{Term: "aki", Forms: []string{"aki"}, Reach: 4}}, got)
}

func TestATruncationFindsItsFormsAndCountsWhatItDrags(t *testing.T) {
	records := saying(
		map[string]int{"Acclimatisation and acclimatization": 3, "Acclimatise": 4, "Acclaimed": 1, "Acclimatised crews": 5},
	)
	for _, x := range truncations(records, "acclimatisation", "acclimatization") {
		for _, form := range x.Forms {
			assert.True(t, strings.HasPrefix(form, strings.TrimSuffix(x.Term, "*")), "%+v", x)
		}
		assert.GreaterOrEqual(t, x.Reach, x.Drag)
	}
}
