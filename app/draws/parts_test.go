package draws

import (
	"context"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/library"
	"tamiz/source"
)

// counting is a source that finds as many records as it is told for each query.
type counting struct {
	source.Source
	finds map[string]int
}

func (c counting) Search(_ context.Context, s source.Search) (*source.Page, error) {
	return &source.Page{Total: c.finds[s.Query]}, nil
}

var says = source.Map{Indexes: map[string]string{"text": "any"}, Phrase: "adj", AtMost: 50}

func crews() []RoughConcept {
	return []RoughConcept{{Name: "Crews", Words: []string{"crew"}}, {Name: "Rest", Words: []string{"rest", "nap"}}}
}

// Of all concepts together, of each by itself, and of anything.
func TestASampleIsLaidOutInParts(t *testing.T) {
	for name, c := range map[string]struct {
		concepts []RoughConcept
		of       []int
	}{
		"two concepts": {crews(), []int{2, 1, 1, 0}},
		"one concept":  {crews()[:1], []int{1, 0}},
	} {
		parts, _, err := inParts(c.concepts, says)
		require.NoError(t, err, name)
		var of []int
		queries := map[string]bool{}
		for _, p := range parts {
			of = append(of, len(p.Concepts))
			queries[p.Query] = true
		}
		assert.Equal(t, c.of, of, name)
		assert.Len(t, queries, len(parts), "%s: each part asks for something else", name)
	}
}

func TestWhatIsWantedIsSharedBetweenTheParts(t *testing.T) {
	parts, _, err := inParts(crews(), says)
	require.NoError(t, err)
	said, err := json.Marshal(parts)
	require.NoError(t, err)
	asked := counting{finds: map[string]int{}}
	for i, n := range []int{1000, 5000, 40, 90000} {
		asked.finds[parts[i].Query] = n
	}
	plan, saved, err := planInParts(t.Context(), asked, says, said, source.Order{How: source.All, AtMost: 400})
	require.NoError(t, err)
	assert.Equal(t, 1000, plan.Total, "what all concepts find together")
	var laid []DrawPart
	require.NoError(t, json.Unmarshal(saved, &laid))
	wanted := 0
	for i, p := range laid {
		assert.Equal(t, asked.finds[parts[i].Query], p.Total)
		assert.LessOrEqual(t, p.Wanted, p.Total)
		wanted += p.Wanted
	}
	assert.Equal(t, 400, wanted)
	assert.Equal(t, 200, laid[0].Wanted, "half of it is of all together")
	assert.Equal(t, 40, laid[2].Wanted, "all of what finds little")
	keys := map[int]bool{}
	for _, p := range plan.Parts {
		keys[p.Key/library.PartSize] = true
	}
	assert.Len(t, keys, 4, "what is fetched knows the part that it is of")
}
