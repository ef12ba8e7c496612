package bench

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/demo"
	"tamiz/source"
)

const (
	questions   = 12   // pairs of concepts, those that most records are about
	drawnRecs   = 5000 // records of a sample, as the screen proposes
	wordsEach   = 7    // terms of each block: its seeds and what a newcomer takes of the words that go with them
	adviceShare = 0.95 // of what a block finds stays found
	tolerance   = 0.005
)

// advised is what terms that were advised off were told to lose, and what of the records that belong is truly lost.
type advised struct {
	off                int
	told, atMost, lost float64 // shares
}

// advice tells how true it is what is said of terms that can go: over twelve questions of the invented literature,
// walked as somebody would who begins with two seeds for each concept, draws, takes some words, and switches off
// all that is advised. Before, the sample that the blocks drew told it; now the part that the other concept drew
// does.
func advice(t *testing.T, _ sizes) []row {
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	var concepts []demo.TrueConcept
	for _, topic := range demo.Topics {
		concepts = append(concepts, topic.Concepts...)
	}
	type question struct {
		*specialist
		about int
	}
	var all []question
	for i := range concepts {
		for j := range i {
			s := newSpecialist(
				w.Records,
				w.About,
				demo.Topic{
					Name:     concepts[j].Name + " and " + concepts[i].Name,
					Concepts: []demo.TrueConcept{concepts[j], concepts[i]},
				},
			)
			all = append(all, question{s, int(s.truth[0].AndCardinality(s.truth[1]))})
		}
	}
	slices.SortStableFunc(all, func(a, b question) int { return b.about - a.about })
	var rows []row
	worse, byPoint := 0, 0
	for n, q := range all[:questions] {
		circular, free := q.walk(t, uint64(n), false), q.walk(t, uint64(n), true)
		if free.lost > free.atMost+tolerance {
			worse++
		}
		if free.lost > free.told+tolerance {
			byPoint++
		}
		rows = append(rows, row{fmt.Sprintf("belonging records lost after all advice, %s (%d belong)", q.topic.Name, q.about),
			fmt.Sprintf(
				"told by the sample that the blocks drew: %d terms off, told %.1f %%, lost %.1f %%",
				circular.off,
				100*circular.told,
				100*circular.lost,
			),
			fmt.Sprintf(
				"%d terms off, told %.1f %%, at most %.1f %%, lost %.1f %%",
				free.off,
				100*free.told,
				100*free.atMost,
				100*free.lost,
			), "lost ≤ told + 0.5"})
	}
	return append(
		rows,
		row{
			"questions in which more is lost than 0.5 points above what was told",
			fmt.Sprintf("%d above the figure itself", byPoint),
			fmt.Sprintf("%d above the end of its interval", worse),
			"0",
		},
	)
}

// walk draws, takes words into blocks, and switches off what is advised.
func (s *specialist) walk(t *testing.T, seed uint64, free bool) (out advised) {
	ctx := context.Background()
	r := rand.New(rand.NewPCG(seed, 5))
	rough := []*roaring.Bitmap{s.says(s.topic.Concepts[0].Seeds[:]), s.says(s.topic.Concepts[1].Seeds[:])}
	parts := []*roaring.Bitmap{roaring.And(rough[0], rough[1]), rough[0], rough[1], s.pool.Index.All()}
	var hold []int
	for _, p := range parts {
		hold = append(hold, int(p.GetCardinality()))
	}
	for i, n := range source.Share(hold, drawnRecs) {
		parts[i] = some(r, parts[i], n)
	}
	together := parts[0]
	looked := roaring.FastOr(parts[:3]...)
	plan := s.taken(looked)
	for block := range plan.Blocks {
		set := s.index
		if set.Within = together; free {
			set.Within = parts[2-block] // that which the other concept drew
		}
		reach := must(coverage.Find(ctx, set, plan))
		gone := must(coverage.Prune(ctx, reach, nil, block, adviceShare))
		whole := int(reach.Blocks[block].GetCardinality())
		if len(gone) == 0 || whole == 0 {
			continue
		}
		out.off += len(gone)
		left := gone[len(gone)-1].Left
		_, high := coverage.Wilson(whole-left, whole)
		out.told, out.atMost = out.told+float64(whole-left)/float64(whole), out.atMost+high
		before := plan
		plan.Blocks = slices.Clone(before.Blocks)
		plan.Blocks[block].Terms = slices.Clone(before.Blocks[block].Terms)
		for _, p := range gone {
			plan.Blocks[block].Terms[p.Term].On = false
		}
	}
	on := plan
	on.Blocks = slices.Clone(plan.Blocks)
	for b := range on.Blocks {
		on.Blocks[b].Terms = slices.Clone(on.Blocks[b].Terms)
		for k := range on.Blocks[b].Terms {
			on.Blocks[b].Terms[k].On = true
		}
	}
	belong := roaring.And(s.truth[0], s.truth[1])
	with := must(coverage.Find(ctx, s.index, on)).Whole.AndCardinality(belong)
	without := must(coverage.Find(ctx, s.index, plan)).Whole.AndCardinality(belong)
	if with > 0 {
		out.lost = float64(with-without) / float64(with)
	}
	return out
}

// taken returns blocks of the seeds and of the words that a newcomer takes: of the most typical of the sample those
// that belong.
func (s *specialist) taken(looked *roaring.Bitmap) strategy.Strategy {
	words := make([][]string, len(s.topic.Concepts))
	for i, c := range s.topic.Concepts {
		words[i] = slices.Clone(c.Seeds[:])
	}
	p := s.pool.Over(looked, s.pool.Index.All())
	for _, r := range must(tally.CountWords(context.Background(), p, nil, tally.DefaultWords)).Rows {
		at := s.belongs([]string{r.Item})
		if r.Piece || at < 0 || len(words[at]) == wordsEach {
			continue
		}
		held := func(w string) bool { return strings.Contains(w, r.Item) || strings.Contains(r.Item, w) }
		if !slices.ContainsFunc(words[at], held) {
			words[at] = append(words[at], r.Item)
		}
	}
	var plan strategy.Strategy
	for i, terms := range words {
		b := strategy.Block{Name: string(rune('A' + i)), Searched: true}
		for _, w := range terms {
			b.Terms = append(b.Terms, strategy.Term{Kind: strategy.TextTerm, Text: w, Field: "text", On: true})
		}
		plan.Blocks = append(plan.Blocks, b)
	}
	return plan
}

// some draws n records of a set at random.
func some(r *rand.Rand, of *roaring.Bitmap, n int) *roaring.Bitmap {
	all := of.ToArray()
	r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	return roaring.BitmapOf(all[:min(n, len(all))]...)
}
