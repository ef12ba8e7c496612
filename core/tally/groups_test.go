package tally

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Ages and humans are counted by headings: with a vocabulary all below one count for it, once a record; what the
// vocabulary does not have stands for itself; key studies that are nowhere in the pool are counted in the same way.
func TestAgesAndHumansAreCountedByHeadings(t *testing.T) {
	record := func(id, title string, headings ...string) *bib.Record {
		r := &bib.Record{ID: id, Title: title}
		for _, h := range headings {
			r.Headings = append(r.Headings, bib.Assignment{Label: h})
		}
		return r
	}
	sample := []*bib.Record{
		record("1", "Shade at school", "Children", "Pupils of Farms", "Humans"),
		record("2", "Shade in the barn", "Animals"),
		record("3", "Shade for pupils", "Pupils of Farms", "Humans", "Animals"),
		record("4", "Shade for children"),
		record("5", "Shade late in life", "Aged"),
		record("6", "Shade", "Older Adults"),
	}
	v, troubles := thesaurus.Build([]thesaurus.Concept{
		{ID: "c", Labels: []thesaurus.Text{{Value: "Children", Language: "en"}}},
		{ID: "p", Labels: []thesaurus.Text{{Value: "Pupils of Farms", Language: "en"}}, Broader: []string{"c"}},
		{ID: "h", Labels: []thesaurus.Text{{Value: "Humans", Language: "en"}}},
		{ID: "a", Labels: []thesaurus.Text{{Value: "Animals", Language: "en"}}},
		{ID: "o", Labels: []thesaurus.Text{{Value: "Older Adults", Language: "en"}}},
		{ID: "g", Labels: []thesaurus.Text{{Value: "Adult Education", Language: "en"}}},
	}, "en")
	require.Empty(t, troubles)
	p := must(NewPool(context.Background(), sample, nil))
	p.Thesaurus = v
	p.Keep()
	rows := func(p *Pool, f Facet) map[string]int {
		out := map[string]int{}
		for _, r := range must(CountList(context.Background(), p, f, []*bib.Record{record("x", "Elsewhere",
			"Pupils of Farms"), record("y", "Elsewhere")})).Rows {
			out[r.Item] = r.Records
		}
		return out
	}
	assert.Equal(t, map[string]int{"Children": 2, "Aged": 1, "Older Adults": 1}, rows(p, Ages))
	assert.Equal(t, map[string]int{"Humans": 2, "Animals": 2}, rows(p, Humans))
	counted := must(
		CountList(
			context.Background(),
			p,
			Ages,
			[]*bib.Record{record("x", "Elsewhere", "Pupils of Farms"), record("y", "Elsewhere")},
		),
	)
	assert.Equal(t, 2, counted.Missing)
	assert.Equal(t, 1, counted.MissingKeys)
	assert.Equal(t, "Children", counted.Rows[0].Item)
	assert.Equal(t, 1, counted.Rows[0].Keys)
	assert.Equal(t, Loss{Records: 4, Share: 4.0 / 6, Keys: 1}, counted.Losses()[0])

	said := map[string]Said{}
	for _, s := range p.Said(Ages) {
		said[s.Kind] = s
	}
	assert.Equal(t, []string{"Children"}, said["child"].Indexed)
	assert.Equal(
		t,
		[]int{2, 2, 1, 3},
		[]int{said["child"].Typed, said["child"].Titled, said["child"].Both, said["child"].Either},
	)
	assert.Equal(t, []string{"Older Adults", "Aged"}, sorted(said["older"].Indexed))

	bare := must(NewPool(context.Background(), sample, nil))
	assert.Equal(
		t,
		map[string]int{"Children": 1, "Aged": 1, "Older Adults": 1},
		rows(bare, Ages),
		"without a vocabulary a heading stands for itself",
	)
}

func sorted(of []string) []string {
	if len(of) == 2 && strings.Compare(of[0], of[1]) < 0 {
		return []string{of[1], of[0]}
	}
	return of
}

// The words of limits can be searched, belong to a facet that there is, and no heading stands for two kinds.
func TestTheWordsOfLimitsCanBeSearched(t *testing.T) {
	n := 0
	for line := range strings.Lines(limitWordList) {
		if strings.HasPrefix(line, "#") {
			continue
		}
		n++
		part := strings.Split(strings.TrimSpace(line), "\t")
		require.Len(t, part, 4, line)
		assert.Contains(t, []Facet{Types, Ages, Humans}, Facet(part[0]))
		assert.Contains(t, []string{"indexed", "title"}, part[2])
		if part[2] == "indexed" && part[0] != "types" {
			of := 0
			for _, k := range kinds {
				if k.facet == Facet(part[0]) && k.is(strings.ReplaceAll(part[3], "*", "")) {
					of++
				}
			}
			assert.Equal(t, 1, of, part[3])
			assert.NotContains(t, part[3], "*", "a heading is looked up by its words")
		}
	}
	words := 0
	for _, k := range kinds {
		words += len(k.indexed) + len(k.titles)
		assert.NotEmpty(t, k.titles, k.name)
	}
	assert.Equal(t, n, words)
	assert.Equal(t, []string{"infant"}, func() (out []string) {
		for _, k := range kinds {
			if k.facet == Ages && k.is(text.Label("Infants")) {
				out = append(out, k.name)
			}
		}
		return out
	}())
}
