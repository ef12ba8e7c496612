package thesaurus_test

import (
	"bytes"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

func suggested(v *thesaurus.Thesaurus, word string) (out []string) {
	for _, l := range v.Suggest(word, 0) {
		out = append(out, fmt.Sprintf("%s by %s %q %s%s", v.Label(l.Heading), l.Via, l.Matched, l.Forgiven, l.Meant))
	}
	return out
}

func TestALayWordInAnyWritingLeadsToTheHeading(t *testing.T) {
	v := almagre(t)
	for word, want := range map[string]string{
		"agricultural labourer":        `Agricultural Labor Force by entryTerm "agricultural labourers" `,
		"agricultural laborers":        `Agricultural Labor Force by entryTerm "agricultural labourers" form`,
		"labor force agricultural":     `Agricultural Labor Force by label "Agricultural Labor Force" order`,
		"field-workers":                `Field Workers by label "Field Workers" `,
		"farm worker":                  `Agricultural Labor Force by entryTerm "farm workers" `,
		"agricultral workers":          `Agricultural Labor Force by entryTerm "agricultural workers" letteragricultural workers`,
		"jornaleros":                   `Agricultural Labor Force by entryTerm "jornaleros" `,
		"mano de obra agricola":        `Agricultural Labor Force by label "Mano de obra agrícola" `,
		"recolectores":                 `Crop Harvesters by entryTerm "recolectores" `,
		"seasonal employement":         `Seasonal Employment by label "Seasonal Employment" letterseasonal employment`,
		"programme of heat protection": `Heat Protection Programmes by label "Heat Protection Programmes" order`,
	} {
		found := suggested(v, word)
		if word == "programme of heat protection" { // "of" stands in none of them
			assert.Empty(t, found, word)
			continue
		}
		if assert.NotEmpty(t, found, word) {
			assert.Equal(t, want, found[0], word)
		}
	}
	assert.Empty(t, v.Suggest("", 0))
	assert.Empty(t, v.Suggest("qqqqqqqq", 0))
	assert.Len(t, v.Suggest("a", 5), 5, "no more than are wanted")
}

func TestANotationLeadsToItsHeading(t *testing.T) {
	v, _ := thesaurus.Build(
		[]thesaurus.Concept{{ID: "1", Labels: []thesaurus.Text{{Value: "Shade"}}, Notation: "A1.20"}},
		"",
	)
	leads := v.Suggest("a1.20", 0)
	require.Len(t, leads, 1)
	assert.Equal(t, thesaurus.Notation, leads[0].Via)
}

// scan is what LookUp has to find, found by reading everything.
func scan(concepts []thesaurus.Concept, word string) map[string]bool {
	wanted := text.Tokens(word)
	found := map[string]bool{}
	for _, c := range concepts {
		for _, x := range slices.Concat(c.Labels, c.EntryTerms, c.ScopeNotes, c.HistoryNotes) {
			tokens := text.Tokens(x.Value)
			for i := range tokens {
				if end := i + len(wanted); end <= len(tokens) && slices.Equal(tokens[i:end-1], wanted[:len(wanted)-1]) &&
					strings.HasPrefix(tokens[end-1], wanted[len(wanted)-1]) {
					found[c.ID] = true
				}
			}
		}
	}
	return found
}

func TestLookingUpFindsWhatReadingEverythingFinds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		words := rapid.Custom(func(t *rapid.T) string {
			return strings.Join(
				rapid.SliceOfN(rapid.SampledFrom([]string{"farm", "farms", "Farming", "crew", "café", "heat", "he", "of"}), 1, 4).
					Draw(t, "words"),
				" ",
			)
		})
		texts := rapid.SliceOfN(
			rapid.Map(words, func(s string) thesaurus.Text { return thesaurus.Text{Value: s, Language: "en"} }),
			0,
			3,
		)
		var concepts []thesaurus.Concept
		for i := range rapid.IntRange(1, 8).Draw(t, "concepts") {
			concepts = append(
				concepts,
				thesaurus.Concept{ID: fmt.Sprint(i), Labels: []thesaurus.Text{{Value: words.Draw(t, "label"), Language: "en"}},
					EntryTerms: texts.Draw(t, "terms"), ScopeNotes: texts.Draw(t, "notes"), HistoryNotes: texts.Draw(t, "history")},
			)
		}
		v, _ := thesaurus.Build(concepts, "")
		word := words.Draw(t, "word")
		found := map[string]bool{}
		for _, l := range v.LookUp(word) {
			found[v.At(l.Heading).ID] = true
		}
		assert.Equal(t, scan(concepts, word), found, word)
		suggested := v.Suggest(word, 0)
		for i, l := range v.LookUp(word) {
			assert.Equal(t, l, suggested[i], "what is found as it is written comes first")
		}
	})
}

func TestAThesaurusIsReadBackAsItWasWritten(t *testing.T) {
	v := almagre(t)
	var body bytes.Buffer
	require.NoError(t, v.Write(&body))
	packed := body.Bytes()
	again, err := thesaurus.Read(bytes.NewReader(packed))
	require.NoError(t, err)
	require.Equal(t, v.Len(), again.Len())
	for h := range v.Len() {
		require.Equal(t, v.At(h), again.At(h))
	}
	assert.Equal(t, v.Qualifiers, again.Qualifiers)
	assert.Equal(t, []string{"en", "es"}, again.Spoken())
	assert.Equal(t, v.LookUp("work"), again.LookUp("work"))
	assert.True(t, thesaurus.Compare(v, again).None())
	for _, cut := range []int{0, 1, len(packed) / 2, len(packed) - 1} {
		_, err := thesaurus.Read(bytes.NewReader(packed[:cut]))
		assert.Error(t, err)
	}
	assert.Greater(t, v.Bytes(), int64(10_000))
}

func FuzzRead(f *testing.F) {
	v, _ := thesaurus.Build(
		[]thesaurus.Concept{
			{ID: "1", Labels: []thesaurus.Text{{Value: "Shade"}}, EntryTerms: []thesaurus.Text{{Value: "sun", Language: "en"}}},
		},
		"",
	)
	var body bytes.Buffer
	require.NoError(f, v.Write(&body))
	f.Add(body.Bytes())
	f.Fuzz(func(t *testing.T, body []byte) {
		v, err := thesaurus.Read(bytes.NewReader(body))
		if err != nil {
			return
		}
		for h := range v.Len() {
			v.At(h)
		}
		v.Suggest("sha", 10)
	})
}
