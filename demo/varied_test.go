package demo

import (
	"math"
	"slices"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/coverage"
	"tamiz/core/strategy"
)

// On prose that people wrote, 92 % of the words that belong to a concept stand together with its other words more
// often than by chance, and the median of ln togetherness (docs/rules/measures.md) is 1.96. An order of candidates
// is worth what it does in a literature of that kind.
func TestWordsOfAConceptMeetAsInProse(t *testing.T) {
	set := coverage.NewSet(NewWorld(Seed, AlmagreSize).Records)
	hits := func(term strategy.Term) *roaring.Bitmap {
		term.On = true
		found, err := coverage.Hits(set, term)
		require.NoError(t, err)
		return found
	}
	// togetherness of records that hold a word with those that others find
	together := func(word, others *roaring.Bitmap) float64 {
		p := float64(others.GetCardinality()) / float64(len(set.Records))
		return math.Log((float64(word.AndCardinality(others)) + 5*p) / float64(word.GetCardinality()+5) / p)
	}
	holds := func(what string, of []float64) {
		slices.Sort(of)
		above := slices.IndexFunc(of, func(x float64) bool { return x > 0.2 })
		share := float64(len(of)-above) / float64(len(of))
		t.Logf("%s: median %.2f of %d words, %.0f %% above 0.2", what, of[len(of)/2], len(of), 100*share)
		assert.GreaterOrEqual(t, of[len(of)/2], 1.5, what)
		assert.LessOrEqual(t, of[len(of)/2], 2.3, what)
		assert.GreaterOrEqual(t, share, 0.85, what)
	}
	blocks := NewReview().Strategy().Blocks
	for i, concept := range Topics[0].Concepts {
		var words []*roaring.Bitmap
		for _, word := range namesOf[concept.Name].written {
			if found := hits(strategy.Term{Kind: strategy.TextTerm, Text: word, Field: "text"}); !found.IsEmpty() {
				words = append(words, found)
			}
		}
		require.Greater(t, len(words), 20)
		var beside, unmatched []float64 // with all that the block's other terms find; of words that no term matches
		var among []float64             // with all other words of the concept
		for j, word := range words {
			others, matched := roaring.New(), false
			for _, term := range blocks[i].Terms {
				if !term.On {
					continue
				}
				if found := hits(term); term.Kind != strategy.HeadingTerm && word.AndCardinality(found) == word.GetCardinality() {
					matched = true
				} else {
					others.Or(found)
				}
			}
			beside = append(beside, together(word, others))
			if !matched {
				unmatched = append(unmatched, beside[len(beside)-1])
			}
			among = append(among, together(word, roaring.FastOr(slices.Concat(words[:j], words[j+1:])...)))
		}
		holds(concept.Name+", beside the block", beside)
		holds(concept.Name+", not in the block", unmatched)
		holds(concept.Name+", among themselves", among)
	}
}
