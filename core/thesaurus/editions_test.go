package thesaurus_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/thesaurus"
)

func concept(id, label string, terms ...string) thesaurus.Concept {
	c := thesaurus.Concept{ID: id, Labels: []thesaurus.Text{{Value: label, Language: "en"}}}
	for _, term := range terms {
		c.EntryTerms = append(c.EntryTerms, thesaurus.Text{Value: term, Language: "en"})
	}
	return c
}

func build(concepts ...thesaurus.Concept) *thesaurus.Thesaurus {
	t, _ := thesaurus.Build(concepts, "")
	return t
}

func below(c thesaurus.Concept, broader ...string) thesaurus.Concept {
	c.Broader = broader
	return c
}

func TestALaterEditionSaysWhatIsOtherwise(t *testing.T) {
	earlier := build(
		concept("1", "People"),
		below(concept("2", "Field Hands", "pickers", "hoers"), "1"),
		below(concept("3", "Ranch Hands", "drovers"), "1"),
		concept("4", "Shade"),
		concept("5", "Awnings", "sun sails"),
	)
	gone := concept("4", "Shade")
	gone.Retired, gone.ReplacedBy = true, []string{"5"}
	later := build(
		concept("1", "Persons"),
		below(concept("2", "Harvest Hands", "pickers", "drovers", "Ranch Hands"), "6"),
		below(concept("6", "Workforce"), "1"),
		gone,
		concept("5", "Awnings", "tarpaulins"),
	)
	assert.Equal(t, thesaurus.Changes{
		Added: []string{"Workforce"},
		Retired: []thesaurus.Retired{
			{Label: "Ranch Hands", Now: []string{"Harvest Hands"}},
			{Label: "Shade", Now: []string{"Awnings"}},
		},
		Renamed: []thesaurus.Renamed{{From: "Field Hands", To: "Harvest Hands"}, {From: "People", To: "Persons"}},
		Moved:   []thesaurus.Moved{{Label: "Harvest Hands", From: []string{"Persons"}, To: []string{"Workforce"}}},
		Terms: []thesaurus.Passed{
			{Term: "Ranch Hands", From: "", To: "Harvest Hands"},
			{Term: "drovers", From: "Ranch Hands", To: "Harvest Hands"},
			{Term: "hoers", From: "Field Hands"},
			{Term: "sun sails", From: "Awnings"},
			{Term: "tarpaulins", To: "Awnings"},
		},
	}, thesaurus.Compare(earlier, later))
}

func TestAnEditionComparedWithItselfIsEmpty(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 10).Draw(t, "concepts")
		id := rapid.Custom(func(t *rapid.T) string { return fmt.Sprint(rapid.IntRange(0, n).Draw(t, "id")) })
		var concepts []thesaurus.Concept
		for i := range n {
			c := concept(
				fmt.Sprint(i),
				rapid.SampledFrom([]string{"a", "b", "c d", "e"}).Draw(t, "label"),
				rapid.SliceOfN(rapid.SampledFrom([]string{"x", "y z", "a"}), 0, 3).Draw(t, "terms")...)
			c.Broader, c.Retired = rapid.SliceOfN(id, 0, 2).Draw(t, "broader"), rapid.Bool().Draw(t, "retired")
			concepts = append(concepts, c)
		}
		assert.True(t, thesaurus.Compare(build(concepts...), build(concepts...)).None())
	})
}

func TestWhatWasUsedBeforeIsToldByStatementsOrByTheNote(t *testing.T) {
	v := almagre(t)
	force, _ := v.Find("Agricultural Labor Force")
	older, _ := v.Find("Rural Occupations")
	assert.Equal(t, thesaurus.History{Since: 2014, Before: []int{older}}, v.History(force), "read out of the note")
	assert.Equal(t, thesaurus.History{After: []int{force}}, v.History(older))

	young := concept("2", "Pickers")
	young.Since, young.Replaces = "2019-01-01", []string{"1"}
	said := build(concept("1", "Field Hands"), young)
	at, ok := said.Find("pickers")
	require.True(t, ok)
	assert.Equal(t, thesaurus.History{Since: 2019, Before: []int{0}, Said: true}, said.History(at))
	assert.Equal(t, []int{at}, said.History(0).After, "both sides know it")

	assert.Equal(t, []string{"Farm Proprietors"}, v.Named("For those who own or lease the land use Farm Proprietors."))
	assert.Empty(t, v.Named("all work in the country, rest and shade"), "written as the vocabulary writes it")
}

func TestABranchButSomeIsWhatIsComeToWithoutThem(t *testing.T) {
	v := build(
		concept("1", "A"),
		below(concept("2", "B"), "1"),
		below(concept("3", "C"), "1"),
		below(concept("4", "D"), "2", "3"),
		below(concept("5", "E"), "2"),
	)
	labels := func(of []int) (out []string) {
		for _, h := range of {
			out = append(out, v.Label(h))
		}
		return out
	}
	assert.Equal(t, []string{"A", "C", "D"}, labels(v.BelowBut(0, []int{1})), "D stands below C too")
	assert.Equal(t, []string{"A"}, labels(v.BelowBut(0, []int{1, 2})))
}
