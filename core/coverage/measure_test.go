package coverage_test

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

// drawn draws records and a strategy over a few words, so that they meet often.
func drawn(t *rapid.T, most int) (coverage.Set, strategy.Strategy) {
	words := []string{"heat", "rest", "crew", "crews", "shade", "kidney", "cane"}
	var records []*bib.Record
	for i := range rapid.IntRange(0, most).Draw(t, "records") {
		records = append(
			records,
			&bib.Record{
				ID:       fmt.Sprint(i),
				Title:    strings.Join(rapid.SliceOfN(rapid.SampledFrom(words), 0, 6).Draw(t, "title"), " "),
				Year:     rapid.SampledFrom([]int{0, 1999, 2010}).Draw(t, "year"),
				Headings: []bib.Assignment{{Label: rapid.SampledFrom(words).Draw(t, "heading")}},
			},
		)
	}
	from := 2000
	s := strategy.Strategy{Limits: []strategy.Limit{{Kind: strategy.YearsLimit, From: &from}}}
	if rapid.Bool().Draw(t, "humans") {
		l := strategy.Limit{Kind: strategy.HumansLimit, Values: []string{"crew"}, Titles: []string{"crews"}}
		if rapid.Bool().Draw(t, "against") {
			l.Against = []string{"cane", "heat"}
		}
		s.Limits = append(s.Limits, l)
	}
	for i := range rapid.IntRange(1, 4).Draw(t, "blocks") {
		b := strategy.Block{
			Name:     string(rune('A' + i)),
			Searched: rapid.IntRange(0, 3).Draw(t, "searched") > 0,
			Negated:  rapid.IntRange(0, 4).Draw(t, "negated") == 0,
		}
		for range rapid.IntRange(0, 5).Draw(t, "terms") {
			term := strategy.Term{Kind: strategy.TextTerm, Field: "text", On: rapid.IntRange(0, 4).Draw(t, "on") > 0}
			switch rapid.IntRange(0, 3).Draw(t, "kind") {
			case 0:
				term.Kind, term.Heading = strategy.HeadingTerm, rapid.SampledFrom(words).Draw(t, "label")
			case 1:
				term.Text = rapid.SampledFrom([]string{"crew*", "ca?e", "heat rest", "sha*"}).Draw(t, "pattern")
			default:
				term.Text = rapid.SampledFrom(words).Draw(t, "word")
			}
			b.Terms = append(b.Terms, term)
		}
		s.Blocks = append(s.Blocks, b)
	}
	return coverage.NewSet(records), s
}

// What a strategy finds part by part is what its query finds, and what each of its numbered lines says, whether its
// limits let in or keep out; what a limit takes away is what a strategy without it finds besides.
func TestPartsFindWhatTheWholeFinds(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		set, s := drawn(t, 12)
		reach, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		whole := roaring.New()
		if q, err := s.Query(nil); err == nil {
			whole = q.Match(set.Index)
		}
		require.True(t, whole.Equals(reach.Whole))
		for i := range s.Limits {
			less := s
			less.Limits = append(slices.Clone(s.Limits[:i]), s.Limits[i+1:]...)
			without, err := coverage.Find(context.Background(), set, less)
			require.NoError(t, err)
			require.Equal(t, int(without.Whole.GetCardinality()-whole.GetCardinality()), reach.TakenAwayByLimit(i))
		}
		lines, err := s.Numbered(nil)
		require.NoError(t, err)
		if last := lines[max(0, len(lines)-1):]; len(last) == 1 && last[0].Kind == strategy.WholeLine &&
			last[0].Join == "not" {
			if before := lines[last[0].Parts[0]-1]; before.Kind == strategy.WholeLine {
				require.True(t, before.Expr.Match(set.Index).Equals(reach.BeforeNot()))
			}
		}
	})
}

func TestBlockMeasuresHoldTogether(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		set, s := drawn(t, 12)
		reach, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		for i := range s.Blocks {
			m := must(coverage.Measure(context.Background(), reach, nil, i))
			total, own := 0, 0
			for j, term := range m.Terms {
				if term == nil {
					assert.False(t, s.Blocks[i].Terms[j].On)
					continue
				}
				assert.Equal(t, total+term.Step, term.Total, "each step of the staircase adds to the one before")
				total = term.Total
				others := roaring.New()
				for k, hits := range reach.Terms[i] {
					if k != j && hits != nil {
						others.Or(hits)
					}
				}
				assert.Equal(t, int(roaring.AndNot(reach.Terms[i][j], others).GetCardinality()), term.OnlyHere)
				assert.Equal(t, term.OnlyHere == 0, term.AddsNothing)
				own += term.OnlyHere
				for _, wide := range term.Inside {
					assert.True(
						t,
						roaring.AndNot(reach.Terms[i][j], reach.Terms[i][wide]).IsEmpty(),
						"what is inside finds nothing else",
					)
				}
			}
			assert.Equal(t, m.Hits, total, "the staircase ends at the union")
			assert.LessOrEqual(t, own, m.Hits, "what is only here is disjoint")
			assert.Equal(t, m.Hits, m.HeadingsAlone+m.WordsAlone+m.Both)
		}
		for l := range s.Limits {
			assert.GreaterOrEqual(t, reach.TakenAwayByLimit(l), 0, "a limit never adds")
		}
		searched := 0
		for _, b := range s.Blocks {
			if b.Searched && !b.Negated {
				searched++
			}
		}
		for i, b := range s.Blocks {
			less := s
			less.Blocks = append(slices.Clone(s.Blocks[:i]), s.Blocks[i+1:]...)
			without, err := coverage.Find(context.Background(), set, less)
			require.NoError(t, err)
			taken := reach.TakenAwayByBlock(i)
			assert.Equal(t, int(without.Whole.GetCardinality())-int(reach.Whole.GetCardinality()), taken)
			if b.Negated || searched > 1 || !b.Searched {
				assert.GreaterOrEqual(t, taken, 0)
			}
		}
	})
}

// The whole strategy, written as one query, finds what its parts find.
func TestAStrategyAndItsQueryFindTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		set, s := drawn(t, 12)
		reach, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		q, err := s.Query(nil)
		if err != nil {
			assert.ErrorIs(t, err, strategy.ErrFindsNothing)
			assert.True(t, reach.Whole.IsEmpty())
			return
		}
		assert.Equal(t, q.Match(set.Index).ToArray(), reach.Whole.ToArray())
	})
}

func TestAPlanRescuesStepByStep(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		set, s := drawn(t, 14)
		keys, _ := drawn(t, 6)
		r, err := coverage.NewRescuer(context.Background(), set, keys, s, suits(set, s))
		require.NoError(t, err)
		before, err := coverage.Find(context.Background(), set, s)
		require.NoError(t, err)
		hits := int(before.Whole.GetCardinality())
		var blocks []coverage.BlockRescue
		for i, b := range s.Blocks {
			if b.Searched && !b.Negated {
				found := must(r.Block(context.Background(), i))
				for _, c := range found.Candidates {
					assert.GreaterOrEqual(t, c.Price, 0)
					assert.Greater(t, c.Rescues, 0)
				}
				blocks = append(blocks, found)
			}
		}
		last := -1
		for _, step := range must(r.Plan(context.Background(), blocks)) {
			// Adding the step to the strategy for good comes to the same.
			term := strategy.Term{Kind: step.Kind, On: true, Field: "text"}
			if step.Kind == strategy.HeadingTerm {
				term.Heading = step.Item
			} else {
				term.Text = step.Item
			}
			s.Blocks[step.Block].Terms = append(s.Blocks[step.Block].Terms, term)
			after, err := coverage.Find(context.Background(), set, s)
			require.NoError(t, err)
			check, err := coverage.CheckKeys(context.Background(), keys, s)
			require.NoError(t, err)
			assert.Equal(t, int(after.Whole.GetCardinality()), step.Hits)
			assert.Equal(t, hits+step.Price, step.Hits)
			assert.Equal(t, check.Caught, step.Caught)
			assert.GreaterOrEqual(t, step.Caught, last)
			assert.Greater(t, step.Rescues, 0)
			hits, last = step.Hits, step.Caught
		}
	})
}

func TestWhatIsTypicalOfABlindSpotIsWhatRescuesWouldBringBack(t *testing.T) {
	s := woolStrategy(t)
	set, keys := coverage.NewSet(read(t, "sample.ris")), coverage.NewSet(read(t, "keys.ris"))
	reach, err := coverage.Find(context.Background(), set, s)
	require.NoError(t, err)
	rescuer, err := coverage.NewRescuer(context.Background(), set, keys, s, suits(set, s))
	require.NoError(t, err)
	pool := reach.Typical(0)
	assert.Equal(t, reach.BlindSpot(0).ToArray(), pool.Sample.ToArray())
	pulls := map[string]float64{}
	for _, r := range must(tally.CountWords(context.Background(), pool, nil, tally.WordOptions{Fields: bib.Text,
		MaxWords: 1, MinRecords: 1})).Rows {
		pulls[r.Item] = r.Pull
	}
	compared := 0
	for _, c := range must(rescuer.Block(context.Background(), 0)).Candidates {
		if pull, ok := pulls[c.Item]; ok && c.Kind == strategy.TextTerm {
			assert.InDelta(t, pull, c.Pull, 1e-9, c.Item)
			compared++
		}
	}
	assert.Greater(t, compared, 20)
}

func TestAWiderPatternCoversANarrower(t *testing.T) {
	set := titles("cane cutters rest", "cane cutting", "crews near shade", "labourers")
	s := strategy.Strategy{
		Blocks: []strategy.Block{
			block("A", "cane", "cane cut*", "cane cutter*", "labo?r*", "labour*", "c?ne cutters", "lab*rer*", "labo*"),
		},
	}
	s.Blocks[0].Terms = append(
		s.Blocks[0].Terms,
		strategy.Term{Kind: strategy.NearTerm, Left: "crew*", Right: "shade", Within: 3, Field: "title", On: true},
		strategy.Term{
			Kind:  strategy.TextTerm,
			Text:  "crews",
			Field: "text",
			On:    true,
		},
		strategy.Term{Kind: strategy.TextTerm, Text: "cre*", Field: "title", On: true},
	)
	reach, err := coverage.Find(context.Background(), set, s)
	require.NoError(t, err)
	var inside [][]int
	for _, m := range must(coverage.Measure(context.Background(), reach, nil, 0)).Terms {
		inside = append(inside, m.Inside)
	}
	assert.Equal(t, [][]int{nil, {0}, {0, 1}, {7}, {3, 7}, nil, nil, nil, {10}, nil, nil}, inside,
		"a part covers the phrase; ? covers no *; a pair is covered where one side is, in the same fields")
}

func TestHalvesAreDrawnOnceAndShareNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n, seed := rapid.IntRange(0, 60).Draw(t, "n"), rapid.Uint64().Draw(t, "seed")
		build, test := coverage.Halves(n, seed)
		again, _ := coverage.Halves(n, seed)
		assert.True(t, build.Equals(again))
		assert.True(t, roaring.And(build, test).IsEmpty())
		assert.EqualValues(t, n, build.GetCardinality()+test.GetCardinality())
		assert.Contains(t, []uint64{0, 1}, build.GetCardinality()-test.GetCardinality())
	})
}

func TestAFewAreDrawnFromTheSetAndJudged(t *testing.T) {
	set := []int64{3, 8, 21, 34, 55}
	few := coverage.Few(set, 3, 7)
	assert.Len(t, few, 3)
	assert.Equal(t, few, coverage.Few([]int64{55, 34, 21, 8, 3}, 3, 7), "whatever the order they come in")
	assert.Equal(t, few, coverage.Few(set, 4, 7)[:3], "more come after those that fewer are")
	assert.ElementsMatch(t, set, coverage.Few(set, 20, 7), "no more than there are")
	first := map[int64]int{}
	for seed := range uint64(5000) {
		first[coverage.Few(set, 1, seed)[0]]++
	}
	for record, n := range first {
		assert.InDelta(t, 1000, n, 150, "each is as likely as the others: %d", record)
	}
	j := coverage.Judge(6, 12, 2)
	assert.InDelta(t, 1.0/3, j.Share, 1e-12)
	assert.InDelta(t, 3, j.ToRead, 1e-12)
	assert.InDelta(t, 1/j.High, j.ToReadLow, 1e-12)
	assert.InDelta(t, 1/j.Low, j.ToReadHigh, 1e-12)
	assert.Zero(t, coverage.Judge(0, 5, 0).ToRead)
	assert.Zero(t, coverage.Judge(0, 0, 4).Share)
}

func TestHowManyThereAreIsEstimatedFromTwoWays(t *testing.T) {
	e := coverage.Chapman(20, 15, 10)
	assert.InDelta(t, 21.0*16/11-1, e.Total, 1e-12)
	assert.True(t, 25 <= e.Low && e.Low < e.Total && e.Total < e.High)
	// Worked by hand: x = 10.5, y = 10.5, z = 5.5; y·z/x = 5.5, σ² = 2/10.5 + 1/5.5 + 10.5/57.75.
	spread := math.Sqrt(2/10.5 + 1/5.5 + 10.5/57.75)
	assert.InDelta(t, 24.5+5.5*math.Exp(1.96*spread), e.High, 1e-9)
	assert.InDelta(t, max(25, 24.5+5.5*math.Exp(-1.96*spread)), e.Low, 1e-9)
	least := e.AtLeast(40)
	assert.Equal(t, []float64{40, 40}, []float64{least.Total, least.Low}, "no less than what is known")
	assert.True(t, coverage.FewBoth(6) && !coverage.FewBoth(7))
}

// In 2,000 made-up searches of each kind the truth lies in nearly as many intervals as they promise.
func TestTheTruthLiesInTheInterval(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	for _, works := range []int{20, 50, 100, 300, 1000} {
		for _, finds := range [][2]float64{{0.5, 0.5}, {0.7, 0.6}, {0.85, 0.4}, {0.9, 0.8}} {
			within, told := 0, 0
			for range 2000 {
				first, second, both := 0, 0, 0
				for range works {
					a, b := r.Float64() < finds[0], r.Float64() < finds[1]
					if a {
						first++
					}
					if b {
						second++
					}
					if a && b {
						both++
					}
				}
				if both == 0 {
					continue // nothing is told of ways that share nothing
				}
				told++
				if e := coverage.Chapman(first, second, both); e.Low <= float64(works) && float64(works) <= e.High {
					within++
				}
			}
			require.Greater(t, told, 1000)
			assert.GreaterOrEqual(t, float64(within)/float64(told), 0.93, "%d works, found by %v", works, finds)
		}
	}
}

func TestKeyStudiesThatAreAllMissedAllCaughtOrNone(t *testing.T) {
	s := strategy.Strategy{Blocks: []strategy.Block{block("A", "crew*")}}
	set := titles("Crews", "Mice", "Crew and cane")
	for _, c := range []struct {
		keys   coverage.Set
		caught int
		steps  int
	}{{titles("Mice", "Cane"), 0, 0}, {titles("Crews", "A crew"), 2, 0}, {titles(), 0, 0}} {
		check, err := coverage.CheckKeys(context.Background(), c.keys, s)
		require.NoError(t, err)
		assert.Equal(t, c.caught, check.Caught)
		r, err := coverage.NewRescuer(context.Background(), set, c.keys, s, suits(set, s))
		require.NoError(t, err)
		b := must(r.Block(context.Background(), 0))
		assert.Len(t, b.Missed, len(c.keys.Records)-c.caught)
		must(r.Plan(context.Background(), []coverage.BlockRescue{b}))
	}
}

// suits returns what tells how well candidates belong to the blocks.
func suits(set coverage.Set, s strategy.Strategy) *coverage.Suits {
	found, _, err := coverage.SuitsOf(context.Background(), set, s)
	if err != nil {
		panic(err)
	}
	return found
}

// must returns what was worked out; in a test nothing ends before its time.
func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}
