package bench

import (
	"cmp"
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
)

// A made-up specialist harvests for a question of which it is known what answers it. She starts from two seed
// words for each block and goes down an order of candidates. She takes a candidate into the block of a concept
// when at least a third of the records that say it are truly about that concept, and three times as many as by
// chance; she drops it otherwise. Each candidate that she looks at is a decision.
type specialist struct {
	pool   *tally.Pool
	index  coverage.Set
	topic  demo.Topic
	truth  []*roaring.Bitmap // of each concept
	target *roaring.Bitmap   // the reachable truth: about all concepts, and found by what she could take
	known  map[string]*roaring.Bitmap

	written []map[string]bool // by concept, the families of the terms that were planted for it
}

const (
	leastTrue   = 0.3 // of the records that say a candidate
	leastChance = 3.0 // times as many as by chance
)

var milestones = []float64{0.5, 0.7, 0.8, 0.9}

func newSpecialist(records []*bib.Record, about [][]string, topic demo.Topic) *specialist {
	s := &specialist{topic: topic, known: map[string]*roaring.Bitmap{}}
	s.pool = must(tally.NewPool(context.Background(), records, nil))
	s.pool.Keep()
	s.index = coverage.Set{Records: s.pool.Records, Index: s.pool.Index}
	for _, c := range topic.Concepts {
		set := roaring.New()
		for i, names := range about {
			if slices.Contains(names, c.Name) {
				set.Add(uint32(i))
			}
		}
		s.truth = append(s.truth, set)
	}
	return s
}

// says returns the records that hold any of some forms.
func (s *specialist) says(forms []string) *roaring.Bitmap {
	all := roaring.New()
	for _, f := range forms {
		found := s.known[f]
		if found == nil {
			found = s.pool.Index.Phrase(text.Literal(text.Tokens(f)...), bib.Text)
			s.known[f] = found
		}
		all.Or(found)
	}
	return all
}

// belongs returns the concept that a candidate belongs to, or -1.
func (s *specialist) belongs(forms []string) int {
	return s.about(s.says(forms))
}

// about returns the concept that some records are about more than by chance, or -1.
func (s *specialist) about(says *roaring.Bitmap) int {
	if says.IsEmpty() {
		return -1
	}
	best, most := -1, 0.0
	for i, truth := range s.truth {
		share := float64(says.AndCardinality(truth)) / float64(says.GetCardinality())
		chance := float64(truth.GetCardinality()) / float64(len(s.pool.Records))
		if share >= leastTrue && share >= leastChance*chance && share/chance > most {
			best, most = i, share/chance
		}
	}
	return best
}

// A harvest is a search as it grows.
type harvest struct {
	*specialist
	blocks    []*roaring.Bitmap // what each block finds
	terms     [][]string        // of each block
	decisions int
	seen      map[string]bool
	reached   [][2]int // decisions and records to read at each milestone

	// candidates that were taken; of them, those for which a block was proposed by fit, and rightly
	taken, proposed, right int
	suited, rightly        int // the same by suit
}

func (s *specialist) begin() *harvest {
	h := &harvest{specialist: s, seen: map[string]bool{}}
	for _, c := range s.topic.Concepts {
		h.blocks = append(h.blocks, s.says(c.Seeds[:]))
		h.terms = append(h.terms, slices.Clone(c.Seeds[:]))
	}
	return h
}

func (h *harvest) whole() *roaring.Bitmap {
	out := h.blocks[0].Clone()
	for _, b := range h.blocks[1:] {
		out.And(b)
	}
	return out
}

func (h *harvest) any() *roaring.Bitmap {
	out := roaring.New()
	for _, b := range h.blocks {
		out.Or(b)
	}
	return out
}

// leastTogether is how many records the blocks must find together before these are looked at.
const leastTogether = 30

// together returns what all blocks find together, or what any finds, as long as that is little.
func (h *harvest) together() *roaring.Bitmap {
	if whole := h.whole(); whole.GetCardinality() >= leastTogether {
		return whole
	}
	return h.any()
}

// dropped returns what was looked at and not taken, in order.
func (h *harvest) dropped() (out []string) {
	for item := range h.seen {
		if !slices.ContainsFunc(h.terms, func(terms []string) bool { return slices.Contains(terms, item) }) {
			out = append(out, item)
		}
	}
	slices.Sort(out)
	return out
}

// decide takes or drops a candidate; it reports whether it was taken, and where.
func (h *harvest) decide(forms []string) int {
	h.decisions++
	at := h.belongs(forms)
	if at >= 0 {
		h.blocks[at].Or(h.says(forms))
		h.terms[at] = append(h.terms[at], forms...)
	}
	return at
}

// note writes down what was reached; it reports whether that was all.
func (h *harvest) note() bool {
	whole := h.whole()
	for len(h.reached) < len(milestones) {
		if float64(whole.AndCardinality(h.target)) < milestones[len(h.reached)]*float64(h.target.GetCardinality()) {
			return false
		}
		h.reached = append(h.reached, [2]int{h.decisions, int(whole.GetCardinality())})
	}
	return true
}

// strategy returns the search as the core knows it.
func (h *harvest) strategy() strategy.Strategy {
	s := strategy.Strategy{Tamiz: strategy.Version}
	for i, terms := range h.terms {
		b := strategy.Block{Name: string(rune('A' + i)), Searched: true}
		for _, t := range terms {
			b.Terms = append(b.Terms, strategy.Term{Kind: strategy.TextTerm, Text: t, Field: "text", On: true})
		}
		s.Blocks = append(s.Blocks, b)
	}
	return s
}

func forms(f tally.Family) []string {
	out := make([]string, len(f.Forms))
	for i, form := range f.Forms {
		out[i] = form.Item
	}
	return out
}

// order ranks the candidates of a set of records against the rest: as Tamiz does, or by plain frequency.
func (s *specialist) order(set *roaring.Bitmap, plain bool) []tally.Family {
	p := s.pool.Over(set, s.pool.Index.All())
	families := must(tally.Fold(context.Background(), p, nil, tally.DefaultWords)).All()
	if plain {
		slices.SortStableFunc(families, func(a, b tally.Family) int {
			return cmp.Or(cmp.Compare(b.Records, a.Records), cmp.Compare(a.Item, b.Item))
		})
	}
	return families
}

// bySuit ranks the candidates of what any block finds by two ranks, of pull and of what suits a block and is new there;
// what terms match already steps aside.
func (h *harvest) bySuit(t *testing.T, families []tally.Family, c *company.Company) ([]tally.Family, *coverage.Offers) {
	ctx := context.Background()
	plan := h.strategy()
	taken, err := coverage.TakenBy(plan, nil)
	require.NoError(t, err)
	reach := must(coverage.Find(ctx, h.index, plan))
	offers := must(
		coverage.Offered(ctx, must(coverage.NewSuits(ctx, h.index, c, plan)), c, reach.BlindSpots(), h.dropped()),
	)
	var open []tally.Family
	var all []coverage.Ordered
	for _, f := range families {
		if h.seen[f.Item] || f.Records < 2 ||
			!slices.ContainsFunc(forms(f), func(form string) bool { return !taken.Text(strings.Split(form, " ")) }) {
			continue
		}
		open = append(open, f)
		all = append(all, coverage.Ordered{Item: f.Item, Records: f.Records, Pull: f.Pull, Fresh: offers.Fresh(f.Item)})
	}
	out := make([]tally.Family, len(open))
	for k, i := range coverage.Order(all) {
		out[k] = open[i]
	}
	return out, offers
}

// run goes down the order of a set; anew after every so many decisions, where what terms match already steps aside.
func (s *specialist) run(
	t *testing.T,
	plain bool,
	anew int,
	looked func(*harvest) *roaring.Bitmap,
	c *company.Company,
	bySuit bool,
) *harvest {
	h := s.begin()
	if h.note() {
		return h
	}
	for {
		order := s.order(looked(h), plain)
		var taken coverage.Taken
		if anew > 0 {
			var err error
			taken, err = coverage.TakenBy(h.strategy(), nil)
			require.NoError(t, err)
		}
		proposals := h.proposals(t, c)
		var offers *coverage.Offers
		if bySuit {
			order, offers = h.bySuit(t, order, c)
		}
		made := 0
		for _, f := range order {
			all := forms(f)
			if h.seen[f.Item] ||
				anew > 0 && !slices.ContainsFunc(all, func(form string) bool { return !taken.Text(strings.Split(form, " ")) }) {
				continue
			}
			h.seen[f.Item] = true
			if at := h.decide(all); at >= 0 && c != nil {
				h.taken++
				if offers != nil {
					if i := best(offers, all); i >= 0 {
						h.suited++
						if i == at {
							h.rightly++
						}
					}
				}
				if i := slices.IndexFunc(all, func(form string) bool { _, ok := proposals[form]; return ok }); i >= 0 {
					h.proposed++
					if proposals[all[i]] == at {
						h.right++
					}
				}
			}
			if h.note() {
				return h
			}
			if made++; made == anew {
				break
			}
		}
		if made == 0 || anew == 0 {
			return h
		}
	}
}

// best returns the block that is proposed for an item, by the first of its forms for which any is; -1 for none.
func best(offers *coverage.Offers, forms []string) int {
	for _, form := range forms {
		if at, _ := offers.Proposed(form); at >= 0 {
			return at
		}
	}
	return -1
}

// reach works out what could be found at all: the records about every concept that some candidate of the
// order finds in each block.
func (s *specialist) reach() {
	h := s.begin()
	s.target = s.truth[0].Clone()
	for _, truth := range s.truth[1:] {
		s.target.And(truth)
	}
	for _, f := range s.order(h.any(), false) {
		h.decide(forms(f))
	}
	s.target.And(h.whole())
}

// proposals returns the block that is proposed for each item, as the blocks stand now.
func (h *harvest) proposals(t *testing.T, c *company.Company) map[string]int {
	out := map[string]int{}
	if c == nil {
		return out
	}
	fits, err := c.Fits(context.Background(), h.strategy())
	require.NoError(t, err)
	for _, f := range fits {
		if f.Proposed >= 0 {
			out[f.Item] = f.Proposed
		}
	}
	return out
}

// specialists measures how much work the orders of candidates save.
func specialists(t *testing.T, _ sizes) []row {
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	var rows []row
	for _, topic := range demo.Topics {
		s := newSpecialist(w.Records, w.About, topic)
		s.reach()
		c := must(company.Build(context.Background(), s.pool.Index, s.pool.Index.All()))
		any, together := (*harvest).any, (*harvest).together
		plain, ours, anew, best := s.run(
			t,
			true,
			0,
			any,
			nil,
			false,
		), s.run(
			t,
			false,
			0,
			any,
			nil,
			false,
		), s.run(
			t,
			false,
			5,
			any,
			nil,
			false,
		), s.run(
			t,
			false,
			5,
			together,
			c,
			false,
		)
		two, both := s.run(t, false, 5, any, c, true), s.run(t, false, 5, together, c, true)
		for i, m := range milestones {
			figure := func(h *harvest) string {
				if i >= len(h.reached) {
					return "not reached"
				}
				return fmt.Sprintf("%d (%d to read)", h.reached[i][0], h.reached[i][1])
			}
			goal := "printed"
			share := ""
			if i < len(plain.reached) && i < len(best.reached) && plain.reached[i][0] > 0 {
				share = fmt.Sprintf("; %.2f of frequency's", float64(best.reached[i][0])/float64(plain.reached[i][0]))
			}
			if m == 0.8 {
				goal = "≤ 0.20"
			}
			rows = append(
				rows,
				row{
					fmt.Sprintf("decisions until %.0f %% of %d reachable records, %s", m*100, s.target.GetCardinality(), topic.Name),
					"plain frequency: " + figure(plain),
					fmt.Sprintf(
						"our order %s; made anew after every fifth, of any block %s, of all together %s%s; with suit, of any block "+
							"%s, of all together %s",
						figure(ours),
						figure(anew),
						figure(best),
						share,
						figure(two),
						figure(both),
					),
					goal,
				},
			)
		}
		rows = append(
			rows,
			row{"block proposals right, " + topic.Name, fmt.Sprintf("%d candidates that were taken", best.taken),
				fmt.Sprintf(
					"%d proposed, %d of them right: %.2f",
					best.proposed,
					best.right,
					float64(best.right)/float64(max(1, best.proposed)),
				), "≥ 0.80"},
			row{
				"the same of the order with suit, " + topic.Name,
				fmt.Sprintf(
					"%d taken; by fit %d proposed, %d right: %.2f",
					two.taken,
					two.proposed,
					two.right,
					float64(two.right)/float64(max(1, two.proposed)),
				),
				fmt.Sprintf(
					"by suit %d proposed, %d right: %.2f",
					two.suited,
					two.rightly,
					float64(two.rightly)/float64(max(1, two.suited)),
				),
				"printed",
			},
		)
	}
	return rows
}

// must returns what was worked out; in a test nothing ends before its time.
func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}
