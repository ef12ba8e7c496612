package set_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/review"
	"tamiz/core/set"
	"tamiz/core/strategy"
)

// What a line finds, by what the parts of the strategy find, is what its expression finds: also a limit that keeps
// out, whose line says what it keeps out, and all before NOT.
func TestALineFindsWhatItSays(t *testing.T) {
	ctx := context.Background()
	rapid.Check(t, func(t *rapid.T) {
		var records []*bib.Record
		for range rapid.IntRange(1, 20).Draw(t, "records") {
			r := &bib.Record{
				Title: rapid.SampledFrom([]string{"Crews at rest", "Pickers in shade", "Crews in shade", "Mules"}).
					Draw(t, "title"),
				Languages: []string{rapid.SampledFrom([]string{"eng", "spa"}).Draw(t, "language")},
			}
			for _, h := range rapid.SliceOfNDistinct(rapid.SampledFrom([]string{"Humans", "Animals"}), 0, 2, rapid.ID).Draw(t,
				"headings") {
				r.Headings = append(r.Headings, bib.Assignment{Label: h})
			}
			records = append(records, r)
		}
		block := func(id, name, word string, negated bool) review.Block {
			b := review.Block{ID: id, Name: name, Searched: rapid.Bool().Draw(t, "searched") || id == "a", Negated: negated}
			b.Terms = []review.Term{
				{ID: id + "1", Term: strategy.Term{Kind: strategy.TextTerm, Text: word, Field: "text", On: true}},
				{
					ID:   id + "2",
					Term: strategy.Term{Kind: strategy.TextTerm, Text: "shade", Field: "text", On: rapid.Bool().Draw(t, "on")},
				},
			}
			return b
		}
		d := review.Document{Blocks: []review.Block{block("a", "A", "crews", false), block("n", "N", "rest", true)}}
		if rapid.Bool().Draw(t, "languages") {
			d.Limits = append(d.Limits, strategy.Limit{Kind: strategy.LanguagesLimit, Values: []string{"eng"}})
		}
		if rapid.Bool().Draw(t, "humans") {
			d.Limits = append(
				d.Limits,
				strategy.Limit{Kind: strategy.HumansLimit, Values: []string{"Humans"}, Against: []string{"Animals"}},
			)
		}
		lines, err := d.Numbered(nil)
		require.NoError(t, err)
		s := coverage.NewSet(records)
		reach, err := coverage.Find(ctx, s, d.Strategy(""))
		require.NoError(t, err)
		for _, n := range lines {
			d.Lines = nil
			of, err := d.ReadLine(nil, fmt.Sprint("1 or ", n.Number), "")
			require.NoError(t, err)
			found := set.LineRecords(d, reach, of.Parts[1])
			require.NotNil(t, found, "%s", n.Kind)
			assert.Equal(t, n.Expr.Match(s.Index).ToArray(), found.ToArray(), "line %d, %s", n.Number, n.Kind)
		}
	})
}
