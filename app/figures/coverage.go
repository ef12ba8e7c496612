package figures

import (
	"cmp"
	"context"
	"encoding/json"
	"slices"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/store"
)

// A Coverage is the key studies against blocks and limits.
type Coverage struct {
	Studies  []CoverageStudy `json:"studies"`
	HeldBack []HeldBack      `json:"heldBack"`
	Recall   *Recall         `json:"recall,omitempty"`
	Build    *Recall         `json:"build,omitempty"` // of each half, where the key studies are split
	Test     *Recall         `json:"test,omitempty"`
}

// A CoverageStudy is how the strategy fares with one key study. Blocks are how many terms of each
// block match, in the order of the document.
type CoverageStudy struct {
	ID         int64    `json:"id"`
	Caught     bool     `json:"caught"`
	HeldBackBy []string `json:"heldBackBy"`
	Blocks     []int    `json:"blocks"`
	Limits     bool     `json:"limits"`            // inside all of them
	Half       string   `json:"half,omitempty"`    // build or test, where the key studies are split
	NotHere    bool     `json:"notHere,omitempty"` // the source whose counts are shown does not hold it
	// the source by whose record it is told; 0 for all that is known put together
	By      int64 `json:"by"`
	Indexed bool  `json:"indexed"` // that record carries headings
}

// HeldBack is how many studies just these parts hold back together.
type HeldBack struct {
	By      []string `json:"by"`
	Studies int      `json:"studies"`
}

// Coverage tells which key studies the strategy catches, and what holds back the rest.
func (a *Service) Coverage(ctx context.Context, at desk.At) (*Coverage, error) {
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	check, err := coverage.CheckKeys(ctx, d.Keys.Set, d.Strategy)
	if err != nil {
		return nil, err
	}
	out := &Coverage{Studies: []CoverageStudy{}, HeldBack: []HeldBack{}}
	caught := 0
	groups := map[string]int{}
	halves := map[string]*Recall{"build": {}, "test": {}}
	for i, s := range check.Studies {
		row := CoverageStudy{
			ID:         d.Keys.Studies[i].ID,
			Caught:     s.Caught,
			HeldBackBy: s.HeldBackBy,
			Blocks:     []int{},
			Limits:     true,
			By:         d.Keys.By[i],
			Indexed:    d.Keys.Set.Records[i].Indexed(),
		}
		for _, b := range d.Strategy.Blocks {
			row.Blocks = append(row.Blocks, len(s.CaughtBy[b.Name]))
		}
		if !d.Keys.Here(i) {
			row.NotHere, row.Caught = true, false
			out.Studies = append(out.Studies, row)
			continue
		}
		if s.Caught {
			caught++
		}
		for _, h := range s.HeldBackBy {
			row.Limits = row.Limits && !strings.HasPrefix(h, "limit:")
		}
		if d.Keys.Build != nil {
			row.Half = "build"
			if d.Keys.InTest(i) {
				row.Half = "test"
			}
			half := halves[row.Half]
			if half.Of++; s.Caught {
				half.Caught++
			}
		}
		if len(s.HeldBackBy) > 0 {
			groups[strings.Join(s.HeldBackBy, " ")]++
		}
		out.Studies = append(out.Studies, row)
	}
	out.Recall = recall(caught, d.Keys.Held())
	if d.Keys.Build != nil {
		out.Build, out.Test = recall(
			halves["build"].Caught,
			halves["build"].Of,
		), recall(
			halves["test"].Caught,
			halves["test"].Of,
		)
	}
	for by, n := range groups {
		out.HeldBack = append(out.HeldBack, HeldBack{strings.Split(by, " "), n})
	}
	slices.SortFunc(out.HeldBack, func(a, b HeldBack) int {
		return cmp.Or(cmp.Compare(b.Studies, a.Studies), slices.Compare(a.By, b.By))
	})
	return out, nil
}

// Over says over which records something is told of a block.
type Over = desk.Over

// A StudyRescue is a key study with its words marked, and what would bring it back into each block.
type StudyRescue struct {
	Record MarkedRecord  `json:"record"` // that figures go by
	Known  *StudyKnown   `json:"known"`
	Blocks []BlockRescue `json:"blocks"`
}

// A BlockRescue is how one block fares with the study.
type BlockRescue struct {
	Block      string            `json:"block"` // its id
	Terms      []string          `json:"terms"` // that match
	Missed     bool              `json:"missed"`
	Candidates []RescueCandidate `json:"candidates"`
	// by which prices are told; absent where its own words chose all there are
	Over *Over      `json:"over,omitempty"`
	Near []NearMiss `json:"near"` // what stands in the study and is all but a term of the block
}

// A NearMiss is something in a study that is all but a term of a block that misses it, with what would match it.
// Its price is absent without a sample.
type NearMiss struct {
	Kind  string    `json:"kind"`
	Term  string    `json:"term"` // of the block, in text form
	Text  string    `json:"text"` // as it stands in the study
	Mend  desk.Term `json:"mend"`
	Price *int      `json:"price,omitempty"`
}

// A RescueCandidate is a word, phrase or heading of the study that no block matches. Its price is
// absent without a sample.
type RescueCandidate struct {
	Item     string   `json:"item"`
	Kind     string   `json:"kind"`
	Rescues  int      `json:"rescues"`
	Price    *int     `json:"price,omitempty"`
	Pull     *float64 `json:"pull,omitempty"`
	Suit     *float64 `json:"suit,omitempty"`
	Worth    *float64 `json:"worth,omitempty"`
	Suits    string   `json:"suits,omitempty"`    // the block that it suits best, where that is another: its id
	Rare     bool     `json:"rare,omitempty"`     // too rare to tell whether it belongs
	Doubtful bool     `json:"doubtful,omitempty"` // it fits the block far less than the block's own words do
	Under    string   `json:"under,omitempty"`    // the shorter or longer form of it that stands before it
}

const (
	rescueCandidates = 5000 // of one block: more than the longest abstract has
	rescueMarked     = 6    // candidates marked in the text
)

// Rescue tells what would bring a key study back.
func (a *Service) Rescue(ctx context.Context, at desk.At, study int64) (*StudyRescue, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	n := slices.IndexFunc(d.Keys.Studies, func(s library.Key) bool { return s.ID == study })
	if n < 0 {
		return nil, problems.Gone(store.ErrNone, "study")
	}
	check, err := coverage.CheckKeys(ctx, d.Keys.Set, d.Strategy)
	if err != nil {
		return nil, err
	}
	rescuer, over, err := rescuer(ctx, d)
	if err != nil {
		return nil, err
	}
	dropped, err := a.dropped(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &StudyRescue{Blocks: []BlockRescue{}}
	if out.Known, err = a.known(ctx, d, at.Review, n); err != nil {
		return nil, err
	}
	var marked, nearly []text.Pattern
	for i, b := range d.Document.Blocks {
		row := BlockRescue{Block: b.ID, Terms: []string{}, Candidates: []RescueCandidate{}, Near: []NearMiss{}}
		for _, t := range check.Studies[n].CaughtBy[b.Name] {
			row.Terms = append(row.Terms, b.Terms[t].String())
		}
		row.Missed = b.Searched && !b.Negated && len(row.Terms) == 0
		if row.Missed {
			free := over[b.ID]
			row.Over = free
			candidates, err := rescuer.Study(ctx, i, n)
			if err != nil {
				return nil, err
			}
			near, err := rescuer.NearMisses(ctx, i, n)
			if err != nil {
				return nil, err
			}
			for _, m := range near {
				if dropped.has(m.Mend.Kind, cmp.Or(m.Mend.Text, m.Mend.Heading)) {
					continue
				}
				miss := NearMiss{Kind: m.Kind, Term: b.Terms[m.Term].String(), Text: m.Text, Mend: desk.Term{Term: m.Mend}}
				if free != nil {
					miss.Price = &m.Price
				}
				row.Near = append(row.Near, miss)
				if p, ok := literal(m.Text); ok && m.Mend.Kind != strategy.HeadingTerm {
					nearly = append(nearly, p)
				}
			}
			candidates = slices.DeleteFunc(candidates, func(c coverage.Candidate) bool { return dropped.has(c.Kind, c.Item) })
			for _, c := range candidates[:min(len(candidates), rescueCandidates)] {
				r := RescueCandidate{Item: c.Item, Kind: c.Kind, Rescues: c.Rescues}
				if d.Pool != nil {
					r.Suit, r.Worth, r.Rare, r.Doubtful, r.Under = &c.Suit, &c.Worth, c.Rare, c.Doubtful, c.Under
					if free != nil {
						r.Price, r.Pull = &c.Price, &c.Pull
					}
					if c.Best >= 0 && c.Best != i {
						r.Suits = d.Document.Blocks[c.Best].ID
					}
				}
				if p, ok := literal(c.Item); ok && c.Kind == strategy.TextTerm && len(row.Candidates) < rescueMarked {
					marked = append(marked, p)
				}
				row.Candidates = append(row.Candidates, r)
			}
		}
		out.Blocks = append(out.Blocks, row)
	}
	out.Record, err = markedRecord(
		d,
		library.StoredRecord{ID: d.Keys.Studies[n].StoredRecord.ID, Record: d.Keys.Set.Records[n]},
		marked,
		nearly,
	)
	return out, err
}

// rescuer prepares to rescue key studies: of two halves those of the build half alone. What a word would cost a
// block is told by records that the block's own words did not choose, by its id: among those that they chose next
// to nothing is left that it could add. A block that is not named has none.
func rescuer(ctx context.Context, d *desk.Desk) (*coverage.Rescuer, map[string]*Over, error) {
	_, suits, err := suitsOf(ctx, d)
	if err != nil {
		return nil, nil, err
	}
	set := coverage.NewSet(nil)
	if d.Pool != nil {
		set = d.Pool.Set()
	}
	r, err := coverage.NewRescuer(ctx, set, d.Keys.MinedSet(), d.Strategy, suits)
	if err != nil {
		return nil, nil, err
	}
	over := map[string]*Over{}
	for i, b := range d.Document.Blocks {
		if free := d.Free(b.ID); free != nil {
			over[b.ID] = &free.Over
			if err := r.PriceIn(ctx, i, free.Set); err != nil {
				return nil, nil, err
			}
		}
	}
	return r, over, nil
}

// suitsOf returns what tells which block a candidate suits, over all records of the pool, and the company of their
// words. Seed words of a concept count as if they were its terms.
func suitsOf(ctx context.Context, d *desk.Desk) (kept *company.Company, suits *coverage.Suits, err error) {
	seeded := d.Document.Seeded(d.Strategy)
	if d.Pool == nil {
		suits, kept, err = coverage.SuitsOf(ctx, coverage.NewSet(nil), seeded)
		return kept, suits, err
	}
	if kept, err = d.Pool.Befriended(ctx); err != nil {
		return nil, nil, err
	}
	// Every block and every study asks for the same.
	said, err := json.Marshal(seeded)
	if err != nil {
		return nil, nil, err
	}
	suits, err = desk.Cached(
		ctx,
		d.Pool.Suited,
		"of all "+string(said),
		func(ctx context.Context) (*coverage.Suits, int64, error) {
			suits, err := coverage.NewSuits(ctx, d.Pool.Set(), kept, seeded)
			return suits, bytesOfFits(kept.Len(), len(seeded.Blocks)), err
		},
	)
	return kept, suits, err
}

// bytesOfFits returns about how much memory it takes to keep how well so many items fit each of so many blocks.
func bytesOfFits(items, blocks int) int64 { return int64(items) * int64(48+8*blocks) }

// A Plan is the words and headings that would bring missed key studies back, the best bargain at each
// step first.
type Plan struct {
	Caught int        `json:"caught"` // key studies, before the first step
	Of     int        `json:"of"`     // key studies that words may be mined from
	Hits   int        `json:"hits"`   // of the strategy, before the first step
	Steps  []PlanStep `json:"steps"`
	Left   []int64    `json:"left"` // missed key studies that no step brings back
	// Blind are the blocks whose prices cannot be told: their own words chose all records there are.
	Blind []string `json:"blind,omitempty"`
}

// A PlanStep is one candidate added to its block, and how the strategy then stands.
type PlanStep struct {
	Block    string  `json:"block"` // its id
	Item     string  `json:"item"`
	Kind     string  `json:"kind"`
	Rescues  int     `json:"rescues"`
	Price    int     `json:"price"`
	Suit     float64 `json:"suit"`
	Caught   int     `json:"caught"`
	Hits     int     `json:"hits"`
	Doubtful bool    `json:"doubtful,omitempty"` // it fits the block far less than the block's own words do
}

// Plan works out a rescue plan over the sample that is looked at.
func (a *Service) Plan(ctx context.Context, at desk.At) (*Plan, error) {
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	r, over, err := rescuer(ctx, d)
	if err != nil {
		return nil, err
	}
	dropped, err := a.dropped(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &Plan{Of: d.Keys.MinedHere(), Steps: []PlanStep{}, Left: []int64{}}
	out.Caught, out.Hits = r.Standing()
	var blocks []coverage.BlockRescue
	for i, b := range d.Document.Blocks {
		if b.Searched && !b.Negated {
			if over[b.ID] == nil {
				out.Blind = append(out.Blind, b.ID)
			}
			found, err := r.Promising(ctx, i)
			if err != nil {
				return nil, err
			}
			found.Candidates = slices.DeleteFunc(
				found.Candidates,
				func(c coverage.Candidate) bool { return dropped.has(c.Kind, c.Item) },
			)
			blocks = append(blocks, found)
		}
	}
	steps, err := r.Plan(ctx, blocks)
	if err != nil {
		return nil, err
	}
	for _, s := range steps {
		out.Steps = append(
			out.Steps,
			PlanStep{d.Document.Blocks[s.Block].ID, s.Item, s.Kind, s.Rescues, s.Price, s.Suit, s.Caught, s.Hits, s.Doubtful},
		)
	}
	for _, k := range r.Left(steps) {
		out.Left = append(out.Left, d.Keys.Studies[k].ID)
	}
	return out, nil
}
