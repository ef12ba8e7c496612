package bib_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/bib"
)

func TestJoiningTakesWhatTheFirstLacks(t *testing.T) {
	first := &bib.Record{
		ID:        "A1",
		Accession: "A1",
		Title:     "Heat in crews",
		Year:      2014,
		Authors:   []bib.Person{{Family: "Velkana", Given: "Temi"}},
		Keywords:  []string{"heat", "Rest breaks"},
		Headings: []bib.Assignment{
			{Label: "Kidney Harm", Qualifiers: []string{"causes"}},
		},
		Types:     []string{"JOUR"},
		FirstPage: "11",
	}
	second := &bib.Record{
		ID:        "B7",
		Accession: "B7",
		Title:     "Heat in Crews.",
		Abstract:  "They rested.",
		Year:      2015,
		Authors:   []bib.Person{{Family: "Velkana", Given: "T."}},
		DOI:       "10.99999/b",
		Keywords:  []string{"rest-breaks", "shade"},
		Headings: []bib.Assignment{
			{Label: "kidney harm", Central: true, Qualifiers: []string{"prevention", "causes"}},
			{Label: "Shade"},
		},
		Types:     []string{"Trial", "JOUR"},
		FirstPage: "12",
		LastPage:  "19",
	}
	assert.Equal(
		t,
		&bib.Record{
			ID:        "A1",
			Accession: "A1",
			Title:     "Heat in crews",
			Abstract:  "They rested.",
			Year:      2014,
			Authors:   []bib.Person{{Family: "Velkana", Given: "Temi"}},
			DOI:       "10.99999/b",
			Keywords: []string{
				"heat",
				"Rest breaks",
				"shade",
			},
			Headings: []bib.Assignment{
				{Label: "Kidney Harm", Central: true, Qualifiers: []string{"causes", "prevention"}},
				{Label: "Shade"},
			},
			Types:     []string{"JOUR", "Trial"},
			FirstPage: "11",
		},
		bib.Join(first, second),
	)
	assert.Equal(t, []string{"causes"}, first.Headings[0].Qualifiers, "neither is changed")
}

func some(t *rapid.T, name string) *bib.Record {
	word := rapid.SampledFrom([]string{"", "heat", "rest", "shade"})
	list := rapid.SliceOfNDistinct(rapid.SampledFrom([]string{"heat", "rest", "shade"}), 0, 3, rapid.ID)
	r := &bib.Record{
		Title:     word.Draw(t, name),
		Abstract:  word.Draw(t, name),
		Journal:   word.Draw(t, name),
		DOI:       word.Draw(t, name),
		Year:      rapid.SampledFrom([]int{0, 2014, 2015}).Draw(t, name),
		Keywords:  list.Draw(t, name),
		Languages: list.Draw(t, name),
		URLs:      list.Draw(t, name),
	}
	for _, l := range list.Draw(t, name) {
		r.Headings = append(r.Headings, bib.Assignment{Label: l, Central: rapid.Bool().Draw(t, name)})
	}
	return r
}

func TestJoiningLosesNothingAndIsDoneOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := some(t, "a"), some(t, "b")
		joined := bib.Join(a, b)
		for i, f := range joined.Fields() {
			fa, fb := a.Fields()[i], b.Fields()[i]
			if len(fa.Values)+len(fb.Values) > 0 {
				assert.NotEmpty(t, f.Values, f.Name)
			}
		}
		for _, k := range b.Keywords {
			assert.Contains(t, joined.Keywords, k)
		}
		assert.Equal(t, joined, bib.Join(joined, b), "the same again changes nothing")
		assert.Empty(t, bib.Differences(a, a))
		for _, d := range bib.Differences(a, b) {
			assert.NotEqual(t, d.A, d.B)
		}
	})
}

func TestOnlyChosenFieldsStay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := some(t, "record")
		chosen := map[string]bool{}
		for _, name := range bib.FieldNames {
			chosen[name] = rapid.Bool().Draw(t, name)
		}
		less := r.Only(chosen)
		for i, f := range r.Fields() {
			if chosen[f.Name] {
				assert.Equal(t, f.Values, less.Fields()[i].Values, f.Name)
			} else {
				assert.Empty(t, less.Fields()[i].Values, f.Name)
			}
		}
	})
}

func TestANameIsWrittenSoThatItIsReadAgain(t *testing.T) {
	for _, p := range []bib.Person{{Family: "Velkana", Given: "Temi, Jr."}, {Family: "Shade Group WHR"},
		{Family: "Board of Warm Work"}, bib.ParsePerson("Wexlin Z"), {Family: "van der Velkana", Given: "T."}} {
		assert.Equal(t, p, bib.ParsePerson(p.Line()), p.Line())
	}
}
