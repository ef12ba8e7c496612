package likeness_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/likeness"
	"tamiz/demo"
)

// Within a sample of the topic itself, what belongs stands before what does not where it is set against records of
// anything; set against the sample, which is about the topic, it does less often.
func TestWithinASampleOthersAreFromElsewhere(t *testing.T) {
	w := demo.NewLiterature(demo.Seed, 8000)
	for _, topic := range demo.Topics {
		about := func(i int) bool {
			return !slices.ContainsFunc(
				topic.Concepts,
				func(c demo.TrueConcept) bool { return !slices.Contains(w.About[i], c.Name) },
			)
		}
		near := func(i int) bool {
			return slices.ContainsFunc(
				topic.Concepts,
				func(c demo.TrueConcept) bool { return slices.Contains(w.About[i], c.Name) },
			)
		}
		var belong, sample, elsewhere []*bib.Record
		var truth []bool
		for i, r := range w.Almagre {
			switch {
			case about(i) && len(belong) < 10:
				belong = append(belong, r)
			case near(i): // a rough sample: about one of the concepts
				sample, truth = append(sample, r), append(truth, about(i))
			case i%4 == 0:
				elsewhere = append(elsewhere, r)
			}
		}
		right := func(others []*bib.Record) float64 { return inOrder(t, likeness.Of(belong, others), sample, truth) }
		apart, within := right(elsewhere[:min(2000, len(elsewhere))]), right(sample[:min(2000, len(sample))])
		t.Logf(
			"%s: set against records of anything %.3f of pairs in order, against the sample itself %.3f",
			topic.Name,
			apart,
			within,
		)
		assert.Greater(t, apart, within, topic.Name)
		assert.Greater(t, apart, 0.8, topic.Name)
	}
}

// inOrder is the share of pairs of a record that belongs and another in which the first stands before.
func inOrder(t *testing.T, m *likeness.Model, sample []*bib.Record, truth []bool) float64 {
	var yes, no []float64
	for i, r := range sample {
		if s := m.Score(r); truth[i] {
			yes = append(yes, s)
		} else {
			no = append(no, s)
		}
	}
	require.NotEmpty(t, yes)
	before := 0
	for _, y := range yes {
		for _, n := range no {
			if y > n {
				before++
			}
		}
	}
	return float64(before) / float64(len(yes)*len(no))
}

// What records cite tells more than their words alone.
func TestReferencesMakeTheOrderBetter(t *testing.T) {
	w := demo.NewLiterature(demo.Seed, 8000)
	order := func(cited bool) float64 {
		var belong, sample, elsewhere []*bib.Record
		var truth []bool
		for i, r := range w.Vilano {
			x := *r
			if !cited {
				x.References = nil
			}
			switch on := demo.OnTopic(r); {
			case on && len(belong) < 15:
				belong = append(belong, &x)
			case on || i%3 == 1:
				sample, truth = append(sample, &x), append(truth, on)
			case i%3 == 0 && len(elsewhere) < 2000:
				elsewhere = append(elsewhere, &x)
			}
		}
		return inOrder(t, likeness.Of(belong, elsewhere), sample, truth)
	}
	with, without := order(true), order(false)
	t.Logf("with references %.3f of pairs in order, without %.3f", with, without)
	assert.Greater(t, with, without)
}
