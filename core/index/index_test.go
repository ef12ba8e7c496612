package index_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Words few enough that phrases and pairs come about by chance.
var words = []string{
	"heat",
	"farm",
	"farmers",
	"farming",
	"crew",
	"crews",
	"rest",
	"of",
	"the",
	"cane",
	"cutter's",
	"手疹",
	"heat-stress",
	"labour",
	"labor",
	"CO₂",
}

func value(t *rapid.T, label string) string {
	return strings.Join(
		rapid.SliceOfN(rapid.SampledFrom(words), 0, 9).Draw(t, label),
		rapid.SampledFrom([]string{" ", ", ", "-"}).Draw(t, "between"),
	)
}

func records(t *rapid.T) []*bib.Record {
	n := rapid.IntRange(0, 12).Draw(t, "records")
	out := make([]*bib.Record, n)
	for i := range out {
		out[i] = &bib.Record{Title: value(t, "title"), Abstract: value(t, "abstract")}
		for range rapid.IntRange(0, 2).Draw(t, "keywords") {
			out[i].Keywords = append(out[i].Keywords, value(t, "keyword"))
		}
		for range rapid.IntRange(0, 2).Draw(t, "headings") {
			out[i].Headings = append(
				out[i].Headings,
				bib.Assignment{Label: value(t, "heading"), Central: rapid.Bool().Draw(t, "central"),
					Qualifiers: rapid.SliceOfN(rapid.SampledFrom([]string{"causes", "Prevention"}), 0, 2).Draw(t, "qualifiers")},
			)
		}
	}
	return out
}

func pattern(t *rapid.T, label string) text.Pattern {
	typed := rapid.SampledFrom([]string{"heat", "farm*", "heat stress", "rest of the", "labo?r", "labo*r",
		"cane cutter*", "farm* crew?", "*ess", "crew", "疹", "of", "no such", "?? heat"}).
		Draw(t, label)
	p, err := text.ParsePattern(typed)
	require.NoError(t, err)
	return p
}

// scan answers by looking at every value of every record.
func scan(records []*bib.Record, fields bib.Field, matches func(tokens []string) bool) []uint32 {
	out := []uint32{}
	for i, r := range records {
		found := false
		r.Values(fields, func(_ bib.Field, v string) { found = found || matches(text.Tokens(v)) })
		if found {
			out = append(out, uint32(i))
		}
	}
	return out
}

func members(b *roaring.Bitmap) []uint32 { return append([]uint32{}, b.ToArray()...) }

var fieldSets = []bib.Field{bib.Title, bib.Abstract, bib.Keyword, bib.TitleAbstract, bib.Text, bib.Any}

func TestIndexAnswersAsAScanDoes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rs := records(t)
		ix := index.Build(rs)
		fields := rapid.SampledFrom(fieldSets).Draw(t, "fields")
		p, q, within := pattern(t, "left"), pattern(t, "right"), rapid.IntRange(1, 5).Draw(t, "within")

		phrase := scan(rs, fields, func(tokens []string) bool { return len(p.Find(tokens)) > 0 })
		assert.Equal(t, phrase, members(ix.Phrase(p, fields)), "phrase %s", p)

		near := scan(rs, fields, func(tokens []string) bool { return text.Near(p, q, text.Within(within), tokens) })
		assert.Equal(t, near, members(ix.Near(p, q, text.Within(within), fields)), "%s ~%d %s", p, within, q)

		set := roaring.New()
		for i := range rs {
			if rapid.Bool().Draw(t, "in the set") {
				set.Add(uint32(i))
			}
		}
		some := slices.DeleteFunc(slices.Clone(phrase), func(n uint32) bool { return !set.Contains(n) })
		assert.Equal(t, some, members(ix.PhraseWithin(p, fields, set)))
	})
}

func TestHeadingsAreFoundByLabelCentralAndQualifier(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rs := records(t)
		label := text.Label(value(t, "wanted"))
		central := rapid.Bool().Draw(t, "central")
		qualifiers := rapid.SliceOfN(rapid.SampledFrom([]string{"causes", "prevention", "therapy"}), 0, 2).
			Draw(t, "qualifiers")
		want := []uint32{}
		for i, r := range rs {
			if slices.ContainsFunc(r.Headings, func(a bib.Assignment) bool {
				return text.Label(a.Label) == label && (!central || a.Central) && (len(qualifiers) == 0 ||
					slices.ContainsFunc(a.Qualifiers, func(q string) bool { return slices.Contains(qualifiers, text.Label(q)) }))
			}) {
				want = append(want, uint32(i))
			}
		}
		assert.Equal(t, want, members(index.Build(rs).Heading(thesaurus.Labelled(label), central, qualifiers)))
	})
}

// Whether more headings are looked for than records carry or fewer, those that are carried are found.
func TestHeadingsOfABranchAreFoundWhicheverAreFewer(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rs := records(t)
		ix := index.Build(rs)
		wanted := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) string { return text.Label(value(t, "wanted")) }), 0, 30).
			Draw(t, "labels")
		of := thesaurus.Labelled(wanted...)
		if rapid.Bool().Draw(t, "of a vocabulary") {
			var concepts []thesaurus.Concept
			for i, label := range append(slices.Clone(wanted), "some other") {
				concepts = append(concepts, thesaurus.Concept{ID: fmt.Sprint(i), Labels: []thesaurus.Text{{Value: label}}})
			}
			v, _ := thesaurus.Build(concepts, "")
			var places []int
			for h := range v.Len() {
				if v.Label(h) != "some other" {
					places = append(places, h)
				}
			}
			of = v.These(places...)
			wanted = slices.DeleteFunc(wanted, func(l string) bool { return l == "" })
		}
		want, carried := []uint32{}, []string{}
		for i, r := range rs {
			in := false
			for _, a := range r.Headings {
				if label := text.Label(a.Label); slices.Contains(wanted, label) {
					in = true
					if !slices.Contains(carried, label) {
						carried = append(carried, label)
					}
				}
			}
			if in {
				want = append(want, uint32(i))
			}
		}
		assert.Equal(t, want, members(ix.Heading(of, false, nil)))
		assert.ElementsMatch(t, carried, slices.Collect(ix.Carried(of)))
	})
}

func TestNothingMatchesAcrossTwoValues(t *testing.T) {
	ix := index.Build(
		[]*bib.Record{{Title: "Rest and heat", Abstract: "stress in crews", Keywords: []string{"cane", "cutters"}}},
	)
	for _, typed := range []string{"heat stress", "cane cutters", "crews cane"} {
		p, err := text.ParsePattern(typed)
		require.NoError(t, err)
		assert.True(t, ix.Phrase(p, bib.Text).IsEmpty(), typed)
	}
	heat, stress := text.Literal("heat"), text.Literal("stress")
	assert.True(t, ix.Near(heat, stress, text.Within(3), bib.Text).IsEmpty())
}

func TestStreamHoldsTheTokensOfTheFields(t *testing.T) {
	rs := []*bib.Record{{Title: "Heat: rest", Abstract: "of crews"}, {}, {Title: "Cane", Keywords: []string{"shade"}}}
	ix := index.Build(rs)
	s := ix.Stream(ix.All(), bib.TitleAbstract)
	var got []string
	for i, term := range s.Terms {
		got = append(got, fmt.Sprint(ix.Token(term), " ", s.Begins[i]))
	}
	assert.Equal(t, []string{"heat true", "rest true", "of true", "crews false", "cane true"}, got)
	assert.Equal(t, []uint32{4, 4, 5}, s.Ends)
}

// Nothing stands for no word: it is found nowhere, and nothing falls over.
func TestNoWordIsFoundNowhere(t *testing.T) {
	ix := index.Build([]*bib.Record{{Title: "Heat and rest", Abstract: "Shade."}})
	none := text.Literal()
	assert.True(t, ix.Phrase(none, bib.Text).IsEmpty())
	assert.True(t, ix.PhraseWithin(none, bib.Text, ix.All()).IsEmpty())
	assert.True(t, ix.Gram(nil, bib.Text).IsEmpty())
	assert.True(t, ix.Near(none, text.Literal("rest"), text.Within(3), bib.Text).IsEmpty())
	assert.True(t, ix.Near(text.Literal("rest"), none, text.Within(3), bib.Text).IsEmpty())
}

// TestEditedWordsAreAllFound: looking only at words that share their beginning or their end finds the same as
// looking at all.
func TestEditedWordsAreAllFound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		word := rapid.StringOfN(rapid.RuneFrom([]rune("abcé手")), 1, 7, -1)
		all := rapid.SliceOfN(word, 1, 40).Draw(t, "words")
		ix := index.Build([]*bib.Record{{Title: strings.Join(all, " ")}})
		w := index.NewWords(ix)
		of := word.Draw(t, "of")
		var want []string
		if utf8.RuneCountInString(of) >= 4 {
			for n := range uint32(ix.Tokens()) {
				if text.Edited(of, ix.Token(n)) {
					want = append(want, ix.Token(n))
				}
			}
		}
		assert.Equal(t, want, w.Edited(of))
	})
}
