package coverage_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
)

func word(text string) strategy.Term {
	return strategy.Term{Kind: strategy.TextTerm, Text: text, Field: "text", On: true}
}

func blockOf(name string, terms ...strategy.Term) strategy.Block {
	return strategy.Block{Name: name, Searched: true, Terms: terms}
}

func titled(titles ...string) (out []*bib.Record) {
	for i, t := range titles {
		out = append(out, &bib.Record{ID: fmt.Sprint(i), Title: t})
	}
	return out
}

func rescuerOf(t testing.TB, set, keys coverage.Set, s strategy.Strategy) *coverage.Rescuer {
	suits, _, err := coverage.SuitsOf(context.Background(), set, s)
	require.NoError(t, err)
	r, err := coverage.NewRescuer(context.Background(), set, keys, s, suits)
	require.NoError(t, err)
	return r
}

func TestWhatIsAllButATermIsFoundInAStudy(t *testing.T) {
	s := strategy.Strategy{Tamiz: strategy.Version, Blocks: []strategy.Block{
		blockOf("A", word("labourers"), word("farm hands"), word("field work*"), word("harvesters"), word("heatwave")),
		blockOf("B", word("shade")),
	}}
	set := coverage.NewSet(
		titled("Shade for laborers", "Shade and heat wave", "Shade for farmhands", "Labourers in shade"),
	)
	keys := coverage.NewSet(
		titled("Laborers, farmhands and havresters in a heat wave: field and barn workers at work", "Labourers in shade"),
	)
	r := rescuerOf(t, set, keys, s)
	found, err := r.NearMisses(context.Background(), 0, 0)
	require.NoError(t, err)
	var said []string
	for _, n := range found {
		said = append(
			said,
			fmt.Sprint(n.Kind, ": ", n.Text, " for ", s.Blocks[0].Terms[n.Term], " → ", n.Mend, " +", n.Price),
		)
	}
	assert.Equal(t, []string{
		"spelling: laborers for labourers → laborers +1",
		"hyphen: farmhands for farm hands → farmhands +1",
		"hyphen: heat wave for heatwave → heat wave +1",
		"edit: havresters for harvesters → havresters +0",
		"gap: field and barn workers for field work* → field ~3 work* +0",
	}, said)
	found, err = r.NearMisses(context.Background(), 0, 1)
	require.NoError(t, err)
	assert.Empty(t, found, "it is caught")
}

// Whatever is offered brings the study back, and costs what it says.
func TestAMendCatchesTheStudyAtItsPrice(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		set, s := drawn(t, 14)
		keys, _ := drawn(t, 5)
		suits, _, err := coverage.SuitsOf(context.Background(), set, s)
		require.NoError(t, err)
		r, err := coverage.NewRescuer(context.Background(), set, keys, s, suits)
		require.NoError(t, err)
		now, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		for b := range s.Blocks {
			for k := range keys.Records {
				near, err := r.NearMisses(context.Background(), b, k)
				require.NoError(t, err)
				for _, n := range near {
					with := s
					with.Blocks = append([]strategy.Block{}, s.Blocks...)
					with.Blocks[b].Terms = append(append([]strategy.Term{}, s.Blocks[b].Terms...), n.Mend)
					then, err := coverage.Find(context.Background(), set, with)
					require.NoError(t, err)
					inKeys, err := coverage.Find(context.Background(), keys, with)
					require.NoError(t, err)
					if !inKeys.Blocks[b].Contains(uint32(k)) {
						t.Fatalf("%v does not bring %d back into %d", n, k, b)
					}
					if got := int(then.Whole.GetCardinality()) - int(now.Whole.GetCardinality()); s.Blocks[b].Searched &&
						!s.Blocks[b].Negated &&
						got != n.Price {
						t.Fatalf("%v costs %d", n, got)
					}
				}
			}
		}
	})
}

func TestWhatLeavesNothingIsTold(t *testing.T) {
	set := coverage.NewSet(titled("shade crews", "shade crews", "heat crews", "heat barns", "heat shade barns"))
	find := func(blocks ...strategy.Block) *coverage.Reach {
		r, err := coverage.Find(context.Background(), set, strategy.Strategy{Tamiz: strategy.Version, Blocks: blocks})
		require.NoError(t, err)
		return r
	}
	not := blockOf("N", word("barns"))
	not.Negated = true
	assert.Equal(
		t,
		[]coverage.Narrow{{Block: 0, With: -1, Limit: -1}},
		find(blockOf("A", word("tents")), blockOf("B", word("heat"))).Narrowest(0),
	)
	assert.Equal(
		t,
		[]coverage.Narrow{{Block: 0, With: 2, Limit: -1}},
		find(blockOf("A", word("crews")), blockOf("B", word("heat")), blockOf("C", word("barns"))).Narrowest(0),
	)
	assert.Equal(
		t,
		[]coverage.Narrow{{Block: 2, With: -1, Limit: -1, Without: 1}},
		find(blockOf("A", word("heat")), blockOf("B", word("shade")), not).Narrowest(0),
	)
	assert.Empty(t, find(blockOf("A", word("heat"))).Narrowest(0), "there is enough")
}

func TestTermsAreRemarkedOn(t *testing.T) {
	var titles []string
	add := func(n int, title string) {
		for i := range n {
			titles = append(titles, fmt.Sprint(title, " ", i))
		}
	}
	add(12, "Labourers rest in shade")
	add(6, "Laborers rest in shade")
	add(5, "Workers rest near shaded work places in fields")
	add(4, "Field crews rest")
	add(4, "Crews of the field rest")
	set := coverage.NewSet(titled(titles...))
	s := strategy.Strategy{Tamiz: strategy.Version, Blocks: []strategy.Block{
		blockOf("A", word("labourers"), word("labuorers"), word("field crews"), word("worker*")), blockOf("B", word("rest")),
	}}
	ctx := context.Background()
	suits, kept, err := coverage.SuitsOf(ctx, set, s)
	require.NoError(t, err)
	reach, err := coverage.Find(ctx, set, s)
	require.NoError(t, err)
	offers, err := coverage.Offered(ctx, suits, kept, reach.BlindSpots(), nil)
	require.NoError(t, err)
	found, err := coverage.Remarks(ctx, reach, offers, 0)
	require.NoError(t, err)
	of := map[string][]coverage.RemarkItem{}
	records := map[string]int{}
	for _, r := range found {
		of[fmt.Sprint(r.Kind, " ", s.Blocks[0].Terms[r.Term])], records[r.Kind] = r.Items, r.Records
	}
	assert.Equal(t, []coverage.RemarkItem{{Text: "laborers", Records: 6, Adds: 6}}, of["writing labourers"])
	assert.Equal(
		t,
		[]coverage.RemarkItem{{Text: "labourers", Records: 12}, {Text: "laborers", Records: 6, Adds: 6}},
		of["misspelt labuorers"],
	)
	assert.NotContains(t, of, "writing worker*")
	assert.Contains(t, of, "near field crews")
	assert.Equal(t, 4, records["near"])
	assert.NotContains(t, of, "writing labuorers", "what finds nothing is misspelt, not written in one way")
}
