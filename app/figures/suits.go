package figures

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Suits is which block each item of a tally suits, and which blocks find it already; of items of which
// neither is so nothing is said.
type Suits struct {
	Items []Suit `json:"items"`
}

// A Suit is what is said of one item.
type Suit struct {
	Item   string   `json:"item"`
	Block  string   `json:"block,omitempty"`  // that it suits best
	Suit   float64  `json:"suit,omitempty"`   // how well
	Inside []string `json:"inside,omitempty"` // blocks whose terms match all its forms
	Missed int      `json:"missed,omitempty"` // key studies with it that the strategy misses
}

// Suits tells of the items of a facet which block they suit, and which find them already, by the document as
// it is saved. Words and keywords keep company; a heading keeps that of its label or, where that is no word of
// the records, of its entry terms.
func (a *Service) Suits(ctx context.Context, at desk.At, f tally.Facet) (*Suits, error) {
	if err := desk.CheckFacet(f); err != nil {
		return nil, err
	}
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	// What else the document says changes nothing here.
	said, err := json.Marshal([]any{d.Strategy, d.Document.Seeded(d.Strategy)})
	if err != nil {
		return nil, err
	}
	key := fmt.Sprint(f, d.Look.Key, " ", d.Keys.Key, " ", string(said))
	return desk.Cached(ctx, d.Pool.Suited, key, func(ctx context.Context) (*Suits, int64, error) {
		out := &Suits{Items: []Suit{}}
		missed, err := missed(d, ctx)
		if err != nil {
			return nil, 0, err
		}
		switch {
		case desk.Textual(f):
			err = suitWords(d, ctx, out, f, missed)
		case f == tally.Headings:
			err = suitHeadings(d, ctx, out, missed)
		}
		return out, int64(len(out.Items)) * 96, err // an item and its blocks, about
	})
}

// missed returns the key studies that words may be mined from and that the strategy misses.
func missed(d *desk.Desk, ctx context.Context) ([]*bib.Record, error) {
	reach, err := coverage.Find(ctx, d.Keys.MinedSet(), d.Strategy)
	if err != nil {
		return nil, err
	}
	within := d.Keys.MinedSet().Within
	var out []*bib.Record
	for i, r := range d.Keys.Set.Records {
		if n := uint32(i); !reach.Whole.Contains(n) && (within == nil || within.Contains(n)) {
			out = append(out, r)
		}
	}
	return out, nil
}

// holding returns how many of some records hold any of some forms of an item.
func holding(f tally.Facet, records []*bib.Record) func(forms []string) int {
	held := make([]map[string]bool, len(records))
	for i, r := range records {
		held[i] = tally.Held(f, r)
	}
	return func(forms []string) (n int) {
		for _, has := range held {
			if slices.ContainsFunc(forms, func(form string) bool { return has[desk.ItemKey(f, form, nil)] }) {
				n++
			}
		}
		return n
	}
}

func suitWords(d *desk.Desk, ctx context.Context, out *Suits, f tally.Facet, missed []*bib.Record) error {
	inside, err := insideOf(d, f)
	if err != nil {
		return err
	}
	proposed, err := proposed(d, ctx)
	if err != nil {
		return err
	}
	inMissed := holding(f, missed)
	put := func(item string, forms []string) {
		s := Suit{Item: item, Missed: inMissed(forms), Inside: inside(forms)}
		proposed(&s, forms) // the first is that which labels it
		if s.Block != "" || len(s.Inside) > 0 || s.Missed > 0 {
			out.Items = append(out.Items, s)
		}
	}
	t, err := d.Pool.Tally(ctx, d.Look, f, d.Keys)
	if err != nil {
		return err
	}
	for i := range t.Len() {
		if i&1023 == 0 && ctx.Err() != nil {
			return ctx.Err()
		}
		forms := t.Forms(i)
		put(forms[0], forms)
	}
	return nil
}

// proposed returns what sets the block that an item suits best, by the first of its forms that suits one.
func proposed(d *desk.Desk, ctx context.Context) (func(s *Suit, forms []string), error) {
	offers, err := offersOf(ctx, d, nil)
	if err != nil {
		return nil, err
	}
	return func(s *Suit, forms []string) {
		for _, form := range forms {
			if block, suit := offers.Proposed(text.Key(form)); block >= 0 {
				s.Block, s.Suit = d.Document.Blocks[block].ID, tally.Round(suit)
				return
			}
		}
	}, nil
}

// insideOf returns what tells which blocks find all forms of an item already, by their ids.
func insideOf(d *desk.Desk, f tally.Facet) (func(forms []string) []string, error) {
	if f == tally.Headings {
		found := map[string][]string{} // blocks by the key of a heading
		for i, b := range d.Strategy.Blocks {
			for _, t := range b.Terms {
				if !t.On || t.Kind != strategy.HeadingTerm || t.Central || len(t.Qualifiers) > 0 || t.Until != 0 {
					continue
				}
				for _, which := range headingsOf(t, d.Pool.Thesaurus) {
					for label := range d.Pool.Index.Carried(which) {
						if id := d.Document.Blocks[i].ID; !slices.Contains(found[label], id) {
							found[label] = append(found[label], id)
						}
					}
				}
			}
		}
		return func(forms []string) []string { return found[desk.ItemKey(f, forms[0], nil)] }, nil
	}
	blocks := make([]coverage.Taken, len(d.Strategy.Blocks))
	for i, b := range d.Strategy.Blocks {
		var err error
		if blocks[i], err = coverage.TakenBy(strategy.Strategy{Blocks: []strategy.Block{b}}, d.Pool.Thesaurus); err != nil {
			return nil, err
		}
	}
	return func(forms []string) (in []string) {
		tokens := make([][]string, len(forms))
		for i, form := range forms {
			tokens[i] = text.Tokens(form)
		}
		for i, taken := range blocks {
			if !slices.ContainsFunc(tokens, func(form []string) bool { return !taken.Text(form) }) {
				in = append(in, d.Document.Blocks[i].ID)
			}
		}
		return in
	}, nil
}

func suitHeadings(d *desk.Desk, ctx context.Context, out *Suits, missed []*bib.Record) error {
	inMissed := holding(tally.Headings, missed)
	inside, err := insideOf(d, tally.Headings)
	if err != nil {
		return err
	}
	proposed, err := proposed(d, ctx)
	if err != nil {
		return err
	}
	counted, err := d.Pool.Tally(ctx, d.Look, tally.Headings, d.Keys)
	if err != nil {
		return err
	}
	for _, r := range counted.Rows {
		forms := []string{r.Item}
		s := Suit{Item: r.Item, Inside: inside(forms), Missed: inMissed(forms)}
		if v := d.Pool.Thesaurus; v != nil {
			if h, ok := v.Find(r.Item); ok {
				forms = append(forms, v.EntryTerms(h)...)
			}
		}
		proposed(&s, forms)
		if s.Block != "" || len(s.Inside) > 0 || s.Missed > 0 {
			out.Items = append(out.Items, s)
		}
	}
	return nil
}

// headingsOf returns the headings that a heading term finds: of several where several stand for one.
func headingsOf(t strategy.Term, v *thesaurus.Thesaurus) (out []thesaurus.Headings) {
	q, err := t.QueryIn(v)
	any, several := q.(query.Or)
	if err != nil || !several {
		any = query.Or{q}
	}
	for _, q := range any {
		if h, ok := q.(query.Heading); ok {
			out = append(out, h.Which)
		}
	}
	return out
}

// AlikeQuestion asks for words used like those of a term, of a block, or like an item.
type AlikeQuestion struct {
	Item  string     `json:"item,omitempty"`
	Term  *desk.Term `json:"term,omitempty"`
	Block *string    `json:"block,omitempty"`
}

// Alikes is words used like others; Kept says whether the others keep any company at all.
type Alikes struct {
	Kept  bool    `json:"kept"`
	Words []Alike `json:"words"`
}

// An Alike is a word or phrase that keeps the same company, how closely, and in how many records of sample
// and contrast it stands, alone and together.
type Alike struct {
	Item     string  `json:"item"`
	Alike    float64 `json:"alike"`
	Together int     `json:"together"`
	Records  int     `json:"records"`
}

const alikeWords = 40

// Alike finds words used alike, by the company that they keep over sample and contrast together.
func (a *Service) Alike(ctx context.Context, at desk.At, q AlikeQuestion) (*Alikes, error) {
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	befriended, err := d.Pool.Befriended(ctx)
	if err != nil {
		return nil, err
	}
	out := &Alikes{Words: []Alike{}}
	var found []company.Alike
	switch {
	case q.Term != nil:
		t := q.Term.Term
		t.On = true
		found, err = befriended.AlikeTo(ctx, []strategy.Term{t}, alikeWords)
		out.Kept = len(found) > 0
	case q.Block != nil:
		i := d.Document.Block(*q.Block)
		if i < 0 {
			return nil, problems.Invalid("block", "There is no such block.")
		}
		found, err = befriended.AlikeTo(ctx, d.Strategy.Blocks[i].Terms, alikeWords)
		out.Kept = len(found) > 0
	case strings.TrimSpace(q.Item) != "":
		found, out.Kept = befriended.Alike(q.Item, alikeWords)
	default:
		return nil, problems.Invalid("item", "It is not said what the words are to be like.")
	}
	if err != nil {
		r := problems.RefusalOf(err)
		return nil, &problems.Problem{
			Type:   "refused",
			Status: 422,
			Field:  "term",
			Title:  problems.Sentence(r.Message),
			Detail: r.Reason,
		}
	}
	for _, w := range found {
		out.Words = append(out.Words, Alike(w))
	}
	return out, nil
}
