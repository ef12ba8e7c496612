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

// Within a sample of the topic itself, what belongs stands before what does not where it is set against records of anything; set
// against the sample, which is about the topic, it does less often.
func TestWithinASampleOthersAreFromElsewhere(t *testing.T) {
	w := demo.NewLiterature(demo.Seed, 8000)
	for _, topic := range demo.Topics {
		about := func(i int) bool {
			return !slices.ContainsFunc(topic.Concepts, func(c demo.TrueConcept) bool { return !slices.Contains(w.About[i], c.Name) })
		}
		near := func(i int) bool {
			return slices.ContainsFunc(topic.Concepts, func(c demo.TrueConcept) bool { return slices.Contains(w.About[i], c.Name) })
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
		right := func(others []*bib.Record) float64 {
			m := likeness.Of(belong, others)
			var yes, no []float64
			for i, r := range sample {
				if s := m.Score(r); truth[i] {
					yes = append(yes, s)
				} else {
					no = append(no, s)
				}
			}
			require.NotEmpty(t, yes, topic.Name)
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
		apart, within := right(elsewhere[:min(2000, len(elsewhere))]), right(sample[:min(2000, len(sample))])
		t.Logf("%s: set against records of anything %.3f of pairs in order, against the sample itself %.3f", topic.Name, apart, within)
		assert.Greater(t, apart, within, topic.Name)
		assert.Greater(t, apart, 0.8, topic.Name)
	}
}
