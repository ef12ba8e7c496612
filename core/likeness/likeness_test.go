package likeness_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/likeness"
	"tamiz/demo"
)

// The planted topics: from fifteen studies that belong, those that belong are told from those that do not.
func TestWhatBelongsStandsBefore(t *testing.T) {
	w := demo.NewLiterature(demo.Seed, 4000)
	for _, topic := range demo.Topics {
		var belong, others []*bib.Record
		for i, r := range w.Almagre {
			about := true
			for _, c := range topic.Concepts {
				about = about && slices.Contains(w.About[i], c.Name)
			}
			if about {
				belong = append(belong, r)
			} else {
				others = append(others, r)
			}
		}
		require.Greater(t, len(belong), 25, topic.Name)
		known := min(15, len(belong)/2)
		m := likeness.Of(belong[:known], others[:300])
		right, pairs := 0, 0
		var aside []float64
		for _, o := range others[300:800] {
			aside = append(aside, m.Score(o))
		}
		for _, b := range belong[known:] {
			score := m.Score(b)
			for _, o := range aside {
				pairs++
				if score > o {
					right++
				}
			}
		}
		got := float64(right) / float64(pairs)
		share, low, high, ok := m.Right()
		require.True(t, ok)
		t.Logf("%s: %.3f of pairs, said to be %.3f (%.3f to %.3f)", topic.Name, got, share, low, high)
		assert.Greater(t, got, 0.9, topic.Name)
		assert.InDelta(t, got, share, 0.1, topic.Name)
	}
}

func TestLittleIsKnownOfFew(t *testing.T) {
	one := &bib.Record{Title: "Heat in crews"}
	m := likeness.Of([]*bib.Record{one}, nil)
	_, low, high, ok := m.Right()
	assert.False(t, ok)
	assert.Equal(t, [2]float64{0, 1}, [2]float64{low, high})
	assert.Zero(t, m.Score(&bib.Record{}))
	assert.Greater(t, m.Score(one), m.Score(&bib.Record{Title: "Shade nets"}))
	assert.Zero(t, likeness.Of(nil, nil).Score(one))
}

func TestTheShareIsOne(t *testing.T) {
	word := rapid.SampledFrom([]string{"heat", "crew", "rest", "shade", "kidney", "nurse", "sleep"})
	record := rapid.Custom(func(t *rapid.T) *bib.Record {
		r := &bib.Record{}
		for _, w := range rapid.SliceOfN(word, 0, 6).Draw(t, "words") {
			r.Title += w + " "
		}
		return r
	})
	rapid.Check(t, func(t *rapid.T) {
		m := likeness.Of(rapid.SliceOfN(record, 0, 12).Draw(t, "belong"), rapid.SliceOfN(record, 0, 12).Draw(t, "others"))
		share, low, high, _ := m.Right()
		assert.True(t, 0 <= low && low <= high && high <= 1)
		assert.True(t, share >= 0 && share <= 1)
	})
}
