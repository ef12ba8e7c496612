package bench

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
)

const (
	firstShown = 10 // candidates that somebody looks at
	manyShown  = 200
	moreTerms  = 3  // of each block, beside its seeds
	fromTerms  = 40 // from so many they are drawn, the most common
	drawings   = 4  // of them: the first takes the most common
	someKeys   = 15 // key studies
)

// A tallied counts how many of the first candidates belong to the block that they are proposed for.
type tallied struct{ right, shown int }

func (x *tallied) count(right bool) {
	if x.shown++; right {
		x.right++
	}
}

func (x tallied) String() string {
	return fmt.Sprintf("%.2f (%d of %d)", float64(x.right)/float64(max(1, x.shown)), x.right, x.shown)
}

// A judged is how much of what is proposed first belongs to its block.
type judged struct{ rescue, steps, spot tallied }

// proposals tells of what is proposed for blocks of which it is known what belongs to them how much does, by two
// judges: whether its records are about the concept, and whether it is to the letter a term that was planted for
// it, or its other number or spelling; and the first of the order that was before (rescues × pull ÷ (5 + price),
// and the pull of the blind spot).
func proposals(t *testing.T, _ sizes) []row {
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	var now, toLetter, before [2]judged // of the most common terms, of those drawn
	// to the letter: over the question with most planted terms; and how much there is to be found
	var richest, most [2]judged
	var sure, doubtful, nearly, stray, stamped, missing tallied
	remarked := map[string]*tallied{}
	var took, words []time.Duration
	ctx := context.Background()
	for n, topic := range demo.Topics {
		s := newSpecialist(w.Records, w.About, topic)
		began := time.Now()
		kept := must(company.Build(ctx, s.index.Index, s.index.Index.All()))
		companyTook := time.Since(began)
		for draw := range drawings {
			plan, keys := s.asked(draw)
			drawn := min(draw, 1)
			{
				into, letter := &now[drawn], []*judged{&toLetter[drawn]}
				if n == 0 {
					letter = append(letter, &richest[drawn])
				}
				began := time.Now()
				suits := must(coverage.NewSuits(ctx, s.index, kept, plan))
				reach := must(coverage.Find(ctx, s.index, plan))
				rescuer := must(coverage.NewRescuer(ctx, s.index, keys, plan, suits))
				var blocks []coverage.BlockRescue
				for i := range plan.Blocks {
					block := must(rescuer.Block(ctx, i))
					blocks = append(blocks, block)
					s.judge(&into.rescue, i, texts(block.Candidates))
					rescued := texts(block.Candidates)
					for _, l := range letter {
						s.toLetter(&l.rescue, i, rescued)
					}
					s.mostToLetter(&most[drawn].rescue, i, rescued)
					lacks, _, err := coverage.Lacks(ctx, reach, suits, kept, i, coverage.Wanted{First: 100 * firstShown})
					if err != nil {
						t.Fatal(err)
					}
					s.judge(&into.spot, i, lackedTexts(lacks))
					lacked := lackedTexts(lacks)
					for _, l := range letter {
						s.toLetter(&l.spot, i, lacked)
					}
					s.mostToLetter(&most[drawn].spot, i, lacked)
					{
						found := slices.Clone(block.Candidates)
						slices.SortStableFunc(found, func(a, b coverage.Candidate) int { return cmp.Compare(bargained(b), bargained(a)) })
						s.judge(&before[drawn].rescue, i, texts(found))
						s.judge(&before[drawn].spot, i, s.typical(reach, plan, i))
					}
				}
				for _, step := range must(rescuer.Plan(ctx, blocks)) {
					into.steps.count(s.stepBelongs(step))
					if step.Kind == strategy.TextTerm {
						for _, l := range letter {
							l.steps.count(s.planted(step.Block, step.Item))
						}
					}
				}
				if draw > 0 {
					continue
				}
				took = append(took, companyTook+time.Since(began))
				offers := must(coverage.Offered(ctx, suits, kept, reach.BlindSpots(), nil))
				for _, item := range s.ordered(reach, offers, plan) {
					at, _ := offers.Proposed(item)
					belongs := s.belongs([]string{item})
					if at >= 0 {
						stamped.count(at == belongs)
					}
					if belongs >= 0 {
						missing.count(at < 0)
					}
				}
				for _, b := range blocks {
					for _, k := range b.Missed {
						for _, n := range must(rescuer.NearMisses(ctx, b.Block, k)) {
							x := &nearly
							if n.Kind == coverage.NearWord {
								x = &stray
							}
							x.count(n.Mend.Kind == strategy.TextTerm && s.belongs([]string{n.Mend.Text}) == b.Block)
						}
					}
					for _, r := range must(coverage.Remarks(ctx, reach, offers, b.Block)) {
						x := remarked[r.Kind]
						if x == nil {
							x = &tallied{}
							remarked[r.Kind] = x
						}
						for _, item := range r.Items {
							belongs := s.belongs([]string{item.Text}) == b.Block
							x.count(belongs != (r.Kind == coverage.Drags)) // what is dragged in is rightly said not to belong
						}
					}
					shown := slices.DeleteFunc(
						slices.Clone(b.Candidates),
						func(c coverage.Candidate) bool { return c.Kind != strategy.TextTerm || c.Worth == 0 },
					)
					for _, c := range shown[:min(3*firstShown, len(shown))] {
						x := &sure
						if c.Doubtful {
							x = &doubtful
						}
						x.count(s.belongs([]string{c.Item}) == b.Block)
					}
				}
			}
		}
		began = time.Now()
		must(tally.CountWords(ctx, s.pool, nil, tally.DefaultWords))
		words = append(words, time.Since(began))
	}
	var rows []row
	for drawn, of := range []string{"blocks of the most common terms",
		fmt.Sprintf("blocks of terms drawn from the %d most common, %d times", fromTerms, drawings-1)} {
		what := fmt.Sprintf("of the first %d words, those that belong to the block, %s: ", firstShown, of)
		add := func(what, goal, letters string, of func(judged) tallied) {
			rows = append(
				rows,
				row{what + ", about the concept", "before " + of(before[drawn]).String(), of(now[drawn]).String(), goal},
				row{
					what + ", to the letter, over all questions",
					"most that there is to be found " + of(most[drawn]).String(),
					of(toLetter[drawn]).String(),
					"printed",
				},
				row{what + ", to the letter, over the question with most planted terms", "", of(richest[drawn]).String(), letters},
			)
		}
		add(what+"rescue", "≥ 0.70", "≥ 0.40", func(j judged) tallied { return j.rescue })
		add(what+"blind spot", "≥ 0.90", "≥ 0.50", func(j judged) tallied { return j.spot })
		add(
			"of the steps of a rescue plan, those that belong to the block, "+of,
			"printed",
			"≥ 0.80",
			func(j judged) tallied { return j.steps },
		)
	}
	rows = append(
		rows,
		row{
			fmt.Sprintf(
				"of the first %d candidates of Harvest, those that belong to the block that is proposed for them",
				manyShown,
			),
			"those of which no block is proposed though they belong to one " + missing.String(),
			stamped.String(),
			"printed",
		},
		row{
			fmt.Sprintf("of the first %d words of rescue, those that belong to the block", 3*firstShown),
			"those said to be doubtful " + doubtful.String(),
			"the others " + sure.String(),
			"printed",
		},
		row{
			"near misses that belong to the block",
			"one other word of a phrase " + stray.String(),
			"all other kinds " + nearly.String(),
			"printed",
		},
		row{
			fmt.Sprintf("company, suit, rescue and blind spots of both blocks over %d records", len(w.Records)),
			"the tally of words",
			ratio(percentile(took, 50), percentile(words, 50)),
			"printed",
		},
	)
	for _, kind := range slices.Sorted(maps.Keys(remarked)) {
		rows = append(
			rows,
			row{"words of remarks that are rightly said, " + kind, "all of them", remarked[kind].String(), "printed"},
		)
	}
	return rows
}

// planted reports whether an item is a term by which records write of the concept of a block, in any number and
// spelling.
func (s *specialist) planted(block int, item string) bool {
	if s.written == nil {
		for _, c := range s.topic.Concepts {
			keys := map[string]bool{}
			for _, w := range c.Written() {
				keys[text.FamilyKey(text.Tokens(w))] = true
			}
			s.written = append(s.written, keys)
		}
	}
	return s.written[block][text.FamilyKey(text.Tokens(item))]
}

// toLetter counts the first of some words, and those of them that are terms of a block to the letter.
func (s *specialist) toLetter(x *tallied, block int, items []string) {
	for _, item := range items[:min(firstShown, len(items))] {
		x.count(s.planted(block, item))
	}
}

// mostToLetter counts how many of the first of some words could be terms of a block to the letter: as many as there
// are among all.
func (s *specialist) mostToLetter(x *tallied, block int, items []string) {
	left := 0
	for _, item := range items {
		if s.planted(block, item) {
			left++
		}
	}
	for n := range items[:min(firstShown, len(items))] {
		x.count(n < left)
	}
}

// judge counts the first of some words, and those of them that belong to a block.
func (s *specialist) judge(x *tallied, block int, items []string) {
	for _, item := range items[:min(firstShown, len(items))] {
		x.count(s.belongs([]string{item}) == block)
	}
}

// stepBelongs reports whether the records of a step are about the concept of its block.
func (s *specialist) stepBelongs(step coverage.Step) bool {
	if step.Kind == strategy.TextTerm {
		return s.belongs([]string{step.Item}) == step.Block
	}
	return s.about(s.index.Index.Labelled(step.Item)) == step.Block
}

// bargained is how good a candidate was held to be before.
func bargained(c coverage.Candidate) float64 {
	return float64(c.Rescues) * max(c.Pull, 0) / float64(5+c.Price)
}

func texts(all []coverage.Candidate) (out []string) {
	for _, c := range all {
		if c.Kind == strategy.TextTerm && c.Under == "" {
			out = append(out, c.Item)
		}
	}
	return out
}

func lackedTexts(all []coverage.Lack) (out []string) {
	for _, l := range all {
		if l.Kind == strategy.TextTerm && l.Under == "" {
			out = append(out, l.Item)
		}
	}
	return out
}

// asked returns blocks of the seeds and a few more of the words that belong to each concept, the most common of
// them or, in later draws, drawn from these, and key studies, drawn from those that answer the question.
func (s *specialist) asked(draw int) (strategy.Strategy, coverage.Set) {
	var plan strategy.Strategy
	items := must(tally.CountWords(context.Background(), s.pool, nil, tally.DefaultWords)).Rows
	slices.SortStableFunc(items, func(a, b tally.Row) int { return cmp.Compare(b.Records, a.Records) })
	answers := s.pool.Index.All()
	for i, c := range s.topic.Concepts {
		block := strategy.Block{Name: string(rune('A' + i)), Concept: c.Name, Searched: true}
		from := moreTerms
		if draw > 0 {
			from = fromTerms
		}
		words, seeds := slices.Clone(c.Seeds[:]), len(c.Seeds)
		for _, r := range items {
			if len(words) == seeds+from {
				break
			}
			held := func(w string) bool { return strings.Contains(w, r.Item) || strings.Contains(r.Item, w) }
			if !slices.ContainsFunc(words, held) && s.belongs([]string{r.Item}) == i {
				words = append(words, r.Item)
			}
		}
		if draw > 0 {
			more := words[seeds:]
			rand.New(rand.NewPCG(uint64(draw), uint64(i))).
				Shuffle(len(more), func(a, b int) { more[a], more[b] = more[b], more[a] })
			words = words[:min(len(words), seeds+moreTerms)]
		}
		for _, word := range words {
			block.Terms = append(block.Terms, strategy.Term{Kind: strategy.TextTerm, Text: word, Field: "text", On: true})
		}
		plan.Blocks = append(plan.Blocks, block)
		answers.And(s.truth[i])
	}
	all := answers.ToArray()
	rand.New(rand.NewPCG(1, 2)).Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	var keys []*bib.Record
	for _, k := range all[:min(someKeys, len(all))] {
		keys = append(keys, s.pool.Records[k])
	}
	return plan, coverage.NewSet(keys)
}

// ordered returns the first candidates of Harvest for what the blocks find now that no term matches.
func (s *specialist) ordered(reach *coverage.Reach, offers *coverage.Offers, plan strategy.Strategy) (out []string) {
	taken := must(coverage.TakenBy(plan, nil))
	found := roaring.FastOr(reach.Blocks...)
	pool := &tally.Pool{
		Records:  s.index.Records,
		Index:    s.index.Index,
		Sample:   found,
		Contrast: roaring.AndNot(s.index.Index.All(), found),
	}
	var open []coverage.Ordered
	for _, r := range must(tally.CountWords(context.Background(), pool, nil, tally.DefaultWords)).Rows {
		if r.AbsorbedBy == "" && !taken.Text(text.Tokens(r.Item)) {
			open = append(open, coverage.Ordered{Item: r.Item, Records: r.Records, Pull: r.Pull, Fresh: offers.Fresh(r.Item)})
		}
	}
	for _, i := range coverage.Order(open)[:min(manyShown, len(open))] {
		out = append(out, open[i].Item)
	}
	return out
}

// typical returns the words of a blind spot that no term matches, those most typical of it first.
func (s *specialist) typical(reach *coverage.Reach, plan strategy.Strategy, block int) (out []string) {
	taken := must(coverage.TakenBy(plan, nil))
	pool := reach.Typical(block)
	pool.Sample = roaring.And(pool.Sample, s.pool.Index.All())
	for _, r := range must(tally.CountWords(context.Background(), pool, nil, tally.DefaultWords)).Rows {
		if !taken.Text(text.Tokens(r.Item)) {
			out = append(out, r.Item)
		}
	}
	return out
}
