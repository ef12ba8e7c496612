package strategy_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/strategy"
)

// TestWhatIsTypedIsReadBack: in every dialect a strategy as it is typed, line by line or whole, is read back to what it was
// said to find.
func TestWhatIsTypedIsReadBack(t *testing.T) {
	words := []string{"heat", "stress", "cane", "cutters", "rest", "shade"}
	rapid.Check(t, func(t *rapid.T) {
		phrase := func() string {
			s := ""
			for _, w := range rapid.SliceOfN(rapid.SampledFrom(words), 1, 2).Draw(t, "words") {
				s += " " + w
			}
			return s + rapid.SampledFrom([]string{"", "*"}).Draw(t, "sign")
		}
		var records []*bib.Record
		for range rapid.IntRange(3, 10).Draw(t, "records") {
			r := &bib.Record{Title: phrase() + phrase(), Abstract: phrase(), Year: rapid.IntRange(1999, 2002).Draw(t, "year"), Languages: []string{"eng"}}
			if rapid.Bool().Draw(t, "indexed") {
				r.Headings = []bib.Assignment{{Label: "Heat Illness"}}
			}
			records = append(records, r)
		}
		var s strategy.Strategy
		for i := range rapid.IntRange(1, 3).Draw(t, "blocks") {
			b := strategy.Block{Name: string(rune('A' + i)), Searched: true, Negated: i > 0 && rapid.Bool().Draw(t, "negated")}
			for range rapid.IntRange(1, 4).Draw(t, "terms") {
				term := strategy.Term{Kind: strategy.TextTerm, Text: phrase(), Field: rapid.SampledFrom([]string{"text", "title", "titleAbstract"}).Draw(t, "field"), On: true}
				switch rapid.IntRange(0, 4).Draw(t, "kind") {
				case 0:
					term = strategy.Term{Kind: strategy.HeadingTerm, Heading: "Heat Illness", Narrower: true, On: true}
				case 1:
					term = strategy.Term{Kind: strategy.NearTerm, Left: "cane", Right: "rest", Within: 3, Field: "text", On: true}
				}
				b.Terms = append(b.Terms, term)
			}
			s.Blocks = append(s.Blocks, b)
		}
		if rapid.Bool().Draw(t, "limit") {
			from := 2000
			s.Limits = append(s.Limits, strategy.Limit{Kind: strategy.YearsLimit, From: &from})
		}
		ix := index.Build(records)
		for _, d := range dialect.Known() {
			typed, err := s.Typed(d, nil, dialect.OptionsOf(ix))
			require.NoError(t, err)
			said := typed.Said(d)
			if said == nil {
				continue
			}
			if d.Typed != dialect.AsLines && len(typed.Whole.Queries) > 1 {
				continue // see the law of the dialects
			}
			r, err := d.Read(typed.Text(d), nil)
			require.NoError(t, err)
			require.NotNil(t, r.Expr(), "%s: %q", d.Name, typed.Text(d))
			assert.Equal(t, said.Match(ix).ToArray(), r.Expr().Match(ix).ToArray(), "%s: %s", d.Name, typed.Text(d))
			whole, err := s.Query(nil)
			if err == nil && len(typed.Notes(d)) == 0 {
				assert.Equal(t, whole.Match(ix).ToArray(), said.Match(ix).ToArray(), "%s without a note: %s", d.Name, typed.Text(d))
			}
		}
	})
}
