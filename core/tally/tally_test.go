package tally_test

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/core/text"
)

func records(t *rapid.T, label string, from, most int) []*bib.Record {
	words := []string{"heat", "stress", "of", "the", "farm", "crews", "rest", "2", "x", "break"}
	out := make([]*bib.Record, rapid.IntRange(from, most).Draw(t, label))
	for i := range out {
		line := func(l string) string {
			return strings.Join(
				rapid.SliceOfN(rapid.SampledFrom(words), 0, 12).Draw(t, l),
				rapid.SampledFrom([]string{" ", " ", ", "}).Draw(t, "between"),
			)
		}
		out[i] = &bib.Record{
			ID:       fmt.Sprint(label, i),
			DOI:      fmt.Sprint("10.99999/", label, i),
			Title:    line("title"),
			Abstract: line("abstract"),
		}
	}
	return out
}

// grams counts by the definition: every n-gram of every record.
func grams(rs []*bib.Record, maxWords int) (records, occurrences map[string]int) {
	records, occurrences = map[string]int{}, map[string]int{}
	for _, r := range rs {
		for g, n := range text.Grams([]string{r.Title, r.Abstract}, maxWords) {
			records[g]++
			occurrences[g] += n
		}
	}
	return records, occurrences
}

func TestWordsAreCountedAsDefined(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		sample, contrast, keys := records(t, "s", 1, 8), records(t, "c", 0, 8), records(t, "k", 1, 3)
		o := tally.WordOptions{
			Fields:     bib.TitleAbstract,
			MaxWords:   rapid.IntRange(1, 5).Draw(t, "max words"),
			MinRecords: rapid.IntRange(1, 3).Draw(t, "min records"),
		}
		here, occurrences := grams(sample, o.MaxWords)
		there, _ := grams(contrast, o.MaxWords)
		inKeys, _ := grams(keys, o.MaxWords)
		want := map[string]tally.Row{}
		for g, n := range here {
			if n >= o.MinRecords {
				want[g] = tally.Row{Item: g, Records: n, Occurrences: occurrences[g], ContrastRecords: there[g], Keys: inKeys[g]}
			}
		}
		got := map[string]tally.Row{}
		for _, r := range must(tally.CountWords(context.Background(), must(tally.NewPool(context.Background(), sample,
			contrast)), keys, o)).Rows {
			got[r.Item] = tally.Row{
				Item:            r.Item,
				Records:         r.Records,
				Occurrences:     r.Occurrences,
				ContrastRecords: r.ContrastRecords,
				Keys:            r.Keys,
			}
		}
		assert.Equal(t, want, got)
	})
}

func TestTallyOfTwoDisjointSamplesIsTheirSum(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := records(t, "a", 1, 6), records(t, "b", 1, 6)
		count := func(rs []*bib.Record) map[string]int {
			out := map[string]int{}
			for _, r := range must(tally.CountWords(context.Background(), must(tally.NewPool(context.Background(), rs, nil)),
				nil, tally.WordOptions{Fields: bib.TitleAbstract, MaxWords: 3, MinRecords: 1})).Rows {
				out[r.Item] = r.Records
			}
			return out
		}
		sum := count(a)
		for item, n := range count(b) {
			sum[item] += n
		}
		assert.Equal(t, sum, count(append(append([]*bib.Record{}, a...), b...)))
	})
}

func TestRowsStandByPullThenRecordsThenItem(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rows := must(
			tally.CountWords(
				context.Background(),
				must(tally.NewPool(context.Background(), records(t, "s", 1, 8), records(t, "c", 0, 8))),
				nil,
				tally.WordOptions{Fields: bib.TitleAbstract, MaxWords: 2, MinRecords: 1},
			),
		).Rows
		for i := 1; i < len(rows); i++ {
			a, b := rows[i-1], rows[i]
			pa, pb := tally.Round(a.Pull), tally.Round(b.Pull)
			ordered := pa > pb || pa == pb && (a.Records > b.Records || a.Records == b.Records && a.Item < b.Item)
			assert.True(t, ordered, "%+v before %+v", a, b)
		}
	})
}

func TestARecordOfTheSampleNeverCountsInTheContrast(t *testing.T) {
	heat := &bib.Record{Title: "Heat in crews", Year: 2014, Authors: []bib.Person{{Family: "Velkana"}}}
	again := &bib.Record{Title: "HEAT in crews.", Year: 2015, Authors: []bib.Person{{Family: "velkana"}}}
	other := &bib.Record{Title: "Heat in mills", DOI: "10.99999/x"}
	p := must(tally.NewPool(context.Background(), []*bib.Record{heat}, []*bib.Record{again, other}))
	assert.EqualValues(t, 1, p.Contrast.GetCardinality())
	all := must(
		tally.CountWords(
			context.Background(),
			must(tally.NewPool(context.Background(), []*bib.Record{heat}, []*bib.Record{again})),
			nil,
			tally.WordOptions{Fields: bib.Title, MaxWords: 1, MinRecords: 1},
		),
	)
	assert.Zero(t, all.Contrast, "a contrast wholly inside the sample is none")
}

func TestPullAgreesWithItsDefinition(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n1, n2 := rapid.IntRange(1, 500).Draw(t, "n1"), rapid.IntRange(1, 500).Draw(t, "n2")
		a, b := rapid.IntRange(0, n1).Draw(t, "a"), rapid.IntRange(0, n2).Draw(t, "b")
		n, g := float64(n1+n2), 0.0
		for _, c := range [][3]int{{a, n1, a + b}, {n1 - a, n1, n1 + n2 - a - b}, {b, n2, a + b},
			{n2 - b, n2, n1 + n2 - a - b}} {
			if e := float64(c[1]) * float64(c[2]) / n; c[0] > 0 {
				g += 2 * float64(c[0]) * math.Log(float64(c[0])/e)
			}
		}
		if float64(a)/float64(n1) < float64(b)/float64(n2) {
			g = -g
		}
		assert.InDelta(t, g, tally.Pull(a, n1, b, n2), 1e-9*math.Max(1, math.Abs(g)))
	})
}

func TestHeadingsFoldAndShowTheirMostFrequentWriting(t *testing.T) {
	carry := func(labels ...string) *bib.Record {
		r := &bib.Record{}
		for _, l := range labels {
			central := strings.HasPrefix(l, "*")
			r.Headings = append(r.Headings, bib.Assignment{Label: strings.TrimPrefix(l, "*"), Central: central})
		}
		return r
	}
	sample := []*bib.Record{
		carry("Ear  Guards", "EAR GUARDS"),
		carry("ear guards", "*Ear Guards"),
		carry("Ear Guards"),
		carry("Noise"),
		{Keywords: []string{"ear guards"}},
	}
	got := must(
		tally.CountList(
			context.Background(),
			must(tally.NewPool(context.Background(), sample, nil)),
			tally.Headings,
			[]*bib.Record{carry("ear guards", "Ear Guards"), carry("noise")},
		),
	)
	assert.Equal(t, []tally.Row{
		{Item: "Ear Guards", Records: 3, Occurrences: 5, Share: 0.6, Central: 1, Keys: 1,
			Writings: map[string]int{"EAR GUARDS": 1, "Ear  Guards": 1, "Ear Guards": 2, "ear guards": 1}},
		{Item: "Noise", Records: 1, Occurrences: 1, Share: 0.2, Keys: 1},
	}, got.Rows)
}
