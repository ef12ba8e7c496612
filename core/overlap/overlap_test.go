package overlap_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/overlap"
)

func whole(works ...int) overlap.Answer { return overlap.Answer{Records: len(works), Works: works} }

func exactly(n float64) overlap.Figure { return overlap.Figure{Works: n, Low: n, High: n} }

func TestWholeAnswersAreCounted(t *testing.T) {
	o := overlap.Of([]overlap.Answer{whole(1, 2, 3, 4), whole(3, 4, 5), whole(4)})
	assert.Equal(t, exactly(5), o.Together)
	assert.Equal(t, []overlap.Figure{exactly(2), exactly(1), exactly(0)}, o.Only)
	assert.Equal(
		t,
		[][]overlap.Figure{
			{exactly(4), exactly(2), exactly(1)},
			{exactly(2), exactly(3), exactly(1)},
			{exactly(1), exactly(1), exactly(1)},
		},
		o.Both,
	)
}

func TestWithoutAnythingFetchedAllIsPossible(t *testing.T) {
	o := overlap.Of([]overlap.Answer{whole(1, 2, 3), {Records: 5}})
	assert.Equal(t, overlap.Figure{Works: 8, Low: 5, High: 8}, o.Together)
	assert.Equal(t, overlap.Figure{Works: 3, Low: 0, High: 3}, o.Only[0])
	assert.Equal(t, overlap.Figure{Works: 5, Low: 0, High: 5}, o.Only[1])
	assert.Equal(t, overlap.Overlap{Only: []overlap.Figure{}, Both: [][]overlap.Figure{}}, overlap.Of(nil))
	assert.Equal(t, exactly(0), overlap.Of([]overlap.Answer{whole(), whole()}).Together)
}

func TestCountingIsThatOfSets(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		sets := rapid.SliceOfN(rapid.SliceOfNDistinct(rapid.IntRange(0, 12), 0, 8, rapid.ID[int]), 1, 4).Draw(t, "answers")
		var answers []overlap.Answer
		in := map[int]int{}
		for _, s := range sets {
			answers = append(answers, whole(s...))
			for _, w := range s {
				in[w]++
			}
		}
		o := overlap.Of(answers)
		assert.Equal(t, exactly(float64(len(in))), o.Together)
		for i, s := range sets {
			alone := 0
			for _, w := range s {
				if in[w] == 1 {
					alone++
				}
			}
			assert.Equal(t, exactly(float64(alone)), o.Only[i])
		}
	})
}

// Each of many draws estimates what is known: on average it is right, and its interval mostly holds it.
func TestDrawnAnswersTellTheWhole(t *testing.T) {
	chance := rand.New(rand.NewPCG(7, 11))
	var world [3][]int
	for w := range 9000 {
		if w < 4000 {
			world[0] = append(world[0], w)
		}
		if w >= 2500 && w < 6500 {
			world[1] = append(world[1], w)
		}
		if w >= 3500 && w%3 == 0 {
			world[2] = append(world[2], w)
		}
	}
	var all []overlap.Answer
	for _, s := range world {
		all = append(all, whole(s...))
	}
	truth := overlap.Of(all)
	const times = 400
	for _, sizes := range [][3]int{{4000, 300, 300}, {4000, 4000, 200}, {1000, 1000, 800}} {
		sum, held, pairs := 0.0, [3]int{}, 0.0
		for range times {
			var answers []overlap.Answer
			for i, s := range world {
				var works []int
				for _, at := range chance.Perm(len(s))[:min(sizes[i], len(s))] {
					works = append(works, s[at])
				}
				answers = append(answers, overlap.Answer{Records: len(s), Works: works})
			}
			o := overlap.Of(answers)
			sum += o.Together.Works
			pairs += o.Both[0][1].Works
			for n, pair := range [][2]overlap.Figure{{o.Together, truth.Together}, {o.Both[0][1], truth.Both[0][1]},
				{o.Only[2], truth.Only[2]}} {
				got, want := pair[0], pair[1].Works
				assert.LessOrEqual(t, got.Low, got.Works)
				assert.GreaterOrEqual(t, got.High, got.Works)
				if got.Low <= want && want <= got.High {
					held[n]++
				}
			}
		}
		assert.InEpsilon(t, truth.Together.Works, sum/times, 0.02, sizes)
		assert.InEpsilon(t, truth.Both[0][1].Works, pairs/times, 0.03, sizes)
		for n, h := range held {
			assert.Greater(t, h, times*90/100, "%v: figure %d", sizes, n)
		}
	}
}

// TestFiguresAgreeWithEachOther: whatever was drawn, what answers hold alone, share and hold together add up to
// what they hold.
func TestFiguresAgreeWithEachOther(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		k := rapid.IntRange(1, 5).Draw(t, "answers")
		world := make([][]int, k)
		for w := range rapid.IntRange(0, 60).Draw(t, "works") {
			for i := range k {
				if rapid.IntRange(0, 2).Draw(t, "held") == 0 {
					world[i] = append(world[i], w)
				}
			}
		}
		var answers []overlap.Answer
		seen := map[int]int{}
		for _, s := range world {
			drawn := s[:rapid.IntRange(0, len(s)).Draw(t, "drawn")]
			if rapid.IntRange(0, 2).Draw(t, "whole") == 0 {
				drawn = s
			}
			answers = append(answers, overlap.Answer{Records: len(s), Works: drawn})
			for _, w := range drawn {
				seen[w]++
			}
		}
		o := overlap.Of(answers)
		figure := func(f overlap.Figure) {
			assert.LessOrEqual(t, f.Low, f.Works)
			assert.LessOrEqual(t, f.Works, f.High)
			assert.Equal(t, float64(int(f.Works)), f.Works, "whole works")
		}
		figure(o.Together)
		assert.GreaterOrEqual(t, o.Together.Works, float64(len(seen)), "what was seen is there")
		sum, alone := 0.0, 0.0
		for i := range answers {
			figure(o.Only[i])
			size := float64(len(world[i]))
			sum += size
			alone += o.Only[i].Works
			shared := 0.0
			for j := range answers {
				if j != i {
					figure(o.Both[i][j])
					shared += o.Both[i][j].Works
					assert.LessOrEqual(t, o.Only[i].Works+o.Both[i][j].Works, size, "what is shared is not held alone")
					assert.LessOrEqual(t, size+o.Only[j].Works, o.Together.Works)
				}
			}
			assert.GreaterOrEqual(t, o.Only[i].Works+shared, size, "what is not held alone is shared with some")
		}
		assert.LessOrEqual(t, o.Together.Works, sum)
		if k == 2 {
			assert.Equal(t, o.Together.Works, alone+o.Both[0][1].Works)
		}
	})
}

// What was read as "4 records, only here 1, shared 4".
func TestFewRecordsAddUp(t *testing.T) {
	o := overlap.Of(
		[]overlap.Answer{{Records: 4, Works: []int{1, 2, 3}}, {Records: 900, Works: []int{1, 2, 7, 8, 9, 10, 11, 12}}},
	)
	assert.Equal(t, 4.0, o.Only[0].Works+o.Both[0][1].Works)
	assert.Equal(t, 904-o.Both[0][1].Works, o.Together.Works)
	assert.GreaterOrEqual(t, o.Both[0][1].Works, 2.0, "two of them were seen there")
}
