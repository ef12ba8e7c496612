package bench

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/heading"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/demo"
)

// firstLed is how many headings somebody looks at of those that a word leads to.
const firstLed = 3

// leads tells how often the headings that are offered for a concept are about it: by what the vocabulary says of
// the seeds, by what records carry that say them, and by what key studies and records point to by themselves. A
// heading belongs to the concept that the records which carry it are about, as a word does.
func leads(t *testing.T, _ sizes) []row {
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	v, _ := thesaurus.Build(demo.Headings(), "")
	var named, carried, plain, keyed, sampled, pulled, suited tallied
	ctx := context.Background()
	for _, topic := range demo.Topics {
		s := newSpecialist(w.Records, w.About, topic)
		s.index.Thesaurus, s.pool.Thesaurus = v, v
		_, keys := s.asked(0)
		keys.Thesaurus = v
		of := func(label string) int { return s.about(s.index.Index.Labelled(label)) }
		found := roaring.New()
		for i, c := range topic.Concepts {
			for _, seed := range c.Seeds {
				for k, l := range v.Suggest(seed, firstLed) {
					if k < firstLed {
						named.count(of(v.Label(l.Heading)) == i)
					}
				}
				said, _, err := coverage.HeadingsOf(
					ctx,
					s.index,
					strategy.Term{Kind: strategy.TextTerm, Text: seed, Field: "text", On: true},
				)
				if err != nil {
					t.Fatal(err)
				}
				for k, e := range said[:min(firstLed, len(said))] {
					carried.count(of(e.Heading) == i)
					if k == 0 {
						plain.count(of(e.Heading) == i)
					}
				}
			}
			found.Or(s.says(c.Seeds[:]))
		}
		s.orders(t, &pulled, &suited)
		p, err := heading.Look{Set: s.index, Keys: keys}.Propose(ctx, found, roaring.AndNot(s.index.All(), found), nil)
		if err != nil {
			t.Fatal(err)
		}
		for _, c := range p.Shared {
			keyed.count(of(c.Label) >= 0)
		}
		for _, c := range p.Sample {
			branch := s.index.Index.Heading(v.Branch(c.Label), false, nil)
			sampled.count(s.about(branch) >= 0)
		}
	}
	byWorth, byPull, byBoth := standIns(t)
	return []row{
		{
			"headings that stand for one of another vocabulary, as both vocabularies say: those that records put first",
			byWorth,
			"by pull alone " + byPull + ", by pull and suit " + byBoth,
			"printed",
		},
		{
			fmt.Sprintf("of the first %d headings that a seed leads to, those that belong to its concept", firstLed),
			"by the records that say it " + carried.String(),
			"by the vocabulary " + named.String(),
			"printed",
		},
		{
			"of the first heading that records carry which say a seed, those that belong to its concept",
			"–",
			plain.String(),
			"printed",
		},
		{
			fmt.Sprintf(
				"of the first %d headings of what the blocks find now, those that belong to a concept of the question",
				firstShown,
			),
			"by pull " + pulled.String(),
			"by pull and suit, as words are " + suited.String(),
			"printed",
		},
		{
			"of the headings that are proposed without a word, those that belong to a concept of the question",
			"what covers the sample, with narrower " + sampled.String(),
			"what key studies share " + keyed.String(),
			"printed",
		},
	}
}

// orders counts which of the first headings of what the blocks find belong to a concept, by pull and in the order
// of words.
func (s *specialist) orders(t *testing.T, pulled, suited *tallied) {
	ctx := context.Background()
	kept := must(company.Build(ctx, s.index.Index, s.index.Index.All()))
	for draw := range drawings {
		plan, _ := s.asked(draw)
		suits := must(coverage.NewSuits(ctx, s.index, kept, plan))
		reach := must(coverage.Find(ctx, s.index, plan))
		found := roaring.FastOr(reach.Blocks...)
		rows := must(tally.CountList(ctx, s.pool.Over(found, s.index.Index.All()), tally.Headings, nil)).Rows
		var all []coverage.Ordered
		var judged []bool
		for _, r := range rows {
			if r.Records < 2 {
				continue
			}
			carry := s.index.Index.Labelled(r.Item)
			fresh := 0.0
			for b, suit := range suits.Heading(text.Label(r.Item), carry).Of {
				fresh = max(fresh, suit*math.Log(1+float64(carry.AndCardinality(reach.BlindSpot(b)))))
			}
			all = append(all, coverage.Ordered{Item: r.Item, Records: r.Records, Pull: r.Pull, Fresh: fresh})
			judged = append(judged, s.about(carry) >= 0)
		}
		for k, i := range coverage.Order(all) {
			if k < firstShown {
				suited.count(judged[i])
			}
		}
		for k := range min(firstShown, len(all)) {
			pulled.count(judged[k])
		}
	}
}

// standIns tells how often what records say stands for a heading of another vocabulary is what both vocabularies
// say: by the order that is used, by pull alone, and by pull times suit to the heading's own words.
func standIns(t *testing.T) (used, pull, both string) {
	ctx := context.Background()
	own, _ := thesaurus.Build(demo.Headings(), "")
	other, _ := thesaurus.Build(demo.SurcoTerms(), "")
	pool := must(tally.NewPool(ctx, demo.NewLiterature(demo.Seed, demo.AlmagreSize).Surco, nil))
	pool.Thesaurus = other
	kept := must(company.Build(ctx, pool.Index, pool.Index.All()))
	set := coverage.Set{Records: pool.Records, Index: pool.Index, Thesaurus: other}
	var right [3]tallied
	for h := range own.Len() {
		stated := own.Counterparts(h, other)
		if len(stated) == 0 || stated[0].Via != thesaurus.ByExact || pool.Index.Labelled(stated[0].Heading).IsEmpty() {
			continue
		}
		said := roaring.New()
		b := strategy.Block{Name: "A", Searched: true}
		for _, w := range append([]string{own.Label(h)}, own.EntryTerms(h)...) {
			term := strategy.Term{Kind: strategy.TextTerm, Text: strings.Join(text.Tokens(w), " "), Field: "text", On: true}
			b.Terms = append(b.Terms, term)
			said.Or(must(term.QueryIn(nil)).Match(pool.Index))
		}
		byPull, _, err := coverage.HeadingsOfRecords(ctx, pool, said)
		if err != nil {
			t.Fatal(err)
		}
		suits := must(coverage.NewSuits(ctx, set, kept, strategy.Strategy{Blocks: []strategy.Block{b}}))
		worth := func(e coverage.Evidence) float64 {
			return e.Pull * suits.Heading(e.Heading, pool.Index.Labelled(e.Heading)).Of[0]
		}
		bySuit := slices.Clone(byPull)
		slices.SortStableFunc(bySuit, func(a, b coverage.Evidence) int { return cmp.Compare(worth(b), worth(a)) })
		for i, list := range [][]coverage.Evidence{coverage.StandIns(byPull), byPull, bySuit} {
			right[i].count(len(list) > 0 && list[0].Heading == stated[0].Heading)
		}
	}
	return right[0].String(), right[1].String(), right[2].String()
}
