package thesaurus_test

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/thesaurus"
	"tamiz/demo"
)

// mistyped returns a text with one letter more, less, other, or two changed about, in a word of at least four
// letters; ok is false where the place that is drawn has none.
func mistyped(r *rand.Rand, typed string) (out string, ok bool) {
	w := []rune(typed)
	letter := func(i int) bool { return i >= 0 && i < len(w) && w[i] >= 'a' && w[i] <= 'z' }
	i := r.IntN(len(w))
	from, to := i, i
	for letter(from - 1) {
		from--
	}
	for letter(to) {
		to++
	}
	if !letter(i) || to-from < 4 {
		return "", false
	}
	other := rune('a' + r.IntN(26))
	switch r.IntN(4) {
	case 0:
		w = slices.Delete(w, i, i+1)
	case 1:
		w = slices.Insert(w, i, other)
	case 2:
		w[i] = other
	default:
		if i+1 == to {
			return "", false
		}
		w[i], w[i+1] = w[i+1], w[i]
	}
	return string(w), string(w) != typed
}

// A heading is found with a letter wrong wherever in a word it is, also with its words in another order.
func TestAHeadingIsFoundWithALetterWrong(t *testing.T) {
	concepts := demo.Headings()
	v, _ := thesaurus.Build(concepts, "")
	r := rand.New(rand.NewPCG(1, 2))
	for _, c := range []struct {
		name         string
		turned       bool
		first, three float64
	}{{"in their order", false, 0.97, 0.99}, {"in another order", true, 0.90, 0.90}} {
		first, three, all := 0, 0, 0
		for range 3 {
			for _, concept := range concepts {
				label := concept.Labels[0].Value
				words := strings.Fields(strings.ToLower(label))
				if concept.Qualifier || c.turned && len(words) < 2 {
					continue
				}
				if c.turned {
					slices.Reverse(words)
				}
				typed, ok := mistyped(r, strings.Join(words, " "))
				if !ok {
					continue
				}
				all++
				at := slices.IndexFunc(v.Suggest(typed, 20), func(l thesaurus.Lead) bool { return v.Label(l.Heading) == label })
				if at == 0 {
					first++
				}
				if at >= 0 && at < 3 {
					three++
				}
			}
		}
		require.Greater(t, all, 500)
		t.Logf("%s: %d first, %d among three, of %d", c.name, first, three, all)
		assert.GreaterOrEqual(t, float64(first)/float64(all), c.first, c.name)
		assert.GreaterOrEqual(t, float64(three)/float64(all), c.three, c.name)
	}
}

// All words of a heading in another order come before what merely begins with one of them.
func TestAnotherOrderComesBeforeAMereBeginning(t *testing.T) {
	v, _ := thesaurus.Build([]thesaurus.Concept{
		{
			ID:     "1",
			Labels: []thesaurus.Text{{Value: "Early Care of Injuries"}},
		}, {ID: "2", Labels: []thesaurus.Text{{Value: "Ear Injuries"}}},
		{ID: "3", Labels: []thesaurus.Text{{Value: "Injuries of Earth Movers"}}},
	}, "")
	leads := v.Suggest("injuries ear", 0)
	require.NotEmpty(t, leads)
	assert.Equal(t, "Ear Injuries", v.Label(leads[0].Heading))
}
