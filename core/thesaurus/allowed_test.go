package thesaurus_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/thesaurus"
)

// Which qualifiers a heading allows is said by either of the two, and stays with the vocabulary; where none says
// it, it is not known.
func TestHeadingsAllowQualifiers(t *testing.T) {
	of := func(label string) []thesaurus.Text { return []thesaurus.Text{{Value: label, Language: "en"}} }
	v, troubles := thesaurus.Build([]thesaurus.Concept{
		{ID: "q2", Labels: of("therapy"), Qualifier: true, Related: []string{"2", "gone"}},
		{ID: "q1", Labels: of("causes"), Qualifier: true},
		{ID: "1", Labels: of("Agues"), Related: []string{"q1", "q2", "2", "q1"}},
		{ID: "2", Labels: of("Crews")},
		{ID: "3", Labels: of("Tools")},
	}, "")
	assert.Empty(t, troubles)
	var body bytes.Buffer
	require.NoError(t, v.Write(&body))
	again, err := thesaurus.Read(&body)
	require.NoError(t, err)
	for _, v := range []*thesaurus.Thesaurus{v, again} {
		for label, want := range map[string][]string{"Agues": {"causes", "therapy"}, "Crews": {"therapy"}, "Tools": nil} {
			at, ok := v.Find(label)
			require.True(t, ok)
			allowed, said := v.Allows(at)
			assert.True(t, said)
			assert.Equal(t, want, allowed, label)
		}
		agues, _ := v.Find("Agues")
		assert.Len(t, v.At(agues).Related, 1, "a qualifier is no related heading")
	}

	silent, _ := thesaurus.Build(
		[]thesaurus.Concept{{ID: "q", Labels: of("causes"), Qualifier: true}, {ID: "1", Labels: of("Agues")}},
		"",
	)
	_, said := silent.Allows(0)
	assert.False(t, said)
}
