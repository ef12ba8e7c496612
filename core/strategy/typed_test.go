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

// TestWhatIsTypedIsReadBack: in every dialect a strategy as it is typed, line by line or whole, is read back to
// what it was said to find.
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
			r := &bib.Record{
				Title:     phrase() + phrase(),
				Abstract:  phrase(),
				Year:      rapid.IntRange(1999, 2002).Draw(t, "year"),
				Languages: []string{"eng"},
			}
			if rapid.Bool().Draw(t, "indexed") {
				r.Headings = []bib.Assignment{{Label: "Heat Illness"}}
			}
			records = append(records, r)
		}
		var s strategy.Strategy
		for i := range rapid.IntRange(1, 3).Draw(t, "blocks") {
			b := strategy.Block{Name: string(rune('A' + i)), Searched: true, Negated: i > 0 && rapid.Bool().Draw(t, "negated")}
			for range rapid.IntRange(1, 4).Draw(t, "terms") {
				term := strategy.Term{
					Kind:  strategy.TextTerm,
					Text:  phrase(),
					Field: rapid.SampledFrom([]string{"text", "title", "titleAbstract"}).Draw(t, "field"),
					On:    true,
				}
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
			said := typed.Whole.Said
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

// A block that is said in a source's own words there stands as those where its lines are joined, and in the whole;
// elsewhere, and where the words cannot be read, its lines stand, which is said.
func TestABlockIsSaidInASourcesOwnWords(t *testing.T) {
	surco, _ := dialect.Named("surco")
	almagre, _ := dialect.Named("almagre")
	words := func(all ...string) (out []strategy.Term) {
		for _, w := range all {
			out = append(out, strategy.Term{Kind: strategy.TextTerm, Text: w, Field: "text", On: true})
		}
		return out
	}
	s := strategy.Strategy{
		Blocks: []strategy.Block{
			{Name: "A", Searched: true, Terms: words("cane", "rest")},
			{Name: "B", Searched: true, Terms: words("heat")},
		},
	}
	plain, err := s.Typed(surco, nil, dialect.Options{})
	require.NoError(t, err)
	elsewhere, err := s.Typed(almagre, nil, dialect.Options{})
	require.NoError(t, err)
	s.Blocks[0].Worded = map[string]string{"surco": "words{cane…} or topic{Resting}"}
	s.Blocks[1].Worded = map[string]string{"surco": "words{hot}"}
	own, err := s.Typed(surco, nil, dialect.Options{})
	require.NoError(t, err)
	require.Len(t, own.Lines, len(plain.Lines), "lines keep their numbers")
	assert.Empty(t, own.Lines[0].Texts)
	assert.Empty(t, own.Lines[1].Texts)
	assert.Equal(t, []string{"words{cane…} or topic{Resting}"}, own.Lines[2].Texts)
	assert.Equal(t, strategy.OwnWording, own.Lines[2].Notes[0].Code)
	assert.Equal(t, []string{"words{hot}"}, own.Lines[3].Texts, "a block of one term has no line but that")
	assert.Equal(t, "1\twords{cane…} or topic{Resting}\n2\twords{hot}\n3\tline 1 and line 2", own.Text(surco))
	r, err := surco.Read(own.Text(surco), nil)
	require.NoError(t, err)
	assert.True(t, dialect.Same(own.Whole.Said, r.Expr()), "what is typed is what it was said to say")
	assert.Contains(t, own.Whole.Text(), "Resting")
	same, err := s.Typed(almagre, nil, dialect.Options{})
	require.NoError(t, err)
	assert.Equal(t, elsewhere.Whole, same.Whole)

	s.Blocks[0].Worded["surco"], s.Blocks[1].Worded["surco"] = "words{cane", "nowhere{hot"
	bad, err := s.Typed(surco, nil, dialect.Options{})
	require.NoError(t, err)
	assert.Equal(t, plain.Lines[0].Texts, bad.Lines[0].Texts)
	assert.Equal(t, strategy.WordingUnread, bad.Lines[2].Notes[0].Code)
	assert.Contains(t, bad.Lines[2].Notes[0].Instead, "at character")
	assert.Equal(t, plain.Lines[3].Texts, bad.Lines[3].Texts)
	assert.Equal(t, strategy.WordingUnread, bad.Lines[3].Notes[0].Code)
	s.Blocks[0].Terms[0].On, s.Blocks[0].Terms[1].On = false, false
	s.Blocks[0].Worded["surco"] = "words{cane}"
	none, err := s.Typed(surco, nil, dialect.Options{})
	require.NoError(t, err)
	assert.Empty(t, none.Whole.Queries, "a block that finds nothing is not said otherwise")
}
