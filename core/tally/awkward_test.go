package tally

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus/thesaurustest"
)

// Samples of the kind that a count stumbles over: each facet is counted from the text and from what a pool keeps,
// alike, and every figure is a number.
func TestAwkwardSamples(t *testing.T) {
	many := func(n int, make func(i int) *bib.Record) (out []*bib.Record) {
		for i := range n {
			out = append(out, make(i))
		}
		return out
	}
	plain := func(i int) *bib.Record {
		return &bib.Record{
			ID:       fmt.Sprint(i),
			Title:    fmt.Sprintf("Shade for crew %d", i),
			Abstract: "Crews rested in the shade.",
			Journal:  "Annals of Shade",
			Year:     2010,
			Authors: []bib.Person{
				{Family: "Velkana", Given: "Temi"},
			},
			Keywords: []string{"shade"},
			Headings: []bib.Assignment{{Label: "Shade"}},
		}
	}
	crowd := plain(0)
	for i := range 40_000 {
		crowd.Authors = append(crowd.Authors, bib.Person{Family: fmt.Sprintf("Osolana%d", i), Given: "I."})
	}
	for name, c := range map[string]struct{ sample, contrast []*bib.Record }{
		"one record":                {many(1, plain), nil},
		"no record":                 {nil, many(3, plain)},
		"identical to its contrast": {many(9, plain), many(9, plain)},
		"a contrast of three":       {many(9, plain), many(12, plain)[9:]},
		"no abstracts": {many(5, func(i int) *bib.Record {
			return &bib.Record{ID: fmt.Sprint(i),
				Title: "Shade"}
		}), nil},
		"nothing but numbers": {many(5, func(i int) *bib.Record {
			return &bib.Record{ID: fmt.Sprint(i),
				Title: "2014 15 16"}
		}), nil},
		"nothing at all": {many(5, func(i int) *bib.Record { return &bib.Record{ID: fmt.Sprint(i)} }), nil},
		"a word of 300 letters": {many(3, func(i int) *bib.Record {
			return &bib.Record{ID: fmt.Sprint(i),
				Title: strings.Repeat("x", 300)}
		}), nil},
		"forty thousand authors": {[]*bib.Record{crowd}, nil},
		"Japanese": {many(3, func(i int) *bib.Record {
			return &bib.Record{ID: fmt.Sprint(i), Title: "熱中症 の 予防", Journal: "農業", Languages: []string{"jpn"}}
		}), nil},
	} {
		t.Run(name, func(t *testing.T) {
			p := must(NewPool(context.Background(), c.sample, c.contrast))
			kept := p.Over(p.Sample, p.Contrast)
			kept.Keep()
			for _, f := range Facets {
				read, fast := must(
					Count(context.Background(), p, f, c.sample, DefaultWords),
				), must(
					Count(context.Background(), kept, f, c.sample, DefaultWords),
				)
				require.Equal(t, len(read.Rows), len(fast.Rows), f)
				for i := range fast.Rows {
					unnumbered(&fast.Rows[i])
					unnumbered(&read.Rows[i])
				}
				if len(read.Rows) > 0 {
					require.Equal(t, read.Rows, fast.Rows, f)
				}
				for _, r := range read.Rows {
					assert.NotEmpty(t, r.Item)
					assert.Positive(t, r.Records)
					assert.LessOrEqual(t, r.Records, read.Sample)
					for _, figure := range []float64{r.Share, r.ContrastShare, r.Lift, r.Pull} {
						require.False(t, figure != figure || figure > 1e300 || figure < -1e300, "%s %s: %v", f, r.Item, r)
					}
				}
				losses := read.Losses()
				upTo, half := read.Reach()
				assert.Len(t, losses, len(read.Rows))
				assert.Len(t, upTo, len(read.Rows))
				assert.LessOrEqual(t, half, len(read.Rows))
			}
			p.Teams(c.sample)
			kept.Foreign()
		})
	}
}

func TestIdenticalToItsContrastNothingIsTypical(t *testing.T) {
	records := func() (out []*bib.Record) {
		for i := range 10 {
			out = append(out, &bib.Record{Title: "Shade for crews", Journal: fmt.Sprint("J", i%2)})
		}
		return out
	}
	p := must(NewPool(context.Background(), records(), nil))
	over := p.Over(roaring.BitmapOf(0, 1, 2, 3, 4), p.Index.All())
	for _, r := range must(CountWords(context.Background(), over, nil, DefaultWords)).Rows {
		assert.Zero(t, r.Pull, r.Item)
		assert.InDelta(t, 1, r.Lift, 1e-9, r.Item)
	}
}

// must returns what was worked out; in a test nothing ends before its time.
func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

// A label of letters that change when they are read a second time (ŉ) is counted with what stands below it, and
// searched.
func TestALabelWhoseKeyIsNotItselfKeepsItsCounts(t *testing.T) {
	records := []*bib.Record{
		{ID: "1", Title: "a", Headings: []bib.Assignment{{Label: "ŉ Shade"}}},
		{ID: "2", Title: "b", Headings: []bib.Assignment{{Label: "Tents"}}},
		{ID: "3", Title: "c"},
	}
	v := thesaurustest.Tree(map[string][]string{"ŉ Shade": {"Tents"}})
	p := must(NewPool(context.Background(), records, nil))
	p.Thesaurus = v
	rows := must(Count(context.Background(), p, Headings, nil, DefaultWords)).Rows
	require.Len(t, rows, 2)
	for _, r := range rows {
		if r.Item != "Tents" {
			assert.Equal(t, []int{1, 2}, []int{r.Records, r.WithNarrower}, r.Item)
			assert.EqualValues(t, 1, p.Having(Headings, text.Label(r.Item)).GetCardinality())
		}
	}
	for cql, want := range map[string]uint64{`heading = "ŉ Shade"`: 1, `heading =/narrower "ŉ Shade"`: 2} {
		q, err := query.Parse(cql, v)
		require.NoError(t, err)
		assert.Equal(t, want, q.Expr.Match(p.Index).GetCardinality(), cql)
	}
	term := strategy.Term{Kind: strategy.HeadingTerm, Heading: "ŉ Shade", On: true}
	q, err := term.QueryIn(v)
	require.NoError(t, err)
	assert.EqualValues(t, 1, q.Match(p.Index).GetCardinality())
}
