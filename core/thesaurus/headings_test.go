package thesaurus_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Headings by number are what their labels are, written out: also where two of a vocabulary have the same label,
// and where those of two vocabularies are set against each other.
func TestHeadingsByNumberAreWhatTheirLabelsAre(t *testing.T) {
	label := rapid.SampledFrom([]string{"Shade", "shade ", "Water", "Crop Harvesters", "Rest", "Rest, Paid", "Heat"})
	vocabulary := func(t *rapid.T) *thesaurus.Thesaurus {
		n := rapid.IntRange(1, 8).Draw(t, "concepts")
		var concepts []thesaurus.Concept
		for i := range n {
			var narrower []string
			for range rapid.IntRange(0, 3).Draw(t, "narrower") {
				narrower = append(narrower, fmt.Sprint(rapid.IntRange(0, n-1).Draw(t, "one")))
			}
			concepts = append(
				concepts,
				thesaurus.Concept{ID: fmt.Sprint(i), Labels: []thesaurus.Text{{Value: label.Draw(t, "label")}}, Narrower: narrower},
			)
		}
		v, _ := thesaurus.Build(concepts, "")
		return v
	}
	rapid.Check(t, func(t *rapid.T) {
		both := []*thesaurus.Thesaurus{vocabulary(t), vocabulary(t)}
		of := func() (thesaurus.Headings, map[string]bool) {
			v, labels := rapid.SampledFrom(both).Draw(t, "vocabulary"), map[string]bool{}
			if rapid.Bool().Draw(t, "by label") {
				l := label.Draw(t, "one")
				labels[text.Label(l)] = true
				return thesaurus.Labelled(l), labels
			}
			from := rapid.IntRange(0, v.Len()-1).Draw(t, "heading")
			for _, h := range v.Below(from) {
				labels[text.Label(v.Label(h))] = true
			}
			if at, _ := v.Find(v.Label(from)); at == from && rapid.Bool().Draw(t, "by its label") {
				return v.Branch(v.Label(from)), labels
			}
			return v.These(v.Below(from)...), labels
		}
		a, inA := of()
		b, inB := of()
		assert.Equal(t, len(inA), a.Len())
		for _, l := range append(slices.Collect(b.Labels()), "Heat", " shade", "nowhere", "") {
			assert.Equal(t, inA[text.Label(l)], a.Has(l), l)
		}
		within := true
		for l := range a.Labels() {
			assert.True(t, inA[l])
			within = within && inB[l]
		}
		assert.Equal(t, within, a.Within(b))
	})
	var none thesaurus.Headings
	assert.Zero(t, none.Len())
	assert.False(t, none.Has(""))
	assert.Empty(t, slices.Collect(none.Labels()))
	assert.True(t, none.Within(none))
}
