package desk

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/library"
)

func TestWhatChoseASampleSaysWhichBlocksItIsFreeOf(t *testing.T) {
	doc := Document{Blocks: []Block{{ID: "crews", Name: "A"}, {ID: "heat", Name: "B"}, {ID: "kidney", Name: "C"}}}
	draw, file, source := int64(7), int64(3), int64(1)
	raw := func(v any) json.RawMessage {
		body, err := json.Marshal(v)
		require.NoError(t, err)
		return body
	}
	drawn := func(concepts ...drawnConcept) library.Origin {
		return library.Origin{Sample: 1, Draw: &draw, Source: &source, Concepts: raw(concepts), Parts: raw([]any{})}
	}
	free := func(o library.Origin, block string) string {
		all, err := chosenBy([]library.Origin{o})
		require.NoError(t, err)
		require.Len(t, all, 1)
		return all[0].free(doc, block)
	}
	by := drawn(drawnConcept{Name: "A", Block: "crews"})
	assert.Equal(t, []string{"", ByOthers, ByOthers}, []string{free(by, "crews"), free(by, "heat"), free(by, "kidney")})
	assert.Equal(
		t,
		[]string{"", ByOthers},
		[]string{free(drawn(drawnConcept{Name: "B"}), "heat"), free(drawn(drawnConcept{Name: "B"}), "crews")},
		"an older draw names the letter",
	)
	renamed := drawn(drawnConcept{Name: "A", Block: "heat"})
	assert.Equal(
		t,
		[]string{"", ByOthers},
		[]string{free(renamed, "heat"), free(renamed, "crews")},
		"letters change, a block is known by its id",
	)
	assert.Equal(
		t,
		"",
		free(drawn(drawnConcept{Name: "Z", Block: "gone"}), "crews"),
		"a concept that is there no more may have been any",
	)
	assert.Equal(t, AtRandom, free(drawn(), "crews"))
	assert.Equal(
		t,
		FromFile,
		free(library.Origin{Sample: 1, Import: &file, Concepts: raw([]any{}), Parts: raw([]any{})}, "crews"),
	)
	assert.Equal(
		t,
		"",
		free(library.Origin{Sample: 1, Concepts: raw([]any{}), Parts: raw([]any{})}, "crews"),
		"of two that were put together nothing is known",
	)
	two := func(a, b library.Origin) []library.Origin {
		a.Sample, a.Name, b.Sample, b.Name = 1, "one", 2, "two"
		return []library.Origin{
			{
				Sample:   3,
				Joined:   &library.Joined{How: Difference, A: "one", B: "two"},
				Concepts: raw([]any{}),
				Parts:    raw([]any{}),
			},
			b,
			a,
		}
	}
	joined := func(a, b library.Origin, block string) string {
		all, err := chosenBy(two(a, b))
		require.NoError(t, err)
		return all[0].free(doc, block)
	}
	assert.Equal(
		t,
		[]string{"", ByOthers},
		[]string{joined(by, by, "crews"), joined(by, by, "heat")},
		"of two, both have to be free",
	)
	assert.Equal(t, "", joined(drawn(), by, "crews"))
	assert.Equal(t, AtRandom, joined(drawn(), by, "heat"))
	run := drawn()
	run.Apart = true
	assert.Equal(t, "", free(run, "crews"), "the whole strategy drew it")
}

func TestALookTakesTheSamplesThatItsOwnIsNotFreeFor(t *testing.T) {
	doc := Document{Blocks: []Block{{ID: "a", Name: "A"}, {ID: "b", Name: "B"}}}
	almagre, surco := int64(1), int64(2)
	sample := func(id int64, source *int64, blocks ...string) chosen {
		c := chosen{sample: id, part: -1, source: source}
		for _, b := range blocks {
			c.concepts = append(c.concepts, drawnConcept{Block: b})
		}
		return c
	}
	all := []chosen{
		sample(1, &almagre, "a", "b"),
		sample(2, &almagre, "a"),
		sample(3, &surco, "b"),
		sample(4, &almagre),
		{sample: 5, part: -1, file: true},
		sample(6, &almagre, "a", "b"),
	}
	assert.Equal(t, []int64{2, 4}, beside(all, doc, 1, []int64{1}), "of its own source, drawn by one alone or at random")
	assert.Equal(t, []int64{2}, beside(all, doc, 1, []int64{1, 4}), "but what it is set against is there already")
	assert.Empty(t, beside(all, doc, 5, []int64{5}), "a file is free of all")
	assert.Equal(
		t,
		[]int64{4},
		beside(all, doc, 2, []int64{2}),
		"what B lacks is told by the sample itself, what A lacks by what was drawn at random",
	)
	parts := []chosen{
		sample(1, &almagre, "a", "b"),
		sample(1, &almagre, "a"),
		sample(1, &almagre, "b"),
		sample(1, &almagre),
		sample(2, &almagre, "a"),
	}
	assert.Empty(t, beside(parts, doc, 1, []int64{1}), "a sample in parts is enough for itself")
}
