package text_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/text"
)

func TestFamiliesAgreeWithWorkedExamples(t *testing.T) {
	type family struct {
		Label string
		Forms []string
	}
	type example struct {
		Forms    map[string]int
		Keys     map[string]string
		Families []family
	}
	for _, c := range read[example](t, "families.json") {
		byKey := map[string]*family{}
		for form, records := range c.Forms {
			key := text.FamilyKey(strings.Split(form, " "))
			assert.Equal(t, c.Keys[form], key, "key of %q", form)
			f := byKey[key]
			if f == nil {
				f = &family{Label: form}
				byKey[key] = f
			}
			f.Forms = append(f.Forms, form)
			if text.Labels(form, records, f.Label, c.Forms[f.Label]) {
				f.Label = form
			}
		}
		var got []family
		for _, f := range byKey {
			slices.Sort(f.Forms)
			got = append(got, *f)
		}
		slices.SortFunc(got, func(a, b family) int { return strings.Compare(a.Label, b.Label) })
		assert.Equal(t, c.Families, got)
	}
}

func TestAFamilyKeyIsTheSameForHyphenJoinedAndPlural(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		word := rapid.StringMatching(`[a-z]{2,7}[bdgklmnprtw]`)
		a, b := word.Draw(t, "first"), word.Draw(t, "second")
		key := text.FamilyKey(text.Tokens(a + " " + b))
		assert.Equal(t, key, text.FamilyKey(text.Tokens(a+"-"+b)))
		assert.Equal(t, key, text.FamilyKey(text.Tokens(a+" "+b+"s'")))
	})
}
