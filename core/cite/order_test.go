package cite_test

import (
	"cmp"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/demo"
)

// Of what two rounds bring, what is truly on the question stands before what is not; ties by what a record could
// have had put it there more often than ties as they are.
func TestWhatBelongsStandsBefore(t *testing.T) {
	w := demo.NewLiterature(demo.Seed, 8000)
	world := slices.Concat(w.Vilano, w.Almagre)
	whole := cite.Of(world, nil)
	var keys bib.Known
	for i, k := range w.Keys {
		keys.Add(k, i)
	}
	var start []int
	came := map[int]bool{}
	for i, r := range world {
		if _, ok := keys.Find(r); ok {
			start = append(start, i)
			came[i] = true
		}
	}
	front := start
	for range 2 {
		var next []int
		for _, s := range front {
			for _, c := range append(whole.Cites(s), whole.CitedBy(s)...) {
				if !came[c] {
					came[c] = true
					next = append(next, c)
				}
			}
		}
		front = next
	}
	// What is known is what came, not all that there is.
	var records []*bib.Record
	var from []int
	for _, i := range slices.Sorted(maps.Keys(came)) {
		if slices.Contains(start, i) {
			from = append(from, len(records))
		}
		records = append(records, world[i])
	}
	g := cite.Of(records, nil)
	ties := g.Ties(from)
	var list []int
	for i := range records {
		if !slices.Contains(from, i) {
			list = append(list, i)
		}
	}
	cited := func(i int) int {
		if records[i].TimesCited == nil {
			return 0
		}
		return *records[i].TimesCited
	}
	right := map[string]float64{}
	for name, by := range map[string]func(i int) float64{
		"leads": func(i int) float64 { return float64(ties[i].Leads) },
		"ties":  func(i int) float64 { return float64(3*ties[i].Leads + ties[i].Shared + ties[i].Together) },
		"worth": func(i int) float64 { return g.Worth(i, ties[i], cited(i)) },
	} {
		order := slices.Clone(list)
		slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(by(b), by(a)) })
		pairs, below, belong, top := 0, 0, 0, 0
		for n, i := range slices.Backward(order) {
			switch {
			case !demo.OnTopic(records[i]):
				below++
			default:
				belong++
				pairs += below
				if n < 20 {
					top++
				}
			}
		}
		require.Positive(t, belong*below)
		right[name] = float64(pairs) / float64(belong*below)
		t.Logf(
			"%s: %.3f of pairs in order, %d of the first 20 on the question; %d of %d are",
			name,
			right[name],
			top,
			belong,
			len(order),
		)
	}
	assert.Greater(t, right["worth"], right["ties"])
	assert.Greater(t, right["worth"], 0.7)
}

func BenchmarkTies(b *testing.B) {
	w := demo.NewLiterature(demo.Seed, 7500)
	records := w.Vilano[:5000]
	var start []int
	for i := 0; i < len(records); i += 166 {
		start = append(start, i)
	}
	b.Run("graph of 5000", func(b *testing.B) {
		for b.Loop() {
			cite.Of(records, nil)
		}
	})
	g := cite.Of(records, nil)
	b.Run("ties of 5000 to 30", func(b *testing.B) {
		for b.Loop() {
			g.Ties(start)
		}
	})
}
