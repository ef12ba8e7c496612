package coverage

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
)

func TestWhatAShortFormStandsForIsReadBeforeIt(t *testing.T) {
	for _, c := range []struct{ text, token, long string }{
		{"Workers had acute kidney injury (AKI) at noon", "aki", "acute kidney injury"},
		{"the wet-bulb globe temperature (WBGT)", "wbgt", "wet-bulb globe temperature"},
		{"of body core heat ( BCH )", "bch", "body core heat"},
		{"heat (AKI)", "aki", ""},
		{"a kind inside (AKI)", "aki", ""},
		{"Rest. Apply knee inserts (AKI)", "aki", "Apply knee inserts"},
		{"no brackets AKI", "aki", ""},
		{"open (AKI", "aki", ""},
		{"akinesia (AKI)", "aki", ""},
	} {
		var got string
		if found := writtenOut(c.text, c.token); len(found) > 0 {
			got = found[0]
		}
		assert.Equal(t, c.long, got, c.text)
	}
}

func TestAnAbbreviationWithSeveralMeaningsIsTold(t *testing.T) {
	var records []*bib.Record
	add := func(n int, title string) {
		for range n {
			records = append(records, &bib.Record{Title: title})
		}
	}
	add(5, "Acute kidney injury (AKI) in crews")
	add(3, "Arm and knee injuries (AKI) of crews")
	add(1, "An arm-knee injury (AKI) and AKI")
	add(4, "AKI in crews")
	set := NewSet(records)
	said, err := meanings(context.Background(), records, set.All(), "aki")
	require.NoError(t, err)
	assert.Equal(t, map[string]int{"acute kidney injury": 5, "arm and knee injuries": 3, "arm knee injury": 1}, said)
}

func FuzzWrittenOut(f *testing.F) {
	f.Add("acute kidney injury (AKI)", "aki")
	f.Fuzz(func(t *testing.T, value, token string) { writtenOut(value, token) })
}
