package demo_test

import (
	"cmp"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
)

// Who cites whom in Vilano looks like a network of citations: few works are cited by many, lists are short, works
// of the question cite each other, some cite themselves, some references are wrong or mere text, some works were
// taken back.
func TestVilanoHasANetworkOfCitations(t *testing.T) {
	byDOI := map[string]*bib.Record{}
	for _, r := range world().Vilano {
		if r.DOI != "" {
			byDOI[bib.DOIKey(r.DOI)] = r
		}
	}
	var references, texts, lost, self, later, retracted int
	var cited []int
	for _, r := range world().Vilano {
		require.NotNil(t, r.TimesCited)
		cited = append(cited, *r.TimesCited)
		references += len(r.References)
		if r.Retracted() {
			retracted++
		}
		for _, f := range r.References {
			switch other := byDOI[bib.DOIKey(f.DOI)]; {
			case f.DOI == "":
				texts++
			case other == nil:
				lost++
			default:
				if other.Year > r.Year {
					later++
				}
				if len(r.Authors) > 0 && len(other.Authors) > 0 && r.Authors[0] == other.Authors[0] {
					self++
				}
			}
		}
	}
	slices.SortFunc(cited, func(a, b int) int { return cmp.Compare(b, a) })
	total, top := 0, 0
	for i, n := range cited {
		total += n
		if i < len(cited)/100 {
			top += n
		}
	}
	t.Logf(
		"%d works, %d references (%d as text, %d to works elsewhere or wrong), most cited %v, the first hundredth has "+
			"%d of %d, %d cite themselves, %d were taken back",
		len(cited),
		references,
		texts,
		lost,
		cited[:5],
		top,
		total,
		self,
		retracted,
	)
	assert.InDelta(t, 11, float64(references)/float64(len(cited)), 4)
	assert.Greater(t, top, total/10, "few are cited by many")
	assert.InDelta(t, 0.1, float64(texts)/float64(references), 0.05)
	assert.Zero(t, later, "nobody cites what is not yet there")
	assert.Greater(t, self, references/100)
	assert.Greater(t, retracted, 20)
}

// From five key studies along who cites whom, others are reached in two rounds.
func TestKeyStudiesAreLinked(t *testing.T) {
	at := map[string][]string{} // both ways
	for _, r := range world().Vilano {
		for _, f := range r.References {
			a, b := bib.DOIKey(r.DOI), bib.DOIKey(f.DOI)
			if a != "" && b != "" {
				at[a], at[b] = append(at[a], b), append(at[b], a)
			}
		}
	}
	reached := map[string]bool{}
	front := []string{}
	for _, k := range world().Keys[5:10] {
		front = append(front, bib.DOIKey(k.DOI))
		reached[bib.DOIKey(k.DOI)] = true
	}
	for range 2 {
		var next []string
		for _, a := range front {
			for _, b := range at[a] {
				if !reached[b] {
					reached[b] = true
					next = append(next, b)
				}
			}
		}
		t.Logf("a round brings %d", len(next))
		front = next
	}
	keys := 0
	for _, k := range world().Keys {
		if reached[bib.DOIKey(k.DOI)] {
			keys++
		}
	}
	t.Logf("%d of %d key studies", keys, len(world().Keys))
	assert.GreaterOrEqual(t, keys, 12)
}
