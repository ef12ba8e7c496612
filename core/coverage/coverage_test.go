package coverage_test

import (
	"context"
	"encoding/json"
	"errors"
	"io"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/exchange"
	"tamiz/exchange/ris"
)

const wool = "../../testdata/vectors/wool/"

func read(t *testing.T, name string) []*bib.Record {
	t.Helper()
	f, err := os.Open(wool + name)
	require.NoError(t, err)
	defer f.Close()
	decoded, _, err := exchange.Decode(f)
	require.NoError(t, err)
	var out []*bib.Record
	for r := ris.NewReader(decoded, exchange.Sorter{}, nil); ; {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			return out
		}
		require.NoError(t, err)
		out = append(out, rec)
	}
}

func woolStrategy(t *testing.T) strategy.Strategy {
	t.Helper()
	data, err := os.ReadFile(wool + "strategy.json")
	require.NoError(t, err)
	s, err := strategy.Parse(data)
	require.NoError(t, err)
	return s
}

// The examples list the candidates of all missed studies of a block together; here those of each study.
func TestCandidatesAgreeWithWorkedExamples(t *testing.T) {
	type candidate struct {
		Item, Kind     string
		Rescues, Price int
		Pull           float64
		Suit, Worth    float64
	}
	var expected struct {
		Blocks []struct {
			Name       string
			BlindSpot  uint64
			Missed     []string
			Candidates []candidate
		}
	}
	data, err := os.ReadFile(wool + "rescue.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(data, &expected))
	s := woolStrategy(t)
	sample, keys := coverage.NewSet(read(t, "sample.ris")), coverage.NewSet(read(t, "keys.ris"))
	reach, err := coverage.Find(context.Background(), sample, s)
	require.NoError(t, err)
	rescuer, err := coverage.NewRescuer(context.Background(), sample, keys, s, suits(sample, s))
	require.NoError(t, err)
	for _, want := range expected.Blocks {
		block := slices.IndexFunc(s.Blocks, func(b strategy.Block) bool { return b.Name == want.Name })
		assert.Equal(t, want.BlindSpot, reach.BlindSpot(block).GetCardinality(), "blind spot of %s", want.Name)
		got := map[string]coverage.Candidate{}
		for n, k := range keys.Records {
			candidates := must(rescuer.Study(context.Background(), block, n))
			assert.Equal(t, slices.Contains(want.Missed, k.ID), candidates != nil, "%s missed by %s", k.ID, want.Name)
			for _, c := range candidates {
				key := c.Kind + " " + text.Label(c.Item)
				if earlier, ok := got[key]; ok {
					c.Item = earlier.Item // a heading is written as in the first study that carries it
				}
				got[key] = c
			}
		}
		require.Len(t, got, len(want.Candidates), "candidates for %s", want.Name)
		for _, w := range want.Candidates {
			g, ok := got[w.Kind+" "+text.Label(w.Item)]
			if !assert.True(t, ok, "%s is no candidate", w.Item) {
				continue
			}
			assert.Equal(t, w.Item, g.Item)
			assert.Equal(t, [2]int{w.Rescues, w.Price}, [2]int{g.Rescues, g.Price}, "%s for %s", w.Item, want.Name)
			assert.InDelta(t, w.Pull, g.Pull, 1e-6, "pull of %s", w.Item)
			assert.InDelta(t, w.Suit, g.Suit, 1e-6, "suit of %s", w.Item)
			assert.InDelta(t, w.Worth, g.Worth, 1e-6, "worth of %s", w.Item)
		}
	}
}

func block(name string, terms ...string) strategy.Block {
	b := strategy.Block{Name: name, Searched: true}
	for _, x := range terms {
		b.Terms = append(b.Terms, strategy.Term{Kind: "text", Text: x, Field: "text", On: true})
	}
	return b
}

func titles(titles ...string) coverage.Set {
	var records []*bib.Record
	for _, t := range titles {
		records = append(records, &bib.Record{ID: t, Title: t})
	}
	return coverage.NewSet(records)
}

func TestWhatHoldsAStudyBack(t *testing.T) {
	from := 2000
	s := strategy.Strategy{
		Blocks: []strategy.Block{block("A", "crew*"), block("B", "shade", "rest"), block("N", "mice"), block("C", "kidney")},
		Limits: []strategy.Limit{{Kind: "years", From: &from}},
	}
	s.Blocks[2].Negated, s.Blocks[3].Searched = true, false
	keys := coverage.NewSet([]*bib.Record{
		{Title: "Shade and rest for crews", Year: 2014},
		{Title: "Crews", Year: 2014},
		{Title: "Shade for mice", Year: 1999},
	})
	c, err := coverage.CheckKeys(context.Background(), keys, s)
	require.NoError(t, err)
	assert.Equal(t, 1, c.Caught)
	assert.Equal(t, []coverage.Study{
		{Caught: true, HeldBackBy: []string{}, CaughtBy: map[string][]int{"A": {0}, "B": {0, 1}}},
		{HeldBackBy: []string{"B"}, CaughtBy: map[string][]int{"A": {0}}},
		{HeldBackBy: []string{"A", "N", "limit:years"}, CaughtBy: map[string][]int{"B": {0}, "N": {0}}},
	}, c.Studies)
}

func TestAStrategyWithoutASearchedBlockFindsNothing(t *testing.T) {
	set := titles("Shade", "Rest")
	kept := block("A", "shade")
	kept.Searched = false
	for name, s := range map[string]strategy.Strategy{
		"no block":         {},
		"none is searched": {Blocks: []strategy.Block{kept}},
		"none switched on": {Blocks: []strategy.Block{{Name: "A", Searched: true, Terms: []strategy.Term{{Kind: "text",
			Text: "shade"}}}}},
		"only a NOT block": {Blocks: []strategy.Block{{Name: "N", Searched: true, Negated: true}}},
	} {
		reach, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		assert.True(t, reach.Whole.IsEmpty(), name)
	}
}

func TestBlindSpotLeavesOutRecordsTheBlockFinds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		words := []string{"shade", "rest", "crew", "cane", "mice"}
		var lines []string
		for range rapid.IntRange(1, 15).Draw(t, "records") {
			lines = append(lines, strings.Join(rapid.SliceOfN(rapid.SampledFrom(words), 0, 4).Draw(t, "title"), " "))
		}
		set := titles(lines...)
		s := strategy.Strategy{
			Blocks: []strategy.Block{block("A", "crew", "cane"), block("B", "shade", "rest"), block("N", "mice")},
		}
		s.Blocks[2].Negated = true
		reach, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		for i := range s.Blocks {
			assert.Zero(t, reach.BlindSpot(i).AndCardinality(reach.Blocks[i]))
			assert.Zero(t, reach.Open(i).AndCardinality(reach.Blocks[i]))
		}
		// The price of a word is what the strategy really grows by when it is added.
		for _, w := range words {
			more := s
			more.Blocks = slices.Clone(s.Blocks)
			more.Blocks[0] = block("A", "crew", "cane", w)
			grown, err := coverage.Find(context.Background(), set, more)
			require.NoError(t, err)
			hits, err := coverage.Hits(set, strategy.Term{Kind: "text", Text: w})
			require.NoError(t, err)
			assert.Equal(t, grown.Whole.GetCardinality()-reach.Whole.GetCardinality(), hits.AndCardinality(reach.Open(0)), w)
		}
	})
}

func TestALimitNeverTakesAwayLessThanNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var records []*bib.Record
		for range rapid.IntRange(0, 12).Draw(t, "records") {
			records = append(
				records,
				&bib.Record{
					Title:     "shade",
					Year:      rapid.IntRange(0, 3).Draw(t, "year"),
					Languages: rapid.SliceOfN(rapid.SampledFrom([]string{"eng", "spa"}), 0, 2).Draw(t, "languages"),
				},
			)
		}
		from := 2
		s := strategy.Strategy{
			Blocks: []strategy.Block{block("A", "shade")},
			Limits: []strategy.Limit{{Kind: "years", From: &from}, {Kind: "languages", Values: []string{"eng"}}},
		}
		reach, err := coverage.Find(context.Background(), coverage.NewSet(records), s)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, reach.TakenAwayByLimit(0), 0)
		assert.GreaterOrEqual(t, reach.TakenAwayByLimit(1), 0)
	})
}

func TestWilsonInterval(t *testing.T) {
	low, high := coverage.Wilson(18, 25)
	assert.InDelta(t, 0.524, low, 0.001)
	assert.InDelta(t, 0.857, high, 0.001)
	for _, c := range [][2]int{{0, 0}, {0, 5}, {5, 5}} {
		low, high := coverage.Wilson(c[0], c[1])
		assert.True(t, 0 <= low && low <= high && high <= 1, "%v", c)
	}
}

func TestPiecesPutTogetherAreTheText(t *testing.T) {
	s := strategy.Strategy{Blocks: []strategy.Block{block("A", "cane cutter*", "crew"), block("B", "rest", "cutters")}}
	s.Blocks[1].Terms = append(
		s.Blocks[1].Terms,
		strategy.Term{Kind: "near", Left: "shade", Right: "tent*", Within: 3, Field: "text", On: true},
	)
	m, err := coverage.NewMarker(s, nil, text.Literal("sjogren"))
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		value := strings.Join(
			rapid.SliceOf(rapid.SampledFrom([]string{"cane", "cane-cutters’", "Crew", "rest", "Sjögren’s", "手疹", "–", "shade",
				"tents", "CO₂"})).
				Draw(t, "words"),
			" ",
		)
		whole := ""
		for _, p := range m.Value(bib.Abstract, value) {
			whole += p.Text
		}
		assert.Equal(t, value, whole)
	})
	assert.Equal(t, []coverage.Piece{
		{
			Text: "Among ",
		}, {Text: "cane-", Blocks: []int{0}}, {Text: "cutters", Blocks: []int{0, 1}}, {Text: "’ crews, "},
		{Text: "shade", Blocks: []int{1}},
		{Text: " of "}, {Text: "tents", Blocks: []int{1}}, {Text: " and "}, {Text: "Sjögren", Also: true}, {Text: "’s sign."},
	}, m.Value(bib.Abstract, "Among cane-cutters’ crews, shade of tents and Sjögren’s sign."))
	assert.Equal(t, []coverage.Piece{{Text: "shade alone"}}, m.Value(bib.Abstract, "shade alone"))
}
