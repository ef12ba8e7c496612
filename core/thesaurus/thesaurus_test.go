package thesaurus_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/thesaurus"
	"tamiz/demo"
)

func almagre(t testing.TB) *thesaurus.Thesaurus {
	v, troubles := thesaurus.Build(demo.Headings(), "")
	require.Empty(t, troubles)
	return v
}

func TestAWordLeadsToHeadings(t *testing.T) {
	v := almagre(t)
	lead := func(word string) (out []string) {
		for _, l := range v.LookUp(word) {
			out = append(out, fmt.Sprintf("%s by %s %q", v.Label(l.Heading), l.Via, l.Matched))
		}
		return out
	}
	assert.Equal(
		t,
		`Agricultural Labor Force by entryTerm "farmworker"`,
		lead("farmworker")[0],
		"an entry term that is the word itself comes first",
	)
	assert.Equal(t, `Shade by label "Shade"`, lead("SHADE")[0], "a whole label before everything")
	assert.Contains(t, lead("shade"), `Heat Protection Programmes by entryTerm "shade tents"`)
	assert.Contains(t, lead("conscr"), `Armed Services by entryTerm "conscripts"`, "the last word may be a beginning")
	assert.Contains(
		t,
		lead("shelter from the sun"),
		`Shade by note "A degree of darkness of a colour. For shelter from the sun use Heat Protection Programmes."`,
	)
	assert.Empty(t, lead("the heat stro ke"))
	assert.Empty(t, lead("…"))
	at := map[string]bool{}
	for _, l := range v.LookUp("work") {
		assert.False(t, at[v.Label(l.Heading)], "each heading once")
		at[v.Label(l.Heading)] = true
	}
}

func TestAHeadingStandsInAllItsPlaces(t *testing.T) {
	v := almagre(t)
	i, ok := v.Find("agricultural  LABOR force")
	require.True(t, ok)
	assert.Equal(t, [][]string{
		{"People", "Occupational Groups", "Land Workforce", "Agricultural Labor Force"},
		{"People", "Occupational Groups", "Outdoor Trades", "Agricultural Labor Force"},
	}, v.Places(i))
	var below []string
	for _, n := range v.Below(i) {
		below = append(below, v.Label(n))
	}
	slices.Sort(below)
	assert.Equal(
		t,
		[]string{"Agricultural Labor Force", "Crop Harvesters", "Livestock Hands", "Seasonal Employment"},
		below,
	)
	assert.Equal(
		t,
		[]string{"something else"},
		slices.Collect(v.Branch("Something Else").Labels()),
		"what the vocabulary does not know stands for itself",
	)
}

func TestValuesBecomeHeadingsByTheVocabulary(t *testing.T) {
	v := almagre(t)
	for value, want := range map[string]*bib.Assignment{
		"*heat ILLNESS/prevention/causes": {Label: "Heat Illness", Central: true, Qualifiers: []string{"prevention",
			"causes"}},
		"*hydration":           {Label: "Fluid Intake", Central: true},
		"hydration/statistics": {Label: "Fluid Intake", Qualifiers: []string{"statistics"}},
		"hydration":            nil, // an author's word, which leads to the heading
		"hydration/":           nil,
		"Rest / statistics":    {Label: "Rest", Qualifiers: []string{"statistics"}},
		"sunny weather":        nil,
		"*":                    nil,
	} {
		got, ok := v.Assignment(value)
		assert.Equal(t, want != nil, ok, value)
		if want != nil {
			assert.Equal(t, *want, got, value)
		}
	}
	r := v.Assign(
		&bib.Record{
			Keywords: []string{"hydration", "Lintan"},
			Headings: []bib.Assignment{
				{Label: "HEAT illness", Central: true},
				{Label: "Sun", Central: true, Qualifiers: []string{"causes"}},
			},
		},
	)
	assert.Equal(t, []bib.Assignment{{Label: "Heat Illness", Central: true}}, r.Headings)
	assert.Equal(t, []string{"*Sun/causes", "hydration", "Lintan"}, r.Keywords)
	leads, ok := v.Leads("Hydration")
	assert.True(t, ok)
	assert.Equal(t, "Fluid Intake", leads)
}

func TestTheLanguageOfMostLabelsIsTaken(t *testing.T) {
	label := func(pairs ...string) (out []thesaurus.Text) {
		for i := 0; i < len(pairs); i += 2 {
			out = append(out, thesaurus.Text{Value: pairs[i], Language: pairs[i+1]})
		}
		return out
	}
	concepts := []thesaurus.Concept{
		{ID: "1", Labels: label("Wärme", "de", "Heat", "en")},
		{ID: "2", Labels: label("Rest", "en", "Ruhe", "de")},
		{ID: "3", Labels: label("Shade", "")},
	}
	v, troubles := thesaurus.Build(concepts, "")
	assert.Equal(t, "en", v.Language, "of equals English")
	assert.Empty(t, troubles, "a label in no language serves in any")
	v, _ = thesaurus.Build(append(concepts, thesaurus.Concept{ID: "4", Labels: label("Wasser", "de")}), "")
	assert.Equal(t, "de", v.Language)
	v, troubles = thesaurus.Build(concepts[:2], "fr")
	assert.Len(t, troubles, 2)
	assert.Equal(t, 2, v.Len(), "shown in another language")
}

func TestEveryWalkEndsWhateverTheFileSays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 12).Draw(t, "concepts")
		id := rapid.Custom(func(t *rapid.T) string { return fmt.Sprint(rapid.IntRange(0, n).Draw(t, "id")) })
		var concepts []thesaurus.Concept
		for i := range n {
			concepts = append(
				concepts,
				thesaurus.Concept{ID: fmt.Sprint(i), Labels: []thesaurus.Text{{Value: fmt.Sprintf("Heading %d", i)}},
					Broader: rapid.SliceOfN(id, 0, 3).Draw(t, "broader"), Narrower: rapid.SliceOfN(id, 0, 3).Draw(t, "narrower")},
			)
		}
		v, _ := thesaurus.Build(concepts, "")
		require.Equal(t, n, v.Len())
		for i := range v.Len() {
			below := v.Below(i)
			for _, b := range below[1:] {
				assert.NotContains(t, v.Below(b), i, "nothing stands below itself")
			}
			for _, path := range v.Places(i) {
				assert.Equal(t, v.Label(i), path[len(path)-1])
			}
			for _, k := range v.Narrower(i) {
				assert.Contains(t, v.Broader(k), i, "both sides know it")
			}
		}
	})
}

func TestAWordLeadsToTheHeadingOfItsFamily(t *testing.T) {
	v, _ := thesaurus.Build([]thesaurus.Concept{
		{
			ID:         "1",
			Labels:     []thesaurus.Text{{"Crop Harvesters", "en"}},
			EntryTerms: []thesaurus.Text{{"Farm Labourers", "en"}},
		},
		{ID: "2", Labels: []thesaurus.Text{{"Shade", "en"}}, EntryTerms: []thesaurus.Text{{"crop harvester", "en"}}},
	}, "")
	for word, want := range map[string]string{"crop harvester": "Crop Harvesters", "farm laborer": "Crop Harvesters",
		"shades": "Shade", "rest": "", "": ""} {
		got, ok := v.Kin(word)
		assert.Equal(t, want, got, word)
		assert.Equal(t, want != "", ok, word)
	}
}
