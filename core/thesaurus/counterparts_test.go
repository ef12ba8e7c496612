package thesaurus_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/thesaurus"
)

func TestCounterpartsAreProposedTheSurestFirst(t *testing.T) {
	en := func(s string) thesaurus.Text { return thesaurus.Text{Value: s, Language: "en"} }
	one, _ := thesaurus.Build([]thesaurus.Concept{
		{
			ID:         "a:1",
			Labels:     []thesaurus.Text{en("Crop Harvesters"), {Value: "Recolectores", Language: "es"}},
			EntryTerms: []thesaurus.Text{en("cane cutters")},
			Close:      []string{"b:3"},
		},
		{ID: "a:2", Labels: []thesaurus.Text{en("Heat Illness")}},
		{ID: "a:3", Labels: []thesaurus.Text{en("Nothing Like It")}},
	}, "en")
	other, _ := thesaurus.Build([]thesaurus.Concept{
		{ID: "b:1", Labels: []thesaurus.Text{en("Cutting gangs")}, EntryTerms: []thesaurus.Text{en("cane cutters")}},
		{ID: "b:2", Labels: []thesaurus.Text{en("Harvest hands")}, Exact: []string{"a:1"}},
		{ID: "b:3", Labels: []thesaurus.Text{en("Pickers")}},
		{ID: "b:4", Labels: []thesaurus.Text{en("Heat illness")}},
		{ID: "b:5", Labels: []thesaurus.Text{en("Hot work")}, EntryTerms: []thesaurus.Text{en("heat illness")}},
		{ID: "b:6", Labels: []thesaurus.Text{{Value: "Recolectores", Language: "es"}}},
	}, "en")
	of := func(label string) (out []string) {
		h, ok := one.Find(label)
		assert.True(t, ok)
		for _, c := range one.Counterparts(h, other) {
			out = append(out, string(c.Via)+" "+c.Heading)
		}
		return out
	}
	assert.Equal(
		t,
		[]string{"exactMatch Harvest hands", "closeMatch Pickers", "label Recolectores", "entryTerm Cutting gangs"},
		of("Crop Harvesters"),
	)
	assert.Equal(t, []string{"label Heat illness", "entryTerm Hot work"}, of("Heat Illness"))
	assert.Empty(t, of("Nothing Like It"))
}
